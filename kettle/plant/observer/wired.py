"""What a meter shows on a simulated unit: its usual circuit with what its faults do in it, solved in the state it is in."""

from dataclasses import dataclass, field
from typing import Final

from kettle.electrical.circuit import Circuit
from kettle.electrical.faults import WAYS, Fault, from_key, together
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import Solved, resistances, solve
from kettle.electrical.wiring import USUAL, Bank, Wiring
from kettle.knowledge.equipment import Unit
from kettle.plant import faults

# A bank is taken to have so many elements where nobody counted them.
ELEMENTS: Final = faults.ELEMENTS
# What stands between a compressor's terminals once its wires are pulled off.
OWN_PARTS: Final = ("winding", "overload")
# A terminal and the point of the circuit it is: the overload inside lies before common.
SINGLE_PINS: Final = {"c": "O", "s": "S"}
THREE_PINS: Final = {"c": "C1", "s": "C2", "r": "C3"}
# What an ohmmeter can show, Ω: between terminals, and to bare shell.
MOST_OHM, MOST_GROUND_OHM = 1e6, 5e8


def wiring_of(circuit: Circuit, code: str, severity: float) -> Fault:
    """Return what a cause does in a circuit: the first of its wirings whose parts this circuit has; sound where it does nothing there."""
    if code == "defrost_heater_open":
        return together(Fault(f"element_{n}", "open") for n in range(1, faults.elements_open(severity) + 1))
    has = {part.key for part in circuit.parts}
    choices = (from_key(key) for key in faults.get(code).wiring)
    return next((fault for fault in choices if all(one.part in has for one in fault.each)), Fault())


@dataclass
class Wired:
    """The circuit of a unit with what is wrong with it (cause -> severity), and what was put on its parts (`put`: part -> way)."""

    unit: Unit
    wrong: dict[str, float]
    heaters_w: float
    put: dict[str, str] = field(default_factory=dict)
    circuit: Circuit = field(init=False)
    fault: Fault = field(init=False)
    _solved: dict[str, Solved] = field(default_factory=dict)

    def __post_init__(self) -> None:
        circuit = circuit_of(self.unit, Wiring(Bank(ELEMENTS, self.heaters_w / ELEMENTS or USUAL.bank.element_w)))
        legs = next((faults.FAULTS[code].legs for code in self.wrong if faults.FAULTS[code].legs), ())
        shares = dict(zip(("S1", "S2", "S3"), legs, strict=False))
        supply = {key: phasor * shares.get(key, 1.0) for key, phasor in circuit.supply.items()}
        self.circuit = circuit.fed_with(supply)
        own = together(wiring_of(circuit, code, severity) for code, severity in self.wrong.items())
        # A jumper carries past whatever the part does, a lifted lead lets nothing through it.
        kept = [Fault(one.part, one.way) for one in own.each if one.part not in self.put]
        self.fault = together([*kept, *(Fault(part, way) for part, way in self.put.items() if way)])

    def carried_past(self, code: str, severity: float) -> bool:
        """Return whether jumpers lie over everything a cause does in this circuit, or another output does it."""
        parts = {one.part for one in wiring_of(self.circuit, code, severity).each}
        return bool(parts) and all(self.put.get(part, "open") != "open" for part in parts)

    def over(self, part: str) -> tuple[str, ...]:
        """Return the ways a jumper over a part is written: closed where it can fail so, else as if it were sound."""
        return tuple(way.code for way in WAYS[self.circuit.part(part).kind] if way.conducts == "closed") or ("",)

    def at(self, state: str) -> Solved:
        """Return the circuit solved in a state, once."""
        if state not in self._solved:
            self._solved[state] = solve(self.circuit, state, (self.fault,))
        return self._solved[state]

    def volts(self, one: str, other: str, state: str) -> float:
        """Return the volts between two points in a state."""
        return float(self.at(state).between(one, other)[0])

    def works(self, load: str, state: str) -> bool:
        """Return whether a load works in a state."""
        return bool(self.at(state).runs(load)[0])

    @property
    def called(self) -> bool:
        """Whether a call comes through to what it moves: the liquid solenoid, or the contactor's coil itself."""
        return self.works("solenoid" if self.circuit.has("solenoid") else "contactor_coil", "calling")

    @property
    def to_ground(self) -> bool:
        """Whether something in it lies to ground."""
        return any(one.way == "grounded" for one in self.fault.each)

    def leg_amps(self, state: str) -> float:
        """Return the amps of the compressor's leg that draws most."""
        return max(self._through("lead_", state))

    def heater_amps(self) -> float:
        """Return the amps of the leg of the heaters that draws least in a defrost."""
        return min(self._through("defrost_pole", "defrosting"))

    def _through(self, start: str, state: str) -> list[float]:
        solved = self.at(state)
        return [float(solved.through(part.key)[0]) for part in self.circuit.parts if part.key.startswith(start)]

    def heater_ground_ohm(self) -> float:
        """Return the lowest ohms from an element's own lead to ground, its leads lifted."""
        alone = self.circuit.only(("heater",))
        own = together(Fault(one.part, one.way) for one in self.fault.each if alone.has(one.part))
        table, places = resistances(alone, (own,))[0], [point.key for point in alone.points]
        elements = [part.a for part in alone.parts if part.key.startswith("element_")]
        return min((MOST_GROUND_OHM, *(float(table[places.index(point), places.index("G")]) for point in elements)))

    def winding_ohm(self, pins: str) -> float:
        """Return the ohms between two terminals of the compressor, its wires pulled off: `cs`, `cr`, `sr`, or one to bare shell, `g`."""
        alone = self.circuit.only(OWN_PARTS)
        # Each by itself: one of several holds the others that are there with it.
        own = together(Fault(one.part, one.way) for one in self.fault.each if alone.has(one.part))
        table = resistances(alone, (own,))[0]
        places = [point.key for point in alone.points]
        run = "" if self.unit.phases == 3 else alone.part("winding_run").b
        terminals = THREE_PINS if self.unit.phases == 3 else SINGLE_PINS | {"r": run}
        if pins == "g":
            return min(MOST_GROUND_OHM, *(float(table[places.index(point), places.index("G")]) for point in terminals.values()))
        one, other = (places.index(terminals[pin]) for pin in pins)
        return min(float(table[one, other]), MOST_OHM)
