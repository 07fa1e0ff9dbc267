"""Suction regulators: of the crankcase (closes on rise of its outlet), and of the evaporator (holds the coil)."""

from dataclasses import dataclass
from typing import Final

from kettle.benches.controls.pressure import usual_td_f
from kettle.knowledge.amps import expected_share_pct
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant

# A regulator that is to hold nothing back drops so little; one that holds the coil is right within so much, psi.
OPEN_DROP_PSI: Final = 2.0
RIGHT_WITHIN_PSI: Final = 3.0
COIL_F: Final = (-40.0, 60.0)
HIGHEST_SST_F: Final = 60.0
STEP_F: Final = 0.5


@dataclass(frozen=True)
class Told:
    """What a regulator does, and what to turn; `turn` is `open`, `close`, or empty."""

    says: str
    turn: str


def crankcase_psig(refrigerant: Refrigerant, altitude_ft: float, sct_f: float, freezer: bool) -> float:
    """Return the highest suction at which a compressor draws no more than its rated amps, at a condensing temperature °F; psig.

    By `kettle.knowledge.amps`: good to about a fifth, so watch the clamp.
    """
    sst = -40.0
    while sst < HIGHEST_SST_F and expected_share_pct(refrigerant, sst + STEP_F, sct_f, freezer) <= 100.0:
        sst += STEP_F
    return refrigerant.dew_psig(sst, altitude_ft)


def usual_coil_f(unit: Unit) -> float:
    """Return what an evaporator's regulator holds its coil at where nobody said: the set less the TD of the kind, °F."""
    return unit.set_f - usual_td_f(unit)


def coil_psig(refrigerant: Refrigerant, altitude_ft: float, coil_f: float) -> float:
    """Return what an evaporator's regulator has to hold for a coil temperature, °F; FieldErrors outside what coils have."""
    if not COIL_F[0] <= coil_f <= COIL_F[1]:
        low, high = (format_number(end, 0) for end in COIL_F)
        raise FieldErrors({"coil_f": f"Coil: {format_number(coil_f)} °F is outside {low} to {high} °F"})
    return refrigerant.dew_psig(coil_f, altitude_ft)


def regulator_says(kind: str, before_psig: float, after_psig: float, wanted_psig: float) -> Told:
    """Return what a regulator does by the pressures before and behind it: `crankcase` is set by what is behind, `evaporator` by before.

    One turn at a time, and wait ten minutes between.
    """
    if after_psig > before_psig + OPEN_DROP_PSI:
        return Told("Behind it is more than before it: gauges exchanged, or not the same gauge", "")
    drop = before_psig - after_psig
    seen = after_psig if kind == "crankcase" else before_psig
    off = seen - wanted_psig
    figure = f"{format_number(seen, 0)} psig against {format_number(wanted_psig, 0)}"
    if abs(off) <= RIGHT_WITHIN_PSI:
        return Told(f"{figure}: right", "")
    if kind == "crankcase":
        if off > 0:
            return Told(f"{figure}: too far open, rated amps are passed in a pull-down. One turn towards closed", "close")
        if drop <= OPEN_DROP_PSI:
            return Told(f"{figure}: fully open, it holds nothing back", "")
        return Told(f"{figure}: shut too far, the box pulls down slowly. One turn towards open", "open")
    if off > 0:
        return Told(f"{figure}: shut too far, the coil is too warm. One turn towards open", "open")
    if drop <= OPEN_DROP_PSI:
        return Told(f"{figure}: too far open, the coil is too cold. One turn towards closed", "close")
    return Told(
        f"{figure} with {format_number(drop, 0)} psi over it: the load is small, or it is set too low. One turn towards closed", "close"
    )
