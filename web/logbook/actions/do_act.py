"""Record something done to a part: it opens the next stage of the call and starts its clock."""

from kettle.call.advice import held
from kettle.knowledge import acts, anatomy
from kettle.knowledge.errors import InputError
from web.accounts.access import shown_to
from web.logbook.actions import log, stopped
from web.logbook.actions.acting import on_call
from web.logbook.actions.gas import move_of_act
from web.logbook.actions.override_hold import override_hold
from web.logbook.calls.holds import taken_on
from web.logbook.models import Act

MOST_ACTS = 200
LONGEST_NOTE = 300


class Held(InputError):
    """A hold blocks the act; the technician may go on with a reason."""


@on_call
def do_act(user, call, judgement, code, typed="", evaporator=None, note="", reason="", cylinder="", by_eye=False, **when):
    """Store one act, with how much of it where it has a unit; InputError says what is wrong and stores nothing.

    `Held` where a hold blocks it and no reason is given; with one, the hold is taken on too. Gas goes to the ledger, from or
    into the cylinder of that number where the shop has one. `by_eye` is gas without a scale: how much is an estimate, or not said.
    `when` may give `at`.
    """
    part, _, did = code.partition(".")
    act, unit = acts.get(part, did), judgement.facts.unit
    if not (anatomy.get(part).exists_on(unit) and act.exists_on(unit)):
        raise InputError(f"{act.label}: this unit is not built so that it could be done")
    if call.acts.count() >= MOST_ACTS:
        raise InputError(f"{call} holds {MOST_ACTS} things done, which is all it can: open a new call")
    note = note.strip()
    if len(note) > LONGEST_NOTE:
        raise InputError(f"Words: at most {LONGEST_NOTE} letters")
    value = None if by_eye and not typed.strip() else _amount(act, typed, shown_to(user))
    in_force = held(judgement, act) if act.held_as not in taken_on(call) else []
    if in_force and not reason.strip():
        words = f"{act.label}: waits. {in_force[0].text}. To keep it all the same give the reason; it goes into the report"
        stopped.tell(call, words)
        raise Held(words)
    if in_force:
        override_hold(user, call, judgement, act.held_as, reason)
    done = Act.objects.create(
        call=call, by=user, part=part, did=did, value=value, note=note, by_eye=by_eye,
        evaporator=evaporator if anatomy.get(part).per_coil else None, **when,
    )  # fmt: skip
    move_of_act(user, call, done, cylinder)
    log.write(user, "do_act", call, act=code, value=value)
    return done


def _amount(act, typed, shown):
    """How much of an act was done, in its stored unit; None for one without a unit."""
    if not act.unit:
        return None
    if not typed.strip():
        raise InputError(f"{act.label}: say how much, in {shown.label(act.unit)}")
    try:
        return act.check(shown.parse(typed, act.unit))
    except InputError as error:
        raise InputError(str(error) if act.label in str(error) else f"{act.label}: {error}") from None
