"""Controls: thermostat, low-pressure switch, defrost by clock with termination and fail-safe, drip, fan delay."""

from typing import Final

import numpy as np

from kettle.plant.air import Figures
from kettle.plant.circuit import Flows
from kettle.plant.sizing import Plant
from kettle.plant.state import State

LEAST_OFF_H: Final = 3.0 / 60.0
LP_OFF_PSIA: Final = 15.5
LP_OFF_H: Final = 5.0 / 60.0
HP_OFF_F: Final = 152.0
LONGEST_FAN_WAIT_H: Final = 5.0 / 60.0
# Section whose metal the termination sensor touches, and how much of a part-defrost's frost is left as dense ice.
SENSOR_SECTION: Final = 2
TURNS_TO_ICE: Final = 0.5


def step(plant: Plant, s: State, flows: Flows | None, dt_h: float) -> tuple[Figures, Figures]:
    """Decide for every variant whether the compressor runs, and return whether fans run and heaters heat."""
    heated = plant.heater_btu_h > 0
    due = (s.hours >= s.next_defrost_h) & (plant.defrosts_per_day > 0) & (s.defrosting == 0)
    s.defrosting = np.where(due, 1.0, s.defrosting)
    s.defrost_h = np.where(due, 0.0, s.defrost_h + dt_h * s.defrosting)
    s.next_defrost_h = np.where(due, s.next_defrost_h + 24.0 / np.maximum(plant.defrosts_per_day, 1e-9), s.next_defrost_h)
    warm = s.metal_f[:, SENSOR_SECTION] >= plant.termination_f
    late = s.defrost_h >= plant.fail_safe_min / 60.0
    ending = (s.defrosting > 0) & (warm | late)
    s.ended_by_time = np.where(ending, (late & ~warm).astype(float), s.ended_by_time)
    s.last_defrost_min = np.where(ending, s.defrost_h * 60.0, s.last_defrost_min)
    turned = TURNS_TO_ICE * s.frost_lb * (ending & heated)[:, None]
    s.frost_lb, s.ice_lb = s.frost_lb - turned, s.ice_lb + turned
    s.defrosting = np.where(ending, 0.0, s.defrosting)
    s.dripping_h = np.where(ending, plant.drip_min / 60.0, np.maximum(s.dripping_h - dt_h, 0.0))
    s.fans_wait = np.where(ending & heated, LONGEST_FAN_WAIT_H + plant.drip_min / 60.0, np.maximum(s.fans_wait - dt_h, 0.0))
    s.fans_wait = np.where((s.metal_f[:, SENSOR_SECTION] < plant.fan_delay_f) & (s.dripping_h == 0), 0.0, s.fans_wait)

    felt = s.air_f + plant.sensor_error_f
    half = plant.differential_f / 2.0
    wants = np.where(felt > plant.set_f + half, 1.0, np.where(felt < plant.set_f - half, 0.0, s.running))
    wants = wants * plant.can_run * (s.dripping_h == 0)
    wants = np.where((s.defrosting > 0) & (plant.runs_in_defrost == 0), 0.0, wants)
    if flows is not None:
        tripped = (s.running > 0) & ((flows.suction_psia < LP_OFF_PSIA) & (s.since_start_h > 1.0 / 60.0) | (s.sct_f > HP_OFF_F))
        s.since_stop_h = np.where(tripped, LEAST_OFF_H - LP_OFF_H, s.since_stop_h)
        wants = np.where(tripped, 0.0, wants)
    starts = (wants > 0) & (s.running == 0) & (s.since_stop_h >= LEAST_OFF_H)
    stops = (wants == 0) & (s.running > 0)
    s.running = np.where(starts, 1.0, np.where(stops, 0.0, s.running))
    s.since_start_h = np.where(starts, 0.0, s.since_start_h + dt_h)
    s.since_stop_h = np.where(stops & (s.since_stop_h >= 0), 0.0, s.since_stop_h + dt_h)
    electric_off = (s.defrosting > 0) & heated
    fans = np.where(electric_off | (s.fans_wait > 0), 0.0, 1.0)
    return fans, ((s.defrosting > 0) & heated).astype(float)
