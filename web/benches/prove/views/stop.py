"""The Prove stop: what is drawn of it, and what is tapped on it."""

from datetime import datetime, timedelta

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect
from django.utils import timezone
from django.views.decorators.http import require_POST

from kettle.benches.prove.stock import STOCK
from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.benches.prove.actions import watch_box
from web.benches.prove.told import told_of
from web.benches.trends.shown import chart_of, findings_of
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import BoxWatch
from web.logbook.refusals import refusals_said
from web.logbook.trends import logs_of
from web.round.views.pages import call_of, show, standing_of

REMIND_IN = (15, 30, 60, 120)


def prove_context(request, standing):
    """What the stop shows: the box, found beside left, proofs, whether it may be left, logs of the unit."""
    call, shown = standing.call, standing.shown
    told = told_of(standing)
    logs = logs_of(call.unit)
    return {
        **told, "watch_fields": _watch_fields(standing, {}, {}), "stocks": STOCK.items(), "remind_in": REMIND_IN,
        "chart": chart_of(call.unit, shown, logs), "findings": findings_of(logs, shown)[:6], "logs": logs, "unit": call.unit,
        "open_call": call if call.is_open else None, "drop_call": call.number if call.is_open else "",
    }  # fmt: skip


def _watch_fields(standing, typed, wrong):
    facts, shown = standing.judgement.facts, standing.shown
    rows = []
    for name, label, key in watch_box.FIELDS:
        value = facts.number(key)
        stands = "" if value is None else shown.edit(value, "°F")
        rows.append((name, label, shown.label("°F"), typed.get(name, stands), wrong.get(name, "")))
    return rows


def _back(number, part=""):
    answer = redirect("stop", number=number, stop="prove")
    answer["Location"] += part
    return answer


@require_POST
def watch(request, number):
    """Begin to watch the box."""
    call = call_of(request, number)
    try:
        watch_box.watch_box(request.user, call, request.POST)
    except FieldErrors as error:
        return _again(request, call, error.by_field)
    except InputError as error:
        messages.error(request, str(error))
    return _back(number, "#box")


def _again(request, call, wrong):
    standing = standing_of(request, call)
    return show(request, call, "prove", standing, watch_fields=_watch_fields(standing, request.POST, wrong), watch_wrong=wrong,
                watch_typed=request.POST)  # fmt: skip


@require_POST
def read_box(request, number):
    """The box read now."""
    call = call_of(request, number)
    typed, moment = request.POST.get("box_now", ""), request.POST.get("box_at", "")
    try:
        when = {"at": _moment(call, moment)} if moment.strip() else {}
    except InputError as error:
        return show(request, call, "prove", box_typed=typed, box_at_typed=moment, box_at_wrong=str(error))
    try:
        record_reading(request.user, call, "box_temp_f", typed, **when)
    except InputError as error:
        return show(request, call, "prove", box_typed=typed, box_at_typed=moment, box_wrong=str(error))
    return _back(number, "#box")


def _moment(call, text):
    """A time of this visit, as in 14:05; InputError for another."""
    now = timezone.localtime(work_time.now())
    try:
        told = datetime.strptime(text.strip().replace(".", ":"), "%H:%M")
    except ValueError:
        raise InputError(f"At: “{text.strip()[:12]}” is not a time like {now:%H:%M}") from None
    at = now.replace(hour=told.hour, minute=told.minute, second=0, microsecond=0)
    at = at - timedelta(days=1) if at > now else at
    if at < call.opened_at:
        raise InputError(f"At: {text.strip()} is before the visit, {timezone.localtime(call.opened_at):%H:%M} to {now:%H:%M}")
    return at


@require_POST
def remind(request, number):
    """Be reminded of the box."""
    call = call_of(request, number)
    with refusals_said(request):
        found = watch_box.remind(request.user, call, request.POST.get("minutes", ""))
        messages.success(request, f"You will be reminded at {found.remind_at.astimezone():%H:%M}, on Board and wherever you are in here.")
    return _back(number, "#box")


@require_POST
def reminded(request, number, pk):
    """A reminder is heard: on to the box."""
    call = call_of(request, number)
    watch_box.reminded(request.user, get_object_or_404(BoxWatch, pk=pk, call=call))
    return _back(number, "#box")


@require_POST
def proof(request, number, code):
    """A proof, seen."""
    call = call_of(request, number)
    with refusals_said(request):
        watch_box.see_proof(request.user, call, code)
    return _back(number, "#proofs")
