"""Where a bulb belongs: round the pipe as on a clock, by its size and run, drawn.

Rules of the trade: on a level run up to 7/8 in at 12 to 2 o'clock (any upper place on small lines), larger at 4 or 8, never at the bottom
where oil runs; before any trap and before the equalizer line; on an upright pipe with the tube on top.
"""

from dataclasses import dataclass
from math import cos, pi, sin
from typing import Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number

SMALL_IN: Final = 0.875
SIZES_IN: Final = (0.25, 4.125)
RUNS: Final = {"level": "level", "upright": "upright"}
# Where a bulb sits by the words of the observation `bulb_clock`, hours on the clock.
SEEN_AT: Final = {"upper": (1.0,), "side": (3.0,), "lower": (4.0,), "bottom": (6.0,), "on_end": (12.0,)}
RADIUS: Final = 60.0
CENTRE: Final = 100.0


@dataclass(frozen=True)
class Place:
    """Where a bulb may sit: hours on the clock, from and to, and the words to it."""

    hours: tuple[tuple[float, float], ...]
    says: tuple[str, ...]


@dataclass(frozen=True)
class Arc:
    """A stretch of the pipe's edge as drawn: from and to, and the middle, in the drawing's units."""

    path: str
    x: float
    y: float


def place(size_in: float, run: str) -> Place:
    """Return where a bulb belongs on a suction line of an outer diameter, in, on a level or upright run; FieldErrors by field."""
    wrong = {}
    if not SIZES_IN[0] <= size_in <= SIZES_IN[1]:
        wrong["size_in"] = f"Pipe: {format_number(size_in, 3)} in is outside {SIZES_IN[0]:g} to {SIZES_IN[1]:g} in"
    if run not in RUNS:
        wrong["run"] = f"Run: “{run[:20]}” is none of {', '.join(RUNS)}"
    if wrong:
        raise FieldErrors(wrong)
    always = ("Two tight straps along its whole length, on clean pipe, insulated", "Before any trap, before the equalizer line")
    if run == "upright":
        return Place(((10.0, 14.0),), ("Better on a level run. Upright: its tube on top", *always))
    if size_in <= SMALL_IN:
        return Place(((10.0, 14.0),), ("Between 10 and 2, best at 12 to 2; never at the bottom, oil runs there", *always))
    return Place(((3.5, 4.5), (7.5, 8.5)), ("At 4 or 8; never at the bottom, oil runs there", *always))


def _at(hour: float, radius: float) -> tuple[float, float]:
    angle = hour / 12.0 * 2.0 * pi
    return CENTRE + radius * sin(angle), CENTRE - radius * cos(angle)


def arcs(found: Place) -> list[Arc]:
    """Return the stretches where it may sit, as drawn on a pipe of `RADIUS` about `CENTRE`."""
    drawn = []
    for start, end in found.hours:
        (x1, y1), (x2, y2), (x, y) = _at(start, RADIUS), _at(end, RADIUS), _at((start + end) / 2.0, RADIUS + 18.0)
        drawn.append(Arc(f"M{x1:.1f} {y1:.1f}A{RADIUS:g} {RADIUS:g} 0 0 1 {x2:.1f} {y2:.1f}", x, y))
    return drawn


def seen_at(word: str) -> tuple[float, float] | None:
    """Return where a bulb that was found sits in the drawing, by the word of the observation; None for none."""
    hours = SEEN_AT.get(word)
    return None if hours is None else _at(hours[0], RADIUS + 9.0)


def fits(found: Place, word: str) -> bool:
    """Whether a bulb that was found sits where it may."""
    return any(start <= (hour + shift) <= end for hour in SEEN_AT.get(word, ()) for start, end in found.hours for shift in (0.0, 12.0))
