"""The verdict on each quantity: its band at this moment, where the value stands, and how far that is to be trusted."""

from collections.abc import Callable, Container
from dataclasses import dataclass
from typing import Final

from kettle.judging.facts import Facts
from kettle.knowledge import amps, observations
from kettle.knowledge.bands import (
    BY_MOMENT,
    COIL_QUANTITIES,
    HELD_SCT_F,
    HELD_WITHIN_F,
    MOMENT_WORDS,
    NO_UPPER_END,
    ONLY_RAISES,
    SUPERHEATS,
    Band,
    banded,
    default_band,
)
from kettle.knowledge.quantities import QUANTITIES

TRUST: Final = ("none", "weak", "good")
IMPOSSIBLE_SUPERHEAT_F: Final = -3.0
GROSS_BANDS: Final = 1.0
FAR_PROBE_GAIN_F: Final = 30.0
# Amps are judged within this share of what is expected at the evaporating temperature, up to a little over rated.
AMPS_SHARES: Final = (0.78, 1.2)
MOST_AMPS_PCT: Final = 105.0
USUAL_SCT_F: Final = 105.0
FANS_NOT_RUNNING: Final = ("some_stopped", "stopped", "reversed", "held_by_ice")


# Each pair of legs sees two poles: two pairs see all three, each of the poles by itself only its own.
_ALL_THREE: Final = {
    "load_loss_v": ((("line_v_12", "load_v_12"), ("line_v_23", "load_v_23"), ("line_v_31", "load_v_31")), 2),
    "pole_drop_v": ((("pole_drop_v_1",), ("pole_drop_v_2",), ("pole_drop_v_3",)), 3),
}


@dataclass(frozen=True)
class TrustRule:
    """A reason to trust the verdicts on some quantities less."""

    quantities: tuple[str, ...]
    trust: str
    why: str
    applies: Callable[[Facts], bool]


# fmt: off
# What ice on the coil or air that does not move spoils.
COIL_SHOWS: Final = (*COIL_QUANTITIES, "over_pump_down_psi", "line_under_air_f")
CIRCUIT_QUANTITIES: Final = (*COIL_SHOWS, "liquid_drop_f", "subcooling_f", "split_f", "amps_pct", "discharge_line_f")

TRUST_RULES: Final = (
    TrustRule(CIRCUIT_QUANTITIES, "none", "the compressor is not running",
              lambda f: f.is_("compressor", "off", "humming", "tripping")),
    TrustRule(COIL_SHOWS, "none", "the coil is iced: melt it first", lambda f: coil_iced(f)),
    TrustRule(COIL_QUANTITIES, "none", "it is in a defrost", lambda f: f.is_("control_call", "in_defrost")),
    TrustRule(COIL_SHOWS, "none", "the coil fans are not all running",
              lambda f: f.is_("evap_fans", *FANS_NOT_RUNNING)),
    TrustRule((*CIRCUIT_QUANTITIES, "approach_f", "delta_t_f"), "none", "the liquid valve is shut: nothing comes to the coil",
              lambda f: f.is_("liquid_solenoid", "closed_no_pull") and f.is_("control_call", "calling")),
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
    TrustRule(("rest_off_f",), "none", "satisfied and off, as it should be", lambda f: f.is_rightly_off),
    TrustRule(("load_loss_v",), "none", "sound as far as it was read: another pole may be burnt",
              lambda f: bool(legs_to_read(f, "load_loss_v"))),
    TrustRule(("pole_drop_v",), "none", "sound as far as it was read: another pole may be burnt",
              lambda f: bool(legs_to_read(f, "pole_drop_v"))),
    TrustRule(("heater_volts",), "none", "outside a defrost the heaters are off",
              lambda f: "control_call" in f.seen and not f.is_("control_call", "in_defrost")),
)
# fmt: on


