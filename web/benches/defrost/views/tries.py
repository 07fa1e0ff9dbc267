"""Trying a program out in the model as it is changed, by its fields or on the dial; nothing is stored."""

from django.shortcuts import render
from django.views.decorators.http import require_POST

from kettle.benches.defrost import edit
from kettle.benches.defrost.program import read_program
from kettle.knowledge.errors import InputError
from web.benches.defrost import planning
from web.benches.defrost.views import plans
from web.benches.defrost.views.programs import dial_context, judged_sides, typed_fields
from web.round.views.pages import call_of, standing_of

TRIED_DAYS = 2


# No place on a dial, and no step of a key, is further away.
FURTHEST = 1e5


def _finite(text):
    """A figure of the dial; ValueError for what is none, or lies nowhere."""
    value = float(text)
    if not -FURTHEST <= value <= FURTHEST:
        raise ValueError(text)
    return value


def _place(posted, name):
    return _finite(posted[f"{name}_x"]), _finite(posted[f"{name}_y"])


# What a hand or a key does on the dial: function of the program, the defrost's place, what was sent, the grid.
ACTS = {
    "move": lambda p, place, sent, grid: edit.dragged(p, place, _place(sent, "from"), _place(sent, "to"), grid),
    "stretch": lambda p, place, sent, grid: edit.stretched(p, place, _place(sent, "to")),
    "nudge": lambda p, place, sent, grid: edit.nudged(p, place, int(_finite(sent["by"])), grid),
    "longer": lambda p, place, sent, grid: edit.longer(p, _finite(sent["by"])),
    "remove": lambda p, place, sent, grid: edit.without(p, place),
    "add": lambda p, place, sent, grid: edit.with_one_more(p, grid),
}


@require_POST
def try_out(request, number):
    """Try the program as it would be left: the dial with its day by the model, what it comes to, what goes against sense.

    Nothing is stored. `act` is what was done on the dial first.
    """
    from kettle.benches.defrost.plan import against
    from kettle.benches.defrost.proposals import USUAL
    from kettle.benches.defrost.situation import DOUBTS
    from kettle.benches.defrost.week import look_ahead
    from kettle.plant.sizing import limit_f

    call = call_of(request, number)
    standing = standing_of(request, call)
    shown, kept, hours = standing.shown, planning.kept_programs(call), planning.hours_of(call)
    draft, errors = read_program(request.POST, standing.unit, shown)
    posted, complaint, last = request.POST, "", ""
    act = posted.get("act", "")
    if act in ACTS:
        try:
            grid = edit.WHOLE_HOUR_MIN if posted.get("whole_hours") else edit.GRID_MIN
            draft = ACTS[act](draft, int(_finite(posted.get("place") or 0)), posted, grid)
        except InputError as error:
            complaint = str(error)
        except (ValueError, KeyError):
            complaint = "That could not be read off the dial"
    programs = {"found": planning.program_of(kept["found"])} if "found" in kept else {}
    if draft not in programs.values():
        programs["left"] = draft
    outlooks, figures, speaks = {}, [], []
    if kept and not errors:
        try:
            asked = planning.situation_of(call, standing.judgement.facts)
            ahead = look_ahead(asked, list(programs.values()), TRIED_DAYS, DOUBTS[:1])
            outlooks = dict(zip(programs, ahead, strict=True))
            last = outlooks[list(outlooks)[-1]]
            figures = plans.short_figures(last, shown)
            speaks = against(last, "", asked, USUAL, shown)
        except InputError as error:
            complaint = complaint or str(error)
    context = {
        **dial_context(kept, draft if kept else None, hours, outlooks, limit_f(standing.unit), shown),
        "call": call,
        "drawn": True,
        "figures": figures,
        "against": speaks,
        "complaint": complaint or "; ".join(errors.values()),
        "fields": typed_fields(draft.starts_min, draft.values, shown) if act in ACTS and not complaint else {},
        "judged": judged_sides(kept, draft, standing, hours) if kept else [],
        "moved_place": posted.get("place", "") if act in ("move", "nudge", "stretch", "longer") else "",
    }
    return render(request, "defrost/_tried.html", context)
