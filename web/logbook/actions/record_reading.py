"""Record one observation as it was typed or tapped."""

from datetime import timedelta

from kettle.case import MOST_OBSERVATIONS
from kettle.judging.holds import action_of, blocking
from kettle.judging.readings import as_typed, implied_by, told_with
from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations.make import LIVE
from web.accounts.access import require_live_work, shown_to
from web.logbook.actions import log, stopped
from web.logbook.actions.acting import on_call
from web.logbook.calls.holds import taken_on
from web.logbook.calls.judging import judge_call
from web.logbook.models import Reading
from web.logbook.models.records import WORKED_OUT

# Two readings say something together only where they were taken about the same time.
PAIRED_WITHIN = timedelta(minutes=15)


@on_call
def record_reading(user, call, key, typed, source="hand", evaporator=None, words="", judgement=None, **when):
    """Check and store one observation; InputError says what is wrong and stores nothing.

    `typed` is text, a list of words where the observation takes several, or a value that was understood from `words`. What a hold forbids
    to take is refused: where it is taken by hand now, and wherever a `judgement` to go by is given. `when` may give `at`.
    """
    entry = observations.get(key)
    if source == "hand" and entry.spoils == LIVE:
        require_live_work(user)
    if judgement is not None or (source == "hand" and not when):
        _refuse_if_held(call, entry, judgement, evaporator)
    if not entry.per_evaporator:
        evaporator = None
    understood = isinstance(typed, float | tuple)
    value = entry.check(typed) if understood else as_typed(entry, typed, call.unit.resolved(), shown_to(user))
    if call.readings.count() >= MOST_OBSERVATIONS:
        raise InputError(f"{call} holds {MOST_OBSERVATIONS} readings, which is all it can: open a new call")
    reading = Reading.objects.create(
        call=call,
        key=key,
        value=list(value) if isinstance(value, tuple) else value,
        typed=(words or (typed if isinstance(typed, str) else "" if isinstance(typed, float) else ", ".join(typed)))[:200],
        source=source,
        evaporator=evaporator,
        by=user,
        **when,
    )
    log.write(user, "record_reading", call, key=key, value=reading.value)
    _record_implied(reading, entry)
    return reading


def _refuse_if_held(call, entry, judgement, evaporator):
    """Refuse to take an observation that a hold blocks, unless it was taken on with a reason."""
    action_held = action_of(entry)
    if action_held is None or action_held in taken_on(call):
        return
    # What nothing can hold need not be judged before it is taken.
    judgement = judgement or judge_call(call, coil=evaporator or 1)
    in_force = blocking(list(judgement.holds), action_held)
    if in_force:
        words = f"{entry.label}: waits. {in_force[0].text}. To take it on all the same give a reason on Judge"
        stopped.tell(call, words)
        raise InputError(words)


def _record_implied(reading, entry):
    """Record what the reading says of other observations; it is taken back together with the reading."""
    sources, standing = told_with(entry.key), {}
    if not sources:
        return
    near = {"at__gte": reading.at - PAIRED_WITHIN, "at__lte": reading.at + PAIRED_WITHIN}
    for other in reading.call.readings.filter(undone_at=None, evaporator=reading.evaporator, key__in=sources, **near):
        standing[other.key] = tuple(other.value) if isinstance(other.value, list) else other.value
    for key, value in implied_by(entry.key, standing).items():
        Reading.objects.create(
            call=reading.call,
            key=key,
            value=observations.get(key).check(value),
            source=WORKED_OUT,
            by=reading.by,
            at=reading.at,
            evaporator=reading.evaporator,
        )
