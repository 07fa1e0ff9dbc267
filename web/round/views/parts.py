"""The parts of the unit on a call: their sheets, what was done to them, everything taken."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from kettle.call.carries import SPOT_F
from kettle.knowledge import acts, anatomy, cautions
from kettle.knowledge.errors import InputError
from web.logbook.actions.do_act import Held, do_act
from web.logbook.actions.keep_happened import keep_happened
from web.logbook.refusals import refusals_said
from web.round.icemaps import painting
from web.round.standing.sheets import against, areas_of, sheets_of
from web.round.standing.taken import taken_on_call
from web.round.stops import BY_SLUG
from web.round.views.pages import call_of, frame, standing_of

FIRST_STOP = "judge"
LIKELIEST = 2
# Benches with a page of their own that a thing done leads back to.
BENCHES = ("valve", "charge", "controls")


def correct_context(request, standing):
    """What Correct shows of the course: what was done, and what would put right what is likeliest."""
    likely = [(s, percent, against(s, standing.unit)) for s, percent in standing.suspects[:LIKELIEST] if s.causes]
    return {
        "steps": [pair for pair in standing.steps if pair[0].kept_as != "setting"],
        "to_put_right": [row for row in likely if row[2]] if standing.judgement.has_evidence else [],
        "cautions": cautions.words("lock_out", "pressure", "licensed"),
    }


@require_safe
def parts(request, number):
    """Every part of the unit, with what is known of it and what was done."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    context = frame(request, call, _from(request), standing) | picture_context(request, standing)
    return render(request, "round/parts.html", context | {"areas": areas_of(standing)})


@require_safe
def part(request, number, code):
    """The sheet of one part: what is seen of it, what can be done to it."""
    return _sheet(request, call_of(request, number), code)


def _sheet(request, call, code, **extra):
    standing = standing_of(request, call)
    if code not in anatomy.PARTS or not anatomy.get(code).exists_on(standing.unit):
        raise Http404
    context = frame(request, call, _from(request), standing) | sheet_context(standing, code)
    if request.htmx.target == "part-sheet":
        return render(request, "round/_sheet.html", context | {"picture": code})
    # The sheet is the field of what it shows.
    shown = {tag.entry.key for sheet in context["sheets"] for tag in sheet.tags}
    context["next_tag"] = None if standing.next_check and standing.next_check.key in shown else context["next_tag"]
    return render(request, "round/part.html", context | {"view": "part"} | extra)


def sheet_context(standing, code):
    """What the sheet of a part shows; the coil's has its face to paint."""
    sheets = sheets_of(standing, code)
    shown = [tag.entry.key for sheet in sheets for tag in sheet.tags]
    return {"sheets": sheets, "shown_keys": shown, "spot_unit": standing.shown.label("°F")} | (
        painting(standing, "before") if code == "coil" else {}
    )


def picture_context(request, standing):
    """The picture of the unit, with the sheet of the part that is asked for."""
    code = request.GET.get("part", "")
    opened = code if code in anatomy.PARTS and anatomy.get(code).exists_on(standing.unit) else ""
    return {"picture": standing.picture(opened)} | (sheet_context(standing, opened) if opened else {})


def _from(request):
    """The stop one comes from, which the frame marks."""
    asked = BY_SLUG.get(request.POST.get("stop") or request.GET.get("stop") or "")
    return asked.slug if asked else FIRST_STOP


@require_POST
def done(request, number):
    """Record something done to a part, or show what holds it and ask for a reason."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    code = typed.get("act", "")
    coil = standing.coil if standing.unit.evaporators > 1 else None
    try:
        kept = do_act(
            request.user, call, standing.judgement, code, typed.get("amount", ""), coil, typed.get("note", ""), typed.get("reason", "")
        )
    except InputError as error:
        part_code = code.partition(".")[0]
        if part_code not in anatomy.PARTS or not anatomy.get(part_code).exists_on(standing.unit):
            messages.error(request, str(error))
            return redirect("parts", number=number)
        known = any(one.code == code for one in anatomy.get(part_code).acts_on(standing.unit))
        extra = {"known_act": known, "wrong_act": code, "act_error": str(error), "typed": typed, "needs_reason": isinstance(error, Held)}
        return _sheet(request, call, part_code, **extra)
    settles = acts.ACTS[kept.code].settles_min
    wait = f" Wait {settles:.0f} min before it is read." if settles and not acts.ACTS[kept.code].still else ""
    messages.success(request, f"{acts.ACTS[kept.code].label}: kept.{wait}")
    back = typed.get("back", "")
    if back in BY_SLUG:
        opened = f"?part={kept.part}" if back == "arrive" else ""
        return redirect(reverse("stop", args=[number, back]) + opened)
    return redirect(back, number=number) if back in BENCHES else redirect("part", number=number, code=kept.part)


@require_POST
def looked(request, number):
    """Keep how a part looked, as it was tapped on its sheet."""
    call = call_of(request, number)
    standing, part_code = standing_of(request, call), request.POST.get("part", "")
    if part_code not in anatomy.PARTS or not anatomy.get(part_code).exists_on(standing.unit):
        raise Http404
    coil = standing.coil if standing.unit.evaporators > 1 else None
    with refusals_said(request):
        keep_happened(request.user, call, "looked", {"part": part_code, "state": request.POST.get("state", "")}, coil)
    back = request.POST.get("back", "")
    if back in BY_SLUG:
        return redirect(reverse("stop", args=[number, back]) + (f"?part={part_code}" if back == "arrive" else ""))
    return redirect("part", number=number, code=part_code)


@require_POST
def spot(request, number):
    """Keep how warm a part was, by a thermometer held to it or a camera."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    code, text = typed.get("part", ""), typed.get("temp", "")
    if code not in anatomy.PARTS or not anatomy.get(code).exists_on(standing.unit):
        raise Http404
    coil = standing.coil if standing.unit.evaporators > 1 else None
    try:
        warm = standing.shown.parse(text, "°F")
        keep_happened(request.user, call, "spot", {"part": code, "temp_f": warm, "by": typed.get("by", "")}, coil)
    except InputError as error:
        allowed = standing.shown.span(*SPOT_F, "°F")
        return _sheet(request, call, code, spot_error=f"{error}; allowed {allowed}" if allowed not in str(error) else str(error),
                      spot_typed=text, spot_by=typed.get("by", ""))  # fmt: skip
    messages.success(request, f"{anatomy.get(code).label}: {standing.shown.text(warm, '°F')} kept.")
    return redirect("part", number=number, code=code)


@require_safe
def taken(request, number):
    """Everything taken on the call, by stage and part; each can be corrected or taken back."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    return render(request, "round/taken.html", frame(request, call, _from(request), standing) | {"stages": taken_on_call(standing)})
