"""The clock of a person alone on site."""

from kettle.knowledge.errors import InputError
from web import work_time
from web.logbook.actions import log
from web.logbook.actions.acting import on_call

INTERVALS_MIN = (15, 30, 60, 120)


@on_call
def check_in(user, call, minutes=None):
    """Say "I am well": the clock starts anew, at another interval where one is given; 0 stops it."""
    if minutes not in (None, 0, *INTERVALS_MIN):
        raise InputError(f"Check-in: {minutes} is not one of {', '.join(map(str, INTERVALS_MIN))} min")
    if minutes is not None:
        call.check_in_min = minutes or None
    call.checked_in_at = work_time.now()
    call.save(update_fields=["check_in_min", "checked_in_at"])
    log.write(user, "check_in", call, minutes=call.check_in_min)
