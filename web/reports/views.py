"""The report of a call, as a page and as a file; everything of it in one."""

import tempfile
import zipfile
from concurrent.futures import CancelledError
from contextlib import suppress

from django.conf import settings
from django.contrib import messages
from django.http import FileResponse, Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.defrost.program import times
from kettle.benches.report.worded import SECTIONS, words_of
from kettle.knowledge import cautions, observations, refrigerants
from kettle.knowledge.equipment import KINDS, UnitSpec, resolve
from kettle.knowledge.errors import InputError
from web.accounts.access import shop_of, shown_to
from web.benches.controls.actions.talk_to_controller import outcomes
from web.benches.defrost.printed import dials_of
from web.benches.electrical.printed import wirings_of
from web.benches.prove.told import told_of
from web.benches.report.drafting import sentences_of
from web.benches.trends.shown import printed_of
from web.logbook.calls.case_files import case_text
from web.logbook.calls.controller_talks import in_service
from web.logbook.calls.judging import told_of as told_of_call
from web.logbook.calls.left_behind import left_before, still_there
from web.logbook.calls.measured import measured_words
from web.logbook.calls.quoted import quoted
from web.logbook.calls.record import photo_name
from web.logbook.models import Call
from web.logbook.photos.pictures import image_of
from web.reports import papers
from web.reports.drawings import drawn, pane_drawn, printed
from web.reports.exports import log_csv, readings_csv
from web.reports.pdf import drawing_style, styled
from web.round.standing import Standing
from web.round.standing.picture import Picture, found_and_left
from web.round.views.judge import now_words

# Papers a report is set on; letter where none was asked for.
PAPERS = {"a4": "A4", "letter": "letter"}


def _context(request, number):
    calls = Call.objects.for_user(request.user).select_related("unit__site", "opened_by", "shop")
    call = get_object_or_404(calls.prefetch_related("readings"), number=number)
    standing = Standing(call, shown=shown_to(request.user))
    leaders = [(s, percent) for s, percent in standing.suspects if s.probability >= 0.1][:3]
    on_drawing = {tag.entry.key for tag in standing.tags}
    return {
        "call": call,
        "standing": standing,
        "pictures": [(title, picture, picture.panes) for title, picture in found_and_left(call, standing.told).values()],
        "ice_pairs": [(coil, before, after) for coil, before, after in standing.ice.pairs if before or after],
        "melt": call.melts.filter(undone_at=None).last(),
        "photos": [(reverse("thumbnail", args=[number, one.pk]), one) for one in call.photos.filter(undone_at=None)],
        "dials": drawn("defrost/_printed_dial.svg", dials_of(call)),
        "wirings": drawn("electrical/_circuit.svg", wirings_of(standing.told)),
        "told": standing.told.customer,
        "overrides": call.overrides.filter(undone_at=None).select_related("by"),
        "now": now_words(standing),
        "promised": call.follow_ups.all(),
        "trend": printed_of(call, standing.told),
        **told_of(standing),
        "written": _written(call, standing),
        "power": measured_words(call),
        "still_there": [*left_before(call), *still_there(call)],
        "coils": _coils(standing),
        "leaders": leaders if standing.judgement.has_evidence else [],
        "others": [standing.tag(key) for key in standing.readings if key not in on_drawing],
        "defrost": _defrost(call, standing.shown),
        "cautions": cautions.words("licensed", "lock_out", "pressure")
        + (cautions.words("flammable") if standing.unit.refrigerant.flammable else ()),
    }


def _written(call, standing):
    """The write-up by section as running text: what is drafted or worded, and own words behind it."""
    sentences, own = sentences_of(call, standing), {"found": call.found, "done": call.done, "left": "", "advice": call.advice}
    return {section: (words_of(sentences, section), own[section]) for section in SECTIONS}


def _coils(standing):
    """Each coil of a unit with several: where it stands, what was read on it, what leads, and its image where one is made."""
    rows = []
    for coil in standing.coils:
        own = standing.of_coil(coil["number"])
        tags = [own.tag(key) for key in own.readings if observations.get(key).per_evaporator]
        rows.append((coil, own, tags, own.suspects[0] if own.judgement.has_evidence else None, ""))
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


@require_safe
def unit_picture(request, number, stage, pane):
    """A pane of the unit as it was found or left on a call, as an image."""
    call = get_object_or_404(Call.objects.for_user(request.user).prefetch_related("readings"), number=number)
    pictures = found_and_left(call, told_of_call(call, shown_to(request.user)))
    if stage not in pictures:
        raise Http404
    picture = pictures[stage][1]
    found = next((one for one in picture.panes if one.code == pane), None)
    if found is None:
        raise Http404
    return HttpResponse(styled(pane_drawn(picture, found), drawing_style()), content_type="image/svg+xml")


