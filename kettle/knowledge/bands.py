"""What is normal, by kind of unit and by moment.

Every table here is data: a band, or a shift for a moment. The verdicts on them are in kettle/judging/verdicts.py.
"""

import math
from typing import Final

from kettle.knowledge import observations
from kettle.knowledge.equipment import CHOICES, Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.quantities import QUANTITIES

Band = tuple[float, float]
# A head control is taken to hold about this condensing temperature in cold weather.
HELD_SCT_F: Final = 85.0
HELD_WITHIN_F: Final = 10.0
# A plant pumps down to about this, or to where no coil that still gets liquid is drawn: so many times its widest TD under set.
PUMPED_DOWN_PSIG: Final = 5.0
PUMPED_DOWN_TDS: Final = 2.5
# No band of a quantity worked out reaches further than this either way.
WIDEST_BAND: Final = 500.0
SUPERHEATS: Final = ("superheat_evap_f", "superheat_comp_f")
COIL_QUANTITIES: Final = (*SUPERHEATS, "td_f", "delta_t_f")
# What hands and ears say of the same coil, and what ice spoils with it.
COIL_FELT: Final = ("suction_line_feel", "coil_outlet_feel", "valve_response", "air_weak_at")


# fmt: off
# By kind: box, TD, superheat at the coil by metering, superheat at the compressor, split, subcooling without a
# receiver, air delta-T. Practice bands of the trade; °F.
_WALK_IN_COOLER: Final[dict[str, Band]] = {
    "box_temp_f": (34, 38), "td_f": (8, 15), "txv": (6, 12), "eev": (5, 10), "superheat_comp_f": (15, 35),
    "split_f": (15, 30), "subcooling_f": (6, 16), "delta_t_f": (6, 12)}
_WALK_IN_FREEZER: Final[dict[str, Band]] = {
    "box_temp_f": (-10, 0), "td_f": (7, 14), "txv": (4, 10), "eev": (4, 8), "superheat_comp_f": (15, 40),
    "split_f": (12, 25), "subcooling_f": (5, 15), "delta_t_f": (6, 12)}
_REACH_IN_COOLER: Final[dict[str, Band]] = {
    "box_temp_f": (34, 40), "td_f": (14, 28), "txv": (5, 12), "eev": (5, 10), "superheat_comp_f": (10, 40),
    "split_f": (20, 35), "subcooling_f": (5, 15)}
BY_KIND: Final[dict[str, dict[str, Band]]] = {
    "walk_in_cooler": _WALK_IN_COOLER,
    "walk_in_freezer": _WALK_IN_FREEZER,
    "reach_in_cooler": _REACH_IN_COOLER,
    "reach_in_freezer": {
        "box_temp_f": (-5, 5), "td_f": (12, 24), "txv": (4, 10), "eev": (4, 8), "superheat_comp_f": (10, 40),
        "split_f": (18, 32), "subcooling_f": (5, 15)},
    "prep_rail": {
        "box_temp_f": (33, 40), "td_f": (15, 30), "txv": (5, 12), "superheat_comp_f": (10, 40),
        "split_f": (20, 35), "subcooling_f": (5, 15)},
    "display_cooler": {
        "box_temp_f": (32, 38), "td_f": (10, 20), "txv": (5, 12), "eev": (4, 10), "superheat_comp_f": (15, 40),
        "split_f": (20, 35), "subcooling_f": (6, 16)},
    "display_freezer": {
        "box_temp_f": (-5, 5), "td_f": (8, 18), "txv": (4, 10), "eev": (4, 8), "superheat_comp_f": (15, 40),
        "split_f": (15, 30), "subcooling_f": (5, 15)},
    "bottle_cooler": _REACH_IN_COOLER,
    "provision_room_cooler": _WALK_IN_COOLER,
    "provision_room_freezer": _WALK_IN_FREEZER,
}
CAP_TUBE_SUPERHEAT: Final[Band] = (5, 15)
RECEIVER_SUBCOOLING: Final[Band] = (1, 8)
# The same for every kind.
COMMON: Final[dict[str, Band]] = {
    "amps_pct": (55, 100),
    "discharge_line_f": (100, 225),
    "drier_drop_f": (-2, 3),
    "receiver_level_pct": (20, 85),
    "pump_down_low_psig": (-14.7, 5),
    "evap_fan_supply_v": (90, 600),
    "approach_f": (4, 14),
    "rise_f": (6, 16),
    "volts_imbalance_pct": (0, 2),
    "volts_off_pct": (-10, 10),
    "load_loss_v": (-8, 8),
    "pole_drop_v": (0, 4),
    "winding_highest_ohm": (0.1, 500),
    "winding_sr_ohm": (0.1, 500),
    "winding_mismatch_pct": (0, 10),
    "winding_ground_ohm": (1e6, 1e10),
    "heater_ground_ohm": (1e6, 1e10),
    "heater_pct": (85, 112),
    "regulator_drop_psi": (0, 4),
    "heater_volts": (90, 600),
    "liquid_drop_f": (-12, 8),
    "line_under_air_f": (3, 15),
    "over_pump_down_psi": (0, 12),
    "product_over_air_f": (-5, 5),
    "defrost_min_a_day": (45, 240),
    "stat_span_f": (1.5, 9),
    "stat_off_f": (-4, 4),
    "sensor_error_f": (-3, 3),
    "defrosts_per_day": (1.5, 6),
    "defrost_ran_min": (6, 40),
    "lp_cut_out_psig": (0, 250),
    "pump_down_rise_psi": (0, 6),
    "rest_off_f": (-10, 12),
    "rest_over_air_f": (-8, 6),
    "held_warm_f": (-4, 4),
}
# Nothing is too high for these: past their band they are as in it.
NO_UPPER_END: Final = ("over_pump_down_psi", "line_under_air_f")
# A moment that only raises superheat explains none that is low.
ONLY_RAISES: Final = ("pull_down",)
# By moment: how far the edges move (low, high) and the most the verdict is then trusted.
BY_MOMENT: Final[dict[str, dict[str, tuple[float, float, str]]]] = {
    "just_started": dict.fromkeys((*SUPERHEATS, "td_f", "over_pump_down_psi", "split_f", "subcooling_f", "amps_pct"), (0, 10, "none")),
    "after_defrost": {
        "superheat_evap_f": (0, 6, "weak"), "superheat_comp_f": (0, 8, "weak"), "td_f": (0, 6, "weak"),
        "box_temp_f": (0, 6, "weak"), "amps_pct": (0, 12, "weak")},
    "pull_down": {
        "superheat_evap_f": (0, 6, "weak"), "superheat_comp_f": (0, 8, "weak"), "td_f": (0, 6, "weak"),
        "split_f": (0, 6, "weak"), "amps_pct": (0, 15, "weak")},
    "low_ambient": {"split_f": (0, 15, "weak"), "subcooling_f": (0, 6, "weak")},
    "high_ambient": {"amps_pct": (0, 10, "weak")},
    "steady": {},
}
MOMENT_WORDS: Final = {
    "just_started": "under 15 min since start, door, defrost or adjustment",
    "pull_down": "box far above set: pull-down",
    "after_defrost": "a defrost ended a short while ago",
    "low_ambient": "cold outside",
    "high_ambient": "hot outside",
    "steady": "box near set",
}
# fmt: on


