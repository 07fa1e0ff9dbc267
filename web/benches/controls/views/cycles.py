"""Watching the cycles of a pressure control: tapped as they happen, or taken by themselves from probes or a controller."""

from datetime import timedelta

from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from kettle.benches.controls import cycles, pressure
from kettle.benches.controls.drawing import bars
from kettle.benches.controls.registers import LIVE
from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.benches.controls.actions.watch_cycles import hear_cycles, tap
from web.benches.controls.views.sums import Asked
from web.links import controller, probes
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, standing_of


def wanted_air(asked, unit):
    """The air wanted: what was typed, else about the set."""
    warmest, coldest = pressure.usual_air_f(unit)
    return asked.figure("warmest_f", "Warmest air", "°F", warmest), asked.figure("coldest_f", "Coldest air", "°F", coldest)


def cycles_context(call, asked, unit):
    """The cycles that were watched, what to move after two of them, and whether a device can take them."""
    rows = list(call.switchmoments.filter(undone_at=None))
    began = rows[0].at if rows else None
    found = cycles.cycles_of([cycles.Moment((one.at - began).total_seconds() / 60.0, one.what, one.box_f, one.psig) for one in rows])
    warmest, coldest = wanted_air(asked, unit)
    try:
        per_f = pressure.as_thermostat(unit.refrigerant, unit.altitude_ft, warmest, coldest, pressure.usual_td_f(unit)).psi_per_f
    except FieldErrors:
        # Said beside the fields already.
        per_f = None
    shown = asked.shown
    return {
        "tapped": [
            (one, "" if one.box_f is None else shown.text(one.box_f, "°F"), "" if one.psig is None else shown.text(one.psig, "psig", 0))
            for one in rows
        ],
        "watched": [
            (bar.number, f"{one.on_min:.0f}", f"{one.off_min:.0f}", _air(one.stop_f, shown), _air(one.start_f, shown),
             f"{bar.on_pct:.0f}", f"{bar.off_pct:.0f}")
            for one, bar in zip(found, bars(found), strict=True)
        ],
        "cycles_say": cycles.cycles_say(found, warmest, coldest, per_f) if rows and per_f else [],
        "hears": (call.unit.probes or call.unit.controller) if call.is_open else None,
        "listening": call.is_open and ("listen" in asked.typed or any(one.source for one in rows)),
    }  # fmt: skip


def _air(value, shown):
    return "–" if value is None else shown.figure(value, "°F")


def _told_by_devices(call):
    """Starts and stops by the unit's devices since the last that stands, with what told them; InputError says what is wrong."""
    last = call.switchmoments.last()
    since, unit = last.at if last else call.opened_at, call.unit
    if unit.probes:
        heard = probes.link(unit.probes)
        box = heard.since("box_temp_f", since) or heard.since("return_air_f", since)
        found = cycles.heard(heard.since("suction_psig", since), box)
        moments = [(since + timedelta(minutes=one.at_min), one.what, one.box_f, one.psig) for one in found]
        if moments or not unit.controller:
            return moments, _named("probes", unit.probes)
    now, live = work_time.now(), controller.link(unit.controller).live()
    one = cycles.shown_state(LIVE["state"].text(live["state"]), live["state_min"], 0.0, live["box_f"])
    moments = [(now + timedelta(minutes=one.at_min), one.what, one.box_f, one.psig)] if one else []
    return moments, _named("controller", unit.controller)


def _named(kind, device):
    return f"{kind}, simulated" if device.simulated else kind


@require_POST
def hear(request, number):
    """Take what the unit's devices told since the last look, and show what was watched by now."""
    call = call_of(request, number)
    wrong = ""
    try:
        if call.is_open and (call.unit.probes or call.unit.controller):
            hear_cycles(request.user, call, *_told_by_devices(call))
    except InputError as error:
        wrong = str(error)
    asked = Asked(request, request.POST)
    context = {"call": call, "hear_wrong": wrong} | cycles_context(call, asked, standing_of(request, call).unit)
    return render(request, "controls/_watched.html", context | {"listening": call.is_open})


@require_POST
def tapped(request, number, what):
    """A start or a stop, tapped as it happens."""
    call = call_of(request, number)
    with refusals_said(request):
        tap(request.user, call, what, request.POST)
    return redirect(f"{reverse('controls', args=[number])}#cycles")


@require_POST
def take_back(request, number, pk):
    """Take a start or a stop back."""
    call = call_of(request, number)
    undo_entry(request.user, get_object_or_404(call.switchmoments, pk=pk))
    return redirect(f"{reverse('controls', args=[number])}#cycles")
