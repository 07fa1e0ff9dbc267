"""Showing the stops, and handing over."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_http_methods, require_POST, require_safe

from kettle.knowledge.errors import InputError
from web.logbook.actions import hand_over
from web.logbook.merging import shown_by
from web.logbook.refusals import refusals_said
from web.round.stops import BY_SLUG
from web.round.views.pages import call_of, show, standing_of, to_do


@require_safe
def call_home(request, number):
    """Go to the stop where the call stands."""
    call = call_of(request, number)
    return redirect("stop", number=number, stop="read" if call.readings.exists() else "arrive")


@require_http_methods(["GET", "HEAD", "POST"])
def stop(request, number, stop):
    """Show a stop."""
    found = BY_SLUG.get(stop)
    if found is None:
        raise Http404
    call = call_of(request, number)
    if stop == "hand-over" and request.method == "POST":
        return _hand_over(request, call)
    return show(request, call, stop)


@require_safe
def standing(request, number, stop):
    """The standing alone, as the settling clock asks for it."""
    if stop not in BY_SLUG:
        raise Http404
    call = call_of(request, number)
    now = standing_of(request, call)
    context = {"call": call, "standing": now, "stop": BY_SLUG[stop], "next_tag": now.next_tag(stop), "to_do": to_do(request, now)}
    return render(request, "round/_standing.html", context)


def _hand_over(request, call):
    try:
        hand_over.write_hand_over(request.user, call, request.POST, shown_by(request.POST))
    except InputError as error:
        errors = error.beside("found")
        return show(request, call, "hand-over", typed=request.POST, errors=errors)
    messages.success(request, "Kept.")
    return redirect("stop", number=call.number, stop="hand-over")


@require_POST
def answer(request, number):
    """Answer one thing that is left so, or ask it again."""
    call, typed = call_of(request, number), request.POST
    with refusals_said(request):
        hand_over.answer_doubt(request.user, call, typed.get("key", ""), typed.get("answer", ""))
    back = redirect("stop", number=number, stop="hand-over")
    back["Location"] += "#leaving"
    return back


@require_POST
def close(request, number):
    """End the visit."""
    call = call_of(request, number)
    try:
        hand_over.close_call(request.user, call, request.POST.get("reason", ""))
    except InputError as error:
        messages.error(request, str(error))
        return redirect("stop", number=number, stop="hand-over")
    messages.success(request, f"{call} is closed.")
    return redirect("board")
