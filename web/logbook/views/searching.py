"""Search over everything the shop has written."""

from django.shortcuts import render
from django.views.decorators.http import require_safe

from web.accounts.access import shop_of
from web.logbook.units.search import search

LONGEST = 80


@require_safe
def search_all(request):
    """What was looked for, and where it stands."""
    asked = request.GET.get("q", "").strip()[:LONGEST]
    return render(request, "logbook/search.html", {"asked": asked, "found": search(shop_of(request.user), asked) if asked else []})
