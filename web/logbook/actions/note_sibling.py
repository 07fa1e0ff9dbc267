"""Record how another box on the same plant was found, and what all of them together say."""

from kettle.judging import siblings
from kettle.knowledge.errors import InputError
from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import SiblingState

SOURCE = "siblings"


@action
def note_sibling(user, call, unit, state):
    """Store a sibling's state; once they agree, or all were seen, the `siblings` observation follows."""
    require_same_shop(user, call)
    require_same_shop(user, unit)
    require_open(call)
    if unit not in call.unit.siblings:
        raise InputError(f"{unit} is not on the same plant")
    if state not in siblings.STATES:
        raise InputError(f"State: “{state[:10]}” is not one of {', '.join(siblings.STATES)}")
    SiblingState.objects.create(call=call, by=user, unit=unit, state=state)
    log.write(user, "note_sibling", call, unit=unit.pk, state=state)
    says = siblings.together(list(sibling_states(call).values())).observation
    if says is not None:
        record_reading(user, call, "siblings", says, source=SOURCE)
    else:
        # What they said together before they differed does not stand any more.
        before = call.readings.filter(key="siblings", source=SOURCE, undone_at=None)
        before.update(undone_at=work_time.now(), undone_by=user)


def sibling_states(call):
    """Each sibling with the state it was last found in on this call, None where nobody looked."""
    states = dict.fromkeys(call.unit.siblings)
    for entry in call.siblingstates.filter(undone_at=None).select_related("unit"):
        if entry.unit in states:
            states[entry.unit] = entry.state
    return states
