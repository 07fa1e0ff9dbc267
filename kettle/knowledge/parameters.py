"""The generic parameter roles of controllers and pressure controls, as a table."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits


@dataclass(frozen=True)
class Parameter:
    """One setting: role, what it is called, unit and range; `text` marks a setting that is a word.

    `act` is what changing it is done to (part, word), `observed` the observation that it is too, `plate` the field of the unit it sets
    (a set point sets none: a dial that is off is set to what makes the box right).
    """

    code: str
    label: str
    unit: str = ""
    low: float = 0.0
    high: float = 0.0
    text: bool = False
    act: tuple[str, str] = ("parameters", "changed")
    observed: str = ""
    plate: str = ""

    def parse(self, typed: str, side: str, shown: ShownUnits = TRADE) -> str:
        """Return a typed setting as it is stored, in words with the unit it was read in; InputError names side, value, range and unit."""
        typed = typed.strip()
        if not typed:
            raise InputError(f"{side}: write what it was; nothing may be changed that was not read first")
        if self.text:
            if len(typed) > 60:
                raise InputError(f"{side}: at most 60 letters")
            return typed
        try:
            value = shown.parse(typed, self.unit)
        except InputError as error:
            raise InputError(f"{side}: {error}; allowed {shown.span(self.low, self.high, self.unit)}") from None
        if not self.low <= value <= self.high:
            told, allowed = shown.text(value, self.unit, int(value != int(value))), shown.span(self.low, self.high, self.unit)
            raise InputError(f"{side}: {told} is outside {allowed}")
        return f"{shown.figure(value, self.unit, 0 if value == int(value) else 1)} {shown.label(self.unit)}".strip()


_STAT: Final = ("thermostat", "adjusted")
_TIMER: Final = ("timer", "set")
_PRESSURE: Final = ("pressure_control", "adjusted")
# fmt: off
PARAMETERS: Final[dict[str, Parameter]] = {p.code: p for p in (
    Parameter("set_point", "Set point", "°F", -60, 80, act=_STAT),
    Parameter("differential", "Differential", "°F diff", 0.5, 30, act=_STAT, plate="differential_f"),
    Parameter("target_superheat", "Target superheat", "°F diff", 2, 30),
    Parameter("defrosts_per_day", "Defrosts", "a day", 0, 48, act=_TIMER, observed="defrosts_per_day"),
    Parameter("fail_safe", "Defrost fail-safe", "min", 0, 240, act=_TIMER, observed="defrost_set_min"),
    Parameter("termination", "Defrost termination", "°F", 20, 120, act=_TIMER, observed="termination_f"),
    Parameter("drip", "Drip time", "min", 0, 60, act=_TIMER),
    Parameter("fan_delay", "Fan delay", "°F", -40, 60, act=_TIMER),
    Parameter("demand", "Defrost on demand", "%", 0, 100, act=_TIMER),
    Parameter("lp_cut_in", "Low-pressure cut-in", "psig", -14.7, 250, act=_PRESSURE, observed="lp_cut_in_psig"),
    Parameter("lp_cut_out", "Low-pressure cut-out", "psig", -14.7, 250, act=_PRESSURE, observed="lp_cut_out_psig"),
    Parameter("hp_cut_out", "High-pressure cut-out", "psig", 50, 650, act=_PRESSURE),
    Parameter("fan_cycling_cut_in", "Fan cycling cut-in", "psig", 20, 500, act=("head_control", "adjusted")),
    Parameter("alarm_high", "High alarm offset", "°F diff", 0, 60),
    Parameter("alarm_low", "Low alarm offset", "°F diff", 0, 60),
    Parameter("alarm_delay", "Alarm delay", "min", 0, 240),
    Parameter("anti_short_cycle", "Anti-short-cycle delay", "min", 0, 30),
    Parameter("starts_per_hour", "Most starts an hour", "an hour", 0, 60),
    Parameter("refrigerant", "Refrigerant chosen", text=True),
    Parameter("unit_type", "Unit type", text=True),
    Parameter("interlock", "Wired interlock", text=True, act=("parameters", "interlock_set")),
    Parameter("probe_role", "Probe role", text=True, act=("sensor", "swapped_back")),
    Parameter("service_mode", "Service mode", text=True, act=("", "")),
    Parameter("other", "Something else", text=True, act=("", "")),
)}
# fmt: on


def get(code: str) -> Parameter:
    """Return a parameter by its role; InputError if there is none."""
    if code not in PARAMETERS:
        raise InputError(f"Setting: “{code[:40]}” is not one of the list")
    return PARAMETERS[code]
