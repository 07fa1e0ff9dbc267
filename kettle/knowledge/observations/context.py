"""Observations that bear on no cause by themselves, and why: what they are for instead."""

from typing import Final

CONTEXT: Final[dict[str, str]] = {
    "inside_release": "whether one may go in", "latch_blocked": "whether one may go in", "someone_outside": "whether one may go in",
    "power_locked_out": "what may be measured", "parts_protected": "whether water may be poured", "left_ice": "told with ice that is back",
    "display_temp_f": "with the own thermometer it is the sensor's error",
    "fans_still": "together they are how the fans stand", "door_open_h": "how much moisture the planner reckons with",
    "condenser_blocking": "whose doing a high head is",
    "liquid_psig": "subcooling is worked out from it",
    "coil_outlet_feel": "superheat by feel", "liquid_line_feel": "subcooling or split by feel",
    "discharge_line_feel": "discharge line by feel",
    "suction_line_size": "a finding of its own beside the cause", "vacuum_micron": "whether a circuit may be filled",
    "settled_min": "the moment a reading is of", "adjusted_min": "the moment a reading is of",
    "since_defrost_min": "the moment a reading is of",
    "load_v_23": "told with the other pairs: what is lost over the contactor",
    "load_v_31": "told with the other pairs: what is lost over the contactor",
    "pole_drop_v_2": "told with the other poles: the worst drop", "pole_drop_v_3": "told with the other poles: the worst drop",
    "termination_f": "held against its range by the program's check",
    "fans_in_defrost": "weighed, but no cause changes it", "moisture_dot": "weighed, but no cause changes it",
    "crankcase_heater": "weighed, but no cause changes it",
}  # fmt: skip
