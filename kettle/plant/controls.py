"""Controls: box control, pump-down, pressure switches, condenser fans, defrost by clock or demand, drip, fan delay."""

from typing import Final

import numpy as np

from kettle.plant.air import FREEZING_F
from kettle.plant.box import ICE_LB_FT3, WATER_LB_FT3
from kettle.plant.circuit import Flows
from kettle.plant.compiled import compiled
from kettle.plant.parts import Parts
from kettle.plant.rows import SECTIONS, Figures
from kettle.plant.state import State

SENSOR_H: Final = 1.0 / 60.0
# A high-pressure switch closes again not before this, below this share of the pressure at which it opened.
HP_OFF_H: Final = 5.0 / 60.0
HP_IN_SHARE: Final = 0.78
# A low-pressure switch does not look at the first minute of a start.
LP_SETTLES_H: Final = 1.0 / 60.0
LONGEST_FAN_WAIT_H: Final = 5.0 / 60.0
CYCLES_BELOW_F: Final = 12.0
# Section whose metal the termination sensor touches, and how much of a part-defrost's frost is left as dense ice.
SENSOR_SECTION: Final = 2
TURNS_TO_ICE: Final = 0.5
# Share of the ice at its start with which a defrost counts as clear, and of the coil's room below which it was clear.
CLEAR_SHARE: Final = 0.03
WAS_CLEAR: Final = 0.004
# Demand: TD is felt over so long, with the box near set, this long after a defrost at first and at the latest.
TD_FELT_H: Final = 15.0 / 60.0
DEMAND_FROM_H: Final = 2.0
DEMAND_LATEST_H: Final = 36.0
LONGEST_GUESS_MIN: Final = 240.0
# Heat of vaporisation of the liquid left in a coil that was not pumped down, Btu/lb, good enough for all.
BOILS_BTU_LB: Final = 80.0


@compiled
def ice_lb(s: State) -> float:
    """Return all frost and ice on the coil, lb."""
    whole = 0.0
    for k in range(SECTIONS):
        whole += s.frost_lb[k] + s.ice_lb[k]
    return whole


@compiled
def next_start(hours: float, starts: Figures, per_day: float) -> float:
    """Return the next hour at which the clock starts a defrost: by its times of day (-1 where unused), else evenly."""
    best = np.inf
    for at in starts:
        if at >= 0:
            ahead = (at - hours) % 24.0
            best = min(best, hours + (ahead if ahead > 1e-6 else 24.0))
    if starts[0] < 0 and per_day > 0:
        best = hours + 24.0 / per_day
    return best


@compiled
def _felt(p: Parts, s: State, dt_h: float) -> float:
    """The box temperature as the control's sensor has it: late, off by its error, with a little noise of its own."""
    s.felt_f += (s.air_f - s.felt_f) * (1.0 - np.exp(-dt_h / SENSOR_H))
    chance = np.sin(s.hours * 9718.131 + p.set_f) * 43758.5453
    return float(s.felt_f + p.sensor_error_f + p.sensor_noise_f * (2.0 * (chance - np.floor(chance)) - 1.0))


@compiled
def _feel_td(p: Parts, s: State, dt_h: float) -> None:
    """Follow TD while the box is held, and remember the lowest since the last defrost."""
    if s.running > 0 and s.since_start_h > 0.1 and s.since_defrost_h > 0.5 and s.air_f < p.set_f + p.differential_f + 1.0:
        s.td_f += (s.air_f - s.sst_f - s.td_f) * (1.0 - np.exp(-dt_h / TD_FELT_H)) if s.td_f > 0 else s.air_f - s.sst_f
        if s.since_defrost_h > 1.0:
            s.clean_td_f = min(s.clean_td_f, s.td_f)


@compiled
def _begin(p: Parts, s: State, starts: Figures) -> None:
    s.defrosting, s.defrost_h, s.began_lb, s.drip_at_min, s.clear_at_min = 1.0, 0.0, ice_lb(s), 0.0, -1.0
    s.emptying_h = p.pump_down_min / 60.0
    # What a pump-down leaves in the coil is little; without one its liquid boils off in the heater's first minutes.
    emptied = p.pump_down_min > 0 or s.liquid_call == 0
    s.boil_btu = BOILS_BTU_LB * p.evaporator_lb * s.wetted * (0.1 if emptied else 1.0)
    s.next_defrost_h = next_start(s.hours, starts, p.defrosts_per_day) if p.demand_share <= 0 else np.inf


@compiled
def _end(p: Parts, s: State, by_time: bool) -> None:
    left, minutes = ice_lb(s), s.defrost_h * 60.0
    clear = s.clear_at_min
    if clear < 0:
        gone = max(s.began_lb - left, 0.02 * s.began_lb)
        clear = min(minutes * s.began_lb / max(gone, 1e-9), LONGEST_GUESS_MIN)
    s.last_began_lb, s.last_drip_min, s.last_clear_min, s.last_defrost_min = s.began_lb, s.drip_at_min, clear, minutes
    s.last_left_lb = left
    s.ended_by_time = 1.0 if by_time else 0.0
    s.defrosts += 1.0
    s.by_time += s.ended_by_time
    s.clear_min += clear
    s.ran_min += minutes
    s.worst_clear_min = max(s.worst_clear_min, clear)
    s.worst_left_lb = max(s.worst_left_lb, left)
    if p.heater_btu_h > 0:
        for k in range(SECTIONS):
            turned = TURNS_TO_ICE * s.frost_lb[k]
            s.frost_lb[k] -= turned
            s.frost_ft3[k] *= 1.0 - TURNS_TO_ICE
            s.ice_lb[k] += turned
        s.fans_wait_h = LONGEST_FAN_WAIT_H + p.drip_min / 60.0
    s.defrosting, s.dripping_h, s.since_defrost_h, s.clean_td_f, s.td_f = 0.0, p.drip_min / 60.0, 0.0, 99.0, 0.0


