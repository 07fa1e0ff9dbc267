"""Power: the circuit drawn, measured on, and the fault found by following the volts."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect
from django.urls import reverse
from django.views.decorators.http import require_POST

from kettle.benches.power import bench
from kettle.benches.power.drawing import drawn
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.units import TRADE
from kettle.power import capacitors, windings
from kettle.power.circuit import PLACES, STATES
from kettle.power.measure import Reading
from kettle.power.presets import circuit_of
from web.benches.power.actions.keep_measurement import UNITS, keep_measurement
from web.benches.power.actions.keep_windings import FIELDS, keep_windings
from web.logbook.actions.undo_entry import undo_entry
from web.round.views.pages import call_of, show, standing_of

CAPACITOR = (
    ("cap_amps", "Amps through it", "A"),
    ("cap_volts", "Volts over it", "V"),
    ("cap_uf", "Printed", "µF"),
    ("cap_pct", "Tolerance", "%"),
)


def _state(request, standing):
    """The state asked for, else the one it should be in now."""
    asked = request.POST.get("state") or request.GET.get("state") or ""
    return asked if asked in STATES else bench.state_of(standing.judgement.facts)


def power_context(request, standing):
    """Circuit, state, what was measured, what stands and where to measure next."""
    facts = standing.judgement.facts
    circuit, state = circuit_of(standing.unit), _state(request, standing)
    kept = list(standing.call.measurements.filter(undone_at=None).select_related("by"))
    readings = [Reading(one.what, one.one, one.other, one.value, one.state) for one in kept if _known(circuit, one)]
    now = bench.state_of(facts)
    readings += bench.readings_of(circuit, facts.seen)
    stood = bench.stand(circuit, state, readings, bench.seen_of(circuit, facts.seen, now))
    should, live, picture = bench.should_show(circuit, state), bench.is_live(circuit, state), drawn(circuit)
    labels = {point.key: point.label for point in circuit.points}
    common, typed = bench.common_of(circuit), request.POST if request.method == "POST" else {}
    return {
        "power_state": state,
        "power_states": [(code, label, code == state, code == now) for code, label in STATES.items()],
        "picture": picture,
        "lines": [(line, stood.marks.get(line.part.key, ""), live[line.part.a] and live[line.part.b]) for line in picture.lines],
        "dots": [(dot, labels[dot.key], f"{should[dot.key]:.0f}", live[dot.key]) for dot in picture.dots],
        "points": [
            (point.key, point.label, f"{should[point.key]:.0f}", PLACES[point.place][0]) for point in circuit.points if point.key != "Y"
        ],
        "clamped": [(part.key, part.label) for part in circuit.parts if part.kind in ("pole", "winding", "motor", "heater")],
        "common": common,
        "stood": stood,
        "suspected": [(s.label, f"{100 * s.probability:.0f}") for s in stood.suspects],
        "leads": [_lead(circuit, lead) for lead in stood.leads],
        "circuit_phases": circuit.phases,
        "pins": [(name, label, typed.get(name, ""), "") for name, label in FIELDS.items()],
        "windings_say": _windings_say(facts, circuit.phases),
        **_capacitor(request, circuit.hz),
        "kept": [(one, _between(circuit, one), STATES[one.state]) for one in kept],
        "units": UNITS.items(),
        "live_cautions": words("lock_out") if state == "locked_out" else words("live"),
        "typed_measure": typed,
        "meter_on": typed.get("what") or ("ohms" if state == "locked_out" else "volts"),
        "one_on": typed.get("one") or request.GET.get("one", ""),
        "other_on": typed.get("other") or request.GET.get("other") or common,
    }


def _windings_say(facts, phases):
    """What the windings on record mean, in words."""
    ohms = [facts.number(key) for key in ("winding_cs_ohm", "winding_sr_ohm", "winding_cr_ohm")]
    said = []
    if None not in ohms and phases == 3:
        said.append(windings.three_phase(*ohms).says)
    if facts.number("winding_ground_ohm") is not None:
        said.append(windings.to_ground(facts.number("winding_ground_ohm")).says)
    return said


def _capacitor(request, hz):
    """The sum of a capacitor, where it was asked for; nothing of it is kept."""
    typed = {name: request.GET.get(name, "") for name, _, _ in CAPACITOR}
    found = {"capacitor_fields": [(name, label, typed[name], unit) for name, label, unit in CAPACITOR]}
    if not all(typed.values()):
        return found
    try:
        amps, volts, printed, pct = (TRADE.parse(typed[name], unit) for name, _, unit in CAPACITOR)
        told = capacitors.judged(capacitors.uf_of(amps, volts, hz), printed, pct, pct)
    except InputError as error:
        return found | {"capacitor_error": str(error)}
    return found | {"capacitor_says": told.says}


def _known(circuit, one):
    """Whether a measurement's points are in the circuit as it is drawn now."""
    keys = {point.key for point in circuit.points} | {part.key for part in circuit.parts}
    return {one.one, one.other} - {""} <= keys


def _between(circuit, one):
    """Where a measurement was taken, in words."""
    if not _known(circuit, one):
        return f"{one.one} {one.other}"
    if one.what == "amps":
        return circuit.part(one.one).label
    return f"{one.one} to {one.other}"


def _lead(circuit, lead):
    """A proposal as the page shows it."""
    where = circuit.part(lead.one).label if lead.what == "amps" else f"{lead.one} to {lead.other}"
    place = circuit.point(circuit.part(lead.one).a if lead.what == "amps" else lead.one).place
    figure = f"{lead.expected:.1f} A" if lead.what == "amps" else f"{lead.expected:.0f} V"
    return {"lead": lead, "where": where, "place": PLACES[place][0], "figure": figure}


@require_POST
def measure(request, number):
    """Keep a measurement, or say beside the field what cannot be one."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    state = _state(request, standing)
    try:
        keep_measurement(
            request.user, call, standing.judgement, circuit_of(standing.unit), typed.get("what", ""), typed.get("one", ""),
            typed.get("other", ""), typed.get("value", ""), state, standing.coil if standing.unit.evaporators > 1 else None,
        )  # fmt: skip
    except InputError as error:
        return show(request, call, "power", standing, measure_error=str(error))
    return redirect(f"{reverse('stop', args=[number, 'power'])}?state={state}")


@require_POST
def keep_pins(request, number):
    """Keep the windings' ohms and say what they mean, or what is wrong beside each field."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    try:
        said = keep_windings(request.user, call, standing.judgement, typed)
    except FieldErrors as error:
        pins = [(name, label, typed.get(name, ""), error.by_field.get(name, "")) for name, label in FIELDS.items()]
        return show(request, call, "power", standing, pins=pins)
    except InputError as error:
        messages.error(request, str(error))
    else:
        for text in said:
            messages.success(request, f"{text}.")
    return redirect(f"{reverse('stop', args=[number, 'power'])}?state=locked_out")


@require_POST
def take_back(request, number, pk):
    """Take a measurement back."""
    call = call_of(request, number)
    undo_entry(request.user, get_object_or_404(call.measurements, pk=pk))
    messages.success(request, "Taken back.")
    return redirect("stop", number=number, stop="power")
