"""How a practice call went, and each step of it replayed on the drawing with the standing as it then was."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_safe

from kettle.call import tell
from kettle.call.kinds import KINDS
from kettle.knowledge import acts, observations
from kettle.knowledge.measures import format_percent, whole
from web.logbook.calls.courses import acts_of
from web.logbook.calls.record import record_of
from web.round.standing.picture import Picture
from web.yard import telling
from web.yard.templatetags.yard_words import span
from web.yard.views.work import _work

SUSPECTS = 4


@require_safe
def debriefed(request):
    """What it was, and how one's own path went beside the shortest."""
    work = _work(request)
    practice = work.practice
    if not practice.is_over:
        messages.error(request, "Name it first: then it is told.")
        return redirect("stop", number=work.call.number, stop="judge")
    told = telling.told_of(practice, work.shown)
    wrong, before = telling.draw_words(practice)
    was, named = set(told["was"]), set(told["named"])
    context = {
        "call": work.call, "told": told, "was": telling.causes_in_words(told["was"]), "named": telling.causes_in_words(told["named"]),
        "teachers": [one.user.first_name or one.user.username for one in practice.joined.filter(role="instructor").select_related("user")],
        "wrong": wrong, "before": before, "part": bool(named) and named < was,
        "found": telling.causes_in_words(told["shortest"]["codes"]),
        "forecasts": [_forecast(row, work.shown) for row in told["forecasts"]],
        "painted": None if told["painted"] is None else format_percent(told["painted"]),
        "clear_words": _clear_words(told),
    }  # fmt: skip
    return render(request, "yard/debrief.html", context)


def _clear_words(told):
    """When what was taken sufficed."""
    if told["known_at_min"] is None:
        return "by what you took it never stood clear"
    return f"it stood clear after {span(told['known_at_min'])}, with {told['gave_away']}"


def _forecast(row, shown):
    key, expected, came, cause = row
    entry = observations.get(key)
    as_value = lambda value: tuple(value) if isinstance(value, list) else value  # noqa: E731
    return (
        entry.label,
        entry.show(as_value(expected), shown=shown),
        entry.show(as_value(came), shown=shown),
        telling.causes_in_words([cause]),
    )


@require_safe
def replay(request):
    """The call after one of its steps: its drawing, what was likely, what had to wait, what came next."""
    work = _work(request)
    if not work.practice.is_over and not work.may_teach:
        raise Http404
    record = record_of(work.call, work.shown)
    shown = [event for event in record.events if event.kind in SHOWN and event.get("source") not in ("worked out", "setting")]
    if not shown:
        raise Http404
    place = whole(request.GET.get("step", ""), 1, len(shown)) or 1
    event = shown[place - 1]
    told = tell(record.upto(event.number))
    call = work.call
    course = told.course(1)
    check = next(iter(told.next_checks(1)), None)
    steps = acts_of(call, told)
    context = {
        "call": call, "place": place, "count": len(shown), "words": _words(told, event, work.shown), "at": event.at,
        "picture": Picture(told.record.unit, call.unit.build, told.call.facts_now(1).seen, work.shown, None, steps),
        "suspects": [(one, format_percent(one.probability)) for one in course.was[:SUSPECTS]],
        "holds": told.holds(1), "check": check, "next": shown[place] if place < len(shown) else None,
        "next_words": _words(told, shown[place], work.shown) if place < len(shown) else "",
    }  # fmt: skip
    return render(request, "yard/replay.html", context)


def _words(told, event, shown):
    """An event in a few words: what was taken with what it showed, what was done."""
    if event.kind == "reading":
        entry, value = observations.get(event.get("key")), event.get("value")
        return f"{entry.label}: {entry.show(tuple(value) if isinstance(value, list) else value, shown=shown)}"
    if event.kind == "act":
        return acts.get(event.get("part"), event.get("did")).label
    return f"{KINDS[event.kind].label}: {told.brief(event)}"


# Kinds of events that are shown one by one.
SHOWN = ("reading", "act", "weighed", "melt", "setting", "program", "measured", "ice", "leak_look", "found", "override", "cycle", "step")
