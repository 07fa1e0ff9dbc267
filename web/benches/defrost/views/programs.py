"""The defrost program: as found and as left on the day dial, hours."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.benches.defrost import dial
from kettle.benches.defrost.program import ROLES, clock, concerns, read_program, times
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.yard.how import of_parameter
from web.benches.defrost import planning
from web.benches.defrost.actions.keep_hours import keep_hours
from web.benches.defrost.actions.keep_program import keep_program
from web.benches.defrost.views import plans
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, show, standing_of

SIDES = (("found", "As found"), ("left", "As left"))


def programs_context(request, standing, typed=None, errors=None):
    """What the stop shows: both sides of the program, the dial, concerns, the plan, hours."""
    call, shown, typed, errors = standing.call, standing.shown, typed or {}, errors or {}
    kept = planning.kept_programs(call)
    hours = planning.hours_of(call)
    plan = plans.plan_context(call, shown)
    found = planning.program_of(kept["found"]) if "found" in kept else None
    taken = plans.taken(plan["plan"], request.GET.get("take", ""), found)
    if taken and "left" not in typed:
        program, why = taken
        typed = typed | {"left": typed_fields(program.starts_min, program.values, shown) | {"why": why}}
    draft = _draft(kept, typed.get("left"), standing.unit, shown)
    return {
        **dial_context(kept, draft, hours),
        **plan,
        "rows": _rows(standing.unit, kept, shown, typed, errors),
        "texts": _texts(kept, typed, errors),
        "kept": kept,
        "taken": taken,
        "judged": judged_sides(kept, draft, standing, hours),
        "hours_words": _hours_words(hours),
        "site": call.unit.site,
        "cautions": words("lock_out", "wet"),
        "watching": call.defrostwatchs.filter(ended_by="", undone_at=None).last(),
        "controller": call.unit.controller,
    }


def dial_context(kept, draft, hours, outlooks=None, limit_f=None, shown=None):
    """What the dial draws: the draft's arcs (or as found), as found behind them where it differs, curves where they are known."""
    found = planning.program_of(kept["found"]) if "found" in kept else None
    differs = found is not None and draft is not None and draft != found
    traces = None
    if outlooks:
        days = [dial.Day(side, o.curve.minutes, o.curve.frost_lb, o.curve.box_f) for side, o in outlooks.items()]
        traces = dial.traces(days, limit_f, shown)
    told = draft or found
    return {
        "marks": dial.marks(found if differs else None, draft if differs else None, hours),
        "arcs": dial.arcs(told),
        "ticks": dial.ticks(),
        "dial_size": dial.SIZE,
        "traces": traces,
        "a_day": f"{len(told.starts_min)} a day" if told else "–",
        "side_words": "as left" if differs else "as found" if found else "not read yet",
        "can_move": found is not None,
    }


def _draft(kept, typed, unit, shown):
    """The program as it would be left: what was typed, else as left, else as found; None where nothing is read."""
    if typed is not None:
        return read_program(typed, unit, shown)[0]
    for side in ("left", "found"):
        if side in kept:
            return planning.program_of(kept[side])
    return None


def typed_fields(starts, values, shown):
    """A program as its fields hold it."""
    fields = {code: shown.edit(value, ROLES[code].unit) for code, value in values.items() if code in ROLES}
    return fields | {"starts": times(starts)}


def judged_sides(kept, draft, standing, hours):
    """Each side with what goes against sense: as found, then as it would be left where that differs."""
    seen, unit = standing.judgement.facts.seen, standing.unit
    found = planning.program_of(kept["found"]) if "found" in kept else None
    sides = [("As found", found)] if found else []
    if draft is not None and (draft != found or "left" in kept):
        sides.append(("As left", draft))
    call, facts = standing.call, standing.judgement.facts
    return [(label, concerns(program, unit, seen, hours, planning.against_by_site(call, facts, program))) for label, program in sides]


def _rows(unit, kept, shown, typed, errors):
    """Each role with its unit, what it does, and each side's field: what stands, or what was typed and what is wrong."""
    rows = []
    for code, role in ROLES.items():
        if not role.exists_on(unit):
            continue
        cells = []
        for side, _ in SIDES:
            entry = kept.get(side) or (kept.get("found") if side == "left" else None)
            value = shown.edit(entry.figures[code], role.unit) if entry and code in entry.figures else ""
            stands = typed[side].get(code, "") if side in typed else value
            cells.append({"side": side, "value": stands, "error": errors.get(side, {}).get(code)})
        changed = bool(cells[0]["value"]) and cells[0]["value"] != cells[1]["value"]
        rows.append(
            {
                "code": code,
                "label": role.label,
                "unit": shown.label(role.unit),
                "does": role.does,
                "how": of_parameter(role.parameter),
                "cells": cells,
                "changed": changed,
                "range": shown.span(role.low, role.high, role.unit),
            }  # fmt: skip
        )
    return rows


def _texts(kept, typed, errors):
    """The starts of both sides, and why it was left so."""
    fields = []
    for side, _ in SIDES:
        entry = kept.get(side) or (kept.get("found") if side == "left" else None)
        fields.append(("starts", side, f"Starts {side}", times(entry.starts) if entry else "", "4 a day, or 02:00 10:00 18:00"))
    fields.append(("why", "left", "Why", kept["left"].why if "left" in kept else "", ""))
    return [
        {"name": name, "side": side, "label": label, "value": typed[side].get(name, "") if side in typed else value, "hint": hint,
         "error": errors.get(side, {}).get(name)}
        for name, side, label, value, hint in fields
    ]  # fmt: skip


def _hours_words(hours):
    return {
        "opens": clock(hours.opens_min) if hours.opens_min is not None else "",
        "closes": clock(hours.closes_min) if hours.closes_min is not None else "",
        "deliveries": " ".join(clock(at) for at in hours.deliveries_min),
    }


@require_POST
def keep(request, number, side):
    """Keep one side of the program."""
    call = call_of(request, number)
    try:
        keep_program(request.user, call, side, request.POST, request.POST.get("why", ""))
    except FieldErrors as error:
        standing = standing_of(request, call)
        context = programs_context(request, standing, {side: request.POST}, {side: error.by_field})
        return show(request, call, "programs", standing, **context)
    except InputError as error:
        messages.error(request, str(error))
    else:
        messages.success(request, f"The program {dict(SIDES)[side].lower()} is kept.")
    return redirect("stop", number=number, stop="programs")


@require_POST
def hours(request, number):
    """Keep the hours of the site."""
    call = call_of(request, number)
    posted = request.POST
    with refusals_said(request):
        if call.unit.site is None:
            raise InputError("Hours belong to a site: keep the quick look on one first")
        keep_hours(request.user, call.unit.site, posted.get("opens", ""), posted.get("closes", ""), posted.get("deliveries", ""))
        messages.success(request, "The hours of the site are kept.")
    return redirect("stop", number=number, stop="programs")
