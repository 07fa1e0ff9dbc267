"""What is kept of refrigerant work."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect
from django.urls import reverse
from django.views.decorators.http import require_POST

from kettle.benches.refrigerant.change import PARTS
from kettle.benches.refrigerant.leaks import BACKGROUND
from kettle.knowledge.errors import FieldErrors, InputError
from web.benches.refrigerant.actions import record
from web.benches.refrigerant.actions.change_refrigerant import change_refrigerant
from web.benches.refrigerant.actions.first_start import keep_first_start, keep_line_size
from web.benches.refrigerant.views.bench import show_bench, told_by_gauge
from web.benches.refrigerant.views.machine import LINE
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.refusals import refusals_said
from web.round.asked import Asked
from web.round.views.pages import call_of, standing_of


def _back(number, part):
    return redirect(f"{reverse('refrigerant', args=[number])}#{part}")


@require_POST
def look(request, number, place, heard):
    """What a place gave."""
    call = call_of(request, number)
    try:
        typed = request.POST.get("background" if place == BACKGROUND else "reading", "")
        record.keep_look(request.user, call, standing_of(request, call).judgement.facts, place, heard, typed)
    except FieldErrors as error:
        return show_bench(request, call, typed=request.POST.dict() | {"at": place}, wrong=error.by_field)
    except InputError as error:
        messages.error(request, str(error))
    return _back(number, "leak")


@require_POST
def microns(request, number):
    """A reading of the vacuum gauge."""
    call = call_of(request, number)
    try:
        record.keep_microns(request.user, call, request.POST.get("microns", ""), request.POST.get("pump") != "off")
    except InputError as error:
        wrong = error.beside("microns")
        return show_bench(request, call, typed=request.POST, wrong=wrong)
    return _back(number, "evacuation")


@require_POST
def told_microns(request, number):
    """Keep what the vacuum gauge told by itself, with the pump running or shut off since."""
    call = call_of(request, number)
    with refusals_said(request):
        kept = record.keep_told(request.user, call, told_by_gauge(call), request.POST.get("pump") != "off", str(call.unit.probes))
        messages.success(request, f"{kept} readings of the gauge kept.")
    return _back(number, "evacuation")


@require_POST
def undo_microns(request, number, pk):
    """Take a reading of the vacuum gauge back."""
    call = call_of(request, number)
    with refusals_said(request):
        undo_entry(request.user, get_object_or_404(call.vacuumreadings, pk=pk))
    return _back(number, "evacuation")


@require_POST
def another(request, number):
    """It runs on another refrigerant from now on."""
    call = call_of(request, number)
    with refusals_said(request):
        kept = change_refrigerant(request.user, call, request.POST.get("to", ""))
        messages.success(request, f"On record: it runs on {kept.data['to']} from now on.")
    return _back(number, "other")


@require_POST
def nitrogen(request, number):
    """A standing-pressure test."""
    call = call_of(request, number)
    try:
        record.keep_test(request.user, call, request.POST)
    except InputError as error:
        wrong = error.beside("start_psig")
        return show_bench(request, call, typed=request.POST, wrong=wrong)
    return _back(number, "nitrogen")


@require_POST
def change_step(request, number, part, step):
    """A step of a change, done or taken back."""
    call = call_of(request, number)
    with refusals_said(request):
        standing = call.changesteps.filter(part=part, step=step, undone_at=None).first()
        if standing is not None:
            undo_entry(request.user, standing)
        else:
            record.do_step(request.user, call, part, step, request.POST.get("note", ""))
    if part == "triple":
        return _back(number, "evacuation")
    chosen = part if part in PARTS else "compressor"
    return redirect(f"{reverse('refrigerant', args=[number])}?part={chosen}#change")


@require_POST
def first_start(request, number):
    """A reading after the first start of a new compressor."""
    call = call_of(request, number)
    try:
        keep_first_start(request.user, call, request.POST)
    except InputError as error:
        wrong = error.beside("start_amps")
        return show_bench(request, call, typed=request.POST, wrong=wrong)
    return _back(number, "first-start")


@require_POST
def line_size(request, number):
    """The suction line's bore against its stub."""
    call = call_of(request, number)
    asked = Asked(request.POST, standing_of(request, call).shown)
    line, stub = (asked.figure(name, label, "in") for name, label, *_ in LINE)
    for name, label, value in (("line_in", "Line", line), ("stub_in", "Stub", stub)):
        if value is None:
            asked.wrong.setdefault(name, f"{label}: its inside in inches")
    try:
        if asked.wrong:
            raise FieldErrors(asked.wrong)
        messages.success(request, f"{keep_line_size(request.user, call, line, stub)}.")
    except InputError as error:
        wrong = error.beside("line_in")
        return show_bench(request, call, typed=request.POST, wrong=wrong)
    return _back(number, "pumps")


@require_POST
def recover(request, number):
    """Gas recovered, by the scale."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    try:
        act = record.recover(request.user, call, standing.judgement, request.POST)
    except InputError as error:
        wrong = error.beside("after")
        return show_bench(request, call, typed=request.POST, wrong=wrong)
    messages.success(request, f"{standing.shown.text(act.value, 'oz', 1)} out, on the ledger.")
    full = record.overfull(call, request.POST.get("cylinder", ""), act.weighing.after_oz)
    if full:
        messages.error(request, f"{full}.")
    return _back(number, "recovery")


@require_POST
def give_up(request, number):
    """A leak left open on the customer's word."""
    call = call_of(request, number)
    try:
        record.give_up_leak(request.user, call, standing_of(request, call).judgement, request.POST)
    except InputError as error:
        wrong = error.beside("who")
        return show_bench(request, call, typed=request.POST, wrong=wrong)
    messages.success(request, "On record with name and reason; a visit is promised for it.")
    return _back(number, "leak")
