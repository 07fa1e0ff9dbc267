"""Take back an entry: it stays on record as taken back, and what stood before it stands again."""

from datetime import timedelta

from kettle.knowledge.parameters import PARAMETERS
from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.change_setting import BEFORE, set_plate
from web.logbook.actions.gas import counter_act
from web.logbook.models import Act, DefrostProgram, Happened, Measurement, Reading, SettingChange, Unit
from web.logbook.models.records import SETTING, WORKED_OUT

# What a program as found says as readings, and how soon after it they are written.
PROGRAM = "program"
AT_ONCE = timedelta(seconds=2)


@action
def undo_entry(user, entry):
    """Mark an entry as taken back, with what was recorded because of it; once is enough."""
    require_same_shop(user, entry)
    require_open(entry.call)
    # As it stands now, not as it was when the page was made: another may have taken it back since.
    entry.refresh_from_db(fields=["undone_at", "undone_by"])
    if entry.undone_at is None:
        entry.undone_at, entry.undone_by = work_time.now(), user
        entry.save(update_fields=["undone_at", "undone_by"])
        if isinstance(entry, Reading | Measurement):
            made = entry.call.readings.filter(source=WORKED_OUT, undone_at=None, at=entry.at)
            made.update(undone_at=entry.undone_at, undone_by=user)
        if isinstance(entry, SettingChange):
            made = entry.call.readings.filter(source=SETTING, undone_at=None, at__in=(entry.at, entry.at - BEFORE))
            made.update(undone_at=entry.undone_at, undone_by=user)
            parameter = PARAMETERS.get(entry.parameter)
            if parameter is not None and parameter.plate:
                set_plate(entry.call, parameter)
        if isinstance(entry, Happened) and entry.kind == "retrofit":
            Unit.objects.filter(pk=entry.call.unit_id).update(refrigerant=entry.call.told_with["refrigerant"])
        if isinstance(entry, DefrostProgram):
            _undo_program(user, entry)
        if isinstance(entry, Act):
            counter_act(user, entry)
        log.write(user, "undo_entry", entry.call, what=type(entry).__name__, entry=entry.pk)


def _undo_program(user, entry):
    """What a program stands for goes with it: its settings, and the readings it was taken as."""
    for change in entry.call.settingchanges.filter(at=entry.at, undone_at=None):
        undo_entry(user, change)
    made = entry.call.readings.filter(source__startswith=PROGRAM, undone_at=None, at__gte=entry.at, at__lt=entry.at + AT_ONCE)
    made.update(undone_at=entry.undone_at, undone_by=user)


def last_reading(call, user=None):
    """The last reading of a call, of one person where one is named; None where there is none."""
    rows = [reading for reading in call.readings.all() if reading.undone_at is None and reading.source not in (WORKED_OUT, SETTING)]
    return next((reading for reading in reversed(rows) if user is None or reading.by_id == user.pk), None)
