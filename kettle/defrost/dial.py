"""The day dial: a program on twenty-four hours, midnight at the top, as shapes to draw."""

from dataclasses import dataclass
from math import cos, pi, sin
from typing import Final

from kettle.defrost.program import DAY_MIN, Hours, Program, clock

SIZE: Final = 420
CENTRE: Final = SIZE / 2
RIM: Final = 182.0
BAND: Final = (140.0, 170.0)
FOUND_BAND: Final = (104.0, 132.0)
HOURS_BAND: Final = (172.0, 180.0)
FAN_WAIT_MIN: Final = 5.0


@dataclass(frozen=True)
class Mark:
    """A shape of the dial: what it is (heat, drip, found, open, delivery), its path, and words for who cannot see it."""

    kind: str
    path: str
    words: str


def point(minutes: float, radius: float) -> tuple[float, float]:
    """Return the place of a time of day at a radius."""
    angle = 2 * pi * minutes / DAY_MIN - pi / 2
    return CENTRE + radius * cos(angle), CENTRE + radius * sin(angle)


def sector(start_min: float, length_min: float, inner: float, outer: float) -> str:
    """Return the path of a stretch of the day between two radii."""
    end = start_min + min(length_min, DAY_MIN - 0.5)
    (ax, ay), (bx, by) = point(start_min, outer), point(end, outer)
    (cx, cy), (dx, dy) = point(end, inner), point(start_min, inner)
    large = int(end - start_min > DAY_MIN / 2)
    return (
        f"M{ax:.1f} {ay:.1f}A{outer:.1f} {outer:.1f} 0 {large} 1 {bx:.1f} {by:.1f}"
        f"L{cx:.1f} {cy:.1f}A{inner:.1f} {inner:.1f} 0 {large} 0 {dx:.1f} {dy:.1f}Z"
    )


def ticks() -> list[tuple[float, float, float, float, str, float, float]]:
    """Return a tick for every hour: its two ends, its label (every sixth hour) and the label's place."""
    found = []
    for hour in range(24):
        inner, outer = point(hour * 60, RIM), point(hour * 60, RIM + (10 if hour % 6 == 0 else 5))
        label = {0: "midnight", 6: "6", 12: "noon", 18: "18"}.get(hour, "")
        x, y = point(hour * 60, RIM + 20)
        found.append((*inner, *outer, label, x, y))
    return found


def marks(found: Program | None, left: Program | None, hours: Hours) -> list[Mark]:
    """Return what the dial shows: hours and deliveries at the rim, the program as left (or found) as arcs, the other inside."""
    shapes = []
    if hours.opens_min is not None and hours.closes_min is not None:
        length = (hours.closes_min - hours.opens_min) % DAY_MIN
        words = f"open {clock(hours.opens_min)} to {clock(hours.closes_min)}"
        shapes.append(Mark("open", sector(hours.opens_min, length, *HOURS_BAND), words))
    shapes += [Mark("delivery", sector(at - 15, 30, *HOURS_BAND), f"delivery {clock(at)}") for at in hours.deliveries_min]
    shown = left or found
    if shown is not None:
        heat, drip = shown.values.get("fail_safe_min", 15.0), shown.values.get("drip_min", 0.0)
        for start in shown.starts_min:
            shapes.append(Mark("heat", sector(start, heat, *BAND), f"defrost {clock(start)}, {heat:.0f} min at most"))
            if drip:
                shapes.append(Mark("drip", sector(start + heat, max(drip, FAN_WAIT_MIN), *BAND), f"drip {drip:.0f} min"))
    if left is not None and found is not None:
        heat = found.values.get("fail_safe_min", 15.0)
        shapes += [Mark("found", sector(start, heat, *FOUND_BAND), f"as found {clock(start)}") for start in found.starts_min]
    return shapes
