"""Keep what stands at one moment as a set; a good one becomes the unit's own baseline."""

from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import ReadingSet

LONGEST_LABEL = 60


@on_call
def keep_set(user, call, label, good=False, **when):
    """Store a set of the readings that stand now; `when` may give `at`."""
    label = label.strip()
    if not 1 <= len(label) <= LONGEST_LABEL:
        raise InputError(f"Set: give it a name of 1 to {LONGEST_LABEL} letters")
    if not call.readings.filter(undone_at=None).exists():
        raise InputError("Set: nothing is read yet")
    kept = ReadingSet.objects.create(call=call, by=user, label=label, good=good, **when)
    log.write(user, "keep_set", call, label=label, good=good)
    return kept
