"""Who teaches looks on: each step of the learner as it comes, what is wrong with the unit, and what can be done about it."""

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge import anatomy
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_percent, whole
from web.round.standing import Standing
from web.yard import telling
from web.yard.actions import teach
from web.yard.inside import inside
from web.yard.models import Practice
from web.yard.work import Work

SUSPECTS, STEPS_SHOWN = 4, 60


def _taught(request, pk):
    """A practice call somebody teaches on; 404 for anybody else's."""
    practices = Practice.objects.for_user(request.user).select_related("shop", "of_shop", "learner")
    practice = get_object_or_404(practices, pk=pk, joined__user=request.user, joined__role="instructor")
    return Work(practice, request)


def _context(work):
    practice = work.practice
    call = practice.call
    standing = Standing(call, shown=work.shown)
    lines = telling.path_of(practice, work.shown)[-STEPS_SHOWN:]
    return {
        "work": work, "call": call, "standing": standing, "lines": list(reversed(lines)), "stamp": work.stamp,
        "wrong": [(telling.causes_in_words([code]), format_percent(severity)) for code, severity in work.core.draw.wrong],
        "still": {telling.causes_in_words([code]) for code in work.rig.wrong},
        "suspects": standing.suspects[:SUSPECTS],
    }  # fmt: skip


@require_safe
def watch(request, pk):
    """The screen of who teaches."""
    work = _taught(request, pk)
    with inside(request.user, work.practice):
        context = _context(work)
        context["parts"] = [(part.code, part.label) for part in anatomy.on(work.rig.unit)]
        return render(request, "yard/teach.html", context)


@require_safe
def live(request, pk):
    """The same again, where something was done since it was looked at."""
    work = _taught(request, pk)
    if request.GET.get("seen") == work.stamp:
        return HttpResponse(status=204)
    with inside(request.user, work.practice):
        return render(request, "yard/_teach_live.html", _context(work))


@require_POST
def do(request, pk, what):
    """Ask, hint, hold time or let it go on, put a fault in, mark."""
    work, typed = _taught(request, pk), request.POST
    does = {
        "ask": lambda: teach.ask_at(request.user, work, typed.get("part", ""), typed.get("words", "")),
        "hint": lambda: teach.give_hint(request.user, work, typed.get("words", "")),
        "hold": lambda: teach.hold_time(request.user, work, True),
        "go-on": lambda: teach.hold_time(request.user, work, False),
        "fault": lambda: teach.put_in(request.user, work, typed.get("cause", "")),
        "mark": lambda: teach.mark(request.user, work, whole(typed.get("step", ""), 1, 10**12) or 0, typed.get("how", "")),
    }  # fmt: skip
    if what not in does:
        raise Http404
    try:
        does[what]()
    except InputError as error:
        messages.error(request, str(error))
    return redirect("teach", pk=pk)
