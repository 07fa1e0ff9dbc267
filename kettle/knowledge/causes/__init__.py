"""The catalogue of causes: what each does to what can be seen, how to prove it, how to put it right.

One module per family holds the entries; `USUAL` is what a sound unit shows. A new cause is one entry.
"""

import difflib

from kettle.knowledge.causes import air, circuit, compressor, controls, defrost, electrical, head_side, valve
from kettle.knowledge.causes.model import HEALTHY, Cause
from kettle.knowledge.causes.pairs import PAIR_SHARE, plausible_pair
from kettle.knowledge.causes.usual import USUAL, usual
from kettle.knowledge.errors import InputError

FAMILIES = (air, defrost, circuit, valve, head_side, compressor, electrical, controls)
CATALOGUE: dict[str, Cause] = {cause.code: cause for family in FAMILIES for cause in family.CAUSES}


def get(code: str) -> Cause:
    """Return a cause by its code; InputError names the nearest one."""
    if code in CATALOGUE:
        return CATALOGUE[code]
    near = difflib.get_close_matches(code, CATALOGUE, n=1, cutoff=0.0)[0]
    raise InputError(f"cause “{code[:40]}” is not known; the nearest known is “{near}”")


__all__ = ["CATALOGUE", "HEALTHY", "PAIR_SHARE", "USUAL", "Cause", "get", "plausible_pair", "usual"]
