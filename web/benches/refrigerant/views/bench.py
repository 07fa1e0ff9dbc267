"""Refrigerant work on a call: recovery, a part changed, standing pressure, evacuation, retrofit; search and machine beside it."""

from datetime import timedelta

from django.http import Http404
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.http import require_safe

from kettle.benches.refrigerant import change, cylinders, nitrogen, retrofit, vacuum
from kettle.benches.refrigerant.compressor import to_match
from kettle.benches.refrigerant.drawing import drawn
from kettle.knowledge import refrigerants
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors
from web import work_time
from web.benches.refrigerant.actions.record import TEST
from web.benches.refrigerant.views import machine, search
from web.benches.refrigerant.views.machine import TUBE
from web.links.probes import link
from web.round.asked import Asked
from web.round.views.pages import call_of, frame, standing_of
from web.round.wishes import remembered

PUMP = (("volume_ft3", "System holds", "ft³", 0.6), ("pump_cfm", "Pump", "cfm", 6.0), ("hose_ft", "Hose", "ft", 3.0),
        ("hose_bore_in", "Its inside", "in", 0.375))  # fmt: skip
WISHES = ("part", "other", "maker_sst", "maker_sct", "measured", "tube_gas", "at", *(name for name, *_ in (*PUMP, *TUBE)))
# Of what a vacuum gauge tells, one reading in so many seconds is drawn.
GAUGE_EVERY_S = 15.0
STATE_MARKS = {"tight": ("●", "good"), "wet": ("▲", "bad"), "leaking": ("✕", "bad"), "watch": ("◌", "watch")}


@require_safe
def refrigerant(request, number):
    """The bench."""
    return show_bench(request, call_of(request, number))


def show_bench(request, call, typed=None, wrong=None):
    """The page; what was typed and refused."""
    typed, wrong = typed or {}, wrong or {}
    standing = standing_of(request, call)
    asked = Asked(remembered(request, f"refrigerant-{call.pk}", WISHES), standing.shown)
    asked.wrong |= wrong
    wrong = asked.wrong
    context = frame(request, call, "correct", standing) | {"typed": typed, "wrong": wrong}
    context |= search.leaks_of(request, call, standing, typed, wrong) | _recovery(call, standing, typed, wrong)
    context |= _change(call, standing, asked) | _nitrogen(call, standing, typed, wrong) | _evacuation(call, asked, wrong)
    context |= machine.tube(asked, standing, wrong) | machine.pumping(standing) | machine.maker(asked, standing, wrong)
    context |= machine.first_start(call, standing, typed, wrong) | machine.line(standing, typed, wrong) | _retrofit(asked, standing)
    # The search stands open until something else is in hand.
    context["leak_open"] = bool(context["looked"]) or not (context["part"] or context["microns"])
    flammable = ("flammable",) if standing.unit.refrigerant.flammable else ()
    if request.htmx.target == "microns-drawn":
        return render(request, "refrigerant/_microns.html", context)
    at_steps = {text for *_, cautions in context["change_steps"] for text in cautions} if context["part"] else set()
    context["cautions"] = [text for text in words("licensed", "pressure", "closed_air", *flammable) if text not in at_steps]
    return render(request, "refrigerant/bench.html", context)


def _recovery(call, standing, typed, wrong):
    unit, shown = standing.unit, standing.shown
    out = sum(act.value for act in call.acts.filter(part="charge", did="recovered", undone_at=None) if act.value)
    label = unit.critical_charge_oz
    fields = (("before", "Cylinder before"), ("after", "Cylinder now"))
    return {
        "recovered": shown.text(out, "oz", 1) if out else "",
        "recovered_says": cylinders.recovered(label, out, shown) if out and label else "",
        "recovery_fields": [(name, text, shown.label("oz"), typed.get(name, ""), wrong.get(name, "")) for name, text in fields],
        "recovery_cylinders": call.shop.cylinders.filter(recovery=True, gone_at=None),
    }


