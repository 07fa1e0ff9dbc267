"""When the compressor ran, read from a log: from its own state, its amps, the coil against the air, else from the turns of the air."""

from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from kettle.trends.series import Trend, meets, pieces, window
from kettle.trends.turning import turning_points

# Amps between idling and running: the middle of the two, where they lie apart at all.
AMPS_APART: Final = 1.5
LEAST_AMPS: Final = 0.3
# A coil this far under the air boils refrigerant, °F. It begins where the distance jumps over so much of the usual one, and ends where it
# falls to so much of what it just was.
COIL_UNDER_F: Final = 4.0
BEGINS, JUMPS, ENDS = 0.35, 0.12, 0.85
NOISE_F: Final = 0.3
# Air that turns by less is noise, °F; of its usual swing so much is a turn.
LEAST_SWING_F: Final = 0.6
SWING_SHARE: Final = 0.4
SHORT_STARTS_H: Final = 8.0
SHORT_RUN_MIN: Final = 3.0


@dataclass(frozen=True)
class Run:
    """One run of the compressor: from, to, seconds of the epoch; what the air did meanwhile (highest before, lowest after), °F."""

    begins_s: float
    ends_s: float
    from_f: float | None = None
    to_f: float | None = None

    @property
    def minutes(self) -> float:
        """How long it ran, minutes."""
        return (self.ends_s - self.begins_s) / 60.0


@dataclass(frozen=True)
class Cycling:
    """What the runs of a log come to: medians in minutes, starts an hour, share of time it ran, band of the air, °F; how it was read."""

    read_from: str
    runs: tuple[Run, ...]
    on_min: float
    off_min: float
    starts_h: float
    run_share: float
    high_f: float | None
    low_f: float | None

    @property
    def short(self) -> bool:
        """Whether it cycles shortly: many starts an hour, or runs of a few minutes."""
        return self.starts_h >= SHORT_STARTS_H or (len(self.runs) > 3 and self.on_min < SHORT_RUN_MIN)


def runs(trend: Trend) -> tuple[str, list[Run]]:
    """Return what the runs were read from, and each run that both begins and ends in the log; nothing for a log that does not tell."""
    for told in (_by_state, _by_amps, _by_coil, _by_air):
        found = told(trend)
        if found is not None:
            return found
    return "", []


def cycling(trend: Trend, left_out: list[tuple[float, float]] | None = None) -> Cycling | None:
    """Return what the runs of a log come to, stretches left out (defrosts and their recovery) not counted; None where it does not tell."""
    read_from, all_runs = runs(trend)
    out = left_out or []
    found = [run for run in all_runs if not meets(out, run.begins_s, run.ends_s)]
    if len(found) < 2:
        return None
    offs = [
        (later.begins_s - run.ends_s) / 60.0
        for run, later in zip(found, found[1:], strict=False)
        if later.begins_s - run.ends_s < 6 * 3600.0 and not meets(out, run.ends_s, later.begins_s)
    ]
    on, off = float(np.median([run.minutes for run in found])), float(np.median(offs)) if offs else 0.0
    highs, lows = [run.from_f for run in found if run.from_f is not None], [run.to_f for run in found if run.to_f is not None]
    return Cycling(
        read_from, tuple(found), on, off, 60.0 / (on + off) if on + off > 0 else 0.0, on / (on + off) if on + off > 0 else 0.0,
        float(np.median(highs)) if highs else None, float(np.median(lows)) if lows else None,
    )  # fmt: skip


def _air_at(trend: Trend, begins_s: float, ends_s: float) -> tuple[float | None, float | None]:
    """Highest air about a start, lowest about a stop."""
    air = trend.of("box_f", "return_f")
    if air is None:
        return None, None
    near = max(2.5 * trend.step_s, 300.0)
    around = [window(air, moment - near / 2.0, moment + near)[1] for moment in (begins_s, ends_s)]
    return (float(around[0].max()) if len(around[0]) else None, float(around[1].min()) if len(around[1]) else None)


def _switched(trend: Trend, at: Any, on: Any, read_from: str) -> tuple[str, list[Run]]:
    found = []
    for piece in pieces(at, trend.gap_s):
        moments, state = at[piece], on[piece]
        edge = np.diff(state.astype(int))
        # It switched between two rows: half way.
        half = (moments[1:] + moments[:-1]) / 2.0
        starts, stops = half[edge > 0], half[edge < 0]
        if len(starts) and len(stops) and stops[0] < starts[0]:
            stops = stops[1:]
        # What runs at either end of a stretch is known by half only.
        for start, stop in zip(starts.tolist(), stops.tolist(), strict=False):
            found.append(Run(start, stop, *_air_at(trend, start, stop)))
    return read_from, found


def _by_state(trend: Trend) -> tuple[str, list[Run]] | None:
    known = trend.of("compressor")
    return None if known is None or known[1].min() == known[1].max() else _switched(trend, known[0], known[1] > 0.5, "its own state")


def _by_amps(trend: Trend) -> tuple[str, list[Run]] | None:
    known = trend.of("amps")
    if known is None:
        return None
    low, high = np.percentile(known[1], [5, 95])
    if high < AMPS_APART * low + LEAST_AMPS:
        return None
    return _switched(trend, known[0], known[1] > (low + high) / 2.0, "amps")


def _by_coil(trend: Trend) -> tuple[str, list[Run]] | None:
    if not {"coil_f", "box_f"} <= set(trend.values):
        return None
    under = trend.values["box_f"] - trend.values["coil_f"]
    known = ~np.isnan(under)
    at, under = trend.at_s[known], under[known]
    if len(at) < 10:
        return None
    usual = float(np.percentile(under, 90))
    if usual < COIL_UNDER_F:
        return None
    padded = np.concatenate([np.full(3, under[0]), under])
    lately = np.maximum.reduce([padded[n : n + len(under)] for n in range(4)])
    goes_on = (under > ENDS * lately - NOISE_F).tolist()
    comes_on = ((under > BEGINS * usual) & (under > padded[2 : 2 + len(under)] + JUMPS * usual)).tolist()
    on, state = np.zeros(len(under), dtype=bool), False
    for n in range(len(under)):
        state = goes_on[n] if state else comes_on[n]
        on[n] = state
    return _switched(trend, at, on, "the coil against the air")


def _by_air(trend: Trend) -> tuple[str, list[Run]] | None:
    known = trend.of("box_f", "return_f", "supply_f")
    if known is None:
        return None
    found = []
    for piece in pieces(known[0], trend.gap_s):
        at, air = known[0][piece], known[1][piece]
        if len(at) < 20:
            continue
        local = [np.ptp(part) for part in np.array_split(air, max(len(air) // 40, 1))]
        by = max(SWING_SHARE * float(np.median(local)), LEAST_SWING_F)
        begin, high = None, 0.0
        for turn in turning_points(list(zip(at.tolist(), air.tolist(), strict=True)), by):
            if turn.highest:
                begin, high = turn.at_min, turn.value
            elif begin is not None:
                found.append(Run(begin, turn.at_min, high, turn.value))
                begin = None
    return ("the turns of the air", found) if found else None
