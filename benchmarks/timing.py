"""How long an act takes."""

import statistics
import time


def first(act):
    """Return the seconds of an act, once."""
    start = time.perf_counter()
    act()
    return time.perf_counter() - start


def median(act, times=25):
    """Return the median seconds of an act, after two to warm up."""
    return statistics.median([first(act) for _ in range(times + 2)][2:])
