"""The quote of a call, and the customer's answer on the screen."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_http_methods, require_POST, require_safe

from kettle.benches.quote.price import KINDS, money
from kettle.benches.quote.propose import OPTIONS
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import whole
from web.benches.quote.actions import quoting
from web.benches.quote.proposing import proposed_for
from web.logbook.actions.price_terms import set_limit
from web.logbook.calls.quoted import quoted, within_limit
from web.logbook.models import Quote, QuoteLine
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, frame, standing_of

LOOKED_AT, NAMES = 60, 4
FIELDS = (("what", "What", True), ("quantity", "How many", False), ("price", "Price of one", False))


@require_safe
def quote(request, number):
    """The bench."""
    return show_quote(request, call_of(request, number))


def show_quote(request, call, typed=None, wrong=None):
    """The page; what was typed and refused."""
    standing, typed, wrong = standing_of(request, call), typed or {}, wrong or {}
    told = quoted(call)
    have = {row.what for row in call.quote.lines.all()} if told else set()
    site = call.unit.site
    context = frame(request, call, "hand-over", standing) | {
        "told": told, "options": OPTIONS.items(), "kinds": KINDS.items(), "typed": typed, "wrong": wrong,
        "more": [one for one in proposed_for(call, standing) if any(line.what not in have for line in one.lines)],
        "fields": [(name, label, "", typed.get(name, "1" if name == "quantity" else ""), wrong.get(name, ""), words)
                   for name, label, words in FIELDS],
        "limit_fields": [("not_to_exceed", "Not to exceed without asking", "", typed.get("not_to_exceed", _limit(site)),
                          wrong.get("not_to_exceed", ""))],
        "site": site, "photos": _photos(call, told),
    }  # fmt: skip
    return render(request, "quote/quote.html", context)


def _photos(call, told):
    """The photos of a call, and whether its quote shows them."""
    chosen = {photo.pk for photo in told["photos"]} if told else set()
    return [(photo, photo.pk in chosen) for photo in call.photos.filter(undone_at=None)]


def _limit(site):
    return money(site.not_to_exceed_cents) if site and site.not_to_exceed_cents is not None else ""


@require_POST
def take(request, number):
    """Take what the core proposes."""
    call = call_of(request, number)
    with refusals_said(request):
        made = quoting.take_lines(request.user, call, proposed_for(call, standing_of(request, call)))
        messages.success(request, f"{made} lines. Prices of parts are yours to say.")
    return redirect("quote", number=number)


@require_POST
def line(request, number, pk=None):
    """Add a line, change one, or take one out."""
    call, typed = call_of(request, number), request.POST
    row = get_object_or_404(QuoteLine, pk=pk, quote__call=call) if pk else None
    try:
        if row is not None and typed.get("do") == "drop":
            quoting.drop_line(request.user, call, row)
        else:
            standing = {"what": row.what, "option": row.option, "kind": row.kind} if row else {}
            quoting.keep_line(request.user, call, standing | typed.dict(), row)
    except FieldErrors as error:
        wrong = error.by_field
        if row is not None:
            messages.error(request, f"{row.what}: {'. '.join(wrong.values())}")
            return redirect("quote", number=number)
        return show_quote(request, call, typed, wrong)
    except InputError as error:
        messages.error(request, str(error))
    return redirect("quote", number=number)


@require_POST
def photos(request, number):
    """Which photos the quote shows."""
    call = call_of(request, number)
    keys = [pk for pk in (whole(text, 1, 10**12) for text in request.POST.getlist("photo")) if pk]
    with refusals_said(request):
        quoting.show_photos(request.user, call, keys)
    return redirect("quote", number=number)


@require_POST
def limit(request, number):
    """What work at the site may cost without being asked."""
    call = call_of(request, number)
    try:
        set_limit(request.user, call.unit.site, request.POST.get("not_to_exceed", ""))
    except FieldErrors as error:
        return show_quote(request, call, request.POST, error.by_field)
    return redirect("quote", number=number)


@require_http_methods(["GET", "HEAD", "POST"])
def decide(request, number):
    """The customer's answer: each line accepted or declined, name, signature."""
    call, wrong, typed = call_of(request, number), {}, {}
    if request.method == "POST":
        typed = request.POST
        answers = {key.removeprefix("line-"): word for key, word in typed.items() if key.startswith("line-")}
        try:
            quoting.answer_quote(request.user, call, answers, typed.get("name", ""), typed.get("signature", ""),
                                 typed.get("seen", ""))  # fmt: skip
        except InputError as error:
            wrong = error.beside("lines")
            call = call_of(request, number)
        else:
            messages.success(request, "Answered and signed. What was declined is remembered with the unit.")
            return redirect("quote", number=number)
    told = quoted(call)
    if told is None:
        return redirect("quote", number=number)
    for option in told["options"]:
        option["rows"] = [(row, cents, typed.get(f"line-{row.pk}", row.answer)) for row, cents, _ in option["rows"]]
    context = {"call": call, "told": told, "wrong": wrong, "typed": typed, "names": _names(call)}
    return render(request, "quote/decide.html", context)


def _names(call):
    """Who answered quotes at this site before, latest first, each once."""
    if call.unit.site_id is None:
        return []
    at_site = Quote.objects.filter(call__unit__site=call.unit.site_id).exclude(answered_name="")
    return list(dict.fromkeys(at_site.order_by("-answered_at").values_list("answered_name", flat=True)[:LOOKED_AT]))[:NAMES]


def quote_first(request, standing):
    """Whether the shop quotes before it works, and how that stands on a call."""
    call = standing.call
    if call.shop.work_school != "quote":
        return {}
    told = quoted(call)
    unasked = next((doubt.text for doubt in standing.told.leave if doubt.code == "unasked"), "")
    return {"asked_first": {"told": told, "unasked": unasked, "within": told is not None and within_limit(told)}}
