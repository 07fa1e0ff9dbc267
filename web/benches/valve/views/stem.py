"""Correcting: a turn of the valve stem."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.benches.valve import adjust, no_answer
from kettle.knowledge.errors import InputError
from web.benches.valve.actions.stem_way import stem_way
from web.benches.valve.actions.turn_valve import ReasonNeeded, back_to_found, turn_valve
from web.benches.valve.series import seen_of_valve, series_of
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of, show, standing_of

NO_STEM = {
    "cap_tube": "A capillary tube has no stem to turn.",
    "eev": "An electronic valve has no stem: set its target superheat.",
}


def stem_context(request, standing):
    """What the panel shows: superheat and goal, directions, where the stem stands."""
    verdict = next((v for v in standing.judgement.verdicts if v.quantity == "superheat_evap_f"), None)
    has_stem = standing.unit.metering == "txv"
    series = series_of(standing.call, standing.unit, standing.shown, standing.coil) if has_stem else None
    valve = standing.told.valve(standing.coil)
    proposed = series.next if series and not valve.no_answer else None
    opens = proposed is not None and proposed.turns > 0
    first = no_answer.first(seen_of_valve(standing.call, standing), opens) if proposed and proposed.turns else []
    net = adjust.net_turns([(turn.direction, turn.turns) for turn in standing.turns])
    return {
        "directions": [
            (code, label, adjust.effect_words(code)) for code, label in adjust.directions(standing.call.unit.stem_reversed).items()
        ],
        "goals": adjust.GOALS.items(),
        "goal": adjust.goal_from(verdict) or "",
        "superheat_words": _superheat_words(standing.cards[0], series),
        "net_words": f"{abs(net):g} turn{'s' if abs(net) > 1 else ''} {'out' if net > 0 else 'in'} from where it was found"
        if net
        else "where it was found",
        "settle_min": adjust.SETTLE_MIN,
        "no_stem": NO_STEM.get(standing.unit.metering, ""),
        "has_stem": has_stem,
        "off_found": bool(net),
        "settling": series.settling if series else None,
        "proposed": proposed,
        "no_third": f"{valve.text}." if valve.no_answer else "",
        "first": first,
        "first_words": "; ".join(f"{step.title.lower()}, {step.says}" if step.says else step.title.lower() for step in first),
        "typed_turn": {} if first else _as_typed(proposed),
        "turn_errors": {},
    }


def _as_typed(proposed):
    """The proposed turn as it stands in the form; nothing where none is proposed."""
    if proposed is None or not proposed.turns:
        return {}
    return {"direction": "out" if proposed.turns > 0 else "in", "turns": f"{abs(proposed.turns):g}"}


def _superheat_words(card, series):
    """Where superheat at the coil stands against what is wanted near set, or stood before the last turn."""
    if series is not None and series.points:
        last, wanted = series.points[-1], series.shown.span(*series.band, "°F diff")
        told = series.shown.text(last.superheat_f, "°F diff")
        if series.turns and series.turns[-1].at_min >= last.at_min:
            return f"Superheat at the coil was {told}; read it again when it has settled."
        return f"Superheat at the coil {told}, wanted {wanted}."
    if card.was:
        return f"Superheat at the coil was {card.was} {card.unit}; read it again when it has settled."
    return "Superheat at the coil is not known yet."


@require_POST
def turn(request, number):
    """Record a turn of the stem, or show what speaks against it and ask for a reason."""
    call = call_of(request, number)
    standing, typed = standing_of(request, call), request.POST
    try:
        turn_valve(
            request.user,
            call,
            standing.judgement,
            typed.get("direction", ""),
            typed.get("turns", ""),
            typed.get("goal", ""),
            typed.get("reason", ""),
            standing.coil if standing.unit.evaporators > 1 else None,
            standing.told.valve(standing.coil),
        )
    except ReasonNeeded as error:
        extra = {"objections": error.objections, "typed_turn": typed}
    except InputError as error:
        field = "turns" if str(error).startswith("Turns") else "direction"
        extra = {"turn_errors": {field: str(error)}, "typed_turn": typed}
    else:
        messages.success(request, "Turn recorded. Superheat counts again when it has settled.")
        return _back(request, number)
    return show(request, call, "correct", standing, **extra)


@require_POST
def back(request, number):
    """Bring the stem back to where it was found."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    with refusals_said(request):
        back_to_found(request.user, call, standing.judgement, standing.coil if standing.unit.evaporators > 1 else None)
        messages.success(request, "The stem stands where it was found. Superheat counts again when it has settled.")
    return _back(request, number)


@require_POST
def way(request, number):
    """Say which way the unit's valve turns."""
    call = call_of(request, number)
    stem_way(request.user, call.unit, request.POST.get("other_way") == "yes")
    return redirect("valve", number=number)


def _back(request, number):
    if request.POST.get("from") == "valve":
        return redirect("valve", number=number)
    return redirect("stop", number=number, stop="correct")
