"""The circuit of a practice unit while it is open or empty: what comes out of it, what a vacuum gauge shows, what nitrogen does in it.

Rates are judgement of the trade: a pump that suits the unit, a dry circuit, a leak that a season took to show.
"""

import math
from typing import Final

from kettle.knowledge.measures import atmosphere_psia
from kettle.knowledge.refrigerants.line import RANKINE
from kettle.yard.practice import Practice

# A circuit with less than this share of its charge holds no gas worth speaking of.
EMPTY_SHARE: Final = 0.08
ATMOSPHERE_MICRONS: Final = 760_000.0
# A pump takes the pressure down to its e-th part in so many minutes, and comes no lower than this, microns.
PUMP_MIN: Final = 4.0
LOWEST_MICRONS: Final = 220.0
# Shut off, a dry and tight circuit rises by so much in all; one that leaks by so much a minute.
RISES_MICRONS: Final = 180.0
RISES_MIN: Final = 8.0
LEAKS_MICRONS_MIN: Final = 450.0
# Of nitrogen a leak loses so much of its gauge pressure an hour.
LEAKS_SHARE_H: Final = 0.04
OZ_PER_LB: Final = 16.0


def leaks(practice: Practice) -> bool:
    """Return whether gas still gets out: it was short of it, and nobody repaired the leak."""
    return "undercharge" in practice.draw.codes and not any((one.part, one.did) == ("leak", "repaired") for one in practice.done)


def holds_oz(practice: Practice) -> float:
    """Return how much gas can be recovered, oz; 0 where next to none is in it."""
    inside = float(practice.rig.parts.charge_lb)
    sound = practice.sound_charge_lb
    return inside * OZ_PER_LB if inside > EMPTY_SHARE * sound else 0.0


def pumped_microns(minutes: float, begun_at: float = ATMOSPHERE_MICRONS, tight: bool = True) -> float:
    """Return microns after a pump ran so many minutes on a circuit that stood at so many: an exponential towards its lowest.

    One that leaks does not come down to where a tight one does.
    """
    lowest = LOWEST_MICRONS if tight else LOWEST_MICRONS + LEAKS_MICRONS_MIN * PUMP_MIN
    return lowest + max(begun_at - lowest, 0.0) * math.exp(-minutes / PUMP_MIN)


def shut_off_microns(minutes: float, begun_at: float, tight: bool = True) -> float:
    """Return microns so many minutes after the pump was shut off: a little moisture boils off and it stands, or it climbs straight on."""
    if tight:
        return begun_at + RISES_MICRONS * (1.0 - math.exp(-minutes / RISES_MIN))
    return min(begun_at + LEAKS_MICRONS_MIN * minutes, ATMOSPHERE_MICRONS)


def stood_psig(start_psig: float, start_f: float, now_f: float, minutes: float, tight: bool, altitude_ft: float = 0.0) -> float:
    """Return what nitrogen stands at after so many minutes, psig, from its pressure (psig) and temperature (°F) at the start.

    Ideal gas at constant volume, as the bench reads it; a leak loses a share of it.
    """
    air = atmosphere_psia(altitude_ft)
    due = (start_psig + air) * (now_f + RANKINE) / (start_f + RANKINE) - air
    return due if tight else max(due - start_psig * LEAKS_SHARE_H * minutes / 60.0, 0.0)
