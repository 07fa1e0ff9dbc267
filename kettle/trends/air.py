"""What the air of a box did, read from a log: doors, pull-downs, hours above a limit, drift, a sensor that stands still or jumps."""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from kettle.trends.series import Trend, meets, pieces

# A door warms the air faster than anything else: so many times the usual rise, at least so much, °F, within so long, min.
DOOR_TIMES: Final = 3.0
DOOR_F: Final = 2.5
DOOR_MIN: Final = 12.0
DOOR_RATE_F_MIN: Final = 0.35
# What leaps so soon after a defrost is its recovery, s.
AFTER_S: Final = 900.0
# A box that falls by so much in one go is pulled down, °F; it is over where it stands within so much of its lowest.
PULLED_F: Final = 15.0
BACK_UP_F: Final = 3.0
PULLED_STEP_S: Final = 300.0
# A sensor that does not move by so much for so long stands still, °F and h; one that leaps so far between two rows and stays there jumps.
STILL_F: Final = 0.05
STILL_H: Final = 6.0
JUMP_F: Final = 12.0
STAYS: Final = 4
LEAST_DRIFT_DAYS: Final = 5
DAY_S: Final = 86_400.0


@dataclass(frozen=True)
class Span:
    """A stretch of a log: from, to, seconds of the epoch, and by how much, °F."""

    begins_s: float
    ends_s: float
    by_f: float

    @property
    def minutes(self) -> float:
        """How long it is, minutes."""
        return (self.ends_s - self.begins_s) / 60.0


def doors(trend: Trend, left_out: list[tuple[float, float]] | None = None) -> list[Span]:
    """Return when the door stood open: by its switch, else by air that leaps faster than it ever rises by itself.

    Stretches left out (defrosts) are not looked at. Steps over four minutes tell no door by its air.
    """
    known = trend.of("door")
    if known is not None:
        return _switched(trend, known)
    air = trend.of("box_f", "return_f")
    if air is None or trend.step_s > 240.0:
        return []
    found: list[Span] = []
    for piece in pieces(air[0], trend.gap_s):
        at, value = air[0][piece], air[1][piece]
        if len(at) < 30:
            continue
        rate = np.diff(value) / np.diff(at) * 60.0
        usual = float(np.median(rate[rate > 0.02])) if (rate > 0.02).any() else 0.0
        fast = rate > max(DOOR_TIMES * usual, DOOR_RATE_F_MIN)
        edge = np.diff(np.concatenate([[False], fast, [False]]).astype(int))
        for first, last in zip(np.flatnonzero(edge > 0), np.flatnonzero(edge < 0), strict=True):
            window = value[first : last + 1 + int(DOOR_MIN * 60.0 / trend.step_s)]
            by = float(window.max() - value[first])
            if by < DOOR_F or meets(left_out or [], float(at[first]) - AFTER_S, float(at[last])):
                continue
            if found and at[first] - found[-1].ends_s < 300.0:
                found[-1] = Span(found[-1].begins_s, float(at[last]), max(found[-1].by_f, by))
            else:
                found.append(Span(float(at[first]), float(at[last]), by))
    return found


def _switched(trend: Trend, known: tuple[Any, Any]) -> list[Span]:
    at, is_open = known[0], known[1] > 0.5
    half, edge = (at[1:] + at[:-1]) / 2.0, np.diff(is_open.astype(int))
    ends, air = half[edge < 0], trend.of("box_f", "return_f")
    found = []
    for start in half[edge > 0]:
        after = ends[ends > start]
        if not len(after):
            continue
        by = 0.0
        if air is not None:
            inside = air[1][(air[0] >= start - trend.step_s) & (air[0] <= after[0] + 600.0)]
            by = float(inside.max() - inside[0]) if len(inside) else 0.0
        found.append(Span(float(start), float(after[0]), by))
    return found


def pull_downs(trend: Trend) -> list[Span]:
    """Return where the box was pulled down by far: from its highest to where it comes to rest."""
    air = trend.of("box_f", "return_f")
    if air is None:
        return []
    found = []
    for piece in pieces(air[0], trend.gap_s):
        every = max(int(PULLED_STEP_S / trend.step_s), 1)
        at, value = air[0][piece][::every].tolist(), air[1][piece][::every].tolist()
        top = low = 0
        for n in range(1, len(value)):
            if value[n] >= value[top] or value[n] > value[low] + BACK_UP_F:
                if value[top] - value[low] >= PULLED_F:
                    found.append(Span(at[top], at[low], value[top] - value[low]))
                top = low = n
            elif value[n] < value[low]:
                low = n
        if value and value[top] - value[low] >= PULLED_F:
            found.append(Span(at[top], at[low], value[top] - value[low]))
    return found


