"""Where a practice unit leaks, and what a detector gives at a place of it."""

import random

from kettle.benches.refrigerant.leaks import places_on
from kettle.plant.observer import Rig
from kettle.yard.drawn import Draw

# The places at which the oil of a leak shows, by the word of *Oil trace*.
BY_OIL = {"at_valve_stem": "caps", "at_fitting": "flares", "at_coil": "coil_joints"}
LEAKS = ("undercharge",)


def leaks_at(draw: Draw, rig: Rig) -> str:
    """Return the code of the place a drawn unit leaks at; empty where it does not leak."""
    if not set(LEAKS) & set(draw.codes):
        return ""
    oil = BY_OIL.get(str(rig.look("oil_trace")), "")
    places = places_on(rig.unit)
    if oil in {one.code for one in places}:
        return oil
    return random.Random(f"leak {draw.number}").choices(places, [one.weight for one in places])[0].code


def heard_at(draw: Draw, rig: Rig, place: str, by: str = "detector") -> str:
    """Return what a place gives, a word of `leaks.HEARD`: to the detector, both times over, or to soap `by` bubbles.

    Nothing is heard where the gas is out, or another place leaks.
    """
    there = place == leaks_at(draw, rig)
    return "no" if not there else "bubbles" if by == "bubbles" else "twice"
