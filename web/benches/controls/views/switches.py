"""Controls set by computation: a pressure switch drawn on its scale, cycles watched, thermostat, sensors, regulators, high side, alarms."""

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.controls import pressure, year
from kettle.benches.controls.drawing import drawn
from kettle.benches.controls.predict import by_setting, stops_early
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import TRADE
from kettle.knowledge.parameters import PARAMETERS
from web.benches.controls.actions.keep_days import DAYS, keep_days
from web.benches.controls.actions.keep_switch import keep_switch
from web.benches.controls.views.alarms import alarms_context
from web.benches.controls.views.cycles import cycles_context, wanted_air
from web.benches.controls.views.sums import USUAL_DAY_F, Asked, does, sums, year_of_site
from web.logbook.actions.record_reading import record_reading
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, frame, standing_of
from web.round.wishes import remembered

# What is wanted of the unit, which holds until something else is.
WISHES = ("use", "build", "warmest_f", "coldest_f", "td_f", "coldest_met_f", "held_f")
USES = {"thermostat": "the only thermostat", "pump_down": "pump-down or safety"}


@require_safe
def controls(request, number):
    """Everything that switches or holds a pressure or a temperature, each with its sum."""
    call = call_of(request, number)
    return _page(request, call, Asked(request, remembered(request, f"controls-{call.pk}", WISHES)))


def _page(request, call, asked):
    """The page with what was typed and what is wrong with it."""
    standing = standing_of(request, call)
    context = frame(request, call, "programs", standing)
    context |= _pressure(asked, standing) | cycles_context(call, asked, standing.unit) | sums(asked, standing)
    context |= alarms_context(asked, standing) | _days(asked, call)
    typed = context["fields"] | context["days_typed"] | context["head_typed"] | {"held_f": context["held_f"]}
    for part in ("swing", "sensor", "warmed", "regulator"):
        typed |= context[f"{part}_typed"]
    typed |= {name: asked.typed.get(name, stands) for name, stands in context["found"].items()}
    context["why_typed"] = asked.typed.get("why", "")
    context |= {"forms": asked.forms(typed), "carried": asked.carried(), "errors": asked.wrong, "cautions": words("pressure")}
    return render(request, "controls/switches.html", context)


def _pressure(asked, standing):
    """The switch on its scale: what is proposed, what is set, what is wrong with it, which screw to turn, and what it will do."""
    unit, facts, shown = standing.unit, standing.judgement.facts, asked.shown
    r, altitude = unit.refrigerant, unit.altitude_ft
    use = asked.choice("use", USES if unit.box_control == "suction_pressure" else dict(reversed(USES.items())))
    build = asked.choice("build", pressure.BUILDS)
    warmest, coldest = wanted_air(asked, unit)
    td = asked.figure("td_f", "TD", "°F diff", facts.derived.get("td_f") or pressure.usual_td_f(unit))
    stands_in, stands_out = facts.number("lp_cut_in_psig"), facts.number("lp_cut_out_psig")
    found_in, found_out = _found(standing.call, "lp_cut_in", stands_in), _found(standing.call, "lp_cut_out", stands_out)
    ambient = facts.number("ambient_f") or USUAL_DAY_F
    of_site = year_of_site(standing.call.unit.site)
    cold, hot = year.at_condenser_f(unit, of_site)
    low = asked.figure("coldest_met_f", "Coldest the low side meets", "°F", min(cold, unit.set_f))
    creep = facts.number("pump_down_rise_psi")
    proposal = _proposed(asked, unit, use, (warmest, coldest, td), (low, creep))
    setting = _asked_for(asked, unit, proposal.setting if proposal else pressure.fallback(unit), stands_in, stands_out)
    if use == "thermostat":
        problems = pressure.thermostat_problems(r, altitude, setting, not unit.kind.freezer)
    else:
        problems = pressure.pump_down_problems(r, altitude, setting, low, creep)
    refused = any(one.refused for one in problems)
    days = [("now", ambient), ("a cold day", cold), ("a hot day", hot)]
    predicted = []
    if use == "thermostat" and not refused and not asked.wrong:
        predicted = [
            (title, one, does(one, shown)) for (title, _), one in zip(days, by_setting(unit, setting, [at for _, at in days]), strict=True)
        ]
    was = pressure.Setting(found_in, found_out) if found_in is not None and found_out is not None else None
    marks = [("freezing", 32.0), ("warmest air", warmest), ("coldest air", coldest), ("ambient", ambient)]
    if "sst_f" in facts.derived:
        marks.append(("low side now", facts.derived["sst_f"]))
    scale = drawn(r, altitude, setting, marks, shown)
    pumps_down = use == "pump_down" and not refused
    return {
        "use": use, "uses": USES.items(), "build": build, "builds": pressure.BUILDS.items(),
        "setting": setting, "was": was, "proposal": proposal, "problems": problems, "refused": refused, "predicted": predicted,
        "screws": pressure.screws(build, was, setting) if was else [],
        "scale": scale, "span": scale.between if not refused else 0.0,
        "scale_table": " ".join(f"{y}:{figure}" for y, figure in scale.table),
        "fields": {
            "warmest_f": shown.edit(warmest, "°F"), "coldest_f": shown.edit(coldest, "°F"), "td_f": shown.edit(td, "°F diff"),
            "coldest_met_f": shown.edit(low, "°F"), **_ends(setting, shown),
        },
        "proposed": _ends(proposal.setting, shown) if proposal else {},
        "year": [
            (shown.text(one.outdoor_f, "°F", 0), shown.text(one.stands_psig, "psig", 0), one.starts)
            for one in pressure.over_the_year(r, altitude, setting, unit.set_f, of_site.outdoor_f)
        ] if pumps_down else [],
        "early": any(stops_early(one, warmest) for _, one, _ in predicted[:1]),
        "winter": year.fails_in_winter(r, altitude, setting, of_site) if pumps_down else "",
        "delay": pressure.delay(setting, creep) if pumps_down else "",
        "take": _taken(asked, proposal),
        "found": {
            "found_in": "" if found_in is None else shown.edit(found_in, "psig"),
            "found_out": "" if found_out is None else shown.edit(found_out, "psig"),
        },
    }  # fmt: skip


