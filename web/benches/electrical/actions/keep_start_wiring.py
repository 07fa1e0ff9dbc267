"""Keep the wires of a compressor's start gear, as found or as run for the new parts."""

from kettle.electrical.start_gear import checked
from kettle.electrical.wiring import from_data
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import StartWiring

MOST_WIRES = 40


@on_call
def keep_start_wiring(user, call, which, wires):
    """Store wires (pairs of terminals); InputError for what cannot be one, and nothing is stored then."""
    if which not in dict(StartWiring.WHICH):
        raise InputError(f"“{which[:20]}” is not one of {', '.join(dict(StartWiring.WHICH))}")
    if len(wires) > MOST_WIRES:
        raise InputError(f"{len(wires)} wires are more than {MOST_WIRES}")
    gear = from_data(call.unit.wiring).start_gear
    good = checked(gear, wires)
    kept = StartWiring.objects.create(call=call, by=user, which=which, gear=gear, wires=good)
    log.write(user, "keep_start_wiring", call, which=which, wires=good)
    return kept
