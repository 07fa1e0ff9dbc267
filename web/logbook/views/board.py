"""The Board: the day."""

from datetime import timedelta

from django.db.models import Q
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.http import require_safe

from web import work_time
from web.accounts.access import shop_of
from web.logbook.actions.open_call import end_quick_looks
from web.logbook.calls.headlines import headlines
from web.logbook.calls.left_behind import mark_temporary
from web.logbook.calls.outcomes import reminders_of, to_ask
from web.logbook.calls.promises import due_before
from web.logbook.forms import QuickLookForm
from web.logbook.models import Call, Unit
from web.logbook.refrigerant.ledger import over_limit
from web.logbook.units.ice_history import watch_list

RECENT = 6
UNITS_SHOWN = 40
FOLLOW_UP_DAYS = 7


@require_safe
def board(request):
    """The day: calls in progress, follow-ups due, units."""
    end_quick_looks()
    calls = Call.objects.for_user(request.user).select_related("unit__site", "opened_by")
    soon = timezone.localdate(work_time.now()) + timedelta(days=FOLLOW_UP_DAYS)
    search = request.GET.get("q", "").strip()[:80]
    units = Unit.objects.for_user(request.user).filter(site__isnull=False).select_related("site")
    for word in search.split():
        units = units.filter(Q(name__icontains=word) | Q(site__name__icontains=word) | Q(refrigerant__icontains=word))
    shown, in_progress = list(units[:UNITS_SHOWN]), headlines(calls.filter(closed_at=None))
    mark_temporary([*shown, *(call.unit for call, _ in in_progress)])
    return render(
        request,
        "logbook/board.html",
        {
            "in_progress": in_progress,
            "follow_ups": due_before(request.user, soon),
            "today": timezone.localdate(work_time.now()),
            "to_ask": to_ask(request.user),
            "watched": reminders_of(request.user, work_time.now() + timedelta(days=1)),
            "leaking": [(unit, f"{rate.pct:.0f} %") for unit, rate in over_limit(shop_of(request.user))],
            "recent": calls.filter(closed_at__isnull=False)[:RECENT],
            "watch_list": watch_list(request.user),
            "overdue": [call for call in calls.filter(closed_at=None, check_in_min__isnull=False) if call.check_in_overdue],
            "units": shown,
            "more_units": max(0, units.count() - UNITS_SHOWN),
            "search": search,
            "quick": QuickLookForm(),
        },
    )
