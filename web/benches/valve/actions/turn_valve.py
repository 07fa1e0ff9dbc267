"""Record an adjustment of the expansion valve, with what spoke against it and why it was done all the same."""

from kettle.benches.valve import adjust
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from web.logbook.actions import log, stopped
from web.logbook.actions.acting import on_call
from web.logbook.actions.reasons import LONGEST, is_said
from web.logbook.models import ValveTurn

BACK = "Back to where it was found"


class ReasonNeeded(InputError):
    """The core objects; the technician may go on with a reason."""

    def __init__(self, objections):
        super().__init__(" ".join(objections))
        self.objections = objections


@on_call
def turn_valve(user, call, judgement, direction, turns_typed, goal="", reason="", evaporator=None, valve=None, **when):
    """Store one turn of the stem; objections of the core need a reason, which is kept with them.

    `valve` is what the call says of turning it (left out: nothing of earlier turns).
    """
    if judgement.facts.unit.metering == "cap_tube":
        raise InputError("Valve: a capillary tube has no stem to turn")
    if judgement.facts.unit.metering == "eev":
        raise InputError("Valve: an electronic valve has no stem; set its target superheat")
    try:
        turns = TRADE.parse(turns_typed, "turns")
    except InputError as error:
        raise InputError(f"Turns: {error}; allowed {adjust.SMALLEST_TURN:g} to {adjust.LARGEST_TURN:g} turns") from None
    verdict = next((v for v in judgement.verdicts if v.quantity == "superheat_evap_f"), None)
    advice = adjust.advise(direction, turns, goal or None, verdict, judgement.holds, judgement.facts.shown, call.unit.stem_reversed)
    objections = [*([f"{valve.text}."] if valve is not None and valve.no_answer else []), *advice.objections]
    reason = reason.strip()
    if objections and not is_said(reason):
        stopped.tell(call, " ".join(objections))
        raise ReasonNeeded(objections)
    if len(reason) > LONGEST:
        raise InputError(f"Reason: {len(reason)} letters are more than {LONGEST}")
    turn = ValveTurn.objects.create(
        call=call,
        by=user,
        direction=direction,
        turns=turns,
        goal=goal or adjust.EFFECT_OF[direction],
        objections=objections,
        reason=reason,
        evaporator=evaporator,
        **when,
    )
    log.write(user, "turn_valve", call, direction=direction, turns=turns, against=len(objections), reason=reason)
    return turn


@on_call
def back_to_found(user, call, judgement, evaporator=None):
    """Turn the stem back to where it was found, in as many turns as that takes; InputError where it stands there."""
    standing = [(t.direction, t.turns) for t in call.valveturns.filter(undone_at=None) if (t.evaporator or 1) == (evaporator or 1)]
    steps = adjust.way_back(standing)
    if not steps:
        raise InputError("The stem stands where it was found")
    for direction, turns in steps:
        turn_valve(user, call, judgement, direction, f"{turns:g}", reason=BACK, evaporator=evaporator)
