"""What is normal, by kind of unit and by moment, and the verdict on each quantity.

Every table here is data: a band, a shift for a moment, or a reason to trust a verdict less.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from kettle import amps, observations
from kettle.errors import InputError
from kettle.facts import Facts
from kettle.quantities import QUANTITIES
from kettle.unit import CHOICES, Unit
from kettle.units import TRADE, ShownUnits

Band = tuple[float, float]
TRUST: Final = ("none", "weak", "good")
IMPOSSIBLE_SUPERHEAT_F: Final = -3.0
GROSS_BANDS: Final = 1.0
# A head control is taken to hold about this condensing temperature in cold weather.
HELD_SCT_F: Final = 85.0
HELD_WITHIN_F: Final = 10.0
FAR_PROBE_GAIN_F: Final = 30.0
# Amps are judged within this share of what is expected at the evaporating temperature, up to a little over rated.
AMPS_SHARES: Final = (0.78, 1.2)
MOST_AMPS_PCT: Final = 105.0
USUAL_SCT_F: Final = 105.0
# No band of a quantity worked out reaches further than this either way.
WIDEST_BAND: Final = 500.0
SUPERHEATS: Final = ("superheat_evap_f", "superheat_comp_f")


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
    "winding_mismatch_pct": (0, 10),
    "winding_ground_ohm": (1e5, 1e10),
    "heater_pct": (85, 112),
    "stat_span_f": (1.5, 9),
    "stat_off_f": (-4, 4),
    "sensor_error_f": (-3, 3),
    "defrosts_per_day": (1.5, 6),
    "defrost_ran_min": (6, 40),
    "lp_cut_out_psig": (0, 250),
    "pump_down_rise_psi": (0, 6),
}
# By moment: how far the edges move (low, high) and the most the verdict is then trusted.
BY_MOMENT: Final[dict[str, dict[str, tuple[float, float, str]]]] = {
    "just_started": dict.fromkeys((*SUPERHEATS, "td_f", "split_f", "subcooling_f", "amps_pct"), (0, 10, "none")),
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


@dataclass(frozen=True)
class TrustRule:
    """A reason to trust the verdicts on some quantities less."""

    quantities: tuple[str, ...]
    trust: str
    why: str
    applies: Callable[[Facts], bool]


COIL_QUANTITIES: Final = (*SUPERHEATS, "td_f", "delta_t_f")
CIRCUIT_QUANTITIES: Final = (*COIL_QUANTITIES, "subcooling_f", "split_f", "amps_pct", "discharge_line_f")

TRUST_RULES: Final = (
    TrustRule(CIRCUIT_QUANTITIES, "none", "the compressor is not running",
              lambda f: f.is_("compressor", "off", "humming", "tripping")),
    TrustRule(COIL_QUANTITIES, "none", "the coil is iced: melt it first", lambda f: coil_iced(f)),
    TrustRule(COIL_QUANTITIES, "none", "the coil fans are not all running",
              lambda f: f.is_("evap_fans", "some_stopped", "stopped", "reversed")),
    TrustRule(("subcooling_f",), "weak", "behind a receiver: glass and level say more", lambda f: f.unit.receiver),
    TrustRule(("superheat_evap_f",), "weak", "a capillary tube does not hold superheat",
              lambda f: f.unit.metering == "cap_tube"),
    TrustRule(("superheat_comp_f",), "weak", "lines often share insulation: TD and suction first",
              lambda f: f.unit.kind.code.startswith("reach_in")),
    TrustRule(("superheat_comp_f",), "weak", "long or bare suction line: the probe is far from the coil",
              lambda f: f.derived.get("line_gain_f", 0.0) > FAR_PROBE_GAIN_F),
    TrustRule(("td_f",), "good", "glide: taken from dew; the coil's mean lies lower", lambda f: f.unit.refrigerant.glides),
    TrustRule((*SUPERHEATS, "td_f", "subcooling_f", "split_f", "approach_f"), "weak", "this blend's pressures are estimated",
              lambda f: bool(f.unit.refrigerant.estimated)),
    TrustRule(("amps_pct",), "weak", "rated amps are for a warmer coil, and SST is not known", lambda f: "sst_f" not in f.derived),
    TrustRule(("discharge_line_f",), "weak", "rule of thumb", lambda f: True),
)
# fmt: on


def coil_iced(facts: Facts) -> bool:
    """Whether ice of a kind that spoils readings sits on a coil."""
    if not facts.is_("ice_form", "heavy_frost", "hard_ice", "snow"):
        return False
    places = facts.seen.get("ice_places")
    return not places or facts.is_("ice_places", "coil_whole", "coil_inlet_passes", "coil_part", "coil_bottom")


@dataclass(frozen=True)
class Verdict:
    """One quantity against its band: state low, ok, high or impossible; trust good, weak or none; why in words.

    `spread` is half the width of an estimate by touch, 0 for what was measured.
    """

    quantity: str
    value: float
    low: float
    high: float
    state: str
    trust: str
    why: str
    spread: float = 0.0


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
    if quantity == "box_temp_f" and "set_f" not in unit.assumed:
        return (unit.set_f - unit.differential_f, unit.set_f + unit.differential_f)
    return COMMON.get(quantity, table.get(quantity))


def banded() -> tuple[str, ...]:
    """Return every quantity or observed figure that can have a band, in the order they are judged."""
    named = {quantity for table in BY_KIND.values() for quantity in table if quantity not in CHOICES["metering"]}
    order = dict.fromkeys((*COIL_QUANTITIES, "split_f", "subcooling_f", "amps_pct", "box_temp_f", *COMMON))
    return tuple(dict.fromkeys((*order, "lp_cut_in_off_f", *sorted(named))))


def unit_of(quantity: str) -> str:
    """Return the stored unit of a quantity that can have a band; InputError for one that can not."""
    if quantity not in banded():
        raise InputError(f"“{quantity[:40]}” has no band")
    return QUANTITIES[quantity].unit if quantity in QUANTITIES else observations.get(quantity).unit


def check_band(quantity: str, low: float, high: float, shown: ShownUnits = TRADE) -> Band:
    """Return the ends of a band if they are one; InputError names what is wrong, with range and unit."""
    unit = unit_of(quantity)
    if not low < high:
        raise InputError(f"From must lie below To: {shown.span(low, high, unit, 1)} is no band")
    entry = observations.REGISTRY.get(quantity)
    floor, ceiling = (entry.low, entry.high) if entry is not None else (-WIDEST_BAND, WIDEST_BAND)
    if low < floor or high > ceiling:
        raise InputError(f"{shown.span(low, high, unit, 1)} is outside {shown.span(floor, ceiling, unit, 0)}")
    return low, high


def verdicts(facts: Facts) -> list[Verdict]:
    """Return the verdict on every quantity or observed figure that has a band, in the order of the tables."""
    found = []
    for quantity in banded():
        value = facts.derived.get(quantity, facts.number(quantity))
        if value is None and quantity in facts.felt:
            value = facts.felt[quantity].value
        band = default_band(facts.unit, quantity)
        if value is not None and band is not None:
            found.append(_verdict(facts, quantity, value, band))
    return found


def _verdict(facts: Facts, quantity: str, value: float, band: Band) -> Verdict:
    own = quantity in facts.unit.bands
    reasons = ["this unit's own band" if own else f"{facts.unit.build}"]
    low, high, trust = _at_this_moment(facts, quantity, band, reasons)
    if trust == "weak" and max(low - value, value - high) > GROSS_BANDS * (band[1] - band[0]):
        # A gross fault may be named at any moment that has settled at all.
        trust = "good"
        reasons.append("far out even so")
    for rule in TRUST_RULES:
        if quantity in rule.quantities and rule.applies(facts):
            trust = min(trust, rule.trust, key=TRUST.index)
            reasons.append(rule.why)
    old = [observations.get(key).label.lower() for key in _rests_on(facts, quantity) if facts.is_old(key)]
    if old:
        trust = min(trust, "weak", key=TRUST.index)
        reasons.append(f"old reading: {', '.join(old)}")
    felt = facts.felt.get(quantity)
    if felt is not None:
        trust = min(trust, "weak", key=TRUST.index)
        reasons.append(f"{felt.why}, give or take {facts.shown.text(felt.spread, '°F diff', 0)}")
    state = "low" if value < low else "high" if value > high else "ok"
    if quantity in SUPERHEATS and value < IMPOSSIBLE_SUPERHEAT_F:
        state, trust = "impossible", "none"
        reasons.append("superheat below zero cannot be: a reading is off")
    return Verdict(quantity, value, low, high, state, trust, ", ".join(reasons), felt.spread if felt is not None else 0.0)


def _at_this_moment(facts: Facts, quantity: str, band: Band, reasons: list[str]) -> tuple[float, float, str]:
    """The band's edges now and the most its verdict is trusted; what moved them is added to the reasons."""
    moment = facts.moment
    low_shift, high_shift, trust = BY_MOMENT[moment].get(quantity, (0.0, 0.0, "good"))
    low, high = band[0] + low_shift, band[1] + high_shift
    reasons.append(MOMENT_WORDS[moment])
    ambient, sst = facts.number("ambient_f"), facts.derived.get("sst_f")
    if quantity == "split_f" and facts.unit.head_control != "none" and ambient is not None:
        held = HELD_SCT_F + HELD_WITHIN_F - ambient
        if held > high:
            high = held
            reasons.append("the head control holds the condensing temperature up")
    if quantity == "amps_pct" and sst is not None and quantity not in facts.unit.bands:
        split = default_band(facts.unit, "split_f")
        sct = USUAL_SCT_F if ambient is None or split is None else ambient + (split[0] + split[1]) / 2
        expected = amps.expected_share_pct(facts.unit.refrigerant, sst, sct, facts.unit.kind.freezer)
        low, high = AMPS_SHARES[0] * expected, min(AMPS_SHARES[1] * expected + high_shift, MOST_AMPS_PCT + high_shift)
        reasons.append(f"about {expected:.0f} % of rated expected at SST {facts.shown.text(sst, '°F', 0)}")
    return low, high, trust


def _rests_on(facts: Facts, quantity: str) -> tuple[str, ...]:
    """The observations a quantity rests on."""
    needs = QUANTITIES[quantity].needs if quantity in QUANTITIES else (quantity,)
    if "box_temp_f" in needs and "return_air_f" in facts.seen:
        needs = tuple("return_air_f" if key == "box_temp_f" else key for key in needs)
    return needs