def _change(call, standing, asked):
    part = asked.typed.get("part", "")
    part = part if part in change.PARTS else ""
    done = {(one.part, one.step): one for one in call.changesteps.filter(undone_at=None).select_related("by")}
    if not part and done:
        part = next((of for of, _ in reversed(done) if of in change.PARTS), "")
    match = to_match(standing.unit) if part == "compressor" else {}
    steps = change.steps(part, standing.unit) if part else []
    return {
        "parts": change.PARTS.items(), "part": part,
        "change_steps": [(step, match.get(step.code, step.needs), done.get((part, step.code)), words(*step.caution)) for step in steps],
        "triple_steps": [(step, step.needs, done.get(("triple", step.code)), words(*step.caution)) for step in change.TRIPLE],
        "triple_begun": any(of == "triple" for of, _ in done),
        "change_hours": f"{change.hours(part, standing.unit):.1f}" if part else "",
    }  # fmt: skip


def _nitrogen(call, standing, typed, wrong):
    shown, tests = standing.shown, []
    for one in call.standingtests.filter(undone_at=None):
        told = nitrogen.stood(one.start_psig, one.start_f, one.now_psig, one.now_f, one.minutes, standing.unit.altitude_ft, shown)
        tests.append((one, told))
    fields = [(name, label, shown.label(unit), typed.get(name, ""), wrong.get(name, "")) for name, label, unit in TEST]
    fields.append(("minutes", "Stood", "min", typed.get("minutes", ""), wrong.get("minutes", "")))
    return {"standing_tests": tests, "test_fields": fields}


def _evacuation(call, asked, wrong):
    rows = list(call.vacuumreadings.filter(undone_at=None))
    told, pump = told_by_gauge(call), rows[-1].pump if rows else True
    seen = [(one.at, one.microns, one.pump) for one in rows] + [(at, value, pump) for at, value in told]
    readings = [((at - seen[0][0]).total_seconds() / 60.0, value, ran) for at, value, ran in seen]
    shut = []
    for reading in readings:
        # Only the last rise counts: the pump may have run again between.
        shut = [] if reading[2] else [*shut, reading]
    figures, needs = {}, ""
    for name, label, unit, usual in PUMP:
        figures[name] = asked.figure(name, label, unit, usual)
    if None not in figures.values():
        try:
            pull = vacuum.pull_down(**figures)
            through = f"{pull.let_through_pct:.0f} % of the pump"
            needs = f"{pull.minutes:.0f} min to 500 microns if it is dry; at the end the hose lets {through} through"
        except FieldErrors as error:
            wrong.update(error.by_field)
    decay = vacuum.read_decay([(at, microns) for at, microns, _ in shut]) if shut else None
    return {
        "microns": rows, "microns_told": len(told), "gauge": call.unit.probes if told else None,
        "microns_drawn": drawn(readings), "decay": decay,
        "decay_mark": STATE_MARKS[decay.state] if decay else None,
        "pump_fields": asked.fields(PUMP),
        "pump_needs": needs,
    }  # fmt: skip


def told_by_gauge(call):
    """What a vacuum gauge among the unit's probes told since the last reading that stands: (moment, microns), one a minute at most."""
    probes = link(call.unit.probes) if call.is_open else None
    if probes is None:
        return []
    last = call.vacuumreadings.filter(undone_at=None).last()
    since, kept = last.at if last else call.opened_at, []
    for minutes, value in probes.since("vacuum_micron", since):
        at = since + timedelta(minutes=minutes)
        if at > since and (not kept or (at - kept[-1][0]).total_seconds() >= GAUGE_EVERY_S):
            kept.append((at, value))
    return kept


@require_safe
def retrofit_label(request, number, name):
    """A label for another refrigerant, to print."""
    call = call_of(request, number)
    if name not in refrigerants.catalogue():
        raise Http404
    context = {"call": call, "other": refrigerants.get(name), "now": call.unit.refrigerant, "today": timezone.localdate(work_time.now())}
    return render(request, "refrigerant/label.html", context)


def _retrofit(asked, standing):
    other = asked.typed.get("other", "")
    found = None
    if other in refrigerants.catalogue():
        found = retrofit.retrofit(standing.unit, refrigerants.get(other), standing.shown)
    return {"retrofit": found, "other": other, "refrigerant_names": list(refrigerants.catalogue())}
