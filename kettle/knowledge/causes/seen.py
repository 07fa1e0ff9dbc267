"""What is seen, or measured beyond doubt, and is there, whatever else is wrong: it is put right, and no suspect competes with it.

Judgement of the trade: each of these is a fault by itself to whoever looks at it, and none of them rules another out.
"""

from collections.abc import Mapping
from typing import Final

# observation -> word -> the cause it is
SEEN: Final[Mapping[str, Mapping[str, str]]] = {
    "condenser_coil": {"blocked": "condenser_dirty"},
    "condenser_fans": {"stopped": "condenser_fan_failed", "reversed": "condenser_fan_failed"},
    "evap_fans": {"some_stopped": "evap_fan_failed", "stopped": "evap_fan_failed"},
    "evap_coil": {"dirty": "evap_airflow_low", "blocked_by_stock": "evap_airflow_low"},
    "door": {"gasket_gap": "door_seal", "misaligned": "door_seal", "closer_failed": "door_seal"},
    "hot_gas_valve": {"stays_shut": "hot_gas_valve_shut", "lets_by": "hot_gas_valve_leaking"},
    "frame_heater": {"cold": "frame_heater_dead"},
    "drain": {"blocked": "drain_blocked", "frozen": "drain_blocked"},
    "circuit_extra": {"delay_timer": "delay_timer_left", "interlock_not_wired": "wrong_parameters"},
    "leak_test": {"found": "undercharge"},
    "liquid_solenoid": {"closed_no_pull": "liquid_solenoid_closed"},
}
# Below so much a figure condemns by itself, in its unit -> the cause it is. Insulation: 0.1 MΩ (field guide, electrical).
BELOW: Final[Mapping[str, tuple[float, str]]] = {
    "winding_ground_ohm": (1e5, "compressor_grounded"),
    "heater_ground_ohm": (1e5, "heater_grounded"),
}
# Outside of these limits a figure worked out condemns by itself -> the cause it is. Volts: 10 % off the plate (field guide, electrical)
# and a meter's 3 %; imbalance past which no motor is run at all, 5 % (NEMA MG 1, 14.36).
OUTSIDE: Final[Mapping[str, tuple[float, float, str]]] = {
    "volts_off_pct": (-13.0, 13.0, "voltage_problem"),
    "volts_imbalance_pct": (0.0, 5.0, "voltage_problem"),
}
# How long a coil that was melted bare stays so, on average, with a cause still there, h, of those that ice it within hours. Judgement of
# the trade.
ICES_WITHIN_H: Final[Mapping[str, float]] = {"door_infiltration": 5.0, "door_seal": 16.0}
# A fan that stands is a fault of its own only with its volts on it, V, and nothing that holds it back.
FAN_VOLTS: Final = 90.0
