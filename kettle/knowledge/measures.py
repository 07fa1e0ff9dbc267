"""Quantities and conversions: what a technician types, what it becomes, and how it is shown.

The core works in °F, psig, psia, A, V, min, lb and %; every conversion in or out of them is here. A stored unit names
what is measured ("°F" a temperature, "°F diff" a difference of two); what a person reads and types it in is chosen by
the person (`ShownUnits`).
"""

import math
import re
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError

STANDARD_ATMOSPHERE_PSIA: Final = 14.696
INHG_PER_PSI: Final = 2.036021
PSI_PER_BAR: Final = 14.503774
KPA_PER_PSI: Final = 6.894757
PA_PER_MICRON: Final = 0.13332237
MICRON_PER_INHG: Final = 25_400.0
OZ_PER_LB: Final = 16.0
KG_PER_LB: Final = 0.45359237
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
    """Return the vacuum, inHg, for a gauge pressure below zero, psig; None at or above zero."""
    return -pressure_psig * INHG_PER_PSI if pressure_psig < 0 else None


@dataclass(frozen=True)
class Measure:
    """One unit a figure can be shown in: shown = stored × factor + offset; what may be typed for it; decimals more or less."""

    label: str
    factor: float
    offset: float = 0.0
    typed: tuple[str, ...] = ()
    decimals: int = 0

    def to_shown(self, stored: float) -> float:
        """Return a figure, in the unit of storage, in this unit."""
        return stored * self.factor + self.offset

    def to_stored(self, shown: float) -> float:
        """Return a figure of this unit in the unit of storage."""
        return (shown - self.offset) / self.factor


# fmt: off
# stored unit -> the units it can be shown and typed in, the stored one first.
MEASURES: Final[dict[str, tuple[Measure, ...]]] = {
    "°F": (Measure("°F", 1, 0, ("f",)), Measure("°C", 5 / 9, -160 / 9, ("c",))),
    "°F diff": (Measure("°F", 1, 0, ("f",)), Measure("K", 5 / 9, 0, ("k", "c"))),
    "psig": (Measure("psig", 1, 0, ("psi", "psig")), Measure("bar", 1 / PSI_PER_BAR, 0, ("bar", "barg"), 1),
             Measure("kPa", KPA_PER_PSI, 0, ("kpa", "kpag"), -1)),
    "psi": (Measure("psi", 1, 0, ("psi",)), Measure("bar", 1 / PSI_PER_BAR, 0, ("bar",), 1), Measure("kPa", KPA_PER_PSI, 0, ("kpa",), -1)),
    "lb": (Measure("lb", 1, 0, ("lb", "lbs")), Measure("oz", OZ_PER_LB, 0, ("oz",), -1), Measure("kg", KG_PER_LB, 0, ("kg",), 1)),
    "oz": (Measure("oz", 1, 0, ("oz",)), Measure("lb", 1 / OZ_PER_LB, 0, ("lb", "lbs"), 2),
           Measure("kg", KG_PER_LB / OZ_PER_LB, 0, ("kg",), 3)),
    "Ω": (Measure("Ω", 1, 0, ("ohm", "ohms")), Measure("kΩ", 1e-3, 0, ("k", "kohm", "kohms")),
          Measure("MΩ", 1e-6, 0, ("m", "meg", "megohm", "megohms", "mohm"))),
    "micron": (Measure("micron", 1, 0, ("micron", "microns")), Measure("Pa", PA_PER_MICRON, 0, ("pa",), 1)),
    "A": (Measure("A", 1, 0, ("a", "amp", "amps")), Measure("mA", 1000, 0, ("ma",))),
    "V": (Measure("V", 1, 0, ("v", "volt", "volts", "vac")), Measure("mV", 1000, 0, ("mv",))),
    "W": (Measure("W", 1, 0, ("w", "watt", "watts")), Measure("kW", 1e-3, 0, ("kw",))),
    "%": (Measure("%", 1, 0, ("%", "percent")),),
    "min": (Measure("min", 1, 0, ("min", "mins", "minute", "minutes")), Measure("h", 1 / 60, 0, ("h", "hr", "hrs", "hour", "hours"))),
}
# fmt: on
# What a unit measures, for whoever named one of something else.
MEASURED: Final[dict[str, str]] = {
    "°F": "a temperature",
    "°F diff": "a temperature",
    "psig": "a pressure",
    "psi": "a pressure",
    "lb": "a weight",
    "oz": "a weight",
    "Ω": "a resistance",
    "micron": "a vacuum",
    "A": "a current",
    "V": "a voltage",
    "W": "a power",
    "%": "a share",
    "min": "a time",
}  # fmt: skip
# A comma before three digits is one of thousands: nobody reads a gauge to a thousandth.
_THOUSANDS = re.compile(r"^[+-]?\d{1,3}(?:,\d{3})+(?!\d)")
# Inches of mercury are vacuum whatever sign they carry.
VACUUM_SUFFIX: Final = "inhg"
# A charge this large is also told in pounds and ounces.
POUNDS_FROM_OZ: Final = 32.0
_POUNDS = re.compile(r"^(\d{1,4})\s*lbs?\.?\s*(\d{1,2}(?:[.,]\d{1,2})?)\s*oz$")
_IN_HG = re.compile(r"(?:in\.?\s*|″\s*|\"\s*)hg\b", re.IGNORECASE)
_ENTRY = re.compile(r"^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)\s*([°a-zA-Z%Ω]*)$")


