"""Plants by kind: every part sized from one design point, the middle of the kind's own bands at 85 °F outside.

A sound plant therefore sits inside its bands; what it does away from the design point follows from the parts.
"""

from typing import Final

import numpy as np

from kettle.knowledge import amps
from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.refrigerants import Refrigerant
from kettle.plant.compiled import compiled
from kettle.plant.parts import Parts, Plant, plant_of

DESIGN_OUTSIDE_F: Final = 85.0
DESIGN_WATER_F: Final = 70.0
WATER_RISE_F: Final = 11.0
# Share of the coil's face that is wetted by boiling refrigerant at the design superheat.
WETTED: Final = 0.86
# Air is cooled over the coil by this share of TD, and warmed over the condenser by this share of the split.
COIL_EFFECT: Final = 0.60
CONDENSER_EFFECT: Final = 0.58
# The coil's refrigerant side against the whole of it.
REFRIGERANT_TO_WHOLE: Final = 4.0
# Efficiency of compression against ideal polytropic work at this ratio, and what it loses for each step of ratio beyond.
EFFICIENCY_AT_RATIO: Final = (0.62, 5.0)
EFFICIENCY_FALLS: Final = 0.008
LEAST_EFFICIENCY, MOST_EFFICIENCY = 0.45, 0.65
# Btu of a psi·ft³.
BTU_PER_PSI_FT3: Final = 144.0 / 778.17
WATTS_PER_BTU_H: Final = 0.29307
# Share of the time a sound plant runs at the design point, and what its load is made of there.
DESIGN_RUN: Final = 0.55
LOAD_SHARES: Final = {"walls": 0.42, "infiltration": 0.26, "fans": 0.19, "lights": 0.08, "stock": 0.05}
# Room for frost between the fins, ft³ per Btu/h, and heater power against capacity.
GAP_FT3: Final = 0.0011 / 8.0
HEATER: Final = 0.95
# What the box may warm to, °F over set, before stock is at stake: cooler, freezer.
LIMIT_OVER_F: Final = {False: 5.0, True: 10.0}
# Pressure switches, as saturated °F below set: a pump-down cuts out and in here; without one the switch only guards.
PUMPED_OUT_F: Final = 20.0
LEAST_PSIA: Final = 15.5
LP_DIFFERENTIAL_PSI: Final = 12.0
# The high-pressure switch opens at this condensing temperature of a clean charge.
HP_OUT_F: Final = 146.0
HEAD_HELD_F: Final = 80.0
FAN_IN_F: Final = 88.0


@compiled
def compressor_efficiency(ratio: float) -> float:
    """Return the efficiency of compression, of one, at a ratio of absolute pressures: a little less the higher it is.

    Its size and slope are those of small reciprocating compressors (Stoecker and Jones 1982, ch. 11; the slope by judgement).
    """
    middle, at = EFFICIENCY_AT_RATIO
    return float(min(max(middle - EFFICIENCY_FALLS * (ratio - at), LEAST_EFFICIENCY), MOST_EFFICIENCY))


def _middle(unit: Unit, quantity: str) -> float:
    band = default_band(unit, quantity)
    assert band is not None
    return (band[0] + band[1]) / 2.0


def _power_btu_h(r: Refrigerant, swept_ft3_h: float, sst_f: float, sct_f: float) -> float:
    ratio = r.bubble.psia_at(sct_f) / r.dew.psia_at(sst_f)
    return swept_ft3_h * amps.compression_power(r, sst_f, sct_f) * BTU_PER_PSI_FT3 / compressor_efficiency(ratio)


def limit_f(unit: Unit) -> float:
    """Return the box temperature, °F, above which the stock of a unit is at stake."""
    return unit.set_f + LIMIT_OVER_F[unit.kind.freezer]


def _pumps_down(unit: Unit) -> bool:
    return unit.receiver and unit.metering != "cap_tube" and unit.box_control != "suction_pressure"


