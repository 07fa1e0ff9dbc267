"""Arriving: the customer's words, being alone on site, siblings and photos."""

from django.contrib import messages
from django.http import FileResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge.cautions import words as caution_words
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import whole
from web.logbook.actions.add_photo import add_photo as keep_photo
from web.logbook.actions.check_in import INTERVALS_MIN, check_in
from web.logbook.actions.hand_over import write_hand_over
from web.logbook.actions.note_sibling import note_sibling
from web.logbook.merging import shown_by
from web.logbook.models import Unit
from web.logbook.refusals import refusals_said
from web.round.photos import photo_context
from web.round.stops import BY_SLUG
from web.round.views.pages import call_of
from web.round.views.parts import picture_context


def arrive_context(request, standing):
    """What the stop shows: the picture of the unit, the check-in clock, cautions, photos."""
    return {
        **picture_context(request, standing),
        **photo_context(standing.call),
        "intervals": INTERVALS_MIN,
        "safety_cautions": caution_words("inside", "closed_air", "wet", "ladder")
        if standing.unit.walk_in
        else caution_words("wet", "lock_out"),
    }


@require_POST
def words(request, number):
    """Keep the complaint and what changed, as they are written."""
    call = call_of(request, number)
    name = "changed" if "changed" in request.POST else "complaint"
    typed, error = request.POST.get(name, ""), ""
    try:
        write_hand_over(request.user, call, {name: typed}, shown_by(request.POST))
    except InputError as refused:
        error = refused.by_field[name] if isinstance(refused, FieldErrors) and name in refused.by_field else str(refused)
    stands = getattr(call, name)
    context = {"call": call, "name": name, "stands": stands, "value": typed if error else stands, "error": error}
    return render(request, "round/_told.html", context)


@require_POST
def check_in_view(request, number):
    """Say that all is well, at a chosen interval."""
    call = call_of(request, number)
    minutes = request.POST.get("minutes", "")
    with refusals_said(request):
        check_in(request.user, call, whole(minutes, 0, 999))
    stop = BY_SLUG.get(request.POST.get("stop"), BY_SLUG["arrive"])
    return redirect("stop", number=number, stop=stop.slug)


@require_POST
def sibling(request, number, pk):
    """Record how another box on the plant was found."""
    call = call_of(request, number)
    unit = get_object_or_404(Unit.objects.for_user(request.user), pk=pk)
    with refusals_said(request):
        note_sibling(request.user, call, unit, request.POST.get("state", ""))
    return redirect("stop", number=number, stop="arrive")


@require_POST
def add_photo(request, number):
    """Keep a photo."""
    call = call_of(request, number)
    kind, _, name = request.POST.get("of", "").partition(":")
    of = {kind: name} if kind in ("stop", "place") else {}
    with refusals_said(request):
        keep_photo(request.user, call, request.FILES.get("photo"), caption=request.POST.get("caption", ""), **of)
        messages.success(request, "The photo is kept.")
    return redirect("stop", number=number, stop="melt" if request.POST.get("stop") == "melt" else "arrive")


@require_safe
def photo(request, number, pk):
    """A photo, to those who may see its call."""
    found = get_object_or_404(call_of(request, number).photos, pk=pk)
    return FileResponse(found.image.open("rb"), content_type="image/jpeg")


@require_safe
def thumbnail(request, number, pk):
    """A photo, small."""
    found = get_object_or_404(call_of(request, number).photos, pk=pk)
    return FileResponse(found.thumbnail.open("rb"), content_type="image/jpeg")
