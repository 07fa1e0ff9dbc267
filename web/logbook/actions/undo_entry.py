"""Take back an entry: it stays on record as taken back, and what stood before it stands again."""

from django.utils import timezone

from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.record_reading import WORKED_OUT
from web.logbook.models import Reading


@action
def undo_entry(user, entry):
    """Mark a reading, valve turn or setting change as taken back; once is enough."""
    require_same_shop(user, entry)
    require_open(entry.call)
    if entry.undone_at is None:
        entry.undone_at, entry.undone_by = timezone.now(), user
        entry.save(update_fields=["undone_at", "undone_by"])
        if isinstance(entry, Reading):
            made = entry.call.readings.filter(source=WORKED_OUT, undone_at=None, at=entry.at)
            made.update(undone_at=entry.undone_at, undone_by=user)
        log.write(user, "undo_entry", entry.call, what=type(entry).__name__, entry=entry.pk)


def last_reading(call):
    """The reading that an undo would take back, None where there is none."""
    return call.readings.filter(undone_at=None).exclude(source=WORKED_OUT).last()
