"""Set from which leak rate on a unit is marked, and by which method it is reckoned: the owner's to say, law is local."""

from kettle.benches.refrigerant.ledger import METHODS
from kettle.knowledge.errors import FieldErrors
from web.accounts.access import require_owner
from web.logbook.actions import log
from web.logbook.actions.acting import action

LIMIT_PCT = (0.1, 200.0)


@action
def set_leak_limit(user, typed, method):
    """Store limit (% a year, empty for none) and method; FieldErrors by field, and nothing is stored then."""
    shop, wrong, limit = require_owner(user), {}, None
    if method not in METHODS:
        wrong["leak_method"] = "Reckoned: choose one"
    if typed.strip():
        try:
            limit = float(typed.strip().replace(",", ".").rstrip("% "))
        except ValueError:
            wrong["leak_limit"] = f"Leak rate: “{typed[:20]}” is not a number"
        else:
            if not LIMIT_PCT[0] <= limit <= LIMIT_PCT[1]:
                wrong["leak_limit"] = f"Leak rate: {limit:g} % is outside {LIMIT_PCT[0]:g} to {LIMIT_PCT[1]:g} % a year"
    if wrong:
        raise FieldErrors(wrong)
    shop.leak_limit_pct, shop.leak_method = limit, method
    shop.save(update_fields=["leak_limit_pct", "leak_method"])
    log.write(user, "set_leak_limit", shop=shop, limit=limit, method=method)
    return shop
