"""What the core tells of a stored call, and the readings of a call as they stand."""

from kettle.call import tell
from kettle.knowledge import observations
from kettle.knowledge.measures import TRADE
from web import work_time
from web.logbook.calls.record import record_of


def told_of(call, shown=TRADE, what_if=None, now=None):
    """All that is told of a call, in words of the given units, each part worked out when it is asked for.

    `what_if` (key -> checked value) stands as if it had been read; nothing is stored. `now` is the moment it is told at.
    """
    return tell(record_of(call, shown, now), what_if)


def course_of(call, shown=TRADE, coil=1, what_if=None):
    """The course of one coil of a call: what it was, and what is left after what was done."""
    told = told_of(call, shown, what_if)
    return told.course(min(coil, len(told.record.coils)))


def judge_call(call, shown=TRADE, coil=1, what_if=None):
    """How one coil of a call stands now, with what it was by every stage of its course."""
    return course_of(call, shown, coil, what_if).now


def facts_by_stage(told, coil=1):
    """What stood on one coil in each stage before the one that stands, with the act that ended it: (step, facts)."""
    staged = told.call.staged
    return [(step, staged.facts_at(place, coil)) for place, step in enumerate(staged.steps)]


def facts_of_coils(call, shown=TRADE):
    """What is known of each coil of a call, in their order, without judging it."""
    told = told_of(call, shown).call
    return [told.facts_now(coil) for coil in told.coils]


def standing_readings(call, evaporator=1, until=None):
    """The readings that stand, by key: the latest of each that was not taken back, as seen from one evaporator.

    `until` leaves out what was taken later.
    """
    standing = {}
    for reading in call.readings.all():
        of_coil = not observations.get(reading.key).per_evaporator or (reading.evaporator or 1) == evaporator
        if reading.undone_at is None and of_coil and (until is None or reading.at <= until):
            standing[reading.key] = reading
    return standing


def value_of(reading):
    """A stored reading's value as the core takes it."""
    value = tuple(reading.value) if isinstance(reading.value, list) else reading.value
    return observations.get(reading.key).check(value)


def settling_until(told, coil=None):
    """When the settling clock of what was done last runs out, on a coil or on any; None where none runs, or had run out before the call was
    closed."""
    staged = told.call.staged
    clock = staged.clock if coil is None else staged.clock_on(coil)
    return clock.settled_at if clock else None


def minutes_left(until, now=None):
    """Whole minutes until a moment, at least 1; from `now` on where it is another than this one."""
    return max(1, -(-int((until - (now or work_time.now())).total_seconds()) // 60))
