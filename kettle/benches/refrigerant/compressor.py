"""A compressor: whether it pumps, and what it should do by the maker's ten coefficients."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.unit import Unit
from kettle.knowledge.units import TRADE, ShownUnits, format_number

# A sound one pulls this far below its usual suction and does not come back by more in five minutes, psi.
PULLS_PSIG: Final = {False: 0.0, True: -7.0}
RISES_PSI: Final = 5.0
COEFFICIENTS: Final = 10


@dataclass(frozen=True)
class Pumped:
    """What a pumping test says: whether it is good, in words."""

    good: bool
    says: str


def pumping(unit: Unit, lowest_psig: float, rise_psi: float, shown: ShownUnits = TRADE) -> Pumped:
    """Return what the lowest suction reached and the rise in five minutes say of a compressor, psig and psi.

    Rules of the trade: a cooler's pulls below 0 psig, a freezer's to about 15 inches; it comes back slowly where valves and rings hold. A
    liquid valve that leaks brings it back too.
    """
    least = PULLS_PSIG[unit.kind.freezer]
    told, back = shown.text(lowest_psig, "psig", 0), shown.text(rise_psi, "psi", 0)
    if lowest_psig > least:
        return Pumped(False, f"It pulls to {told} only, {shown.text(least, 'psig', 0)} is due: valves, rings, or gas that comes past the "
                             "liquid valve")  # fmt: skip
    if rise_psi > RISES_PSI:
        return Pumped(False, f"It pulls to {told} but comes back by {back} in five minutes: valves, or the liquid valve leaks. Shut the "
                             "discharge service valve and look again")  # fmt: skip
    return Pumped(True, f"It pulls to {told} and comes back by {back}: it pumps")


def by_maker(coefficients: Sequence[float], sst_f: float, sct_f: float) -> float:
    """Return a compressor's capacity, power, amps or flow by ten coefficients (AHRI 540).

    C1 + C2 S + C3 D + C4 S² + C5 S D + C6 D² + C7 S³ + C8 D S² + C9 S D² + C10 D³, S and D evaporating and condensing dew temperature °F.
    FieldErrors for another count.
    """
    if len(coefficients) != COEFFICIENTS:
        raise FieldErrors({"coefficients": f"Coefficients: {len(coefficients)} given, ten are the maker's"})
    s, d = sst_f, sct_f
    terms = (1.0, s, d, s * s, s * d, d * d, s**3, d * s * s, s * d * d, d**3)
    return float(sum(c * term for c, term in zip(coefficients, terms, strict=True)))


def against(due: float, now: float, what: str) -> str:
    """Return how a measured figure stands to the maker's, in words."""
    pct = 100.0 * now / due
    return f"{what}: {format_number(now)} of {format_number(due)}, {format_number(pct, 0)} %"
