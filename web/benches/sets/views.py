"""Sets of readings: kept, and lined up side by side."""

from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.sets import baseline
from web.benches.sets.actions.keep_set import keep_set as keep
from web.logbook.calls.baselines import baseline_of, facts_of, simulated_in
from web.logbook.calls.courses import INSTANT, stage_at
from web.logbook.calls.judging import facts_by_stage
from web.logbook.refusals import refusals_said
from web.round.standing.taken import AS_FOUND
from web.round.views.pages import call_of, frame, standing_of


@require_POST
def keep_set(request, number):
    """Keep what stands now as a set."""
    call = call_of(request, number)
    with refusals_said(request):
        keep(request.user, call, request.POST.get("label", ""), request.POST.get("good") == "yes")
    return redirect("sets", number=number)


@require_safe
def sets(request, number):
    """The sets of a call side by side, what was adjusted in between, and the unit's own baseline before them."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    shown, coil = standing.shown, standing.coil
    kept = list(call.readingsets.filter(undone_at=None).select_related("by"))
    now = standing.told.call.facts_now(coil)
    columns = [
        {"set": one, "title": one.label, "at": one.at, "facts": facts_of(one, coil, shown), "simulated": simulated_in(one, coil)}
        for one in kept
    ]
    columns += _stages_not_kept(standing, coil, shown, kept)
    columns.sort(key=lambda column: column["at"])
    found = baseline_of(call, now.number("ambient_f"), coil, shown)
    if found:
        columns.insert(0, {"baseline": True, "set": found[0], "title": "Its own baseline", "at": found[0].at, "facts": found[1]})
    if call.is_open:
        columns.append({"now": True, "title": "Now", "facts": now, "simulated": bool(standing.simulated)})
    for before, after in zip(columns, columns[1:], strict=False):
        after["adjusted"] = [] if before.get("baseline") else _between(standing, before["at"], after.get("at"))
    rows = [_row(row, shown) for row in baseline.line_up([column["facts"] for column in columns])]
    context = frame(request, call, "read", standing) | {"columns": columns, "rows": rows}
    return render(request, "sets/sets.html", context)


def _stages_not_kept(standing, coil, shown, kept):
    """Every stage of the course that something was read in and nobody kept as a set: what stood when the next act ended it."""
    steps = [step for step, _ in standing.steps]
    with_set, columns = {stage_at(steps, one.at) for one in kept}, []
    for place, (step, facts) in enumerate(facts_by_stage(standing.told, coil)):
        if place not in with_set and facts.derived:
            title = AS_FOUND if place == 0 else f"After: {steps[place - 1].words(shown).lower()}"
            columns.append({"title": title, "at": step.at - INSTANT, "facts": facts})
    return columns


def _between(standing, start, end):
    """What was adjusted after one moment and up to another, in words."""
    words = [(step.at, text) for step, text in standing.steps if step.kept_as != "setting"]
    words += [(change.at, f"{label} {change.as_found} → {change.as_left}") for change, label in standing.change_words]
    return [text for at, text in sorted(words) if at > start and (end is None or at <= end)]


def _row(row, shown):
    """A figure's values and differences as this person reads them."""
    unit = "°F diff" if row.unit == "°F" else "psi" if row.unit == "psig" else row.unit
    cells = []
    for value, moved in zip(row.values, row.differences, strict=True):
        text = shown.figure(value, row.unit, row.decimals) if value is not None else "–"
        step = shown.figure(abs(moved), unit, row.decimals) if moved is not None else ""
        nothing = not step or float(step) == 0
        cells.append((text, "" if nothing else f"{'▲' if moved > 0 else '▼'} {step}"))
    return {"label": row.label, "unit": shown.label(row.unit), "cells": cells}