def measured_in(suffix: str) -> str:
    """Return what a unit as it is typed measures, in words ("a pressure"); empty for what is no unit."""
    suffix = suffix.strip().lower().removeprefix("°")
    if suffix == VACUUM_SUFFIX:
        return MEASURED["psig"]
    return next((MEASURED[unit] for unit, all_of in MEASURES.items() for one in all_of if suffix in (one.label.lower(), *one.typed)), "")


def _too_coarse(inhg: float) -> str:
    """Why inches of mercury are no vacuum reading: what they come to, and what such a gauge cannot tell."""
    left = (STANDARD_ATMOSPHERE_PSIA * INHG_PER_PSI - inhg) * MICRON_PER_INHG
    about = f"about {round(left, -2):,.0f} micron at sea level" if left >= 50.0 else "next to nothing"
    return f"{inhg:g} inHg is {about}, and a gauge in inHg cannot tell a good vacuum from a bad one: read a micron gauge"


@dataclass(frozen=True)
class ShownUnits:
    """The units one person reads and types in; the defaults are the trade's own."""

    temperature: str = "°F"
    pressure: str = "psig"
    mass: str = "lb"
    vacuum: str = "micron"

    def measure(self, unit: str) -> Measure:
        """Return how a stored unit is shown to this person; a unit without conversions is shown as it is."""
        wanted = {"°F": self.temperature, "°F diff": "K" if self.temperature == "°C" else "°F", "psig": self.pressure,
                  "psi": self.pressure, "lb": self.mass, "oz": "kg" if self.mass == "kg" else "oz",
                  "micron": self.vacuum}.get(unit)  # fmt: skip
        choices = MEASURES.get(unit, (Measure(unit, 1),))
        return next((measure for measure in choices if measure.label == wanted), choices[0])

    def label(self, unit: str) -> str:
        """Return the name of the unit a stored figure is shown in."""
        return self.measure(unit).label

    def figure(self, value: float, unit: str, decimals: int = 1) -> str:
        """Return a stored figure as this person reads it, without its unit."""
        measure = self.measure(unit)
        return format_number(measure.to_shown(value), max(0, decimals + measure.decimals))

    def text(self, value: float, unit: str, decimals: int = 1) -> str:
        """Return a stored figure with its unit; a gauge pressure below zero is also given in inches of mercury."""
        shown = f"{self.figure(value, unit, decimals)} {self.label(unit)}".strip()
        vacuum = vacuum_inhg(value) if unit == "psig" else None
        return f"{shown} ({vacuum:.1f} inHg)" if vacuum is not None else shown + self._in_pounds(value, unit)

    def plain(self, value: float, unit: str) -> str:
        """Return a stored figure with its unit, without decimals it does not need: "−5 °F", "−20.6 °C"."""
        shown = f"{round(self.measure(unit).to_shown(value), max(1, 1 + self.measure(unit).decimals)):g}".replace("-", MINUS)
        label = "turn" if unit == "turns" and abs(value) <= 1 else self.label(unit)
        return f"{shown} {label}".strip() + self._in_pounds(value, unit)

    def _in_pounds(self, value: float, unit: str) -> str:
        """What a charge in ounces is in pounds and ounces, as a cylinder's scale says it; empty for small ones and other units."""
        if unit != "oz" or self.label(unit) != "oz" or value < POUNDS_FROM_OZ:
            return ""
        pounds, ounces = divmod(round(value, 1), OZ_PER_LB)
        return f" ({pounds:.0f} lb {ounces:g} oz)"

    def span(self, low: float, high: float, unit: str, decimals: int = 0) -> str:
        """Return a range with its unit, as "4 to 10 °F"."""
        return f"{self.figure(low, unit, decimals)} to {self.figure(high, unit, decimals)} {self.label(unit)}".strip()

    def in_other_unit(self, typed: str, unit: str) -> bool:
        """Return whether a typed entry named another unit than this person reads it in."""
        found = _ENTRY.match(typed.strip().replace(MINUS, "-"))
        suffix = found.group(3).lower().removeprefix("°") if found else ""
        return bool(suffix) and suffix not in (self.label(unit).lower(), *self.measure(unit).typed)

    def edit(self, value: float, unit: str, decimals: int = 1) -> str:
        """Return a stored figure as it stands in an entry field: plain; in its own unit one digit finer than it is shown."""
        measure = self.measure(unit)
        finer = int(measure.factor == 1)
        return f"{round(measure.to_shown(value), max(0, decimals + measure.decimals) + finer):g}"

    def parse(self, text: str, unit: str) -> float:
        """Return the number a typed entry means, in the stored `unit`; a bare figure is in this person's unit.

        Accepts "31.5", "31,5", "-6", "−6", and for their units "5 inHg", "2.1 bar", "-20C", "3 lb 8 oz"; the unit itself may follow.
        Raises InputError with what was typed and what would be understood.
        """
        both = _POUNDS.match(text.strip().lower()) if unit in ("oz", "lb") else None
        if both is None:
            return self._parse_one(text, unit)
        ounces = OZ_PER_LB * float(both.group(1)) + float(both.group(2).replace(",", "."))
        return ounces if unit == "oz" else ounces / OZ_PER_LB

    def _parse_one(self, text: str, unit: str) -> float:
        """One figure with or without its unit."""
        cleaned = _IN_HG.sub(VACUUM_SUFFIX, text.strip().replace(MINUS, "-"))
        thousands = _THOUSANDS.match(cleaned)
        if thousands:
            cleaned = thousands.group().replace(",", "") + cleaned[thousands.end() :]
        found = _ENTRY.match(cleaned)
        if not found:
            raise InputError(f"“{text.strip()[:30]}” is not a number")
        sign, figure, suffix = found.groups()
        value = float(figure.replace(",", ".")) * (-1.0 if sign == "-" else 1.0)
        suffix = suffix.lower().removeprefix("°")
        measures = MEASURES.get(unit, ())
        named = next((measure for measure in measures if suffix in measure.typed), None)
        if named is not None:
            value = named.to_stored(value)
        elif not suffix:
            value = self.measure(unit).to_stored(value)
        elif suffix == VACUUM_SUFFIX and unit == "psig":
            value = -abs(value) / INHG_PER_PSI
        elif suffix == VACUUM_SUFFIX and unit == "micron":
            raise InputError(_too_coarse(abs(value)))
        elif suffix != unit.lower():
            what = measured_in(suffix)
            is_what = f"is {what} and no unit" if what else "is not a unit"
            raise InputError(f"“{found.group(3)}” {is_what} of this reading; it is taken in {self.label(unit)}")
        if not math.isfinite(value):
            raise InputError(f"“{text.strip()[:30]}” is too large a number")
        return value


