"""How long a visit took: at work, waiting, away for parts; and what of it was overtime by the shop's day."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta
from typing import Final

# What is tapped -> what goes on from then: at work, waiting, away, or nothing.
MARKS: Final = {"arrived": "Arrived", "waiting": "Waiting", "away": "Away for parts", "back": "Back at work", "left": "Left"}
GOES_ON: Final = {"arrived": "work", "waiting": "waiting", "away": "away", "back": "work", "left": ""}
SPENT: Final = {"work": "at work", "waiting": "waiting", "away": "away for parts"}
# What may follow what.
FOLLOWS: Final = {
    "": ("arrived",), "arrived": ("waiting", "away", "left"), "back": ("waiting", "away", "left"), "waiting": ("back", "away", "left"),
    "away": ("back", "left"), "left": ("arrived",),
}  # fmt: skip
SATURDAY: Final = 5


@dataclass(frozen=True)
class Day:
    """A shop's working day, minutes after midnight; Saturdays and Sundays are none. None where the shop has no overtime."""

    begins_min: int
    ends_min: int


@dataclass(frozen=True)
class Spent:
    """Minutes by what went on (`SPENT`), and overtime among work and waiting; `open` whether it still goes on."""

    minutes: dict[str, float]
    overtime: float
    open: bool

    @property
    def total(self) -> float:
        """All of it, minutes."""
        return sum(self.minutes.values())


def spent(marks: Sequence[tuple[datetime, str]], until: datetime, day: Day | None = None) -> Spent:
    """Return how long a visit took by its marks (local time, what) in order, up to a moment where nobody left."""
    minutes, overtime, ordered = dict.fromkeys(SPENT, 0.0), 0.0, sorted(marks)
    for (begins, what), (ends, _) in zip(ordered, [*ordered[1:], (until, "")], strict=False):
        kind = GOES_ON[what]
        if not kind or ends <= begins:
            continue
        minutes[kind] += (ends - begins).total_seconds() / 60.0
        if day is not None and kind != "away":
            overtime += _outside(begins, ends, day)
    return Spent(minutes, overtime, bool(ordered) and bool(GOES_ON[ordered[-1][1]]))


def _outside(begins: datetime, ends: datetime, day: Day) -> float:
    """Minutes of a stretch outside a shop's day."""
    outside, at = 0.0, begins
    while at < ends:
        midnight = datetime.combine(at.date() + timedelta(days=1), time.min, at.tzinfo)
        last = min(ends, midnight)
        stretch = (last - at).total_seconds() / 60.0
        if at.weekday() < SATURDAY:
            start = datetime.combine(at.date(), time.min, at.tzinfo)
            first_min, last_min = ((moment - start).total_seconds() / 60.0 for moment in (at, last))
            within = max(min(last_min, day.ends_min) - max(first_min, day.begins_min), 0.0)
            # Never below nothing: of a stretch all within the day the two differ by rounding.
            stretch = max(stretch - within, 0.0)
        outside += stretch
        at = last
    return outside
