"""Plants by kind: every part sized from one design point, the middle of the kind's own bands at 85 °F outside.

A sound plant therefore sits inside its bands; what it does away from the design point follows from the parts.
"""

from dataclasses import dataclass, fields
from typing import Any, Final

import numpy as np

from kettle import amps
from kettle.bands import default_band
from kettle.plant.air import Figures
from kettle.refrigerants import Refrigerant
from kettle.unit import Unit

SECTIONS: Final = 4
DESIGN_OUTSIDE_F: Final = 85.0
DESIGN_WATER_F: Final = 70.0
WATER_RISE_F: Final = 11.0
# Capacity at the design point, Btu/h, by kind.
CAPACITY_BTU_H: Final[dict[str, float]] = {
    "walk_in_cooler": 14000, "walk_in_freezer": 12000, "reach_in_cooler": 2600, "reach_in_freezer": 2400, "prep_rail": 2200,
    "display_cooler": 12000, "display_freezer": 14000, "bottle_cooler": 2400, "provision_room_cooler": 16000,
    "provision_room_freezer": 14000,
}  # fmt: skip
# Share of the coil's face that is wetted by boiling refrigerant at the design superheat.
WETTED: Final = 0.86
# Air is cooled over the coil by this share of TD, and warmed over the condenser by this share of the split.
COIL_EFFECT: Final = 0.60
CONDENSER_EFFECT: Final = 0.58
# The coil's refrigerant side against the whole of it.
REFRIGERANT_TO_WHOLE: Final = 4.0
COMPRESSOR_EFFICIENCY: Final = 0.62
# Btu of a psi·ft³.
BTU_PER_PSI_FT3: Final = 144.0 / 778.17
WATTS_PER_BTU_H: Final = 0.29307
# Share of the time a sound plant runs at the design point, and what its load is made of there.
DESIGN_RUN: Final = 0.55
LOAD_SHARES: Final = {"walls": 0.42, "infiltration": 0.26, "inside": 0.32}


@dataclass
class Plant:
    """The parts of a plant, each a figure for every variant (arrays of one length) unless said otherwise.

    Conductances Btu/h°F, capacities Btu/°F, volumes ft³, masses lb; `refrigerant`, `unit` and flags are the same for all.
    """

    unit: Unit
    refrigerant: Refrigerant
    swept_ft3_h: Figures
    clearance: Figures
    efficiency: Figures
    coil_air: Figures
    coil_refrigerant: Figures
    coil_flow: Figures
    vapor_side: Figures
    fan_flow: Figures
    condenser: Figures
    condenser_flow: Figures
    condenser_clean: Figures
    condenser_ft3: Figures
    evaporator_lb: Figures
    receiver_ft3: Figures
    charge_lb: Figures
    line_lb: Figures
    valve: Figures
    superheat_set_f: Figures
    bulb_error_f: Figures
    valve_stuck: Figures
    liquid_drop_psi: Figures
    air_psi: Figures
    solenoid_open: Figures
    suction_gain_f: Figures
    regulator_f: Figures
    walls: Figures
    infiltration_lb_h: Figures
    inside_btu_h: Figures
    air_btu_f: Figures
    product_btu_f: Figures
    core_btu_f: Figures
    structure_btu_f: Figures
    product_air: Figures
    product_core: Figures
    structure_air: Figures
    metal_btu_f: Figures
    block_lb: Figures
    heater_btu_h: Figures
    set_f: Figures
    differential_f: Figures
    sensor_error_f: Figures
    defrosts_per_day: Figures
    fail_safe_min: Figures
    termination_f: Figures
    drip_min: Figures
    fan_delay_f: Figures
    can_run: Figures
    runs_in_defrost: Figures
    rla_a: Figures
    rated_power_btu_h: Figures
    head_held_f: Figures

    def repeated(self, count: int) -> "Plant":
        """Return the plant for `count` variants, alike until something is changed."""
        values: dict[str, Any] = {f.name: getattr(self, f.name) for f in fields(self)}
        repeated = {name: np.repeat(value, count) for name, value in values.items() if isinstance(value, np.ndarray)}
        return Plant(**(values | repeated))


def _middle(unit: Unit, quantity: str) -> float:
    band = default_band(unit, quantity)
    assert band is not None
    return (band[0] + band[1]) / 2.0


