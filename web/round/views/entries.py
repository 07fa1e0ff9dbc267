"""Entering an observation and taking one back: the answer is the field, and out of band all that depends on it."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from kettle.benches.ice.melt import must_come_first
from kettle.judging.holds import action_of
from kettle.judging.readings import IMPLIED
from kettle.knowledge import anatomy, observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import whole
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.undo_entry import last_reading, undo_entry
from web.logbook.calls.record import entries
from web.logbook.refusals import refusals_said
from web.round.drawing import BY_STOP
from web.round.standing.sheets import sheets_of
from web.round.standing.taken import BY_THEIR_BENCH
from web.round.stops import BY_SLUG
from web.round.views.pages import call_of, frame, standing_of

# Where one goes after taking back what was recorded elsewhere.
BACK_TO = {"override": "judge", "finding": "judge"}
# Entries that a page calls otherwise than the record does.
AS_REFERRED = {"turn": "valveturn"}


@require_POST
def enter(request, number, key):
    """Store one observation."""
    call = call_of(request, number)
    if key not in observations.REGISTRY:
        raise Http404
    entry = observations.get(key)
    typed = request.POST.getlist(key) if entry.many else request.POST.get(key, "")
    standing = standing_of(request, call)
    before, wrong = _ready(request, standing), {}
    try:
        held = standing.judgement if action_of(entry) is not None else None
        record_reading(request.user, call, key, typed, evaporator=standing.coil if standing.coil > 1 else None, judgement=held)
    except InputError as error:
        wrong[key] = (typed if isinstance(typed, str) else "", str(error))
    return changed(request, number, key, wrong, before=before)


@require_POST
def undo(request, number):
    """Take back the reading that the button named: one's own last, or another's by its own button."""
    call = call_of(request, number)
    before = _ready(request, standing_of(request, call))
    asked, theirs = whole(request.POST.get("reading", ""), 1, 10**12), request.POST.get("theirs") == "yes"
    reading = call.readings.filter(pk=asked).first() if asked else last_reading(call, request.user)
    if reading is None or (reading.by_id != request.user.pk and not theirs):
        return changed(request, number, "", {}, before=before)
    with refusals_said(request):
        undo_entry(request.user, reading)
    return changed(request, number, reading.key, {}, before=before, from_undo=True)


def _ready(request, standing):
    """Whether melting may start, where the screen depends on it."""
    if request.POST.get("stop") != "melt":
        return None
    return not must_come_first(standing.judgement.facts)


def _touched(key):
    """Other observations whose field shows something else once this one changed."""
    touched = set()
    for target, (sources, _) in IMPLIED.items():
        if key in sources:
            touched |= {target, *sources}
    return touched - {key}


def changed(request, number, key, wrong=None, before=None, from_undo=False, kept_note=""):
    """Answer with the field, and out of band all that depends on it; a field that was not asked itself comes out of band too."""
    call = call_of(request, number)
    standing = standing_of(request, call, wrong or {})
    here = BY_SLUG.get(request.POST.get("stop"), BY_SLUG["read"]).slug
    drawn = {tag.entry.key: tag for tag in standing.tags_on(BY_STOP[here])} if here in BY_STOP else {}
    on_sheet = request.POST.get("view") == "part" and key
    tag = standing.tag(key) if on_sheet else drawn.get(key) or (standing.tag(key) if key in BY_SLUG[here].looks else None)
    context = frame(request, call, here, standing) | {
        "tag": tag,
        "also": [drawn[other] for other in _touched(key) if other in drawn],
        "target": request.htmx.target or "",
        "from_undo": from_undo or bool(kept_note),
        "kept_note": kept_note,
        "view": request.POST.get("view", ""),
    }
    if request.POST.get("picture"):
        context["picture"] = standing.picture()
    if on_sheet and "shown" in request.POST:
        shown = {key, *request.POST.get("shown", "").split(",")}
        sheets = sheets_of(standing, anatomy.part_of(key).code)
        context["sheet_code"] = request.POST.get("sheet", "")
        # What can be asked only now that this was said.
        context["more_looks"] = [tag for sheet in sheets for tag in sheet.tags if tag.entry.key not in shown]
    response = render(request, "round/changed.html", context)
    if kept_note:
        response["HX-Trigger"] = "noted"
    if not kept_note and request.POST.get("view") == "taken":
        response["HX-Refresh"] = "true"
    anew = (here == "judge" and not on_sheet) or before != _ready(request, standing)
    if anew and kept_note:
        messages.success(request, f"Kept: {kept_note}")
    if anew:
        response["HX-Refresh"] = "true"
    return response


@require_POST
def take_back(request, number, what, pk):
    """Take back one entry of a call: whatever is on its record, or a set of readings."""
    call = call_of(request, number)
    relation = "readingsets" if what == "set" else entries().get(AS_REFERRED.get(what, what))
    if relation is None or what in BY_THEIR_BENCH:
        raise Http404
    with refusals_said(request):
        undo_entry(request.user, get_object_or_404(getattr(call, relation), pk=pk))
    back = request.POST.get("back", "")
    if back in anatomy.PARTS:
        return redirect("part", number=number, code=back)
    if back == "taken" or what in ("set", "reading"):
        return redirect("sets" if what == "set" else "taken", number=number)
    return redirect("stop", number=number, stop=BACK_TO.get(what, "correct"))
