"""What came of closed calls: those to ask about, and reminders of boxes that are watched."""

from datetime import timedelta

from django.db.models import Exists, OuterRef

from kettle.benches.prove.held import ASKED_AFTER_DAYS
from web import work_time
from web.logbook.models import BoxWatch, Call, Outcome

ASKED_AT_ONCE = 3


def to_ask(user, now=None):
    """Closed calls something was done on, a week ago or more, that nobody said of whether it held; the latest first."""
    now = now or work_time.now()
    later = Call.objects.filter(unit=OuterRef("call__unit"), opened_at__gt=OuterRef("call__closed_at"))
    asked = Outcome.objects.filter(
        answer="", call__in=Call.objects.for_user(user), call__closed_at__lte=now - timedelta(days=ASKED_AFTER_DAYS)
    )
    return asked.exclude(done=[]).filter(~Exists(later)).select_related("call__unit__site").order_by("-call__closed_at")[:ASKED_AT_ONCE]


def before(call):
    """The last closed call on a call's unit that something was done on and nobody said of whether it held; None for none."""
    last = (
        Outcome.objects.filter(call__unit=call.unit_id, call__closed_at__lte=call.opened_at)
        .select_related("call")
        .order_by("call__closed_at")
        .last()
    )
    return last if last is not None and last.done and not last.answer else None


def reminders_of(user, until):
    """Boxes that a person wants to be reminded of by a moment, on calls that are open."""
    mine = BoxWatch.objects.filter(by=user, call__shop=user.member.shop_id, call__closed_at=None)
    found = mine.filter(undone_at=None, reminded_at=None, remind_at__lte=until)
    return found.select_related("call__unit__site").order_by("remind_at")
