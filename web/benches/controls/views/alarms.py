"""Alarms by their role: what stands at the controller, what a display shows, and what the settings bring up by themselves."""

from django.http import Http404
from django.shortcuts import render
from django.views.decorators.http import require_safe

from kettle.benches.controls import alarms
from kettle.benches.controls.registers import alarms_of
from kettle.knowledge.errors import InputError
from web.links.controller import link
from web.logbook.calls.controller_talks import last_read
from web.round.views.pages import call_of

LONGEST = 60


@require_safe
def standing_alarms(request, number):
    """What stands at the unit's controller now, each by its role; a part of the page that asks for itself."""
    found = link(call_of(request, number).unit.controller)
    if found is None:
        raise Http404("This unit has no controller")
    try:
        standing = alarms_of(found.live())
    except InputError as error:
        return render(request, "controls/_standing_alarms.html", {"complaint": str(error)})
    return render(request, "controls/_standing_alarms.html", {"standing_alarms": alarms.of_controller(standing)})


def alarms_context(asked, standing):
    """The table of roles, what a display shows translated, and what the settings bring up."""
    shows = asked.typed.get("shows", "").strip()[:LONGEST]
    return {
        "alarms": alarms.ALARMS, "shows": shows, "translated": alarms.translated(shows) if shows else None,
        "provoked": alarms.provoked(_settings(standing)),
    }  # fmt: skip


def _settings(standing):
    """What of the settings has to do with alarms: those on record, else as the controller was read."""
    call, facts = standing.call, standing.judgement.facts
    left = {change.parameter: change.as_left for change in call.settingchanges.filter(undone_at=None)}
    talk = last_read(call)
    read = talk.settings if talk else {}

    def figure(code, role):
        try:
            return float(left[code].split()[0].replace(",", "."))
        except (KeyError, ValueError, IndexError):
            return read.get(role)

    return alarms.Settings(
        alarm_delay_min=figure("alarm_delay", "alarm_delay_min"),
        defrost_min=figure("fail_safe", "fail_safe_min") or facts.number("defrost_set_min"),
        drip_min=figure("drip", "drip_min"),
        offset_f=figure("alarm_high", "alarm_high"),
        differential_f=figure("differential", "differential") or standing.unit.differential_f,
        start_delay_min=figure("anti_short_cycle", "anti_short_cycle"),
        interlock=alarms.expects_interlock(left["interlock"])
        if "interlock" in left
        else bool(read["interlock"])
        if "interlock" in read
        else None,
    )
