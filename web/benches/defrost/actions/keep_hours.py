"""Keep when a site is open and when deliveries come."""

from kettle.benches.defrost.program import parse_clock
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action


@action
def keep_hours(user, site, opens, closes, deliveries):
    """Store the hours of a site, each empty or a time of day; FieldErrors names each that is none."""
    require_same_shop(user, site)
    errors, found = {}, {}
    for name, typed in (("opens", opens), ("closes", closes)):
        try:
            found[name] = parse_clock(typed) if typed.strip() else None
        except InputError as error:
            errors[name] = str(error)
    times = []
    for word in deliveries.replace(",", " ").split():
        try:
            times.append(parse_clock(word))
        except InputError as error:
            errors["deliveries"] = str(error)
    if errors:
        raise FieldErrors(errors)
    site.opens_min, site.closes_min, site.deliveries_min = found["opens"], found["closes"], sorted(set(times))[:12]
    site.save(update_fields=["opens_min", "closes_min", "deliveries_min"])
    log.write(
        user, "keep_hours", shop=site.shop, site=site.pk, opens=site.opens_min, closes=site.closes_min, deliveries=site.deliveries_min
    )
