"""Cycles of a pressure control that were watched: each stop and start with box and pressure, and what to move after two of them."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.units import format_number

# So many whole cycles are watched before anything is moved; a box may miss what is wanted by so much, °F.
WATCHED: Final = 2
MISSES_BY_F: Final = 1.0


@dataclass(frozen=True)
class Moment:
    """A stop or a start: minutes since watching began, what happened (`stop` or `start`), box °F and suction psig where they were read."""

    at_min: float
    what: str
    box_f: float | None = None
    psig: float | None = None


@dataclass(frozen=True)
class Cycle:
    """One whole cycle: minutes on and off, the box at its stop and its start, °F."""

    on_min: float
    off_min: float
    stop_f: float | None
    start_f: float | None


def cycles_of(moments: Sequence[Moment]) -> list[Cycle]:
    """Return the whole cycles in what was tapped: from a start over a stop to the next start."""
    ordered = sorted(moments, key=lambda one: one.at_min)
    found = []
    for first, middle, last in zip(ordered, ordered[1:], ordered[2:], strict=False):
        if (first.what, middle.what, last.what) == ("start", "stop", "start"):
            found.append(Cycle(middle.at_min - first.at_min, last.at_min - middle.at_min, middle.box_f, last.box_f))
    return found


def told(cycles: Sequence[Cycle], warmest_f: float, coldest_f: float, psi_per_f: float) -> list[str]:
    """Return what to do after what was watched: go on, settled, or what to move by how much and why."""
    if len(cycles) < WATCHED:
        left = WATCHED - len(cycles)
        return [f"Watch {left} more whole cycle{'s' if left > 1 else ''} before anything is moved"]
    last = cycles[-1]
    said = []
    for end, seen, wanted in (("cut-in", last.start_f, warmest_f), ("cut-out", last.stop_f, coldest_f)):
        if seen is None:
            continue
        over = seen - wanted
        if abs(over) > MISSES_BY_F:
            way = "down" if over > 0 else "up"
            moment = "starts" if end == "cut-in" else "stops"
            said.append(
                f"It {moment} at {format_number(seen)} °F, {format_number(wanted)} °F is wanted: {end} {way} by "
                f"{format_number(abs(over) * psi_per_f, 0)} psi"
            )
    return said or ["Settled: it starts and stops where it is wanted"]
