"""A bank of defrost heaters: ohms and amps that are right, how many elements work, and what cold ohms say of each."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.electrical.windings import OPEN_FROM_OHM
from kettle.electrical.wiring import MOST_ELEMENTS, SHAPES
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number, ohms_text

# Cold ohms lie within this share of what volts and watts make of them.
COLD_SHARE: Final = 0.15


@dataclass(frozen=True)
class HeaterBank:
    """A bank of heater elements: amps a leg expected, ohms of one element, how many of them the measured amps stand for."""

    expected_amps: float
    element_ohms: float
    working: float | None


def heater_bank(volts: float, rated_w: float, elements: int, phases: int, amps: float | None, shape: str = "") -> HeaterBank:
    """Return what a bank of equal elements should draw, and how many work by the amps of one leg.

    Formulas: A = W ÷ V, ÷ √3 more on three phases; Ω = V² ÷ W of one element, its own volts those of the line (single, delta) or the
    line's ÷ √3 (wye). Raises InputError for figures that are not above zero or a shape that is not known.
    """
    if not (volts > 0 and rated_w > 0 and 1 <= elements <= MOST_ELEMENTS):
        raise InputError(f"Heater: volts and watts must be above 0, and 1 to {MOST_ELEMENTS} elements")
    if shape not in SHAPES:
        raise InputError(f"Heater: “{shape[:20]}” is none of {', '.join(SHAPES.values())}")
    across = volts / math.sqrt(3.0) if shape == "wye" else volts
    expected = rated_w / (volts * (math.sqrt(3.0) if phases == 3 and shape != "single" else 1.0))
    working = None if amps is None else elements * amps / expected
    return HeaterBank(expected, across**2 / (rated_w / elements), working)


def bank_ohm(elements: int, element_ohm: float, shape: str) -> float:
    """Return the ohms across a whole bank, measured cold between two of its legs, or from its leg to the other (single), leads lifted.

    Formulas: elements side by side, Ω ÷ n; on three legs n ÷ 3 side by side in each side: delta one side beside the other two in line,
    ⅔ of a side; wye two sides in line. Raises InputError for no elements, ohms or shape.
    """
    if not (element_ohm > 0 and 1 <= elements <= MOST_ELEMENTS) or shape not in SHAPES:
        raise InputError(
            f"Heater: ohms must be above 0, 1 to {MOST_ELEMENTS} elements, put together as one of {', '.join(SHAPES.values())}"
        )
    if shape in ("", "single") or elements < 3:
        return element_ohm / elements
    side = element_ohm / (elements / 3.0)
    return side * 2.0 if shape == "wye" else side * 2.0 / 3.0


def bank_says(ohm: float, elements: int, element_ohm: float, shape: str) -> str:
    """Return what the cold ohms across a whole bank say: good, or about how many elements are open, in words."""
    right = bank_ohm(elements, element_ohm, shape)
    told = f"{ohms_text(right)} is right"
    if ohm >= OPEN_FROM_OHM:
        return f"open: every element, or the limit or a lead before them ({told})"
    if ohm < right * (1.0 - COLD_SHARE):
        return f"too low: another path lies beside it ({told})"
    if ohm <= right * (1.0 + COLD_SHARE):
        return "good"
    if shape in ("", "single") or elements < 3:
        working = max(1, round(element_ohm / ohm))
        return f"as of {working} of {elements} elements: measure each ({told})"
    return f"too high: an element is open on these legs; the other pairs, then each ({told})"


def cold(ohms: Sequence[float | None], right_ohm: float) -> list[str]:
    """Return what the cold ohms of each element say, measured with its lead off; empty for one that was not measured."""
    return ["" if value is None else _cold(value, right_ohm) for value in ohms]


def _cold(value: float, right_ohm: float) -> str:
    if value >= OPEN_FROM_OHM:
        return "open"
    if value < right_ohm * (1.0 - COLD_SHARE):
        return f"too low: another path lies beside it, or it is shorted ({ohms_text(right_ohm)} is right)"
    if value > right_ohm * (1.0 + COLD_SHARE):
        return f"too high: a burnt joint, or another element ({ohms_text(right_ohm)} is right)"
    return "good"


def telling(bank: HeaterBank, elements: int, amps: float) -> str:
    """Return what the measured amps say, in words."""
    share = 100.0 * amps / bank.expected_amps
    working = bank.working or 0.0
    how = f"{format_number(share, 0)} % of what is right, {format_number(working, 1)} of {elements} elements"
    if share < 85.0:
        return f"{how}: elements are open or starved of volts. Measure each cold, power locked out"
    return (
        f"{how}: the bank draws what it should"
        if share < 115.0
        else f"{how}: more than there is. Another load in the clamp, or higher volts"
    )
