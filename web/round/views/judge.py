"""Judging: what if it read…, why not…, what was found, and what is taken on against a hold."""

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.judging import mistakes
from kettle.judging.holds import ACTIONS
from kettle.judging.schools import in_order, steps
from kettle.knowledge import causes, observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_percent
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.override_hold import override_hold
from web.logbook.calls.holds import taken_on
from web.logbook.calls.judging import judge_call
from web.logbook.refusals import refusals_said
from web.round.standing.sheets import against
from web.round.stops import STOPS
from web.round.views.pages import call_of, standing_of

SUSPECTS_TOLD = 6
COMPARED = 4


def judge_context(request, standing):
    """What the stop shows beyond the standing: checks with their places, holds with their actions, what if, why not."""
    judgement, schools = standing.judgement, request.user.member.schools
    return {
        "told": [
            (
                suspect,
                percent,
                steps(suspect, schools, judgement.facts.seen),
                mistakes.invited(judgement.facts, suspect.codes),
                against(suspect, standing.unit),
            )
            for suspect, percent in standing.suspects[:SUSPECTS_TOLD]
        ],
        "checks": [
            (check, _stop_with(standing, check.key), _tag(standing, check.key))
            for check in in_order(() if standing.covered else judgement.next_checks, schools)
        ],
        "held": _held(standing),
        "why_codes": [(cause.code, cause.label) for cause in causes.CATALOGUE.values() if cause.possible_on(standing.unit)],
        **_why(request, standing),
        **_what_if(request, standing),
    }


def _stop_with(standing, key):
    """The stop whose screen has a field for an observation; None where only this one can take it."""
    return next((stop for stop in STOPS if standing.has_field(stop.slug, key)), None)


def _tag(standing, key):
    return None if _stop_with(standing, key) else standing.tag(key)


def _held(standing):
    """Holds by what they block: the holds, the blocked actions still held, and those taken on with a reason."""
    taken, by_action = taken_on(standing.call), {}
    for hold in standing.judgement.holds:
        for action in hold.blocks:
            by_action.setdefault(action, []).append(hold)
    rows = {}
    for action, holds in by_action.items():
        key = tuple((hold.code, hold.text) for hold in holds)
        held, on = rows.setdefault(key, (holds, [], []))[1:]
        if action in taken:
            on.append((ACTIONS[action], taken[action]))
        else:
            held.append((action, ACTIONS[action]))
    free = [hold for hold in standing.judgement.holds if not hold.blocks]
    return [*rows.values(), *([(free, [], [])] if free else [])]


def _why(request, standing):
    """The cause asked about, however unlikely, with its evidence."""
    code = request.GET.get("why", "")
    if not code:
        return {}
    try:
        suspect = standing.course.suspect(code, standing.told.record.found_before)
    except InputError as error:
        return {"why_error": str(error)}
    return {"why": suspect, "why_percent": format_percent(suspect.probability), "why_code": code}


def _what_if(request, standing):
    """The ranking as it would be if one observation read otherwise, beside the one that stands; nothing is stored."""
    entries = [entry for entry in observations.REGISTRY.values() if not entry.many and entry.group != "told"]
    keys = [(entry.key, entry.label) for entry in entries if entry.exists_on(standing.unit)]
    found = {"what_if_keys": keys, "what_if_key": request.GET.get("what_if", ""), "what_if_value": request.GET.get("value", "")}
    if not found["what_if_key"]:
        return found
    try:
        entry = observations.get(found["what_if_key"])
        found["what_if_entry"] = entry
        if not found["what_if_value"]:
            return found
        value = entry.parse(found["what_if_value"], standing.shown)
        then = judge_call(standing.call, standing.shown, standing.coil, {entry.key: value})
    except InputError as error:
        return found | {"what_if_error": str(error)}
    return found | {
        "what_if_words": f"{entry.label} {entry.show(value, shown=standing.shown)}",
        "then": [(s, format_percent(s.probability)) for s in then.ranking[:COMPARED]],
        "now": standing.suspects[:COMPARED],
        "then_holds": [hold for hold in then.holds if hold.code not in {h.code for h in standing.judgement.holds}],
    }


@require_POST
def override(request, number):
    """Take on what a hold blocks, with a reason."""
    call = call_of(request, number)
    with refusals_said(request):
        override_hold(
            request.user, call, standing_of(request, call).judgement, request.POST.get("action", ""), request.POST.get("reason", "")
        )
        messages.success(request, "Taken on, with your reason. It is in the report.")
    return redirect("stop", number=number, stop="judge")


@require_POST
def found(request, number):
    """Say what the cause was found to be."""
    call = call_of(request, number)
    with refusals_said(request):
        standing = standing_of(request, call)
        coil = standing.coil if standing.unit.evaporators > 1 else None
        name_cause(request.user, call, [code for code in request.POST.get("causes", "").split("+") if code], coil)
        messages.success(request, "Kept as found. It counts at the next visit.")
    return redirect("stop", number=number, stop="judge")


@require_safe
def explanation(request, number):
    """What was found, for the customer, in plain words, to print."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    told = list({cause.code: cause for _, named, _ in standing.findings for cause in named}.values())
    context = {"call": call, "standing": standing, "named": told, "suspects": standing.top_suspects, "now": now_words(standing)}
    return render(request, "round/explanation.html", context)


def now_words(standing):
    """How it stands after what was done, for the customer: what is gone, and what has still to be proved."""
    if not standing.course.done:
        return ()
    best = standing.course.left[0]
    head = "Nothing of it is left by what we see now." if not best.codes else f"Still there: {best.suspect.label.lower()}."
    return (head, *(f"To be seen yet: {text[:1].lower()}{text[1:]}." for text in standing.to_prove))
