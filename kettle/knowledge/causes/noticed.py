"""What customers notice of a cause, worked out from what the cause does: nobody writes it down twice.

The shares say how often somebody calls with those words where that is so; judgement of the trade.
"""

from collections.abc import Mapping
from typing import Final

from kettle.knowledge.causes.model import Cause, States
from kettle.knowledge.equipment import Unit

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
# Of the boxes a fault leaves off set, the share that stays there; how often a sound one is found low, and high.
HELD_OF_OFF: Final = 0.95
# Defrosts that only happen while the unit stands, and how often a unit that never rests packs its coil.
CLEARS_AT_REST: Final = ("off_cycle", "none")
PACKS: Final = 0.45
USUAL_BOX: Final = (0.07, 0.23)
SERVICE_ALL_THE_SAME: Final = 0.08
# fmt: on


def held(cause: Cause, shapes: Mapping[str, States]) -> States:
    """Return how a box stands off set that is not coming down (low, ok, high), from how often the cause leaves it warm or cold.

    A sound unit that is only pulling down falls, so what stays off set is nearly always wrong.
    """
    usual, box = shapes["held_warm_f"], shapes["box_temp_f"]
    base = USUAL_BOX
    high = max(usual["high"], HELD_OF_OFF * (box["high"] - base[1]) / (1.0 - base[1]))
    low = max(usual["low"], HELD_OF_OFF * (box["low"] - base[0]) / (1.0 - base[0]))
    return {"low": low, "ok": 1.0 - low - high, "high": high}


def never_resting(cause: Cause, shapes: Mapping[str, States], unit: Unit) -> dict[str, States]:
    """Return the ice that a cause brings on a coil that only comes clear while its unit rests, from how often it keeps the box warm.

    What keeps it running without ever coming to its set temperature takes its off-time, and with it its defrost.
    """
    if unit.defrost not in CLEARS_AT_REST or "ice_form" in cause.shows and "coil_after_defrost" in cause.shows:
        return {}
    runs = shapes["compressor"]["running"] + shapes["compressor"]["tripping"]
    stays = cause.shows["held_warm_f"] if "held_warm_f" in cause.shows else held(cause, shapes)
    packs = PACKS * runs * stays["high"]
    ice = shapes["ice_form"]
    heavy = ice["heavy_frost"] + ice["hard_ice"]
    if packs <= heavy:
        return {}
    kept = (1.0 - packs) / (1.0 - heavy)
    spread = {word: share * kept for word, share in ice.items()}
    spread |= {"heavy_frost": packs * 0.65, "hard_ice": packs * 0.35}
    places = shapes["ice_places"]
    return {"ice_form": spread, "ice_places": {**places, "coil_whole": max(places["coil_whole"], 0.8 * packs)}}


def states_noticed(cause: Cause, shapes: Mapping[str, States]) -> dict[str, States]:
    """Return what is told of a cause (states by feature) from what it shows; features it writes itself are left to it."""
    complaint = {word: _noisy_or(leak, signs, shapes) for word, (leak, signs) in NOTICED.items()}
    complaint["service"] = SERVICE_ALL_THE_SAME
    if cause.comes == "made":
        complaint["first_start"] = AFTER
    found: dict[str, States] = {"complaint": complaint, "held_warm_f": held(cause, shapes)}
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
