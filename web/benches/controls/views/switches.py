"""Controls set by computation: a pressure switch drawn on its scale, cycles watched, thermostat, sensors, regulators, high side, alarms."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.controls import cycles, pressure
from kettle.benches.controls.drawing import bars, drawn
from kettle.benches.controls.predict import by_setting
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors, InputError
from web.benches.controls.actions.keep_switch import keep_switch
from web.benches.controls.actions.watch_cycles import tap
from web.benches.controls.views.sums import Asked, sums
from web.logbook.actions.undo_entry import undo_entry
from web.round.views.pages import call_of, frame, standing_of

COLD_DAY_F, HOT_DAY_F, USUAL_DAY_F = 40.0, 100.0, 80.0
YEAR_F = (-20.0, 0.0, 20.0, 40.0, 60.0, 80.0, 100.0)
USES = {"thermostat": "the only thermostat", "pump_down": "pump-down or safety"}


@require_safe
def controls(request, number):
    """Everything that switches or holds a pressure or a temperature, each with its sum."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    asked = Asked(request)
    context = frame(request, call, "programs", standing)
    context |= _pressure(asked, standing) | _cycles(call, asked, standing) | sums(asked, standing)
    typed = context["fields"] | context["swing_typed"] | context["sensor_typed"] | context["regulator_typed"]
    typed |= context["head_typed"] | {"held_f": context["held_f"]}
    typed |= {"found_in": context["found"]["cut_in"], "found_out": context["found"]["cut_out"]}
    context |= {"forms": asked.forms(typed), "errors": asked.wrong, "cautions": words("pressure")}
    return render(request, "controls/switches.html", context)


def _span(asked, unit):
    """The air wanted: what was typed, else about the set."""
    warmest, coldest = pressure.usual_air_f(unit)
    return asked.figure("warmest_f", "Warmest air", "°F", warmest), asked.figure("coldest_f", "Coldest air", "°F", coldest)


def _pressure(asked, standing):
    """The switch on its scale: what is proposed, what is set, what is wrong with it, which screw to turn, and what it will do."""
    unit, facts, shown = standing.unit, standing.judgement.facts, asked.shown
    r, altitude = unit.refrigerant, unit.altitude_ft
    use = asked.choice("use", USES if unit.box_control == "suction_pressure" else dict(reversed(USES.items())))
    build = asked.choice("build", pressure.BUILDS)
    warmest, coldest = _span(asked, unit)
    td = asked.figure("td_f", "TD", "°F diff", facts.derived.get("td_f") or pressure.usual_td_f(unit))
    found_in, found_out = facts.number("lp_cut_in_psig"), facts.number("lp_cut_out_psig")
    proposal = None
    try:
        proposal = pressure.as_thermostat(r, altitude, warmest, coldest, td)
    except FieldErrors as error:
        asked.wrong.update(error.by_field)
    usual = proposal.setting if proposal else pressure.fallback(unit)
    cut_in = asked.figure("cut_in", "Cut-in", "psig", found_in if found_in is not None else usual.cut_in_psig)
    cut_out = asked.figure("cut_out", "Cut-out", "psig", found_out if found_out is not None else usual.cut_out_psig)
    try:
        setting = pressure.checked(r, altitude, cut_in, cut_out)
    except FieldErrors as error:
        asked.wrong.update({name.removesuffix("_psig"): text for name, text in error.by_field.items()})
        setting = usual
    ambient = facts.number("ambient_f") or USUAL_DAY_F
    low = asked.figure("coldest_met_f", "Coldest the low side meets", "°F", min(ambient, unit.set_f))
    if use == "thermostat":
        problems = pressure.thermostat_problems(r, altitude, setting, not unit.kind.freezer)
    else:
        problems = pressure.pump_down_problems(r, altitude, setting, low, facts.number("pump_down_rise_psi"))
    refused = any(one.refused for one in problems)
    days = [("now", ambient), ("a cold day", COLD_DAY_F), ("a hot day", HOT_DAY_F)]
    predicted = []
    if use == "thermostat" and not refused and not asked.wrong:
        predicted = [
            (title, one, _does(one, shown)) for (title, _), one in zip(days, by_setting(unit, setting, [at for _, at in days]), strict=True)
        ]
    was = pressure.Setting(found_in, found_out) if found_in is not None and found_out is not None else None
    marks = [("freezing", 32.0), ("warmest air", warmest), ("coldest air", coldest), ("ambient", ambient)]
    if "sst_f" in facts.derived:
        marks.append(("low side now", facts.derived["sst_f"]))
    scale = drawn(r, altitude, setting, marks, shown)
    return {
        "use": use, "uses": USES.items(), "build": build, "builds": pressure.BUILDS.items(),
        "setting": setting, "was": was, "proposal": proposal, "problems": problems, "refused": refused, "predicted": predicted,
        "screws": pressure.screws(build, was, setting) if was else [],
        "scale": scale, "span": scale.between if not refused else 0.0,
        "scale_table": " ".join(f"{y}:{figure}" for y, figure in scale.table),
        "fields": {
            "warmest_f": shown.edit(warmest, "°F"), "coldest_f": shown.edit(coldest, "°F"), "td_f": shown.edit(td, "°F diff"),
            "cut_in": shown.edit(setting.cut_in_psig, "psig", 0), "cut_out": shown.edit(setting.cut_out_psig, "psig", 0),
            "coldest_met_f": shown.edit(low, "°F"),
        },
        "proposed": {
            "cut_in": shown.edit(proposal.setting.cut_in_psig, "psig", 0), "cut_out": shown.edit(proposal.setting.cut_out_psig, "psig", 0),
        } if proposal else {},
        "year": [
            (shown.text(one.outdoor_f, "°F", 0), shown.text(one.stands_psig, "psig", 0), one.starts)
            for one in pressure.over_the_year(r, altitude, setting, unit.set_f, YEAR_F)
        ] if use == "pump_down" and not refused else [],
        "take": _taken(asked, proposal),
        "found": {
            "cut_in": "" if found_in is None else shown.edit(found_in, "psig"),
            "cut_out": "" if found_out is None else shown.edit(found_out, "psig"),
        },
    }  # fmt: skip


