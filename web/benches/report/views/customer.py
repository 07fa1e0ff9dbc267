"""A call in the customer's words: for whoever hands it over, and by an address that ends, without a log-in."""

from dataclasses import replace

from django.contrib.auth.decorators import login_not_required
from django.http import Http404
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from kettle.call import tell
from kettle.knowledge.measures import TRADE
from web.accounts.access import shown_to
from web.logbook.actions.links import end_customer_link, give_customer_link
from web.logbook.calls.quoted import for_the_customer, quoted
from web.logbook.calls.record import record_of
from web.logbook.models import CustomerLink
from web.logbook.photos.pictures import image_of
from web.round.views.pages import call_of


def _customers(call, shown):
    """The call in the customer's words, as of today: what was promised and looked at since is promised no more."""
    record = record_of(call, shown)
    done = {f"followup:{pk}" for pk in call.follow_ups.filter(done_at__isnull=False).values_list("pk", flat=True)}
    events = tuple(replace(one, undone=True) if one.kind == "promise" and one.ref in done else one for one in record.events)
    return tell(replace(record, events=events)).customer


def _told(call, shown=TRADE):
    quote = quoted(call)
    # A draft is nobody's but the shop's.
    quote = quote if for_the_customer(quote) else None
    photos = [(image_of(photo), photo) for photo in quote["photos"]] if quote else []
    return {"call": call, "told": _customers(call, shown), "quote": quote, "photos": photos}


@require_safe
def customer(request, number):
    """The page, to print or to give away."""
    call = call_of(request, number)
    link = CustomerLink.objects.filter(call=call).first()
    link = link if link is not None and link.is_open else None
    address = request.build_absolute_uri(f"/for-you/{link.key}/") if link else ""
    return render(request, "report/customer.html", _told(call, shown_to(request.user)) | {"link": link, "address": address})


@require_POST
def customer_link(request, number):
    """Give the customer an address, or end it."""
    call = call_of(request, number)
    if request.POST.get("do") == "end":
        end_customer_link(request.user, call)
    else:
        give_customer_link(request.user, call)
    return redirect("customer", number=number)


@login_not_required
@never_cache
@require_safe
def for_you(request, key):
    """The page by its address, as long as it is good; nothing else is reached from it."""
    link = get_object_or_404(CustomerLink.objects.select_related("call__unit__site", "call__shop", "call__opened_by"), key=key)
    if not link.is_open:
        raise Http404
    answer = render(request, "report/for_you.html", _told(link.call))
    answer["Referrer-Policy"] = "no-referrer"
    answer["X-Robots-Tag"] = "noindex"
    return answer
