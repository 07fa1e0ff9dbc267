"""Every phrase of the registry, of looks and of acts, by its words: what is said whole is sure, what is like it offered."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import Final

from rapidfuzz import fuzz

from kettle.benches.noting.tokens import tokens
from kettle.knowledge import acts, anatomy, looks, observations
from kettle.knowledge.equipment import Unit
from kettle.knowledge.said import ACTS, LOOKS, NAMES, NAMES_OF_PARTS, NOT, REMARKS, SAID, VERBS

OBSERVED, SEEN, DONE = "observed", "seen", "done"
# A typed word is like a word of a phrase from so much on (of 100).
A_WORD_LIKE: Final = 82.0
# One of the fans, and all of them: which is meant is asked.
ONE_OR_ALL: Final = frozenset(("fan", "fans"))
LEAST_LETTERS: Final = 4


@dataclass(frozen=True)
class Meant:
    """What a phrase stands for: an observation's word (key, word), a part's look (part, state), or an act (part, what was done)."""

    sort: str
    one: str
    other: str

    @property
    def part(self) -> str:
        """The part it is of."""
        return anatomy.part_of(self.one).code if self.sort == OBSERVED else self.one

    def exists_on(self, unit: Unit) -> bool:
        """Whether a unit built like this has it."""
        if self.sort == OBSERVED:
            return observations.get(self.one).exists_on(unit)
        part = anatomy.get(self.one)
        if self.sort == SEEN:
            return part.exists_on(unit) and looks.get(self.one, self.other).exists_on(unit)
        return part.exists_on(unit) and acts.get(self.one, self.other) in part.acts_on(unit)


@cache
def phrases() -> dict[frozenset[str], tuple[Meant, ...]]:
    """Return what each phrase can stand for, by its words whatever their order."""
    found: dict[frozenset[str], list[Meant]] = {}
    for words, meant in (*_observed(), *_looks(), *_acts()):
        key = frozenset(tokens(words))
        if key and meant not in found.setdefault(key, []):
            found[key].append(meant)
    return {key: tuple(several) for key, several in found.items()}


def _observed() -> Iterator[tuple[str, Meant]]:
    for phrase, (key, word) in SAID.items():
        yield phrase, Meant(OBSERVED, key, word)
    for entry in observations.REGISTRY.values():
        for word, told in entry.choices:
            meant = Meant(OBSERVED, entry.key, word)
            names = (entry.label, *NAMES.get(entry.key, ()))
            for name in names:
                yield from ((f"{name} {said}", meant) for said in {told, word.replace("_", " ")})
                if word == "yes":
                    # Its name alone says that it is so.
                    yield name, meant


def _looks() -> Iterator[tuple[str, Meant]]:
    for look in looks.LOOKS.values():
        meant = Meant(SEEN, look.part, look.state)
        yield look.label, meant
        yield from ((phrase, meant) for phrase in LOOKS.get(f"{look.part}.{look.state}", ()))
        yield from ((f"{name} {look.state.replace('_', ' ')}", meant) for name in names_of(look.part))


def _acts() -> Iterator[tuple[str, Meant]]:
    for act in acts.ACTS.values():
        if act.unit or act.bench:
            continue
        meant, verb = Meant(DONE, act.part, act.did), act.did.rpartition("_")[2]
        yield act.label, meant
        yield from ((phrase, meant) for phrase in ACTS.get(act.code, ()))
        if act.did in VERBS:
            yield from ((f"{name} {verb}", meant) for name in names_of(act.part))


@cache
def names_of(part: str) -> tuple[str, ...]:
    """Return what a part is called."""
    return (anatomy.get(part).label, *NAMES_OF_PARTS.get(part, ()))


@cache
def naming() -> frozenset[str]:
    """Return the words that name a part or an observation: what is typed of one of these is about it and nothing else."""
    names = [name for part in anatomy.PARTS for name in names_of(part)]
    names += [name for entry in observations.REGISTRY.values() for name in (entry.label, *NAMES.get(entry.key, ()))]
    return frozenset(word for name in names for word in tokens(name)) - _STATES


_STATES: Final = frozenset(("off", "in", "out", "on", "open", "read", "wrong", "still", "kept", "set", "rest", "low", "high", "what"))


@cache
def vocabulary() -> frozenset[str]:
    """Return every word that some phrase or name has."""
    return frozenset(word for phrase in phrases() for word in phrase) | naming() | NOT | REMARKS | frozenset(VERBS)


def said_whole(words: tuple[str, ...], unit: Unit) -> tuple[Meant, ...]:
    """Return what these words are the whole phrase of, on a unit; a remark beside it takes nothing away from it."""
    for kept in (words, tuple(word for word in words if word not in REMARKS)):
        found = tuple(meant for meant in phrases().get(frozenset(kept), ()) if meant.exists_on(unit))
        if found:
            said = {(meant.one, meant.other) for meant in found if meant.sort == OBSERVED}
            # A look that is an observation in other words is that observation.
            found = tuple(m for m in found if m.sort != SEEN or looks.get(m.one, m.other).says not in said)
            return _surest(found, frozenset(kept), unit)
    return ()


def _surest(found: tuple[Meant, ...], words: frozenset[str], unit: Unit) -> tuple[Meant, ...]:
    """An act whose words are part of one on another part may be that one: "fan replaced"."""
    if found[0].sort != DONE:
        return found
    wider = [m for key, several in phrases().items() if words < key for m in several if m.sort == DONE and m.exists_on(unit)]
    return (*found, *(m for m in dict.fromkeys(wider) if m.one not in {one.one for one in found}))


def like(words: tuple[str, ...], unit: Unit) -> Iterator[tuple[Meant, float]]:
    """Yield what may be meant, with how alike, % of the letters.

    Nothing that says the opposite; nothing about another part than those that were named; an act only where its verb was said, a state
    only where none was.
    """
    typed, about = set(words) - REMARKS, set(words) & naming()
    verbs, said = typed & set(VERBS), " ".join(words)
    for phrase, several in phrases().items():
        if about - phrase - (ONE_OR_ALL if phrase & ONE_OR_ALL else frozenset()) or bool(typed & NOT) != bool(phrase & NOT):
            continue
        rest = typed - about - phrase
        others = phrase - typed
        if not (typed & phrase) or any(not _like(word, others) for word in rest):
            continue
        for meant in several:
            if (verbs <= phrase and bool(verbs)) != (meant.sort == DONE) or not meant.exists_on(unit):
                continue
            told = " ".join(sorted(phrase))
            yield meant, 0.5 * fuzz.token_sort_ratio(said, told) + 0.5 * fuzz.token_set_ratio(said, told)


def _like(word: str, others: frozenset[str]) -> bool:
    """Whether a word is one of others shortened or spelt somewhat otherwise."""
    if len(word) < LEAST_LETTERS:
        return len(word) > 2 and any(other.startswith(word) for other in others)
    return any(other.startswith(word) or fuzz.ratio(word, other) >= A_WORD_LIKE for other in others)


def part_named(words: tuple[str, ...], unit: Unit) -> str:
    """Return the part that words are about: the one whose name is said whole, the longest first; else by the first word that names one."""
    best, much = "", 0.0
    for part in anatomy.on(unit):
        observed = [name for entry in part.observed_on(unit) for name in (entry.label, *NAMES.get(entry.key, ()))]
        label = _named(words, part.label) if set(tokens(part.label)) <= set(words) else 0.0
        own = max(label, *(_named(words, name) for name in NAMES_OF_PARTS.get(part.code, ())), 0.0) + 0.5
        other = max((_named(words, name) for name in observed if set(tokens(name)) <= set(words)), default=0.0)
        much, best = max((much, best), (own, part.code), (other, part.code), key=lambda pair: pair[0])
    return best if much > 0.5 else ""


def _named(words: tuple[str, ...], name: str) -> float:
    """How much of a name was said: each word that names something, and all of it more."""
    said = tokens(name)
    hits = sum(word in words and word in naming() for word in said)
    return hits * 2.0 + 3.0 * (hits == len(said) > 0)
