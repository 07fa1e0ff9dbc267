"""Watching a defrost: a running clock, what to expect and when, the heater by the meter, and how it ended."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.defrost import timeline
from kettle.judging.electrics import derive
from kettle.knowledge import observations
from kettle.knowledge.bands import default_band
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import format_number
from web import work_time
from web.benches.defrost import planning
from web.benches.defrost.actions import watch_defrost as actions
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, frame, standing_of

CHOICES = ("defrost_ended_by", "coil_after_defrost", "compressor_in_defrost", "fans_in_defrost", "drain")
FIGURES = ("heater_rated_w", "heater_volts", "heater_amps")


def _expected(call, standing):
    """What the model expects of a defrost of the program that stands, as it is kept; nothing where none can be told."""
    from kettle.benches.defrost.watch import expected

    kept = planning.kept_programs(call)
    entry = kept.get("left") or kept.get("found")
    if entry is None:
        return None, {}
    program = planning.program_of(entry)
    try:
        made = expected(planning.situation_of(call, standing.judgement.facts), program)
    except InputError:
        made = None
    if made is None:
        return program, {}
    spans = {name: getattr(made, name) for name, _, _ in timeline.MILESTONES}
    return program, {name: [span.middle, span.low, span.high] for name, span in spans.items()}


def _line(watch, now):
    """The line of time of a watch as it is drawn."""
    made = timeline.line(watch.expected, watch.marks, (now - watch.at).total_seconds() / 60.0)
    stones = []
    for stone in made.stones:
        low, high = (format_number(minutes, 0) for minutes in stone.expected_min or (0, 0))
        told = f"expected at {low} min" if low == high else f"expected {low} to {high} min"
        came = "" if stone.came_min is None else f"{format_number(stone.came_min, 0)} min"
        stones.append({"stone": stone, "expected": told if stone.expected_min else "", "came": came})
    return {"made": made, "stones": stones}


def _context(request, call, standing, typed=None, errors=None):
    watch = call.defrostwatchs.filter(undone_at=None).last()
    running = watch if watch and not watch.is_over else None
    typed, errors = typed or {}, errors or {}
    entries = {key: observations.get(key) for key in (*CHOICES, *FIGURES)}

    def field(key):
        entry = entries[key]
        return {"key": key, "label": entry.label, "choices": list(entry.choices), "value": typed.get(key, ""), "error": errors.get(key)}

    now = work_time.now()
    return {
        "watch": running,
        "last": watch if watch and watch.is_over else None,
        "line": _line(running, now) if running else None,
        "meter": [standing.tag(key) for key in FIGURES] if standing.unit.defrost == "electric" else [],
        "looks": [standing.tag(key) for key in CHOICES[2:] if entries[key].exists_on(standing.unit)],
        "ends": [field(key) for key in CHOICES[:2] if entries[key].exists_on(standing.unit)],
        "controller": call.unit.controller,
        "cautions": words("live", "wet"),
        "typed": typed,
        "errors": errors,
    }


@require_safe
def watch(request, number):
    """The watch; the clock's line alone where it asks for itself again."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    context = _context(request, call, standing)
    if request.htmx and context["watch"]:
        return render(request, "defrost/_watch_line.html", {"call": call, **context})
    return render(request, "defrost/watch.html", frame(request, call, "programs", standing) | context)


@require_POST
def start(request, number):
    """Begin to watch a defrost that starts now."""
    call = call_of(request, number)
    program, spans = _expected(call, standing_of(request, call))
    with refusals_said(request):
        actions.start_watch(request.user, call, program, spans)
    return redirect("watch", number=number)


def _running(call):
    return get_object_or_404(call.defrostwatchs, undone_at=None, ended_by="")


@require_POST
def mark(request, number, mark):
    """A milestone was reached now."""
    call = call_of(request, number)
    with refusals_said(request):
        actions.mark_watch(request.user, _running(call), mark)
    return redirect("watch", number=number)


@require_POST
def end(request, number):
    """The defrost ended; what was seen is recorded."""
    call = call_of(request, number)
    running, posted = _running(call), request.POST
    try:
        actions.end_watch(request.user, running, posted.get("defrost_ended_by", ""), posted.get("coil_after_defrost", ""), posted)
    except FieldErrors as error:
        wrong = {key: (posted.get(key, ""), text) for key, text in error.by_field.items()}
        standing = standing_of(request, call, wrong)
        context = _context(request, call, standing, posted, error.by_field)
        return render(request, "defrost/watch.html", frame(request, call, "programs", standing) | context)
    except InputError as error:
        messages.error(request, str(error))
        return redirect("watch", number=number)
    messages.success(request, _kept(running))
    return redirect("stop", number=number, stop="programs")


def _kept(watch):
    """What is said of a watch that is kept: the plan rests on one that says how the coil came out."""
    told = watch.marks.get("clear") is not None or watch.coil_after
    return f"The watched defrost is kept; {'the plan now rests on it' if told else 'it says too little for a plan'}."


@require_POST
def enter(request, number):
    """Keep a defrost that was watched without the clock."""
    call = call_of(request, number)
    kept = planning.kept_programs(call)
    programs = {side: (entry.at, planning.program_of(entry)) for side, entry in kept.items()}
    try:
        entered = actions.enter_watch(request.user, call, programs, request.POST)
    except InputError as error:
        standing = standing_of(request, call)
        errors = error.beside("ended_after")
        context = _context(request, call, standing, request.POST, errors)
        return render(request, "defrost/watch.html", frame(request, call, "programs", standing) | context)
    messages.success(request, _kept(entered))
    return redirect("stop", number=number, stop="programs")


@require_POST
def leave(request, number):
    """Give up watching; nothing is recorded."""
    call = call_of(request, number)
    actions.leave_watch(request.user, _running(call))
    messages.success(request, "Left; nothing of it is recorded.")
    return redirect("stop", number=number, stop="programs")


@require_POST
def heater(request, number):
    """What the meter says of the heater, as it is typed: its share of the rating."""
    call = call_of(request, number)
    unit, typed = standing_of(request, call).unit, {}
    for key in FIGURES:
        try:
            typed[key] = observations.get(key).parse(request.POST.get(key, ""))
        except InputError:
            return render(request, "defrost/_heater_share.html", {})
    pct = derive(typed, unit.phases, None).get("heater_pct")
    context = {"pct": None if pct is None else format_number(pct, 0), "weak": pct is not None and pct < default_band(unit, "heater_pct")[0]}
    return render(request, "defrost/_heater_share.html", context)
