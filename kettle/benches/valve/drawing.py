"""Superheat drawn over time: readings, turns of the stem, the wanted band, and the box below."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.valve.course import Point, Turned
from kettle.benches.valve.learn import turns_sign
from kettle.knowledge.measures import ShownUnits

WIDTH: Final = 720.0
LEFT, RIGHT, TOP = 44.0, 26.0, 34.0
HIGH: Final = 190.0
BOX_TOP, BOX_HIGH = 250.0, 60.0
FOOT, MARGIN = 24.0, 8.0
LEAST_SPAN_MIN: Final = 20.0
LEAST_TOP_F: Final = 20.0
BOX_ROOM_F: Final = 2.0
TICKS_F: Final = (0.0, 5.0, 10.0, 15.0, 20.0, 30.0, 40.0, 60.0)


@dataclass(frozen=True)
class Mark:
    """A turn on the drawing: where, and its words."""

    x: float
    words: str
    opens: bool


@dataclass(frozen=True)
class Drawn:
    """The drawing: lines of superheat and box as points, dots, the band's top and height, turns, ticks, and the box's ends in words."""

    line: str
    dots: tuple[tuple[float, float, str], ...]
    box_line: str
    box_low: str
    box_high: str
    band_y: float
    band_high: float
    marks: tuple[Mark, ...]
    ticks: tuple[tuple[float, str], ...]
    minutes: tuple[tuple[float, str], ...]

    @property
    def foot(self) -> float:
        """Where the minutes stand: below the box where it is drawn."""
        return (BOX_TOP + BOX_HIGH if self.box_line else TOP + HIGH) + FOOT

    @property
    def high(self) -> float:
        """How high the drawing is."""
        return self.foot + MARGIN


def drawn(points: Sequence[Point], turns: Sequence[Turned], now_min: float, band_f: tuple[float, float], shown: ShownUnits) -> Drawn:
    """Return superheat over time as it is drawn, from the first reading or turn until now; minutes on one clock, °F."""
    begins = min([*(one.at_min for one in points), *(one.at_min for one in turns), now_min - LEAST_SPAN_MIN])
    span = max(now_min - begins, LEAST_SPAN_MIN)
    top_f = max(LEAST_TOP_F, band_f[1] + 4.0, *(one.superheat_f + 2.0 for one in points)) if points else max(LEAST_TOP_F, band_f[1] + 4.0)

    def x(at_min: float) -> float:
        return round(LEFT + (WIDTH - LEFT - RIGHT) * (at_min - begins) / span, 1)

    def y(superheat_f: float) -> float:
        return round(TOP + HIGH * (1.0 - min(max(superheat_f, 0.0), top_f) / top_f), 1)

    boxes = [(one.at_min, one.box_f) for one in points if one.box_f is not None]
    if len({at for at, _ in boxes}) < 2:
        boxes = []
    low, high = (min(f for _, f in boxes), max(f for _, f in boxes)) if boxes else (0.0, 0.0)
    low, high = low - BOX_ROOM_F, high + BOX_ROOM_F

    def box_y(box_f: float) -> float:
        return round(BOX_TOP + BOX_HIGH * (high - box_f) / (high - low), 1)

    step = next(one for one in (5.0, 10.0, 15.0, 30.0, 60.0, 120.0, 1e6) if span / one <= 8.0)
    count = int(span // step)
    return Drawn(
        line=" ".join(f"{x(one.at_min)},{y(one.superheat_f)}" for one in points),
        dots=tuple((x(one.at_min), y(one.superheat_f), shown.text(one.superheat_f, "°F diff")) for one in points),
        box_line=" ".join(f"{x(at)},{box_y(f)}" for at, f in boxes),
        box_low=shown.figure(low, "°F", 0) if boxes else "",
        box_high=shown.figure(high, "°F", 0) if boxes else "",
        band_y=y(band_f[1]),
        band_high=round(y(band_f[0]) - y(band_f[1]), 1),
        marks=tuple(Mark(x(one.at_min), f"{turns_sign(one.turns)} {'out' if one.turns > 0 else 'in'}", one.turns > 0) for one in turns),
        ticks=tuple((y(f), shown.figure(f, "°F diff", 0)) for f in TICKS_F if f <= top_f),
        minutes=tuple((x(now_min - step * n), f"−{step * n:.0f}" if n else "now") for n in range(count + 1)),
    )
