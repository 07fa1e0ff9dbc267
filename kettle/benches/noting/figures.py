"""A figure with its unit, and what was measured: the unit that was named decides, and one of another quantity is refused."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from typing import Final

from rapidfuzz import fuzz

from kettle.benches.noting.phrases import naming
from kettle.benches.noting.tokens import joined, tokens
from kettle.judging.readings import as_typed
from kettle.knowledge import observations, plausible
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import MEASURED, ShownUnits, measured_in
from kettle.knowledge.observations import Observation, Value
from kettle.knowledge.said import NAMES, REMARKS

_FIGURE: Final = re.compile(
    r"(?<![\w.])(?P<value>[+-]?\d+(?:,\d{3})+(?![\d])|[+-]?\d+(?:[.,]\d+)?)\s*"
    r"(?P<unit>°\s?[fc]\b|deg(?:ree)?s?\.?(?:\s?[fc]\b)?|(?:in\.?|\"|″)\s?hg\b|[a-zµ%]+(?![\w]))?"
)
_DEGREES: Final = re.compile(r"(?:°|deg(?:ree)?s?\.?)\s?([fc]?)")
# What a unit says of what was measured, where the name alone does not.
_SAID_BY_UNIT: Final = {
    "a pressure": "pressure", "a temperature": "temperature", "a current": "amps", "a voltage": "volts", "a resistance": "ohms",
    "a vacuum": "vacuum", "a power": "watts", "a share": "percent",
}  # fmt: skip
# What a meter says that finds no way through.
OPEN: Final = frozenset(("ol", "open", "infinite", "infinity", "infinit"))
A_NAME_LIKE: Final = 62.0


@dataclass(frozen=True)
class Figure:
    """A figure as it was typed: where, its digits, its unit as the core reads it, what that measures (empty where no unit was named)."""

    start: int
    end: int
    digits: str
    unit: str
    measures: str

    @property
    def typed(self) -> str:
        """Digits and unit."""
        return f"{self.digits} {self.unit}".strip()


@dataclass(frozen=True)
class Read:
    """A figure understood: observation, value, whether it is as it is usually seen, how alike its name was (of 100)."""

    entry: Observation
    value: Value
    usual: bool
    alike: float


def figures(text: str) -> tuple[Figure, ...]:
    """Return the figures of a text that is already `joined`, in order."""
    found = []
    for match in _FIGURE.finditer(text):
        unit, end = (match["unit"] or "").strip(), match.end()
        degrees = _DEGREES.fullmatch(unit) if unit else None
        if degrees:
            # Degrees without their letter are the reader's own.
            unit = degrees[1]
        elif "hg" in unit:
            unit = "inhg"
        elif unit and not measured_in(unit):
            unit, end = "", match.end("value")
        measures = MEASURED["°F"] if degrees else measured_in(unit)
        found.append(Figure(match.start(), end, match["value"], unit, measures))
    return tuple(found)


@cache
def _names() -> dict[frozenset[str], tuple[str, ...]]:
    """Every name of a figure, by its words: the keys it can be."""
    found: dict[frozenset[str], list[str]] = {}
    for entry in observations.REGISTRY.values():
        if entry.is_number:
            for name in (entry.label, *NAMES.get(entry.key, ())):
                keys = found.setdefault(frozenset(tokens(name)), [])
                if entry.key not in keys:
                    keys.append(entry.key)
    return {name: tuple(keys) for name, keys in found.items()}


def named(words: tuple[str, ...], measures: str, unit: Unit) -> tuple[Observation, ...]:
    """Return the figures whose whole name these words are, with what their unit says of it."""
    kept = frozenset(word for word in words if word not in REMARKS)
    said = frozenset(tokens(_SAID_BY_UNIT.get(measures, "")))
    keys = dict.fromkeys(key for name in (kept | said, kept, kept - said) if name for key in _names().get(name, ()))
    found = tuple(observations.get(key).on(unit) for key in keys if observations.get(key).exists_on(unit))
    # Without a unit it is what is called so, before what is merely called so too.
    own = tuple(entry for entry in found if frozenset(tokens(entry.label)) == kept)
    return own if own and not measures else found


def read(found: tuple[Observation, ...], figure: Figure, unit: Unit, shown: ShownUnits) -> tuple[tuple[Read, ...], str]:
    """Return what a figure is of what was named, and why it is none of it."""
    reads, why = [], ""
    for entry in found:
        try:
            value = as_typed(entry, figure.typed, unit, shown)
        except InputError as error:
            why = why or str(error)
            continue
        reads.append(Read(entry, value, is_usual(entry, value, unit), 100.0))
    return tuple(sorted(reads, key=lambda one: not one.usual)), "" if reads else why


def is_usual(entry: Observation, value: Value, unit: Unit) -> bool:
    """Whether a figure is one that is seen in service."""
    span = plausible.usual_range(entry, unit)
    return span is None or (isinstance(value, float) and span[0] <= value <= span[1])


def like(words: tuple[str, ...], figure: Figure, unit: Unit, shown: ShownUnits) -> Iterator[Read]:
    """Yield what a figure may be whose name is not quite one."""
    about, said = set(words) & naming(), " ".join(words)
    for name, keys in _names().items():
        if not about or about - name:
            continue
        alike = fuzz.token_sort_ratio(said, " ".join(sorted(name)))
        entries = tuple(observations.get(key).on(unit) for key in keys if observations.get(key).exists_on(unit))
        if alike >= A_NAME_LIKE:
            for one in read(entries, figure, unit, shown)[0]:
                yield Read(one.entry, one.value, one.usual, alike - 15.0 * (not one.usual))


def every_hours(text: str) -> float | None:
    """Return the defrosts a day of "every 4 h"; None where that is not what was said."""
    found = re.search(r"\bevery (\d{1,2}(?:[.,]\d)?) ?(?:h|hr|hrs|hour|hours)\b", joined(text))
    hours = float(found[1].replace(",", ".")) if found else 0.0
    return 24.0 / hours if hours >= 0.5 else None
