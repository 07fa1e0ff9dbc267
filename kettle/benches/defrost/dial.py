"""The day dial: a program on twenty-four hours, midnight at the top, and round it frost and box by the model, as shapes to draw."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, pi, sin
from typing import Final

from kettle.benches.defrost.program import DAY_MIN, Hours, Program, clock
from kettle.knowledge.measures import TRADE, ShownUnits

SIZE: Final = 500
CENTRE: Final = SIZE / 2
# Rings from the middle outwards: frost on the coil, as found, as left, the place's hours, the rim, the box.
FROST_RING: Final = (68.0, 124.0)
FOUND_BAND: Final = (129.0, 146.0)
BAND: Final = (149.0, 181.0)
HOURS_BAND: Final = (183.0, 191.0)
RIM: Final = 192.0
BOX_RING: Final = (196.0, 222.0)
LABEL_RADIUS: Final = 237.0
FAN_WAIT_MIN: Final = 5.0
# A gloved finger takes hold of an arc this far beside it.
REACH_MIN: Final = 15.0
# The rings' scales reach at least this far, lb and °F, so that a quiet day looks quiet.
LEAST_FROST_LB: Final = 2.0
LEAST_BOX_F: Final = 8.0
CALMED: Final = 5
WITHOUT_FAIL_SAFE_MIN: Final = 15.0


@dataclass(frozen=True)
class Mark:
    """A shape of the dial: what it is (heat, drip, found, open, delivery), its path, and words for who cannot see it."""

    kind: str
    path: str
    words: str


@dataclass(frozen=True)
class Arc:
    """A defrost that can be moved: its place in the program, start and heat, min, its shapes, where its grip is, and words."""

    place: int
    start_min: int
    heat_min: float
    reach: str
    heat: str
    drip: str
    wait: str
    grip: tuple[float, float]
    words: str


@dataclass(frozen=True)
class Day:
    """A day by the model to be drawn: which side of the program, minutes after midnight, frost, lb, and box, °F."""

    side: str
    minutes: Sequence[float]
    frost_lb: Sequence[float]
    box_f: Sequence[float]


@dataclass(frozen=True)
class Trace:
    """Curves of one side: frost round the middle, the box outside the rim, and words for who cannot see them."""

    side: str
    frost: str
    box: str
    words: str


@dataclass(frozen=True)
class Traces:
    """The curves of a dial, the path of the box's limit ("" where it lies beyond), and what the two rings' edges stand for."""

    sides: tuple[Trace, ...]
    limit: str
    frost_scale: str
    box_scale: str


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
        inner, outer = point(hour * 60, RIM), point(hour * 60, RIM + (8 if hour % 6 == 0 else 4))
        label = {0: "midnight", 6: "6", 12: "noon", 18: "18"}.get(hour, "")
        x, y = point(hour * 60, LABEL_RADIUS)
        found.append((*inner, *outer, label, x, y))
    return found


def marks(found: Program | None, left: Program | None, hours: Hours) -> list[Mark]:
    """Return what stands still on the dial: hours and deliveries at the rim, and inside the program as found once one is left."""
    shapes = []
    if hours.opens_min is not None and hours.closes_min is not None:
        length = (hours.closes_min - hours.opens_min) % DAY_MIN or DAY_MIN
        words = f"open {clock(hours.opens_min)} to {clock(hours.closes_min)}"
        shapes.append(Mark("open", sector(hours.opens_min, length, *HOURS_BAND), words))
    shapes += [Mark("delivery", sector(at - 15, 30, *HOURS_BAND), f"delivery {clock(at)}") for at in hours.deliveries_min]
    if left is not None and found is not None:
        heat = found.values.get("fail_safe_min", WITHOUT_FAIL_SAFE_MIN)
        shapes += [Mark("found", sector(start, heat, *FOUND_BAND), f"as found {clock(start)}") for start in found.starts_min]
    return shapes


def arcs(program: Program | None) -> list[Arc]:
    """Return the defrosts of a program as arcs: heat up to the fail-safe, then drip and the fans' wait."""
    if program is None:
        return []
    heat, drip = program.values.get("fail_safe_min", WITHOUT_FAIL_SAFE_MIN), program.values.get("drip_min", 0.0)
    found = []
    for place, start in enumerate(program.starts_min):
        after = sector(start + heat, drip, *BAND) if drip else ""
        wait = sector(start + heat + drip, FAN_WAIT_MIN, *BAND) if "fan_delay_f" in program.values else ""
        words = f"defrost {clock(start)}, {heat:.0f} min at most" + (f", drip {drip:.0f} min" if drip else "")
        words += ", then the fans wait" if wait else ""
        grip = point(start + heat, BAND[0])
        reach = sector(start - REACH_MIN, heat + drip + 2 * REACH_MIN, FOUND_BAND[0], RIM)
        found.append(Arc(place, start, heat, reach, sector(start, heat, *BAND), after, wait, grip, words))
    return found


def traces(days: Sequence[Day], limit_f: float, shown: ShownUnits = TRADE) -> Traces | None:
    """Return the curves of one or both sides on one scale, None where there is no day to draw."""
    if not days:
        return None
    most = max(LEAST_FROST_LB, *(max(one.frost_lb) for one in days))
    low, high = min(min(one.box_f) for one in days), max(max(one.box_f) for one in days)
    high = max(high, low + LEAST_BOX_F)
    sides = [
        Trace(
            one.side,
            _closed(one.minutes, [lb / most for lb in one.frost_lb], FROST_RING) + _ring(FROST_RING[0]),
            _closed(one.minutes, [(f - low) / (high - low) for f in _calmed(one.box_f)], BOX_RING),
            f"{shown.text(max(one.frost_lb), 'lb')} of frost at worst, box {shown.text(min(one.box_f), '°F', 0)} to "
            f"{shown.text(max(one.box_f), '°F', 0)}",
        )
        for one in days
    ]
    inside = low < limit_f < high
    limit = _closed([0, 360, 720, 1080], [(limit_f - low) / (high - low)] * 4, BOX_RING, steps=24) if inside else ""
    return Traces(tuple(sides), limit, f"ring to {shown.text(most, 'lb')}", f"ring {shown.span(low, high, '°F')}")


def _calmed(values: Sequence[float]) -> list[float]:
    """A round of figures, each the mean of those about it: the thermostat's own cycles are no news on a dial."""
    count, half = len(values), CALMED // 2
    return [sum(values[(i + step) % count] for step in range(-half, half + 1)) / (2 * half + 1) for i in range(count)]


def _ring(radius: float) -> str:
    """A whole circle as a path, the other way round than the curves, so that it cuts a hole into them."""
    top, foot = point(0, radius), point(DAY_MIN / 2, radius)
    arc = f"A{radius:.1f} {radius:.1f} 0 0 0"
    return f"M{top[0]:.1f} {top[1]:.1f}{arc} {foot[0]:.1f} {foot[1]:.1f}{arc} {top[0]:.1f} {top[1]:.1f}Z"


def _closed(minutes: Sequence[float], shares: Sequence[float], ring: tuple[float, float], steps: int = 1) -> str:
    """A curve round the dial through shares of a ring's depth, closed over midnight; `steps` points between each two."""
    inner, outer = ring
    points = []
    for i, (at, share) in enumerate(zip(minutes, shares, strict=True)):
        after = minutes[(i + 1) % len(minutes)] + (DAY_MIN if i + 1 == len(minutes) else 0)
        points += [point(at + (after - at) * step / steps, inner + (outer - inner) * min(max(share, 0.0), 1.0)) for step in range(steps)]
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points) + "Z"
