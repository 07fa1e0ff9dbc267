"""Take live values of probes into a call as one set, marked with where they come from."""

from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from web.benches.sets.actions.keep_set import keep_set
from web.logbook.actions.acting import action
from web.logbook.actions.place import LONGEST_WHERE, place
from web.logbook.actions.record_reading import record_reading


def source_of(probe, simulated=False):
    """How a reading says which probe it is from."""
    return f"probe {probe}, simulated" if simulated else f"probe {probe}"


@action
def take_probes(user, call, judgement, live, now, label, evaporator=None, simulated=False):
    """Record the readings of the probes that are not lost and keep them as a set; InputError, also for one that a hold blocks, stores
    nothing."""
    there = [reading for reading in live if reading.state(now) != "lost"]
    if not there:
        raise InputError("Probes: none of these is in reach")
    for reading in there:
        entry = observations.get(reading.key)
        typed, source = f"{reading.value:.2f} {entry.unit}", source_of(reading.probe, simulated)
        record_reading(user, call, reading.key, typed, source=source, evaporator=evaporator, judgement=judgement, at=reading.at)
    # Probes hang in the box from now on: they are looked for when the visit ends.
    if not call.left_there.filter(what="probe", undone_at=None, gone_at=None).exists():
        place(user, call, "probe", ", ".join(dict.fromkeys(reading.probe for reading in there))[:LONGEST_WHERE])
    return keep_set(user, call, label, at=now)
