"""The wiring of a call on paper: as it was found, and as it was left where something electrical was done."""

from kettle.benches.electrical import bench
from kettle.benches.electrical.drawing import drawn
from kettle.call import tell
from kettle.call.circuit import WIRED
from kettle.electrical.circuit import STATES
from kettle.knowledge.measures import format_percent
from web.benches.electrical.views.page import marked_line

# A suspect less likely than this is not worth a line on paper.
WORTH_SAYING = 0.1
# Of so many parts at most each is marked as one that it may be.
FEW = 3


def wirings_of(told):
    """What each drawing shows, by what was measured before and after the electrical acts of a call; none where nothing was measured."""
    done = [step for step in told.call.staged.steps if step.did.part in WIRED]
    sides = [("Wiring as found", tell(told.record.upto(done[0].event.number - 1)) if done else told)]
    if done:
        sides.append(("Wiring as left", told))
    return [_wiring(title, one) for title, one in sides if one.call.judged.wired.wirings[-1].readings]


def _wiring(title, told):
    """The circuit in the state it was measured in last, with what was measured on it and what the call says of its parts."""
    circuit, readings, facts = told.record.circuit, told.call.judged.wired.wirings[-1].readings, told.call.facts_now(1)
    state = readings[-1].state
    stood = bench.stand(circuit, state, readings, bench.seen_of(circuit, facts.seen, bench.state_of(facts)), told.likely_faults(state))
    fed = told.call.judged.wired.fed
    should, live, picture = bench.should_show(fed, state), bench.is_live(fed, state), drawn(circuit)
    suspected = sum(mark == "suspect" for mark in stood.marks.values())
    # Many parts that it may be are no mark: what was measured is, and what that found or cleared.
    marks = {key: mark for key, mark in stood.marks.items() if mark != "suspect" or suspected <= FEW}
    return {
        "title": title,
        "state": STATES[state],
        "picture": picture,
        "lines": [marked_line(line, marks.get(line.part.key, ""), live) for line in picture.lines],
        "dots": [(dot, "", f"{should[dot.key]:.0f}", live[dot.key]) for dot in picture.dots],
        "common": circuit.common,
        "measured": {point for one in readings for point in (one.one, one.other)},
        "suspects": [(one.label, format_percent(one.probability)) for one in stood.suspects if one.probability >= WORTH_SAYING],
    }
