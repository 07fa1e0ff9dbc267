"""What is seen in service, by kind of unit: wider than a band, narrower than what can be."""

from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Observation, Range


def usual_range(entry: Observation, unit: Unit) -> Range | None:
    """Return the plausible range of an observation on a unit, in its stored unit; None where nothing is said of it.

    A pressure whose range is given as saturation temperature is looked up for the refrigerant, as far as its table goes.
    """
    kind = "freezer" if unit.kind.freezer else "cooler"
    found = entry.plausible.get(kind, entry.plausible.get("any"))
    if found is None or not entry.plausible_as:
        return found
    refrigerant = unit.refrigerant
    look_up = refrigerant.dew_psig if entry.plausible_as == "dew" else refrigerant.bubble_psig
    try:
        low, high = (look_up(min(max(end, refrigerant.low_f), refrigerant.high_f), unit.altitude_ft) for end in found)
    except InputError:
        return None
    return low, high
