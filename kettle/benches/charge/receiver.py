"""What a receiver holds by its level: a standing or a lying cylinder."""

from math import acos, pi, sqrt
from typing import Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant

LIES: Final = {"standing": "standing", "lying": "lying"}
LENGTH_IN: Final = (3.0, 240.0)
DIAMETER_IN: Final = (1.5, 36.0)
IN3_PER_FT3: Final = 1728.0


def share_filled(level: float, lies: str) -> float:
    """Return the share of a cylinder that is full, 0 to 1, by the height of its liquid, 0 to 1: a lying one by its circular segment."""
    if lies == "standing":
        return level
    h = 1.0 - 2.0 * level
    return (acos(h) - h * sqrt(max(1.0 - h * h, 0.0))) / pi


def volume_ft3(length_in: float, diameter_in: float) -> float:
    """Return a receiver's inside, ft³, from its shell's length and diameter, in; FieldErrors by field."""
    wrong = {}
    for name, label, value, span in (("length_in", "Length", length_in, LENGTH_IN), ("diameter_in", "Diameter", diameter_in, DIAMETER_IN)):
        if not span[0] <= value <= span[1]:
            wrong[name] = f"{label}: {format_number(value, 1)} in is outside {span[0]:g} to {span[1]:g} in"
    if wrong:
        raise FieldErrors(wrong)
    return length_in * pi * (diameter_in / 2.0) ** 2 / IN3_PER_FT3


def drawn(level_pct: float) -> tuple[float, float]:
    """Return where liquid is drawn in a receiver 100 high: its top from above, and its height, % of the receiver."""
    held = min(max(level_pct, 0.0), 100.0)
    return 100.0 - held, held


def held_lb(refrigerant: Refrigerant, whole_ft3: float, level_pct: float, lies: str, liquid_f: float) -> float:
    """Return the liquid in a receiver, lb, by its level (%), how it lies, and the liquid's temperature, °F."""
    at = min(max(liquid_f, refrigerant.low_f), refrigerant.high_f)
    return whole_ft3 * share_filled(level_pct / 100.0, lies) * refrigerant.liquid_lb_ft3.at(at)
