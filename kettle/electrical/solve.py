"""Volts between any two points and amps through any part, for every fault at once.

Nodal analysis with complex phasors (Chua, Desoer and Kuh, Linear and Nonlinear Circuits, 1987, ch. 5): admittances between points, each
source behind a small impedance. Contacts follow the coils and motors they hang on, over a few rounds from where a sound circuit stands.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kettle.electrical import faults as ways
from kettle.electrical.circuit import OPEN_OHM, Circuit, Part, check_state
from kettle.electrical.faults import SOUND, Fault
from kettle.knowledge.errors import InputError

Phasors = NDArray[np.complex128]
Figures = NDArray[np.float64]
SOURCE_OHM: Final = 0.03
# A meter's own resistance lies between the leads; insulation ties a point that nothing feeds to ground.
METER_OHM: Final = 1e7
INSULATION_SIEMENS: Final = 1e-9
# A transformer's own impedance, seen from its secondary.
TRANSFORMER_OHM: Final = 0.6
ROUNDS: Final = 6
# What fails so does not work, whatever volts it has.
STANDS_STILL: Final = ("open", "stuck", "stalled", "grounded")


@dataclass(frozen=True)
class Solved:
    """A circuit in a state under each of some faults: phasors of its points (faults × points), impedances of its parts and what pulls in
    or turns (faults × parts)."""

    circuit: Circuit
    state: str
    faults: tuple[Fault, ...]
    volts: Phasors
    ohms: Phasors
    works: NDArray[np.bool_]

    @cached_property
    def seen_ohm(self) -> Phasors:
        """The impedances seen from the points, Ω (faults × points × points): what lies behind a meter's leads."""
        found: Phasors = np.linalg.inv(_admittances(self.circuit, self.ohms, self.faults)).astype(np.complex128)
        return found

    @cached_property
    def amps(self) -> Figures:
        """Current through each part, A (faults × parts)."""
        places = _places(self.circuit)
        a, b = ([places[end] for end in ends] for ends in zip(*((part.a, part.b) for part in self.circuit.parts), strict=True))
        found: Figures = np.abs((self.volts[:, a] - self.volts[:, b]) / self.ohms)
        return found

    def between(self, one: str, other: str) -> Figures:
        """Return what a meter shows between two points, V, under each fault; InputError for points the circuit has not."""
        places = _places(self.circuit)
        for key in (one, other):
            if key not in places:
                raise InputError(f"point “{key[:40]}” is not in this circuit")
        a, b = places[one], places[other]
        behind = self.seen_ohm[:, a, a] + self.seen_ohm[:, b, b] - self.seen_ohm[:, a, b] - self.seen_ohm[:, b, a]
        shown: Figures = np.abs((self.volts[:, a] - self.volts[:, b]) * METER_OHM / (METER_OHM + behind))
        return shown

    def through(self, part: str) -> Figures:
        """Return the amps through a part under each fault; InputError for a part the circuit has not."""
        self.circuit.part(part)
        amps: Figures = self.amps[:, [p.key for p in self.circuit.parts].index(part)]
        return amps

    def runs(self, motor: str) -> NDArray[np.bool_]:
        """Return whether a motor or a load works under each fault; InputError for one the circuit has not."""
        keys = [p.key for p in self.circuit.parts]
        if motor in self.circuit.motors:
            turns: NDArray[np.bool_] = np.all([self.works[:, keys.index(key)] for key in self.circuit.motors[motor]], axis=0)
            return turns
        self.circuit.part(motor)
        works: NDArray[np.bool_] = self.works[:, keys.index(motor)]
        return works


def solve(circuit: Circuit, state: str, wrong: Sequence[Fault] = (SOUND,)) -> Solved:
    """Solve a circuit in a state under each fault; InputError for a state that is not known."""
    check_state(state)
    return _solved(circuit, state, tuple(wrong))


@lru_cache(maxsize=12)
def _solved(circuit: Circuit, state: str, wrong: tuple[Fault, ...]) -> Solved:
    works = np.zeros((1, len(circuit.parts)), dtype=bool)
    sound = _settle(circuit, state, (SOUND,), works)
    if wrong == (SOUND,):
        return sound
    # From there on; where something is wrong on a motor's way, with it standing: whether it starts is the question.
    begin = np.repeat(sound.works, len(wrong), axis=0)
    motors = [place for place, part in enumerate(circuit.parts) if part.standing < 1.0]
    standing = [row for row, fault in enumerate(wrong) if any(_on_its_way(circuit.part(one.part)) for one in fault.each)]
    begin[np.ix_(standing, motors)] = False
    return _settle(circuit, state, wrong, begin)


