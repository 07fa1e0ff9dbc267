"""What is worked out from the readings: superheat, subcooling, TD, split and the rest.

Superheat always uses the dew line, subcooling and condensing temperature the bubble line; nobody has to subtract.
"""

import math
import re
from collections.abc import Callable, Mapping
from contextlib import suppress
from typing import Final

from kettle.judging import electrics, stopped, touch
from kettle.judging.facts import Facts, rises_with_its_door
from kettle.knowledge import bands
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits, psig_to_psia
from kettle.knowledge.observations import Observation, Value
from kettle.knowledge.quantities import QUANTITIES

# Where a gauge stands on liquid: read as a temperature, it is the bubble line.
LIQUID_SIDE: Final = ("discharge_psig", "liquid_psig", "resting_psig")
# Read as it stands on a probe set -> the quantity it is.
READ_OFF: Final = {"superheat_read_f": "superheat_evap_f", "subcooling_read_f": "subcooling_f"}
HEATED: Final = ("electric", "hot_gas")
RUNNING_ON: Final = ("settled_min", "since_defrost_min")


def work_out(unit: Unit, seen: Mapping[str, Value], ages_min: Mapping[str, float] | None = None, shown: ShownUnits = TRADE) -> Facts:
    """Return everything known: what was seen (key -> checked value), worked out, and estimated from touch.

    `ages_min` gives the age of each observation in minutes where times are known.
    """
    derived, ages = derive(unit, seen), ages_min or {}
    derived |= _read_off(seen, derived, ages)
    # Minutes since something happened run on after they were asked for.
    since = {key: value + ages[key] for key, value in seen.items() if key in RUNNING_ON and key in ages and isinstance(value, float)}
    return Facts(unit, {**seen, **since}, derived, touch.estimates(unit, seen, derived), ages, shown)


def _read_off(seen: Mapping[str, Value], derived: Mapping[str, float], ages: Mapping[str, float]) -> dict[str, float]:
    """What a probe set showed worked out already, where nothing younger says the same."""
    found = {}
    for key, quantity in READ_OFF.items():
        value, youngest = seen.get(key), min((ages.get(need, math.inf) for need in QUANTITIES[quantity].needs), default=math.inf)
        if isinstance(value, float) and (quantity not in derived or ages.get(key, math.inf) < youngest):
            found[quantity] = value
    return found


def derive(unit: Unit, seen: Mapping[str, Value]) -> dict[str, float]:
    """Return every quantity that can be worked out, by key, in the units of the keys.

    Definitions: field practice, as each `Quantity.meaning` states. What lacks a reading, or whose pressure lies
    outside the refrigerant's table, is left out.
    """
    got = {key: value for key, value in seen.items() if isinstance(value, float)}
    out = _low_side(unit, got, seen)
    out |= _head_side(unit, got)
    out |= _of_the_box(unit, got, seen)
    # Behind an open contactor nothing is live: what is lost over it says nothing of its poles, and neither does it while nobody looked
    # whether it is in, on a compressor that is silent.
    unknown = "contactor" not in seen and seen.get("compressor") == "off"
    dead = stopped.BEHIND_CONTACTOR if unknown or stopped.contactor_is_out(seen) else ()
    live = {key: value for key, value in got.items() if not key.startswith(dead)}
    return out | electrics.derive(live, unit.phases, unit.nameplate_v) | _of_the_controls(unit, got, seen, out)


def _air_f(got: Mapping[str, float]) -> float | None:
    """The air onto the coil: as read there, else the box's own."""
    return got.get("return_air_f", got.get("box_temp_f"))


def _ambient_f(unit: Unit, got: Mapping[str, float]) -> float | None:
    return got.get("ambient_f") if unit.condensing == "air" else None


class _Differences(dict[str, float]):
    """Quantities worked out, the most of them one figure less another."""

    def take(self, key: str, minuend: float | None, subtrahend: float | None) -> None:
        if minuend is not None and subtrahend is not None:
            self[key] = minuend - subtrahend


