"""Noting: what was typed as it came to mind, and which observation or act it is.

Phrases are held against the names and words of the registry and what the trade says for them (`kettle/knowledge/said.py`), by the
likeness of their words (rapidfuzz). A figure goes to what can be measured in its unit and is plausible on the unit.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import Final

from rapidfuzz import fuzz

from kettle.judging.readings import as_typed
from kettle.knowledge import anatomy, observations, plausible
from kettle.knowledge.acts import Act
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Observation, Value
from kettle.knowledge.said import NAMES, SAID
from kettle.knowledge.unit import Unit
from kettle.knowledge.units import TRADE, ShownUnits

LONGEST: Final = 80
OFFERED: Final = 4
# Phrases less alike than this (of 100) are not meant; what is implausible on the unit counts that much less.
ALIKE: Final = 62.0
IMPLAUSIBLE: Final = 18.0
# Less of it where the very name was said: a head of 271 psig is what a stopped fan makes, not a pipe.
NAMED: Final = 0.5
_FIGURE = re.compile(r"(?P<figure>[+\-−]?\d+(?:[.,]\d+)?\s*(?:°?[a-zA-Z%Ω]+\b)?)")
_BARE = re.compile(r"[+\-−]?\d+(?:[.,]\d+)?")
# What is not so: a phrase that says that something is, is not meant by words that say it is not.
_NOT: Final = frozenset(("not", "no", "never", "isnt", "doesnt", "wont", "cant", "without"))
_IS_NOT: Final = _NOT | {
    "off", "none", "stopped", "missing", "fails", "empty", "dead", "nowhere", "nothing", "out", "failed", "open", "lost",
}  # fmt: skip
NEGATED: Final = 40.0
# A word typed that a phrase has nothing like takes so much off it; words are like each other from so much on (of 100).
LEFT_OVER: Final = 15.0
A_WORD_LIKE: Final = 60.0
# Behind a sure answer only what is about as sure is offered.
OFFERED_WITHIN: Final = 28.0
_NOISE: Final = ("the", "is", "are", "at", "a", "of", "has", "and", "reads", "to")


@dataclass(frozen=True)
class Heard:
    """One way to understand what was typed: an observation with its value, or an act; in words, and how alike (of 100)."""

    words: str
    alike: float
    entry: Observation | None = None
    value: Value | None = None
    act: Act | None = None

    @property
    def code(self) -> str:
        """Key of the observation, or part and word of the act."""
        return self.entry.key if self.entry else self.act.code if self.act else ""


def hear(text: str, unit: Unit, shown: ShownUnits = TRADE) -> tuple[Heard, ...]:
    """Return what typed words may mean on a unit, the likeliest first; empty where nothing is like them."""
    text = " ".join(text.split())[:LONGEST]
    if not _clean(text):
        return ()
    best: dict[str, Heard] = {}
    for heard in (*_words(text, unit), *_figures(text, unit, shown), *_acts(text, unit)):
        kept = best.get(heard.words)
        if heard.alike >= ALIKE and (kept is None or heard.alike > kept.alike):
            best[heard.words] = heard
    found = sorted(best.values(), key=lambda heard: -heard.alike)[:OFFERED]
    return tuple(heard for heard in found if heard.alike >= found[0].alike - OFFERED_WITHIN)


def _clean(text: str) -> str:
    kept = re.sub(r"[^\w°%Ω.+\-−/ ]", " ", text.lower().replace("’", "").replace("'", "")).split()
    return " ".join(word for word in kept if word not in _NOISE)


def _like(word: str, other: str) -> bool:
    """Whether a word is another one shortened or spelt somewhat otherwise."""
    return (len(word) > 2 and other.startswith(word)) or fuzz.ratio(word, other) >= A_WORD_LIKE


def _alike(typed: str, phrase: str) -> float:
    """How alike two phrases are (0 to 100): in their words whatever the order, and letter by letter."""
    typed_words, words = set(typed.split()), set(phrase.split())
    negated = (typed_words & _NOT and not words & _IS_NOT) or (words & _NOT and not typed_words & _IS_NOT)
    left_over = sum(not any(_like(word, other) for other in words) for word in typed_words - words - _NOT)
    alike = 0.5 * fuzz.token_sort_ratio(typed, phrase) + 0.3 * fuzz.token_set_ratio(typed, phrase) + 0.2 * fuzz.ratio(typed, phrase)
    return alike - (NEGATED if negated else 0.0) - LEFT_OVER * left_over


@cache
def _choice_phrases() -> tuple[tuple[str, str, str], ...]:
    """Every phrase that stands for a word of an observation: (phrase, key, word)."""
    found = [(_clean(phrase), key, word) for phrase, (key, word) in SAID.items()]
    for entry in observations.REGISTRY.values():
        for word, told in entry.choices:
            names = (entry.label, *NAMES.get(entry.key, ()))
            found += [(_clean(f"{name} {said}"), entry.key, word) for name in names for said in {told, word.replace("_", " ")}]
            if word == "yes":
                # Its name alone says that it is so.
                found += [(_clean(name), entry.key, word) for name in names]
    return tuple(found)


@cache
def _names() -> tuple[tuple[str, str], ...]:
    """Every name of an observed figure: (name, key)."""
    figures = [entry for entry in observations.REGISTRY.values() if entry.is_number]
    return tuple((_clean(name), entry.key) for entry in figures for name in (entry.label, *NAMES.get(entry.key, ())))


def _words(text: str, unit: Unit) -> Iterator[Heard]:
    typed = _clean(text)
    for phrase, key, word in _choice_phrases():
        entry = observations.get(key).on(unit)
        if entry.exists_on(unit):
            value = entry.check([word] if entry.many else word)
            yield Heard(f"{entry.label}: {entry.show(value)}", _alike(typed, phrase), entry, value)


def _figures(text: str, unit: Unit, shown: ShownUnits) -> Iterator[Heard]:
    for found in _FIGURE.finditer(text):
        rest = f"{text[: found.start()]} {text[found.end() :]}"
        figure, suffixed = found.group("figure"), rest
        bare = _BARE.match(figure)
        # A unit typed as a word of its own may be a word of the name: "7.2 amps".
        for typed, name in {(figure, _clean(rest)), (bare.group() if bare else figure, _clean(suffixed))}:
            if not name:
                continue
            for known, key in _names():
                alike, entry = _alike(name, known), observations.get(key)
                if alike < ALIKE or not entry.exists_on(unit):
                    continue
                try:
                    value = as_typed(entry, typed, unit, shown)
                except InputError:
                    continue
                span = plausible.usual_range(entry, unit)
                if span and isinstance(value, float) and not span[0] <= value <= span[1]:
                    alike -= IMPLAUSIBLE * (NAMED if name == known else 1.0)
                if typed != figure:
                    alike -= IMPLAUSIBLE
                yield Heard(f"{entry.label}: {entry.show(value, shown=shown)}", alike, entry, value)


def _acts(text: str, unit: Unit) -> Iterator[Heard]:
    typed = _clean(text)
    for part in anatomy.on(unit):
        for act in part.acts_on(unit):
            if not act.unit:
                yield Heard(f"Done: {act.label.lower()}", _alike(typed, _clean(act.label)), act=act)
