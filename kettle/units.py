"""Quantities and conversions: what a technician types, what it becomes, and how it is shown.

The core works in °F, psig, psia, A, V, min and %; every conversion in or out of them is here.
"""

import math
import re
from typing import Final

from kettle.errors import InputError

STANDARD_ATMOSPHERE_PSIA: Final = 14.696
INHG_PER_PSI: Final = 2.036021
PSI_PER_BAR: Final = 14.503774
MINUS: Final = "−"


def atmosphere_psia(altitude_ft: float = 0.0) -> float:
    """Return the local atmosphere in psia at an altitude in ft.

    Formula: International Standard Atmosphere, troposphere (ISO 2533): p = p0 (1 - 6.8756e-6 h)^5.2559.
    """
    return float(STANDARD_ATMOSPHERE_PSIA * (1.0 - 6.8756e-6 * altitude_ft) ** 5.2559)


def psig_to_psia(pressure_psig: float, altitude_ft: float = 0.0) -> float:
    """Return absolute pressure in psia for a gauge pressure in psig at an altitude in ft."""
    return pressure_psig + atmosphere_psia(altitude_ft)


def psia_to_psig(pressure_psia: float, altitude_ft: float = 0.0) -> float:
    """Return gauge pressure in psig for an absolute pressure in psia at an altitude in ft."""
    return pressure_psia - atmosphere_psia(altitude_ft)


def vacuum_inhg(pressure_psig: float) -> float | None:
    """Return inches of mercury vacuum for a gauge pressure below zero, None at or above zero."""
    return -pressure_psig * INHG_PER_PSI if pressure_psig < 0 else None


def _celsius_to_f(value: float) -> float:
    return value * 9.0 / 5.0 + 32.0


# What may follow a figure, by the unit the figure is stored in: suffix -> conversion into that unit.
_SUFFIXES = {
    "°F": {"": lambda v: v, "f": lambda v: v, "c": _celsius_to_f},
    "psig": {
        "": lambda v: v,
        "psi": lambda v: v,
        "psig": lambda v: v,
        "bar": lambda v: v * PSI_PER_BAR,
        "barg": lambda v: v * PSI_PER_BAR,
        "kpa": lambda v: v * PSI_PER_BAR / 100.0,
        "inhg": lambda v: -abs(v) / INHG_PER_PSI,
    },
}
_ENTRY = re.compile(r"^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)\s*([°a-zA-Z%]*)$")


def parse_entry(text: str, unit: str) -> float:
    """Return the number a typed entry means, in `unit`.

    Accepts "31.5", "31,5", "-6", "−6", and for their units "5 inHg", "2.1 bar", "-20C"; the unit itself may follow.
    Raises InputError with what was typed and what would be understood.
    """
    cleaned = text.strip().replace(MINUS, "-")
    found = _ENTRY.match(cleaned)
    if not found:
        raise InputError(f"“{text.strip()[:30]}” is not a number")
    sign, figure, suffix = found.groups()
    value = float(figure.replace(",", ".")) * (-1.0 if sign == "-" else 1.0)
    suffix = suffix.lower().removeprefix("°")
    convert = _SUFFIXES.get(unit, {}).get(suffix)
    if convert is not None:
        value = convert(value)
    elif suffix not in ("", unit.lower()):
        raise InputError(f"“{found.group(3)}” is not a unit of this reading; it is taken in {unit}")
    if not math.isfinite(value):
        raise InputError(f"“{text.strip()[:30]}” is too large a number")
    return value


def format_number(value: float, decimals: int = 1) -> str:
    """Return a figure as it is shown: fixed decimals, a true minus sign, no minus zero."""
    text = f"{value:.{decimals}f}"
    if float(text) == 0:
        text = text.lstrip("-")
    return text.replace("-", MINUS)


def format_value(value: float, unit: str, decimals: int = 1) -> str:
    """Return a figure with its unit; a gauge pressure below zero is also given in inches of mercury."""
    shown = f"{format_number(value, decimals)} {unit}".strip()
    vacuum = vacuum_inhg(value) if unit == "psig" else None
    return f"{shown} ({vacuum:.1f} inHg)" if vacuum is not None else shown


def format_percent(share: float) -> str:
    """Return a share of one as whole percent, never 0 or 100 for what is merely unlikely or likely."""
    return "<1" if 0 < share < 0.005 else ">99" if 0.995 <= share < 1 else f"{100 * share:.0f}"
