"""A site's year: the coldest day outdoors and the hottest air at a condenser, and what fails on either before it happens."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.controls.pressure import Setting
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant

# Where nobody said: a cold and a hot day of most places. What can be meant, °F; the two lie at least so far apart.
COLD_DAY_F, HOT_DAY_F = 0.0, 100.0
COLD_F: Final = (-60.0, 80.0)
HOT_F: Final = (50.0, 140.0)
APART_F: Final = 10.0
# What a room with people in it comes to, °F, where a condenser stands inside.
INDOORS_F: Final = (50.0, 100.0)
STEPS: Final = 6
ROUND_F: Final = 5.0


@dataclass(frozen=True)
class Year:
    """Coldest outdoors and hottest air at the condenser, °F; `given` tells whether somebody said so or the usual stands."""

    coldest_f: float = COLD_DAY_F
    hottest_f: float = HOT_DAY_F
    given: bool = False

    @property
    def outdoor_f(self) -> list[float]:
        """Outdoor temperatures over the year, the coldest to the hottest, between them on round figures, °F."""
        step = (self.hottest_f - self.coldest_f) / STEPS
        between = (ROUND_F * round((self.coldest_f + step * n) / ROUND_F) for n in range(1, STEPS))
        return [self.coldest_f, *(one for one in between if self.coldest_f < one < self.hottest_f), self.hottest_f]


def year_of(coldest_f: float | None, hottest_f: float | None) -> Year:
    """Return a site's year from what was said of it; FieldErrors by field for what cannot be meant."""
    wrong = {}
    for name, label, value, span in (("coldest_f", "Coldest day", coldest_f, COLD_F), ("hottest_f", "Hottest day", hottest_f, HOT_F)):
        if value is not None and not span[0] <= value <= span[1]:
            wrong[name] = f"{label}: {format_number(value)} °F is outside {format_number(span[0], 0)} to {format_number(span[1], 0)} °F"
    cold, hot = (COLD_DAY_F if coldest_f is None else coldest_f), (HOT_DAY_F if hottest_f is None else hottest_f)
    if not wrong and hot < cold + APART_F:
        least = f"at least {format_number(APART_F, 0)} °F over the coldest day"
        wrong["hottest_f"] = f"Hottest day: {format_number(hot)} °F is not {least}, {format_number(cold)} °F"
    if wrong:
        raise FieldErrors(wrong)
    return Year(cold, hot, coldest_f is not None or hottest_f is not None)


def at_condenser_f(unit: Unit, year: Year) -> tuple[float, float]:
    """Return the coldest and hottest air that a unit's condenser meets, °F: outdoors for a walk-in, a room for what stands in one."""
    if unit.walk_in:
        return year.coldest_f, year.hottest_f
    low, high = INDOORS_F
    return min(max(year.coldest_f, low), high), max(min(year.hottest_f, high), low + APART_F)


def fails_in_winter(refrigerant: Refrigerant, altitude_ft: float, setting: Setting, year: Year) -> str:
    """Return from which cold on a pump-down or safety switch does not start again, in words; empty where it starts all year."""
    stays_off_f = refrigerant.dew_f(setting.cut_in_psig, altitude_ft)
    if stays_off_f < year.coldest_f:
        return ""
    cold = f"{'this site sees' if year.given else 'a cold day has'} {format_number(year.coldest_f, 0)} °F"
    return f"In winter: where the low side is below {format_number(stays_off_f, 0)} °F it does not start again; {cold}"


def fails_in_summer(cut_out_psig: float, heads: Sequence[float], outdoor_f: Sequence[float]) -> str:
    """Return at which outdoor temperature a high-pressure cut-out trips (head by outdoor °F), in words; empty where it never does."""
    at = next((one for one, head in zip(outdoor_f, heads, strict=True) if head >= cut_out_psig), None)
    if at is None:
        return ""
    return f"On a hot roof: from {format_number(at, 0)} °F at the condenser the head reaches the cut-out; it trips with a clean coil too"
