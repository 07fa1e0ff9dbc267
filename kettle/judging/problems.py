"""Readings that cannot be right as they stand, each said once and in words."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Final

from kettle.judging import other_refrigerant
from kettle.judging.electrics import THIRD_LEG
from kettle.judging.facts import Facts
from kettle.judging.verdicts import IMPOSSIBLE_SUPERHEAT_F
from kettle.knowledge import observations
from kettle.knowledge.bands import SUPERHEATS, default_band
from kettle.knowledge.measures import atmosphere_psia

CONTACT_ERROR_F: Final = 3.0
# A sign turned round is only looked for where it makes a difference.
SIGN_MATTERS_F: Final = 4.0


@dataclass(frozen=True)
class Problem:
    """A reading to resolve: code of the case format, the observations it concerns, and what to do in words.

    `spoils` where these readings contradict each other, so that nothing resting on them is trusted.
    """

    code: str
    keys: tuple[str, ...]
    text: str
    spoils: bool = False


def _negative_superheat(f: Facts) -> list[Problem]:
    lines = {"superheat_evap_f": "suction_line_evap_f", "superheat_comp_f": "suction_line_comp_f"}
    return [
        Problem(
            "negative_superheat",
            (lines[key], "suction_psig"),
            f"Superheat works out at {f.shown.text(f.derived[key], '°F diff')}, which cannot be. Liquid is at the probe and a "
            "reading is off: check the refrigerant chosen, the probe's contact, the minus sign and the gauge zero",
        )
        for key in SUPERHEATS
        if f.derived.get(key, 0.0) < IMPOSSIBLE_SUPERHEAT_F
    ]


def _running(f: Facts) -> bool:
    return not f.is_("compressor", "off", "humming", "tripping")


def _impossible_pressure(f: Facts) -> list[Problem]:
    found = []
    suction, discharge = f.number("suction_psig"), f.number("discharge_psig")
    floor = -atmosphere_psia(f.unit.altitude_ft)
    for key, label, value in (("suction_psig", "Suction", suction), ("discharge_psig", "Discharge", discharge)):
        if value is None:
            continue
        if value < floor:
            text = f"{label} {f.shown.text(value, 'psig')} is below a full vacuum here ({f.shown.text(floor, 'psig')})"
            found.append(Problem("impossible_pressure", (key,), text))
        elif value > 0 and ("sst_f" if key == "suction_psig" else "sct_f") not in f.derived:
            text = f"{label} {f.shown.text(value, 'psig')} is outside what {f.unit.refrigerant.name} shows in service"
            found.append(Problem("impossible_pressure", (key,), text))
    if suction is not None and discharge is not None and _running(f) and discharge <= suction:
        text = "Discharge is not above suction with the compressor running: are the hoses the right way round?"
        found.append(Problem("impossible_pressure", ("suction_psig", "discharge_psig"), text))
    if _running(f) and f.derived.get("td_f", 0.0) < -CONTACT_ERROR_F:
        text = (
            f"The coil would be {f.shown.text(-f.derived['td_f'], '°F diff')} warmer than its air with the compressor running: "
            "check the refrigerant chosen, the gauge and the box reading"
        )
        found.append(Problem("impossible_pressure", ("suction_psig",), text))
    if _running(f) and f.derived.get("split_f", 0.0) < -CONTACT_ERROR_F:
        text = (
            f"The condenser would be {f.shown.text(-f.derived['split_f'], '°F diff')} colder than its air with the compressor "
            "running: check the refrigerant chosen, the gauge and the air reading"
        )
        found.append(Problem("impossible_pressure", ("discharge_psig",), text))
    return found


@dataclass(frozen=True)
class Conflict:
    """Two readings that cannot both be right: the observations, what contradicts, and when it does."""

    keys: tuple[str, ...]
    text: str
    applies: Callable[[Facts], bool]


def _colder_by(f: Facts, one: str, other: str, by_f: float) -> bool:
    """Whether one temperature lies below another by more than both can be wrong."""
    low, high = f.derived.get(one, f.number(one)), f.derived.get(other, f.number(other))
    return low is not None and high is not None and high - low > by_f


def _above(f: Facts, key: str, limit: float) -> bool:
    """Whether an observed figure is there and above a limit."""
    value = f.number(key)
    return value is not None and value > limit


def _not_below(f: Facts, lower: str, upper: str) -> bool:
    """Whether a figure that must lie below another does not."""
    low, high = f.number(lower), f.number(upper)
    return low is not None and high is not None and low >= high


# fmt: off
CONFLICTS: Final = (
    Conflict(("liquid_line_f", "ambient_f"), "The liquid line reads colder than the air that cools it",
             lambda f: f.unit.condensing == "air" and _running(f) and _colder_by(f, "liquid_line_f", "ambient_f", 6.0)),
    Conflict(("liquid_line_f", "discharge_psig"), "The liquid line reads hotter than the refrigerant can condense at",
             lambda f: f.derived.get("subcooling_f", 0.0) < -8.0),
    Conflict(("suction_line_comp_f", "suction_line_evap_f"), "The suction line reads colder at the compressor than at the coil",
             lambda f: f.derived.get("line_gain_f", 0.0) < -6.0),
    Conflict(("supply_air_f", "return_air_f"), "Air leaves the coil warmer than it enters, with fans and compressor running",
             lambda f: f.is_("evap_fans", "running") and f.is_("compressor", "running") and f.derived.get("delta_t_f", 0.0) < -3.0),
    Conflict(("discharge_line_f", "discharge_psig"), "The discharge line reads colder than the refrigerant condenses at",
             lambda f: f.is_("compressor", "running") and _colder_by(f, "discharge_line_f", "sct_f", 8.0)),
    Conflict(("box_temp_f", "return_air_f"), "Box air and return air lie far apart",
             lambda f: _colder_by(f, "box_temp_f", "return_air_f", 15.0) or _colder_by(f, "return_air_f", "box_temp_f", 15.0)),
    Conflict(("compressor", "compressor_amps"), "The compressor is said to be off and draws amps",
             lambda f: f.is_("compressor", "off") and _above(f, "compressor_amps", 1.0)),
    Conflict(("compressor", "contactor"), "The compressor is said to run with its contactor dropped out",
             lambda f: f.is_("compressor", "running") and f.is_("contactor", "out")),
    Conflict(("receiver_level_pct", "sight_glass"), "The receiver is said to be empty behind a clear glass",
             lambda f: f.is_("sight_glass", "clear") and "receiver_level_pct" in f.seen and not _above(f, "receiver_level_pct", 3.0)),
    Conflict(("evap_fans", "fans_still"), "All coil fans are said to run, and some to stand still",
             lambda f: f.is_("evap_fans", "running") and "fans_still" in f.seen and not f.is_("fans_still", "none")),
    Conflict(("water_out_f", "water_in_f"), "The water leaves the condenser colder than it enters, with the compressor running",
             lambda f: _running(f) and f.derived.get("rise_f", 0.0) < -2.0),
)
# fmt: on


def _conflicts(f: Facts) -> list[Problem]:
    return [
        Problem("readings_conflict", rule.keys, f"{rule.text}: one of the two is off. Neither counts until it is resolved", spoils=True)
        for rule in CONFLICTS
        if rule.applies(f)
    ]


def _reversed_sign(f: Facts) -> list[Problem]:
    """A line whose sign, turned round, would give a sound superheat where it now gives an impossible or a wild one."""
    found = []
    sst = f.derived.get("sst_f")
    for quantity, line in (("superheat_evap_f", "suction_line_evap_f"), ("superheat_comp_f", "suction_line_comp_f")):
        value, superheat = f.number(line), f.derived.get(quantity)
        band = default_band(f.unit, quantity)
        if value is None or superheat is None or sst is None or band is None or abs(value) < SIGN_MATTERS_F:
            continue
        turned = -value - sst
        # A starved coil is warm too, but never warmer than its air.
        air = f.number("return_air_f") if f.number("return_air_f") is not None else f.number("box_temp_f")
        too_warm = quantity == "superheat_evap_f" and air is not None and value > air + SIGN_MATTERS_F
        if (superheat < IMPOSSIBLE_SUPERHEAT_F or too_warm) and band[0] - 2 <= turned <= band[1] + 2:
            label = observations.get(line).on(f.unit).label
            text = (
                f"{label} {f.shown.text(value, '°F')} gives a superheat of {f.shown.text(superheat, '°F diff')}; with the sign the "
                f"other way round it would be {f.shown.text(turned, '°F diff')}. Is the sign right?"
            )
            found.append(Problem("reversed_sign", (line,), text))
    return found


def _wrong_refrigerant(f: Facts) -> list[Problem]:
    found = other_refrigerant.suspicion(f)
    if found is None:
        return []
    others = " or ".join(found.names)
    if found.by == "rest":
        text = (
            f"At rest the pressure does not fit {f.unit.refrigerant.name}; it fits {others}. Check plate, sticker and "
            "cylinder records; a pressure that is too high can also be air in the system"
        )
    else:
        text = (
            f"Both sides fit {others} far better than {f.unit.refrigerant.name}: check plate, sticker, cylinder records and "
            "the refrigerant chosen here before judging anything"
        )
    return [Problem("wrong_refrigerant_suspected", found.keys, text)]


def _vacuum(f: Facts) -> list[Problem]:
    suction = f.number("suction_psig")
    if suction is None or not -atmosphere_psia(f.unit.altitude_ft) <= suction < 0:
        return []
    text = f"Suction is in vacuum, {f.shown.text(suction, 'psig')}: a leak would draw air in. Find out why before it runs on"
    return [Problem("vacuum", ("suction_psig",), text)]


def _sensor_disagrees(f: Facts) -> list[Problem]:
    display, own = f.number("display_temp_f"), f.number("box_temp_f")
    if display is None or own is None or abs(display - own) <= CONTACT_ERROR_F:
        return []
    text = f"The display is {f.shown.text(display - own, '°F diff')} off your own thermometer: the control works by the display"
    return [Problem("sensor_disagrees", ("display_temp_f", "box_temp_f"), text)]


def _cut_out_above(f: Facts) -> list[Problem]:
    """A control whose cut-out is not below its cut-in: it could never run."""
    pairs = (("lp_cut_out_psig", "lp_cut_in_psig", "pressure control"), ("stat_cut_out_f", "stat_cut_in_f", "thermostat"))
    return [
        Problem("readings_conflict", (low, high), f"The {what} would cut out at or above its cut-in: read both ends again")
        for low, high, what in pairs
        if _not_below(f, low, high)
    ]


def _third_leg(f: Facts) -> list[Problem]:
    """Volts of a third leg on a unit whose plate is of one phase, or not known."""
    keys = tuple(key for key in THIRD_LEG if key in f.seen)
    if not keys or f.unit.phases == 3:
        return []
    plate = "the plate's phases are not known, so that" if "phases" in f.unit.assumed else "the plate says one phase:"
    text = f"A third leg was read, and {plate} circuit and balance are of one phase. Put the phases right on the unit's plate"
    return [Problem("phases_differ", keys, text)]


_RULES: Final[tuple[Callable[[Facts], list[Problem]], ...]] = (
    _reversed_sign,
    _negative_superheat,
    _impossible_pressure,
    _wrong_refrigerant,
    _conflicts,
    _cut_out_above,
    _vacuum,
    _sensor_disagrees,
    _third_leg,
)


# A problem that is no question any more once a cause is there beyond doubt: it is that cause.
IS_THE_CAUSE: Final = {"sensor_disagrees": "stat_calibration"}


def to_resolve(problems: Iterable[Problem], given: frozenset[str]) -> tuple[Problem, ...]:
    """Return the problems that are still a question beside the causes that are there beyond doubt."""
    return tuple(one for one in problems if IS_THE_CAUSE.get(one.code) not in given)


def found(facts: Facts) -> list[Problem]:
    """Return every problem among the readings, gravest first."""
    return [problem for rule in _RULES for problem in rule(facts)]
