"""The yard: practice calls begun, gone on with, joined; lessons and scenarios from here."""

from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import KINDS
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import whole
from kettle.plant.simulate import OUTSIDE_F, PRESETS
from kettle.yard.drawn import DIFFICULTIES
from kettle.yard.spoken import HELPS
from web.accounts.access import shown_to
from web.yard.actions.begin import LARGEST_NUMBER, begin, join
from web.yard.models import Joined, Practice

SHOWN = 12
HELP_WORDS = {"all": "All, as on a real call", "covered": "Covered: say first what you think", "none": "None"}
assert set(HELP_WORDS) == set(HELPS)


def address_of(practice, path=""):
    """Where a practice call is worked: its stop Arrive, or another address of it."""
    return f"/practice/{practice.pk}/{path or f'calls/{practice.call.number}/'}"


def _page(request, typed=None, wrong=None, status=200):
    mine = list(Practice.objects.for_user(request.user).select_related("learner", "shop")[: 2 * SHOWN])
    context = {
        "open": [(one, address_of(one)) for one in mine if not one.is_over][:SHOWN],
        "over": [(one, address_of(one, "yard/debrief/")) for one in mine if one.is_over][:SHOWN],
        "kinds": [(code, KINDS[code].label) for code in PRESETS],
        "difficulties": DIFFICULTIES.items(), "helps": HELP_WORDS.items(), "roles": Joined.ROLES,
        "typed": typed or {}, "wrong": wrong or {},
        "weather_unit": shown_to(request.user).label("°F"),
    }  # fmt: skip
    return render(request, "yard/yard.html", context, status=status)


@require_safe
def yard(request):
    """Begin a practice call, or go on with one."""
    return _page(request)


@require_POST
def new(request):
    """Begin a practice call by its number, or any."""
    typed = request.POST
    try:
        practice = begin(request.user, **chosen(request.user, typed))
    except FieldErrors as error:
        return _page(request, typed, error.by_field, 422)
    except InputError as error:
        return _page(request, typed, {"number": str(error)}, 422)
    return redirect(address_of(practice))


def chosen(user, typed):
    """What was chosen of a practice call, as it is drawn by; FieldErrors by field."""
    wrong, number, outside = {}, None, None
    text = typed.get("number", "").strip()
    if text:
        number = whole(text, 1, LARGEST_NUMBER)
        if number is None:
            wrong["number"] = f"Number of the draw: “{text[:12]}” is no whole number from 1 to {LARGEST_NUMBER}"
    shown = shown_to(user)
    if typed.get("outside", "").strip():
        try:
            outside = shown.parse(typed["outside"], "°F")
            if not OUTSIDE_F[0] <= outside <= OUTSIDE_F[1]:
                wrong["outside"] = f"Weather: {shown.text(outside, '°F')} is outside {shown.span(*OUTSIDE_F, '°F')}"
        except InputError as error:
            wrong["outside"] = f"Weather: {error}; allowed {shown.span(*OUTSIDE_F, '°F')}"
    refrigerant = typed.get("refrigerant", "").strip()
    if refrigerant:
        try:
            refrigerant = refrigerants.meant(refrigerant).name
        except InputError as error:
            wrong["refrigerant"] = str(error)
    if wrong:
        raise FieldErrors(wrong)
    return {
        "number": number, "kind": typed.get("kind", ""), "refrigerant": refrigerant, "difficulty": typed.get("difficulty", ""),
        "outside_f": outside, "help_by": typed.get("help", "all"),
    }  # fmt: skip


@require_POST
def join_in(request):
    """Join a colleague's practice call by its word."""
    try:
        practice = join(request.user, request.POST.get("key", ""), request.POST.get("role", ""))
    except InputError as error:
        return _page(request, request.POST, {"key": str(error)}, 422)
    role = practice.joined.get(user=request.user).role
    return redirect("teach", pk=practice.pk) if role == "instructor" else redirect(address_of(practice))
