"""Cycles of a pressure control that were watched: each stop and start with box and pressure, and what to move after two of them."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.measures import format_number
from kettle.trends.turning import turning_points

# So many whole cycles are watched before anything is moved; a box may miss what is wanted by so much, °F.
WATCHED: Final = 2
MISSES_BY_F: Final = 1.0
# Suction that turns by this much, psi, was a start or a stop: a hunting valve and a breathing gauge move it by less.
TURNS_PSI: Final = 6.0
# A box reading belongs to a start or a stop when it is no older than this, min.
BELONGS_MIN: Final = 2.0
# Starts and stops closer than this were tapped after the event and are no cycle, min.
LEAST_MIN: Final = 0.25
# What a controller says of itself, as what the compressor does; while it says anything else nothing is known of that.
RUNS: Final = {"cooling": True, "pumping down": True, "satisfied": False, "defrosting": False, "dripping": False}


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
        on_min, off_min = middle.at_min - first.at_min, last.at_min - middle.at_min
        if (first.what, middle.what, last.what) == ("start", "stop", "start") and min(on_min, off_min) >= LEAST_MIN:
            found.append(Cycle(on_min, off_min, middle.box_f, last.box_f))
    return found


def cycles_say(cycles: Sequence[Cycle], warmest_f: float, coldest_f: float, psi_per_f: float) -> list[str]:
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


def heard(suction: Sequence[tuple[float, float]], box: Sequence[tuple[float, float]] = ()) -> list[Moment]:
    """Return the starts and stops that suction shows by itself, from (minute, psig) in their order; `box` is (minute, °F) beside it.

    Suction falls from a start and rises from a stop: its highest and lowest points are the moments, each known once it has turned by
    `TURNS_PSI`. The first stretch has no beginning that was seen, so what it ends with is the first moment.
    """
    turned = turning_points(suction, TURNS_PSI)
    return [_moment("start" if one.highest else "stop", (one.at_min, one.value), box) for one in turned]


def _moment(what: str, point: tuple[float, float], box: Sequence[tuple[float, float]]) -> Moment:
    beside = min(box, key=lambda one: abs(one[0] - point[0]), default=None)
    known = beside is not None and abs(beside[0] - point[0]) <= BELONGS_MIN
    return Moment(point[0], what, beside[1] if beside is not None and known else None, point[1])


def shown_state(state: str, state_min: float, now_min: float, box_f: float | None) -> Moment | None:
    """Return the start or the stop that a controller's state stands for (`cooling` for 12 minutes: a start 12 minutes ago); None where
    its state says nothing of the compressor. The box is kept only where it was read about then."""
    if state not in RUNS:
        return None
    return Moment(now_min - state_min, "start" if RUNS[state] else "stop", box_f if state_min <= BELONGS_MIN else None)
