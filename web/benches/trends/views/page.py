"""A unit's logs over time: the chart, what it shows, and its tiles."""

import math

from django.contrib import messages
from django.http import Http404, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge.measures import whole
from web.accounts.access import shown_to
from web.benches.trends.actions.take_findings import take_findings
from web.benches.trends.shown import chart_of, findings_of, tile_of
from web.logbook.models import Call, TrendLog, Unit
from web.logbook.refusals import refusals_said
from web.logbook.trends import logs_of

# The epoch's seconds that a log can be of: 1990 to 2100.
EARLIEST_S, LATEST_S = 631_152_000.0, 4_102_444_800.0


@require_safe
def unit_trends(request, pk):
    """The chart of a unit, what the core reads in it, and its logs."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site"), pk=pk)
    logs, shown = logs_of(unit), shown_to(request.user)
    around = _span(request)
    open_call = unit.calls.filter(closed_at=None).first()
    waiting = TrendLog.objects.filter(unit=unit, undone_at=None).exclude(state="ready")
    context = {"unit": unit, "logs": logs, "chart": chart_of(unit, shown, logs, around), "findings": findings_of(logs, shown),
               "waiting": waiting, "open_call": open_call}  # fmt: skip
    return render(request, "trends/trends.html", context)


def _span(request):
    try:
        span = float(request.GET.get("from", "")), float(request.GET.get("to", ""))
    except ValueError:
        return None
    good = all(math.isfinite(moment) and EARLIEST_S <= moment <= LATEST_S for moment in span) and span[1] > span[0]
    return span if good else None


@require_safe
def trend_tile(request, pk):
    """A stretch of a unit's logs by pixels, as the chart asks for it."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site"), pk=pk)
    span, pixels = _span(request), whole(request.GET.get("pixels"), 50, 4000)
    if span is None or pixels is None:
        return JsonResponse({"wrong": "Ask for from, to (seconds of the epoch, from before to) and pixels, 50 to 4000"}, status=400)
    return JsonResponse(tile_of(unit, shown_to(request.user), *span, pixels))


@require_POST
def take(request, pk):
    """Take what a log shows to the open call of its unit, as observations from a trend: its own, else one's own, else the newest."""
    log = get_object_or_404(TrendLog.objects.for_user(request.user).select_related("unit"), pk=pk)
    open_calls = Call.objects.for_user(request.user).filter(unit=log.unit_id, closed_at=None)
    call = max(open_calls, key=lambda one: (one.pk == log.call_id, one.opened_by_id == request.user.pk, one.number), default=None)
    if call is None:
        raise Http404
    with refusals_said(request):
        taken = take_findings(request.user, call, log, request.POST.getlist("place"))
        messages.success(request, f"{len(taken)} taken to {call}, marked as from a log.")
    return redirect("stop", number=call.number, stop="prove")
