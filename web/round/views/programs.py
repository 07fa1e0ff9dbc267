"""The defrost program: as found and as left on the day dial, what goes against sense, and the heater bank."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.cautions import words
from kettle.defrost import dial
from kettle.defrost.program import ROLES, Hours, Program, clock, concerns
from kettle.electrics import heater_bank
from kettle.errors import InputError
from kettle.units import format_number
from web.logbook.actions.change_setting import FieldErrors
from web.logbook.actions.keep_hours import keep_hours
from web.logbook.actions.keep_program import keep_program
from web.round.views.pages import call_of, show, standing_of

SIDES = (("found", "As found"), ("left", "As left"))


def programs_context(request, standing, typed=None, errors=None):
    """What the stop shows: both sides of the program, the dial, concerns, hours, heater bank."""
    call, shown, typed, errors = standing.call, standing.shown, typed or {}, errors or {}
    kept = {entry.side: entry for entry in call.defrostprograms.filter(undone_at=None)}
    programs = {side: _program(entry) for side, entry in kept.items()}
    site, unit = call.unit.site, standing.unit
    hours = Hours(site.opens_min, site.closes_min, tuple(site.deliveries_min)) if site else Hours()
    told = programs.get("left") or programs.get("found")
    seen = standing.judgement.facts.seen
    return {
        "marks": dial.marks(programs.get("found"), programs.get("left"), hours),
        "ticks": dial.ticks(),
        "dial_size": dial.SIZE,
        "rows": _rows(unit, kept, shown, typed, errors),
        "texts": _texts(kept, typed, errors),
        "a_day": f"{len(told.starts_min)} a day" if told else "–",
        "kept": kept,
        "judged": [(label, concerns(programs[side], unit, seen, hours)) for side, label in SIDES if side in programs],
        "hours_words": _hours_words(hours),
        "site": site,
        "heater": _heater(request, unit),
        "cautions": words("lock_out", "wet"),
    }


def _program(entry):
    return Program(tuple(entry.starts), entry.figures)


def _rows(unit, kept, shown, typed, errors):
    """Each role with its unit, what it does, and each side's field: what stands, or what was typed and what is wrong."""
    rows = []
    for code, role in ROLES.items():
        if not role.exists_on(unit):
            continue
        cells = []
        for side, _ in SIDES:
            value = shown.edit(kept[side].figures[code], role.unit) if side in kept and code in kept[side].figures else ""
            stands = typed[side].get(code, "") if side in typed else value
            cells.append({"side": side, "value": stands, "error": errors.get(side, {}).get(code)})
        rows.append({"code": code, "label": role.label, "unit": shown.label(role.unit), "does": role.does, "cells": cells})
    return rows


def _texts(kept, typed, errors):
    """The starts of both sides, and why it was left so."""
    fields = []
    for side, label in SIDES:
        starts = " ".join(clock(start) for start in kept[side].starts) if side in kept else ""
        fields.append(("starts", side, f"Starts, {label.lower()}", starts, "4 a day, or 02:00 10:00 18:00"))
    fields.append(("why", "left", "Why it is left so", kept["left"].why if "left" in kept else "", ""))
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


def _heater(request, unit):
    """The heater bank asked about, in words; what is wrong where a figure is none."""
    asked = {name: request.GET.get(name, "").strip() for name in ("volts", "watts", "elements", "amps")}
    if not asked["volts"] or not asked["watts"]:
        return {"asked": asked}
    try:
        volts, watts = float(asked["volts"].replace(",", ".")), float(asked["watts"].replace(",", "."))
        elements = int(asked["elements"] or 1)
        amps = float(asked["amps"].replace(",", ".")) if asked["amps"] else None
        bank = heater_bank(volts, watts, elements, unit.phases, amps)
    except InputError as error:
        return {"asked": asked, "error": str(error)}
    except ValueError:
        return {"asked": asked, "error": "Heater: volts, watts, elements and amps are figures"}
    return {
        "asked": asked,
        "expected": f"{format_number(bank.expected_amps)} A",
        "ohms": f"{format_number(bank.element_ohms)} Ω",
        "working": "" if bank.working is None else f"{format_number(bank.working)} of {elements}",
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
    try:
        if call.unit.site is None:
            raise InputError("Hours belong to a site: keep the quick look on one first")
        keep_hours(request.user, call.unit.site, posted.get("opens", ""), posted.get("closes", ""), posted.get("deliveries", ""))
    except InputError as error:
        messages.error(request, str(error))
    else:
        messages.success(request, "The hours of the site are kept.")
    return redirect("stop", number=number, stop="programs")
