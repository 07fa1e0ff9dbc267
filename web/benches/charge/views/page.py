"""The charge bench: may gas go in, what each addition brought, a label charge, what should run, at rest, winter, receiver."""

from datetime import timedelta

from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.http import require_safe

from kettle.benches.charge import additions, at_rest, critical, winter
from kettle.benches.charge.expected import expected
from kettle.benches.charge.missing import missing
from kettle.judging.readings import work_out
from kettle.knowledge import observations
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import InputError
from web import work_time
from web.benches.charge.actions.by_eye import BY
from web.benches.charge.views.panel import panel_context
from web.benches.charge.views.sums import WISHES, receiver_context, winter_context
from web.logbook.calls.judging import value_of
from web.logbook.models import Weighing
from web.round.asked import Asked
from web.round.views.pages import call_of, frame, standing_of
from web.round.wishes import remembered

# What is done, its address, what its button says.
GAS = (("added", "charge-add", "It is in"), ("weighed_in", "charge-weigh", "Weighed in"))
SCALE_FIELDS = (("before", "Cylinder before"), ("after", "Cylinder now"), ("lost", "Hose and tap"))
WARM_DAYS = 120


@require_safe
def charge(request, number):
    """The bench."""
    return show_charge(request, call_of(request, number))


def show_charge(request, call, typed=None, wrong=None, held=None):
    """The page; what was typed and refused by form, and what holds it."""
    typed, wrong, held = typed or {}, wrong or {}, held or {}
    standing = standing_of(request, call)
    asked = Asked(remembered(request, f"charge-{call.pk}", WISHES), standing.shown)
    context = frame(request, call, "correct", standing) | panel_context(request, standing)
    context |= _additions(call, standing) | _label(call, standing) | _runs(standing) | _rest(asked, standing)
    context |= winter_context(asked, standing) | receiver_context(asked, standing)
    shown = standing.shown
    context["scale"] = {
        did: {
            "did": did, "url": url, "button": button, "after": did == "added", "told": typed.get(did, {}), "bad": wrong.get(did, {}),
            "stopped": held.get(did, ""),
            "fields": [(name, label, shown.label("oz"), typed.get(did, {}).get(name, ""), wrong.get(did, {}).get(name, ""))
                       for name, label in SCALE_FIELDS],
        }
        for did, url, button in GAS
    }  # fmt: skip
    context["by_eye"] = {
        "ways": BY, "told": typed.get("by_eye", {}), "bad": wrong.get("by_eye", {}), "stopped": held.get("by_eye", ""),
        "unit": shown.label("oz"), "open": "by_eye" in typed,
    }  # fmt: skip
    flammable = ("flammable",) if standing.unit.refrigerant.flammable else ()
    context |= {
        "typed": typed, "wrong": wrong, "held": held, "forms": Weighing.FORMS, "liquid": standing.unit.refrigerant.is_mixture,
        "glasses": _choices("sight_glass"), "errors": asked.wrong, "cautions": words("licensed", "pressure", *flammable),
        "warm_day": (timezone.localdate(work_time.now()) + timedelta(days=WARM_DAYS)).isoformat(), "block_to": _block_to(standing),
        "receiver_open": context.get("level_held") or "level" in wrong or {"length_in", "diameter_in"} & set(asked.wrong),
    }  # fmt: skip
    return render(request, "charge/charge.html", context)


def _choices(key):
    return [(word, label) for word, label in observations.get(key).choices if word != "none"]


def _block_to(standing):
    """The condensing temperature and head to block the condenser to, in the cold, in words."""
    unit, facts, shown = standing.unit, standing.judgement.facts, standing.shown
    at = winter.block_to_f(facts.derived.get("split_f") if not facts.is_cold_outside else None)
    return f"{shown.text(at, '°F', 0)}, {shown.text(unit.refrigerant.bubble_psig(at, unit.altitude_ft), 'psig', 0)}"


def _additions(call, standing):
    """Each addition with what was read after it until the next thing was done, and what to do next."""
    steps, rows, added = [step for step, _ in standing.steps], [], []
    for place, step in enumerate(steps):
        if (step.part, step.did) != ("charge", "added"):
            continue
        ends = steps[place + 1].at if place + 1 < len(steps) else None
        facts = work_out(standing.unit, _read_between(call, step.at, ends), None, standing.shown)
        glass, got = facts.seen.get("sight_glass"), facts.derived
        one = additions.Addition(step.value, glass, got.get("subcooling_f"), got.get("amps_pct"), got.get("superheat_evap_f"))
        added.append(one)
        rows.append((step, *_shown(one, standing.shown), getattr(step.entry, "weighing", None)))
    facts, opened = standing.judgement.facts, standing.told.call.opened
    went_in = sum(one.oz or 0.0 for one in added) if opened.emptied else None
    to_go = additions.to_go(standing.unit, _missing(facts), went_in) if standing.told.charge.may in ("yes", "first") else None
    return {
        "additions": rows,
        "additions_say": additions.additions_say(standing.unit, added, standing.shown, facts.seen.get("sight_glass"), to_go),
    }


