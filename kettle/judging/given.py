"""What is there because somebody saw it: the causes no longer in question, which others are inferred beside."""

from collections.abc import Iterable
from typing import Final

from kettle.judging import stopped
from kettle.judging.facts import Facts
from kettle.judging.testimony import Testimony
from kettle.knowledge import causes
from kettle.knowledge.bands import default_band
from kettle.knowledge.causes.seen import BELOW, FAN_VOLTS, OUTSIDE, SEEN

RUNS: Final = ("running", "short_cycling")
# Every set of them has hypotheses of its own: past so many the rest competes as it did.
MOST: Final = 3


def seen_there(facts: Facts) -> tuple[str, ...]:
    """Return the codes of the causes that what stands shows to the eye, in the order of the table."""
    found = [code for key, (limit, code) in BELOW.items() if (figure := facts.number(key)) is not None and figure < limit]
    found += [
        code for key, (low, high, code) in OUTSIDE.items() if (figure := facts.derived.get(key)) is not None and not low <= figure <= high
    ]
    if _cannot_make(facts):
        found.append("lp_control_misset")
    if _holds_what_it_is_shown(facts):
        found.append("stat_calibration")
    for key, words in SEEN.items():
        code = words.get(str(facts.seen.get(key, "")))
        if code is None or stopped.says_nothing(key, facts) or not causes.get(code).possible_on(facts.unit):
            continue
        if key == "evap_fans" and not _fan_has_volts(facts):
            continue
        if key == "condenser_fans" and not _should_turn(facts):
            continue
        if key == "liquid_solenoid" and not facts.is_("control_call", "calling"):
            continue
        found.append(code)
    return tuple(dict.fromkeys(found))


def _cannot_make(f: Facts) -> bool:
    """Whether a low-pressure switch stands open with its cut-in above what the box's own air can bring the suction of a unit at rest to.

    Where it holds the box it stands so at every rest, until the box is warm.
    """
    cut_in, over = f.derived.get("lp_cut_in_off_f"), f.box_over_set_f
    if not f.is_("low_pressure_switch", "open") or cut_in is None or over is None:
        return False
    return cut_in > over and (f.unit.box_control != "suction_pressure" or over > f.unit.differential_f)


def _holds_what_it_is_shown(f: Facts) -> bool:
    """Whether a box stands off its set by as much as its display is off by one's own thermometer: the control does as it is told, by a
    figure that is not the true one.

    Only once it was looked whether sensors changed places, and not of a box that is only coming down.
    """
    error, over, most = f.number("sensor_error_f"), f.box_over_set_f, f.unit.differential_f
    band = default_band(f.unit, "sensor_error_f")
    if error is None or over is None or band is None or f.coming_down in ("first_start", "after_defrost", "door_open"):
        return False
    return f.is_("circuit_extra", "nothing") and not band[0] <= error <= band[1] and abs(over) > most >= abs(over + error)


def _fan_has_volts(f: Facts) -> bool:
    volts = f.number("evap_fan_supply_v")
    return volts is not None and volts >= FAN_VOLTS and not f.is_("fan_delay", "waits_cold")


def _should_turn(f: Facts) -> bool:
    """Whether nothing but its own fault keeps a condenser fan from turning."""
    return f.is_("compressor", *RUNS) and f.unit.head_control not in stopped.CYCLES_THE_FAN and not f.is_cold_outside


def given(facts: Iterable[Facts], heard: Iterable[Testimony]) -> frozenset[str]:
    """Return the causes that are there by what was seen in one stage or several, and by what was heard beyond doubt; at most `MOST`."""
    spoken = [code for one in heard if one.beyond_doubt for code in one.causes]
    looked = [code for one in facts for code in seen_there(one)]
    return frozenset(tuple(dict.fromkeys((*spoken, *looked)))[:MOST])
