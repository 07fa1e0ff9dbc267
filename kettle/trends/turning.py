"""The points at which a course of readings turns: a compressor's starts in its suction, a hunting valve's swing in its superheat."""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class Turning:
    """A highest or a lowest point of a course: when (minutes), its value, and whether it is a highest."""

    at_min: float
    value: float
    highest: bool


def turning_points(course: Sequence[tuple[float, float]], by: float) -> list[Turning]:
    """Return where a course of (minute, value) turns by at least `by`, in its order.

    A point is known once the course has moved away from it by that much. The first point is none: nobody saw what came before.
    """
    found: list[Turning] = []
    if not course:
        return found
    high = low = course[0]
    falling: bool | None = None
    for one in course[1:]:
        value = one[1]
        if value > high[1]:
            high = one
        if value < low[1]:
            low = one
        if falling is not True and value <= high[1] - by:
            found.append(Turning(*high, highest=True))
            falling, low = True, one
        elif falling is not False and value >= low[1] + by:
            found.append(Turning(*low, highest=False))
            falling, high = False, one
        if falling is True:
            high = one
        elif falling is False:
            low = one
    return [one for one in found if one.at_min > course[0][0]]
