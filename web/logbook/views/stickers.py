"""A unit's sticker and label, and a person's follow-ups as a calendar by a secret address."""

import segno
from django.contrib.auth.decorators import login_not_required
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from web.accounts.access import shown_to
from web.accounts.models import Member
from web.logbook.actions.links import end_feed, renew_feed, sticker_of
from web.logbook.calls.calendars import calendar_of
from web.logbook.models import FollowUp, Sticker, Unit
from web.logbook.units.labels import label_of

SIZES = {"small": "50 × 30 mm", "large": "90 × 60 mm"}
QUIET = 2


@require_safe
def sticker(request, pk):
    """A unit's sticker and its label, to print; with `of=site` those of every unit of its site on one sheet."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site", "shop"), pk=pk)
    at_site = Unit.objects.for_user(request.user).filter(site=unit.site).select_related("site", "shop") if unit.site else [unit]
    units = list(at_site) if request.GET.get("of") == "site" else [unit]
    size = request.GET.get("size") if request.GET.get("size") in SIZES else "large"
    rows = [_made(request, one, shown_to(request.user)) for one in units]
    context = {"unit": unit, "rows": rows, "size": size, "sizes": SIZES.items(), "all": len(units) > 1, "others": len(at_site) > 1}
    return render(request, "logbook/sticker.html", context)


def _made(request, unit, shown):
    """A unit with its code as a drawing, its last call and what its label says."""
    address = request.build_absolute_uri(f"/s/{sticker_of(request.user, unit).key}/")
    last = unit.calls.prefetch_related("readings").first()
    return {"unit": unit, "resolved": unit.resolved(), "last": last, "groups": label_of(unit, last, shown),
            "code": segno.make(address, error="m").svg_inline(border=QUIET, omitsize=True, svgclass="qr")}  # fmt: skip


@require_safe
def scanned(request, key):
    """A sticker scanned: the unit for its shop, nothing for anybody else."""
    found = get_object_or_404(Sticker, key=key, unit__in=Unit.objects.for_user(request.user))
    return redirect("unit", pk=found.unit_id)


@require_POST
def feed(request):
    """A new secret address for one's follow-ups, or none any more."""
    if request.POST.get("do") == "end":
        end_feed(request.user)
    else:
        renew_feed(request.user)
    return redirect("me")


@login_not_required
@never_cache
@require_safe
def feed_of(request, key):
    """A person's open follow-ups by their secret address, as a calendar."""
    member = get_object_or_404(Member.objects.select_related("user"), feed_key=key, user__is_active=True)
    mine = FollowUp.objects.filter(shop=member.shop_id, by=member.user_id, done_at=None).select_related("unit__site", "call")
    return HttpResponse(calendar_of(mine, request.build_absolute_uri("/")), content_type="text/calendar; charset=utf-8")
