"""A capacitor by its microfarads: against its print, or by amps and volts while it works; and what unequal legs do to a motor."""

import math
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number

MOST_UF: Final = 2000.0
FREQUENCIES: Final = (50, 60)
# A motor's extra heat, % over its usual rise, by volts imbalance in % (NEMA MG 1: about twice its square), and the limit in %.
HEAT_PER_SQUARE: Final = 2.0
IMBALANCE_LIMIT_PCT: Final = 2.0


@dataclass(frozen=True)
class Capacitor:
    """A capacitor's microfarads, where it may lie, and what that says."""

    uf: float
    low_uf: float
    high_uf: float
    sound: bool
    says: str


def uf_of(amps: float, volts: float, hz: int = 60) -> float:
    """Return the microfarads of a capacitor by the amps through it and the volts over it: 10⁶ · A ÷ (2π · f · V).

    At 60 Hz 2652 · A ÷ V, at 50 Hz 3183 · A ÷ V. Raises InputError for volts or amps not above zero, or another frequency.
    """
    if hz not in FREQUENCIES:
        raise InputError(f"{hz} Hz: a supply here has 50 or 60 Hz")
    if not (0.0 < amps <= 200.0 and 0.0 < volts <= 1000.0):
        raise InputError("Capacitor: above 0 to 200 A, and above 0 to 1000 V")
    return 1e6 * amps / (2.0 * math.pi * hz * volts)


def judged(uf: float, printed_uf: float, minus_pct: float, plus_pct: float) -> Capacitor:
    """Return a capacitor's microfarads against its print and tolerance (minus and plus, % of the print); InputError for what cannot be."""
    if not (0.0 < printed_uf <= MOST_UF and 0.0 <= uf <= MOST_UF):
        raise InputError(f"Capacitor: above 0 to {MOST_UF:g} µF")
    if not (0.0 <= minus_pct <= 50.0 and 0.0 <= plus_pct <= 100.0):
        raise InputError("Tolerance: 0 to 50 % below and 0 to 100 % above the print")
    low, high = printed_uf * (1.0 - minus_pct / 100.0), printed_uf * (1.0 + plus_pct / 100.0)
    where = "weak, replace it" if uf < low else "over its print: the wrong one, or the meter" if uf > high else "good"
    span = f"{format_number(low, 1)} to {format_number(high, 1)} µF"
    return Capacitor(uf, low, high, low <= uf <= high, f"{format_number(uf, 1)} µF against {span}: {where}")


def extra_heat_pct(imbalance_pct: float) -> float:
    """Return by how much hotter a three-phase motor's windings run, % of their rise, at a volts imbalance in %: 2 · imbalance².

    InputError outside 0 to 100 %. Source: NEMA MG 1, the rule of the trade for unbalanced volts.
    """
    if not 0.0 <= imbalance_pct <= 100.0:
        raise InputError(f"Imbalance: {format_number(imbalance_pct)} % is outside 0 to 100 %")
    return HEAT_PER_SQUARE * imbalance_pct**2
