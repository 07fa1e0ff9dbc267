"""Keep the coldest and the hottest day of a site."""

from kettle.benches.controls.year import year_of
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action

DAYS = (("coldest_f", "Coldest day"), ("hottest_f", "Hottest day"))


@action
def keep_days(user, site, typed):
    """Store both days as they were typed, each may be empty; FieldErrors by field, and nothing is stored then."""
    require_same_shop(user, site)
    wrong, found = {}, {}
    for name, label in DAYS:
        text = typed.get(name, "").strip()
        try:
            found[name] = shown_to(user).parse(text, "°F") if text else None
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    if wrong:
        raise FieldErrors(wrong)
    year_of(**found)
    site.coldest_f, site.hottest_f = found["coldest_f"], found["hottest_f"]
    site.save(update_fields=["coldest_f", "hottest_f"])
    log.write(user, "keep_days", shop=site.shop, site=site.pk, **found)
