"""What the stop Power shows: the circuit in a state, what was measured on it, what stands, and where to measure next."""

from kettle.benches.electrical import bench
from kettle.benches.electrical.drawing import drawn
from kettle.call.circuit import WIRED
from kettle.electrical import dead, mistakes
from kettle.electrical.circuit import PLACES, SHORT_STATES, STATES
from kettle.electrical.measure import Reading
from kettle.judging.holds import blocking
from kettle.knowledge.cautions import words
from web.benches.electrical.actions.keep_measurement import UNITS
from web.benches.electrical.views import panels
from web.logbook.calls.measured import ends, known, shown

SIGNS = {"good": "✓", "suspect": "?", "found": "✗"}


def state_asked(request, standing):
    """The state asked for, else the one it should be in now."""
    asked = request.POST.get("state") or request.GET.get("state") or ""
    return asked if asked in STATES else bench.state_of(standing.judgement.facts)


def power_context(request, standing):
    """Everything the stop shows."""
    call, facts = standing.call, standing.judgement.facts
    circuit, state = call.unit.circuit(), state_asked(request, standing)
    kept = list(call.measurements.filter(undone_at=None).select_related("by"))
    now = bench.state_of(facts)
    readings = standing.told.call.judged.wired.wirings[-1].readings
    seen = bench.seen_of(circuit, facts.seen, now)
    stood = bench.stand(circuit, state, readings, seen, standing.told.likely_faults(now))
    stays_off = blocking(list(standing.judgement.holds), "power_on")
    # What was measured before something electrical was done is of another wiring.
    repaired = max((step.event.at for step in standing.told.call.staged.steps if step.did.part in WIRED), default=None)
    # What each point should show is told on what comes in, not on what the plate says.
    fed = standing.told.call.judged.wired.fed
    should, live, picture = bench.should_show(fed, state), bench.is_live(fed, state), drawn(circuit)
    labels = {point.key: point.label for point in circuit.points}
    common, typed = circuit.common, request.POST if request.method == "POST" else {}
    return {
        "power_state": state,
        "power_states": [(code, label, code == state, code == now) for code, label in SHORT_STATES.items()],
        "picture": picture,
        "lines": [marked_line(line, stood.marks.get(line.part.key, ""), live) for line in picture.lines],
        "dots": [(dot, labels[dot.key], f"{should[dot.key]:.0f}", live[dot.key]) for dot in picture.dots],
        "points": [
            (point.key, point.label, f"{should[point.key]:.0f}", PLACES[point.place][0]) for point in circuit.points if point.key != "Y"
        ],
        "clamped": [(part.key, part.label) for part in circuit.parts if part.kind in ("pole", "winding", "motor", "heater", "wire")],
        "common": common,
        "measured": {point for one in readings for point in (one.one, one.other)},
        "measured_to": bench.measured_to(fed, state),
        "stood": stood,
        "suspected": [(s.label, f"{100 * s.probability:.0f}") for s in stood.suspects],
        "leads_then": "" if stays_off else stood.then,
        "leads": [_lead(circuit, lead) for lead in stood.leads] if not stays_off else [],
        "stays_off": stays_off[0].text if stays_off else "",
        "kept": [_kept(circuit, one, readings, seen, repaired) for one in kept],
        "units": UNITS.items(),
        "live_cautions": words("lock_out") if state == "locked_out" else words("live"),
        "breaker_says": dead.BREAKER.get(facts.seen.get("breaker"), ""),
        "typed_measure": typed,
        "meter_on": typed.get("what") or ("ohms" if state == "locked_out" else "volts"),
        "one_on": typed.get("one") or request.GET.get("one", ""),
        "other_on": typed.get("other") or request.GET.get("other") or common,
        **panels.part_context(request, circuit, state, stood.marks),
        **panels.order_context(circuit, readings, facts),
        **panels.truth_context(circuit, readings, facts),
        **panels.heaters_context(standing, circuit, readings),
        **panels.windings_context(standing, typed),
        **panels.capacitor_context(request, circuit),
        **panels.amps_context(standing, readings),
        **panels.wiring_context(call, typed),
        **panels.start_gear_context(call, standing.unit.phases),
        **panels.placed_context(call),
    }


def marked_line(line, mark, live):
    """A part as drawn: with its mark, whether it is live, and the mark's sign."""
    return line, mark, live[line.part.a] and live[line.part.b], SIGNS.get(mark, "")


def _kept(circuit, one, readings, seen, repaired):
    """A kept measurement as the page shows it: where and what, its state, what it does not say, and whether it was before a repair."""
    before = repaired is not None and one.at < repaired
    slips = [] if before else _slips(circuit, one, readings, seen)
    return one, f"{_between(circuit, one)}: {shown(one)}", STATES[one.state], slips, before


def _slips(circuit, one, readings, seen):
    """What a kept measurement does not say, although it may be taken to."""
    if not known(circuit, one):
        return []
    return mistakes.mistakes(circuit, Reading(one.what, *ends(circuit, one), one.value, one.state), readings, seen)


def _between(circuit, one):
    """Where a measurement was taken, in words."""
    if one.what == "amps" and known(circuit, one):
        return circuit.part(one.one).label
    first, second = ends(circuit, one)
    return f"{first} to {second}" if second else first


def _lead(circuit, lead):
    """A proposal as the page shows it."""
    where = circuit.part(lead.one).label if lead.what == "amps" else f"{lead.one} to {lead.other}"
    place = circuit.point(circuit.part(lead.one).a if lead.what == "amps" else lead.one).place
    figure = f"{lead.expected:.1f} A" if lead.what == "amps" else f"{lead.expected:.0f} V"
    return {"lead": lead, "where": where, "place": PLACES[place][0], "figure": figure}
