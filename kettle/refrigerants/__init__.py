"""Saturation of the refrigerants: dew and bubble, both directions.

The data file is generated from CoolProp by tools/generate_saturation.py and names its source. Between its nodes
ln p is taken as linear in 1/T (Clausius-Clapeyron), which at a 2 °F step stays within 0.01 psi of the source.
"""

import json
import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from kettle.errors import InputError
from kettle.units import atmosphere_psia, format_number, psia_to_psig, psig_to_psia

RANKINE = 459.67


@dataclass(frozen=True)
class SaturationLine:
    """One line of a refrigerant: nodes of -1/T (1/°R) and ln p (psia), both rising."""

    x: tuple[float, ...]
    y: tuple[float, ...]

    def psia_at(self, temperature_f: float) -> float:
        """Return the pressure in psia at a temperature in °F; beyond the table the end segment is continued."""
        return math.exp(_interpolate(self.x, self.y, -1.0 / (temperature_f + RANKINE)))

    def temperature_f_at(self, pressure_psia: float) -> float:
        """Return the temperature in °F at a pressure in psia; beyond the table the end segment is continued."""
        return -1.0 / _interpolate(self.y, self.x, math.log(pressure_psia)) - RANKINE


@dataclass(frozen=True)
class Refrigerant:
    """A refrigerant with its two saturation lines and the range in which look-ups are answered."""

    name: str
    safety_class: str
    low_f: float
    high_f: float
    bubble: SaturationLine
    dew: SaturationLine

    @property
    def flammable(self) -> bool:
        """Whether the ASHRAE 34 safety class is above 1 (2L, 2 or 3)."""
        return not self.safety_class.endswith("1")

    def dew_f(self, pressure_psig: float, altitude_ft: float = 0.0) -> float:
        """Return the dew temperature in °F at a gauge pressure in psig.

        Raises InputError outside the table, naming the range in psig.
        """
        return self._temperature_f(self.dew, pressure_psig, altitude_ft)

    def bubble_f(self, pressure_psig: float, altitude_ft: float = 0.0) -> float:
        """Return the bubble temperature in °F at a gauge pressure in psig.

        Raises InputError outside the table, naming the range in psig.
        """
        return self._temperature_f(self.bubble, pressure_psig, altitude_ft)

    def dew_psig(self, temperature_f: float, altitude_ft: float = 0.0) -> float:
        """Return the dew pressure in psig at a temperature in °F; InputError outside the table."""
        return self._pressure_psig(self.dew, temperature_f, altitude_ft)

    def bubble_psig(self, temperature_f: float, altitude_ft: float = 0.0) -> float:
        """Return the bubble pressure in psig at a temperature in °F; InputError outside the table."""
        return self._pressure_psig(self.bubble, temperature_f, altitude_ft)

    def _temperature_f(self, line: SaturationLine, pressure_psig: float, altitude_ft: float) -> float:
        low, high = line.psia_at(self.low_f), line.psia_at(self.high_f)
        pressure_psia = psig_to_psia(pressure_psig, altitude_ft)
        if not low * (1 - 1e-9) <= pressure_psia <= high * (1 + 1e-9):
            atmosphere = atmosphere_psia(altitude_ft)
            raise InputError(
                f"{format_number(pressure_psig)} psig is outside the {self.name} table, "
                f"{format_number(low - atmosphere)} to {format_number(high - atmosphere)} psig"
            )
        return line.temperature_f_at(pressure_psia)

    def _pressure_psig(self, line: SaturationLine, temperature_f: float, altitude_ft: float) -> float:
        if not self.low_f <= temperature_f <= self.high_f:
            raise InputError(
                f"{format_number(temperature_f)} °F is outside the {self.name} table, "
                f"{format_number(self.low_f, 0)} to {format_number(self.high_f, 0)} °F"
            )
        return psia_to_psig(line.psia_at(temperature_f), altitude_ft)


def _interpolate(x: Sequence[float], y: Sequence[float], at: float) -> float:
    i = min(max(bisect_right(x, at) - 1, 0), len(x) - 2)
    return y[i] + (at - x[i]) / (x[i + 1] - x[i]) * (y[i + 1] - y[i])


@cache
def catalogue() -> dict[str, Refrigerant]:
    """Return every refrigerant of the shipped data by the name on the plate."""
    data = json.loads((files(__package__) / "data" / "saturation.json").read_text())
    step_f = data["step_f"]

    def line(low_f: float, pressures: list[float]) -> SaturationLine:
        x = tuple(-1.0 / (low_f + step_f * i + RANKINE) for i in range(len(pressures)))
        return SaturationLine(x, tuple(math.log(p) for p in pressures))

    return {
        name: Refrigerant(
            name=name,
            safety_class=entry["safety_class"],
            low_f=entry["low_f"],
            high_f=entry["low_f"] + step_f * (len(entry["dew_psia"]) - 1),
            bubble=line(entry["low_f"], entry["bubble_psia"]),
            dew=line(entry["low_f"], entry["dew_psia"]),
        )
        for name, entry in data["refrigerants"].items()
    }


def get(name: str) -> Refrigerant:
    """Return a refrigerant by name; case, spaces and the dash do not matter ("r404a" is R-404A).

    Raises InputError that names the refrigerants known.
    """

    def plain(text: str) -> str:
        return text.upper().replace("-", "").replace(" ", "")

    for known, refrigerant in catalogue().items():
        if plain(known) == plain(name):
            return refrigerant
    raise InputError(f"refrigerant “{name[:30]}” is not known; known are {', '.join(catalogue())}")
