"""Take what a log shows to a call: the observations it stands for, marked as from a log, at the moment they are of."""

from datetime import UTC, datetime

from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import whole
from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.record_reading import record_reading

SOURCE = "log"


@action
def take_findings(user, call, trend_log, places):
    """Record the observations of some findings of a log (by their places) on a call of the same unit; returns the keys taken.

    What was read on the call since is newer and stands.
    """
    require_same_shop(user, call)
    require_same_shop(user, trend_log)
    require_open(call)
    if trend_log.unit_id != call.unit_id:
        raise InputError("That log is of another unit")
    unit, taken = call.unit.resolved(), []
    for place in places:
        chosen = whole(place, 0, len(trend_log.findings) - 1) if trend_log.findings else None
        if chosen is None:
            raise InputError("That log shows no such thing")
        one = trend_log.findings[chosen]
        at = min(max(datetime.fromtimestamp(one["to"], UTC), call.opened_at), work_time.now())
        for key, value in one.get("keys", {}).items():
            entry = observations.REGISTRY.get(key)
            if entry is None or not entry.exists_on(unit):
                continue
            record_reading(user, call, key, value if isinstance(value, str) else float(value), source=SOURCE, at=at)
            taken.append(key)
    if not taken:
        raise InputError("What was chosen stands for no reading on this unit")
    return taken