def _low_pressure_switch(unit: Unit, te_f: float) -> tuple[float, float]:
    """Cut-in and cut-out of the low-pressure switch of a unit whose coil works at `te_f`, psia; none on a capillary unit.

    Elsewhere it guards, and cuts in where the coil at rest always comes to; it ends a pump-down, or holds the box by itself.
    """
    dew = unit.refrigerant.dew
    if unit.metering == "cap_tube":
        guards = (0.0, 0.0)
    else:
        pe = dew.psia_at(te_f)
        out = max(min(LEAST_PSIA, 0.7 * pe), 0.5 * pe)
        guards = (max(min(out + LP_DIFFERENTIAL_PSI, pe), 1.1 * out), out)
    if unit.box_control == "suction_pressure":
        half = unit.differential_f / 2.0
        return dew.psia_at(unit.set_f + half), dew.psia_at(te_f - half)
    if _pumps_down(unit):
        return dew.psia_at(te_f), dew.psia_at(max(te_f - PUMPED_OUT_F, unit.refrigerant.low_f + 5.0))
    return guards


def _circuit(unit: Unit) -> dict[str, float]:
    """Compressor, coil, condenser, valve and charge from the design point."""
    r, water = unit.refrigerant, unit.condensing == "water"
    capacity = unit.kind.capacity_btu_h
    td, superheat = _middle(unit, "td_f"), _middle(unit, "superheat_evap_f")
    superheat = min(superheat, 0.75 * td)
    subcooling = 3.0 if unit.receiver else 9.0
    lift = _middle(unit, "approach_f") + WATER_RISE_F if water else _middle(unit, "split_f")
    te, tc = unit.set_f - td, (DESIGN_WATER_F if water else DESIGN_OUTSIDE_F) + lift
    gain = 12.0
    latent = r.vapor_btu_lb.at(te) - r.liquid_btu_lb.at(tc - subcooling)
    flow = capacity / (latent + r.vapor_btu_lbf.at(te) * superheat)
    pe, pc = r.dew.psia_at(te), r.bubble.psia_at(tc)
    density = r.vapor_lb_ft3.at(te) / (1.0 + (superheat + gain) / (te + 459.67))
    volumetric = 1.0 + amps.CLEARANCE - amps.CLEARANCE * (pc / pe) ** (1.0 / amps.EXPONENT)
    swept = flow / (volumetric * density)
    coil_flow = capacity / (COIL_EFFECT * td)
    whole = flow * latent / (WETTED * td)
    refrigerant_side = REFRIGERANT_TO_WHOLE * whole
    air_conductance = 1.0 / (1.0 / whole - 1.0 / refrigerant_side)
    rejected = capacity + _power_btu_h(r, swept, te, tc)
    condenser_flow = rejected / (WATER_RISE_F if water else CONDENSER_EFFECT * lift)
    condenser = -np.log(1.0 - min(rejected / (condenser_flow * lift), 0.97)) * condenser_flow
    liquid = r.liquid_lb_ft3.at(tc)
    lp_in, lp_out = _low_pressure_switch(unit, te)
    return {
        "swept_ft3_h": swept, "clearance": amps.CLEARANCE, "rla_a": unit.compressor_rla_a or 10.0,
        "rated_power_btu_h": _power_btu_h(r, swept, *amps.RATED_AT_F[unit.kind.freezer]),
        "coil_air": -np.log(1.0 - min(air_conductance / coil_flow, 0.97)) * coil_flow, "coil_refrigerant": refrigerant_side,
        "coil_flow": coil_flow, "vapor_side": -np.log(1.0 - superheat / td) * flow * r.vapor_btu_lbf.at(te) / (1.0 - WETTED),
        "condenser": condenser, "condenser_flow": condenser_flow, "condenser_clean": condenser,
        "valve": flow / ((1.0 if unit.metering == "cap_tube" else 0.5) * np.sqrt(liquid * (pc - pe))),
        "superheat_set_f": superheat, "suction_gain_f": gain, "lp_in_psia": lp_in, "lp_out_psia": lp_out,
        "hp_out_psia": r.bubble.psia_at(HP_OUT_F), **_charged(unit, liquid),
    }  # fmt: skip


