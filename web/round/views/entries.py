"""Entering an observation and taking one back: the answer is the field, and out of band all that depends on it."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from kettle.benches.ice.melt import must_come_first
from kettle.judging.readings import IMPLIED
from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.units import whole
from web.logbook.actions.override_hold import action_of, refuse_if_held
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.undo_entry import last_reading, undo_entry
from web.round.drawing import BY_STOP
from web.round.stops import BY_SLUG
from web.round.views.pages import call_of, frame, standing_of

# Where one goes after taking back what was recorded elsewhere.
BACK_TO = {"override": "judge", "finding": "judge"}


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
        # What nothing can hold need not be judged before it is taken.
        if action_of(entry) is not None:
            refuse_if_held(call, standing.judgement, entry)
        record_reading(request.user, call, key, typed, evaporator=standing.coil if standing.coil > 1 else None)
    except InputError as error:
        wrong[key] = (typed if isinstance(typed, str) else "", str(error))
    return _changed(request, number, key, wrong, before=before)


@require_POST
def undo(request, number):
    """Take back the reading that the button named: one's own last, or another's by its own button."""
    call = call_of(request, number)
    before = _ready(request, standing_of(request, call))
    asked, theirs = whole(request.POST.get("reading", ""), 1, 10**12), request.POST.get("theirs") == "yes"
    reading = call.readings.filter(pk=asked).first() if asked else last_reading(call, request.user)
    if reading is None or (reading.by_id != request.user.pk and not theirs):
        return _changed(request, number, "", {}, before=before)
    try:
        undo_entry(request.user, reading)
    except InputError as error:
        messages.error(request, str(error))
    return _changed(request, number, reading.key, {}, before=before, from_undo=True)


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


def _changed(request, number, key, wrong, before, from_undo=False):
    call = call_of(request, number)
    standing = standing_of(request, call, wrong)
    here = BY_SLUG.get(request.POST.get("stop"), BY_SLUG["read"]).slug
    drawn = {tag.entry.key: tag for tag in standing.tags_on(BY_STOP[here])} if here in BY_STOP else {}
    tag = drawn.get(key) or (standing.tag(key) if key in BY_SLUG[here].looks else None)
    context = frame(request, call, here, standing) | {
        "tag": tag,
        "also": [drawn[other] for other in _touched(key) if other in drawn],
        "target": request.htmx.target or "",
        "from_undo": from_undo,
    }
    response = render(request, "round/changed.html", context)
    if here == "judge" or before != _ready(request, standing):
        response["HX-Refresh"] = "true"
    return response


@require_POST
def take_back(request, number, what, pk):
    """Take back a valve turn, a setting change or a set."""
    call = call_of(request, number)
    entries = {
        "turn": call.valveturns,
        "setting": call.settingchanges,
        "set": call.readingsets,
        "override": call.overrides,
        "finding": call.findings,
    }.get(what)
    if entries is None:
        raise Http404
    try:
        undo_entry(request.user, get_object_or_404(entries, pk=pk))
    except InputError as error:
        messages.error(request, str(error))
    return redirect("sets", number=number) if what == "set" else redirect("stop", number=number, stop=BACK_TO.get(what, "correct"))
