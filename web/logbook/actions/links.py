"""Addresses given away: a call's page for its customer, a person's calendar, a unit's sticker."""

import uuid
from datetime import timedelta

from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.models import CustomerLink, Sticker

CUSTOMER_DAYS = 30


@action
def give_customer_link(user, written_up):
    """Give a call's customer an address for thirty days; an earlier one ends. `written_up` is the call, open or closed."""
    require_same_shop(user, written_up)
    until = work_time.now() + timedelta(days=CUSTOMER_DAYS)
    made, _ = CustomerLink.objects.update_or_create(call=written_up, defaults={"key": uuid.uuid4(), "until": until})
    log.write(user, "give_customer_link", written_up, until=until.isoformat())
    return made


@action
def end_customer_link(user, written_up):
    """End the address at once."""
    require_same_shop(user, written_up)
    CustomerLink.objects.filter(call=written_up).update(until=work_time.now())
    log.write(user, "end_customer_link", written_up)


@action
def renew_feed(user):
    """Give a person's follow-ups a new secret address; the one before ends."""
    member = user.member
    require_same_shop(user, member)
    member.feed_key = uuid.uuid4()
    member.save(update_fields=["feed_key"])
    log.write(user, "renew_feed", shop=member.shop)
    return member


@action
def end_feed(user):
    """End the address of a person's follow-ups."""
    member = user.member
    require_same_shop(user, member)
    member.feed_key = None
    member.save(update_fields=["feed_key"])
    log.write(user, "end_feed", shop=member.shop)


@action
def sticker_of(user, unit):
    """The sticker of a unit, made at the first asking."""
    require_same_shop(user, unit)
    made, new = Sticker.objects.get_or_create(unit=unit)
    if new:
        log.of_unit(user, "make_sticker", unit)
    return made
