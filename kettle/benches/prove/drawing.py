"""A box watched down as it is drawn: the expected course with its doubt, readings on it, set and the band in which superheat is judged."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits

if TYPE_CHECKING:
    from kettle.benches.prove.pull_down import Expected

WIDTH: Final = 720.0
LEFT, RIGHT, TOP, HIGH, FOOT = 62.0, 18.0, 16.0, 240.0, 34.0
LEAST_MIN: Final = 60.0
STEPS_F: Final = (2.0, 5.0, 10.0, 20.0)
STEPS_MIN: Final = (10.0, 20.0, 30.0, 60.0, 120.0, 240.0)
WITHIN_F: Final = 5.0
SHOWN_TO: Final = 1.15


@dataclass(frozen=True)
class Drawn:
    """The drawing: doubt as an area, the middle as a line, readings as dots (x, y, words), rungs, minutes, set, judged from, now."""

    area: str
    middle: str
    dots: tuple[tuple[float, float, str], ...]
    rungs: tuple[tuple[float, str], ...]
    minutes: tuple[tuple[float, str], ...]
    set_y: float
    judged_y: float
    now_x: float
    height: float


def drawn(unit: Unit, course: "Expected", readings: Sequence[tuple[float, float]], now_min: float, shown: ShownUnits = TRADE) -> Drawn:
    """Return an expected course and readings on it (minutes, °F) as a drawing, up to where it is at set for sure, or is read."""
    latest = course.at_set_min[2] or course.at_set_min[1] or course.minutes[-1]
    until = min(max(latest * SHOWN_TO, now_min * SHOWN_TO, LEAST_MIN), course.minutes[-1])
    until = max(until, *(at for at, _ in readings), LEAST_MIN)
    inside = [n for n, at in enumerate(course.minutes) if at <= until]
    high = max(course.high_f[0], *(value for _, value in readings)) + 1.0
    low = min(unit.set_f - unit.differential_f, *(course.low_f[n] for n in inside), *(value for _, value in readings)) - 1.0
    low = max(low, unit.set_f - unit.differential_f - 3.0) if all(value > unit.set_f - 4.0 for _, value in readings) else low

    def x(at: float) -> float:
        return round(LEFT + (WIDTH - LEFT - RIGHT) * at / until, 1)

    def y(value: float) -> float:
        return round(TOP + HIGH * (high - min(max(value, low), high)) / (high - low), 1)

    step = next(one for one in STEPS_F if (high - low) / one <= 8.0 or one == STEPS_F[-1])
    span = next(one for one in STEPS_MIN if until / one <= 8.0 or one == STEPS_MIN[-1])
    first = step * (low // step + 1)
    up = [f"{x(course.minutes[n])},{y(course.high_f[n])}" for n in inside]
    down = [f"{x(course.minutes[n])},{y(course.low_f[n])}" for n in reversed(inside)]
    return Drawn(
        area=" ".join([*up, *down]), middle=" ".join(f"{x(course.minutes[n])},{y(course.middle_f[n])}" for n in inside),
        dots=tuple((x(at), y(value), f"{shown.text(value, '°F')} after {at:.0f} min") for at, value in readings),
        rungs=tuple((y(first + step * n), shown.figure(first + step * n, "°F", 0)) for n in range(int((high - first) // step) + 1)),
        minutes=tuple((x(span * n), f"{span * n:.0f}" if span < 60.0 else f"{span * n / 60.0:g} h") for n in range(int(until // span) + 1)),
        set_y=y(unit.set_f), judged_y=y(unit.set_f + WITHIN_F), now_x=x(min(now_min, until)), height=TOP + HIGH + FOOT,
    )  # fmt: skip
