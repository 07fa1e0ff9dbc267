"""Superheat over time with the turns of a stem in it: whether it has settled, by the readings themselves."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import fmean
from typing import Final, Literal

from kettle.benches.valve.adjust import SETTLE_MIN
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits, format_number
from kettle.knowledge.refrigerants import Refrigerant
from kettle.trends.turning import turning_points

State = Literal["moving", "settled", "hunting", "waiting", "by_clock"]
# Readings of so long tell how it moves now; so many at least, over so long at least.
SLOPE_OVER_MIN: Final = 5.0
LEAST_READINGS: Final = 3
LEAST_OVER_MIN: Final = 2.0
# What moves less than this in ten minutes stands; what swings this much and turns so often hunts.
STANDS_F_10_MIN: Final = 1.5
SWINGS_F: Final = 4.0
LEAST_TURNINGS: Final = 3
HUNTS_OVER_MIN: Final = 25.0
# Line and suction belong together when they were read so near each other, min.
TOGETHER_MIN: Final = 4.0
BOX_WITHIN_MIN: Final = 15.0


@dataclass(frozen=True)
class Point:
    """A superheat at the coil, °F, at a minute, with the box beside it where it was read."""

    at_min: float
    superheat_f: float
    box_f: float | None = None


@dataclass(frozen=True)
class Turned:
    """A turn of the stem at a minute; positive opens the valve."""

    at_min: float
    turns: float


@dataclass(frozen=True)
class Settling:
    """How settled superheat is: its state, what it moves in ten minutes, its swing and period where it hunts; °F and minutes."""

    state: State
    says: str
    moves_f_10_min: float | None = None
    swing_f: float | None = None
    period_min: float | None = None

    @property
    def done(self) -> bool:
        """Whether it may be judged."""
        return self.state in ("settled", "by_clock")


def points_of(
    refrigerant: Refrigerant, altitude_ft: float, lines: Sequence[tuple[float, float]], suctions: Sequence[tuple[float, float]],
    boxes: Sequence[tuple[float, float]] = (),
) -> list[Point]:  # fmt: skip
    """Return superheats over time from line temperatures (minute, °F), suctions (minute, psig) and boxes (minute, °F).

    Each line is taken with the suction read nearest to it; one without a suction within `TOGETHER_MIN` is left out, and so is a suction
    outside the refrigerant's table.
    """
    found = []
    for at, line in lines:
        beside = _nearest(suctions, at)
        if beside is None:
            continue
        try:
            dew = refrigerant.dew_f(beside, altitude_ft)
        except InputError:
            continue
        found.append(Point(at, line - dew, _nearest(boxes, at, BOX_WITHIN_MIN)))
    return found


def _nearest(course: Sequence[tuple[float, float]], at_min: float, within_min: float = TOGETHER_MIN) -> float | None:
    beside = min(course, key=lambda one: abs(one[0] - at_min), default=None)
    return beside[1] if beside is not None and abs(beside[0] - at_min) <= within_min else None


def settling(points: Sequence[Point], turns: Sequence[Turned], now_min: float, shown: ShownUnits = TRADE) -> Settling:
    """Return how settled superheat is now, by slope and swing of what was read since the last turn; by the clock where that is too little.

    `points` and `turns` in their order, `now_min` on the same clock.
    """
    since = turns[-1].at_min if turns else None
    whole = [one for one in points if since is None or one.at_min > since]
    after = [one for one in whole if one.at_min >= now_min - HUNTS_OVER_MIN]
    hunts = _hunting(after, shown)
    if hunts:
        return hunts
    late = [one for one in after if one.at_min >= now_min - SLOPE_OVER_MIN]
    if len(late) < LEAST_READINGS or late[-1].at_min - late[0].at_min < LEAST_OVER_MIN:
        return _by_clock(since, now_min, whole)
    moves = 10.0 * _slope(late)
    told = f"{shown.text(abs(moves), '°F diff')} in ten minutes"
    if abs(moves) > STANDS_F_10_MIN:
        return Settling("moving", f"Still moving: {'up' if moves > 0 else 'down'} {told}", moves)
    return Settling("settled", f"Settled: moves {told}", moves)


def _hunting(after: Sequence[Point], shown: ShownUnits) -> Settling | None:
    turned = turning_points([(one.at_min, one.superheat_f) for one in after], SWINGS_F)
    if len(turned) < LEAST_TURNINGS:
        return None
    swing = fmean(abs(other.value - one.value) for one, other in pairwise(turned))
    period = 2.0 * fmean(other.at_min - one.at_min for one, other in pairwise(turned))
    says = f"Hunting: swings {shown.text(swing, '°F diff')} every {format_number(period)} min"
    return Settling("hunting", says, None, swing, period)


def _by_clock(since_min: float | None, now_min: float, read_since: Sequence[Point]) -> Settling:
    ago = f", read {format_number(now_min - read_since[-1].at_min, 0)} min ago" if read_since else ""
    if since_min is None:
        return Settling("by_clock", f"As found{ago}") if read_since else Settling("waiting", "Nothing read yet")
    minutes = now_min - since_min
    if minutes < SETTLE_MIN:
        return Settling("waiting", f"{format_number(minutes, 0)} of {SETTLE_MIN} min since the turn; three readings tell sooner")
    if not read_since:
        return Settling("waiting", f"{format_number(minutes, 0)} min since the turn: read superheat again")
    return Settling("by_clock", f"{format_number(minutes, 0)} min since the turn{ago}: settled by the clock")


def _slope(points: Sequence[Point]) -> float:
    """Least squares, °F a minute."""
    at, of = fmean(one.at_min for one in points), fmean(one.superheat_f for one in points)
    above = sum((one.at_min - at) * (one.superheat_f - of) for one in points)
    return above / sum((one.at_min - at) ** 2 for one in points)
