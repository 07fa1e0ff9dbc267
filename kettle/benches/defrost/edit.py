"""Changing a program on the dial: moving, stretching, adding and taking out defrosts."""

from dataclasses import replace
from math import atan2, ceil, pi
from typing import Final

from kettle.benches.defrost.dial import CENTRE
from kettle.benches.defrost.program import DAY_MIN, MOST_STARTS, ROLES, Program
from kettle.knowledge.errors import InputError

# A hand moves a start by this grid and a length by whole minutes; the keys by the same steps.
GRID_MIN: Final = 5
WHOLE_HOUR_MIN: Final = 60

# An alarm waits so much longer than a defrost with its drip, on this step.
ALARM_OVER_MIN: Final = 15.0
ALARM_STEP_MIN: Final = 5.0

Place = tuple[float, float]


def minutes_at(place: Place) -> float:
    """Return the time of day of a place on the dial, minutes after midnight."""
    x, y = place
    return ((atan2(y - CENTRE, x - CENTRE) + pi / 2) / (2 * pi) * DAY_MIN) % DAY_MIN


def _start_of(program: Program, place: int) -> int:
    if not 0 <= place < len(program.starts_min):
        raise InputError("That defrost is not in the program any more")
    return program.starts_min[place]


def moved_to(program: Program, place: int, start_min: float, grid_min: int = GRID_MIN) -> Program:
    """Return the program with one of its defrosts starting at another time, on the grid; InputError where there is none."""
    _start_of(program, place)
    at = round(start_min / grid_min) * grid_min % DAY_MIN
    others = [start for i, start in enumerate(program.starts_min) if i != place]
    return replace(program, starts_min=tuple(sorted({*others, at})))


def dragged(program: Program, place: int, grabbed: Place, dropped: Place, grid_min: int = GRID_MIN) -> Program:
    """Return the program with a defrost moved by as much of the day as lies between two places of the dial."""
    by = minutes_at(dropped) - minutes_at(grabbed)
    return moved_to(program, place, _start_of(program, place) + by, grid_min)


def nudged(program: Program, place: int, steps: int, grid_min: int = GRID_MIN) -> Program:
    """Return the program with a defrost moved by steps of the grid."""
    return moved_to(program, place, _start_of(program, place) + steps * grid_min, grid_min)


def lasting(program: Program, fail_safe_min: float) -> Program:
    """Return the program with another fail-safe, inside what a controller takes."""
    role = ROLES["fail_safe_min"]
    kept = min(max(round(fail_safe_min), role.low), role.high)
    return replace(program, values={**program.values, "fail_safe_min": float(kept)})


def stretched(program: Program, place: int, dropped: Place) -> Program:
    """Return the program with its fail-safe reaching from a defrost's start to a place of the dial."""
    length = (minutes_at(dropped) - _start_of(program, place)) % DAY_MIN
    return lasting(program, length if length < DAY_MIN / 2 else 0.0)


def longer(program: Program, minutes: float) -> Program:
    """Return the program with a longer (or shorter) fail-safe."""
    return lasting(program, program.values.get("fail_safe_min", 0.0) + minutes)


def without(program: Program, place: int) -> Program:
    """Return the program with one defrost less."""
    _start_of(program, place)
    return replace(program, starts_min=tuple(start for i, start in enumerate(program.starts_min) if i != place))


def with_one_more(program: Program, grid_min: int = GRID_MIN) -> Program:
    """Return the program with one more start in the middle of its longest gap; InputError where it holds as many as can be."""
    starts = program.starts_min
    if len(starts) >= MOST_STARTS:
        raise InputError(f"Starts: more than {MOST_STARTS} a day")
    if not starts:
        return replace(program, starts_min=(0,))
    gaps = [((b - a) % DAY_MIN or DAY_MIN, a) for a, b in zip(starts, (*starts[1:], starts[0]), strict=True)]
    gap, begins = max(gaps, key=lambda one: (one[0], -one[1]))
    at = round((begins + gap / 2) / grid_min) * grid_min % DAY_MIN
    return replace(program, starts_min=tuple(sorted({*starts, at})))


def over(found: Program | None, planned: Program) -> Program:
    """Return a planned program over one as found: what the plan does not speak of stays; an alarm delay too short is stretched."""
    if found is None:
        return planned
    values = {**found.values, **planned.values}
    if "demand_pct" in found.values and "demand_pct" not in planned.values:
        values["demand_pct"] = 0.0
    merged = replace(planned, values=values)
    if values.get("alarm_delay_min", merged.ends_after_min) < merged.ends_after_min:
        wanted = (merged.ends_after_min + ALARM_OVER_MIN) / ALARM_STEP_MIN
        merged = replace(merged, values={**values, "alarm_delay_min": ceil(wanted) * ALARM_STEP_MIN})
    return merged
