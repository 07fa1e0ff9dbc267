"""A circuit as data: points one can put a lead on, parts between them, what closes which contact, and in which state what should be.

Impedances are complex, Ω, at the supply's frequency. A part is open, closed, or its own impedance; what a contact does follows from its
coil, or from whether the motor it belongs to turns.
"""

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Final

from kettle.knowledge.errors import InputError

# The states a circuit can rightly be in.
STATES: Final[dict[str, str]] = {
    "calling": "calling for cold",
    "off": "satisfied, standing",
    "pumping_down": "pumping down",
    "defrosting": "in a defrost",
    "dripping": "dripping",
    "locked_out": "locked out",
}
# The same said short, for a row of buttons.
SHORT_STATES: Final[dict[str, str]] = {
    "calling": "Calling",
    "off": "Satisfied",
    "pumping_down": "Pumping down",
    "defrosting": "Defrost",
    "dripping": "Dripping",
    "locked_out": "Locked out",
}
OPEN_OHM: Final = 1e9
# What a wire is called where a circuit has no switch.
IN_PLACE: Final = "Wire in place of "
CLOSED_OHM: Final = 0.02
# Kinds of part whose place a wire takes where they are not there.
PASSES: Final = ("switch", "contact", "pole", "fuse", "disconnect", "overload", "output")
# Where a point lies: how it is reached, minutes to get there with the leads.
PLACES: Final[dict[str, tuple[str, float]]] = {
    "panel": ("in the panel, cover off", 0.5),
    "machine": ("at the condensing unit", 2.0),
    "compressor": ("under the terminal cover of the compressor", 3.0),
    "box": ("in the box", 2.5),
    "coil": ("behind the coil's guard", 5.0),
}


@dataclass(frozen=True)
class Point:
    """A point a lead can be put on: its key, what it is called, and where it lies (a key of `PLACES`)."""

    key: str
    label: str
    place: str = "panel"


@dataclass(frozen=True)
class Part:
    """A part between two points.

    `kind` is a key of `kettle.electrical.faults.WAYS`. `ohm` is its impedance where it conducts. `closed_in` are the states in which a
    switch should be closed (all where it is none); `coil` names the part whose volts move this contact, `opens` whether they open it;
    `motor` the load that has to turn for it to move (a start relay). `works_from` is the share of its volts from which a coil pulls in or
    a motor turns; `rated_v` those volts, 0 where it is no load; `dc_ohm` what an ohmmeter shows of it where that is not the real part of
    `ohm` (a winding at rest), `standing` the share of `ohm` it has while its motor stands; `starts` is a winding that needs its
    volts only until the motor turns. `secondary` are the two points of a
    transformer's other side, `ratio` its volts there by those on this side.
    """

    key: str
    label: str
    kind: str
    a: str
    b: str
    ohm: complex = CLOSED_OHM
    closed_in: frozenset[str] = frozenset(STATES)
    coil: str = ""
    opens: bool = False
    motor: str = ""
    rated_v: float = 0.0
    works_from: float = 0.65
    dc_ohm: float = 0.0
    standing: float = 1.0
    starts: bool = False
    secondary: tuple[str, str] = ("", "")
    ratio: float = 0.0


@dataclass(frozen=True, eq=False)
class Circuit:
    """A supply, its points and its parts. `supply` maps points to the phasor the source holds them at behind `SOURCE_OHM`.

    `motors` maps what turns to the parts that have to have their volts for it (a three-phase motor: its three windings).
    """

    name: str
    phases: int
    volts: float
    hz: int
    supply: Mapping[str, complex]
    points: tuple[Point, ...]
    parts: tuple[Part, ...]
    motors: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    ground: str = "G"

    @property
    def common(self) -> str:
        """The point that volts of the control are taken against: neutral, or the other leg."""
        return "N" if any(point.key == "N" for point in self.points) else "L2"

    @property
    def two_legs(self) -> bool:
        """Whether one phase comes as two hot legs: half its volts each to ground, and no neutral."""
        return self.phases == 1 and self.common == "L2"

    def renamed(self, key: str) -> str:
        """Return the point that a measurement kept as `key` was on: a unit of two hot legs once had its second leg as neutral."""
        return "L2" if key == "N" and self.two_legs else key

    def part(self, key: str) -> Part:
        """Return a part; InputError for one the circuit has not."""
        found = next((part for part in self.parts if part.key == key), None)
        if found is None:
            raise InputError(f"part “{key[:40]}” is not in this circuit")
        return found

    def point(self, key: str) -> Point:
        """Return a point; InputError for one the circuit has not."""
        found = next((point for point in self.points if point.key == key), None)
        if found is None:
            raise InputError(f"point “{key[:40]}” is not in this circuit; points are {', '.join(point.key for point in self.points)}")
        return found

    def has(self, key: str) -> bool:
        """Return whether the circuit has a part."""
        return any(part.key == key for part in self.parts)

    def fed_with(self, supply: Mapping[str, complex]) -> "Circuit":
        """Return the circuit on another supply."""
        return replace(self, supply=supply)

    def only(self, kinds: Collection[str]) -> "Circuit":
        """Return the parts of some kinds alone, everything else pulled off them; the supply is not connected."""
        kept = tuple(part for part in self.parts if part.kind in kinds)
        keys = {part.key for part in kept}
        return replace(self, supply={}, parts=kept, motors={name: own for name, own in self.motors.items() if set(own) <= keys})

    def without(self, *keys: str) -> "Circuit":
        """Return the circuit without some parts: what only passes the current on is a wire, a load hangs where its contactor's coil did,
        and control without a transformer is at line volts."""
        gone = set(keys)
        motors = {name: left for name, parts in self.motors.items() if (left := tuple(key for key in parts if key not in gone))}
        coils = {part.key: part for part in self.parts if part.key in gone and part.kind == "coil"}
        straight: set[str] = set()
        kept: list[Part] = []
        for part in self.parts:
            moved_by = coils.get(part.coil)
            if part.motor and (part.key in gone or part.motor not in motors):
                # Nothing turns that would move it, or it is not there: what it switches hangs in the air.
                continue
            if moved_by is not None and moved_by.key not in straight and not part.opens:
                # Without the contactor its load hangs straight on what would have called it.
                straight.add(moved_by.key)
                kept.append(_wire(part, moved_by.a))
            elif part.kind == "transformer" and part.key in gone:
                kept += [_wire(part, part.a, part.secondary[0]), _wire(part, part.b, part.secondary[1], "_back")]
            elif moved_by is not None or (part.key in gone and part.kind in PASSES):
                kept.append(_wire(part, part.a))
            elif part.key not in gone:
                kept.append(part)
        return replace(self, parts=tuple(kept), motors=motors)

    def joined(self, wires: Iterable[tuple[str, str]]) -> "Circuit":
        """Return the circuit with wires between some of its points; one between points it has not is left out."""
        keys = {point.key for point in self.points}
        more = tuple(
            Part(f"wire_{one}_{other}", f"Wire from {one} to {other}", "wire", one, other)
            for one, other in sorted(wires)
            if {one, other} <= keys
        )
        return replace(self, parts=(*self.parts, *more))


def _wire(part: Part, a: str, b: str = "", more: str = "") -> Part:
    """A wire in place of a part, from `a` to its other end."""
    return Part(part.key + more, IN_PLACE + part.label.lower(), "wire", a, b or part.b)


def check_state(state: str) -> str:
    """Return a state; InputError names the ones there are."""
    if state not in STATES:
        raise InputError(f"state “{state[:40]}” is not known; states are {', '.join(STATES)}")
    return state