@require_safe
@cache_control(private=True, max_age=86400)
def kind_picture(request, code):
    """What a kind of unit in one of its builds looks like, as an image."""
    kind, _, build = code.partition(":")
    if kind not in KINDS:
        raise Http404
    unit = resolve(UnitSpec(kind=kind, refrigerant=next(iter(refrigerants.catalogue()))))
    picture = Picture(unit, build, {"evap_fans": "running", "door": "good", "strip_curtain": "present"}, silent=True)
    return HttpResponse(styled(pane_drawn(picture, picture.panes[0]), drawing_style()), content_type="image/svg+xml")


@require_safe
def report(request, number):
    """The report as a page that prints well."""
    return render(request, "reports/page.html", _context(request, number))


def _set_from(request, number):
    """The HTML a report's PDF is set from."""
    context = printed(_context(request, number))
    context["paper"] = PAPERS.get(request.GET.get("paper", ""), "")
    return render_to_string("reports/file.html", context, request)


def _pdf_named(name):
    """What makes the bytes of a PDF an answer."""

    def answer(content):
        response = HttpResponse(content, content_type="application/pdf")
        response["Content-Disposition"] = f'inline; filename="{name}.pdf"'
        return response

    return answer


def _marked(request, name):
    """What a file is called; one of a practice call says so."""
    return f"practice-{name}" if shop_of(request.user).practice else name


def _begin(request, name, back, html, answer, without=False):
    """Have a paper made, and answer with it where that takes a moment only."""
    try:
        made = papers.make(shop_of(request.user).pk, name, back, html, answer, without)
    except InputError as error:
        messages.error(request, str(error))
        return redirect(back)
    return _answered(request, made, settings.PAPER_WAIT_S)


def _answered(request, made, wait_s=0.0):
    """A paper, or how far it is."""
    try:
        content = made.made(wait_s)
    except (InputError, CancelledError) as error:
        if made.without:
            return made.answer(b"")
        messages.error(request, str(error) or "Stopped.")
        return redirect(made.back)
    if content is not None:
        return made.answer(content)
    response = render(request, "reports/waiting.html", {"paper": made})
    response["Refresh"] = f"1; url={reverse('paper', args=[made.key])}"
    return response


def _mine(request, key):
    found = papers.find(key, shop_of(request.user).pk)
    if found is None:
        raise Http404
    return found


@require_safe
def paper(request, key):
    """A paper that was begun: itself once it is made, how far it is until then."""
    return _answered(request, _mine(request, key))


@require_POST
def stop_paper(request, key):
    """Make no more of a paper."""
    found = _mine(request, key)
    found.stop()
    messages.success(request, f"{found.name} is not made.")
    return redirect(found.back)


@require_safe
def report_pdf(request, number):
    """The report as a PDF file."""
    html, name, back = _set_from(request, number), f"The report of call {number}", reverse("report", args=[number])
    if "ready" in request.GET:
        # Hand over is open: it is made before somebody asks for it.
        with suppress(InputError):
            papers.make(shop_of(request.user).pk, name, back, html, _pdf_named(_marked(request, f"call-{number}")))
        return HttpResponse(status=204)
    return _begin(request, name, back, html, _pdf_named(_marked(request, f"call-{number}")))


@require_safe
def call_zip(request, number):
    """Everything of a call as one file: case file, report, readings and logs as CSV, photos."""
    calls = Call.objects.for_user(request.user).select_related("unit__site", "shop").prefetch_related("readings")
    call = get_object_or_404(calls, number=number)
    back, html = reverse("stop", args=[number, "hand-over"]), _set_from(request, number)
    return _begin(request, f"The ZIP of call {number}", back, html, lambda report: _packed(call, report), without=True)


def _packed(call, report):
    """A call's ZIP around the bytes of its report; without one where there are none."""
    # The answer closes it when it is sent.
    file = tempfile.TemporaryFile()  # noqa: SIM115
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr(f"{call.file_name}.json", case_text(call))
        packed.writestr(f"{'practice-' if call.shop.practice else ''}readings.csv", readings_csv(call))
        if report:
            packed.writestr(f"{call.file_name}.pdf", report)
        for log in call.trend_logs.filter(state="ready", undone_at=None):
            packed.writestr(f"logs/{log.pk}.csv", log_csv(log))
        for photo in call.photos.filter(undone_at=None):
            with photo.image.open("rb") as image:
                packed.writestr(f"photos/{photo_name(photo)}", image.read())
    file.seek(0)
    return FileResponse(file, as_attachment=True, filename=f"{call.file_name}.zip", content_type="application/zip")


@require_safe
def quote_pdf(request, number):
    """The quote of a call as a PDF file."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit__site", "shop"), number=number)
    told_quote = quoted(call)
    if told_quote is None:
        raise Http404
    found = told_of_call(call, shown_to(request.user)).customer.found
    context = {
        "call": call,
        "told": told_quote,
        "wrong": [found] if found else [],
        "photos": [(image_of(photo), photo) for photo in told_quote["photos"]],
    }
    html = render_to_string("reports/quote.html", context, request)
    return _begin(
        request, f"The quote of call {number}", reverse("quote", args=[number]), html, _pdf_named(_marked(request, f"quote-{number}"))
    )
