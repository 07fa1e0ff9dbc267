"""Settings of a simulated unit's controls: what each parameter of the list is in the plant, read and set."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import psia_to_psig, psig_to_psia
from kettle.plant.observer.rig import Rig


@dataclass(frozen=True)
class Setting:
    """A figure of the plant's parts and how a scale shows it: `shown` from the figure, `stored` back to it."""

    part: str
    shown: Callable[[Rig, float], float] = lambda rig, value: value
    stored: Callable[[Rig, float], float] = lambda rig, value: value


def _times(factor: float) -> tuple[Callable[[Rig, float], float], Callable[[Rig, float], float]]:
    return (lambda rig, value: value * factor), (lambda rig, value: value / factor)


_GAUGE: Final = (
    lambda rig, value: psia_to_psig(value, rig.unit.altitude_ft), lambda rig, value: psig_to_psia(value, rig.unit.altitude_ft)
)  # fmt: skip
HEATED: Final = ("electric", "hot_gas")
# By the code of the parameter (`kettle/knowledge/parameters.py`); what is not here is on no simulated unit.
SETTINGS: Final[dict[str, Setting]] = {
    "set_point": Setting("set_f"), "differential": Setting("differential_f"), "target_superheat": Setting("superheat_set_f"),
    "defrosts_per_day": Setting("defrosts_per_day"), "fail_safe": Setting("fail_safe_min"), "termination": Setting("termination_f"),
    "drip": Setting("drip_min"), "fan_delay": Setting("fan_delay_f"), "pump_down": Setting("pump_down_min"),
    "demand": Setting("demand_share", *_times(100.0)), "anti_short_cycle": Setting("least_off_h", *_times(60.0)),
    "lp_cut_in": Setting("lp_in_psia", *_GAUGE), "lp_cut_out": Setting("lp_out_psia", *_GAUGE),
    "hp_cut_out": Setting("hp_out_psia", *_GAUGE),
}  # fmt: skip
# What a program is made of: setting one figure of it leaves the others as they were found.
PROGRAM: Final = ("defrosts_per_day", "fail_safe", "termination", "drip", "fan_delay", "pump_down", "demand")


def setting(rig: Rig, code: str) -> float | None:
    """Return where a setting stands, in the unit of its parameter; None for one this unit has not, InputError for one not simulated.

    A figure of zero pressure or a time that never comes is a switch or a delay that is not there.
    """
    if code not in SETTINGS:
        raise InputError(f"“{code[:30]}” cannot be read on a practice unit; {', '.join(SETTINGS)} can")
    one = SETTINGS[code]
    value = float(rig.parts[one.part])
    if code == "set_point" and rig.own.get("stat_turned_down") == "yes":
        value = rig.dial_f
    if code.startswith("lp_") and value <= 0 or (code == "fan_delay" and rig.unit.defrost not in HEATED):
        return None
    return one.shown(rig, value)


def set_to(rig: Rig, code: str, value: float) -> None:
    """Set a parameter to a value in its unit; InputError for one that is not simulated."""
    if code not in SETTINGS:
        raise InputError(f"“{code[:30]}” cannot be set on a practice unit; {', '.join(SETTINGS)} can")
    if code in PROGRAM:
        for other in PROGRAM:
            rig.found.setdefault(SETTINGS[other].part, float(rig.parts[SETTINGS[other].part]))
    part = SETTINGS[code].part
    rig.found.pop(part, None)
    rig.left[part] = SETTINGS[code].stored(rig, value)
    rig.rebuild()
