"""How a shop reckons its quotes, and what a customer's site may cost without being asked: the owner's to say."""

from dataclasses import asdict
from datetime import datetime

from kettle.benches.quote.price import parse_money
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_owner, require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.calls.quoted import terms_of

PERCENT = (("markup_pct", "Markup on parts", 0.0, 500.0), ("tax_pct", "Tax", 0.0, 60.0))
DAY = (("day_begins_min", "The day begins"), ("day_ends_min", "The day ends"))
MONEY = (("rate_cents", "An hour"), ("travel_cents", "The way there"))


@action
def set_terms(user, typed):
    """Store the shop's terms; FieldErrors by field, and nothing is stored then."""
    shop, wrong, values = require_owner(user), {}, {"tax_labour": bool(typed.get("tax_labour"))}
    for name, label in MONEY:
        try:
            values[name] = parse_money(typed.get(name, "")) or 0
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    for name, label, low, high in PERCENT:
        text = typed.get(name, "").strip().rstrip("% ").replace(",", ".") or "0"
        try:
            values[name] = float(text)
        except ValueError:
            wrong[name] = f"{label}: “{text[:20]}” is not a number"
            continue
        if not low <= values[name] <= high:
            wrong[name] = f"{label}: {values[name]:g} % is outside {low:g} to {high:g} %"
    values |= _day(typed, wrong)
    if wrong:
        raise FieldErrors(wrong)
    for name, value in values.items():
        setattr(shop, name, value)
    shop.save(update_fields=list(values))
    log.write(user, "set_terms", shop=shop, **asdict(terms_of(shop)))
    return shop


def _day(typed, wrong):
    """The shop's day as minutes after midnight; none where neither end is typed."""
    found = {}
    for name, label in DAY:
        text = typed.get(name, "").strip().replace(".", ":")
        try:
            told = datetime.strptime(text, "%H:%M") if text else None
        except ValueError:
            wrong[name] = f"{label}: “{text[:12]}” is not a time like 07:00"
            continue
        found[name] = told.hour * 60 + told.minute if told else None
    begins, ends = (found.get(name) for name, _ in DAY)
    if len(found) == len(DAY) and (begins is None) != (ends is None):
        wrong[DAY[1][0]] = "The day: both its ends, or neither"
    elif begins is not None and ends is not None and begins >= ends:
        wrong[DAY[1][0]] = "The day: it must end after it begins"
    return found


@action
def set_limit(user, site, typed):
    """Store what work at a site may cost without being asked (none typed: no limit); FieldErrors names what is wrong."""
    require_same_shop(user, site)
    try:
        site.not_to_exceed_cents = parse_money(typed)
    except InputError as error:
        raise FieldErrors({"not_to_exceed": f"Not to exceed: {error}"}) from None
    site.save(update_fields=["not_to_exceed_cents"])
    log.write(user, "set_limit", shop=site.shop, site=site.pk, cents=site.not_to_exceed_cents)
    return site