def _proposed(asked, unit, use, held, met):
    """What is proposed: for a switch that holds the box, from the air it may have and TD; for one that pumps down, from the coldest the low
    side meets and how it creeps. None where a figure is wrong, which is said beside it."""
    try:
        if use == "thermostat":
            return pressure.as_thermostat(unit.refrigerant, unit.altitude_ft, *held)
        return pressure.as_pump_down(unit.refrigerant, unit.altitude_ft, *met)
    except FieldErrors as error:
        asked.wrong.update(error.by_field)
    return None


def _asked_for(asked, unit, usual, stands_in, stands_out):
    """The switch that is asked about: as typed, else as it stands, else as usual; as usual too where it cannot be, which is said."""
    cut_in = asked.figure("cut_in", "Cut-in", "psig", stands_in if stands_in is not None else usual.cut_in_psig)
    cut_out = asked.figure("cut_out", "Cut-out", "psig", stands_out if stands_out is not None else usual.cut_out_psig)
    try:
        return pressure.checked(unit.refrigerant, unit.altitude_ft, cut_in, cut_out)
    except FieldErrors as error:
        asked.wrong.update({name.removesuffix("_psig"): text for name, text in error.by_field.items()})
    return usual


def _ends(setting, shown):
    return {"cut_in": shown.edit(setting.cut_in_psig, "psig", 0), "cut_out": shown.edit(setting.cut_out_psig, "psig", 0)}


def _found(call, code, stands):
    """What an end of the switch was found at: before the first change of this call that stands, else as it stands."""
    first = call.settingchanges.filter(parameter=code, undone_at=None).order_by("at", "pk").first()
    return stands if first is None else TRADE.parse(first.as_found, PARAMETERS[code].unit)


def _taken(asked, proposal):
    """The address with the proposal's figures in the fields; empty without one."""
    if proposal is None:
        return ""
    query = asked.typed.copy()
    query["cut_in"] = asked.shown.edit(proposal.setting.cut_in_psig, "psig", 0)
    query["cut_out"] = asked.shown.edit(proposal.setting.cut_out_psig, "psig", 0)
    return query.urlencode()


def _days(asked, call):
    """The site's coldest and hottest day, as they stand or as they were typed."""
    site = call.unit.site
    stands = {name: "" if site is None or getattr(site, name) is None else asked.shown.edit(getattr(site, name), "°F") for name, _ in DAYS}
    return {
        "site": site, "days_typed": {f"site_{name}": asked.typed.get(f"site_{name}", text) for name, text in stands.items()},
        "year_of": year_of_site(site),
    }  # fmt: skip


def _refused(request, call, error, names):
    """The page again with everything that was typed, and what is wrong beside its field (`names`: the action's field -> the page's)."""
    asked = Asked(request, request.POST)
    if isinstance(error, FieldErrors):
        asked.wrong.update({names.get(name, name): text for name, text in error.by_field.items()})
    else:
        messages.error(request, str(error))
    return _page(request, call, asked)


@require_POST
def keep(request, number):
    """Keep the switch as found and as left."""
    call, typed = call_of(request, number), request.POST
    found = {"cut_in": typed.get("found_in", ""), "cut_out": typed.get("found_out", "")}
    left = {"cut_in": typed.get("cut_in", ""), "cut_out": typed.get("cut_out", "")}
    try:
        keep_switch(request.user, call, found, left, typed.get("why", ""))
    except InputError as error:
        names = {"cut_in_as_found": "found_in", "cut_out_as_found": "found_out", "cut_in_as_left": "cut_in", "cut_out_as_left": "cut_out"}
        return _refused(request, call, error, names)
    messages.success(request, "Switch kept as found and as left.")
    return redirect("controls", number=number)


@require_POST
def days(request, number):
    """Keep the coldest and hottest day of the call's site."""
    call = call_of(request, number)
    if call.unit.site is None:
        raise Http404("A quick look has no site")
    try:
        keep_days(request.user, call.unit.site, {name: request.POST.get(f"site_{name}", "") for name, _ in DAYS})
    except InputError as error:
        return _refused(request, call, error, {name: f"site_{name}" for name, _ in DAYS})
    messages.success(request, "The days of this site are kept.")
    return redirect(f"{reverse('controls', args=[number])}#days")


@require_POST
def exchanged(request, number):
    """Keep that a probe sits in another's role, as it was found by warming one."""
    call = call_of(request, number)
    with refusals_said(request):
        record_reading(request.user, call, "circuit_extra", "probe_wrong_role")
        messages.success(request, "Kept: a probe in the wrong role.")
    return redirect(f"{reverse('controls', args=[number])}#warmed")