def hours_above(trend: Trend, limit_f: float) -> tuple[float, float]:
    """Return hours the air stood over a limit (°F) and hours known; a gap counts as neither."""
    air = trend.of("box_f", "return_f", "product_f")
    if air is None:
        return 0.0, 0.0
    long = np.diff(air[0])
    known = long <= trend.gap_s
    above = (air[1][:-1] > limit_f) & known
    return float(long[above].sum() / 3600.0), float(long[known].sum() / 3600.0)


@dataclass(frozen=True)
class Drift:
    """How the daily middle of the air drifts, °F a day, and its standard error; over how many days."""

    f_per_day: float
    doubt: float
    days: int

    @property
    def sure(self) -> bool:
        """Whether it drifts at all: three times its doubt, and by a degree a fortnight."""
        return abs(self.f_per_day) > max(3.0 * self.doubt, 1.0 / 14.0)


def drift(trend: Trend) -> Drift | None:
    """Return the drift of the daily medians by least squares; None for fewer than five days."""
    air = trend.of("box_f", "return_f", "product_f")
    if air is None:
        return None
    days = np.floor(air[0] / DAY_S)
    names, first = np.unique(days, return_index=True)
    parts = [part for part in np.split(air[1], first[1:]) if len(part) > 2]
    if len(parts) < LEAST_DRIFT_DAYS or len(parts) != len(names):
        names = names[: len(parts)]
    if len(parts) < LEAST_DRIFT_DAYS:
        return None
    middles = np.array([np.median(part) for part in parts])
    x = names - names.mean()
    slope = float((x * middles).sum() / (x * x).sum())
    rest = middles - middles.mean() - slope * x
    doubt = float(np.sqrt((rest**2).sum() / max(len(x) - 2, 1) / (x * x).sum()))
    return Drift(slope, doubt, len(parts))


def standing_still(trend: Trend, role: str) -> list[Span]:
    """Return where a sensor did not move at all for hours, °F."""
    known = trend.of(role)
    found: list[Span] = []
    if known is None:
        return found
    for piece in pieces(known[0], trend.gap_s):
        at, value = known[0][piece], known[1][piece]
        if len(at) < 10:
            continue
        moved = np.flatnonzero(np.abs(np.diff(value)) > STILL_F)
        cuts = np.concatenate([[-1], moved, [len(value) - 1]])
        first, last = at[cuts[:-1] + 1], at[cuts[1:]]
        found += [Span(float(first[n]), float(last[n]), 0.0) for n in np.flatnonzero(last - first >= STILL_H * 3600.0)]
    return found


def jumps(trend: Trend, role: str) -> list[Span]:
    """Return where a sensor leapt between two rows and stayed there, with by how much, °F; steps over ten minutes tell none."""
    known = trend.of(role)
    found: list[Span] = []
    if known is None or trend.step_s > 600.0:
        return found
    at, value = known
    step = np.diff(value)
    for n in np.flatnonzero((np.abs(step) > JUMP_F) & (np.diff(at) <= trend.gap_s)):
        before, after = value[max(n - STAYS + 1, 0) : n + 1], value[n + 1 : n + 1 + STAYS]
        if len(after) == STAYS and min(len(before), STAYS) == STAYS and np.ptp(before) < JUMP_F / 3.0 and np.ptp(after) < JUMP_F / 3.0:
            found.append(Span(float(at[n]), float(at[n + 1]), float(step[n])))
    return found


def against_sibling(trend: Trend, other: Trend) -> tuple[float, float] | None:
    """Return how much warmer a box stands than another at the same times, °F (median), and how much of an hour's course they share.

    The second figure is the correlation of their hourly means; None where they have fewer than 24 hours in common.
    """
    mine, others = trend.of("box_f", "return_f"), other.of("box_f", "return_f")
    if mine is None or others is None:
        return None
    hours = [dict(zip(*_hourly(*one), strict=True)) for one in (mine, others)]
    shared = sorted(set(hours[0]) & set(hours[1]))
    if len(shared) < 24:
        return None
    a, b = (np.array([each[hour] for hour in shared]) for each in hours)
    spread = float(np.std(a) * np.std(b))
    return float(np.median(a - b)), float(np.mean((a - a.mean()) * (b - b.mean())) / spread) if spread > 1e-9 else 0.0


def _hourly(at: Any, value: Any) -> tuple[list[float], list[float]]:
    hours, first = np.unique(np.floor(at / 3600.0), return_index=True)
    return hours.tolist(), [float(part.mean()) for part in np.split(value, first[1:])]
