"""The scatter of instruments in the field."""

import random
from typing import Final

from kettle.knowledge.observations import Value, get

# One standard deviation of a field reading: of pressures as a share, of temperatures in °F, of amps as a share.
PRESSURE_SCATTER: Final = 0.006
CLAMP_SCATTER_F: Final = 0.6
AMPS_SCATTER: Final = 0.02


def scattered(key: str, value: Value, chance: random.Random) -> Value:
    """Return a reading with the scatter of its instrument; words as they are."""
    if not isinstance(value, float):
        return value
    entry = get(key)
    if key.endswith("_psig"):
        value *= 1.0 + chance.gauss(0, PRESSURE_SCATTER)
    elif key.endswith("_amps"):
        value *= 1.0 + chance.gauss(0, AMPS_SCATTER)
    elif entry.unit == "°F":
        value += chance.gauss(0, CLAMP_SCATTER_F)
    return round(min(max(value, entry.low), entry.high), 1)