def _charged(unit: Unit, liquid_lb_ft3: float) -> dict[str, float]:
    """What holds the charge, and the charge."""
    capacity = unit.kind.capacity_btu_h
    evaporator, line, condenser_ft3 = 0.00018 * capacity, 0.00008 * capacity, 6e-6 * capacity
    receiver_ft3 = 2.2 * (evaporator + line) / liquid_lb_ft3 if unit.receiver else 0.0
    # Added up from the left, as ever: another order is another last digit, and another course.
    if unit.receiver:
        charge = evaporator + line + (0.52 * receiver_ft3 * liquid_lb_ft3) + 0.10 * condenser_ft3 * liquid_lb_ft3
    else:
        charge = evaporator + line + 0.22 * condenser_ft3 * liquid_lb_ft3
    return {
        "evaporator_lb": evaporator, "line_lb": line, "condenser_ft3": condenser_ft3, "receiver_ft3": receiver_ft3,
        "charge_lb": charge,
    }  # fmt: skip


def _box(unit: Unit) -> dict[str, float]:
    """What warms the box, and what its air, stock and structure hold."""
    capacity = unit.kind.capacity_btu_h
    load, room = DESIGN_RUN * capacity, DESIGN_OUTSIDE_F - unit.set_f
    return {
        "walls": LOAD_SHARES["walls"] * load / room,
        "infiltration_lb_h": LOAD_SHARES["infiltration"] * load / (0.24 * room + 1061.0 * 0.011),
        "fans_btu_h": LOAD_SHARES["fans"] * load, "lights_btu_h": LOAD_SHARES["lights"] * load, "stock_btu_h": LOAD_SHARES["stock"] * load,
        "metal_btu_f": 0.0028 * capacity, "gap_ft3": GAP_FT3 * capacity,
        "air_btu_f": 0.03 * capacity, "product_btu_f": 0.10 * capacity, "core_btu_f": 0.2 * capacity, "structure_btu_f": 0.03 * capacity,
        "product_air": 0.10 * capacity, "product_core": 0.05 * capacity, "structure_air": 0.06 * capacity,
    }  # fmt: skip


def _controls(unit: Unit) -> dict[str, float]:
    """Thermostat, defrost, head control, and of what build its parts are."""
    heated = unit.defrost in ("electric", "hot_gas")
    heater = HEATER * unit.kind.capacity_btu_h if heated else 0.0
    holds, cycles = unit.head_control in ("mixing_valve", "mixing_valve_and_fan"), unit.head_control in ("fan_cycling", "fan_speed")
    return {
        "heater_btu_h": heater, "heater_rated_btu_h": heater, "termination_f": 55.0 if heated else 40.0,
        "defrosts_per_day": 0.0 if unit.defrost in ("none", "off_cycle") else 4.0, "fail_safe_min": 35.0 if heated else 30.0,
        "drip_min": 3.0 if heated else 0.0, "fan_delay_f": 25.0 if heated else 99.0,
        "set_f": unit.set_f, "differential_f": unit.differential_f, "limit_f": limit_f(unit),
        "tube": float(unit.metering == "cap_tube"), "electronic": float(unit.metering == "eev"),
        "hot_gas": float(unit.defrost == "hot_gas"), "by_pressure": float(unit.box_control == "suction_pressure"),
        "pump_down": float(_pumps_down(unit)), "head_held_f": HEAD_HELD_F if holds else -99.0, "fan_in_f": FAN_IN_F if cycles else -99.0,
    }  # fmt: skip


def sized(unit: Unit) -> Plant:
    """Return one sound plant of a unit, every part sized from the design point."""
    return plant_of(unit, Parts(**_circuit(unit), **_box(unit), **_controls(unit)))