def _missing(facts):
    """About how much is missing by what is read; None where the box or the air is not known."""
    box, air = facts.number("box_temp_f"), facts.number("ambient_f")
    if box is None or air is None or not facts.is_("compressor", "running", None):
        return None
    return missing(facts.unit, box, air, facts.number("suction_psig"), facts.derived.get("amps_pct"), facts.number("receiver_level_pct"))


def _read_between(call, begins, ends):
    """What was read from an act on until the next, the latest of each: a clock that runs does not hold gas from being looked at."""
    rows = [row for row in call.readings.all() if row.undone_at is None and begins < row.at and (ends is None or row.at < ends)]
    return {row.key: value_of(row) for row in rows}


def _shown(one, shown):
    glass = dict(_choices("sight_glass")).get(one.glass, "–")
    subcooling = "–" if one.subcooling_f is None else shown.text(one.subcooling_f, "°F diff")
    return (
        "by eye" if one.oz is None else shown.text(one.oz, "oz", 1),
        glass,
        subcooling,
        "–" if one.amps_pct is None else f"{one.amps_pct:.0f} %",
    )


def _label(call, standing):
    """A label charge: what was weighed in against it, and the suction it must give."""
    unit, facts, shown = standing.unit, standing.judgement.facts, standing.shown
    if unit.critical_charge_oz is None:
        return {"label": None}
    in_oz = sum(act.value for act in call.acts.filter(part="charge", did="weighed_in", undone_at=None) if act.value)
    in_oz += sum(act.value for act in call.acts.filter(part="charge", did="added", undone_at=None) if act.value) if in_oz else 0.0
    box = facts.number("box_temp_f")
    due = critical.suction_due(unit, unit.set_f if box is None else box, facts.number("suction_psig") if in_oz else None, shown)
    return {
        "label": shown.text(unit.critical_charge_oz, "oz", 1),
        "weighed": critical.weighed(unit.critical_charge_oz, in_oz, shown) if in_oz else None,
        "in_words": shown.text(in_oz, "oz", 1),
        "due": due, "due_words": shown.span(due.low_psig, due.high_psig, "psig"),
        "due_box": shown.text(unit.set_f if box is None else box, "°F", 0),
    }  # fmt: skip


def _runs(standing):
    """What a sound unit runs at this box and air, beside what it runs."""
    unit, facts, shown = standing.unit, standing.judgement.facts, standing.shown
    box, ambient = facts.number("box_temp_f"), facts.number("ambient_f")
    at_box, at_air = (unit.set_f if box is None else box), (80.0 if ambient is None else ambient)
    found = expected(unit, at_box, at_air)

    def span(pair, unit_="psig"):
        return shown.span(*pair, unit_) if pair else ""

    def assumed(read):
        return " (not read)" if read is None else ""

    def about(value, unit_="psig"):
        return f"about {shown.text(value, unit_, 0)}"

    def now(key, unit_, derived=False):
        value = facts.derived.get(key) if derived else facts.number(key)
        return "–" if value is None else shown.text(value, unit_, 0)

    return {
        "runs_at": f"box {shown.text(at_box, '°F', 0)}{assumed(box)}, air on the condenser {shown.text(at_air, '°F', 0)}{assumed(ambient)}",
        "runs": [
            ("Suction", now("suction_psig", "psig"), about(found.plant_suction_psig), span(found.suction_psig)),
            ("Head", now("discharge_psig", "psig"), about(found.plant_head_psig), span(found.head_psig)),
            ("Superheat at the coil", now("superheat_evap_f", "°F diff", True), about(found.plant_superheat_f, "°F diff"),
             span(found.superheat_f, "°F diff")),
            ("Subcooling", now("subcooling_f", "°F diff", True), about(found.plant_subcooling_f, "°F diff"),
             span(found.subcooling_f, "°F diff")),
            ("Rated amps", now("amps_pct", "%", True), about(found.plant_amps_pct, "%"), ""),
        ],
    }  # fmt: skip


def _rest(asked, standing):
    """Air, another gas, or right, by the pressure at rest."""
    unit, facts, shown = standing.unit, standing.judgement.facts, standing.shown
    resting = asked.figure("rest_psig", "At rest", "psig", facts.number("resting_psig"))
    pipe = asked.figure("pipe_f", "Pipe", "°F", facts.number("ambient_f"))
    told = None
    if resting is not None and pipe is not None:
        try:
            told = at_rest.resting_says(unit.refrigerant, unit.altitude_ft, resting, pipe, shown)
        except InputError as error:
            asked.wrong.update(error.beside("pipe_f"))
    return {
        "rest": told,
        "rest_fields": asked.fields((("rest_psig", "At rest", "psig", resting), ("pipe_f", "Pipe with liquid", "°F", pipe))),
    }
