"""The refrigerants: saturation (dew and bubble, both directions) and properties along it.

The data file is generated from CoolProp by tools/generate_saturation.py and names its source and the pairs of blends
that source only estimates. Superheat takes the dew line, subcooling the bubble line; nothing here mixes the two.
"""

import json
import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import STANDARD_ATMOSPHERE_PSIA, atmosphere_psia, format_number
from kettle.knowledge.refrigerants.line import RANKINE, Figures, PropertyLine, SaturationLine

# What some are called beside their number.
ALSO_CALLED: Final = {"propane": "R-290", "isobutane": "R-600a", "carbon dioxide": "R-744", "co2": "R-744"}
# From this glide on, dew and bubble are told apart on screen and a mid-point is shown.
GLIDE_SHOWN_F: Final = 2.0


@dataclass(frozen=True)
class Refrigerant:
    """A refrigerant with its two saturation lines, properties along them, and the range in which it is answered.

    `molar_mass` in lb/lbmol. `estimated` names the pairs of a blend whose mixing the source only estimates.
    Properties: density lb/ft³, enthalpy Btu/lb (saturated liquid at -40 °F is 0), heat capacity Btu/lb°F, viscosity lb/ft·h (of
    blends from their parts: good to some 10 %); liquid on the
    bubble line, vapor on the dew line, each by its own saturation temperature.
    """

    name: str
    safety_class: str
    molar_mass: float
    estimated: tuple[str, ...]
    low_f: float
    high_f: float
    bubble: SaturationLine
    dew: SaturationLine
    liquid_lb_ft3: PropertyLine
    vapor_lb_ft3: PropertyLine
    liquid_btu_lb: PropertyLine
    vapor_btu_lb: PropertyLine
    liquid_btu_lbf: PropertyLine
    vapor_btu_lbf: PropertyLine
    liquid_lb_fth: PropertyLine
    vapor_lb_fth: PropertyLine

    @property
    def is_mixture(self) -> bool:
        """Whether it is a mixture of the 400 or 500 series (ASHRAE 34), which leaves a cylinder as it is only as liquid."""
        number = self.name.removeprefix("R-")[:3]
        return number.isdigit() and number[0] in "45"

    @property
    def flammable(self) -> bool:
        """Whether the ASHRAE 34 safety class is above 1 (2L, 2 or 3)."""
        return not self.safety_class.endswith("1")

    @property
    def glide_f(self) -> float:
        """Glide, °F: dew − bubble at one standard atmosphere, or at the lowest pressure of the table where that is higher."""
        pressure = max(STANDARD_ATMOSPHERE_PSIA, self.bubble.low_psia, self.dew.low_psia)
        return self.dew.temperature_f_at(pressure) - self.bubble.temperature_f_at(pressure)

    @property
    def glides(self) -> bool:
        """Whether dew and bubble lie far enough apart to matter to a technician."""
        return self.glide_f > GLIDE_SHOWN_F

    def dew_f(self, pressure_psig: float, altitude_ft: float = 0.0) -> float:
        """Return the dew temperature in °F at a gauge pressure in psig.

        Raises InputError outside the table, naming the range in psig.
        """
        line = self.dew
        pressure_psia = pressure_psig + (atmosphere_psia(altitude_ft) if altitude_ft else STANDARD_ATMOSPHERE_PSIA)
        if not line.low_psia <= pressure_psia <= line.high_psia:
            raise self._outside(line, pressure_psig, altitude_ft)
        return line.temperature_f_at(pressure_psia)

    def bubble_f(self, pressure_psig: float, altitude_ft: float = 0.0) -> float:
        """Return the bubble temperature in °F at a gauge pressure in psig.

        Raises InputError outside the table, naming the range in psig.
        """
        line = self.bubble
        pressure_psia = pressure_psig + (atmosphere_psia(altitude_ft) if altitude_ft else STANDARD_ATMOSPHERE_PSIA)
        if not line.low_psia <= pressure_psia <= line.high_psia:
            raise self._outside(line, pressure_psig, altitude_ft)
        return line.temperature_f_at(pressure_psia)

    def mid_f(self, pressure_psig: float, altitude_ft: float = 0.0) -> float:
        """Return the mid-point of dew and bubble in °F at a gauge pressure in psig; InputError outside the table.

        What an evaporator or condenser full of a blend is like on average (AHRI 540, mid-point convention).
        """
        return (self.dew_f(pressure_psig, altitude_ft) + self.bubble_f(pressure_psig, altitude_ft)) / 2.0

    def dew_psig(self, temperature_f: float, altitude_ft: float = 0.0) -> float:
        """Return the dew pressure in psig at a temperature in °F; InputError outside the table."""
        return self._pressure_psig(self.dew, temperature_f, altitude_ft)

    def bubble_psig(self, temperature_f: float, altitude_ft: float = 0.0) -> float:
        """Return the bubble pressure in psig at a temperature in °F; InputError outside the table."""
        return self._pressure_psig(self.bubble, temperature_f, altitude_ft)

    def dew_f_of(self, pressures_psig: Figures, altitude_ft: float = 0.0) -> Figures:
        """Return dew temperatures in °F at an array of gauge pressures in psig, of the same shape; NaN outside the table."""
        return self.dew.temperatures_f_of(pressures_psig + atmosphere_psia(altitude_ft))

    def _outside(self, line: SaturationLine, pressure_psig: float, altitude_ft: float) -> InputError:
        low, high = (end - atmosphere_psia(altitude_ft) for end in (line.low_psia, line.high_psia))
        return InputError(
            f"{format_number(pressure_psig)} psig is outside the {self.name} table, {format_number(low)} to {format_number(high)} psig"
        )

    def _pressure_psig(self, line: SaturationLine, temperature_f: float, altitude_ft: float) -> float:
        if not self.low_f <= temperature_f <= self.high_f:
            raise InputError(
                f"{format_number(temperature_f)} °F is outside the {self.name} table, "
                f"{format_number(self.low_f, 0)} to {format_number(self.high_f, 0)} °F"
            )
        return line.psia_at(temperature_f) - (atmosphere_psia(altitude_ft) if altitude_ft else STANDARD_ATMOSPHERE_PSIA)


