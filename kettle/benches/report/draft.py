"""The words of a call drafted from its record: plain sentences in the order of work, each with the records it comes from.

A fact is one record with what it holds; each kind of fact has one way to be said. Nothing is said that has no fact, and every fact of
something done is said.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from hashlib import sha256
from typing import Any, Final

SECTIONS: Final = {"found": "What was found", "done": "What was done", "advice": "Advice"}
# Labels that a word follows by itself; and of a setting that has no name of its own.
SAYS_ITSELF: Final = ("feels", "sounds", "by", "at")
OTHER: Final = "Something else"
LONGEST_KEY: Final = 280
# Kinds that a write-up must not leave out.
MUST_BE_SAID: Final = ("cause", "act", "part", "setting", "program", "override", "proof", "left_there", "leak_open")


@dataclass(frozen=True)
class Fact:
    """One record: its reference ("act:12"), its kind, and what it holds in words that are ready to be read."""

    ref: str
    kind: str
    data: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Clause:
    """One sentence of a section, and the references of the records it was written from."""

    section: str
    text: str
    refs: tuple[str, ...]

    @property
    def key(self) -> str:
        """What it is known by when somebody words it otherwise."""
        told = f"{self.section}:{'+'.join(self.refs)}"
        # One of very many records is known by the first and a sum of all.
        return told if len(told) <= LONGEST_KEY else f"{self.section}:{self.refs[0]}+{sha256(told.encode()).hexdigest()[:16]}"


def _reading(d: Mapping[str, Any]) -> str:
    if d.get("figure"):
        against = f", set {d['set']}" if d.get("set") else ""
        return f"{d['label']} found at {d['word']}{against}"
    return f"{d['label']} {d['word']}" if d["label"].endswith(SAYS_ITSELF) else f"{d['label']}: {d['word']}"


def _verdict(d: Mapping[str, Any]) -> str:
    limits = f" for {d['limits']}" if d.get("limits") else ""
    return f"{d['label']} {d['value']}, {d['state']}{limits}"


def _ice(d: Mapping[str, Any]) -> str:
    places = f", and at {_listed(d['places'])}" if d.get("places") else ""
    return f"Ice found: {d['form']} over {d['covered']} % of the coil{places}"


def _act(d: Mapping[str, Any]) -> str:
    amount = f", {d['amount']}" if d.get("amount") else ""
    coil = f" on coil {d['coil']}" if d.get("coil") else ""
    note = f" ({d['note']})" if d.get("note") else ""
    return f"{d['label']}{coil}{amount}{note}"


def _setting(d: Mapping[str, Any]) -> str:
    changes = [f"{found} changed to {left}" if label == OTHER else f"{label} from {found} to {left}" for label, found, left in d["changes"]]
    return f"{'; '.join([changes[0], *(one[:1].lower() + one[1:] for one in changes[1:])])}, because {d['why']}"


def _override(d: Mapping[str, Any]) -> str:
    if d.get("left_so"):
        return f"Left so ({d['holds']}): {d['reason']}"
    return f"{d['what']} although advised to wait ({d['holds']}), because {d['reason']}"


def _proof(d: Mapping[str, Any]) -> str:
    says = f", {d['says']}" if d.get("says") else ""
    return f"{'Proved' if d['proved'] else 'Not proved'}: {d['label']}{says}"


# Kind of fact -> the section it belongs to, and how it is said.
SAID: Final[Mapping[str, tuple[str, Callable[[Mapping[str, Any]], str]]]] = {
    "reading": ("found", _reading),
    "ice": ("found", _ice),
    "verdict": ("found", _verdict),
    "measured": ("found", lambda d: f"Measured, {d['where']}: {d['value']}"),
    "cause": ("found", lambda d: f"The cause: {d['label']}"),
    "act": ("done", _act),
    "setting": ("done", _setting),
    "part": ("done", lambda d: f"Used: {', '.join(d['parts'])}"),
    "program": ("done", lambda d: f"Defrosts from {d['found']} to {d['left']}"),
    "override": ("done", _override),
    "proof": ("done", _proof),
    "leak_open": ("advice", lambda d: f"The leak is left open on the customer's word ({d['note']})"),
    "left_there": ("advice", lambda d: f"Still there: {d['words']}"),
    "promise": ("advice", lambda d: f"We come back by {d['due']}: {d['what']}"),
}


def draft(facts: Sequence[Fact]) -> list[Clause]:
    """Return the sentences of a call from its facts, by section and within it in the order the facts stand in."""
    order = list(SECTIONS)
    said = []
    for fact, refs in _grouped(facts):
        section, words = SAID[fact.kind]
        text = words(fact.data).strip()
        said.append(Clause(section, f"{text[:1].upper()}{text[1:]}.", refs))
    return sorted(_together(said), key=lambda clause: order.index(clause.section))


def _grouped(facts: Sequence[Fact]) -> list[tuple[Fact, tuple[str, ...]]]:
    """Facts with their references; settings changed for one reason are one, and so are parts used one after the other."""
    found: list[tuple[Fact, tuple[str, ...]]] = []
    for fact in facts:
        last = found[-1][0] if found else None
        if fact.kind == "setting" and last is not None and last.kind == "setting" and last.data["why"] == fact.data["why"]:
            both = Fact(last.ref, "setting", {"why": fact.data["why"], "changes": [*last.data["changes"], *fact.data["changes"]]})
            found[-1] = (both, (*found[-1][1], fact.ref))
        elif fact.kind == "part" and last is not None and last.kind == "part":
            both = Fact(last.ref, "part", {"parts": [*last.data["parts"], *fact.data["parts"]]})
            found[-1] = (both, (*found[-1][1], fact.ref))
        else:
            found.append((fact, (fact.ref,)))
    return found


def _together(clauses: list[Clause]) -> list[Clause]:
    """Sentences that say the same become one with all their records: a fan replaced twice."""
    kept: dict[tuple[str, str], Clause] = {}
    for clause in clauses:
        before = kept.get((clause.section, clause.text))
        kept[clause.section, clause.text] = (
            clause if before is None else Clause(clause.section, clause.text, (*before.refs, *clause.refs))
        )  # fmt: skip
    return list(kept.values())


def _listed(words: Sequence[str]) -> str:
    words = [word.lower() for word in words]
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


@dataclass(frozen=True)
class Shown:
    """A sentence as it stands in the write-up: the words, whether somebody worded it, what the record says now where that is otherwise.

    `gone` marks one whose records are not there any more; `left_out` one that somebody took out.
    """

    section: str
    key: str
    text: str
    refs: tuple[str, ...]
    own: bool = False
    now_says: str = ""
    gone: bool = False
    left_out: bool = False


def shown(clauses: Sequence[Clause], worded: Mapping[str, tuple[str, str, str]]) -> list[Shown]:
    """Return sentences as they stand: `worded` maps a sentence's key to (section, what was drafted then, what somebody made of it).

    What somebody worded stands; where the record says something else by now it is marked, never overwritten. No words leave it out.
    """
    found, keys = [], set()
    for clause in clauses:
        keys.add(clause.key)
        if clause.key not in worded:
            found.append(Shown(clause.section, clause.key, clause.text, clause.refs))
            continue
        _, drafted, text = worded[clause.key]
        changed = clause.text if clause.text != drafted else ""
        found.append(Shown(clause.section, clause.key, text or clause.text, clause.refs, True, changed, False, not text))
    for key, (section, _, text) in worded.items():
        if key not in keys and text:
            found.append(Shown(section, key, text, tuple(key.partition(":")[2].split("+")), True, "", True))
    order = list(SECTIONS)
    return sorted(found, key=lambda one: order.index(one.section))


def words_of(sentences: Sequence[Shown], section: str) -> str:
    """Return a section as running text, what was left out not in it."""
    return " ".join(one.text for one in sentences if one.section == section and not one.left_out)
