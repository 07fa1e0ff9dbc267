"""What is put on the circuit of a practice unit for the time being: which part is meant, what it does to it, what it may not be put on."""

from difflib import get_close_matches
from typing import Final

from kettle.electrical.circuit import Circuit
from kettle.knowledge.errors import InputError
from kettle.plant.observer import Rig

# What is put on a part, as the record says it.
JUMPER, LIFTED, MOVED = "jumper", "lifted_lead", "output_moved"
ON_A_PART: Final = (JUMPER, LIFTED, MOVED)
# The way of a part whose lead is lifted.
LEAD_OFF: Final = "open"
# What a jumper may lie over for a test; over what protects, or what draws, it may not.
MAY_BE_JUMPED: Final = ("pole", "contact", "output", "switch", "wire", "disconnect")
PROTECTS: Final = ("fuse", "overload")
# Pressure and heat are watched by these, of the kinds a jumper may lie over.
WATCHES: Final = ("hp_switch", "heater_limit")
NEAR: Final = 0.75


def part_meant(circuit: Circuit, words: str) -> str:
    """Return the key of the part of a circuit that words name: its label, or two points it lies between; empty where they name none."""
    points = {point.key.upper() for point in circuit.points} & {word.strip(",.").upper() for word in words.split()}
    between = [part.key for part in circuit.parts if {part.a.upper(), part.b.upper()} == points]
    if len(between) == 1:
        return between[0]
    said = " ".join(words.lower().replace("-", " ").split())
    labels = {" ".join(part.label.lower().replace("-", " ").replace(",", "").split()): part.key for part in circuit.parts}
    inside = [label for label in labels if label in said]
    if inside:
        return labels[max(inside, key=len)]
    around = [label for label in labels if said and said in label]
    if len(around) == 1:
        return labels[around[0]]
    near = get_close_matches(said, labels, 1, NEAR)
    return labels[near[0]] if near and not around else ""


def output_meant(circuit: Circuit, words: str) -> str:
    """Return the key of the controller's output whose load words name (“fans from relay 2 to 4”); empty where they name none."""
    said = words.lower()
    outputs = [(part.label.rpartition(", ")[2].lower().rstrip("s"), part.key) for part in circuit.parts if part.kind == "output"]
    return next((key for load, key in outputs if load in said), "")


def part_of(circuit: Circuit, what: str, words: str) -> str:
    """Return the key of the part on which something was put, by what was put there and where; empty where it is none of the circuit."""
    if what not in ON_A_PART:
        return ""
    return output_meant(circuit, words) if what == MOVED else part_meant(circuit, words)


def way_of(rig: Rig, what: str, part: str) -> str:
    """Return the way a part of the unit is in with something put on it; InputError says why it may not be put there."""
    there = rig.wired.circuit.part(part)
    if what == LIFTED:
        return LEAD_OFF
    if what == JUMPER and (there.kind in PROTECTS or part in WATCHES):
        raise InputError(f"{there.label}: a jumper over it takes away what protects; measure over it, and find what opened it")
    if what == JUMPER and there.kind not in MAY_BE_JUMPED:
        raise InputError(f"{there.label}: a jumper over what draws current is a short")
    return rig.wired.over(part)[0] if what == JUMPER else ""
