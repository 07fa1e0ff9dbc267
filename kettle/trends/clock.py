"""A log's own clock against time: the hour that comes twice, the hour that is not, loggers that never change."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any, Final
from zoneinfo import ZoneInfo

import numpy as np

# How a log keeps time: as the clock on the wall does, never changed in summer, or in UTC.
CLOCKS: Final = {"wall": "as the clock on the wall", "standard": "never changed to summer time", "utc": "in UTC"}
# Time zones change at quarters of an hour at the finest.
KEY_S: Final = 900
HOUR_S: Final = 3600.0


@dataclass(frozen=True)
class Told:
    """Moments as seconds of the epoch, and what had to be decided about them, in words."""

    at_s: Any
    notes: tuple[str, ...]


def to_epoch(local_s: Any, zone: str, clock: str = "wall") -> Told:
    """Return moments as seconds of the epoch from seconds of a log's own clock (as if it were UTC), by its zone and how it keeps time.

    The hour that comes twice is the first pass until the log goes back, the second after; rows in the hour that is not mean that the log
    is never changed, and then all of it is read so.
    """
    local_s = np.asarray(local_s, dtype=float)
    if clock == "utc" or len(local_s) == 0:
        return Told(local_s, ())
    keys, places = np.unique(local_s // KEY_S, return_inverse=True)
    tz = ZoneInfo(zone)
    first, second, standard = (np.empty(len(keys)) for _ in range(3))
    for n, key in enumerate(keys):
        naive = datetime(1970, 1, 1) + timedelta(seconds=float(key) * KEY_S)
        early = naive.replace(tzinfo=tz)
        first[n] = _seconds(early.utcoffset())
        second[n] = _seconds(early.replace(fold=1).utcoffset())
        standard[n] = first[n] - _seconds(early.dst())
    if clock == "standard":
        return Told(local_s - standard[places], ())
    missing = (second > first)[places]
    if missing.any():
        when = datetime.fromtimestamp(float(local_s[np.argmax(missing)]), UTC).strftime("%Y-%m-%d %H:%M")
        return Told(local_s - standard[places], (f"{when} is not on the wall clock: the log never changes to summer time, and is read so",))
    offset, twice = first[places], (first > second)[places]
    if not twice.any():
        return Told(local_s - offset, ())
    back = np.concatenate([[False], np.diff(local_s) < 0])
    # After a step back inside the hour that comes twice, the second pass runs to its end.
    for begin in np.flatnonzero(twice & ~np.concatenate([[False], twice[:-1]])):
        end = begin + int(np.argmin(twice[begin:])) if not twice[begin:].all() else len(twice)
        steps = np.flatnonzero(back[begin:end])
        if len(steps):
            passed = slice(begin + int(steps[0]), end)
            offset[passed] = second[places][passed]
    return Told(local_s - offset, ())


def _seconds(delta: timedelta | None) -> float:
    return delta.total_seconds() if delta is not None else 0.0
