"""What is kept from the stop Power: measurements, windings, the circuit, the start gear, what was put there."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge.errors import FieldErrors, InputError
from web.benches.electrical.actions.keep_measurement import keep_measurement
from web.benches.electrical.actions.keep_start_wiring import keep_start_wiring
from web.benches.electrical.actions.keep_windings import FIELDS, keep_windings
from web.benches.electrical.actions.keep_wiring import draw_wire, drop_part, keep_wiring, put_back, take_wire
from web.benches.electrical.views import panels
from web.benches.electrical.views.page import state_asked
from web.logbook.actions.place import OUTPUT_TICKS, move_output, place, take_away
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.models import Placed
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, show, standing_of


def _back(number, anchor="", state=""):
    query = f"?state={state}" if state else ""
    return redirect(f"{reverse('stop', args=[number, 'power'])}{query}{'#' if anchor else ''}{anchor}")


@require_POST
def measure(request, number):
    """Keep a measurement, or say beside the field what cannot be one."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    state = state_asked(request, standing)
    try:
        keep_measurement(
            request.user, call, standing.judgement, call.unit.circuit(), typed.get("what", ""), typed.get("one", ""),
            typed.get("other", ""), typed.get("value", ""), state, standing.coil if standing.unit.evaporators > 1 else None,
            typed.get("lifted") == "yes",
        )  # fmt: skip
    except InputError as error:
        return show(request, call, "power", standing, measure_error=str(error))
    return _back(number, state=state)


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
    return _back(number, "windings", "locked_out")


@require_POST
def take_back(request, number, pk):
    """Take a measurement back."""
    call = call_of(request, number)
    undo_entry(request.user, get_object_or_404(call.measurements, pk=pk))
    messages.success(request, "Taken back.")
    return redirect("stop", number=number, stop="power")


@require_POST
def wiring(request, number):
    """Keep what is known of the unit's circuit, or say beside each field what is wrong."""
    call = call_of(request, number)
    try:
        keep_wiring(request.user, call, request.POST)
    except FieldErrors as error:
        return show(request, call, "power", wiring_errors=error.by_field)
    messages.success(request, "Kept with the unit.")
    return _back(number, "circuit")


@require_POST
def without(request, number, part):
    """Say that a part is not on this unit, or that it is after all."""
    call = call_of(request, number)
    with refusals_said(request):
        (put_back if request.POST.get("back") else drop_part)(request.user, call, part)
    return _back(number)


@require_POST
def wire(request, number):
    """Keep a wire that was found between two points, or take a drawn one away."""
    call, typed = call_of(request, number), request.POST
    with refusals_said(request):
        if typed.get("gone"):
            take_wire(request.user, call, typed["gone"])
        else:
            draw_wire(request.user, call, typed.get("one", ""), typed.get("other", ""))
    return _back(number, "circuit")


@require_POST
def start_wires(request, number, which):
    """Keep the wires of the start gear as they were tapped, or say what cannot be a wire."""
    call = call_of(request, number)
    wires = [text.split("-") for text in request.POST.get("wires", "").split(",") if text]
    with refusals_said(request):
        keep_start_wiring(request.user, call, which, wires)
        messages.success(request, "Wires kept.")
    return _back(number, "start-gear")


@require_safe
def start_sheet(request, number):
    """A sheet to print before anything is pulled off: the drawing, and a label for each wire."""
    call = call_of(request, number)
    context = panels.start_gear_context(call, call.unit.resolved().phases)
    if context["start"] is None:
        raise Http404
    return render(request, "electrical/start_sheet.html", {"call": call} | context)


@require_POST
def put_there(request, number):
    """Put on record what was put on the unit."""
    call = call_of(request, number)
    with refusals_said(request):
        kept = place(request.user, call, request.POST.get("what", ""), request.POST.get("where", ""))
        messages.success(request, f"{kept}: on record as still there.")
    return _to(request, number)


@require_POST
def gone(request, number, pk):
    """Say that something is gone."""
    call = call_of(request, number)
    placed = get_object_or_404(Placed.objects.filter(call__unit=call.unit_id, undone_at=None), pk=pk)
    with refusals_said(request):
        take_away(request.user, placed, call)
        messages.success(request, f"{placed}: gone.")
    return _to(request, number)


@require_POST
def output(request, number):
    """Keep that an output was moved for the time being, or say what of the list is open."""
    call, typed = call_of(request, number), request.POST
    try:
        kept = move_output(request.user, call, typed)
    except FieldErrors as error:
        wrong = error.by_field
        fields = [(name, label, typed.get(name, ""), hint, wrong.get(name, "")) for name, label, hint in panels.OUTPUT_FIELDS]
        ticks = [(name, words, bool(typed.get(name)), wrong.get(name, "")) for name, words in OUTPUT_TICKS.items()]
        return show(request, call, "power", output_fields=fields, output_ticks=ticks, output_open=True)
    except InputError as error:
        messages.error(request, str(error))
    else:
        messages.success(request, f"{kept}. Marked temporary until it is undone.")
    return _back(number, "outputs")


def _to(request, number):
    """Back to where it was said: the hand-over, Controls or Power."""
    if request.POST.get("from") == "controls":
        return redirect("controls", number=number)
    if request.POST.get("from") == "hand-over":
        return redirect("stop", number=number, stop="hand-over")
    return _back(number, "placed")
