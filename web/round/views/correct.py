"""Correcting: a turn of the valve stem, or a setting, as found and as left."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import get_object_or_404, redirect
from django.views.decorators.http import require_POST

from kettle.benches.valve import adjust
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import InputError
from kettle.knowledge.parameters import PARAMETERS
from web.logbook.actions.change_setting import FieldErrors, change_setting
from web.logbook.actions.turn_valve import ReasonNeeded, turn_valve
from web.logbook.actions.undo_entry import undo_entry
from web.round.views.pages import call_of, show, standing_of

# Where one goes after taking back what was recorded elsewhere.
BACK_TO = {"override": "judge", "finding": "judge"}


def correct_context(request, standing, **extra):
    """What the stop shows: superheat and goal, directions, settings, cautions."""
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
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
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
    return show(request, call, "correct", standing, **correct_context(request, standing, **extra))


@require_POST
def setting(request, number):
    """Record a setting as found and as left."""
    call = call_of(request, number)
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
        standing = standing_of(request, call)
        return show(request, call, "correct", standing, **correct_context(request, standing, typed=typed, errors=errors))
    messages.success(request, "Setting recorded as found and as left.")
    return redirect("stop", number=number, stop="correct")


@require_POST
def take_back(request, number, what, pk):
    """Take back a valve turn, a setting change or a set."""
    call = call_of(request, number)
    entries = {
        "turn": call.valveturns,
        "setting": call.settingchanges,
        "set": call.readingsets,
        "override": call.overrides,
        "finding": call.findings,
    }.get(what)
    if entries is None:
        raise Http404
    try:
        undo_entry(request.user, get_object_or_404(entries, pk=pk))
    except InputError as error:
        messages.error(request, str(error))
    return redirect("sets", number=number) if what == "set" else redirect("stop", number=number, stop=BACK_TO.get(what, "correct"))
