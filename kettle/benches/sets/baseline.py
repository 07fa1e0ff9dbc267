"""Sets of readings lined up: what moved from one to the next, and against what the unit itself ran when it was well."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.judging.facts import Facts
from kettle.knowledge import observations
from kettle.knowledge.measures import ShownUnits
from kettle.knowledge.quantities import QUANTITIES

# Read and worked out, in the order they are lined up.
LINED_UP: Final = (
    "superheat_evap_f", "superheat_comp_f", "td_f", "delta_t_f", "split_f", "approach_f", "rise_f", "subcooling_f", "sst_f",
    "sct_f", "ratio", "amps_pct", "suction_psig", "discharge_psig", "suction_line_evap_f", "suction_line_comp_f",
    "liquid_line_f", "discharge_line_f", "box_temp_f", "return_air_f", "supply_air_f", "ambient_f", "compressor_amps",
    "receiver_level_pct",
)  # fmt: skip
# Told against the unit's own baseline; smaller differences are within what a field reading is good to.
COMPARED: Final[dict[str, float]] = {
    "superheat_evap_f": 2.0, "superheat_comp_f": 4.0, "td_f": 2.0, "delta_t_f": 2.0, "split_f": 3.0, "approach_f": 2.0,
    "rise_f": 2.0, "subcooling_f": 2.0, "amps_pct": 6.0,
}  # fmt: skip
SAME_AMBIENT_F: Final = 8.0


@dataclass(frozen=True)
class Row:
    """One figure over several sets: key, label, stored unit, a value for each set (None where it was not taken) and the
    difference of each against the one before it that has a value."""

    key: str
    label: str
    unit: str
    decimals: int
    values: tuple[float | None, ...]
    differences: tuple[float | None, ...]


@dataclass(frozen=True)
class Drift:
    """A quantity against the unit's own baseline: now, then, and how far it moved in words."""

    key: str
    now: float
    then: float
    words: str


def figure_of(facts: Facts, key: str) -> float | None:
    """Return a figure of a set in the unit of its quantity, worked out or read; None where it has none."""
    return facts.derived.get(key, facts.number(key))


def line_up(sets: Sequence[Facts]) -> list[Row]:
    """Return every figure that any of the sets has, with its values side by side and what moved in between."""
    rows = []
    for key in LINED_UP:
        values = tuple(figure_of(facts, key) for facts in sets)
        if all(value is None for value in values):
            continue
        differences: list[float | None] = []
        last: float | None = None
        for value in values:
            differences.append(value - last if value is not None and last is not None else None)
            last = value if value is not None else last
        named = QUANTITIES[key] if key in QUANTITIES else observations.get(key)
        rows.append(Row(key, named.label, named.unit, named.decimals, values, tuple(differences)))
    return rows


def closest(ambient_f: float | None, baselines: Mapping[int, float | None]) -> int | None:
    """Return which baseline to hold today against: the nearest in ambient °F, the latest where ambient is not known.

    `baselines` maps a number to its ambient, latest first; None where there is none.
    """
    if not baselines:
        return None
    known = {number: ambient for number, ambient in baselines.items() if ambient is not None}
    if ambient_f is None or not known:
        return next(iter(baselines))
    return min(known, key=lambda number: abs(known[number] - ambient_f))


def drifts(now: Facts, then: Facts, when: str, shown: ShownUnits) -> list[Drift]:
    """Return the quantities that lie further from a baseline than reading error, furthest first, in words.

    `when` names the baseline's time. Ambient is told with it, since head, split and amps follow the weather.
    """
    found = []
    for key, worth in COMPARED.items():
        here, there = now.derived.get(key), then.derived.get(key)
        if here is None or there is None or abs(here - there) < worth:
            continue
        quantity = QUANTITIES[key]
        unit = "°F diff" if quantity.unit == "°F" else quantity.unit
        moved = shown.text(abs(here - there), unit, 0)
        side = "above" if here > there else "below"
        words = f"{quantity.label} {moved} {side} what it ran {when}{_ambient_words(now, then, shown)}"
        found.append((abs(here - there) / worth, Drift(key, here, there, words)))
    return [drift for _, drift in sorted(found, key=lambda pair: -pair[0])]


def _ambient_words(now: Facts, then: Facts, shown: ShownUnits) -> str:
    here, there = now.number("ambient_f"), then.number("ambient_f")
    if here is None or there is None:
        return ""
    if abs(here - there) <= SAME_AMBIENT_F:
        return " at about the same ambient"
    return f" at {shown.text(there, '°F', 0)} outside, against {shown.text(here, '°F', 0)} now"
