"""Reminders that are due, whether a repair held, and a shop's own record."""

import json

from django.contrib import messages
from django.http import Http404
from django.shortcuts import get_object_or_404, render
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.prove.held import Case, record
from kettle.knowledge import causes
from kettle.knowledge.acts import ACTS
from web import work_time
from web.accounts.access import shop_of
from web.accounts.models import Member
from web.logbook.actions.outcomes import answer_outcome
from web.logbook.calls.outcomes import reminders_of
from web.logbook.models import Call, Outcome
from web.logbook.refusals import refusals_said
from web.logbook.sent import back

MOST_ROWS = 12


@require_safe
def reminders(request):
    """The reminders that are due, as a strip on every page; what is new is told to the browser once."""
    due = list(reminders_of(request.user, work_time.now()))
    answer = render(request, "prove/_reminders.html", {"reminders": due})
    if due:
        answer["HX-Trigger"] = json.dumps({"reminder": {"words": [f"{one.call.unit}: look at the box" for one in due]}})
    return answer


@require_POST
def held(request, number, answer):
    """Whether what was done on a call held."""
    call = get_object_or_404(Call.objects.for_user(request.user), number=number)
    outcome = get_object_or_404(Outcome, call=call)
    with refusals_said(request):
        answer_outcome(request.user, outcome, answer)
        messages.success(request, f"{call}: {outcome.get_answer_display()}. It counts in the shop's record.")
    return back(request)


@require_safe
def shop_record(request):
    """The shop's own record; of one person to that person and the owner alone."""
    shop, who = shop_of(request.user), request.GET.get("who", "")
    told = Outcome.objects.filter(call__shop=shop).select_related("call__unit__site")
    owner = request.user.member.owner
    people = list(Member.objects.filter(shop=shop).select_related("user")) if owner else [request.user.member]
    chosen = next((member for member in people if who == str(member.user_id)), None)
    if who and chosen is None:
        raise Http404
    if chosen is not None:
        told = told.filter(call__opened_by=chosen.user)
    cases = [
        Case(tuple(one.suspects), one.probability, tuple(one.found), one.minutes, tuple(one.done), one.answer, str(one.call.unit),
             timezone.localtime(one.call.closed_at or one.call.opened_at).year)
        for one in told
    ]  # fmt: skip
    found = record(cases)
    context = {
        "record": found, "people": people, "chosen": chosen, "closed": len(cases),
        "bars": [_bar(rate, n) for n, rate in enumerate(found.by_probability)],
        "tables": [
            ("First suspect right, by cause", _rows(found.by_cause, _cause)),
            ("Came back, by cause", _rows(found.back_by_cause, _cause)),
            ("Came back, by repair", _rows(found.back_by_repair, _act)),
            ("Came back, by unit", _rows(found.back_by_unit, str)),
            ("Came back, by year", _rows(found.back_by_year, str)),
        ],
        "minutes": f"{found.minutes:.0f}" if found.minutes is not None else "",
    }  # fmt: skip
    return render(request, "prove/record.html", context)


# The drawing of stated against right: a bar each, 340 wide for all of them.
BAR_X, BAR_W, BAR_Y, BAR_STEP = 130, 340, 20, 40


def _bar(rate, place):
    return {"name": rate.name, "of": rate.of, "count": rate.count, "few": rate.few, "y": BAR_Y + BAR_STEP * place,
            "right_w": round(BAR_W * rate.share, 1), "stated_x": round(BAR_X + BAR_W * (rate.mean or 0.0), 1)}  # fmt: skip


def _rows(rates, words):
    return [(words(rate.name), rate, f"{100 * rate.share:.0f}", round(100 * rate.share)) for rate in rates[:MOST_ROWS]]


def _cause(code):
    return causes.CATALOGUE[code].label if code in causes.CATALOGUE else code


def _act(code):
    return ACTS[code].label if code in ACTS else code