def _low_side(unit: Unit, got: Mapping[str, float], seen: Mapping[str, Value]) -> dict[str, float]:
    """What suction and the lines of the low side say, with the air onto the coil."""
    out, suction = _Differences(), got.get("suction_psig")
    sst, air = _saturation(unit, "dew_f", suction), _air_f(got)
    if sst is not None:
        out["sst_f"] = sst
    out.take("superheat_evap_f", got.get("suction_line_evap_f"), sst)
    out.take("superheat_comp_f", got.get("suction_line_comp_f"), sst)
    out.take("line_gain_f", out.get("superheat_comp_f"), out.get("superheat_evap_f"))
    if seen.get("compressor") == "off":
        out.take("rest_off_f", sst, got.get("box_temp_f"))
    out.take("td_f", air, sst)
    if seen.get("compressor", "running") == "running":
        out.take("over_pump_down_psi", suction, bands.pump_down_psig(unit))
    wide = bands.default_band(unit, "td_f")
    if wide is not None and out.get("td_f", 0.0) > wide[1]:
        out.take("line_under_air_f", air, got.get("suction_line_evap_f"))
    out.take("regulator_drop_psi", got.get("regulator_before_psig"), got.get("regulator_after_psig"))
    suction_bubble = _saturation(unit, "bubble_f", suction) if unit.refrigerant.glides else None
    if sst is not None and suction_bubble is not None:
        out["sst_mid_f"] = (sst + suction_bubble) / 2.0
    return out


def _head_side(unit: Unit, got: Mapping[str, float]) -> dict[str, float]:
    """What discharge and liquid say, with the air or the water on the condenser; amps against the plate's."""
    out, discharge, suction = _Differences(), got.get("discharge_psig"), got.get("suction_psig")
    ambient, sct = _ambient_f(unit, got), _saturation(unit, "bubble_f", discharge)
    if sct is not None:
        out["sct_f"] = sct
    out.take("subcooling_f", _saturation(unit, "bubble_f", got.get("liquid_psig", discharge)), got.get("liquid_line_f"))
    out.take("liquid_drop_f", got.get("liquid_line_f"), got.get("liquid_line_valve_f"))
    out.take("split_f", sct, ambient)
    if unit.condensing == "water":
        out.take("approach_f", sct, got.get("water_out_f"))
        out.take("rise_f", got.get("water_out_f"), got.get("water_in_f"))
    sct_dew = _saturation(unit, "dew_f", discharge) if unit.refrigerant.glides else None
    if sct_dew is not None:
        out["sct_dew_f"] = sct_dew
    if suction is not None and discharge is not None and psig_to_psia(suction, unit.altitude_ft) > 0:
        out["ratio"] = psig_to_psia(discharge, unit.altitude_ft) / psig_to_psia(suction, unit.altitude_ft)
    if "compressor_amps" in got and unit.compressor_rla_a:
        out["amps_pct"] = 100.0 * got["compressor_amps"] / unit.compressor_rla_a
    out.take("rest_over_air_f", _saturation(unit, "bubble_f", got.get("resting_psig")), ambient)
    target_f = _expected_sct(unit, ambient, got.get("water_out_f"))
    if target_f is not None:
        with suppress(InputError):
            out["expected_head_psig"] = unit.refrigerant.bubble_psig(target_f, unit.altitude_ft)
    return out


def _of_the_box(unit: Unit, got: Mapping[str, float], seen: Mapping[str, Value]) -> dict[str, float]:
    """What its air, its stock and its defrosts say."""
    out, air = _Differences(), _air_f(got)
    starts, longest = got.get("defrosts_per_day"), got.get("defrost_set_min")
    # Where nothing heats, the coil clears while the unit rests too: the program alone says little.
    if starts is not None and longest is not None and unit.defrost in HEATED:
        out["defrost_min_a_day"] = starts * longest
    out.take("product_over_air_f", got.get("product_temp_f"), got.get("box_temp_f"))
    out.take("delta_t_f", got.get("return_air_f"), got.get("supply_air_f"))
    if seen.get("box_trend") in ("steady", "rising") and air is not None and not rises_with_its_door(seen, air - unit.set_f):
        out.take("held_warm_f", air, unit.set_f)
    return out


