"""The wiring of a call on paper: as it was found, and as it was left where something electrical was done."""

from kettle.benches.power import bench
from kettle.benches.power.drawing import drawn
from kettle.knowledge.units import format_percent
from kettle.power.circuit import STATES
from web.benches.power.views.page import marked_line
from web.logbook.calls.courses import acts_of
from web.logbook.calls.measured import readings_of

# Parts whose acts change what the wiring shows.
ELECTRICAL = ("contactor", "start_parts", "supply", "wiring", "relay", "heater", "timer", "termination", "compressor", "evap_fan")


# A suspect less likely than this is not worth a line on paper.
WORTH_SAYING = 0.1


def wirings_of(call, as_found, as_left):
    """What each drawing shows, by what was measured before and after the last electrical act; none where nothing was measured.

    `as_found` and `as_left` are the facts of the first and the last stage of the call.
    """
    kept = call.measurements.filter(undone_at=None)
    done = [step.at for step in acts_of(call) if step.part in ELECTRICAL]
    found = [one for one in kept if not done or one.at <= min(done)]
    left = [one for one in kept if done and one.at > max(done)]
    sides = (("Wiring as found", found, as_found), ("Wiring as left", left, as_left))
    return [_wiring(call, title, rows, facts) for title, rows, facts in sides if rows]


def _wiring(call, title, rows, facts):
    """The circuit in the state it was measured in last, with what was measured on it and what that says of its parts."""
    circuit, state = call.unit.circuit(), rows[-1].state
    readings = [*readings_of(circuit, rows), *bench.readings_of(circuit, facts.seen)]
    stood = bench.stand(circuit, state, readings, bench.seen_of(circuit, facts.seen, bench.state_of(facts)))
    should, live, picture = bench.should_show(circuit, state), bench.is_live(circuit, state), drawn(circuit)
    return {
        "title": title,
        "state": STATES[state],
        "picture": picture,
        "lines": [marked_line(line, stood.marks.get(line.part.key, ""), live) for line in picture.lines],
        "dots": [(dot, "", f"{should[dot.key]:.0f}", live[dot.key]) for dot in picture.dots],
        "common": circuit.common,
        "suspects": [(one.label, format_percent(one.probability)) for one in stood.suspects if one.probability >= WORTH_SAYING],
    }
