"""What is kept of the charge: gas by the scale, the receiver's level, a visit on a warm day."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.benches.prove.promised import COLD_CHARGE
from kettle.knowledge.errors import FieldErrors, InputError
from web.benches.charge.actions.by_eye import by_eye
from web.benches.charge.actions.weigh import weigh
from web.benches.charge.views.page import show_charge
from web.logbook.actions.do_act import Held
from web.logbook.actions.promise import promise
from web.logbook.actions.record_reading import record_reading
from web.round.views.pages import call_of, standing_of

WARM_DAY_WHY = "Charge to be verified with the air on the condenser above 70 °F"


@require_POST
def add(request, number, did):
    """Keep gas that went in by the scale, or show what speaks against it."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    try:
        act = weigh(request.user, call, standing.judgement, did, typed)
    except Held as error:
        return show_charge(request, call, typed={did: typed}, held={did: str(error)})
    except InputError as error:
        return show_charge(request, call, typed={did: typed}, wrong={did: error.beside("after")})
    messages.success(request, f"{standing.shown.text(act.value, 'oz', 1)} kept. Ten minutes before it is read.")
    return redirect("charge", number=number)


@require_POST
def without_scale(request, number):
    """Keep gas that went in by eye or by the amps, or show what speaks against it."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    try:
        act = by_eye(request.user, call, standing.judgement, typed)
    except Held as error:
        return show_charge(request, call, typed={"by_eye": typed}, held={"by_eye": str(error)})
    except FieldErrors as error:
        return show_charge(request, call, typed={"by_eye": typed}, wrong={"by_eye": error.by_field})
    about = f", about {standing.shown.text(act.value, 'oz', 0)}" if act.value else ""
    messages.success(request, f"Kept{about}, marked as without a scale. Ten minutes before it is read.")
    return redirect("charge", number=number)


@require_POST
def level(request, number):
    """Keep the receiver's level as it was found by tapping or warming."""
    call = call_of(request, number)
    try:
        record_reading(request.user, call, "receiver_level_pct", request.POST.get("level_pct", ""))
    except InputError as error:
        return show_charge(request, call, typed={"level": request.POST}, wrong={"level": {"level_pct": str(error)}})
    return redirect("charge", number=number)


@require_POST
def warm_day(request, number):
    """Promise to come back on a warm day."""
    call = call_of(request, number)
    try:
        promise(request.user, call, COLD_CHARGE.what, request.POST.get("day", ""), WARM_DAY_WHY, COLD_CHARGE.code)
    except InputError as error:
        text = next(iter(error.by_field.values())) if isinstance(error, FieldErrors) else str(error)
        return show_charge(request, call, typed={"warm": request.POST}, wrong={"warm": {"day": text}})
    messages.success(request, "Promised: it is on Board and in the hand-over.")
    return redirect("charge", number=number)
