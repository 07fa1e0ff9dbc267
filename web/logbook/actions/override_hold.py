"""Take on what a hold blocks, against its advice: with a reason that stays on record and goes into the report."""

from kettle.judging.holds import ACTIONS, blocking
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.reasons import LETTERS, is_said
from web.logbook.models import Override


@on_call
def override_hold(user, call, judgement, action, reason):
    """Store that an action is taken on although holds block it; InputError where nothing blocks it or no reason is given."""
    in_force = blocking(list(judgement.holds), action)
    if action not in ACTIONS or not in_force:
        raise InputError("Nothing holds that any more")
    reason = reason.strip()
    if not is_said(reason):
        raise InputError(f"Reason: say it in {LETTERS}; it goes into the report")
    taken = Override.objects.create(
        call=call, by=user, action=action, holds=[hold.code for hold in in_force], texts=[hold.text for hold in in_force], reason=reason
    )
    log.write(user, "override_hold", call, blocked=action, holds=taken.holds, reason=reason)
    return taken