def sized(unit: Unit) -> Plant:
    """Return one sound plant of a unit, every part sized from the design point."""
    r, water = unit.refrigerant, unit.condensing == "water"
    capacity = CAPACITY_BTU_H[unit.kind.code]
    td, superheat = _middle(unit, "td_f"), _middle(unit, "superheat_evap_f")
    superheat = min(superheat, 0.75 * td)
    subcooling = 3.0 if unit.receiver else 9.0
    lift = _middle(unit, "approach_f") + WATER_RISE_F if water else _middle(unit, "split_f")
    coolant = DESIGN_WATER_F if water else DESIGN_OUTSIDE_F
    te, tc = unit.set_f - td, coolant + lift
    gain = 12.0
    latent = r.vapor_btu_lb.at(te) - r.liquid_btu_lb.at(tc - subcooling)
    heat = latent + r.vapor_btu_lbf.at(te) * superheat
    flow = capacity / heat
    pe, pc = r.dew.psia_at(te), r.bubble.psia_at(tc)
    density = r.vapor_lb_ft3.at(te) / (1.0 + (superheat + gain) / (te + 459.67))
    volumetric = 1.0 + amps.CLEARANCE - amps.CLEARANCE * (pc / pe) ** (1.0 / amps.EXPONENT)
    swept = flow / (volumetric * density)
    work = swept * amps.compression_power(r, te, tc) * BTU_PER_PSI_FT3 / COMPRESSOR_EFFICIENCY
    coil_flow = capacity / (COIL_EFFECT * td)
    boiling = flow * latent
    whole = boiling / (WETTED * td)
    refrigerant_side = REFRIGERANT_TO_WHOLE * whole
    air_conductance = 1.0 / (1.0 / whole - 1.0 / refrigerant_side)
    air_side = -np.log(1.0 - min(air_conductance / coil_flow, 0.97)) * coil_flow
    vapor_side = -np.log(1.0 - superheat / td) * flow * r.vapor_btu_lbf.at(te) / (1.0 - WETTED)
    rejected = capacity + work
    condenser_flow = rejected / (WATER_RISE_F if water else CONDENSER_EFFECT * lift)
    condenser = -np.log(1.0 - min(rejected / (condenser_flow * lift), 0.97)) * condenser_flow
    evaporator = 0.00018 * capacity
    line, condenser_ft3 = 0.00008 * capacity, 6e-6 * capacity
    liquid = r.liquid_lb_ft3.at(tc)
    receiver_ft3 = 2.2 * (evaporator + line) / liquid if unit.receiver else 0.0
    charge = evaporator + line + (0.52 * receiver_ft3 * liquid if unit.receiver else 0.0) + 0.10 * condenser_ft3 * liquid
    if not unit.receiver:
        charge = evaporator + line + 0.22 * condenser_ft3 * liquid
    load = DESIGN_RUN * capacity
    outside = DESIGN_OUTSIDE_F
    room = outside - unit.set_f
    infiltration = LOAD_SHARES["infiltration"] * load / (0.24 * room + 1061.0 * 0.011)
    freezer = unit.kind.freezer
    electric = unit.defrost in ("electric", "hot_gas")
    rated = swept * amps.compression_power(r, *amps.RATED_AT_F[freezer]) * BTU_PER_PSI_FT3 / COMPRESSOR_EFFICIENCY

    def one(value: float) -> Figures:
        return np.array([float(value)])

    return Plant(
        unit=unit, refrigerant=r, swept_ft3_h=one(swept), clearance=one(amps.CLEARANCE), efficiency=one(1.0), coil_air=one(air_side),
        coil_refrigerant=one(refrigerant_side), coil_flow=one(coil_flow), vapor_side=one(vapor_side), fan_flow=one(1.0),
        condenser=one(condenser), condenser_flow=one(condenser_flow), condenser_clean=one(condenser),
        condenser_ft3=one(condenser_ft3), evaporator_lb=one(evaporator),
        receiver_ft3=one(receiver_ft3), charge_lb=one(charge), line_lb=one(line),
        valve=one(flow / ((1.0 if unit.metering == "cap_tube" else 0.5) * np.sqrt(liquid * (pc - pe)))),
        superheat_set_f=one(superheat), bulb_error_f=one(0.0), valve_stuck=one(np.nan), liquid_drop_psi=one(0.0), air_psi=one(0.0),
        solenoid_open=one(1.0), suction_gain_f=one(gain), regulator_f=one(0.0), walls=one(LOAD_SHARES["walls"] * load / room),
        infiltration_lb_h=one(infiltration), inside_btu_h=one(LOAD_SHARES["inside"] * load), air_btu_f=one(0.03 * capacity),
        product_btu_f=one(0.10 * capacity), core_btu_f=one(0.2 * capacity), structure_btu_f=one(0.03 * capacity),
        product_air=one(0.10 * capacity), product_core=one(0.05 * capacity), structure_air=one(0.06 * capacity),
        metal_btu_f=one(0.0028 * capacity), block_lb=one(0.0011 * capacity), heater_btu_h=one(1.25 * capacity if electric else 0.0),
        set_f=one(unit.set_f), differential_f=one(unit.differential_f), sensor_error_f=one(0.0),
        defrosts_per_day=one(4.0 if freezer else 4.0 if unit.defrost != "none" else 0.0), fail_safe_min=one(35.0 if electric else 30.0),
        termination_f=one(55.0 if electric else 40.0), drip_min=one(3.0 if electric else 0.0), fan_delay_f=one(25.0 if electric else 99.0),
        can_run=one(1.0), runs_in_defrost=one(0.0), rla_a=one(unit.compressor_rla_a or 10.0), rated_power_btu_h=one(rated),
        head_held_f=one(-99.0 if unit.head_control == "none" else 80.0),
    )  # fmt: skip