def _of_the_controls(unit: Unit, got: Mapping[str, float], seen: Mapping[str, Value], low: Mapping[str, float]) -> dict[str, float]:
    """Where thermostat and low-pressure switch work against the set."""
    out = _Differences()
    cut_out, cut_in = got.get("stat_cut_out_f"), got.get("stat_cut_in_f")
    if cut_out is not None and cut_in is not None:
        out["stat_span_f"] = cut_in - cut_out
        out["stat_off_f"] = (cut_in + cut_out) / 2.0 - unit.set_f
    out.take("lp_cut_in_off_f", _saturation(unit, "dew_f", got.get("lp_cut_in_psig")), unit.set_f)
    if seen.get("low_pressure_switch") == "open" and seen.get("control_call") not in ("in_defrost", "satisfied"):
        out.take("lp_open_off_f", low.get("sst_f"), unit.set_f)
    return out


def _expected_sct(unit: Unit, ambient_f: float | None, water_out_f: float | None) -> float | None:
    """The condensing temperature to expect today, °F: the coolant + the middle of its band, or what is held."""
    coolant, quantity = (water_out_f, "approach_f") if unit.condensing == "water" else (ambient_f, "split_f")
    band = bands.default_band(unit, quantity)
    if coolant is None or band is None:
        return None
    target = coolant + (band[0] + band[1]) / 2.0
    return target if unit.head_control == "none" else max(target, bands.HELD_SCT_F)


def _sensor_error(seen: Mapping[str, Value]) -> Value | None:
    """Display − own thermometer, °F."""
    display, own = seen.get("display_temp_f"), seen.get("box_temp_f")
    return display - own if isinstance(display, float) and isinstance(own, float) else None


def _fans(seen: Mapping[str, Value]) -> Value | None:
    """What the fans looked at one by one say together."""
    still = seen.get("fans_still")
    if not isinstance(still, tuple):
        return None
    return "some_stopped" if any(word != "none" for word in still) else "running"


# Observations that others say by themselves: key -> (the keys it comes from, how).
IMPLIED: Final[dict[str, tuple[tuple[str, ...], Callable[[Mapping[str, Value]], Value | None]]]] = {
    "sensor_error_f": (("display_temp_f", "box_temp_f"), _sensor_error),
    "evap_fans": (("fans_still",), _fans),
}


def told_with(key: str) -> frozenset[str]:
    """Return the observations that, with a newly taken one, say others; empty where it says none."""
    return frozenset(source for sources, _ in IMPLIED.values() if key in sources for source in sources)


def implied_by(key: str, seen: Mapping[str, Value]) -> dict[str, Value]:
    """Return the observations that a newly taken one says together with those that stand (key -> value)."""
    found = {target: how(seen) for target, (sources, how) in IMPLIED.items() if key in sources}
    return {target: value for target, value in found.items() if value is not None}


_AS_TEMPERATURE: Final = re.compile(r"^[+\-−]?\s*\d+(?:[.,]\d*)?\s*°?[fFcC]$")


def as_typed(entry: Observation, typed: str | list[str], unit: Unit, shown: ShownUnits = TRADE) -> Value:
    """Return the stored form of what was typed on a unit; InputError as in `Observation.parse`.

    A gauge may be read as a temperature: "26F" in a pressure is the saturation pressure of the plate's refrigerant, at dew on the
    suction side and at bubble where liquid stands.
    """
    if entry.unit != "psig" or not isinstance(typed, str) or not _AS_TEMPERATURE.match(typed.strip()):
        return entry.parse(typed, shown)
    at_f = shown.parse(typed, "°F")
    look_up = unit.refrigerant.bubble_psig if entry.key in LIQUID_SIDE else unit.refrigerant.dew_psig
    try:
        pressure = look_up(at_f, unit.altitude_ft)
    except InputError as error:
        raise InputError(f"{entry.label}: {error}") from None
    return entry.check(round(pressure, 2), shown)


def _saturation(unit: Unit, line: str, pressure_psig: float | None) -> float | None:
    if pressure_psig is None:
        return None
    try:
        look_up = unit.refrigerant.dew_f if line == "dew_f" else unit.refrigerant.bubble_f
        return look_up(pressure_psig, unit.altitude_ft)
    except InputError:
        return None
