"""Readings that cannot be right as they stand, each said once and in words."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from kettle import other_refrigerant
from kettle.bands import IMPOSSIBLE_SUPERHEAT_F, SUPERHEATS
from kettle.facts import Facts
from kettle.units import atmosphere_psia

CONTACT_ERROR_F: Final = 3.0


@dataclass(frozen=True)
class Problem:
    """A reading to resolve: code of the case format, the observations it concerns, and what to do in words."""

    code: str
    keys: tuple[str, ...]
    text: str


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


_RULES: Final[tuple[Callable[[Facts], list[Problem]], ...]] = (
    _negative_superheat,
    _impossible_pressure,
    _wrong_refrigerant,
    _vacuum,
    _sensor_disagrees,
)


def found(facts: Facts) -> list[Problem]:
    """Return every problem among the readings, gravest first."""
    return [problem for rule in _RULES for problem in rule(facts)]
