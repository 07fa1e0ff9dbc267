"""Moist air over ice and water: what it can hold."""

from typing import Final

import numpy as np

from kettle.plant.compiled import compiled

# Specific heat of air, Btu/lb°F; heats of vaporisation, fusion and sublimation of water, Btu/lb.
AIR_BTU_LBF: Final = 0.24
MELT_BTU_LB: Final = 144.0
VAPOR_BTU_LB: Final = 1061.0
SUBLIME_BTU_LB: Final = 1220.0
FREEZING_F: Final = 32.0
SEA_LEVEL_PSIA: Final = 14.696
# Frost as it falls, lb/ft³: the formula below is held between these.
LIGHTEST, HEAVIEST = 6.0, 30.0


@compiled
def humidity_at_saturation(temperature_f: float) -> float:
    """Return the humidity ratio of saturated air at sea level, lb/lb, at a temperature in °F, over ice below freezing.

    Formula: Magnus (Alduchov and Eskridge 1996), coefficients over water and over ice.
    """
    celsius = (temperature_f - 32.0) / 1.8
    if celsius < 0.0:
        vapor_psia = 0.0886523 * np.exp(22.587 * celsius / (273.86 + celsius))
    else:
        vapor_psia = 0.0886523 * np.exp(17.625 * celsius / (243.04 + celsius))
    return float(0.62198 * vapor_psia / (SEA_LEVEL_PSIA - vapor_psia))


@compiled
def frost_lb_ft3(surface_f: float) -> float:
    """Return the density of frost growing on a surface at a temperature in °F, lb/ft³: the colder, the fluffier.

    Formula: Hayashi et al. (1977), 650·exp(0.227·t) kg/m³ with t in °C, held inside what is found on coils.
    """
    celsius = (surface_f - 32.0) / 1.8
    return float(min(max(650.0 * 0.062428 * np.exp(0.227 * celsius), LIGHTEST), HEAVIEST))