def legs_unread(quantity: str, seen: Container[str], phases: int) -> tuple[str, ...]:
    """Return the observations still to take until a contactor of three phases is known to be sound by what is lost over it (keys of V);
    empty where every pole has been seen, on a lone phase, and of every other quantity."""
    legs, enough = _ALL_THREE.get(quantity, ((), 0))
    read = [leg for leg in legs if all(key in seen for key in leg)]
    if phases != 3 or len(read) >= enough:
        return ()
    unread = next(leg for leg in legs if leg not in read)
    return tuple(key for key in unread if key not in seen)


def legs_to_read(facts: Facts, quantity: str) -> tuple[str, ...]:
    """Return what is still to read of a contactor that loses nothing where it was read; empty where that says all."""
    band = default_band(facts.unit, quantity)
    if band is None or facts.derived.get(quantity, 0.0) > band[1]:
        return ()
    return legs_unread(quantity, facts.seen, facts.unit.phases)


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


def on(facts: Facts) -> list[Verdict]:
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
    if trust == "weak" and value < low and quantity in SUPERHEATS and facts.moment in ONLY_RAISES:
        trust = "good"
        reasons.append("which explains none that is low")
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
    state = "low" if value < low else "high" if value > high and quantity not in NO_UPPER_END else "ok"
    if state == "high" and quantity in (*SUPERHEATS, "td_f") and _fed_as_built(facts):
        trust = "none"
        reasons.append("the suction is above its usual: as much flows as the coil was built for, and a box this warm boils it away early")
    if quantity in SUPERHEATS and value < IMPOSSIBLE_SUPERHEAT_F:
        state, trust = "impossible", "none"
        reasons.append("superheat below zero cannot be: a reading is off")
    return Verdict(quantity, value, low, high, state, trust, ", ".join(reasons), felt.spread if felt is not None else 0.0)


def _fed_as_built(facts: Facts) -> bool:
    """Whether a box far above its set has a suction above where its coil works at set, and no line warmer than its air: the compressor
    moves more than it was built for, so that nothing starves the coil."""
    sst, td = facts.derived.get("sst_f"), default_band(facts.unit, "td_f")
    if facts.moment != "pull_down" or sst is None or td is None:
        return False
    superheat, wide = facts.derived.get("superheat_evap_f", 0.0), facts.derived.get("td_f", 0.0)
    return sst > facts.unit.set_f - td[0] and superheat <= wide


def _at_this_moment(facts: Facts, quantity: str, band: Band, reasons: list[str]) -> tuple[float, float, str]:
    """The band's edges now and the most its verdict is trusted; what moved them is added to the reasons."""
    moment = facts.moment
    low_shift, high_shift, trust = BY_MOMENT[moment].get(quantity, (0.0, 0.0, "good"))
    low, high = band[0] + low_shift, band[1] + high_shift
    reasons.append(MOMENT_WORDS[moment])
    ambient, sst = facts.number("ambient_f"), facts.derived.get("sst_f")
    if quantity == "split_f" and facts.unit.head_control != "none" and ambient is not None:
        held = HELD_SCT_F + HELD_WITHIN_F - ambient
        if moment == "low_ambient":
            # What holds the head up has to: far below what is held, nothing holds it.
            low = max(low, HELD_SCT_F - HELD_WITHIN_F - ambient)
        if held > high:
            high = held
            reasons.append("the head control holds the condensing temperature up")
    split, split_band = facts.derived.get("split_f"), default_band(facts.unit, "split_f")
    if quantity == "subcooling_f" and split is not None and split_band is not None and 0.0 < split < split_band[0]:
        # Liquid cannot leave colder than the air: with little heat to give off there is as much less room for it to cool.
        share = split / ((split_band[0] + split_band[1]) / 2)
        low, high = low * share, high * share
        reasons.append("little heat to give off: less room to cool below")
    if quantity == "amps_pct" and sst is not None and quantity not in facts.unit.bands:
        sct = USUAL_SCT_F if ambient is None or split_band is None else ambient + (split_band[0] + split_band[1]) / 2
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
