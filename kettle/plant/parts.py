"""The parts of a plant, as figures: what it is made of, and what is set on it."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from kettle.knowledge.equipment import Unit
from kettle.knowledge.refrigerants import Refrigerant
from kettle.plant.rows import rows


@dataclass(frozen=True)
class Parts:
    """One plant's figures. Conductances Btu/h°F, capacities Btu/°F, volumes ft³, masses lb; flags are 0 or 1."""

    # Compressor.
    swept_ft3_h: float
    clearance: float
    rla_a: float
    rated_power_btu_h: float
    # Coil.
    coil_air: float
    coil_refrigerant: float
    coil_flow: float
    vapor_side: float
    metal_btu_f: float
    evaporator_lb: float
    gap_ft3: float
    # Condenser and what stands behind it.
    condenser: float
    condenser_flow: float
    condenser_clean: float
    condenser_ft3: float
    receiver_ft3: float
    charge_lb: float
    line_lb: float
    # Expansion device.
    valve: float
    superheat_set_f: float
    suction_gain_f: float
    # Box and what comes into it.
    walls: float
    infiltration_lb_h: float
    fans_btu_h: float
    lights_btu_h: float
    stock_btu_h: float
    air_btu_f: float
    product_btu_f: float
    core_btu_f: float
    structure_btu_f: float
    product_air: float
    product_core: float
    structure_air: float
    # Defrost.
    heater_btu_h: float
    heater_rated_btu_h: float
    defrosts_per_day: float
    fail_safe_min: float
    termination_f: float
    drip_min: float
    fan_delay_f: float
    # Controls.
    set_f: float
    differential_f: float
    limit_f: float
    lp_in_psia: float
    lp_out_psia: float
    hp_out_psia: float
    tube: float = 0.0
    electronic: float = 0.0
    hot_gas: float = 0.0
    by_pressure: float = 0.0
    pump_down: float = 0.0
    pump_down_min: float = 0.0
    demand_share: float = 0.0
    # °F; below them nothing is held, nothing cycles.
    head_held_f: float = -99.0
    fan_in_f: float = -99.0
    least_off_h: float = 3.0 / 60.0
    outdoor_rh: float = 0.55
    drain_lb_h: float = 150.0
    drain_heater: float = 1.0
    # What wears, sticks, leaks or is turned; a sound plant has them as they stand here.
    efficiency: float = 1.0
    can_run: float = 1.0
    runs_in_defrost: float = 0.0
    fan_flow: float = 1.0
    solenoid_open: float = 1.0
    solenoid_leak: float = 0.0
    liquid_drop_psi: float = 0.0
    air_psi: float = 0.0
    regulator_f: float = 0.0
    stem_turns: float = 0.0
    bulb_error_f: float = 0.0
    valve_stuck: float = float("nan")
    element: float = 1.0
    sensor_error_f: float = 0.0
    sensor_noise_f: float = 0.1
    curtain: float = 1.0


@dataclass
class Plant:
    """A plant, or a batch of variants of one: `parts` has a row of the figures of `Parts` for each."""

    unit: Unit
    refrigerant: Refrigerant
    parts: Any

    @property
    def count(self) -> int:
        """How many variants there are."""
        return len(self.parts)

    def repeated(self, count: int) -> "Plant":
        """Return the plant for `count` variants, alike until something is changed."""
        return Plant(self.unit, self.refrigerant, np.repeat(self.parts, count).view(np.recarray))


def plant_of(unit: Unit, parts: Parts) -> Plant:
    """Return the plant with one set of parts."""
    table = rows(Parts, 1)
    for name in table.dtype.names:
        table[name] = getattr(parts, name)
    return Plant(unit, unit.refrigerant, table)
