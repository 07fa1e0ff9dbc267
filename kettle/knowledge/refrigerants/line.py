"""The tabled lines of a refrigerant: saturation, looked up both ways, and the properties along it."""

import math
from bisect import bisect_right
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

RANKINE = 459.67
# A pressure read back from its own table may miss the end by rounding.
END_SLACK = 1e-9

Figures = NDArray[np.float64]


@dataclass(frozen=True)
class SaturationLine:
    """One saturation line: nodes of -1/T (1/°R) and ln p (psia), both rising.

    Between nodes ln p is taken as linear in 1/T (Clausius-Clapeyron), which at a step of 2 °F stays within 0.03 psi of
    the source.
    """

    x: tuple[float, ...]
    y: tuple[float, ...]
    slopes: tuple[float, ...] = field(init=False)
    low_psia: float = field(init=False)
    high_psia: float = field(init=False)

    def __post_init__(self) -> None:
        pairs = zip(zip(self.x, self.y, strict=True), zip(self.x[1:], self.y[1:], strict=True), strict=False)
        object.__setattr__(self, "slopes", tuple((y1 - y0) / (x1 - x0) for (x0, y0), (x1, y1) in pairs))
        object.__setattr__(self, "low_psia", math.exp(self.y[0]) * (1 - END_SLACK))
        object.__setattr__(self, "high_psia", math.exp(self.y[-1]) * (1 + END_SLACK))

    def psia_at(self, temperature_f: float) -> float:
        """Return the pressure in psia at a temperature in °F; beyond the table the end segment is continued."""
        at = -1.0 / (temperature_f + RANKINE)
        i = bisect_right(self.x, at, 1, len(self.slopes)) - 1
        return math.exp(self.y[i] + (at - self.x[i]) * self.slopes[i])

    def temperature_f_at(self, pressure_psia: float) -> float:
        """Return the temperature in °F at a pressure in psia; beyond the table the end segment is continued."""
        at = math.log(pressure_psia)
        i = bisect_right(self.y, at, 1, len(self.slopes)) - 1
        return -1.0 / (self.x[i] + (at - self.y[i]) / self.slopes[i]) - RANKINE

    @cached_property
    def _nodes(self) -> tuple[Figures, Figures]:
        return np.array(self.x), np.array(self.y)

    def psia_of(self, temperatures_f: Figures) -> Figures:
        """Return pressures in psia at an array of temperatures in °F, of the same shape; NaN beyond the table."""
        x, y = self._nodes
        found: Figures = np.exp(np.interp(-1.0 / (temperatures_f + RANKINE), x, y, np.nan, np.nan))
        return found

    def temperatures_f_of(self, pressures_psia: Figures) -> Figures:
        """Return temperatures in °F at an array of pressures in psia, of the same shape; NaN beyond the table."""
        x, y = self._nodes
        found: Figures = -1.0 / np.interp(np.log(pressures_psia), y, x, np.nan, np.nan) - RANKINE
        return found


@dataclass(frozen=True)
class PropertyLine:
    """One property along the saturation line: its values at even steps of temperature, linear between."""

    low_f: float
    step_f: float
    values: tuple[float, ...]

    def at(self, temperature_f: float) -> float:
        """Return the property at a temperature in °F; beyond the table the end value stands."""
        place = (temperature_f - self.low_f) / self.step_f
        i = min(max(int(place), 0), len(self.values) - 2)
        share = min(max(place - i, 0.0), 1.0)
        return self.values[i] + share * (self.values[i + 1] - self.values[i])

    def of(self, temperatures_f: Any) -> Figures:
        """Return the property at an array of temperatures in °F, of the same shape; the ends stand beyond the table."""
        nodes = self.low_f + self.step_f * np.arange(len(self.values))
        found: Figures = np.interp(temperatures_f, nodes, self.values)
        return found
