"""A circuit at rest: its pressure against saturation at the pipe's own temperature tells air, another gas, or too little to tell."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge import refrigerants
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.refrigerants import Refrigerant

# Gauge and clamp agree with the table within so much, psi and °F.
GAUGE_PSI: Final = 2.0
CLAMP_F: Final = 1.5
MOST_OTHERS: Final = 4


@dataclass(frozen=True)
class AtRest:
    """What stands against what should: psig due (bubble, dew), how far over, in words, and other gases that fit."""

    bubble_psig: float
    dew_psig: float
    over_psi: float
    says: str
    others: tuple[str, ...]


def resting_says(refrigerant: Refrigerant, altitude_ft: float, resting_psig: float, pipe_f: float, shown: ShownUnits = TRADE) -> AtRest:
    """Return what a resting pressure says, psig at the site, against saturation at the pipe where liquid lies, °F; InputError outside the
    table. A blend with liquid and gas at rest stands between its bubble and its dew point."""
    bubble, dew = refrigerant.bubble_psig(pipe_f, altitude_ft), refrigerant.dew_psig(pipe_f, altitude_ft)
    a_degree = refrigerant.bubble_psig(min(pipe_f + 1.0, refrigerant.high_f), altitude_ft) - bubble
    room = GAUGE_PSI + CLAMP_F * max(a_degree, 0.0)
    over = resting_psig - bubble if resting_psig > bubble else min(resting_psig - dew, 0.0)
    others = tuple(_others(refrigerant, altitude_ft, resting_psig, pipe_f, room)) if abs(over) > room else ()
    due = shown.text(bubble, "psig", 0)
    if abs(over) <= room:
        says = f"{due} is due: right, no air in it"
    elif over > 0:
        says = (
            f"{shown.text(over, 'psi', 0)} over the {due} due: air, or another gas in it. Let it stand with the condenser fan turning "
            "and read again; then the air out by the book, or recover, evacuate and weigh in. Never vented"
        )
    else:
        says = f"{shown.text(-over, 'psi', 0)} under the {due} due: not equalised yet, no liquid left in it, or another gas"
    return AtRest(bubble, dew, over, says, others)


def _others(refrigerant: Refrigerant, altitude_ft: float, resting_psig: float, pipe_f: float, room_psi: float) -> list[str]:
    found = []
    for name, other in refrigerants.catalogue().items():
        if name == refrigerant.name:
            continue
        try:
            low, high = other.dew_psig(pipe_f, altitude_ft), other.bubble_psig(pipe_f, altitude_ft)
        except InputError:
            continue
        if low - room_psi <= resting_psig <= high + room_psi:
            found.append((abs(resting_psig - (low + high) / 2.0), name))
    return [name for _, name in sorted(found)[:MOST_OTHERS]]
