"""A log as the core holds it: moments and the figures of its columns, gaps left as gaps."""

from bisect import bisect_left
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Final

import numpy as np

# A hole longer than so many steps is a gap: nothing is known of it.
GAP_STEPS: Final = 3.5
LEAST_GAP_S: Final = 600.0


@dataclass(frozen=True)
class Trend:
    """Moments (seconds of the epoch, UTC, rising) and by role the figures at them in the stored unit, NaN where there is none."""

    at_s: Any
    values: Mapping[str, Any]
    notes: tuple[str, ...] = field(default=())

    @property
    def count(self) -> int:
        """How many rows there are."""
        return len(self.at_s)

    @cached_property
    def step_s(self) -> float:
        """The usual time between two rows, seconds."""
        return float(np.median(np.diff(self.at_s))) if self.count > 1 else 60.0

    @property
    def gap_s(self) -> float:
        """How long without a row is a gap, seconds."""
        return max(GAP_STEPS * self.step_s, LEAST_GAP_S)

    def of(self, *roles: str) -> tuple[Any, Any] | None:
        """Return moments and figures of the first of some roles that has any, without what is missing; None where none has."""
        return next((self._known(role) for role in roles if self._known(role) is not None), None)

    def _known(self, role: str) -> tuple[Any, Any] | None:
        if role not in self._kept:
            column = self.values.get(role, np.array([]))
            known = ~np.isnan(column)
            count = int(known.sum())
            # A column without a hole is not copied.
            self._kept[role] = None if count < 2 else (
                (self.at_s, column) if count == len(column) else (self.at_s[known], column[known])
            )  # fmt: skip
        return self._kept[role]

    @cached_property
    def _kept(self) -> dict[str, tuple[Any, Any] | None]:
        return {}

    def between(self, from_s: float, to_s: float) -> "Trend":
        """Return the rows from one moment to another, both included."""
        first, last = np.searchsorted(self.at_s, [from_s, to_s + 1e-6])
        return Trend(self.at_s[first:last], {role: column[first:last] for role, column in self.values.items()}, self.notes)


def joined(trends: list[Trend]) -> Trend:
    """Return several logs of one unit as one, in order; where two have a row at the same moment the later one in the list stands."""
    if not trends:
        return Trend(np.array([]), {})
    if len(trends) == 1:
        return trends[0]
    roles = sorted({role for trend in trends for role in trend.values})
    at = np.concatenate([trend.at_s for trend in trends])
    columns = {role: np.concatenate([trend.values.get(role, np.full(trend.count, np.nan)) for trend in trends]) for role in roles}
    order = np.argsort(at, kind="stable")
    last = np.append(np.diff(at[order]) > 0, True)
    kept = order[last]
    for role, column in columns.items():
        sorted_column = column[order]
        # A moment told by two logs keeps what either knows.
        for place in np.flatnonzero(~last):
            if np.isnan(sorted_column[place + 1]):
                sorted_column[place + 1] = sorted_column[place]
        columns[role] = sorted_column[last]
    return Trend(at[kept], columns, tuple(note for trend in trends for note in trend.notes))


def window(known: tuple[Any, Any], from_s: float, to_s: float) -> tuple[Any, Any]:
    """Return moments and figures from one moment to another, both included."""
    first, last = np.searchsorted(known[0], [from_s, to_s + 1e-6])
    return known[0][first:last], known[1][first:last]


def meets(spans: list[tuple[float, float]], begins_s: float, ends_s: float) -> bool:
    """Return whether a stretch meets one of some spans, which lie in their order."""
    place = bisect_left(spans, (begins_s, begins_s))
    return any(spans[n][0] < ends_s and spans[n][1] > begins_s for n in range(max(place - 1, 0), min(place + 2, len(spans))))


def pieces(at_s: Any, gap_s: float) -> list[slice]:
    """Return the stretches without a gap in them, as slices."""
    cuts = [0, *(np.flatnonzero(np.diff(at_s) > gap_s) + 1).tolist(), len(at_s)]
    return [slice(a, b) for a, b in zip(cuts, cuts[1:], strict=False) if b > a]
