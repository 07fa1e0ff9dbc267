"""Moist air over ice and water: what it can hold."""

from typing import Final

import numpy as np
from numpy.typing import NDArray

Figures = NDArray[np.float64]
# Specific heat of air, Btu/lb°F; heats of vaporisation, fusion and sublimation of water, Btu/lb.
AIR_BTU_LBF: Final = 0.24
MELT_BTU_LB: Final = 144.0
VAPOR_BTU_LB: Final = 1061.0
SUBLIME_BTU_LB: Final = 1220.0
FREEZING_F: Final = 32.0


def humidity_at_saturation(temperature_f: Figures, pressure_psia: float = 14.696) -> Figures:
    """Return the humidity ratio of saturated air, lb/lb, at temperatures in °F, over ice below freezing.

    Formula: Magnus (Alduchov and Eskridge 1996), coefficients over water and over ice.
    """
    celsius = (temperature_f - 32.0) / 1.8
    frozen = celsius < 0.0
    a, b = np.where(frozen, 22.587, 17.625), np.where(frozen, 273.86, 243.04)
    vapor_psia = 0.0886523 * np.exp(a * celsius / (b + celsius))
    found: Figures = 0.62198 * vapor_psia / (pressure_psia - vapor_psia)
    return found


def between(values: Figures, low: float | Figures, high: float | Figures) -> Figures:
    """Return values held between two ends, element by element (quicker on short arrays than the library's own)."""
    found: Figures = np.minimum(np.maximum(values, low), high)
    return found
