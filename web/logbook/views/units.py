"""A unit: its page, its plate, its bands."""

from django.contrib import messages
from django.core.paginator import Paginator
from django.db import transaction
from django.http import FileResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_http_methods, require_safe

from kettle.judging.evidence import quantity_name
from kettle.knowledge import refrigerants
from kettle.knowledge.bands import banded, default_band, unit_of
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import shop_of, shown_to
from web.logbook.actions.change_band import change_band, version_of
from web.logbook.actions.save_unit import save_unit
from web.logbook.calls.courses import HAS_ACTS, acts_of
from web.logbook.calls.ice_shown import shown
from web.logbook.calls.left_behind import on_unit
from web.logbook.calls.promises import declined_on
from web.logbook.forms import UnitForm, merged, posted, texts_of
from web.logbook.models import Site, Unit
from web.logbook.photos.pictures import prepared
from web.logbook.refrigerant.ledger import leak_of
from web.logbook.units.ice_history import ice_ups
from web.logbook.units.life import ENTRIES_A_PAGE, life_of
from web.logbook.units.plate import GROUPS, plate_words

FOLLOW_UPS_SHOWN = 12
# What is shown of the last visit: stage, pane and words; with anything done, the box before and after it.
LAST_PANES = {
    False: (("found", "box", "As found"), ("found", "unit", "")),
    True: (("found", "box", "As found"), ("left", "box", "As left")),
}


@require_safe
def unit_page(request, pk):
    """A unit: its plate, its bands, its calls and settings."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site", "shop"), pk=pk)
    shown_here = shown_to(request.user)
    last = next((call for call in unit.calls.prefetch_related("readings").annotate(**HAS_ACTS) if call.readings.all()), None)
    life = Paginator(life_of(unit, shown_here), ENTRIES_A_PAGE).get_page(request.GET.get("page"))
    context = {
        "unit": unit,
        "resolved": unit.resolved(),
        "last_call": last,
        "last_panes": LAST_PANES[bool(last and acts_of(last))],
        "life": life,
        "plate": plate_words(unit.resolved(), shown_here),
        "still_there": on_unit(unit),
        "leak": leak_of(unit),
        "declined": declined_on(unit),
        "follow_ups": unit.follow_ups.select_related("call").order_by("-due")[:FOLLOW_UPS_SHOWN],
        "ice_ups": [(call, [shown(drawing) for drawing in maps]) for call, maps in ice_ups(unit)],
    }
    return render(request, "logbook/unit.html", context)


def _initial(unit):
    """What the form shows beyond the unit itself: its site, and how high that lies."""
    if unit is None:
        return {"site_name": ""}
    altitude_ft = unit.site.altitude_ft if unit.altitude_ft is None else unit.altitude_ft
    return {"site_name": unit.site.name, "altitude_ft": None if altitude_ft is None else float(altitude_ft)}


@require_http_methods(["GET", "HEAD", "POST"])
def edit_unit(request, pk=None):
    """Add a unit to a site, new or known, or correct the plate of one: what was changed is stored, not the form."""
    photo, photo_error = _plate_photo(request)
    with transaction.atomic():
        unit = get_object_or_404(Unit.objects.for_user(request.user).filter(site__isnull=False), pk=pk) if pk else None
        shown, initial = shown_to(request.user), _initial(unit)
        standing = texts_of(UnitForm(None, instance=unit, initial=initial, shown=shown))
        typed, meanwhile = posted(request), {}
        if typed is not None and unit is not None:
            typed, meanwhile = merged(typed, standing)
        form = UnitForm(typed, instance=unit, initial=initial, shown=shown)
        if typed is not None and form.is_valid() and not meanwhile and not photo_error:
            told = form.cleaned_data
            saved = save_unit(request.user, form.save(commit=False), told["site_name"], told["altitude_ft"], photo)
            return redirect("unit", pk=saved.pk)
    for name, complaint in meanwhile.items():
        form.add_error(name, complaint)
    sites = Site.objects.for_user(request.user)
    groups = [(part, title, [form[name] for name in names]) for part, title, names in GROUPS]
    said = {name for name in form.fields if form[name].errors} if typed is not None else set()
    context = {"form": form, "unit": unit, "sites": sites, "standing": standing.items(), "groups": groups, "photo_error": photo_error,
               "wrong": [part for part, _, fields in groups if {field.name for field in fields} & said]}  # fmt: skip
    return render(request, "logbook/edit_unit.html", context)


def _plate_photo(request):
    """The photo of the plate that was sent, ready to be kept, and what is wrong with it."""
    if request.method != "POST" or "plate_photo" not in request.FILES:
        return None, ""
    try:
        return prepared(request.FILES["plate_photo"]), ""
    except InputError as error:
        return None, str(error)


@require_safe
def plate_photo(request, pk):
    """The photo of a unit's plate, to those who may see the unit."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).exclude(plate_photo=""), pk=pk)
    return FileResponse(unit.plate_photo.open("rb"), content_type="image/jpeg")


@require_safe
def matching_refrigerants(request):
    """The refrigerants that a few typed letters may mean."""
    names = refrigerants.matching(request.GET.get("refrigerant", "")[:30])[:8]
    return render(request, "logbook/_refrigerants.html", {"found": [refrigerants.get(name) for name in names]})


@require_safe
def site_altitude(request):
    """How high a site lies, where that is known; else the field that asks for it, once."""
    name = request.GET.get("site_name", "").strip()[:80]
    site = Site.objects.for_user(request.user).filter(name=name).first()
    assumed = (site or Site(shop=shop_of(request.user))).assumed_altitude_ft
    return render(request, "logbook/_altitude.html", {"site": site, "assumed": assumed})


def _bands(unit, shown_in):
    """Every band of a unit: quantity, label, own or usual, ends in words and as typed, the change that made it."""
    resolved, changes = unit.resolved(), {}
    for change in unit.bandchanges.select_related("by"):
        changes.setdefault(change.quantity, change)
    rows = []
    for quantity in banded():
        band = default_band(resolved, quantity)
        if band is None:
            continue
        label, _, decimals = quantity_name(quantity)
        measure = unit_of(quantity)
        rows.append(
            {
                "quantity": quantity,
                "label": label,
                "unit": shown_in.label(measure),
                "words": shown_in.span(*band, measure),
                "ends": [shown_in.edit(end, measure, decimals) for end in band],
                "own": quantity in unit.bands,
                "was": version_of(unit, quantity),
                "change": changes.get(quantity),
            }
        )
    return rows


@require_http_methods(["GET", "HEAD", "POST"])
def unit_bands(request, pk):
    """What is normal on this unit: each band, its own or the kind's, and a way to change it with a reason."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site"), pk=pk)
    typed, errors = {}, {}
    if request.method == "POST":
        typed = request.POST
        quantity = typed.get("quantity", "")
        try:
            change_band(request.user, unit, quantity, typed.get("low", ""), typed.get("high", ""), typed.get("why", ""), typed.get("was"))
        except FieldErrors as error:
            errors = error.by_field
        else:
            messages.success(request, f"{quantity_name(quantity)[0]}: kept. Verdicts name it as this unit's own band.")
            return redirect("unit-bands", pk=pk)
    context = {"unit": unit, "rows": _bands(unit, shown_to(request.user)), "typed": typed, "errors": errors,
               "history": unit.bandchanges.select_related("by")}  # fmt: skip
    return render(request, "logbook/bands.html", context)
