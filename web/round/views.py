"""The screens of a call: each shows a stop, or stores one thing and answers with what changed."""

from django.contrib import messages
from django.http import Http404, HttpResponseRedirect
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from kettle import observations
from kettle.cautions import words
from kettle.controls.parameters import PARAMETERS
from kettle.errors import InputError
from kettle.valve import adjust
from web.logbook.actions import hand_over as hand_over_actions
from web.logbook.actions.change_setting import FieldErrors, change_setting
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.turn_valve import ReasonNeeded, turn_valve
from web.logbook.actions.undo_entry import last_reading, undo_entry
from web.logbook.models import Call
from web.round import drawing
from web.round.standing import Standing
from web.round.stops import BY_SLUG


def _call(request, number):
    calls = Call.objects.for_user(request.user).select_related("unit__site", "opened_by")
    return get_object_or_404(calls.prefetch_related("readings"), number=number)


def _page(request, call, stop, standing=None, **extra):
    standing = standing or Standing(call)
    context = {
        "call": call,
        "stop": BY_SLUG[stop],
        "standing": standing,
        "round": standing.round(stop),
        "next_tag": standing.next_tag(stop),
        "last_reading": _last(call),
        **extra,
    }
    return render(request, f"round/{stop.replace('-', '_')}.html", context)


def _last(call):
    reading = last_reading(call)
    return (reading, observations.get(reading.key)) if reading else None


@require_GET
def call_home(request, number):
    """Go to the stop where the call stands."""
    call = _call(request, number)
    return redirect("stop", number=number, stop="read" if call.readings.exists() else "arrive")


@require_http_methods(["GET", "POST"])
def stop(request, number, stop):
    """Show a stop."""
    found = BY_SLUG.get(stop)
    if found is None or not found.ready:
        raise Http404
    call = _call(request, number)
    if stop == "hand-over" and request.method == "POST":
        return _hand_over(request, call)
    extra = {"drawing": drawing} if stop == "read" else _correct_context(Standing(call)) if stop == "correct" else {}
    return _page(request, call, stop, **extra)


@require_POST
def enter(request, number, key):
    """Store one observation and answer with its tag, the quantities and the standing."""
    call = _call(request, number)
    if key not in observations.REGISTRY:
        raise Http404
    entry = observations.get(key)
    typed = request.POST.getlist(key) if entry.many else request.POST.get(key, "")
    wrong = {}
    try:
        record_reading(request.user, call, key, typed)
    except InputError as error:
        wrong[key] = (typed if isinstance(typed, str) else "", str(error))
    return _changed(request, number, key, wrong)


@require_POST
def undo(request, number):
    """Take back the last reading and answer with its tag and everything that changed."""
    call = _call(request, number)
    reading = last_reading(call)
    if reading is None:
        return _changed(request, number, "", {})
    try:
        undo_entry(request.user, reading)
    except InputError as error:
        messages.error(request, str(error))
    return _changed(request, number, reading.key, {}, from_undo=True)


def _changed(request, number, key, wrong, from_undo=False):
    """The entry field of a key where the screen has one and, out of band, all that depends on it."""
    call = _call(request, number)
    standing = Standing(call, wrong)
    here = BY_SLUG.get(request.POST.get("stop"), BY_SLUG["read"]).slug
    on_drawing = {tag.entry.key: tag for tag in standing.tags} if here == "read" else {}
    return render(
        request,
        "round/changed.html",
        {
            "call": call,
            "tag": on_drawing.get(key) or (standing.tag(key) if standing.has_field(here, key) else None),
            "standing": standing,
            "stop": BY_SLUG[here],
            "round": standing.round(here),
            "next_tag": standing.next_tag(here),
            "last_reading": _last(call),
            "target": request.htmx.target or "",
            "from_undo": from_undo,
        },
    )


