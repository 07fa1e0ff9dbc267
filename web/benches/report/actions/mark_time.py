"""Mark a moment of a visit: arrived, waiting, away, back, left."""

from django.utils import timezone

from kettle.benches.report.times import FOLLOWS, MARKS
from kettle.knowledge.errors import InputError
from web import work_time
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import TimeMark

MOST = 60


@on_call
def mark_time(user, call, what, **when):
    """Store a moment; InputError for one that cannot follow the last, or lies before it. `when` may give `at`."""
    last = call.timemarks.filter(undone_at=None).last()
    if what not in FOLLOWS[last.what if last else ""]:
        raise InputError(f"{MARKS.get(what, 'That')} cannot follow {MARKS[last.what].lower() if last else 'nothing: arrive first'}")
    at = when.get("at", work_time.now())
    if at > work_time.now():
        raise InputError("That moment is still to come")
    if last and at <= last.at:
        raise InputError(f"{MARKS[what]}: it must lie after {timezone.localtime(last.at):%H:%M}")
    if call.timemarks.count() >= MOST:
        raise InputError(f"{call} holds {MOST} of these, which is all it can")
    made = TimeMark.objects.create(call=call, by=user, what=what, **when)
    log.write(user, "mark_time", call, what=what)
    return made
