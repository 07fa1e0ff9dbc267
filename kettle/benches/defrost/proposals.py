"""Programs as each school of the trade would set them, found for this unit by asking the plant model."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import ceil
from typing import Final

from kettle.benches.defrost.program import AIR, DAY_MIN, FAIL_SAFE_OVER, FREEZING_F, HEATED, Hours, Program
from kettle.benches.defrost.situation import DOUBTS, Situation
from kettle.benches.defrost.week import Outlook, look_ahead

# How many starts a day are tried, and over how many days.
TRIED: Final = (1, 2, 3, 4, 6, 8)
TRIAL_DAYS: Final = 3
# Doubts the trial looks at: as assumed, and all against it.
TRIAL_DOUBTS: Final = (DOUBTS[0], DOUBTS[-1])
# A coil may fill to this share of its free room before its next defrost.
FULL_ENOUGH: Final = 0.6
DEMAND_PCT: Final = 30.0
DEMAND_SPARE: Final = 1.2
# No one waits longer for a coil than this, min, by kind of defrost.
LONGEST_MIN: Final = {True: 60.0, False: 120.0}
# Values a program begins from: electric and hot gas, then air.
HEATED_VALUES: Final = {"termination_f": 55.0, "drip_min": 3.0, "fan_delay_f": 25.0}
AIR_VALUES: Final = {"termination_f": 38.0}
FAIL_SAFE_STEP: Final = 5.0
SHORTEST_MIN: Final = {True: 10.0, False: 20.0}
# Starts are laid on the grid of a clock; a delivery, and an hour when the place is open, weigh so much.
GRID_MIN: Final = 30
WHOLE_HOUR_MIN: Final = 60
DELIVERY_WEIGHS: Final = 10.0
OPEN_WEIGHS: Final = 1.0
UNEVEN_WEIGHS: Final = 0.8
FURTHEST_MIN: Final = 120
AROUND_DELIVERY_MIN: Final = 45


@dataclass(frozen=True)
class Limits:
    """What a plan must keep to: starts on whole hours only, the box at most, °F (None for the usual of its kind).

    `can_demand` says whether the controller can start a defrost by what the coil does.
    """

    whole_hours: bool = False
    box_limit_f: float | None = None
    can_demand: bool = False


USUAL: Final = Limits()


@dataclass(frozen=True)
class School:
    """A school: its code, what it is called, what it says."""

    code: str
    label: str
    says: str
    says_by_air: str = ""

    def says_on(self, heated: bool) -> str:
        """Return what it says of a coil that is cleared by heat, or by the air of its box."""
        return self.says if heated or not self.says_by_air else self.says_by_air


SCHOOLS: Final = (
    School("few_long", "Few and long", "two to four a day, each ended by the coil"),
    School("many_short", "Many and short", "six or more a day where doors are abused"),
    School(
        "as_needed",
        "No more than needed",
        "as few as needed: every defrost is heat into the box, none on a clear coil",
        "as few as needed: every defrost is time without cooling, none on a clear coil",
    ),
    School("demand", "On demand", "when the coil has lost its grip, not by the clock"),
)


def place_starts(count: int, length_min: float, hours: Hours, whole_hours: bool = False) -> tuple[int, ...]:
    """Return `count` starts of day, minutes after midnight, about evenly spaced, away from deliveries and from opening hours.

    Each even spacing on the clock's grid is weighed; then each start may move a little to where it disturbs less.
    """
    if count <= 0:
        return ()
    grid = WHOLE_HOUR_MIN if whole_hours else GRID_MIN
    best: tuple[float, tuple[int, ...]] | None = None
    for offset in range(0, max(DAY_MIN // count, grid), grid):
        even = [round((offset + DAY_MIN * i / count) / grid) * grid % DAY_MIN for i in range(count)]
        starts = [_moved(at, length_min, hours, grid, min(FURTHEST_MIN, DAY_MIN // count // 4)) for at in even]
        cost = sum(_disturbs(at, length_min, hours) for at in starts)
        cost += UNEVEN_WEIGHS * sum(abs(a - b) for a, b in zip(starts, even, strict=True)) / 60.0
        if best is None or cost < best[0] - 1e-9:
            best = (cost, tuple(sorted(set(starts))))
    assert best is not None
    return best[1]


def _moved(at: int, length_min: float, hours: Hours, grid: int, furthest: int) -> int:
    steps = range(-(furthest // grid), furthest // grid + 1)
    return min(
        ((at + step * grid) % DAY_MIN for step in sorted(steps, key=abs)),
        key=lambda start: _disturbs(start, length_min, hours) + UNEVEN_WEIGHS * min((start - at) % DAY_MIN, (at - start) % DAY_MIN) / 60.0,
    )


def _disturbs(start: int, length_min: float, hours: Hours) -> float:
    """How much a defrost from a start on disturbs the place."""
    cost = 0.0
    for at in hours.deliveries_min:
        from_then = (start - (at - AROUND_DELIVERY_MIN)) % DAY_MIN
        if from_then < 2 * AROUND_DELIVERY_MIN or (at - AROUND_DELIVERY_MIN - start) % DAY_MIN < length_min:
            cost += DELIVERY_WEIGHS
    if hours.opens_min is not None and hours.closes_min is not None:
        open_for = (hours.closes_min - hours.opens_min) % DAY_MIN or DAY_MIN
        if (start - hours.opens_min) % DAY_MIN < open_for:
            cost += OPEN_WEIGHS
    return cost


def _fail_safe(outlook: Outlook, heated: bool, spare: float = 1.0) -> float:
    """A little over the time to clear, on the dial's step: as assumed at the long end of practice, and enough for bad days.

    `spare` stretches the bad days' need where a few days of trial do not meet the worst of them.
    """
    wanted = max(outlook.clear_min.middle * FAIL_SAFE_OVER[1], outlook.clear_min.high * spare)
    return min(max(ceil(wanted / FAIL_SAFE_STEP) * FAIL_SAFE_STEP, SHORTEST_MIN[heated]), LONGEST_MIN[heated])


def propose(asked: Situation, limits: Limits = USUAL, tell: Callable[[float], None] | None = None) -> dict[str, Program]:
    """Return a program for each school that can have one on this unit, by code of the school.

    The model is run with each number of starts, and on demand, under a fail-safe nobody meets; how long the coil then takes,
    and how full it gets, decides. Nothing is proposed where air would have to melt ice at or below freezing.
    """
    unit = asked.unit
    heated = unit.defrost in HEATED
    if unit.defrost in AIR and unit.set_f <= FREEZING_F:
        return {}
    begins = {**(HEATED_VALUES if heated else AIR_VALUES), "fail_safe_min": LONGEST_MIN[heated]}
    on_demand = Program((), begins | {"demand_pct": DEMAND_PCT})
    # A coil that clears in its off-cycles may need no start at all.
    tried = (0, *TRIED) if unit.defrost == "off_cycle" else TRIED
    by_clock = [Program(place_starts(count, 30.0, asked.hours, limits.whole_hours), begins) for count in tried]
    weeks = look_ahead(asked, [*by_clock, on_demand], TRIAL_DAYS, TRIAL_DOUBTS, tell)
    seen = dict(zip(tried, weeks, strict=False))

    def enough(counts: Sequence[int], in_bad_weeks: bool) -> int:
        """The fewest starts that keep the coil open and clear, as assumed or with all against it; else the most there are."""
        for count in counts:
            week = seen[count]
            filled = week.blocked.high if in_bad_weeks else week.blocked.middle
            if filled <= FULL_ENOUGH and week.kept[int(in_bad_weeks)] and week.clear_min.high < LONGEST_MIN[heated]:
                return count
        return counts[-1]

    counts = {
        "few_long": enough([count for count in TRIED if 2 <= count <= 4], True),
        "many_short": enough([count for count in TRIED if count >= 6], True),
        "as_needed": enough(tried, False),
    }
    found = {}
    for code, count in counts.items():
        fail_safe = _fail_safe(seen[count], heated)
        starts = place_starts(count, fail_safe, asked.hours, limits.whole_hours)
        found[code] = Program(starts, begins | {"fail_safe_min": fail_safe}) if count else Program((), {})
    found["demand"] = Program((), begins | {"demand_pct": DEMAND_PCT, "fail_safe_min": _fail_safe(weeks[-1], heated, DEMAND_SPARE)})
    return found
