"""Tiles of a log: for each pixel the least, mean and most of what lies under it; and the same as a static drawing."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from math import floor, isfinite
from typing import Any, Final
from zoneinfo import ZoneInfo

import numpy as np

from kettle.trends.roles import ROLES
from kettle.trends.series import Trend

MOST_PIXELS: Final = 4000


@dataclass(frozen=True)
class Tile:
    """A stretch of a log by pixels: moments of their middles (seconds of the epoch), by role least, mean, most; None for a gap."""

    at_s: list[float]
    bands: dict[str, tuple[list[float | None], list[float | None], list[float | None]]]


def tile(trend: Trend, from_s: float, to_s: float, pixels: int) -> Tile:
    """Return a stretch of a log by pixels; what lies between two rows nearer than a gap is drawn through."""
    pixels = min(max(pixels, 2), MOST_PIXELS)
    span = max(to_s - from_s, 1.0)
    width = span / pixels
    first, last = np.searchsorted(trend.at_s, [from_s, to_s])
    # One row more at either end, so that the line runs to the edges.
    first, last = max(int(first) - 1, 0), min(int(last) + 1, trend.count)
    at = trend.at_s[first:last]
    if not len(at):
        return Tile([], {role: ([], [], []) for role in trend.values})
    place = np.floor((at - from_s) / width)
    starts = np.flatnonzero(np.concatenate([[True], np.diff(place) > 0]))
    moments = np.add.reduceat(at, starts) / np.diff(np.concatenate([starts, [len(at)]]))
    holes = np.flatnonzero(np.diff(moments) > max(trend.gap_s, 2.0 * width))
    bands = {}
    for role, column in trend.values.items():
        part = column[first:last].astype(float)
        known = ~np.isnan(part)
        counts = np.add.reduceat(known, starts)
        with np.errstate(invalid="ignore", divide="ignore"):
            mean = np.where(counts > 0, np.add.reduceat(np.where(known, part, 0.0), starts) / counts, np.nan)
        least = np.minimum.reduceat(np.where(known, part, np.inf), starts)
        most = np.maximum.reduceat(np.where(known, part, -np.inf), starts)
        bands[role] = tuple(_plain(values, holes) for values in (least, mean, most))
    middles = np.insert(moments, holes + 1, (moments[holes] + moments[holes + 1]) / 2.0) if len(holes) else moments
    return Tile(np.round(middles, 1).tolist(), bands)  # type: ignore[arg-type]


def _plain(values: Any, holes: Any) -> list[float | None]:
    if len(holes):
        values = np.insert(values, holes + 1, np.nan)
    return [round(value, 2) if isfinite(value) else None for value in values.tolist()]


WIDTH: Final = 900.0
LEFT, RIGHT, TOP, PLOT, FOOT = 56.0, 16.0, 14.0, 220.0, 30.0
MARK_H: Final = 18.0
STEPS_F: Final = (1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0)
HOURS: Final = (0.25, 0.5, 1.0, 2.0, 3.0, 6.0, 12.0, 24.0, 48.0, 168.0, 336.0, 744.0, 2232.0)


@dataclass(frozen=True)
class Drawn:
    """A log as it is printed: by role the area of least and most and the line of means, ticks, marks (x, width, code), size."""

    lines: tuple[tuple[str, str, str], ...]
    rungs: tuple[tuple[float, float], ...]
    hours: tuple[tuple[float, str], ...]
    marks: tuple[tuple[float, float, str], ...]
    height: float
    zero_y: float


def drawn(
    trend: Trend, roles: Sequence[str], from_s: float, to_s: float, marks: Sequence[tuple[float, float, str]] = (), zone: str = "UTC"
) -> Drawn:
    """Return a stretch of a log as a drawing, temperatures of some roles on one scale (°F); marks are (from, to, code) in seconds."""
    cut = tile(trend, from_s, to_s, int(WIDTH - LEFT - RIGHT))
    known = [value for role in roles for band in cut.bands.get(role, ([], [], [])) for value in band if value is not None]
    low, high = (min(known), max(known)) if known else (0.0, 1.0)
    step = next(one for one in STEPS_F if (high - low) / one <= 6.0 or one == STEPS_F[-1])
    low, high = step * floor(low / step), step * floor(high / step + 1.0)

    def x(at_s: float) -> float:
        return round(float(LEFT + (WIDTH - LEFT - RIGHT) * (min(max(at_s, from_s), to_s) - from_s) / max(to_s - from_s, 1.0)), 1)

    def y(value: float) -> float:
        return round(TOP + PLOT * (high - value) / (high - low), 1)

    lines = []
    for role in roles:
        if role not in cut.bands:
            continue
        least, mean, most = cut.bands[role]
        areas, paths, run = [], [], []
        for n, at in enumerate([*cut.at_s, 0.0]):
            if n < len(cut.at_s) and mean[n] is not None:
                run.append((x(at), least[n], mean[n], most[n]))
                continue
            if run:
                paths.append("M" + "L".join(f"{px} {y(m)}" for px, _, m, _ in run if m is not None))
                up = " ".join(f"{px},{y(h)}" for px, _, _, h in run if h is not None)
                down = " ".join(f"{px},{y(v)}" for px, v, _, _ in reversed(run) if v is not None)
                areas.append(f"M{up}L{down}Z")
            run = []
        lines.append((ROLES[role].label, "".join(areas), "".join(paths)))
    count = int(round((high - low) / step))
    rungs = tuple((y(low + n * step), low + n * step) for n in range(count + 1))
    return Drawn(
        tuple(lines), rungs, _hours(from_s, to_s, x, zone),
        tuple((x(begin), max(round(x(end) - x(begin), 1), 2.0), code) for begin, end, code in marks if end >= from_s and begin <= to_s),
        TOP + PLOT + FOOT, y(low),
    )  # fmt: skip


def _hours(from_s: float, to_s: float, x: Any, zone: str) -> tuple[tuple[float, str], ...]:
    step = next((one for one in HOURS if (to_s - from_s) / 3600.0 / one <= 9.0), HOURS[-1])
    tz = ZoneInfo(zone)
    from_s, to_s = float(from_s), float(to_s)
    offset = (datetime.fromtimestamp(from_s, UTC).astimezone(tz).utcoffset() or timedelta()).total_seconds()
    first = (floor((from_s + offset) / (step * 3600.0)) + 1) * step * 3600.0 - offset
    found, at = [], first
    while at <= to_s:
        moment = datetime.fromtimestamp(at, UTC).astimezone(tz)
        found.append((x(at), f"{moment:%H:%M}" if step < 24.0 and (moment.hour or moment.minute) else f"{moment.day} {moment:%b}"))
        at += step * 3600.0
    return tuple(found)
