"""Record one observation as it was typed or tapped."""

from kettle import observations
from kettle.errors import InputError
from kettle.readings import SENSOR_PAIR, sensor_error_f
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.models import Reading

WORKED_OUT = "worked out"


def require_open(call):
    """Refuse to change what a closed call says."""
    if not call.is_open:
        raise InputError(f"{call} is closed; open a new call to record more")


def record_reading(user, call, key, typed, source="hand", evaporator=None, **when):
    """Check and store one observation; InputError says what is wrong and stores nothing.

    `typed` is text, or a list of words where the observation takes several. `when` may give `at`.
    """
    require_same_shop(user, call)
    require_open(call)
    entry = observations.get(key)
    value = entry.parse(typed)
    reading = Reading.objects.create(
        call=call,
        key=key,
        value=list(value) if isinstance(value, tuple) else value,
        typed=(typed if isinstance(typed, str) else ", ".join(typed))[:200],
        source=source,
        evaporator=evaporator,
        by=user,
        **when,
    )
    log.write(user, "record_reading", call, key=key, value=reading.value)
    if key in SENSOR_PAIR:
        _work_out_sensor_error(reading)
    return reading


def _work_out_sensor_error(reading):
    """Record display − own thermometer as soon as both stand; it is taken back with the reading it came from."""
    standing = {}
    for other in reading.call.readings.filter(key__in=SENSOR_PAIR, undone_at=None):
        standing[other.key] = other.value
    error = sensor_error_f(standing)
    if error is not None:
        error = observations.get("sensor_error_f").check(error)
        Reading.objects.create(call=reading.call, key="sensor_error_f", value=error, source=WORKED_OUT, by=reading.by, at=reading.at)
