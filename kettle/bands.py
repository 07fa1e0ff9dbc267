"""What is normal, by kind of unit and by moment, and the verdict on each quantity.

Every table here is data: a band, a shift for a moment, or a reason to trust a verdict less.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from kettle.facts import Facts
from kettle.unit import Unit

Band = tuple[float, float]
TRUST: Final = ("none", "weak", "good")
IMPOSSIBLE_SUPERHEAT_F: Final = -3.0
GROSS_BANDS: Final = 1.0
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
}
# By moment: how far the edges move (low, high) and the most the verdict is then trusted.
BY_MOMENT: Final[dict[str, dict[str, tuple[float, float, str]]]] = {
    "just_started": dict.fromkeys((*SUPERHEATS, "td_f", "split_f", "subcooling_f", "amps_pct"), (0, 10, "none")),
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
    "low_ambient": "cold outside, under 60 °F",
    "high_ambient": "hot outside, over 100 °F",
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
    TrustRule(("amps_pct",), "weak", "rated amps are for a warmer coil", lambda f: True),
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
    """One quantity against its band: state low, ok, high or impossible; trust good, weak or none; why in words."""

    quantity: str
    value: float
    low: float
    high: float
    state: str
    trust: str
    why: str


def default_band(unit: Unit, quantity: str) -> Band | None:
    """Return the band of a quantity near set temperature: the unit's own, else that of its kind; None if it has none."""
    if quantity in unit.bands:
        return unit.bands[quantity]
    table = BY_KIND[unit.kind.code]
    if quantity == "superheat_evap_f":
        return CAP_TUBE_SUPERHEAT if unit.metering == "cap_tube" else table.get(unit.metering, table["txv"])
    if quantity == "subcooling_f" and unit.receiver:
        return RECEIVER_SUBCOOLING
    if quantity == "box_temp_f" and "set_f" not in unit.assumed:
        return (unit.set_f - unit.differential_f, unit.set_f + unit.differential_f)
    return COMMON.get(quantity, table.get(quantity))


def verdicts(facts: Facts) -> list[Verdict]:
    """Return the verdict on every quantity or observed figure that has a band, in the order of the tables."""
    order = dict.fromkeys((*COIL_QUANTITIES, "split_f", "subcooling_f", "amps_pct", "box_temp_f", *COMMON))
    found = []
    for quantity in order:
        value = facts.derived.get(quantity, facts.number(quantity))
        band = default_band(facts.unit, quantity)
        if value is not None and band is not None:
            found.append(_verdict(facts, quantity, value, band))
    return found


def _verdict(facts: Facts, quantity: str, value: float, band: Band) -> Verdict:
    own = quantity in facts.unit.bands
    reasons = ["this unit's own band" if own else f"{facts.unit.build}"]
    moment = facts.moment
    low_shift, high_shift, trust = BY_MOMENT[moment].get(quantity, (0.0, 0.0, "good"))
    low, high = band[0] + low_shift, band[1] + high_shift
    reasons.append(MOMENT_WORDS[moment])
    if trust == "weak" and max(low - value, value - high) > GROSS_BANDS * (band[1] - band[0]):
        # A gross fault may be named at any moment that has settled at all.
        trust = "good"
        reasons.append("far out even so")
    for rule in TRUST_RULES:
        if quantity in rule.quantities and rule.applies(facts):
            trust = min(trust, rule.trust, key=TRUST.index)
            reasons.append(rule.why)
    state = "low" if value < low else "high" if value > high else "ok"
    if quantity in SUPERHEATS and value < IMPOSSIBLE_SUPERHEAT_F:
        state, trust = "impossible", "none"
        reasons.append("superheat below zero cannot be: a reading is off")
    return Verdict(quantity, value, low, high, state, trust, ", ".join(reasons))