def pump_down_psig(unit: Unit) -> float:
    """Return what a unit pumps down to, psig: the usual cut-out, or lower where its coil runs as cold as that. Judgement of the trade."""
    coldest_f = unit.set_f - PUMPED_DOWN_TDS * BY_KIND[unit.kind.code]["td_f"][1]
    try:
        return min(PUMPED_DOWN_PSIG, unit.refrigerant.dew_psig(coldest_f, unit.altitude_ft))
    except InputError:
        return PUMPED_DOWN_PSIG


def default_band(unit: Unit, quantity: str) -> Band | None:
    """Return the band of a quantity near set temperature: the unit's own, else that of its kind; None if it has none."""
    if quantity in unit.bands:
        return unit.bands[quantity]
    table = BY_KIND[unit.kind.code]
    if quantity == "superheat_evap_f":
        return CAP_TUBE_SUPERHEAT if unit.metering == "cap_tube" else table.get(unit.metering, table["txv"])
    if quantity == "subcooling_f" and unit.receiver:
        return RECEIVER_SUBCOOLING
    if quantity == "lp_cut_in_off_f":
        # As a thermostat cut-in stands at the warmest air wanted; as pump-down it must be made at the coldest.
        return (-3, 8) if unit.box_control == "suction_pressure" else (-90, -4)
    if quantity == "lp_open_off_f":
        # It opens below its cut-out and stays open up to its cut-in: above that it is set wrong, or broken.
        return (-120, 8) if unit.box_control == "suction_pressure" else (-120, -2)
    if quantity == "box_temp_f" and "set_f" not in unit.assumed:
        return (unit.set_f - unit.differential_f, unit.set_f + unit.differential_f)
    return COMMON.get(quantity, table.get(quantity))


def banded() -> tuple[str, ...]:
    """Return every quantity or observed figure that can have a band, in the order they are judged."""
    named = {quantity for table in BY_KIND.values() for quantity in table if quantity not in CHOICES["metering"]}
    order = dict.fromkeys((*COIL_QUANTITIES, "split_f", "subcooling_f", "amps_pct", "box_temp_f", *COMMON))
    return tuple(dict.fromkeys((*order, "lp_cut_in_off_f", "lp_open_off_f", *sorted(named))))


def unit_of(quantity: str) -> str:
    """Return the stored unit of a quantity that can have a band; InputError for one that can not."""
    if quantity not in banded():
        raise InputError(f"“{quantity[:40]}” has no band")
    return QUANTITIES[quantity].unit if quantity in QUANTITIES else observations.get(quantity).unit


def check_band(quantity: str, low: float, high: float, shown: ShownUnits = TRADE) -> Band:
    """Return the ends of a band if they are one; InputError names what is wrong, with range and unit."""
    unit = unit_of(quantity)
    if not (math.isfinite(low) and math.isfinite(high)):
        raise InputError(f"From and To must be figures ({shown.label(unit)})")
    if not low < high:
        raise InputError(f"From must lie below To: {shown.span(low, high, unit, 1)} is no band")
    entry = observations.REGISTRY.get(quantity)
    floor, ceiling = (entry.low, entry.high) if entry is not None else (-WIDEST_BAND, WIDEST_BAND)
    if low < floor or high > ceiling:
        raise InputError(f"{shown.span(low, high, unit, 1)} is outside {shown.span(floor, ceiling, unit, 0)}")
    return low, high
