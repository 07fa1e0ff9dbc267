"""What a sound unit shows on a call: the base every cause is weighed against.

Quantities with a band have the states low, ok and high; observed words have their own. The figures are the shop's
judgement of how often a unit that works still shows each state, kept wide on purpose so that no one reading decides.
"""

from collections.abc import Mapping
from typing import Final

from kettle.knowledge.causes.model import States
from kettle.knowledge.causes.noticed import NOTICED
from kettle.knowledge.equipment import Unit

# fmt: off
USUAL: Final[dict[str, States]] = {
    "td_f": {"low": 0.07, "ok": 0.86, "high": 0.07},
    "superheat_evap_f": {"low": 0.08, "ok": 0.84, "high": 0.08},
    "superheat_comp_f": {"low": 0.06, "ok": 0.86, "high": 0.08},
    "subcooling_f": {"low": 0.08, "ok": 0.84, "high": 0.08},
    "split_f": {"low": 0.06, "ok": 0.88, "high": 0.06},
    "delta_t_f": {"low": 0.10, "ok": 0.80, "high": 0.10},
    "amps_pct": {"low": 0.10, "ok": 0.82, "high": 0.08},
    "discharge_line_f": {"low": 0.04, "ok": 0.92, "high": 0.04},
    "box_temp_f": {"low": 0.07, "ok": 0.70, "high": 0.23},
    "drier_drop_f": {"low": 0.01, "ok": 0.95, "high": 0.04},
    "receiver_level_pct": {"low": 0.06, "ok": 0.88, "high": 0.06},
    "pump_down_low_psig": {"low": 0.01, "ok": 0.94, "high": 0.05},
    "approach_f": {"low": 0.06, "ok": 0.88, "high": 0.06},
    "rise_f": {"low": 0.07, "ok": 0.86, "high": 0.07},
    "volts_imbalance_pct": {"low": 0.005, "ok": 0.965, "high": 0.03},
    "volts_off_pct": {"low": 0.02, "ok": 0.96, "high": 0.02},
    "load_loss_v": {"low": 0.005, "ok": 0.98, "high": 0.015},
    "pole_drop_v": {"low": 0.005, "ok": 0.98, "high": 0.015},
    "winding_highest_ohm": {"low": 0.01, "ok": 0.98, "high": 0.01},
    "winding_sr_ohm": {"low": 0.01, "ok": 0.98, "high": 0.01},
    "winding_mismatch_pct": {"low": 0.005, "ok": 0.965, "high": 0.03},
    "winding_ground_ohm": {"low": 0.01, "ok": 0.985, "high": 0.005},
    "heater_ground_ohm": {"low": 0.01, "ok": 0.985, "high": 0.005},
    # One unit with one compressor seldom has one; judgement of the trade.
    "suction_regulator": {"fitted": 0.3, "none": 0.7},
    "regulator_drop_psi": {"low": 0.01, "ok": 0.96, "high": 0.03},
    "heater_pct": {"low": 0.04, "ok": 0.94, "high": 0.02},
    "heater_volts": {"low": 0.03, "ok": 0.96, "high": 0.01},
    "over_pump_down_psi": {"low": 0.02, "ok": 0.97, "high": 0.01},
    "line_under_air_f": {"low": 0.25, "ok": 0.74, "high": 0.01},
    "liquid_drop_f": {"low": 0.02, "ok": 0.95, "high": 0.03},
    "product_over_air_f": {"low": 0.16, "ok": 0.74, "high": 0.10},
    "stat_span_f": {"low": 0.05, "ok": 0.90, "high": 0.05},
    "stat_off_f": {"low": 0.05, "ok": 0.90, "high": 0.05},
    "lp_cut_in_off_f": {"low": 0.05, "ok": 0.90, "high": 0.05},
    "lp_open_off_f": {"low": 0.01, "ok": 0.96, "high": 0.03},
    "lp_cut_out_psig": {"low": 0.04, "ok": 0.955, "high": 0.005},
    "sensor_error_f": {"low": 0.04, "ok": 0.92, "high": 0.04},
    "defrosts_per_day": {"low": 0.05, "ok": 0.87, "high": 0.08},
    "defrost_min_a_day": {"low": 0.07, "ok": 0.87, "high": 0.06},
    "defrost_ran_min": {"low": 0.03, "ok": 0.90, "high": 0.07},
    "pump_down_rise_psi": {"low": 0.005, "ok": 0.955, "high": 0.04},
    "evap_fan_supply_v": {"low": 0.05, "ok": 0.94, "high": 0.01},
    "rest_off_f": {"low": 0.30, "ok": 0.66, "high": 0.04},
    "rest_over_air_f": {"low": 0.03, "ok": 0.95, "high": 0.02},
    "held_warm_f": {"low": 0.03, "ok": 0.93, "high": 0.04},
    "box_trend": {"falling": 0.30, "steady": 0.60, "rising": 0.10},
    "siblings": {"all_ok": 0.85, "also_bad": 0.15},
    "warm_extent": {"whole_box": 0.80, "part_of_box": 0.20},
    "ice_form": {"none": 0.47, "light_frost": 0.43, "heavy_frost": 0.05, "hard_ice": 0.03, "snow": 0.02},
    "left_ice": {"yes": 0.02, "no": 0.98},
    "melt_water": {"clear": 0.97, "cloudy_foaming": 0.03},
    "drain": {"running": 0.94, "slow": 0.03, "blocked": 0.02, "frozen": 0.01},
    "evap_fans": {"running": 0.968, "some_stopped": 0.015, "stopped": 0.01, "reversed": 0.005, "held_by_ice": 0.002},
    "fan_delay": {"let_go": 0.97, "waits_cold": 0.03},
    "evap_coil": {"clean": 0.88, "dirty": 0.09, "blocked_by_stock": 0.03},
    "door": {"good": 0.85, "gasket_gap": 0.07, "left_open": 0.03, "misaligned": 0.03, "closer_failed": 0.02},
    "door_traffic": {"light": 0.25, "normal": 0.60, "heavy": 0.15},
    "complaint": {word: leak for word, (leak, _) in NOTICED.items()},
    "door_habits": {"shut": 0.60, "opened_often": 0.32, "propped_open": 0.08},
    "season": {"dry": 0.5, "humid": 0.5},
    "circuit_extra": {"nothing": 0.97, "delay_timer": 0.008, "interlock_not_wired": 0.007, "jumper": 0.01, "probe_wrong_role": 0.005},
    "since_when": {"today": 0.29, "days": 0.35, "weeks": 0.25, "never_right": 0.07, "cold_weather": 0.04},
    "last_touched": {"nothing": 0.75, "charge": 0.06, "valve": 0.04, "settings": 0.07, "parts": 0.07, "defrost": 0.04, "melted": 0.05},
    "door_switch": {"made": 0.97, "open": 0.03},
    "strip_curtain": {"present": 0.80, "missing": 0.20},
    "condenser_coil": {"clean": 0.68, "dusty": 0.28, "blocked": 0.04},
    "condenser_fans": {"running": 0.94, "slow": 0.02, "stopped": 0.01, "reversed": 0.005, "cycling": 0.025},
    "sight_glass": {"clear": 0.85, "few_bubbles": 0.10, "flashing": 0.04, "empty": 0.01},
    "suction_line_feel": {"warm": 0.10, "cool": 0.50, "sweating": 0.32, "frosted": 0.08},
    "compressor_shell": {"hot": 0.15, "warm": 0.70, "sweating": 0.08, "frosted": 0.02, "cold": 0.05},
    "valve_sound": {"steady": 0.90, "hissing_gas": 0.06, "silent": 0.04},
    "bulb": {"tight_insulated": 0.90, "loose": 0.027, "uninsulated": 0.06, "wrong_place": 0.01, "loose_wrong_place": 0.003},
    "bulb_clock": {"upper": 0.45, "side": 0.20, "lower": 0.28, "bottom": 0.05, "on_end": 0.02},
    "valve_response": {"as_expected": 0.93, "partial": 0.05, "none": 0.02},
    "oil_trace": {"none": 0.92, "at_fitting": 0.04, "at_coil": 0.02, "at_valve_stem": 0.02},
    "charge_weighed": {"yes": 0.3, "no": 0.7},
    "leak_test": {"none_found": 0.95, "found": 0.05},
    "compressor": {"running": 0.86, "off": 0.09, "humming": 0.01, "tripping": 0.02, "short_cycling": 0.02},
    "drain_pan": {"dry": 0.47, "wet": 0.50, "overflowing": 0.03},
    "hot_gas_valve": {"opens": 0.95, "stays_shut": 0.025, "lets_by": 0.025},
    "frame_heater": {"warm": 0.95, "cold": 0.05},
    "water_valve": {"follows": 0.93, "stays_open": 0.035, "stays_shut": 0.035},
    "drain_heater": {"warm": 0.95, "cold": 0.05},
    "head_control": {"normal": 0.95, "bypassing_when_warm": 0.025, "not_holding_when_cold": 0.025},
    "liquid_solenoid": {"open": 0.95, "closed_no_pull": 0.02, "closed_pulled": 0.015, "stuck_open": 0.015},
    "breaker": {"holds": 0.95, "trips_at_once": 0.015, "trips_warm": 0.035},
    "contactor": {"in": 0.88, "out": 0.11, "chattering": 0.01},
    "contactor_face": {"good": 0.80, "pitted": 0.17, "burnt": 0.03},
    "start_parts": {"good": 0.97, "relay_failed": 0.015, "capacitor_failed": 0.015},
    "high_pressure_switch": {"closed": 0.97, "open": 0.03},
    "low_pressure_switch": {"closed": 0.93, "open": 0.07},
    "control_call": {"calling": 0.72, "satisfied": 0.20, "in_defrost": 0.06, "no_power": 0.02},
    "controller_alarm": {"none": 0.90, "sensor_fault": 0.02, "low_superheat": 0.02, "open_control_circuit": 0.01,
                         "high_temperature": 0.05},
    "compressor_in_defrost": {"off": 0.98, "running": 0.02},
    "fans_in_defrost": {"off": 0.93, "running": 0.07},
    "moisture_dot": {"dry": 0.94, "wet": 0.06},
    "crankcase_heater": {"warm": 0.93, "cold": 0.07},
    "defrost_ended_by": {"termination": 0.85, "time": 0.15},
    "defrost_starts": {"yes": 0.97, "never": 0.015, "stuck_in": 0.015},
    "coil_after_defrost": {"clear": 0.93, "part_iced": 0.05, "iced": 0.02},
    # A list: each place is present or not by itself, and only what is present is weighed.
    "air_weak_at": {"nowhere": 0.85, "left": 0.06, "middle": 0.06, "right": 0.06,
                    **{f"door_{n}": 0.05 for n in range(1, 6)}},
    "ice_places": {"coil_whole": 0.04, "coil_inlet_passes": 0.03, "coil_part": 0.03, "coil_bottom": 0.03,
                   "valve_outlet": 0.06, "distributor_tubes": 0.04, "fan_guards": 0.04, "ceiling": 0.05,
                   "drain_pan": 0.04, "door_frame": 0.05, "suction_line": 0.10, "floor": 0.02},
}
_ON_FREEZERS: Final[dict[str, States]] = {
    "suction_line_feel": {"warm": 0.08, "cool": 0.24, "sweating": 0.26, "frosted": 0.42},
    "ice_form": {"none": 0.25, "light_frost": 0.65, "heavy_frost": 0.05, "hard_ice": 0.03, "snow": 0.02},
}
# Features that largely repeat another one: where the other stands too, this one counts at this share.
ECHOES: Final[dict[str, tuple[tuple[str, ...], float]]] = {
    "superheat_comp_f": (("superheat_evap_f",), 0.5),
    "suction_line_feel": (("superheat_comp_f", "superheat_evap_f"), 0.4),
    "compressor_shell": (("suction_line_feel", "superheat_comp_f", "superheat_evap_f"), 0.6),
    "rise_f": (("approach_f",), 0.7),
    "box_temp_f": (("held_warm_f",), 0.3),
    "pole_drop_v": (("load_loss_v",), 0.5),
    "winding_mismatch_pct": (("winding_highest_ohm",), 0.5),
    "winding_sr_ohm": (("winding_highest_ohm",), 0.7),
    "defrost_ended_by": (("coil_after_defrost",), 0.7),
    "ice_places": (("ice_form",), 0.8),
    # What was told is told of the same box: once it is measured or looked at, words add little.
    "complaint": (("box_temp_f", "ice_form", "compressor", "drain_pan"), 0.35),
    "low_pressure_switch": (("sst_f",), 0.6),
}
# fmt: on


