"""Follow-ups wherever they stand: looked at, let go, as a calendar file."""

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.http import require_POST, require_safe

from web.logbook.actions import promise as acting
from web.logbook.calls.calendars import calendar_of
from web.logbook.models import FollowUp
from web.logbook.refusals import refusals_said
from web.logbook.sent import back, call_of


@require_POST
def done(request, pk):
    """It was looked at."""
    found = get_object_or_404(FollowUp.objects.for_user(request.user), pk=pk)
    with refusals_said(request):
        acting.keep_promise(request.user, found, call_of(request))
    return back(request)


@require_POST
def let_go(request, pk):
    """Nobody comes back for it, and why."""
    found = get_object_or_404(FollowUp.objects.for_user(request.user), pk=pk)
    with refusals_said(request):
        acting.let_go(request.user, found, request.POST.get("reason", ""))
    return back(request)


@require_safe
def calendar(request, pk):
    """A follow-up as a calendar file."""
    found = get_object_or_404(FollowUp.objects.for_user(request.user).select_related("unit__site", "call"), pk=pk)
    answer = HttpResponse(calendar_of([found], request.build_absolute_uri("/")), content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="follow-up-{found.pk}.ics"'
    return answer