def _on_its_way(part: Part) -> bool:
    """Whether a part can keep a motor from starting by what lies between its supply and its windings."""
    return part.kind in ("winding", "capacitor", "ptc", "pole", "overload", "disconnect", "fuse", "wire") or bool(part.motor)


def _settle(circuit: Circuit, state: str, wrong: tuple[Fault, ...], works: NDArray[np.bool_]) -> Solved:
    """Let contacts follow coils and motors until nothing moves any more; only what still moves is solved again."""
    volts: Phasors = np.zeros((len(wrong), len(circuit.points)), dtype=complex)
    ohms = np.zeros((len(wrong), len(circuit.parts)), dtype=complex)
    moving = np.arange(len(wrong))
    for _ in range(ROUNDS):
        some = [wrong[place] for place in moving]
        ohms[moving] = _ohms(circuit, state, some, works[moving])
        injected = np.broadcast_to(_injected(circuit)[:, None], (len(some), len(circuit.points), 1))
        volts[moving] = np.linalg.solve(_admittances(circuit, ohms[moving], some), injected)[:, :, 0]
        now = _working(circuit, some, volts[moving], works[moving])
        changed = (now != works[moving]).any(axis=1)
        works[moving] = now
        moving = moving[changed]
        if not len(moving):
            break
    return Solved(circuit, state, wrong, volts, ohms, works)


def _conducts(circuit: Circuit, fault: Fault) -> str:
    return ways.way_of(circuit.part(fault.part), fault.way).conducts


def _places(circuit: Circuit) -> dict[str, int]:
    return {point.key: place for place, point in enumerate(circuit.points)}


@lru_cache(maxsize=4)
def resistances(circuit: Circuit, wrong: tuple[Fault, ...]) -> Figures:
    """Return what an ohmmeter sees between any two points of a circuit that is locked out, Ω (faults × points × points).

    Direct current: capacitors are open, coils are their copper. Every path that is not lifted lies parallel, as it does for the meter.
    """
    nothing = np.zeros((len(wrong), len(circuit.parts)), dtype=bool)
    ohms = _ohms(circuit, "locked_out", wrong, nothing)
    for place, part in enumerate(circuit.parts):
        conducts = np.abs(ohms[:, place]) < OPEN_OHM / 2
        copper = OPEN_OHM if part.kind == "capacitor" else part.dc_ohm or part.ohm.real
        ohms[conducts, place] = ohms[conducts, place].real if abs(part.ohm) < 1.0 else copper
    seen = np.linalg.inv(_admittances(circuit, ohms, wrong)).real
    own = np.diagonal(seen, axis1=1, axis2=2)
    shown: Figures = np.maximum(own[:, :, None] + own[:, None, :] - seen - np.swapaxes(seen, 1, 2), 0.0)
    return shown


def _ohms(circuit: Circuit, state: str, wrong: Sequence[Fault], works: NDArray[np.bool_]) -> Phasors:
    """The impedance of each part under each fault, by state and by what works."""
    keys = {part.key: place for place, part in enumerate(circuit.parts)}
    table = np.empty((len(wrong), len(circuit.parts)), dtype=complex)
    for place, part in enumerate(circuit.parts):
        table[:, place] = _sound_ohms(circuit, state, part, works, keys)
    for row, fault in enumerate(wrong):
        for one in fault.each:
            place = keys[one.part]
            table[row, place] = ways.ohm_of(circuit.parts[place], one.way, bool(abs(table[row, place]) < OPEN_OHM / 2))
    return table


def _sound_ohms(circuit: Circuit, state: str, part: Part, works: NDArray[np.bool_], keys: dict[str, int]) -> Phasors:
    closed = np.full(len(works), state in part.closed_in)
    if part.coil:
        closed &= works[:, keys[part.coil]] != part.opens
    if part.motor:
        closed &= _turning(circuit, part.motor, works, keys) != part.opens
    found: Phasors = np.where(closed, part.ohm, OPEN_OHM).astype(complex)
    if part.standing < 1.0:
        motor = next(name for name, parts in circuit.motors.items() if part.key in parts)
        found[~_turning(circuit, motor, works, keys)] *= part.standing
    return found


