"""What a form sends along besides what was typed: where to go back to, and which call it is of."""

from django.shortcuts import get_object_or_404, redirect, resolve_url
from django.utils.http import url_has_allowed_host_and_scheme

from kettle.knowledge.measures import whole
from web.logbook.models import Call

# The largest number a call can have: what its column holds.
LAST_CALL = 2**31 - 1


def back(request, otherwise="board"):
    """Return the way back to the page that a form names as `next`; to `otherwise` where that is no page of ours."""
    to = request.POST.get("next", "")
    ours = to.startswith("/") and url_has_allowed_host_and_scheme(to, {request.get_host()})
    return redirect(to if ours else resolve_url(otherwise))


def call_of(request):
    """Return the person's call that a form names by its number as `call`; None where it names none. Http404 for one there is not."""
    number = whole(request.POST.get("call", ""), 1, LAST_CALL)
    return None if number is None else get_object_or_404(Call.objects.for_user(request.user), number=number)
