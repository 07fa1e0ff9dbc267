"""The case controller: read, checked, taken as found, written and read back, a defrost started, service mode left."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.controls.registers import LIVE, OF_DAY, REGISTERS, alarms_of, checks, program_settings, starts_of
from kettle.benches.defrost.program import ROLES, times
from kettle.knowledge.equipment import CHOICES
from kettle.knowledge.errors import InputError
from web.accounts.access import shown_to
from web.benches.controls.actions import talk_to_controller as actions
from web.benches.defrost import planning
from web.benches.defrost.actions.keep_program import keep_program
from web.links.controller import link
from web.logbook.actions.devices import devices_of
from web.logbook.calls.controller_talks import in_service, last_read
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, frame, standing_of

SERVICE = {"service": 1.0, "leave": 0.0}


def _link(call):
    found = link(call.unit.controller)
    if found is None:
        raise Http404("This unit has no controller")
    return found


def _live(call, shown):
    """What the controller tells of the moment, in words; and what is wrong where it tells nothing."""
    try:
        live = _link(call).live()
    except InputError as error:
        return {"complaint": str(error)}
    told = [(register.label, register.text(live[role], shown)) for role, register in LIVE.items() if role != "alarms"]
    return {"live": told, "alarms": alarms_of(live)}


def _context(request, call, standing):
    shown, read = standing.shown, last_read(call)
    last = call.controllertalks.filter(undone_at=None).last()
    settings = read.settings if read else {}
    plate = CHOICES["kind"][standing.unit.kind.code]
    kept = planning.kept_programs(call)
    rows = [
        {"label": REGISTERS[role].label, "value": REGISTERS[role].text(value, shown), "range": _range(REGISTERS[role], shown)}
        for role, value in settings.items()
        if not (role.startswith("start_") and value < 0)
    ]
    return {
        "controller": call.unit.controller,
        "choices": devices_of(call.unit, "controller"),
        "read": read,
        "rows": rows,
        "checks": checks(settings, standing.unit.refrigerant.name, plate) if settings else [],
        "strange": actions.strangeness(call, read) if read else [],
        "written": last if last and last.wrote else None,
        "outcomes": actions.outcomes(last, shown) if last and last.wrote else [],
        "stop_view": "controller",
        "kept": kept,
        "shown": shown,
    }


def _range(register, shown):
    if register.words:
        return ", ".join(register.words)
    if register.unit == OF_DAY:
        return f"{register.text(0, shown)} to {register.text(register.high, shown)}"
    return shown.span(register.low, register.high, register.unit)


@require_safe
def controller(request, number):
    """The controller's settings as they were read, what came of writing; what it tells of the moment where that is asked for."""
    call = call_of(request, number)
    if request.htmx:
        return render(request, "controls/_controller_live.html", {"call": call, **_live(call, shown_to(request.user))})
    standing = standing_of(request, call)
    return render(request, "controls/controller.html", frame(request, call, "programs", standing) | _context(request, call, standing))


@require_POST
def read(request, number):
    """Read all settings."""
    call = call_of(request, number)
    with refusals_said(request):
        actions.read_controller(request.user, call, _link(call))
        messages.success(request, "All settings are read and kept as they were found.")
    return redirect("controller", number=number)


@require_POST
def take(request, number):
    """Keep the program that was read as the program as found."""
    call = call_of(request, number)
    found, shown = last_read(call), shown_to(request.user)
    try:
        if found is None:
            raise InputError("Read the controller first")
        typed = {role: shown.edit(found.settings[role], ROLES[role].unit) for role in ROLES if role in found.settings}
        typed["starts"] = times(starts_of(found.settings))
        keep_program(request.user, call, "found", typed, source=actions.source_of(found))
    except InputError as error:
        messages.error(request, str(error))
        return redirect("controller", number=number)
    messages.success(request, "The program as read is kept as found.")
    return redirect("stop", number=number, stop="programs")


@require_POST
def write(request, number):
    """Write the program as left, and read everything back."""
    call = call_of(request, number)
    left = planning.kept_programs(call).get("left")
    with refusals_said(request):
        if left is None:
            raise InputError("Keep a program as left first")
        if not in_service(call):
            raise InputError("Put the controller in service mode first: it takes no writes outside it")
        _write(request, call, program_settings(tuple(left.starts), left.figures))
    return redirect("controller", number=number)


@require_POST
def service(request, number, what):
    """Put the controller in service mode, or leave it."""
    if what not in SERVICE:
        raise Http404
    call = call_of(request, number)
    with refusals_said(request):
        _write(request, call, {"service_mode": SERVICE[what]})
    return redirect("controller", number=number)


def _write(request, call, wanted):
    talk = actions.write_controller(request.user, call, _link(call), wanted, request.POST.get("reason", ""))
    marks = [outcome["mark"][2] for outcome in actions.outcomes(talk, shown_to(request.user))]
    if talk.complaint:
        messages.error(request, f"{talk.complaint}. Nothing counts as written until it is read back.")
    elif all(mark == "confirmed" for mark in marks):
        messages.success(request, f"Written and read back: {len(marks)} confirmed.")
    else:
        wrong = len([mark for mark in marks if mark != "confirmed"])
        messages.error(request, f"{wrong} of {len(marks)} did not come back as they were written; look below.")


@require_POST
def start_defrost(request, number):
    """Have the controller start a defrost, and go to watch it."""
    call = call_of(request, number)
    try:
        actions.start_defrost(request.user, call, _link(call))
    except InputError as error:
        messages.error(request, f"No defrost was started: {error}")
        return redirect("controller", number=number)
    messages.success(request, "The controller was told to start a defrost. Start the clock when it does.")
    return redirect("watch", number=number)
