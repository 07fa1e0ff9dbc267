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
}
# Below so much a figure condemns by itself, in its unit -> the cause it is. Insulation: 0.1 MΩ (field guide, electrical).
BELOW: Final[Mapping[str, tuple[float, str]]] = {
    "winding_ground_ohm": (1e5, "compressor_grounded"),
    "heater_ground_ohm": (1e5, "heater_grounded"),
}
# A fan that stands is a fault of its own only with its volts on it, V, and nothing that holds it back.
FAN_VOLTS: Final = 90.0
