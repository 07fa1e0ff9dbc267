"""The registry of everything that can be observed on a unit: one entry each, in the order a technician takes them.

Storing, forms, drawing tags, the case file, judging and simulating all walk this table.
Temperatures are °F, pressures psig. Physical ranges are what the instrument or the substance allows, not what is normal.
"""

import difflib
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import box, circuit, controls, electrical, told
from kettle.knowledge.observations.model import Observation as Observation
from kettle.knowledge.observations.model import Range as Range
from kettle.knowledge.observations.model import Value as Value
from kettle.knowledge.observations.model import words_of as words_of

REGISTRY: Final[dict[str, Observation]] = {
    entry.key: entry for entry in (*told.ENTRIES, *box.ENTRIES, *circuit.ENTRIES, *electrical.ENTRIES, *controls.ENTRIES)
}


def get(key: str) -> Observation:
    """Return the entry of a key; InputError names the key and the nearest known one."""
    if key in REGISTRY:
        return REGISTRY[key]
    near = difflib.get_close_matches(key, REGISTRY, n=1, cutoff=0.0)
    raise InputError(f"observation “{key[:40]}” is not known; the nearest known key is “{near[0]}”")
