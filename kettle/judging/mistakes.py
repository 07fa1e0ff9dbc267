"""Mistakes that are often made in naming a cause, caught where what was seen invites them."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.judging.facts import PULL_DOWN_F, Facts


@dataclass(frozen=True)
class Mistake:
    """A trap: the causes it leads to, why it is one, and when what was seen invites it."""

    causes: frozenset[str]
    text: str
    invited: Callable[[Facts], bool]


def _one(*codes: str) -> frozenset[str]:
    return frozenset(codes)


def _charge_uncleared(f: Facts) -> bool:
    airflow = f.is_("evap_fans", "running")
    air = f.is_("condenser_coil", "clean", "dusty") and f.is_("condenser_fans", "running", "cycling")
    condensing = air or f.unit.condensing == "water"
    return f.is_("sight_glass", "few_bubbles", "flashing", "empty") and not (airflow and condensing)


def _head_uncleared(f: Facts) -> bool:
    return f.is_("condenser_coil", "blocked") or f.is_("condenser_fans", "stopped", "slow", "reversed")


def _glass_behind_a_drier(f: Facts) -> bool:
    return f.is_("sight_glass", "few_bubbles", "flashing") and "drier_drop_f" not in f.seen


def _rests(f: Facts) -> bool:
    return f.is_("control_call", "in_defrost") or (f.is_("evap_fans", "stopped") and f.unit.kind.freezer and "fan_delay" not in f.seen)


# fmt: off
MISTAKES: Final = (
    Mistake(_one("overcharge"), "A sweating or frosted compressor is liquid coming back: an expansion valve does not overfeed because of "
            "charge. Bulb and airflow first",
            lambda f: f.unit.metering == "txv" and f.is_("compressor_shell", "sweating", "frosted")),
    Mistake(_one("undercharge", "winter_charge_short"), "Bubbles alone are not a low charge: coil fans, condenser and its fan are not all "
            "cleared yet", _charge_uncleared),
    Mistake(_one("undercharge"), "A plugged drier makes the glass behind it flash with the charge full: the drop in temperature across the "
            "drier before any gas", _glass_behind_a_drier),
    Mistake(_one("overcharge", "noncondensables"), "High head behind a dirty condenser or a fan that does not turn right is no charge: "
            "put that right and read again", _head_uncleared),
    Mistake(_one("evap_fan_failed", "evap_fan_no_power"), "Coil fans rest in a defrost and until the coil is cold again: see which it is",
            _rests),
    Mistake(_one("compressor_open_winding"), "A compressor that is hot is off on its own protector: common open to both others, and back "
            "when it is cold. Wait, then measure again", lambda f: f.is_("compressor_shell", "hot")),
    Mistake(_one("liquid_solenoid_closed", "undercharge", "txv_underfeeding"), "With its low-pressure switch open where it should be made, "
            "the switch keeps it off and not the liquid", lambda f: f.derived.get("lp_open_off_f", -99.0) > 0.0),
    Mistake(_one("undercharge", "overcharge"), "Behind a receiver subcooling says little of the charge: glass and level first",
            lambda f: f.unit.receiver and "subcooling_f" in f.derived and "receiver_level_pct" not in f.seen),
    Mistake(_one("txv_underfeeding", "txv_overfeeding"), "The bulb comes before the valve: place, straps, insulation",
            lambda f: f.unit.metering == "txv" and not f.is_("bulb", "tight_insulated")),
    Mistake(_one("txv_underfeeding", "txv_overfeeding"), "The box is far from set: superheat there is not the valve's own",
            lambda f: (f.box_over_set_f or 0.0) > PULL_DOWN_F),
    Mistake(_one("compressor_open_winding", "compressor_overload", "start_parts_failed", "voltage_problem"),
            "Phase to phase at the load misleads behind an open pole, since the motor feeds back: volts across each closed pole",
            lambda f: "load_loss_v" in f.derived and "pole_drop_v" not in f.derived),
    Mistake(_one("cap_tube_restricted"), "A capillary tube is only judged after a weighed charge",
            lambda f: f.unit.critical_charge_oz is not None),
    Mistake(_one("compressor_inefficient"), "Before a compressor is condemned: pump it down, and see that it holds",
            lambda f: "pump_down_low_psig" not in f.seen),
    Mistake(_one("noncondensables"), "Air is told at rest: shut down, let it equalise, hold the pressure against saturation at ambient",
            lambda f: "resting_psig" not in f.seen),
)
# fmt: on


def invited(facts: Facts, codes: Sequence[str]) -> tuple[str, ...]:
    """Return the traps that naming these causes might walk into, by what is known."""
    return tuple(mistake.text for mistake in MISTAKES if mistake.causes & set(codes) and mistake.invited(facts))
