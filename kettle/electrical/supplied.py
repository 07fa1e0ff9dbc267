"""What a circuit is fed with, by what was measured on its incoming side: a brown-out is no fault of the contactor behind it."""

from collections.abc import Iterable
from functools import lru_cache
from typing import Final

from kettle.electrical.circuit import Circuit
from kettle.electrical.measure import VOLTS_SHARE, Reading

# The incoming side, whatever the phases: from the supply through disconnect and fuses to the line side of the contactor.
INCOMING: Final = ("S", "D", "L")
# A supply lies between these shares of the plate's volts; less is a leg that is lost.
LEAST_SHARE, MOST_SHARE = 0.75, 1.25
# A few supplies are kept solved at a time.
KEPT: Final = 16


def share_of_plate(circuit: Circuit, readings: Iterable[Reading]) -> float:
    """Return the volts that come in as a share of the plate's: 1 where nothing was measured there, or no more than a meter's error off.

    The fullest pair of incoming legs decides, since a lost leg takes the others down with it; below `LEAST_SHARE` it is no supply.
    """
    ends = {point.key for point in circuit.points if point.key.startswith(INCOMING) and point.key[1:].isdigit()}
    shares = [
        one.value / circuit.volts for one in readings if one.what == "volts" and one.one in ends and one.other in ends | {circuit.common}
    ]
    fullest = max(shares, default=1.0)
    if not LEAST_SHARE <= fullest <= MOST_SHARE or abs(fullest - 1.0) <= VOLTS_SHARE:
        return 1.0
    return round(fullest, 2)


def as_measured(circuit: Circuit, readings: Iterable[Reading]) -> Circuit:
    """Return a circuit on the supply that was measured; itself where that is the plate's."""
    share = share_of_plate(circuit, readings)
    return circuit if share == 1.0 else _fed(circuit, share)


@lru_cache(maxsize=KEPT)
def _fed(circuit: Circuit, share: float) -> Circuit:
    return circuit.fed_with({key: phasor * share for key, phasor in circuit.supply.items()})
