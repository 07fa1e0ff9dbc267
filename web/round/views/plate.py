"""The plate on the picture: how a unit is built, shown while it is entered; a tap leads to what can be said of a part."""

from dataclasses import fields

from django.shortcuts import render
from django.views.decorators.http import require_safe

from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import CHOICES, KINDS, LIMITS, UnitSpec, check_choice, check_figure, resolve
from kettle.knowledge.errors import InputError
from web.accounts.access import shown_to
from web.round.standing.plate_picture import PlatePicture

TRUTHS = {"true": True, "false": False}


@require_safe
def plate_picture(request):
    """The picture of the unit as its form says so far; what is not a unit yet is drawn as what is usual."""
    typed, shown = request.GET, shown_to(request.user)
    kind, _, build = typed.get("kind", "").partition(":")
    if kind not in KINDS:
        return render(request, "round/_plate_picture.html", {"picture": None})
    picture = PlatePicture(_built(typed, kind, shown), build, shown)
    return render(request, "round/_plate_picture.html", {"picture": picture})


def _built(typed, kind, shown):
    """The unit that the form says, leaving out what cannot be."""
    said = {}
    for name in (field.name for field in fields(UnitSpec)):
        text = typed.get(name, "").strip()
        if not text or name in ("kind", "refrigerant", "name", "bands"):
            continue
        try:
            said[name] = _value(name, text, shown)
        except (InputError, ValueError):
            continue
    try:
        refrigerant = refrigerants.meant(typed.get("refrigerant", "")).name
    except InputError:
        refrigerant = next(iter(refrigerants.catalogue()))
    return resolve(UnitSpec(kind=kind, refrigerant=refrigerant, **said))


def _value(name, text, shown):
    if name in CHOICES:
        return check_choice(name, text)
    if name in LIMITS:
        value = check_figure(name, shown.parse(text, LIMITS[name][2]))
        return int(value) if name in ("phases", "evaporators") else value
    return TRUTHS.get(text, text)