@compiled
def _defrost(p: Parts, s: State, starts: Figures, dt_h: float) -> None:
    """Start, follow and end defrosts; drip and fan delay behind them."""
    s.since_defrost_h += dt_h
    s.dripping_h, s.fans_wait_h = max(s.dripping_h - dt_h, 0.0), max(s.fans_wait_h - dt_h, 0.0)
    demanded = False
    if p.demand_share > 0 and s.since_defrost_h > DEMAND_FROM_H:
        grown = s.clean_td_f < 99.0 and s.td_f > s.clean_td_f * (1.0 + p.demand_share)
        demanded = grown or s.since_defrost_h > DEMAND_LATEST_H
    if s.defrosting == 0 and (s.hours >= s.next_defrost_h or demanded):
        _begin(p, s, starts)
    elif s.defrosting > 0 and s.emptying_h > 0:
        s.emptying_h -= dt_h
    elif s.defrosting > 0:
        s.defrost_h += dt_h
        held = ice_lb(s)
        if s.clear_at_min < 0 and held <= max(CLEAR_SHARE * s.began_lb, WAS_CLEAR * p.gap_ft3 * WATER_LB_FT3):
            s.clear_at_min = s.defrost_h * 60.0
        warm = s.metal_f[SENSOR_SECTION] >= p.termination_f
        if warm or s.defrost_h >= p.fail_safe_min / 60.0 - 1e-9:
            _end(p, s, not warm)
    if s.dripping_h <= 0 and s.metal_f[SENSOR_SECTION] < p.fan_delay_f:
        s.fans_wait_h = 0.0


@compiled
def step(p: Parts, s: State, f: Flows, starts: Figures, dt_h: float) -> bool:
    """Decide what runs in this step; return whether the fans have just come back after a defrost."""
    felt = _felt(p, s, dt_h)
    _feel_td(p, s, dt_h)
    _defrost(p, s, starts, dt_h)

    half = p.differential_f / 2.0
    if p.by_pressure > 0 or felt > p.set_f + half:
        s.calling = 1.0
    elif felt < p.set_f - half:
        s.calling = 0.0
    held_off = s.dripping_h > 0 or (s.defrosting > 0 and p.runs_in_defrost == 0)
    if p.pump_down > 0:
        # The box control has the liquid valve alone; the compressor follows its pressure switch.
        s.liquid_call = 1.0 if s.calling > 0 and not held_off else 0.0
        wants = not held_off or s.emptying_h > 0
    else:
        s.liquid_call = 1.0
        wants = s.calling > 0 and not held_off
    if s.hp_open > 0 and s.since_stop_h >= HP_OFF_H and f.discharge_psia < HP_IN_SHARE * p.hp_out_psia:
        s.hp_open = 0.0
    if p.can_run == 0 or s.hp_open > 0:
        wants = False
    if s.running > 0:
        low = f.suction_psia < p.lp_out_psia and (s.since_start_h > LP_SETTLES_H or p.pump_down > 0)
        if f.discharge_psia > p.hp_out_psia:
            wants, s.hp_open = False, 1.0
        if not wants or low:
            s.running = 0.0
            s.since_stop_h = min(s.since_stop_h, 0.0)
    elif wants and s.since_stop_h >= p.least_off_h and f.suction_psia >= p.lp_in_psia:
        s.running, s.since_start_h = 1.0, 0.0
        s.starts += 1.0
    s.since_start_h += dt_h
    s.since_stop_h = s.since_stop_h + dt_h if s.running == 0 else 0.0

    if s.sct_f > p.fan_in_f:
        s.condenser_fan = 1.0
    elif s.sct_f < p.fan_in_f - CYCLES_BELOW_F:
        s.condenser_fan = 0.0
    before = s.fans
    heating = s.defrosting > 0 and p.heater_btu_h > 0 and s.emptying_h <= 0
    s.fans = 0.0 if heating or s.fans_wait_h > 0 else 1.0
    return bool(s.fans > before and s.defrosting == 0 and s.metal_f[SENSOR_SECTION] > FREEZING_F)


@compiled
def tally(p: Parts, s: State, power_w: float, heater_btu_h: float, heater_w: float, dt_h: float) -> None:
    """Add a step to the tallies."""
    filled = 0.0
    for k in range(SECTIONS):
        filled += s.frost_ft3[k] + s.ice_lb[k] / ICE_LB_FT3
    s.worst_frost_lb, s.worst_blocked = max(s.worst_frost_lb, ice_lb(s)), max(s.worst_blocked, min(filled / p.gap_ft3, 1.0))
    s.peak_f = max(s.peak_f, s.air_f)
    s.over_limit_h += dt_h if s.air_f > p.limit_f else 0.0
    s.defrost_btu += heater_btu_h * dt_h
    s.defrost_kwh += heater_w * dt_h / 1000.0
    s.kwh += power_w * dt_h / 1000.0
