"""The report of a call, as a page and as a file."""

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.template.loader import render_to_string
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_safe

from kettle.benches.defrost.program import times
from kettle.knowledge import cautions, observations, refrigerants
from kettle.knowledge.unit import KINDS, UnitSpec, resolve
from web.accounts.access import shown_to
from web.benches.controls.actions.talk_to_controller import outcomes
from web.logbook.controller_talks import in_service
from web.logbook.left_behind import left_before, still_there
from web.logbook.measured import measured_words
from web.logbook.models import Call
from web.reports.pdf import PdfUnavailable, as_image, drawing_style, render_pdf, styled
from web.round.standing import Standing
from web.round.standing.picture import Picture, found_and_left
from web.round.views.judge import now_words


def _context(request, number):
    calls = Call.objects.for_user(request.user).select_related("unit__site", "opened_by", "shop")
    call = get_object_or_404(calls.prefetch_related("readings"), number=number)
    standing = Standing(call, shown=shown_to(request.user))
    leaders = [(s, percent) for s, percent in standing.suspects if s.probability >= 0.1][:3]
    on_drawing = {tag.entry.key for tag in standing.tags}
    return {
        "call": call,
        "standing": standing,
        "pictures": [(title, picture, picture.panes) for title, picture in found_and_left(call, standing.shown).values()],
        "ice_pairs": [(coil, before, after) for coil, before, after in standing.ice.pairs if before or after],
        "melt": call.melts.filter(undone_at=None).last(),
        "photos": call.photos.filter(undone_at=None),
        "overrides": call.overrides.filter(undone_at=None).select_related("by"),
        "now": now_words(standing),
        "power": measured_words(call),
        "still_there": [*left_before(call), *still_there(call)],
        "coils": _coils(call, standing),
        "leaders": leaders if standing.judgement.has_evidence else [],
        "others": [standing.tag(key) for key in standing.readings if key not in on_drawing],
        "defrost": _defrost(call, standing.shown),
        "cautions": cautions.words("licensed", "lock_out", "pressure")
        + (cautions.words("flammable") if standing.unit.refrigerant.flammable else ()),
    }


def _coils(call, standing):
    """Each coil of a unit with several: its superheat with mark and word, and what was read and looked at on it."""
    rows = []
    for coil in standing.coils:
        own = Standing(call, shown=standing.shown, coil=coil["number"])
        tags = [own.tag(key) for key in own.readings if observations.get(key).per_evaporator]
        leader = own.suspects[0] if own.judgement.has_evidence else None
        rows.append((coil, tags, leader))
    return rows


def _defrost(call, shown):
    """Programs as found and as left, defrosts watched, and what was written to the controller with what came back."""
    sides = [entry for side in ("found", "left") for entry in call.defrostprograms.filter(undone_at=None, side=side).order_by("-at")[:1]]
    talks = call.controllertalks.filter(undone_at=None).exclude(wrote={})
    return {
        "programs": [(entry, times(entry.starts)) for entry in sides],
        "watched": call.defrostwatchs.filter(undone_at=None).exclude(ended_by=""),
        "written": [(talk, outcomes(talk, shown)) for talk in talks],
        "in_service": in_service(call),
    }


def _drawn(picture, pane):
    """One pane of a unit's picture as a drawing that needs nothing around it."""
    return render_to_string("round/picture/_pane.svg", {"picture": picture, "pane": pane, "printed": True, "alone": True})


@require_safe
def unit_picture(request, number, stage, pane):
    """A pane of the unit as it was found or left on a call, as an image."""
    call = get_object_or_404(Call.objects.for_user(request.user).prefetch_related("readings"), number=number)
    pictures = found_and_left(call, shown_to(request.user))
    if stage not in pictures:
        raise Http404
    picture = pictures[stage][1]
    drawn = next((one for one in picture.panes if one.code == pane), None)
    if drawn is None:
        raise Http404
    return HttpResponse(styled(_drawn(picture, drawn), drawing_style()), content_type="image/svg+xml")


@require_safe
@cache_control(private=True, max_age=86400)
def kind_picture(request, code):
    """What a kind of unit in one of its builds looks like, as an image."""
    kind, _, build = code.partition(":")
    if kind not in KINDS:
        raise Http404
    unit = resolve(UnitSpec(kind=kind, refrigerant=next(iter(refrigerants.catalogue()))))
    picture = Picture(unit, build, {"evap_fans": "running", "door": "good", "strip_curtain": "present"}, silent=True)
    return HttpResponse(styled(_drawn(picture, picture.panes[0]), drawing_style()), content_type="image/svg+xml")


@require_safe
def report(request, number):
    """The report as a page that prints well."""
    return render(request, "reports/page.html", _context(request, number))


@require_safe
def report_pdf(request, number):
    """The report as a PDF file."""
    context = _context(request, number)
    svg = render_to_string("round/_circuit.svg", context | {"printed": True})
    context["drawing_image"] = as_image(svg, drawing_style())
    context["picture_images"] = [
        (title, [as_image(_drawn(picture, pane), drawing_style()) for pane in panes]) for title, picture, panes in context["pictures"]
    ]
    context["ice_images"] = [
        (as_image(render_to_string("ice/_ice_map.svg", {"painted": painted}), drawing_style()), painted)
        for _, *pair in context["ice_pairs"]
        for painted in pair
        if painted
    ]
    try:
        content = render_pdf(render_to_string("reports/file.html", context, request))
    except PdfUnavailable as error:
        messages.error(request, str(error))
        return redirect("report", number=number)
    response = HttpResponse(content, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="call-{number}.pdf"'
    return response
