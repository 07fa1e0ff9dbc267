"""A circuit as data: points one can put a lead on, parts between them, what closes which contact, and in which state what should be.

Impedances are complex, Ω, at the supply's frequency. A part is open, closed, or its own impedance; what a contact does follows from its
coil, or from whether the motor it belongs to turns.
"""

from collections.abc import Collection, Mapping
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

    `kind` is a key of `kettle.power.faults.WAYS`. `ohm` is its impedance where it conducts. `closed_in` are the states in which a
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
        return "N" if self.phases == 1 else "L2"

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
        """Return the circuit without some parts; a switch that is not there is a wire."""
        kept = tuple(
            Part(part.key, IN_PLACE + part.label.lower(), "wire", part.a, part.b)
            if part.key in keys and part.kind in ("switch", "contact")
            else part
            for part in self.parts
            if part.key not in keys or part.kind in ("switch", "contact")
        )
        motors = {name: parts for name, parts in self.motors.items() if not set(parts) & set(keys)}
        return replace(self, parts=kept, motors=motors)


def check_state(state: str) -> str:
    """Return a state; InputError names the ones there are."""
    if state not in STATES:
        raise InputError(f"state “{state[:40]}” is not known; states are {', '.join(STATES)}")
    return state
