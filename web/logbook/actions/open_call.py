"""Open a call on a unit, or on a quick look that has no site yet."""

from datetime import timedelta

from django.db.models import F, Max

from web import work_time
from web.accounts.access import require_same_shop, shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Call, Melt, Unit

FIRST_NUMBER = 201
# A quick look that was not kept ends by itself.
QUICK_LOOK_ENDS = timedelta(days=1)


@action
def open_call(user, unit, complaint="", **when):
    """Open a call; numbers run on within a shop. `when` may give opened_at (for records made later)."""
    require_same_shop(user, unit)
    last = Call.objects.filter(shop=unit.shop).aggregate(last=Max("number"))["last"]
    number = last + 1 if last else FIRST_NUMBER
    call = Call.objects.create(shop=unit.shop, unit=unit, number=number, opened_by=user, complaint=complaint.strip(), **when)
    log.write(user, "open_call", call, unit=unit.pk)
    if left_ice(unit):
        record_reading(user, call, "left_ice", "yes", source="last visit")
    return call


@action
def quick_look(user, kind, refrigerant):
    """Open a call on a unit that has only kind and refrigerant, outside every site."""
    unit = Unit(shop=shop_of(user), name="Quick look", kind=kind, refrigerant=refrigerant)
    unit.resolved()
    unit.save()
    return open_call(user, unit)


def left_ice(unit):
    """Whether the last ended melt on a unit left ice behind."""
    last = Melt.objects.filter(call__unit=unit, undone_at=None, ended_at__isnull=False).order_by("ended_at").last()
    return last is not None and not last.clear


def end_quick_looks(now=None):
    """Close quick looks nobody kept for a day: they were looks, not visits. Returns how many."""
    now = now or work_time.now()
    old = Call.objects.filter(unit__site=None, closed_at=None, opened_at__lt=now - QUICK_LOOK_ENDS)
    return old.update(closed_at=now, revision=F("revision") + 1) if old.exists() else 0
