"""The valve bench: turns and answers drawn, the way of a valve that does not answer, its bulb, electronic valves."""

from django.contrib import messages
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.valve import bulb, electronic, no_answer
from kettle.benches.valve.drawing import drawn
from kettle.benches.valve.learn import format_turns
from kettle.knowledge import anatomy
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import FieldErrors
from web import work_time
from web.benches.probes.actions.take_probes import take_probes
from web.benches.valve.series import drift_of, seen_of_valve, series_of
from web.benches.valve.views.stem import stem_context
from web.links.probes import link
from web.logbook.calls.controller_talks import last_read
from web.logbook.calls.courses import acts_of
from web.logbook.refusals import refusals_said
from web.round.asked import Asked
from web.round.views.pages import call_of, frame, standing_of
from web.round.wishes import remembered

EXERCISED = ("valve", "exercised")
NEEDED = ("suction_psig", "suction_line_evap_f")
# What the electronic valve's form asks: name, label, unit, range.
ELECTRONIC = (
    ("target_f", "Target", "°F diff", (1.0, 30.0)), ("shows_f", "It shows", "°F diff", (-20.0, 80.0)),
    ("opening_pct", "Open", "%", (0.0, 100.0)), ("shows_psig", "Its pressure", "psig", (-14.6, 500.0)),
    ("own_psig", "Own gauge", "psig", (-14.6, 500.0)), ("shows_line_f", "Its suction probe", "°F", (-60.0, 150.0)),
    ("own_line_f", "Own clamp", "°F", (-60.0, 150.0)),
)  # fmt: skip
WISHES = ("size_in", "run", *(name for name, *_ in ELECTRONIC))
STATE_MARKS = {"done": ("●", "good"), "put_right": ("✕", "bad"), "next": ("▶", "watch"), "waits": ("◌", "soft")}
SETTLING_MARKS = {
    "settled": ("●", "good"),
    "by_clock": ("●", "good"),
    "moving": ("◐", "watch"),
    "hunting": ("▲", "bad"),
    "waiting": ("◌", "watch"),
}


