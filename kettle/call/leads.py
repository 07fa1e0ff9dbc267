"""Where a meter goes next, and which part of the circuit it is by what was measured."""

from dataclasses import dataclass

from kettle.benches.electrical import bench
from kettle.benches.electrical.bench import FOUND_FROM
from kettle.call.circuit import Part
from kettle.call.judged import Judged
from kettle.call.runs import Runs
from kettle.electrical import finds
from kettle.electrical.measure import Lead
from kettle.judging import stopped
from kettle.judging.holds import blocking
from kettle.knowledge.measures import format_number

# What stands and asks for a meter.
STANDS = (
    ("evap_fans", ("stopped", "some_stopped")),
    ("condenser_fans", ("stopped",)),
    ("contactor", ("chattering",)),
    ("defrost_starts", ("never", "stuck_in")),
    ("breaker", ("trips_at_once", "trips_warm")),
)


@dataclass(frozen=True)
class Leads:
    """Where the leads go next (none: nothing more to measure), in words, the parts it can be, and what to ask once one is found."""

    lead: Lead | None
    text: str
    parts: tuple[Part, ...]
    state: str
    afterwards: tuple[str, ...] = ()


def leads(judged: Judged, runs: Runs) -> Leads | None:
    """Return where to measure next; None where nothing electrical is asked."""
    facts = judged.course(1).now.facts
    asked = judged.wired.wirings[-1].readings or runs.state == "should_run"
    asked = asked or any(facts.is_(key, *words) and not stopped.says_nothing(key, facts) for key, words in STANDS)
    if not asked:
        return None
    state = bench.state_of(facts)
    faults, likely = judged.wired.standing(judged.left_single(1), state)
    parts = judged.wired.parts_of(faults, likely)
    if parts and parts[0].probability >= FOUND_FROM:
        return Leads(None, f"Found: {parts[0].label}", parts, state, finds.afterwards(parts[0].fault))
    stays_off = blocking(list(judged.now(1).holds), "power_on")
    if stays_off:
        return Leads(None, f"Stays off: {stays_off[0].text}", parts, state)
    circuit = judged.staged.record.circuit
    found = judged.wired.next_leads(faults, likely, state)
    if not found:
        says = f"Most likely: {parts[0].label}" if parts else "Nothing more to measure in this state"
        return Leads(None, says, parts, state)
    one = found[0]
    if one.what == "amps":
        where, due = f"Clamp round {circuit.part(one.one).label.lower()}", f"{format_number(one.expected)} A is due"
    else:
        labels = " and ".join(f"{key} ({circuit.point(key).label})" for key in (one.one, one.other))
        where, due = f"Volts between {labels}", f"{format_number(one.expected, 0)} V is due"
    return Leads(one, f"{where}: {due}. {one.why}", parts, state)