TRADE: Final = ShownUnits()
_MARKED: Final = re.compile(r"\x02([^|\x03]+)\|([^|\x03]*)\|(\d+)\x03")


class MarkedUnits(ShownUnits):
    """Units for sentences that are kept: a figure is marked where it stands, and worded for whoever reads it (`worded`)."""

    def text(self, value: float, unit: str, decimals: int = 1) -> str:
        """Return a figure as a mark in a sentence."""
        return f"\x02{value:.6g}|{unit}|{decimals}\x03"


MARKED: Final = MarkedUnits()


def worded(sentence: str, shown: ShownUnits = TRADE) -> str:
    """Return a sentence with its marked figures in somebody's units."""
    return _MARKED.sub(lambda found: shown.text(float(found[1]), found[2], int(found[3])), sentence)


# What a person may choose, field of ShownUnits -> units.
SHOWN_CHOICES: Final[dict[str, tuple[str, ...]]] = {
    "temperature": ("°F", "°C"),
    "pressure": ("psig", "bar", "kPa"),
    "mass": ("lb", "oz", "kg"),
    "vacuum": ("micron", "Pa"),
}


def format_number(value: float, decimals: int = 1) -> str:
    """Return a figure as it is shown: fixed decimals, a true minus sign, no minus zero."""
    text = f"{value:.{decimals}f}"
    if float(text) == 0:
        text = text.lstrip("-")
    return text.replace("-", MINUS)


def ohms_text(ohms: float) -> str:
    """Return a resistance as a meter shows it: 0.40 Ω, 12.6 Ω, 200 kΩ, 5.0 MΩ."""
    for factor, label in ((1e6, "MΩ"), (1e3, "kΩ")):
        if ohms >= factor:
            return f"{ohms / factor:.{0 if ohms >= 100 * factor else 1}f} {label}"
    return f"{ohms:.{2 if ohms < 10 else 1 if ohms < 100 else 0}f} Ω"


def long_words(minutes: float) -> str:
    """Return how long something takes: minutes, and hours from an hour and a half on."""
    return f"{format_number(minutes, 0)} min" if minutes < 90.0 else f"{format_number(minutes / 60.0)} h"


def format_percent(share: float) -> str:
    """Return a share of one as whole percent, never 0 or 100 for what is merely unlikely or likely."""
    return "<1" if 0 < share < 0.005 else ">99" if 0.995 <= share < 1 else f"{100 * share:.0f}"


def whole(text: str | None, low: int, high: int) -> int | None:
    """Return a whole number as it comes in an address or a hidden field; None for anything else, and outside low to high."""
    if text is None or not text.isascii() or not text.isdigit() or len(text) > len(str(high)):
        return None
    value = int(text)
    return value if low <= value <= high else None