@require_safe
def valve(request, number):
    """The bench; the drawing alone where it asks for itself again."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    turns_url = f"{reverse('valve', args=[number])}?coil={standing.coil}"
    context = {"call": call, "standing": standing, "turns_url": turns_url} | _drawn(call, standing)
    if request.htmx.target == "turns-drawn":
        return render(request, "valve/_turns.html", context)
    asked = remembered(request, f"valve-{call.pk}", WISHES)
    context |= frame(request, call, "correct", standing) | stem_context(request, standing)
    context |= _way(call, standing, context["series"]) | _bulb(asked, standing) | _electronic(asked, standing)
    return render(request, "valve/valve.html", context | {"cautions": words("pressure", "lock_out")})


def _drawn(call, standing):
    """Superheat over time with the turns, and what the core says of it."""
    unit, shown = standing.unit, standing.shown
    series = series_of(call, unit, shown, standing.coil) if unit.metering != "cap_tube" else None
    if series is None:
        return {"series": None}
    settling, valve_ = series.settling, series.learned
    return {
        "series": series,
        "picture": drawn(series.points, series.turns, series.now_min, series.band, shown),
        "settling": settling,
        "settling_mark": SETTLING_MARKS[settling.state],
        "band_words": shown.span(*series.band, "°F diff"),
        "superheat_now": shown.text(series.points[-1].superheat_f, "°F diff") if series.points else "",
        "learned_words": f"{shown.figure(valve_.f_per_turn, '°F diff')} ± {shown.text(valve_.doubt_f, '°F diff')} a turn",
        "learned_from": valve_.turns,
        "answer_words": [
            (format_turns(one.turns), "out" if one.turns > 0 else "in", shown.figure(one.before_f, "°F diff"),
             shown.text(one.after_f, "°F diff"), one.nothing)
            for one in series.answers
        ],
        "drift": drift_of(call, series, standing.coil),
        "probes_there": call.is_open and call.unit.probes,
    }  # fmt: skip


def _way(call, standing, series):
    """The steps of a valve without answer, open where two turns moved nothing or the bulb did not move it."""
    if standing.unit.metering != "txv":
        return {"steps": []}
    done = next((step for step in acts_of(call) if (step.part, step.did) == EXERCISED), None)
    before, now = (
        seen_of_valve(call, standing, until=done.at if done else None),
        seen_of_valve(call, standing, response_from=done.at if done else None),
    )
    steps = [(step, *STATE_MARKS[step.state], _asked(standing, step)) for step in no_answer.way(before, now, done is not None)]
    wanted = done is not None or (series is not None and series.without_answer) or now.is_("valve_response", "none")
    return {"steps": steps, "no_answer": wanted, "outcome": no_answer.outcome(before, now, done is not None)}


def _asked(standing, step):
    """The parts at whose sheets a step is answered: what is asked there, what is known."""
    return [(anatomy.part_of(key).code, standing.tag(key)) for key in step.asks]


def _bulb(asked, standing):
    """Where the bulb belongs on this pipe, and where it was found."""
    if standing.unit.metering != "txv":
        return {"bulb": None}
    size, run, wrong, place = asked.get("size_in", "0.875"), asked.get("run", "level"), {}, None
    try:
        place = bulb.place(float(size.replace(",", ".")), run)
    except ValueError:
        wrong["size_in"] = f"Pipe: “{size[:20]}” is not a figure like 0.875 or 1.125, in inches"
    except FieldErrors as error:
        wrong = error.by_field
    rows = [r for r in standing.call.readings.all() if r.key == "bulb_clock" and r.undone_at is None]
    rows = [r for r in rows if (r.evaporator or 1) == standing.coil]
    ends = {"found": rows[0], "left": rows[-1]} if len(rows) > 1 else {"found": rows[0]} if rows else {}
    seen = [(word, bulb.seen_at(row.value)) for word, row in ends.items()]
    return {
        "bulb": place, "bulb_arcs": bulb.arcs(place) if place else [], "bulb_seen": seen, "bulb_runs": bulb.RUNS.items(),
        "bulb_fits": bulb.fits(place, rows[-1].value) if place and rows else None, "size_in": size, "run": run, "errors": wrong,
        "bulb_tags": [standing.tag("bulb"), standing.tag("bulb_clock")],
    }  # fmt: skip


def _electronic(asked, standing):
    """An electronic valve against its target and one's own gauge and clamp."""
    if standing.unit.metering != "eev":
        return {"eev": None}
    facts, shown, figures = standing.judgement.facts, standing.shown, Asked(asked, standing.shown)
    talk = last_read(standing.call)
    known = {
        "target_f": (talk.settings.get("target_superheat") if talk else None), "own_psig": facts.number("suction_psig"),
        "own_line_f": facts.number("suction_line_evap_f"),
    }  # fmt: skip
    read = {name: figures.figure(name, label, unit, known.get(name), span) for name, label, unit, span in ELECTRONIC}
    fields, wrong = figures.fields((name, label, unit, read[name]) for name, label, unit, _ in ELECTRONIC), figures.wrong
    own = facts.derived.get("superheat_evap_f")
    return {"eev": fields, "eev_says": electronic.electronic_says(electronic.Read(own_f=own, **read), shown), "errors": wrong}


@require_POST
def take(request, number):
    """Take suction and line from the probes as they read now."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    probes = link(call.unit.probes)
    live = [one for one in (probes.latest() if probes else []) if one.key in (*NEEDED, "return_air_f")]
    now = work_time.now()
    with refusals_said(request):
        take_probes(
            request.user, call, standing.judgement, live, now, f"Superheat {timezone.localtime(now):%H:%M}",
            standing.coil if standing.coil > 1 else None, bool(probes) and call.unit.probes.simulated,
        )  # fmt: skip
        messages.success(request, "Taken: suction, line and air as the probes read now.")
    return redirect("valve", number=number)