@cache
def _data() -> dict[str, Any]:
    loaded: dict[str, Any] = json.loads((files(__package__) / "data" / "saturation.json").read_text())
    return loaded


def source() -> str:
    """Return where the data come from, with the version."""
    return str(_data()["source"])


def tabled(name: str, entry: Mapping[str, Any], step_f: float) -> Refrigerant:
    """Return a refrigerant from its entry of the data: columns at every `step_f`, °F, from `low_f` on, psia, lb/ft³, Btu/lb, as
    `tools/generate_saturation.py` writes them."""
    low_f, count = entry["low_f"], len(entry["dew_psia"])

    def saturation(column: str) -> SaturationLine:
        x = tuple(-1.0 / (low_f + step_f * i + RANKINE) for i in range(count))
        return SaturationLine(x, tuple(math.log(p) for p in entry[column]))

    def line(column: str) -> PropertyLine:
        return PropertyLine(low_f, step_f, tuple(entry[column]))

    return Refrigerant(
        name=name,
        safety_class=entry["safety_class"],
        molar_mass=entry["molar_mass"],
        estimated=tuple(entry["estimated"]),
        low_f=low_f,
        high_f=low_f + step_f * (count - 1),
        bubble=saturation("bubble_psia"),
        dew=saturation("dew_psia"),
        liquid_lb_ft3=line("liquid_lb_ft3"),
        vapor_lb_ft3=line("vapor_lb_ft3"),
        liquid_btu_lb=line("liquid_btu_lb"),
        vapor_btu_lb=line("vapor_btu_lb"),
        liquid_btu_lbf=line("liquid_btu_lbf"),
        vapor_btu_lbf=line("vapor_btu_lbf"),
        liquid_lb_fth=line("liquid_lb_fth"),
        vapor_lb_fth=line("vapor_lb_fth"),
    )


@cache
def catalogue() -> dict[str, Refrigerant]:
    """Return every refrigerant of the shipped data by the name on the plate."""
    return {name: tabled(name, entry, _data()["step_f"]) for name, entry in _data()["refrigerants"].items()}


def get(name: str) -> Refrigerant:
    """Return a refrigerant by name; case, spaces and the dash do not matter ("r404a" is R-404A).

    Raises InputError that names the refrigerants known.
    """
    known = catalogue().get(name)
    if known is not None:
        return known

    for refrigerant in catalogue().values():
        if _plain(refrigerant.name) == _plain(name):
            return refrigerant
    raise InputError(f"refrigerant “{name[:30]}” is not known; known are {', '.join(catalogue())}")


def _plain(text: str) -> str:
    return text.upper().replace("-", "").replace(" ", "")


def matching(typed: str) -> tuple[str, ...]:
    """Return the names that a few typed letters or digits may mean, those that begin so first; empty for nothing typed."""
    letters = _plain(typed).removeprefix("R")
    if not letters:
        return ()
    called = [name for word, name in ALSO_CALLED.items() if len(letters) > 2 and _plain(word).startswith(_plain(typed))]
    found = sorted((name for name in catalogue() if letters in _plain(name)[1:]), key=lambda name: not _plain(name)[1:].startswith(letters))
    return tuple(dict.fromkeys((*called, *found)))


def meant(typed: str) -> Refrigerant:
    """Return the one refrigerant that typed letters mean: by its name, or the only one they fit.

    Raises InputError that names those it may be, or says that none is called so.
    """
    fits = matching(typed)
    exact = [name for name in fits if _plain(name).removeprefix("R") == _plain(typed).removeprefix("R")]
    if len(exact or fits) == 1:
        return get((exact or fits)[0])
    if not fits:
        raise InputError(f"Refrigerant: none is called “{typed.strip()[:30]}”; type its number, as 448A")
    raise InputError(f"Refrigerant: “{typed.strip()[:30]}” may be {', '.join(fits[:8])}; say which")
