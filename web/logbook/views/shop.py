"""The shop, for its owner: people, devices, and who did what."""

from django.contrib import messages
from django.core.paginator import Paginator
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.quote.price import money
from kettle.benches.refrigerant.ledger import METHODS
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import whole
from web.accounts.access import require_owner
from web.logbook.actions import devices as device_actions
from web.logbook.actions import people as people_actions
from web.logbook.actions.leak_limit import set_leak_limit
from web.logbook.actions.price_terms import DAY, MONEY, PERCENT, set_terms
from web.logbook.models import Call, Device
from web.logbook.refusals import refusals_said

LINES_A_PAGE = 50


def _page(request, **extra):
    shop = require_owner(request.user)
    context = {
        "shop": shop,
        "members": shop.members.select_related("user").order_by("-user__is_active", "user__username"),
        "devices": shop.devices.prefetch_related("controls", "read_at"),
        "kinds": Device.KINDS,
        "typed": {},
        "errors": {},
        "methods": METHODS.items(),
        "terms": _terms(shop),
        "leak_limit": "" if shop.leak_limit_pct is None else f"{shop.leak_limit_pct:g}",
    }
    return render(request, "logbook/shop.html", context | extra)


@require_safe
def shop(request):
    """People and devices."""
    return _page(request)


@require_safe
def log(request):
    """Who did what: the log of the shop, newest first."""
    lines = require_owner(request.user).log.select_related("by", "call")
    who = request.GET.get("who", "").strip()[:60]
    if who:
        lines = lines.filter(by__username=who)
    page = Paginator(lines, LINES_A_PAGE).get_page(request.GET.get("page"))
    return render(request, "logbook/log.html", {"page": page, "who": who})


@require_POST
def add_person(request):
    """Add a person; the password is shown once."""
    typed = request.POST
    try:
        owner = bool(typed.get("owner"))
        person, password = people_actions.add_person(request.user, typed.get("login", ""), typed.get("full_name", ""), owner)
    except InputError as error:
        return _page(request, typed=typed, errors=error.beside("login"))
    return _page(request, handed=(person, password))


@require_POST
def change_person(request, pk, what):
    """Close or re-open a log-in, give a new password, or put somebody down for live work."""
    member = get_object_or_404(require_owner(request.user).members.select_related("user"), pk=pk)
    with refusals_said(request):
        if what == "password":
            return _page(request, handed=(member.user, people_actions.reset_password(request.user, member)))
        act = {
            "close": people_actions.close_person,
            "reopen": people_actions.reopen_person,
            "live": people_actions.allow_live_work,
            "no-live": people_actions.bar_live_work,
        }[what]
        act(request.user, member)
    return redirect("shop")


def _terms(shop, typed=None, wrong=None):
    """The fields of the shop's terms: as they stand, or as they were typed and refused."""
    rows = []
    for name, label, *_ in (*MONEY, *PERCENT):
        value = getattr(shop, name)
        stands = (money(value) if name.endswith("_cents") else f"{value:g}") if value else ""
        rows.append((name, label, "%" if name.endswith("_pct") else "", (typed or {}).get(name, stands), (wrong or {}).get(name, "")))
    for name, label in DAY:
        value = getattr(shop, name)
        stands = "" if value is None else f"{value // 60:02d}:{value % 60:02d}"
        rows.append((name, label, "", (typed or {}).get(name, stands), (wrong or {}).get(name, "")))
    return rows


@require_POST
def terms(request):
    """How the shop reckons its quotes."""
    try:
        set_terms(request.user, request.POST)
    except InputError as error:
        wrong = error.by_field if isinstance(error, FieldErrors) else {}
        return _page(request, terms=_terms(require_owner(request.user), request.POST, wrong))
    messages.success(request, "Kept. Quotes reckon by it from now on.")
    return redirect("shop")


@require_POST
def leak_limit(request):
    """From which leak rate on a unit is marked."""
    typed = request.POST
    try:
        set_leak_limit(request.user, typed.get("leak_limit", ""), typed.get("leak_method", ""))
    except InputError as error:
        return _page(request, leak_limit=typed.get("leak_limit", ""), errors=error.by_field if isinstance(error, FieldErrors) else {})
    messages.success(request, "Kept.")
    return redirect("shop")


@require_POST
def add_device(request):
    """Add a device."""
    typed = request.POST
    try:
        device_actions.add_device(request.user, typed.get("kind", ""), typed.get("name", ""), typed.get("address", ""))
    except FieldErrors as error:
        return _page(request, typed=typed, errors=error.by_field)
    return redirect("shop")


@require_POST
def remove_device(request, pk):
    """Take a device out of the shop."""
    device_actions.remove_device(request.user, get_object_or_404(Device.objects.for_user(request.user), pk=pk))
    return redirect("shop")


@require_POST
def choose_device(request, number, kind):
    """Say which device the unit of a call has."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit"), number=number)
    asked = whole(request.POST.get("device", ""), 1, 10**12)
    device = get_object_or_404(Device.objects.for_user(request.user), pk=asked) if asked else None
    with refusals_said(request):
        device_actions.choose_device(request.user, call.unit, kind, device)
    return redirect(kind, number=number)
