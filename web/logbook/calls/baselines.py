"""Sets of readings as the core compares them, and the unit's own baseline."""

from kettle.benches.sets import baseline
from kettle.judging.readings import work_out
from kettle.knowledge.measures import TRADE
from web.logbook.calls.judging import standing_readings, value_of
from web.logbook.models import ReadingSet


def facts_of(kept, coil=1, shown=TRADE):
    """What stood on a coil at the moment of a set."""
    call = kept.call
    standing = standing_readings(call, coil, until=kept.at)
    return work_out(call.unit.resolved(), {key: value_of(reading) for key, reading in standing.items()}, shown=shown)


def simulated_in(kept, coil=1):
    """Whether a stand-in said any of what stood at the moment of a set."""
    return any(reading.is_simulated for reading in standing_readings(kept.call, coil, until=kept.at).values())


def baseline_of(call, ambient_f, coil=1, shown=TRADE):
    """The unit's past good set to hold a call against, with its facts; None where it has none."""
    earlier = ReadingSet.objects.filter(call__unit=call.unit, good=True, undone_at=None, at__lt=call.opened_at)
    rows = earlier.exclude(call=call).select_related("call__unit__site").order_by("-at")
    # What was not measured is nothing to hold a unit against.
    sets = {kept.pk: kept for kept in rows if not simulated_in(kept, coil)}
    facts = {pk: facts_of(kept, coil, shown) for pk, kept in sets.items()}
    chosen = baseline.closest(ambient_f, {pk: known.number("ambient_f") for pk, known in facts.items()})
    return (sets[chosen], facts[chosen]) if chosen is not None else None
