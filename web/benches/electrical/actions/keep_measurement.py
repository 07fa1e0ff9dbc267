"""Keep what a meter showed between two points, or round a lead."""

from kettle.case import MOST_OBSERVATIONS
from kettle.electrical import finds
from kettle.electrical.measure import Reading, checked
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from kettle.knowledge.observations.model import OPEN_LOOP
from web.accounts.access import require_live_work
from web.logbook.actions import log, stopped
from web.logbook.actions.acting import on_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.holds import taken_on
from web.logbook.calls.measured import OPEN_OHM
from web.logbook.models import Measurement
from web.logbook.models.records import WORKED_OUT

UNITS = {"volts": "V", "amps": "A", "ohms": "Ω"}


@on_call
def keep_measurement(user, call, judgement, circuit, what, one, other, typed, state, evaporator=None, lifted=False, **when):
    """Store one measurement; one that is an observation of its own goes into that. InputError says what is wrong and stores nothing.

    `lifted`: ohms with the leads off the part. `when` may give `at`.
    """
    if what not in UNITS:
        raise InputError("Choose volts, amps or ohms")
    if what != "ohms":
        require_live_work(user)
    is_open = what == "ohms" and typed.strip().lower() in OPEN_LOOP
    value = OPEN_OHM if is_open else TRADE.parse(typed, UNITS[what])
    lifted = lifted and what == "ohms"
    against = "resistance_test" in taken_on(call)
    reading = checked(circuit, Reading(what, one, other if what != "amps" else "", value, state, lifted), live_ohms=against)
    if what == "ohms" and not against and not judgement.facts.is_("power_locked_out", "yes"):
        words = (
            "Ohms wait for the lock-out: lock out, prove dead at the terminals and say so, then measure. "
            "To take it on all the same give a reason on Judge"
        )
        stopped.tell(call, words)
        raise InputError(words)
    key = finds.observed_in(circuit, one, other, state) if what == "volts" else ""
    if key:
        return record_reading(user, call, key, typed, evaporator=evaporator, **when)
    if call.measurements.count() >= MOST_OBSERVATIONS:
        raise InputError(f"{call} holds {MOST_OBSERVATIONS} measurements, which is all it can: open a new call")
    kept = Measurement.objects.create(
        call=call, by=user, what=what, one=reading.one, other=reading.other, value=value, state=state, lifted=lifted, **when
    )
    amps_key = finds.observed_amps(one, state) if what == "amps" else ""
    if amps_key:
        record_reading(user, call, amps_key, typed, evaporator=evaporator, source=WORKED_OUT, at=kept.at)
    log.write(user, "keep_measurement", call, what=what, one=kept.one, other=kept.other, value=value, state=state)
    return kept
