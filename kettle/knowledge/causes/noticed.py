"""What customers notice of a cause, worked out from what the cause does: nobody writes it down twice.

The shares say how often somebody calls with those words where that is so; judgement of the trade.
"""

from collections.abc import Mapping
from typing import Final

from kettle.knowledge.causes.model import Cause, States

# What was told -> how often it is told anyway on a sound unit, and (feature, states, share) by which it comes about.
_Signs = tuple[tuple[str, tuple[str, ...], float], ...]
# fmt: off
NOTICED: Final[dict[str, tuple[float, _Signs]]] = {
    "warm": (0.10, (("box_temp_f", ("high",), 0.8),)),
    "freezing_product": (0.03, (("box_temp_f", ("low",), 0.6),)),
    "iced": (0.03, (("ice_form", ("heavy_frost", "hard_ice", "snow"), 0.55), ("coil_after_defrost", ("part_iced", "iced"), 0.3))),
    "water": (0.02, (("drain_pan", ("overflowing",), 0.8), ("ice_places", ("floor",), 0.5))),
    "does_not_run": (0.02, (("compressor", ("off", "humming"), 0.55), ("compressor", ("tripping",), 0.3))),
    "starts_and_stops": (0.02, (("compressor", ("short_cycling",), 0.75), ("compressor", ("tripping",), 0.5))),
    "noisy": (0.03, (("evap_fans", ("held_by_ice",), 0.6), ("compressor", ("humming",), 0.3))),
    "alarm": (0.05, (("box_temp_f", ("high",), 0.3), ("controller_alarm", ("sensor_fault", "low_superheat", "open_control_circuit",
                                                                         "high_temperature"), 0.6))),
    "runs_all_the_time": (0.04, (("box_temp_f", ("high",), 0.25), ("amps_pct", ("high",), 0.1))),
    "service": (0.35, ()),
    "first_start": (0.04, ()),
}
# How it comes -> since when, and how often a visit before it did that to the part it comes from.
SINCE: Final[dict[str, States]] = {
    "sudden": {"today": 0.58, "days": 0.27, "weeks": 0.07, "never_right": 0.05, "cold_weather": 0.03},
    "slow": {"today": 0.10, "days": 0.36, "weeks": 0.46, "never_right": 0.05, "cold_weather": 0.03},
    "made": {"today": 0.15, "days": 0.24, "weeks": 0.21, "never_right": 0.37, "cold_weather": 0.03},
}
AFTER: Final = 0.25
SERVICE_ALL_THE_SAME: Final = 0.08
# fmt: on


def told(cause: Cause, shapes: Mapping[str, States]) -> dict[str, States]:
    """Return what is told of a cause (states by feature) from what it shows; features it writes itself are left to it."""
    complaint = {word: _noisy_or(leak, signs, shapes) for word, (leak, signs) in NOTICED.items()}
    complaint["service"] = SERVICE_ALL_THE_SAME
    if cause.comes == "made":
        complaint["first_start"] = AFTER
    found: dict[str, States] = {"complaint": complaint}
    if cause.comes:
        found["since_when"] = SINCE[cause.comes]
    if cause.after:
        usual = shapes["last_touched"]
        found["last_touched"] = {**usual, **dict.fromkeys(cause.after, AFTER), "nothing": usual["nothing"] * (1.0 - AFTER)}
    return {key: states for key, states in found.items() if key not in cause.shows}


def _noisy_or(leak: float, signs: _Signs, shapes: Mapping[str, States]) -> float:
    none = 1.0 - leak
    for feature, states, share in signs:
        seen = min(1.0, sum(shapes.get(feature, {}).get(state, 0.0) for state in states))
        none *= 1.0 - share * seen
    return 1.0 - none
