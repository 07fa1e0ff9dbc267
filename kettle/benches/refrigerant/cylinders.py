"""Cylinders: how much may go in, what is in it, and what may not go together."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import OZ_PER_LB, TRADE, ShownUnits, format_number
from kettle.knowledge.refrigerants import Refrigerant

# A cylinder is never fuller than this share of its volume at the warmest it will see (rule of the trade and of transport codes).
FULL_SHARE: Final = 0.8
WARMEST_F: Final = 130.0
# Water capacity is stamped in pounds of water at 60 °F.
WATER_LB_FT3: Final = 62.37
WATER_LB: Final = (1.0, 3000.0)
TARE_LB: Final = (1.0, 2000.0)
WARM_F: Final = (70.0, 150.0)
# What was recovered may differ so much from what should have been in it, of one, before it is asked about.
DIFFERS_SHARE: Final = 0.15


@dataclass(frozen=True)
class Room:
    """What may go into a cylinder, lb: its limit, what is in it, and the room left (negative: overfilled)."""

    limit_lb: float
    inside_lb: float

    @property
    def left_lb(self) -> float:
        """The room left, lb."""
        return self.limit_lb - self.inside_lb

    @property
    def over(self) -> bool:
        """Whether it is overfilled."""
        return self.left_lb < 0.0


def limit_lb(refrigerant: Refrigerant, water_lb: float, warmest_f: float = WARMEST_F) -> float:
    """Return how much of a refrigerant a cylinder may hold, lb.

    `FULL_SHARE` of its volume at the liquid's density at the warmest it will see; `water_lb` is the water capacity stamped on it. Near its
    critical point a refrigerant counts as at the end of its table. FieldErrors by field for what cannot be.
    """
    wrong = {}
    for name, label, value, span, unit in (
        ("water_lb", "Water capacity", water_lb, WATER_LB, "lb"), ("warmest_f", "Warmest", warmest_f, WARM_F, "°F"),
    ):  # fmt: skip
        if not span[0] <= value <= span[1]:
            wrong[name] = f"{label}: {format_number(value, 1)} {unit} is outside {span[0]:g} to {span[1]:g} {unit}"
    if wrong:
        raise FieldErrors(wrong)
    return FULL_SHARE * water_lb / WATER_LB_FT3 * refrigerant.liquid_lb_ft3.at(min(warmest_f, refrigerant.high_f))


def room(limit: float, gross_lb: float, tare_lb: float) -> Room:
    """Return the room in a cylinder by its weight on the scale and its tare, lb; FieldErrors where it weighs less than empty."""
    if gross_lb < tare_lb:
        told = f"{format_number(gross_lb, 1)} lb is less than its tare, {format_number(tare_lb, 1)} lb"
        raise FieldErrors({"gross_lb": f"On the scale: {told}"})
    return Room(limit, gross_lb - tare_lb)


def may_go_in(in_it: str, wanted: str, recovery: bool) -> str:
    """Return why a refrigerant may not go into a cylinder, in words; empty where it may. `in_it` is empty for an empty one."""
    if not recovery:
        return "This is a supply cylinder: recovered gas goes into a recovery cylinder only"
    if in_it and in_it != wanted:
        return f"It holds {in_it}: {wanted} does not go in with it. Mixed gas can only be destroyed"
    return ""


def recovered(expected_oz: float, got_oz: float, shown: ShownUnits = TRADE) -> str:
    """Return what recovered gas says against what should have been in a unit, oz, in words."""
    off = got_oz - expected_oz
    share = off / expected_oz
    told = f"{shown.text(got_oz, 'oz', 1)} of {shown.text(expected_oz, 'oz', 1)}"
    if abs(share) <= DIFFERS_SHARE:
        return f"{told}: as it should be"
    pct = format_number(abs(100.0 * share), 0)
    if off < 0:
        return f"{told}, {pct} % short: it leaked, or gas still lies in it (cold coil, oil, shut valve)"
    return f"{told}, {pct} % over: it was overcharged, or the label is not this unit's"


def came_out(before_oz: float, after_oz: float) -> float:
    """Return the ounces that went into a recovery cylinder by its weight before and now; FieldErrors where it weighs no more."""
    if after_oz <= before_oz:
        raise FieldErrors({"after": "Cylinder now: it weighs no more than before, nothing went in"})
    return after_oz - before_oz


def lb(oz: float) -> float:
    """Return ounces as pounds."""
    return oz / OZ_PER_LB
