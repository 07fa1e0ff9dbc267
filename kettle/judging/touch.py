"""Quantities by touch: what a hand on a line says of superheat, split and subcooling, with honest width.

A word for a line stands for a range of temperature; cut to what is possible in this circuit, its middle and half width
make the estimate. A gauge or clamp that is there always goes before.
"""

from collections.abc import Mapping
from typing import Final

from kettle.judging.facts import Felt
from kettle.knowledge import bands
from kettle.knowledge.equipment import Unit
from kettle.knowledge.observations import Value
from kettle.knowledge.quantities import QUANTITIES

Span = tuple[float, float]
# What a word for a line in the bare hand stands for, °F. Judgement of the trade.
WORDS: Final[dict[str, Span]] = {
    "hot": (120, 190), "warm": (95, 120), "lukewarm": (75, 95), "cool": (55, 75), "cold": (33, 55),
    "sweating": (33, 60), "frosted": (-60, 32),
}  # fmt: skip
# At the suction line the same words are told against colder neighbours, on a discharge line against hotter ones.
SUCTION_WORDS: Final[dict[str, Span]] = {"warm": (60, 90), "cool": (50, 70), "sweating": (33, 60), "frosted": (-60, 32)}
DISCHARGE_WORDS: Final[dict[str, Span]] = WORDS | {"hot": (130, 225)}
GAUGE_SPREAD_F: Final = 1.0
AMONG_LINES_F: Final = 4.0
AS_WARM_AS_AIR_F: Final = 8.0


def estimates(unit: Unit, seen: Mapping[str, Value], derived: Mapping[str, float]) -> dict[str, Felt]:
    """Return what touch says of the quantities that instruments left open: key -> middle, half width, what it rests on.

    Ranges in °F; a word that cannot be in this circuit (a line colder than its saturation) gives nothing.
    """
    found: dict[str, Felt] = {}
    saturated = _saturated(unit, seen, derived)
    outlet = seen.get("coil_outlet_feel")
    band = bands.default_band(unit, "superheat_evap_f")
    if outlet == "frost_comes_and_goes" and band is not None:
        # The school of the frost line: it comes and goes at the outlet when superheat is about right.
        found["superheat_evap_f"] = Felt((band[0] + band[1]) / 2, (band[1] - band[0]) / 2, "frost comes and goes at the outlet")
    elif saturated is not None and isinstance(outlet, str):
        _note(found, "superheat_evap_f", _over(WORDS[outlet], saturated, _air(seen)), saturated)
    suction = seen.get("suction_line_feel")
    if saturated is not None and isinstance(suction, str):
        _note(found, "superheat_comp_f", _over(SUCTION_WORDS[suction], saturated, None), saturated)
    liquid, sct, ambient = seen.get("liquid_line_feel"), derived.get("sct_f"), seen.get("ambient_f")
    if isinstance(liquid, str):
        low, high = WORDS[liquid]
        subcooling = bands.default_band(unit, "subcooling_f")
        if sct is not None and low < sct:
            _note(found, "subcooling_f", (sct - min(high, sct), sct - low), None)
        elif sct is None and isinstance(ambient, float) and subcooling is not None and unit.condensing == "air":
            low, high = max(low, ambient - AMONG_LINES_F), max(high, ambient - AMONG_LINES_F)
            if low < high:
                above = (subcooling[0] + subcooling[1]) / 2
                _note(found, "split_f", (low + above - ambient, high + above - ambient), None)
    discharge = seen.get("discharge_line_feel")
    if isinstance(discharge, str):
        _note(found, "discharge_line_f", DISCHARGE_WORDS[discharge], None)
    return {key: felt for key, felt in found.items() if key not in derived and key not in seen}


def _air(seen: Mapping[str, Value]) -> float | None:
    for key in ("return_air_f", "box_temp_f"):
        value = seen.get(key)
        if isinstance(value, float):
            return value
    return None


def _saturated(unit: Unit, seen: Mapping[str, Value], derived: Mapping[str, float]) -> tuple[float, float, str] | None:
    """Saturation in the coil, its spread and where it is from: the gauge, else the air less the usual TD."""
    if "sst_f" in derived:
        return derived["sst_f"], GAUGE_SPREAD_F, "by feel"
    air, band = _air(seen), bands.default_band(unit, "td_f")
    if air is None or band is None:
        return None
    return air - (band[0] + band[1]) / 2, (band[1] - band[0]) / 2, "by feel, SST taken as the air less the usual TD"


def _over(word: Span, saturated: tuple[float, float, str], warmest: float | None) -> Span:
    """The range of a line, as degrees over saturation; a line is never colder than that, nor warmer than its air.

    A word for warmer than the air says that the line is about as warm as the air.
    """
    sst, spread, _ = saturated
    low, high = word
    if warmest is not None:
        low, high = min(low, warmest - AS_WARM_AS_AIR_F), min(high, warmest)
    low = max(low, sst)
    return low - sst, max(high, low) - sst if high >= sst - spread else -1.0


def _note(found: dict[str, Felt], key: str, span: Span, saturated: tuple[float, float, str] | None) -> None:
    low, high = span
    if high < low:
        return
    spread, why = (saturated[1], saturated[2]) if saturated is not None else (0.0, "by feel")
    assert key in QUANTITIES or key == "discharge_line_f"
    found[key] = Felt((low + high) / 2, (high - low) / 2 + spread, why)
