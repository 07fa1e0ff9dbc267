"""The catalogue of causes: what each does to what can be seen, how to prove it, how to put it right.

One module per family holds the entries; `USUAL` is what a sound unit shows. A new cause is one entry.
"""

from kettle.causes import air, circuit, compressor, defrost, head_side, valve
from kettle.causes.model import HEALTHY, Cause
from kettle.causes.usual import USUAL, usual

CATALOGUE: dict[str, Cause] = {
    cause.code: cause for family in (air, defrost, circuit, valve, head_side, compressor) for cause in family.CAUSES
}

__all__ = ["CATALOGUE", "HEALTHY", "USUAL", "Cause", "usual"]
