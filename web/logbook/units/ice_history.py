"""The ice-ups of a unit over time, and the units that ice too often."""

from datetime import timedelta

from django.db.models import Count, Q

from kettle.benches.ice import map as ice
from web import work_time
from web.logbook.models import Unit

YEAR = timedelta(days=365)
TOO_OFTEN = 3


def ice_ups(unit, since=None):
    """The calls on which a unit was found iced, newest first, with their before-maps."""
    found = []
    for call in unit.calls.prefetch_related("icedrawings"):
        if since is not None and call.opened_at < since:
            continue
        maps = [d for d in call.icedrawings.all() if d.undone_at is None and d.stage == "before"]
        iced = [d for d in maps if ice.parse(d.rows, d.places).iced]
        if iced:
            found.append((call, iced))
    return found


def watch_list(user):
    """Units that iced three times or more in a year, with how often."""
    since = work_time.now() - YEAR
    drawn = Q(calls__icedrawings__stage="before", calls__icedrawings__undone_at=None, calls__opened_at__gte=since)
    candidates = Unit.objects.for_user(user).annotate(drawn=Count("calls", filter=drawn, distinct=True)).filter(drawn__gte=TOO_OFTEN)
    counted = [(unit, len(ice_ups(unit, since))) for unit in candidates.select_related("site")]
    return [(unit, times) for unit, times in counted if times >= TOO_OFTEN]
