"""What is promised: on a unit, in the days to come, and what the core proposes for a visit."""

from datetime import timedelta

from django.utils import timezone

from kettle.benches.prove import promised
from kettle.call.asks import placed_words, still_there
from kettle.call.placed import FOR_NOW
from web import work_time
from web.logbook.calls.judging import told_of
from web.logbook.models import FollowUp, QuoteLine

MOST_DECLINED = 12


def due_before(user, day):
    """What is promised up to a day, soonest first."""
    return FollowUp.objects.for_user(user).filter(done_at=None, due__lte=day).select_related("unit__site", "call")


def open_on(unit, apart_from=None):
    """What is still promised on a unit, by any call but one."""
    found = FollowUp.objects.filter(unit=unit.pk, done_at=None).select_related("call", "by")
    return list(found.exclude(call=apart_from.pk) if apart_from is not None else found)


def left_of(call, told=None):
    """How a call leaves its unit, as the core takes it; `told` is what the core told of it, where somebody asked already."""
    told = told or told_of(call)
    done = tuple(step.did.code for step in told.call.staged.steps)
    open_ones = {doubt.code for doubt in told.leave}
    return promised.Left(
        told.record.unit, done, told.call.facts_now(1).seen, melted="coil.melted" in done, ice_left="ice_left" in open_ones,
        temporary=tuple(placed_words(event) for event in still_there(told.call) if event.data["what"] in FOR_NOW),
        quote_waits="quote" in open_ones, proved=not done or not told.unproved,
    )  # fmt: skip


def quote_waits(call):
    """Whether a call's quote has lines that nobody answered."""
    return QuoteLine.objects.filter(quote__call=call, answer="").exists()


def declined_on(unit):
    """What was quoted on a unit and declined, latest first: (what, option, call, name)."""
    found = (
        QuoteLine.objects.filter(quote__call__unit=unit.pk, answer="declined").select_related("quote__call").order_by("-quote__answered_at")
    )
    return list(found[:MOST_DECLINED])


def proposed_for(call, told=None):
    """What the core proposes to come back for and nobody promised yet: (proposal, day it proposes)."""
    have, today = set(call.follow_ups.values_list("code", flat=True)), timezone.localdate(work_time.now())
    return [(one, today + timedelta(days=one.days[0])) for one in promised.proposed(left_of(call, told)) if one.code not in have]
