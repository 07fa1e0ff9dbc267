"""What is worked out from the readings: superheat, subcooling, TD, split and the rest.

Superheat always uses the dew line, subcooling and condensing temperature the bubble line; nobody has to subtract.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final

from kettle import bands
from kettle.errors import InputError
from kettle.observations import Value
from kettle.unit import Unit
from kettle.units import psig_to_psia


@dataclass(frozen=True)
class Quantity:
    """A quantity worked out: its key in the case format, names, unit, and the observations it needs."""

    key: str
    label: str
    unit: str
    needs: tuple[str, ...]
    meaning: str
    decimals: int = 1


# fmt: off
QUANTITIES: Final[dict[str, Quantity]] = {q.key: q for q in (
    Quantity("sst_f", "SST", "°F", ("suction_psig",), "saturation (dew) at suction pressure"),
    Quantity("sct_f", "SCT", "°F", ("discharge_psig",), "saturation (bubble) at discharge pressure"),
    Quantity("superheat_evap_f", "Superheat, coil", "°F", ("suction_psig", "suction_line_evap_f"),
             "line at the bulb − dew at suction"),
    Quantity("superheat_comp_f", "Superheat, comp.", "°F", ("suction_psig", "suction_line_comp_f"),
             "line at the compressor − dew at suction"),
    Quantity("line_gain_f", "Line gain", "°F", ("suction_psig", "suction_line_evap_f", "suction_line_comp_f"),
             "superheat at the compressor − superheat at the coil"),
    Quantity("subcooling_f", "Subcooling", "°F", ("discharge_psig", "liquid_line_f"),
             "bubble at liquid pressure − liquid line"),
    Quantity("td_f", "TD", "°F", ("suction_psig", "box_temp_f"), "return (or box) air − SST"),
    Quantity("delta_t_f", "Air delta-T", "°F", ("return_air_f", "supply_air_f"), "return air − supply air"),
    Quantity("split_f", "Split", "°F", ("discharge_psig", "ambient_f"), "SCT − air on the condenser"),
    Quantity("ratio", "Ratio", "", ("suction_psig", "discharge_psig"), "absolute discharge ÷ absolute suction"),
    Quantity("amps_pct", "Amps", "%", ("compressor_amps",), "measured ÷ rated amps", 0),
    Quantity("expected_head_psig", "Head expected", "psig", ("ambient_f",),
             "bubble at air on the condenser + normal split", 0),
)}
# fmt: on


def derive(unit: Unit, seen: Mapping[str, Value]) -> dict[str, float]:
    """Return every quantity that can be worked out, by key, in the units of the keys.

    Definitions: field practice, as each `Quantity.meaning` states. What lacks a reading, or whose pressure lies
    outside the refrigerant's table, is left out.
    """
    got = {key: value for key, value in seen.items() if isinstance(value, float)}
    out: dict[str, float] = {}

    suction, discharge = got.get("suction_psig"), got.get("discharge_psig")
    liquid = got.get("liquid_psig", discharge)
    sst = _saturation(unit, "dew_f", suction)
    sct = _saturation(unit, "bubble_f", discharge)
    bubble = _saturation(unit, "bubble_f", liquid)
    air = got.get("return_air_f", got.get("box_temp_f"))
    ambient = got.get("ambient_f") if unit.condensing == "air" else None

    def difference(key: str, minuend: float | None, subtrahend: float | None) -> None:
        if minuend is not None and subtrahend is not None:
            out[key] = minuend - subtrahend

    if sst is not None:
        out["sst_f"] = sst
    if sct is not None:
        out["sct_f"] = sct
    difference("superheat_evap_f", got.get("suction_line_evap_f"), sst)
    difference("superheat_comp_f", got.get("suction_line_comp_f"), sst)
    difference("line_gain_f", out.get("superheat_comp_f"), out.get("superheat_evap_f"))
    difference("subcooling_f", bubble, got.get("liquid_line_f"))
    difference("td_f", air, sst)
    difference("delta_t_f", got.get("return_air_f"), got.get("supply_air_f"))
    difference("split_f", sct, ambient)
    if suction is not None and discharge is not None and psig_to_psia(suction, unit.altitude_ft) > 0:
        out["ratio"] = psig_to_psia(discharge, unit.altitude_ft) / psig_to_psia(suction, unit.altitude_ft)
    if "compressor_amps" in got and unit.compressor_rla_a:
        out["amps_pct"] = 100.0 * got["compressor_amps"] / unit.compressor_rla_a
    if ambient is not None:
        split = bands.default_band(unit, "split_f")
        if split is not None:
            try:
                target_f = ambient + (split[0] + split[1]) / 2.0
                out["expected_head_psig"] = unit.refrigerant.bubble_psig(target_f, unit.altitude_ft)
            except InputError:
                pass
    return out


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


def implied_by(key: str, seen: Mapping[str, Value]) -> dict[str, Value]:
    """Return the observations that a newly taken one says together with those that stand (key -> value)."""
    found = {target: how(seen) for target, (sources, how) in IMPLIED.items() if key in sources}
    return {target: value for target, value in found.items() if value is not None}


def _saturation(unit: Unit, line: str, pressure_psig: float | None) -> float | None:
    if pressure_psig is None:
        return None
    try:
        look_up = unit.refrigerant.dew_f if line == "dew_f" else unit.refrigerant.bubble_f
        return look_up(pressure_psig, unit.altitude_ft)
    except InputError:
        return None
