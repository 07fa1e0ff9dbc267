"""What a technician would read on a plant: gauges, clamps, air and amps with their scatter, and what eyes find."""

import random
from typing import Final

import numpy as np

from kettle.knowledge.observations import Value, get
from kettle.knowledge.units import psia_to_psig
from kettle.plant.box import ICE_LB_FT3
from kettle.plant.faults import FAULTS
from kettle.plant.parts import Plant
from kettle.plant.rows import SECTIONS, Figures
from kettle.plant.run import Course

# One standard deviation of a field reading: of pressures as a share, of temperatures in °F, of amps as a share.
PRESSURE_SCATTER: Final = 0.006
CLAMP_SCATTER_F: Final = 0.6
AMPS_SCATTER: Final = 0.02
# Shares of the free room of a section, from which frost is called light, heavy, and ice hard.
LIGHT, HEAVY = 0.02, 0.45
CLEAR_FLASH, SOME_FLASH = 0.01, 0.05


def observed(plant: Plant, course: Course, codes: tuple[str, ...] = (), seed: int = 1, variant: int = 0) -> dict[str, Value]:
    """Return the observations of one variant at the end of a course, scattered by `seed`; `codes` are the faults in it."""
    chance, s, f = random.Random(seed), course.state, course.flows

    def one(figures: Figures) -> float:
        return float(np.asarray(figures)[variant])

    found: dict[str, Value] = {"box_temp_f": one(s.air_f), "product_temp_f": one(s.product_f)}
    water = plant.unit.condensing == "water"
    running = one(s.running) > 0
    found["compressor"] = "running" if running else "off"
    if one(s.fans) > 0:
        found["evap_fans"] = "running"
    if not water:
        found |= {"condenser_fans": "running", "condenser_coil": "clean", "ambient_f": one(f.coolant_f)}
    blocked = (s.frost_ft3[variant] + s.ice_lb[variant] / ICE_LB_FT3) / (one(plant.parts.gap_ft3) / SECTIONS)
    ice = float(s.ice_lb[variant].sum()) > float(s.frost_lb[variant].sum())
    most = float(blocked.max())
    found["ice_form"] = "none" if most < LIGHT else "light_frost" if most < HEAVY else "hard_ice" if ice else "heavy_frost"
    if running:
        sst, altitude = one(s.sst_f), plant.unit.altitude_ft
        found |= {
            "suction_psig": psia_to_psig(one(f.suction_psia), altitude),
            "discharge_psig": psia_to_psig(one(f.discharge_psia), altitude),
            "suction_line_evap_f": sst + one(f.superheat_f),
            "suction_line_comp_f": one(f.suction_line_f),
            "liquid_line_f": one(f.liquid_f),
            "discharge_line_f": one(f.discharge_line_f),
            "drier_drop_f": max(0.0, one(f.liquid_f) - one(f.valve_inlet_f)),
            "compressor_amps": one(f.amps),
            "return_air_f": one(s.air_f),
            "supply_air_f": float(course.series["supply_f"][-1][variant]),
        }
        if water:
            found |= {"water_in_f": one(f.coolant_f), "water_out_f": one(f.coolant_f) + one(f.rise_f)}
        if plant.unit.receiver:
            flash = one(f.flash)
            found["sight_glass"] = "clear" if flash < CLEAR_FLASH else "few_bubbles" if flash < SOME_FLASH else "flashing"
            found["receiver_level_pct"] = 100.0 * one(f.receiver_share)
    if plant.unit.metering == "txv":
        found["bulb"] = "tight_insulated"
    for code in codes:
        found |= FAULTS[code].seen
    return {key: scattered(key, value, chance) for key, value in found.items() if get(key).exists_on(plant.unit)}


def scattered(key: str, value: Value, chance: random.Random) -> Value:
    """Return a reading with the scatter of its instrument; words as they are."""
    if not isinstance(value, float):
        return value
    entry = get(key)
    if key.endswith("_psig"):
        value *= 1.0 + chance.gauss(0, PRESSURE_SCATTER)
    elif key.endswith("_amps"):
        value *= 1.0 + chance.gauss(0, AMPS_SCATTER)
    elif entry.unit == "°F":
        value += chance.gauss(0, CLAMP_SCATTER_F)
    return round(min(max(value, entry.low), entry.high), 1)