def _taken(asked, proposal):
    """The address with the proposal's figures in the fields; empty without one."""
    if proposal is None:
        return ""
    query = asked.typed.copy()
    query["cut_in"] = asked.shown.edit(proposal.setting.cut_in_psig, "psig", 0)
    query["cut_out"] = asked.shown.edit(proposal.setting.cut_out_psig, "psig", 0)
    return query.urlencode()


def _does(one, shown):
    """What is predicted at an ambient, in words."""
    box = f"box {shown.figure(one.lowest_f, '°F', 0)} to {shown.text(one.highest_f, '°F', 0)}"
    if one.runs_on:
        rhythm = "never stops"
    elif one.stays_off:
        rhythm = "never starts"
    else:
        rhythm = f"{one.on_min:.0f} min on, {one.off_min:.0f} off, {one.starts_an_hour:.1f} starts an hour"
    tail = ["" if one.clears else "the coil does not clear", "stock freezes" if one.freezes else ""]
    return "; ".join([box, rhythm, *[text for text in tail if text]])


def _cycles(call, asked, standing):
    """The cycles that were watched, and what to move after two of them."""
    rows = list(call.switchmoments.filter(undone_at=None))
    began = rows[0].at if rows else None
    moments = [cycles.Moment((one.at - began).total_seconds() / 60.0, one.what, one.box_f, one.psig) for one in rows]
    found = cycles.cycles_of(moments)
    warmest, coldest = _span(asked, standing.unit)
    r, altitude = standing.unit.refrigerant, standing.unit.altitude_ft
    try:
        per_f = pressure.as_thermostat(r, altitude, warmest, coldest, pressure.usual_td_f(standing.unit)).psi_per_f
    except FieldErrors:
        # Said beside the fields already.
        return {"tapped": rows, "watched": [], "cycles_say": []}
    return {
        "tapped": rows,
        "watched": [
            (
                bar.number,
                f"{one.on_min:.0f}",
                f"{one.off_min:.0f}",
                one.stop_f,
                one.start_f,
                f"{bar.on_pct:.0f}",
                f"{bar.off_pct:.0f}",
            )
            for one, bar in zip(found, bars(found), strict=True)
        ],
        "cycles_say": cycles.told(found, warmest, coldest, per_f) if rows else [],
    }


@require_POST
def keep(request, number):
    """Keep the switch as found and as left."""
    call, typed = call_of(request, number), request.POST
    found = {"cut_in": typed.get("found_in", ""), "cut_out": typed.get("found_out", "")}
    left = {"cut_in": typed.get("cut_in", ""), "cut_out": typed.get("cut_out", "")}
    try:
        keep_switch(request.user, call, found, left, typed.get("why", ""))
    except InputError as error:
        for text in error.by_field.values() if isinstance(error, FieldErrors) else (str(error),):
            messages.error(request, text)
        return redirect(f"{reverse('controls', args=[number])}?cut_in={left['cut_in']}&cut_out={left['cut_out']}")
    messages.success(request, "Switch kept as found and as left.")
    return redirect("controls", number=number)


@require_POST
def tapped(request, number, what):
    """A start or a stop, tapped as it happens."""
    call = call_of(request, number)
    try:
        tap(request.user, call, what, request.POST)
    except InputError as error:
        messages.error(request, str(error))
    return redirect(f"{reverse('controls', args=[number])}#cycles")


@require_POST
def take_back(request, number, pk):
    """Take a start or a stop back."""
    call = call_of(request, number)
    undo_entry(request.user, get_object_or_404(call.switchmoments, pk=pk))
    return redirect(f"{reverse('controls', args=[number])}#cycles")
