"""The day of a place by the hour: doors, lights and people, stock that comes in."""

from collections.abc import Sequence
from typing import Final

import numpy as np

from kettle.plant.rows import Figures

# Doors by the hour: little at night, most before opening and at noon.
TRAFFIC: Final = (0.2, 0.2, 0.2, 0.2, 0.3, 0.8, 1.8, 2.0, 1.6, 1.4, 1.4, 1.6, 1.8, 1.4, 1.3, 1.3, 1.4, 1.4, 1.2, 1.0, 0.8, 0.4, 0.2, 0.2)
STOCKED_AT: Final = (7, 13)
CLOSED, OPEN, DELIVERY = 0.2, 1.5, 3.0
DOORS, LIGHTS, STOCK = range(3)


def usual() -> Figures:
    """Return the day of a place nobody said anything of: hours × (doors, lights and people, stock), each 1 on average."""
    return _day([float(share) for share in TRAFFIC], STOCKED_AT)


def of_hours(opens_min: int, closes_min: int, deliveries_min: Sequence[int]) -> Figures:
    """Return the day of a place that opens and closes (minutes after midnight) and has deliveries at times of day."""
    length = (closes_min - opens_min) % 1440 or 1440
    doors = [OPEN if (hour * 60 + 30 - opens_min) % 1440 < length else CLOSED for hour in range(24)]
    stocked = sorted({at // 60 % 24 for at in deliveries_min})
    for hour in stocked:
        doors[hour] = DELIVERY
    return _day(doors, stocked or STOCKED_AT)


def _day(doors: list[float], stocked: Sequence[int]) -> Figures:
    day = np.zeros((24, 3))
    day[:, DOORS] = doors
    day[:, LIGHTS] = [min(share, OPEN) for share in doors]
    day[list(stocked), STOCK] = 1.0
    found: Figures = day / day.mean(axis=0)
    return found
