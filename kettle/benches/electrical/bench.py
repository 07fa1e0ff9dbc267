"""What the bench knows of a circuit: the state it should be in now, what was seen and measured already, what is cleared."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.electrical import finds, measure, supplied
from kettle.electrical.circuit import Circuit
from kettle.electrical.faults import SOUND, Fault, single_faults
from kettle.electrical.measure import Lead, Reading, Seen, Suspicion
from kettle.electrical.solve import Figures, solve
from kettle.judging.facts import Facts
from kettle.knowledge import causes
from kettle.knowledge.observations import Value

FOUND_FROM, SUSPECT_FROM = 0.85, 0.03
# So likely, and with nothing left that live volts would tell, a part is measured by its ohms.
OHMS_FROM: Final = 0.3
# Cleared: so unlikely, and by so much less likely than before anything was measured.
CLEARED_BELOW, CLEARED_BY = 0.02, 3.0
SHOWN: Final = 6
_BY_CALL: Final = {"in_defrost": "defrosting", "satisfied": "off", "calling": "calling"}
# Observation -> the load it is of, and the words that say it works, or does not.
_SEEN: Final[dict[str, tuple[str, tuple[str, ...], tuple[str, ...]]]] = {
    "compressor": ("compressor", ("running",), ("off", "humming", "tripping")),
    "contactor": ("contactor_coil", ("in",), ("out",)),
    "condenser_fans": ("condenser_fan", ("running",), ("stopped",)),
    "liquid_solenoid": ("solenoid", ("open", "closed_pulled"), ("closed_no_pull",)),
    "drain_heater": ("drain_heater", ("warm",), ("cold",)),
    "crankcase_heater": ("crankcase_heater", ("warm",), ("cold",)),
}


def state_of(facts: Facts) -> str:
    """Return the state the circuit should be in now, from the control and the lock-out; calling where nobody looked."""
    if facts.is_("power_locked_out", "yes"):
        return "locked_out"
    call = facts.seen.get("control_call")
    return _BY_CALL.get(call, "calling") if isinstance(call, str) else "calling"


def seen_of(circuit: Circuit, seen: Mapping[str, Value], state: str) -> list[Seen]:
    """Return what was seen to run or stand, as far as the circuit has it; nothing of a circuit without power."""
    if state == "locked_out":
        return []
    has = {part.key for part in circuit.parts} | set(circuit.motors)
    found = []
    for key, (load, works, stands) in _SEEN.items():
        word = seen.get(key)
        if load in has and isinstance(word, str) and word in (*works, *stands):
            found.append(Seen(load, word in works, state, silent=(key, word) == ("compressor", "off")))
    runs = seen.get("compressor_in_defrost")
    if runs in ("running", "off") and "compressor" in has:
        found.append(Seen("compressor", runs == "running", "defrosting"))
    fans = [part.key for part in circuit.parts if part.key.startswith("fan_") and part.kind == "motor"]
    still = seen.get("fans_still")
    if isinstance(still, tuple):
        found += [Seen(fan, fan not in still, state) for fan in fans]
    elif seen.get("evap_fans") in ("running", "stopped"):
        found += [Seen(fan, seen["evap_fans"] == "running", state) for fan in fans]
    elif seen.get("evap_fans") == "some_stopped" and fans:
        # Which of them nobody said.
        found.append(Seen(fans[0], False, state, beside=tuple(fans[1:])))
        if len(fans) > 1:
            found.append(Seen(fans[0], True, state, beside=tuple(fans[1:]), some=True))
    return found


def readings_of(circuit: Circuit, seen: Mapping[str, Value]) -> list[Reading]:
    """Return the observations that are volts of this circuit, as readings in the state they are of; none behind a lock-out."""
    if seen.get("power_locked_out") == "yes":
        return []
    found = []
    for one, other in measure.pairs(circuit):
        key = finds.observed_as(circuit, one, other)
        value = seen.get(key)
        if isinstance(value, float):
            found.append(Reading("volts", one, other, value, finds.taken_in(key)))
    return found


@dataclass(frozen=True)
class Stood:
    """Where the hunt stands: likely faults, each part's mark, where to measure next, and where one is found the cause it comes to
    and what to ask before a new part goes in; `then` what tells where live volts tell no more."""

    suspects: tuple[Suspicion, ...]
    marks: Mapping[str, str]
    leads: tuple[Lead, ...]
    cause: str
    afterwards: tuple[str, ...] = ()
    then: str = ""


def stand(circuit: Circuit, state: str, readings: Sequence[Reading], seen: Sequence[Seen], likely: Figures | None = None) -> Stood:
    """Rank what can be wrong, mark the parts, and say where to put the leads next.

    `likely` is how likely each fault is (of `faults.every_fault`, in order); left out, by what was measured and seen alone.
    """
    circuit = supplied.as_measured(circuit, readings)
    faults, before = measure.standing(circuit)
    if likely is None:
        _, likely = measure.standing(circuit, readings, seen)
    ranked = tuple(one for one in measure.by_part(circuit, faults, likely)[:SHOWN] if one.probability >= SUSPECT_FROM / 3)
    measured = {frozenset((r.one, r.other)) if r.what != "amps" else frozenset((r.one,)) for r in readings}
    dead = measure.known_dead(circuit, seen)
    at = {"panel", *(circuit.point(key).place for r in readings if r.what != "amps" for key in (r.one, r.other))}
    found = bool(ranked) and ranked[0].probability >= FOUND_FROM
    leads = () if found or state == "locked_out" else tuple(measure.next_leads(circuit, faults, likely, state, at, 3, measured | dead))
    marks = _marks(circuit, faults, before, likely) if readings or seen else {}
    cause = finds.cause_of(ranked[0].fault) if found and ranked[0].fault != SOUND else ""
    ask = finds.afterwards(ranked[0].fault) if found else ()
    alone = readings and not leads and not found and state != "locked_out" and ranked and ranked[0].fault != SOUND
    likeliest = circuit.part(ranked[0].fault.part).label if alone and ranked[0].probability >= OHMS_FROM else ""
    then = (
        f"Live volts tell no more. Locked out, its leads off: the ohms of the {likeliest[:1].lower()}{likeliest[1:]}" if likeliest else ""
    )
    return Stood(ranked, marks, leads, causes.get(cause).label if cause else "", ask, then)


def _marks(circuit: Circuit, faults: Sequence[Fault], before: Figures, likely: Figures) -> dict[str, str]:
    """Each part's mark: found, suspect or good; none where nothing was said of it."""
    marks = {}
    for part in circuit.parts:
        own = [n for n, fault in enumerate(faults) if any(one.part == part.key for one in fault.each)]
        now, then = float(likely[own].sum()), float(before[own].sum())
        if now >= FOUND_FROM:
            marks[part.key] = "found"
        elif now >= SUSPECT_FROM:
            marks[part.key] = "suspect"
        elif now < CLEARED_BELOW and then > CLEARED_BY * now:
            marks[part.key] = "good"
    return marks


def should_show(circuit: Circuit, state: str) -> dict[str, float]:
    """Return the volts each point should have against `measured_to` in a state (point -> V)."""
    to = measured_to(circuit, state)
    solved = solve(circuit, state, single_faults(circuit)[:1])
    return {point.key: float(solved.between(point.key, to)[0]) for point in circuit.points}


def measured_to(circuit: Circuit, state: str) -> str:
    """Return the point that volts are told against: the common; ground behind a lock-out, where the common hangs in the air."""
    return circuit.ground if state == "locked_out" else circuit.common


def is_live(circuit: Circuit, state: str) -> dict[str, bool]:
    """Return whether each point should be live against ground in a state, by a fifth of the supply's volts."""
    solved = solve(circuit, state, single_faults(circuit)[:1])
    return {point.key: float(solved.between(point.key, circuit.ground)[0]) > 0.2 * circuit.volts for point in circuit.points}