@require_GET
def standing(request, number, stop):
    """The standing alone, as the settling clock asks for it."""
    if stop not in BY_SLUG:
        raise Http404
    call = _call(request, number)
    now = Standing(call)
    context = {"call": call, "standing": now, "stop": BY_SLUG[stop], "next_tag": now.next_tag(stop)}
    return render(request, "round/_standing.html", context)


def _correct_context(standing, **extra):
    verdict = next((v for v in standing.judgement.verdicts if v.quantity == "superheat_evap_f"), None)
    goal = adjust.goal_from(verdict)
    net = adjust.net_turns([(turn.direction, turn.turns) for turn in standing.turns])
    return {
        "directions": [(code, label, adjust.effect_words(code)) for code, label in adjust.DIRECTIONS.items()],
        "goals": adjust.GOALS.items(),
        "goal": goal or "",
        "superheat": verdict,
        "net_words": f"{abs(net):g} turn {'out' if net > 0 else 'in'} from where it was found" if net else "where it was found",
        "parameters": PARAMETERS.values(),
        "settle_min": adjust.SETTLE_MIN,
        "cautions": words("lock_out", "pressure", "licensed"),
        "has_stem": standing.unit.metering != "cap_tube",
        "typed": {},
        "errors": {},
        **extra,
    }


@require_POST
def valve(request, number):
    """Record a turn of the stem, or show what speaks against it and ask for a reason."""
    call = _call(request, number)
    standing, typed = Standing(call), request.POST
    try:
        turn_valve(
            request.user,
            call,
            standing.judgement,
            typed.get("direction", ""),
            typed.get("turns", ""),
            typed.get("goal", ""),
            typed.get("reason", ""),
        )
    except ReasonNeeded as error:
        extra = {"objections": error.objections, "typed": typed}
    except InputError as error:
        field = "turns" if str(error).startswith("Turns") else "direction"
        extra = {"errors": {field: str(error)}, "typed": typed}
    else:
        messages.success(request, "Turn recorded. The settling clock runs: wait before reading superheat again.")
        return redirect("stop", number=number, stop="correct")
    return _page(request, call, "correct", standing, **_correct_context(standing, **extra))


@require_POST
def setting(request, number):
    """Record a setting as found and as left."""
    call = _call(request, number)
    typed = request.POST
    try:
        change_setting(
            request.user,
            call,
            typed.get("parameter", ""),
            typed.get("as_found", ""),
            typed.get("as_left", ""),
            typed.get("why", ""),
        )
    except InputError as error:
        errors = error.by_field if isinstance(error, FieldErrors) else {"parameter": str(error)}
        standing = Standing(call)
        return _page(request, call, "correct", standing, **_correct_context(standing, typed=typed, errors=errors))
    messages.success(request, "Setting recorded as found and as left.")
    return redirect("stop", number=number, stop="correct")


@require_POST
def take_back(request, number, what, pk):
    """Take back a valve turn or a setting change."""
    call = _call(request, number)
    entries = {"turn": call.valveturns, "setting": call.settingchanges}.get(what)
    if entries is None:
        raise Http404
    try:
        undo_entry(request.user, get_object_or_404(entries, pk=pk))
    except InputError as error:
        messages.error(request, str(error))
    return redirect("stop", number=number, stop="correct")


def _hand_over(request, call):
    try:
        hand_over_actions.write_hand_over(request.user, call, request.POST)
    except InputError as error:
        errors = error.by_field if isinstance(error, FieldErrors) else {"found": str(error)}
        return _page(request, call, "hand-over", typed=request.POST, errors=errors)
    messages.success(request, "Kept.")
    return HttpResponseRedirect(reverse("stop", kwargs={"number": call.number, "stop": "hand-over"}))


@require_POST
def close(request, number):
    """End the visit."""
    call = _call(request, number)
    try:
        hand_over_actions.close_call(request.user, call)
    except InputError as error:
        messages.error(request, str(error))
        return redirect("stop", number=number, stop="hand-over")
    messages.success(request, f"{call} is closed.")
    return redirect("board")
