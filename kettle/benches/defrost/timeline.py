"""The line of a watched defrost: now, when each milestone is expected, and when it came, as shares of the line."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

# Milestones in their order: key of what is expected, mark, what it is called.
MILESTONES: Final = (("first_drip_min", "drip", "First drip"), ("clear_min", "clear", "Coil clear"), ("end_min", "ended", "It ends"))
BEYOND: Final = 1.2
SHORTEST_LINE_MIN: Final = 30.0
THINNEST_PCT: Final = 0.8
# A milestone is late so many minutes after the last one expected.
LATE_MIN: Final = 1.0


@dataclass(frozen=True)
class Stone:
    """A milestone: mark, label, its expected stretch on the line, %, and in minutes, when it came, and whether it is late."""

    mark: str
    label: str
    from_pct: float
    wide_pct: float
    expected_min: tuple[float, float] | None
    came_min: float | None
    came_pct: float
    late: bool


@dataclass(frozen=True)
class Line:
    """Where now is on the line, %, whole minutes gone, and the milestones."""

    now_pct: float
    gone_min: int
    stones: tuple[Stone, ...]


def line(expected: Mapping[str, Sequence[float]], marks: Mapping[str, float], gone_min: float) -> Line:
    """Return the line of a defrost that has run for so many minutes; `expected` holds (as assumed, least, most) by milestone."""
    spans = [expected[name] for name, _, _ in MILESTONES if name in expected]
    length = max([SHORTEST_LINE_MIN, gone_min, *(span[2] for span in spans)]) * BEYOND

    def pct(minutes: float) -> float:
        return round(100.0 * min(max(minutes, 0.0), length) / length, 2)

    stones = []
    for name, mark, label in MILESTONES:
        span, came = expected.get(name), marks.get(mark)
        begins = pct(span[1]) if span else 0.0
        stones.append(
            Stone(
                mark=mark,
                label=label,
                from_pct=begins,
                wide_pct=max(pct(span[2]) - begins, THINNEST_PCT) if span else 0.0,
                expected_min=(span[1], span[2]) if span else None,
                came_min=came,
                came_pct=pct(came) if came is not None else 0.0,
                late=span is not None and came is None and gone_min > span[2] + LATE_MIN,
            )
        )
    return Line(pct(gone_min), int(gone_min), tuple(stones))