def _turning(circuit: Circuit, motor: str, works: NDArray[np.bool_], keys: dict[str, int]) -> NDArray[np.bool_]:
    turning: NDArray[np.bool_] = np.all([works[:, keys[key]] for key in circuit.motors[motor]], axis=0)
    return turning


def _injected(circuit: Circuit) -> Phasors:
    """What the sources drive into the points, A."""
    places = _places(circuit)
    found: Phasors = np.zeros(len(circuit.points), dtype=complex)
    for key, phasor in circuit.supply.items():
        found[places[key]] += phasor / SOURCE_OHM
    return found


def _admittances(circuit: Circuit, ohms: Phasors, wrong: Sequence[Fault]) -> Phasors:
    """The nodal admittances of each fault, S."""
    places, count = _places(circuit), len(circuit.points)
    admittance = 1.0 / ohms
    y: Phasors = np.zeros((len(ohms), count, count), dtype=complex)
    for row, part in enumerate(circuit.parts):
        a, b, one = places[part.a], places[part.b], admittance[:, row]
        y[:, a, a] += one
        y[:, b, b] += one
        y[:, a, b] -= one
        y[:, b, a] -= one
    diagonal = np.arange(count)
    y[:, diagonal, diagonal] += INSULATION_SIEMENS
    for key in circuit.supply:
        y[:, places[key], places[key]] += 1.0 / SOURCE_OHM
    # Ground is the zero of all volts.
    y[:, places[circuit.ground], places[circuit.ground]] += 1.0 / SOURCE_OHM
    for row, part in enumerate(circuit.parts):
        if part.ratio:
            _transform(y, places, part, np.abs(admittance[:, row]) > 2.0 / OPEN_OHM)
    for row, fault in enumerate(wrong):
        for part in (circuit.part(one.part) for one in fault.each if _conducts(circuit, one) == "grounded"):
            _ground(y[row], places, circuit, part)
    return y


def _transform(y: Phasors, places: dict[str, int], part: Part, sound: NDArray[np.bool_]) -> None:
    """Stamp an ideal transformer behind its own impedance: secondary = ratio · primary."""
    s = sound / TRANSFORMER_OHM
    a, b, (c, d) = places[part.a], places[part.b], (places[key] for key in part.secondary)
    n = part.ratio
    for one, sign_one in ((c, 1.0), (d, -1.0)):
        y[:, one, c] += sign_one * s
        y[:, one, d] -= sign_one * s
        y[:, one, a] -= sign_one * n * s
        y[:, one, b] += sign_one * n * s
    for one, sign_one in ((a, n), (b, -n)):
        y[:, one, c] -= sign_one * s
        y[:, one, d] += sign_one * s
        y[:, one, a] += sign_one * n * s
        y[:, one, b] -= sign_one * n * s


def _ground(y: Phasors, places: dict[str, int], circuit: Circuit, part: Part) -> None:
    """Tie a part's first end to ground as a burnt winding does."""
    a, g = places[part.a], places[circuit.ground]
    for one, other in ((a, g), (g, a)):
        y[one, one] += 1.0 / ways.GROUND_OHM
        y[one, other] -= 1.0 / ways.GROUND_OHM


def _working(circuit: Circuit, wrong: Sequence[Fault], volts: Phasors, before: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Which loads have the volts they need and are sound; what turned before needs its start winding no longer."""
    places = _places(circuit)
    ends = np.array([[places[part.a], places[part.b]] for part in circuit.parts])
    across = np.abs(volts[:, ends[:, 0]] - volts[:, ends[:, 1]])
    rated = np.array([part.rated_v for part in circuit.parts])
    works_from = np.array([part.works_from for part in circuit.parts])
    works: NDArray[np.bool_] = (rated > 0) & (across >= works_from * rated)
    keys = {part.key: place for place, part in enumerate(circuit.parts)}
    for motor, parts in circuit.motors.items():
        for key in (key for key in parts if circuit.part(key).starts):
            works[:, keys[key]] |= _turning(circuit, motor, before, keys)
    for row, fault in enumerate(wrong):
        for one in fault.each:
            works[row, keys[one.part]] &= _conducts(circuit, one) not in STANDS_STILL
    return works
