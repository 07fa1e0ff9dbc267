"""Take on what a hold blocks, against its advice: with a reason that stays on record and goes into the report."""

from kettle.judging.holds import ACTIONS, blocking
from kettle.knowledge.errors import InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.models import Override

SHORTEST_REASON = 3
# What taking an observation does, by its tool and its own holds.
TAKEN_WITH = {"gauge": "gauges"}


@action
def override_hold(user, call, judgement, action, reason):
    """Store that an action is taken on although holds block it; InputError where nothing blocks it or no reason is given."""
    require_same_shop(user, call)
    require_open(call)
    in_force = blocking(list(judgement.holds), action)
    if action not in ACTIONS or not in_force:
        raise InputError("Nothing holds that any more")
    reason = reason.strip()[:300]
    if len(reason) < SHORTEST_REASON:
        raise InputError(f"Reason: say it in {SHORTEST_REASON} to 300 letters; it goes into the report")
    taken = Override.objects.create(
        call=call, by=user, action=action, holds=[hold.code for hold in in_force], texts=[hold.text for hold in in_force], reason=reason
    )
    log.write(user, "override_hold", call, blocked=action, holds=taken.holds, reason=reason)
    return taken


def taken_on(call):
    """The actions of a call that were taken on against a hold, by action."""
    return {entry.action: entry for entry in call.overrides.all() if entry.undone_at is None}


def action_of(entry):
    """The blocked action that taking an observation would be; None for one that nothing can hold."""
    return "resistance_test" if "lock_out" in entry.holds else TAKEN_WITH.get(entry.tool)


def refuse_if_held(call, judgement, entry):
    """Refuse to take an observation that a hold blocks, unless it was taken on with a reason."""
    action = action_of(entry)
    if action is None or action in taken_on(call):
        return
    in_force = blocking(list(judgement.holds), action)
    if in_force:
        raise InputError(f"{entry.label}: waits. {in_force[0].text}. To take it on all the same give a reason on Judge")
