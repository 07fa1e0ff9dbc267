"""Which two causes can be there at once, and how often."""

from typing import Final

from kettle.knowledge.causes.model import Cause

# How often a second fault is there besides the first, against what two independent ones would give: one fault brings
# another, and what is neglected has several. All pairs with a given fault then weigh a third of it alone: about a call in
# four has two. Judgement of the trade.
PAIR_SHARE: Final = 0.4
# Causes that exclude each other: one state of the same thing, or one fault told under two names.
EXCLUSIVE: Final = (
    {"undercharge", "overcharge", "winter_charge_short"},
    {"undercharge", "noncondensables"},
    {"txv_underfeeding", "txv_overfeeding", "bulb_fault"},
    {"txv_underfeeding", "liquid_solenoid_closed"},
    {"evap_fan_failed", "evap_fan_no_power", "fan_delay_waiting"},
    {"defrost_never_starts", "defrost_too_little", "defrost_too_much", "defrost_not_terminating", "residual_ice"},
    {"liquid_solenoid_closed", "solenoid_leaking"},
    {"hot_gas_valve_shut", "hot_gas_valve_leaking"},
    # Where nothing gets hot, nobody can say of its program that it is too short or too seldom.
    {"hot_gas_valve_shut", "defrost_never_starts"},
    {"hot_gas_valve_shut", "defrost_too_little"},
    {"water_flow_low", "water_valve_open"},
    {"head_control_stuck_bypass", "head_control_not_holding"},
    {"compressor_overload", "compressor_grounded", "compressor_open_winding", "compressor_inefficient", "no_call"},
    {"compressor_grounded", "start_parts_failed", "contactor_pole_open", "no_call"},
    {"compressor_open_winding", "start_parts_failed"},
    # Low or unbalanced volts and an overload that opens on them are the textbook pair.
    {"compressor_overload", "contactor_pole_open", "start_parts_failed"},
    {"voltage_problem", "contactor_pole_open", "start_parts_failed"},
    {"stat_calibration", "sensor_mixup", "wrong_parameters", "no_call"},
    {"hot_stock", "no_call"},
)


def plausible_pair(one: Cause, other: Cause) -> bool:
    """Return whether two causes can be there at once as two."""
    return not any(one.code in group and other.code in group for group in EXCLUSIVE)
