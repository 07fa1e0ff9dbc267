"""Defrosts read from a log: when they began and ended, what ended them, how high the box went and how long it took to come back."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, Final

import numpy as np

from kettle.trends.cycles import runs
from kettle.trends.series import Trend, pieces, window

# A coil warmer than the air by this much is heated, °F; a rise is the heater's from so much of its steepest on; what is as warm as the top.
HEATED_F: Final = 6.0
STEEP: Final = 0.55
TOP_F: Final = 0.6
LOOKED_BACK: Final = 60
# A compressor that stands so many times its usual pause is kept off by a defrost.
LONG_PAUSE: Final = 1.6
OVER_START_F: Final = -0.5
# Pauses of one length are a program's.
ALIKE: Final = 0.15
RARELY_H: Final = 2.5
LEAST_RUNS: Final = 4
LONGEST_STEP_S: Final = 300.0
LEAST_DEFROST_MIN, LONGEST_DEFROST_MIN = 4.0, 120.0
# The box is back where it was before to within this, °F; nobody waits for it longer, h.
BACK_F: Final = 0.7
LONGEST_BACK_H: Final = 6.0
BEFORE_S: Final = 5400.0
# Ends at one temperature, or after one time: they scatter by no more.
SAME_F: Final = 4.0
SAME_MIN: Final = 1.5


@dataclass(frozen=True)
class Defrost:
    """One defrost: from, to, seconds of the epoch; highest of the coil's sensor and of the box, °F; minutes until the box was back.

    `ended_by` is termination, time or unknown; a figure the log does not tell is None.
    """

    begins_s: float
    ends_s: float
    coil_f: float | None
    peak_f: float | None
    back_min: float | None
    ended_by: str = "unknown"

    @property
    def minutes(self) -> float:
        """How long it lasted, minutes."""
        return (self.ends_s - self.begins_s) / 60.0


def defrosts(trend: Trend, heated: bool = True, termination_f: float | None = None, fail_safe_min: float | None = None) -> list[Defrost]:
    """Return the defrosts a log shows, in order; `heated` for electric and hot gas, what the program says where it is known.

    Read from the defrost's own state, else a coil warmer than the air, else pauses of the compressor far longer than its usual ones: there
    an air defrost that begins while it is off anyway shows its end alone, and its start is taken to be the stop.
    """
    spans = _by_state(trend)
    if spans is None:
        spans = (_by_coil(trend) if heated else None) or _by_pause(trend)
        if heated and trend.of("coil_f") is not None and not _by_coil(trend) and not _alike(spans):
            # A coil that never warms had its defrosts only where pauses of one length say so: its heaters are dead then.
            spans = []
    found = [_seen(trend, begin, end) for begin, end in spans or [] if LEAST_DEFROST_MIN <= (end - begin) / 60.0 <= LONGEST_DEFROST_MIN]
    return _ended_by(found, trend.step_s / 60.0, termination_f, fail_safe_min)


def _by_state(trend: Trend) -> list[tuple[float, float]] | None:
    known = trend.of("defrost")
    if known is None or known[1].min() == known[1].max():
        return None
    found = []
    for piece in pieces(known[0], trend.gap_s):
        at, on = known[0][piece], known[1][piece] > 0.5
        half, edge = (at[1:] + at[:-1]) / 2.0, np.diff(on.astype(int))
        starts, ends = half[edge > 0], half[edge < 0]
        ends = ends[1:] if len(starts) and len(ends) and ends[0] < starts[0] else ends
        found += list(zip(starts.tolist(), ends.tolist(), strict=False))
    return found


def _by_coil(trend: Trend) -> list[tuple[float, float]] | None:
    """Where the coil was heated: from where its sensor begins to rise fast to its highest."""
    known = trend.of("coil_f")
    if known is None:
        return None
    found = []
    for piece in pieces(known[0], trend.gap_s):
        at, coil = known[0][piece], known[1][piece]
        air = _air(trend, at, coil)
        warm = coil > np.maximum(air + HEATED_F, 0.0)
        edge = np.diff(np.concatenate([[False], warm, [False]]).astype(int))
        for first, last in zip(np.flatnonzero(edge > 0).tolist(), np.flatnonzero(edge < 0).tolist(), strict=True):
            if first == 0 or last >= len(at):
                continue
            found.append((_begin(at, coil, first), _end(at, coil, first, last)))
    return found


def _begin(at: Any, coil: Any, first: int) -> float:
    """When the heater came on: where the steep rise begins, and by how much steeper than before the row before it was."""
    back = max(first - LOOKED_BACK, 0)
    coil, at, first = coil[back : first + 3], at[back : first + 3], first - back
    slope = np.diff(coil) / np.diff(at)
    heater = float(slope[max(first - 1, 0) :].max())
    n = first
    while n > 1 and slope[n - 1] >= STEEP * heater:
        n -= 1
    if n < 2:
        return float(at[n])
    before, calm = float(slope[n - 1]), float(min(slope[n - 2], slope[n - 1]))
    share = (before - calm) / (heater - calm) if heater > calm else 0.0
    return float(at[n] - min(max(share, 0.0), 1.0) * (at[n] - at[n - 1]))


def _end(at: Any, coil: Any, first: int, last: int) -> float:
    """When the heater went off: after the last row that is as warm as the highest, since melting ice holds it at one temperature."""
    top = first + int(np.flatnonzero(coil[first:last] >= coil[first:last].max() - TOP_F)[-1])
    return float(at[top] + (0.25 * (at[top + 1] - at[top]) if top + 1 < len(at) else 0.0))


def _air(trend: Trend, at: Any, coil: Any) -> Any:
    known = trend.of("box_f", "return_f")
    if known is None:
        return np.full(len(at), float(np.percentile(coil, 60)))
    return np.interp(at, known[0], known[1])


def _by_pause(trend: Trend) -> list[tuple[float, float]]:
    """Pauses of the compressor far longer than its usual ones, after which the box stands higher than it lets it otherwise."""
    _, found = runs(trend)
    if len(found) < LEAST_RUNS or trend.step_s > LONGEST_STEP_S:
        return []
    pauses = [(one.ends_s, later.begins_s) for one, later in zip(found, found[1:], strict=False) if later.begins_s - one.ends_s < 10_800.0]
    if not pauses:
        return []
    apart = np.diff([begin for begin, _ in pauses])
    if len(apart) and float(np.median(apart)) > RARELY_H * 3600.0:
        # It never comes to rest by itself: what stops it is the defrost.
        return pauses if _alike(pauses) else []
    usual = float(np.median([end - begin for begin, end in pauses]))
    starts = [one.from_f for one in found if one.from_f is not None]
    over = float(np.median(starts)) + OVER_START_F if starts else None
    after = {one.begins_s: one.from_f if one.from_f is not None else -float("inf") for one in found}
    return [(begin, end) for begin, end in pauses if end - begin > LONG_PAUSE * usual and (over is None or after[end] > over)]


def _alike(spans: list[tuple[float, float]]) -> bool:
    """Whether at least three stretches last about the same, as a clock has it."""
    long = np.array([end - begin for begin, end in spans])
    return len(long) >= 3 and float(np.mean(np.abs(long - np.median(long)) < ALIKE * np.median(long))) > 0.7


def _seen(trend: Trend, begin: float, end: float) -> Defrost:
    coil, air = trend.of("coil_f"), trend.of("box_f", "return_f", "product_f")
    coil_f = peak = back = None
    if coil is not None:
        inside = window(coil, begin, end + trend.step_s)[1]
        coil_f = float(inside.max()) if len(inside) else None
    if air is not None:
        before = window(air, begin - BEFORE_S, begin - 1.0)[1]
        moments, course = window(air, begin, end + LONGEST_BACK_H * 3600.0)
        if len(before) and len(moments):
            usual = float(np.mean(before))
            rise = course[moments <= end + 3600.0]
            peak = float(rise.max()) if len(rise) else None
            top = int(np.argmax(rise)) if len(rise) else 0
            under = np.flatnonzero(course[top:] <= usual + BACK_F)
            if len(under):
                back = max((float(moments[top + under[0]]) - end) / 60.0, 0.0)
    return Defrost(begin, end, coil_f, peak, back)


def _ended_by(found: Sequence[Defrost], step_min: float, termination_f: float | None, fail_safe_min: float | None) -> list[Defrost]:
    """Defrosts with what ended them: by the program where it is known, else by what all of them have in common."""
    common = "unknown"
    if len(found) > 2:
        tops = [one.coil_f for one in found if one.coil_f is not None]
        same_time = float(np.std([one.minutes for one in found])) <= max(SAME_MIN, 0.4 * step_min)
        same_top = len(tops) == len(found) and float(np.std(tops)) <= SAME_F
        common = "time" if same_time and not same_top else "termination" if same_top and not same_time else "unknown"
    told = []
    for one in found:
        word = common
        if one.coil_f is not None and termination_f is not None:
            word = "termination" if one.coil_f >= termination_f - SAME_F else "time"
        elif fail_safe_min is not None:
            word = "time" if one.minutes >= fail_safe_min - max(SAME_MIN, step_min) else "termination"
        told.append(replace(one, ended_by=word))
    return told


@dataclass(frozen=True)
class Spacing:
    """How defrosts are spaced: hours between starts (median), how many a day, and whether they are regular."""

    hours: float
    per_day: float
    regular: bool


def spacing(found: Sequence[Defrost]) -> Spacing | None:
    """Return how defrosts are spaced; None for fewer than three."""
    if len(found) < 3:
        return None
    between = np.diff([one.begins_s for one in found]) / 3600.0
    middle = float(np.median(between))
    return Spacing(middle, 24.0 / middle, bool(np.mean(np.abs(between - middle) < max(0.15 * middle, 0.5)) > 0.7))
