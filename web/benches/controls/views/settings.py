"""Correcting: a setting, as found and as left."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.benches.defrost.program import ROLES
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.parameters import PARAMETERS
from kettle.yard.how import of_parameter
from web.logbook.actions.change_setting import change_setting
from web.round.views.pages import call_of, show


def setting_context(request, standing):
    """What the panel shows: the settings there are."""
    told = [one for one in PARAMETERS.values() if one.code != "other"]
    how = [(one, of_parameter(one.code)) for one in told if of_parameter(one.code)]
    return {"parameters": told, "how_settings_work": how, "typed_setting": {}, "setting_errors": {}}


def _refuse_if_of_the_program(call, code):
    """Refuse a setting that the program kept on this call holds too: one place for each figure."""
    of_program = {role.parameter for role in ROLES.values() if role.parameter} | {"defrosts_per_day"}
    if code in of_program and call.defrostprograms.filter(undone_at=None).exists():
        raise FieldErrors({"parameter": f"{PARAMETERS[code].label} is part of the program kept on this call: change it on Programs"})


@require_POST
def setting(request, number):
    """Record a setting as found and as left."""
    call = call_of(request, number)
    typed = request.POST
    try:
        _refuse_if_of_the_program(call, typed.get("parameter", ""))
        change_setting(
            request.user,
            call,
            typed.get("parameter", ""),
            typed.get("as_found", ""),
            typed.get("as_left", ""),
            typed.get("why", ""),
        )
    except InputError as error:
        errors = error.beside("parameter")
        return show(request, call, "correct", typed_setting=typed, setting_errors=errors)
    messages.success(request, "Setting recorded as found and as left.")
    return redirect("stop", number=number, stop="correct")
