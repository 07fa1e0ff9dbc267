"""The log: one line for every action, and with it the news that what was judged before may not stand any more."""

from django.db.models import F, Q

from web.logbook.models import Call, LogEntry


def write(user, action, call=None, shop=None, **data):
    """Add a line to the log; calls whose judgement hears of it get a new revision."""
    shop = shop or (call.shop if call is not None else user.member.shop)
    if call is not None:
        revise(call.unit, Q(pk=call.pk))
    return LogEntry.objects.create(shop=shop, by=user, action=action, call=call, data=data)


def of_unit(user, action, unit, **data):
    """Add a line about a unit itself."""
    revise(unit)
    return LogEntry.objects.create(shop=unit.shop, by=user, action=action, data={"unit": unit.pk, **data})


def revise(unit, others=None):
    """Open calls on the unit, or on another of its plant, may have to be judged anew."""
    heard = Q(unit=unit)
    if unit.plant and unit.site_id:
        heard |= Q(unit__shop=unit.shop_id, unit__site=unit.site_id, unit__plant=unit.plant)
    heard &= Q(closed_at=None)
    Call.objects.filter(heard | others if others is not None else heard).update(revision=F("revision") + 1)