# What differs at a moment or in weather: ("moment" or "outside", value) -> states.
_IN_CONTEXT: Final[dict[tuple[str, str], dict[str, States]]] = {
    ("moment", "pull_down"): {
        "box_trend": {"falling": 0.55, "steady": 0.33, "rising": 0.12},
        "sight_glass": {"clear": 0.78, "few_bubbles": 0.16, "flashing": 0.05, "empty": 0.01},
    },
    # A box that is coming down is warm whatever else is so.
    **dict.fromkeys(
        (("coming", "falling"), ("coming", "first_start"), ("coming", "after_defrost")),
        {
            "box_temp_f": {"low": 0.01, "ok": 0.04, "high": 0.95},
            "box_trend": {"falling": 0.88, "steady": 0.10, "rising": 0.02},
            "product_over_air_f": {"low": 0.35, "ok": 0.55, "high": 0.10},
        },
    ),
    ("coming", "door_open"): {
        "box_temp_f": {"low": 0.01, "ok": 0.04, "high": 0.95},
        "box_trend": {"rising": 0.88, "steady": 0.10, "falling": 0.02},
        "door": {"left_open": 0.6, "good": 0.3, "gasket_gap": 0.04, "misaligned": 0.04, "closer_failed": 0.02},
    },
    ("outside", "cold"): {
        "condenser_fans": {"running": 0.72, "slow": 0.06, "stopped": 0.06, "reversed": 0.005, "cycling": 0.155},
        "sight_glass": {"clear": 0.72, "few_bubbles": 0.19, "flashing": 0.08, "empty": 0.01},
    },
}


def usual(unit: Unit, context: Mapping[str, str]) -> dict[str, States]:
    """Return the table for a unit in a context: the common one, with what differs on a freezer, at a moment, in weather."""
    table = {**USUAL, **_ON_FREEZERS} if unit.kind.freezer else dict(USUAL)
    for (name, value), states in _IN_CONTEXT.items():
        if context.get(name) == value:
            table |= states
    return table
