"""What a meter reading does not say, although it is often taken to say it: each slip once, as a rule over the solved circuit."""

from collections.abc import Callable, Collection, Iterable
from dataclasses import dataclass
from typing import Final

from kettle.electrical.circuit import Circuit, Part
from kettle.electrical.faults import WAYS, Fault
from kettle.electrical.measure import LEAST_AMPS, Reading, Seen
from kettle.electrical.solve import resistances, solve
from kettle.knowledge.measures import format_number, ohms_text

# Below the first share of the supply's volts a point is dead, above the second it is fed; between them lies what is fed back.
DEAD_SHARE, FED_SHARE = 0.1, 0.8
# A path counts as lying parallel where it changes what the meter shows by more than this.
PARALLEL_SHARE: Final = 0.15
SWITCHES: Final = ("switch", "contact", "pole", "fuse", "disconnect", "overload", "output", "wire")


@dataclass(frozen=True)
class Taken:
    """A reading with everything it is held against: the circuit, the other readings, and what was seen to work or to stand."""

    circuit: Circuit
    reading: Reading
    others: tuple[Reading, ...]
    seen: tuple[Seen, ...]

    @property
    def across(self) -> Part | None:
        """The part whose two ends the leads are on; the first of several."""
        ends = {self.reading.one, self.reading.other}
        return next((part for part in self.circuit.parts if {part.a, part.b} == ends), None)

    def volts_at(self, point: str) -> float | None:
        """What was measured from a point to the common in the same state, V."""
        same = (one for one in self.others if one.what == "volts" and one.state == self.reading.state)
        return next((one.value for one in same if {one.one, one.other} == {point, self.circuit.common}), None)


Rule = Callable[[Taken], str]


def _closed_or_unfed(taken: Taken) -> str:
    part = taken.across
    if taken.reading.what != "volts" or part is None or part.kind not in SWITCHES or taken.reading.value > DEAD_SHARE * taken.circuit.volts:
        return ""
    fed = [taken.volts_at(point) for point in (part.a, part.b)]
    if any(value is not None and value > FED_SHARE * taken.circuit.volts for value in fed):
        return ""
    lacks = any(value is not None and value < DEAD_SHARE * taken.circuit.volts for value in fed)
    why = "and nothing feeds it here" if lacks else "or that nothing feeds it"
    return f"0 V across it says that it is closed, {why}: measure {part.a} to {taken.circuit.common} too before it counts as closed"


def _to_ground(taken: Taken) -> str:
    r = taken.reading
    ground = taken.circuit.ground
    several = taken.circuit.phases == 3 or taken.circuit.two_legs
    if r.what != "volts" or not several or ground not in (r.one, r.other) or r.value < DEAD_SHARE * taken.circuit.volts:
        return ""
    if taken.circuit.two_legs:
        return "A hot leg to ground shows half the volts, fed back through a load as well: only L1 to L2 says that both are there"
    return "A leg to ground shows volts even with another leg lost, or fed back through a motor: measure leg to leg, 12, 23 and 31"


def _fed_back(taken: Taken) -> str:
    r = taken.reading
    share = r.value / taken.circuit.volts
    behind = {r.one, r.other} <= {"T1", "T2", "T3", "C1", "C2", "C3"}
    if r.what != "volts" or taken.circuit.phases != 3 or not behind or not DEAD_SHARE < share < FED_SHARE:
        return ""
    return "Neither nothing nor the whole: the motor feeds an open leg back. Measure across each closed pole, line to load"


def _power_on(taken: Taken) -> str:
    if taken.reading.what != "ohms" or taken.reading.state == "locked_out":
        return ""
    return "Ohms with the power on mean nothing, and may cost the meter: lock out, prove dead, measure again"


def _parallel(taken: Taken) -> str:
    part = taken.across
    if taken.reading.what != "ohms" or taken.reading.lifted or part is None or not any(way.code == "open" for way in WAYS[part.kind]):
        return ""
    keys = [point.key for point in taken.circuit.points]
    one, other = keys.index(taken.reading.one), keys.index(taken.reading.other)
    beside = float(resistances(taken.circuit, (Fault(part.key, "open"),))[0, one, other])
    alone = part.dc_ohm or part.ohm.real
    if alone / (alone + beside) < PARALLEL_SHARE:
        return ""
    return f"Other paths of {ohms_text(beside)} lie beside it: lift one of its leads, or it shows theirs"


def _two_wires(taken: Taken) -> str:
    r = taken.reading
    if r.what != "amps" or r.value > LEAST_AMPS:
        return ""
    should = float(solve(taken.circuit, r.state).through(r.one)[0])
    works = any(one.works and one.state == r.state and r.one in (one.load, *taken.circuit.motors.get(one.load, ())) for one in taken.seen)
    if not works or should < 2 * LEAST_AMPS:
        return ""
    return (
        f"It is seen to work and should draw about {format_number(should, 1)} A: with both wires in the clamp they cancel. Clamp one alone"
    )


def _coil_unfed(taken: Taken) -> str:
    part = taken.across
    if taken.reading.what != "volts" or part is None or part.kind not in ("coil", "clock") or taken.reading.state != "calling":
        return ""
    if taken.reading.value > DEAD_SHARE * part.rated_v:
        return ""
    return f"The {part.label.lower()} has no volts: it is not the one at fault. Follow the call back to where the volts end"


# In the order they are said.
RULES: Final[tuple[Rule, ...]] = (_closed_or_unfed, _to_ground, _fed_back, _power_on, _parallel, _two_wires, _coil_unfed)


def mistakes(circuit: Circuit, reading: Reading, others: Iterable[Reading] = (), seen: Collection[Seen] = ()) -> list[str]:
    """Return what a reading does not say although it may be taken to, a line each; nothing where it says what it seems to."""
    taken = Taken(circuit, reading, tuple(other for other in others if other != reading), tuple(seen))
    return [said for rule in RULES if (said := rule(taken))]
