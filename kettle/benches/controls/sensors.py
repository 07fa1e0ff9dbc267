"""Temperature sensors by their ohms: the common curves, what a sensor shows against a thermometer, and what to do.

NTC: R = R25 · exp(β · (1/T − 1/298.15 K)). Platinum: R = R0 · (1 + a·t + b·t²), IEC 60751. PTC (silicon, 1 kΩ at 25 °C): the same form
round 25 °C.
"""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number, ohms_text

KELVIN: Final = 273.15
T25_K: Final = 298.15
PT_A, PT_B = 3.9083e-3, -5.775e-7
# Silicon PTC, per °C and °C² from 25 °C on.
PTC_A, PTC_B = 7.88e-3, 1.937e-5
RANGE_F: Final = (-60.0, 260.0)
# A sensor off by less than this may stay; open and shorted, as a share of the ohms its range has.
MAY_STAY_F: Final = 1.0
# A reading that moved by this much when a probe was warmed in the hand is that probe's, °F.
MOVED_F: Final = 4.0


def _c(temperature_f: float) -> float:
    return (temperature_f - 32.0) / 1.8


def _ntc(r25: float, beta: float) -> Callable[[float], float]:
    return lambda f: r25 * math.exp(beta * (1.0 / (_c(f) + KELVIN) - 1.0 / T25_K))


def _platinum(r0: float) -> Callable[[float], float]:
    return lambda f: r0 * (1.0 + PT_A * _c(f) + PT_B * _c(f) ** 2)


def _ptc(r25: float) -> Callable[[float], float]:
    return lambda f: r25 * (1.0 + PTC_A * (_c(f) - 25.0) + PTC_B * (_c(f) - 25.0) ** 2)


@dataclass(frozen=True)
class Curve:
    """A sensor's curve: what it is called, and its ohms at a temperature in °F."""

    label: str
    ohm_at: Callable[[float], float]


CURVES: Final[dict[str, Curve]] = {
    "ntc10k_3435": Curve("NTC 10 kΩ, β 3435", _ntc(10_000.0, 3435.0)),
    "ntc10k_3977": Curve("NTC 10 kΩ, β 3977", _ntc(10_000.0, 3977.0)),
    "ntc5k_3470": Curve("NTC 5 kΩ, β 3470", _ntc(5_000.0, 3470.0)),
    "ntc5k_3977": Curve("NTC 5 kΩ, β 3977", _ntc(5_000.0, 3977.0)),
    "ptc1k": Curve("PTC 1 kΩ", _ptc(1_000.0)),
    "pt100": Curve("platinum 100 Ω", _platinum(100.0)),
    "pt1000": Curve("platinum 1000 Ω", _platinum(1_000.0)),
}


def _curve(code: str) -> Curve:
    if code not in CURVES:
        raise InputError(f"Sensor: “{code[:20]}” is none of {', '.join(one.label for one in CURVES.values())}")
    return CURVES[code]


def ohm_at(code: str, temperature_f: float) -> float:
    """Return the ohms of a sensor at a temperature, °F; InputError outside what such sensors are for."""
    if not RANGE_F[0] <= temperature_f <= RANGE_F[1]:
        raise InputError(f"Temperature: {format_number(temperature_f)} °F is outside {RANGE_F[0]:.0f} to {RANGE_F[1]:.0f} °F")
    return _curve(code).ohm_at(temperature_f)


def f_of(code: str, ohm: float) -> float:
    """Return the temperature of a sensor by its ohms, °F; InputError for ohms that its range does not have."""
    curve = _curve(code)
    low, high = RANGE_F
    ends = sorted((curve.ohm_at(low), curve.ohm_at(high)))
    if not ends[0] <= ohm <= ends[1]:
        raise InputError(
            f"Sensor: {ohms_text(ohm)} is outside {ohms_text(ends[0])} to {ohms_text(ends[1])}: open, shorted, or another curve"
        )
    falls = curve.ohm_at(high) < curve.ohm_at(low)
    for _ in range(60):
        middle = (low + high) / 2.0
        if (curve.ohm_at(middle) > ohm) == falls:
            low = middle
        else:
            high = middle
    return (low + high) / 2.0


def judged(code: str, ohm: float, really_f: float) -> str:
    """Return what a sensor's ohms say beside a thermometer (°F; ice water is 32 °F), in words."""
    right, shows = ohm_at(code, really_f), f_of(code, ohm)
    off = shows - really_f
    words = f"{ohms_text(ohm)} is {format_number(shows, 1)} °F; {ohms_text(right)} would be right"
    if abs(off) <= MAY_STAY_F:
        return f"{words}: good"
    other = next((curve.label for name, curve in CURVES.items() if name != code and _fits(name, ohm, really_f)), "")
    hint = f". It fits {other}: another sensor than the controller is set to?" if other else ": set it off by that, or replace it"
    return f"{words}, {format_number(abs(off), 1)} °F {'too warm' if off > 0 else 'too cold'}{hint}"


def _fits(code: str, ohm: float, really_f: float) -> bool:
    try:
        return abs(f_of(code, ohm) - really_f) <= MAY_STAY_F
    except InputError:
        return False


def moved(warmed: str, before: Mapping[str, float], after: Mapping[str, float]) -> str:
    """Return which reading belongs to the probe that was warmed, by what each showed before and after, °F; in words.

    InputError where nothing was read twice.
    """
    rose = {name: after[name] - before[name] for name in before if name in after}
    if not rose:
        raise InputError("Warmed: read at least one display before and after")
    most = max(rose, key=lambda name: rose[name])
    others = [name for name in rose if name != most and rose[name] >= MOVED_F]
    if rose[most] < MOVED_F:
        return "Nothing moved: warm it longer, or its wire is open, or it goes to another controller"
    figure = f"{most} rose by {format_number(rose[most])} °F"
    if others:
        return f"{figure}, and {' and '.join(others)} too: hold the one probe alone, and again"
    if most == warmed:
        return f"{figure}: the probe is where it belongs"
    return f"{figure} when {warmed} was warmed: they are exchanged. Swap the two at the controller, or give each its role"
