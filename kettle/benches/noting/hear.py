"""Noting: what was typed as it came to mind, and which facts and acts it is.

A phrase is understood for sure only where every word of it was said and nothing else: that is taken by Enter. What is merely like one is
offered, and taken by whoever taps it. An act needs its verb in the past. What is neither stays as words, at the part it names.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

from kettle.benches.noting import figures, phrases
from kettle.benches.noting.tokens import joined, spelt, tokens
from kettle.knowledge import acts, anatomy, looks, observations
from kettle.knowledge.acts import Act
from kettle.knowledge.equipment import Unit
from kettle.knowledge.looks import Look
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.observations import Observation, Value
from kettle.knowledge.said import NOT_HERE

LONGEST: Final = 160
OFFERED: Final = 4
MOST_WORDS: Final = 18
# Phrases less alike than this (of 100) are not meant; behind the likeliest only what is about as likely is offered.
ALIKE: Final = 58.0
OFFERED_WITHIN: Final = 20.0
_SEPARATORS: Final = re.compile(r"\s*(?:;|\n|,(?!\d)|\.\s|\bbut\b|\bthen\b)\s*")
_AND: Final = re.compile(r"\s+(?:and|&|\+)\s+")
# The coil of several that is spoken of.
_COIL: Final = re.compile(r"\bcoil (?:no\.? |# ?)?([1-9])\b(?![.,]?\d)")


@dataclass(frozen=True)
class Heard:
    """One way to understand what was typed: an observation with its value, a part's look or temperature, or an act; in words.

    `alike` is how alike (of 100); `sure` what may be kept without being chosen.
    """

    words: str
    alike: float
    sure: bool = False
    entry: Observation | None = None
    value: Value | None = None
    act: Act | None = None
    look: Look | None = None
    spot: tuple[str, float] | None = None

    @property
    def code(self) -> str:
        """Key of the observation, or part and word of the act or look."""
        if self.entry:
            return self.entry.key
        return self.act.code if self.act else f"{self.look.part}.{self.look.state}" if self.look else self.spot[0] if self.spot else ""


@dataclass(frozen=True)
class Piece:
    """One fact of what was typed: its words, what they may mean (the likeliest first), why a figure is refused, the part they name."""

    said: str
    choices: tuple[Heard, ...] = ()
    refusal: str = ""
    part: str = ""
    coil: int | None = None

    @property
    def sure(self) -> Heard | None:
        """What is kept of it without being chosen."""
        return self.choices[0] if self.choices and self.choices[0].sure else None

    @property
    def as_words(self) -> str:
        """How it is kept where it means nothing else."""
        return f"In words, at {anatomy.get(self.part).label.lower()}" if self.part else "In words"


def hear(text: str, unit: Unit, shown: ShownUnits = TRADE) -> tuple[Piece, ...]:
    """Return the facts of what was typed on a unit, in order; empty where nothing was said."""
    text = " ".join(text.split())[:LONGEST].strip(" ,;.")
    if not tokens(text) or not re.search(r"[^\W\d_]", text):
        return ()
    coil = _COIL.search(text.lower())
    on = int(coil[1]) if coil and 1 < unit.evaporators >= int(coil[1]) else None
    if on:
        text = f"{text[: coil.start()]}coil{text[coil.end() :]}" if coil else text
    pieces = list(_pieces(text, unit, shown))
    # Of two words for one thing nobody knows which stands.
    keys = [piece.sure.code for piece in pieces if piece.sure and not (piece.sure.entry and piece.sure.entry.many)]
    twice = {key for key in keys if keys.count(key) > 1}
    return tuple(replace(_unsure(piece) if piece.sure and piece.sure.code in twice else piece, coil=on) for piece in pieces)


def _unsure(piece: Piece) -> Piece:
    return replace(piece, choices=tuple(replace(choice, sure=False) for choice in piece.choices))


def _pieces(text: str, unit: Unit, shown: ShownUnits) -> Iterator[Piece]:
    whole = _piece(text, unit, shown)
    clauses = [clause for clause in _SEPARATORS.split(text) if clause.strip()]
    if whole.sure or len(clauses) < 2:
        yield from [whole] if whole.sure else _several(text, whole, unit, shown)
        return
    about: tuple[str, ...] = ()
    for clause in clauses:
        piece = _piece(clause, unit, shown)
        if not piece.sure and about and not set(_spelt(clause)) & phrases.naming():
            # What has no name of its own is said of what was named last.
            carried = _piece(f"{' '.join(about)} {clause}", unit, shown)
            piece = replace(carried, said=clause) if carried.sure else piece
        else:
            about = tuple(word for word in _spelt(clause) if word in phrases.naming()) or about
        yield from [piece] if piece.sure else _several(clause, piece, unit, shown)


def _several(clause: str, piece: Piece, unit: Unit, shown: ShownUnits) -> list[Piece]:
    """A clause that is several facts in a row, or itself."""
    for parts in (_AND.split(clause), _by_figure(clause), _by_phrase(clause, unit)):
        if len(parts) > 1:
            found = [_piece(part, unit, shown) for part in parts]
            if all(one.sure for one in found):
                return found
    return [piece]


def _by_figure(clause: str) -> list[str]:
    """A clause cut behind its figures, or before them where it starts with one."""
    text = joined(clause)
    found = figures.figures(text)
    if len(found) < 2:
        return [clause]
    cuts = [one.start for one in found[1:]] if not text[: found[0].start].strip() else [one.end for one in found[:-1]]
    return [text[a:b].strip() for a, b in pairwise((0, *cuts, len(text)))]


def _by_phrase(clause: str, unit: Unit) -> list[str]:
    """A clause cut into the fewest whole phrases that each name what they are of."""
    words = clause.split()
    if len(words) > MOST_WORDS:
        return [clause]
    best: list[list[str] | None] = [[]]
    for end in range(1, len(words) + 1):
        ways = []
        for start in range(end):
            said, before = " ".join(words[start:end]), best[start]
            typed = _spelt(said)
            if before is not None and set(typed) & phrases.naming() and len(phrases.said_whole(typed, unit)) == 1:
                ways.append([*before, said])
        best.append(min(ways, key=len) if ways else None)
    return best[-1] or [clause]


def _spelt(text: str) -> tuple[str, ...]:
    return tuple(spelt(word, phrases.vocabulary()) for word in tokens(text))


def _piece(said: str, unit: Unit, shown: ShownUnits) -> Piece:
    """One clause taken as one fact."""
    text = joined(said)
    found = figures.figures(text)
    words = _spelt(said)
    plain = tuple(word for word in words if not re.fullmatch(r"[\d.,+-]+", word))
    part = phrases.part_named(plain, unit)
    for pattern, why in NOT_HERE:
        if re.search(pattern, text):
            return Piece(said, (), why, part)
    a_day = figures.every_hours(text)
    if a_day is not None:
        entry = observations.get("defrosts_per_day")
        if entry.exists_on(unit) and set(plain) <= {"every", "defrost"} | set(tokens("hours")) | {"h", "hr"}:
            return Piece(said, (_observed(entry, entry.check(round(a_day)), 100.0, True, shown),), "", part)
    if len(found) == 1:
        return _with_figure(said, text, found[0], part, unit, shown)
    choices = list(_in_words(words, unit, shown))
    choices += _no_way_through(words, unit, shown)
    return Piece(said, _ranked(choices), "", part)


def _with_figure(said: str, text: str, figure: figures.Figure, part: str, unit: Unit, shown: ShownUnits) -> Piece:
    rest = f"{text[: figure.start]} {text[figure.end :]}"
    words = _spelt(rest)
    named = figures.named(words, figure.measures, unit)
    reads, why = figures.read(named, figure, unit, shown)
    if reads:
        usual = [one for one in reads if one.usual]
        alone = len(usual) == 1 or (len(reads) == 1 and figure.measures != "" and reads[0].usual)
        return Piece(said, _ranked([_observed(one.entry, one.value, 100.0 - 10 * (not one.usual), alone and one.usual, shown)
                                    for one in reads]), "", part)  # fmt: skip
    spot = _spot(words, figure, unit, shown)
    if spot:
        return Piece(said, (spot,), "", part)
    if named:
        return Piece(said, (), why, part)
    near = [_observed(one.entry, one.value, one.alike, False, shown) for one in figures.like(words, figure, unit, shown)]
    return Piece(said, _ranked(near), "", part)


def _spot(words: tuple[str, ...], figure: figures.Figure, unit: Unit, shown: ShownUnits) -> Heard | None:
    """How warm a part was that was named, where degrees were said."""
    if figure.measures != "a temperature":
        return None
    for part in anatomy.on(unit):
        if any(frozenset(tokens(name)) == frozenset(words) for name in phrases.names_of(part.code)):
            temp_f = shown.parse(figure.typed, "°F")
            return Heard(f"{part.label}: {shown.text(temp_f, '°F')} by thermometer", 100.0, True, spot=(part.code, temp_f))
    return None


def _no_way_through(words: tuple[str, ...], unit: Unit, shown: ShownUnits) -> Iterator[Heard]:
    """Ohms of what a meter finds no way through: "c to s OL"."""
    for word in set(words) & figures.OPEN:
        for entry in figures.named(tuple(one for one in words if one != word), "a resistance", unit):
            if entry.unit == "Ω":
                yield _observed(entry, entry.parse("OL", shown), 100.0, True, shown)


def _in_words(words: tuple[str, ...], unit: Unit, shown: ShownUnits) -> Iterator[Heard]:
    whole = phrases.said_whole(words, unit)
    for meant in whole:
        yield _meant(meant, 100.0, len(whole) == 1, unit, shown)
    for meant, alike in phrases.like(words, unit) if not whole else ():
        if alike >= ALIKE:
            yield _meant(meant, min(alike, 99.0), False, unit, shown)


def _meant(meant: phrases.Meant, alike: float, sure: bool, unit: Unit, shown: ShownUnits) -> Heard:
    if meant.sort == phrases.DONE:
        act = acts.get(meant.one, meant.other)
        return Heard(f"Done: {act.label.lower()}", alike, sure, act=act)
    if meant.sort == phrases.SEEN:
        look = looks.get(meant.one, meant.other)
        return Heard(f"Seen: {look.label.lower()}", alike, sure, look=look)
    entry = observations.get(meant.one).on(unit)
    return _observed(entry, entry.check([meant.other] if entry.many else meant.other), alike, sure, shown)


def _observed(entry: Observation, value: Value, alike: float, sure: bool, shown: ShownUnits) -> Heard:
    return Heard(f"{entry.label}: {entry.show(value, shown=shown)}", alike, sure, entry, value)


def _ranked(choices: list[Heard]) -> tuple[Heard, ...]:
    """The likeliest first, each once; with a sure one nothing else is asked."""
    best: dict[str, Heard] = {}
    for heard in choices:
        kept = best.get(heard.words)
        if kept is None or (heard.sure, heard.alike) > (kept.sure, kept.alike):
            best[heard.words] = heard
    found = sorted(best.values(), key=lambda heard: (not heard.sure, -heard.alike))
    sure = [heard for heard in found if heard.sure]
    if len(sure) == 1:
        return tuple(sure)
    found = [replace(heard, sure=False) for heard in found]
    return tuple(heard for heard in found[:OFFERED] if heard.alike >= found[0].alike - OFFERED_WITHIN)
