"""How much gas is missing, and how much went in where no scale stood: by what a unit with so much of its charge runs.

The plant model of a sound unit is run at shares of its charge, at this box and this air; what is read is looked up in that. It is an
estimate and is called so: the model knows the kind of unit, not this one's pipes.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from kettle.benches.charge.expected import AMBIENT_F, BOX_F, RUNS_H, UnitKey, turned_down
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import OZ_PER_LB, atmosphere_psia
from kettle.plant.rows import Figures
from kettle.plant.run import run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

SHARES: Final = tuple(np.arange(0.10, 1.21, 0.10))
# What is read is right within so much: psi of suction as a share, % of rated amps, % of the receiver.
SUCTION_SHARE: Final = 0.06
AMPS_PCT: Final = 4.0
LEVEL_PCT: Final = 10.0
# No estimate is better than this share of the whole charge.
LEAST_DOUBT: Final = 0.12
# A course that rises less than so much from one share to the next is flat.
FLAT: Final = 1e-6


def usual_charge_oz(unit: Unit) -> float:
    """Return about what such a unit holds, oz: its label, else as the plant model sizes it."""
    return unit.critical_charge_oz or float(sized(unit).parts.charge_lb[0]) * OZ_PER_LB


@dataclass(frozen=True)
class Missing:
    """About how much is missing, oz: the figure and the span it lies in, and what it was told by, in words."""

    oz: float
    low_oz: float
    high_oz: float
    by: tuple[str, ...]


@dataclass(frozen=True)
class Curve:
    """What a unit runs by the share of its charge that is in it: suction psig, % of rated amps, % of its receiver."""

    shares: Figures
    suction_psig: Figures
    amps_pct: Figures
    level_pct: Figures

    def full(self, figures: Figures) -> float:
        """Return what stands with all of its charge in it, in the unit of the figures."""
        return float(np.interp(1.0, self.shares, figures))

    def share_of(self, figures: Figures, read: float) -> float:
        """Return the share at which a figure is first reached, at most one; one at its least says no more than where it begins to rise."""
        rising = np.maximum.accumulate(figures)
        begins = int(np.flatnonzero(rising - rising[0] <= FLAT)[-1])
        kept = begins + np.flatnonzero(np.diff(rising[begins:], prepend=-np.inf) > FLAT)
        return min(float(np.interp(read, rising[kept], self.shares[kept])), 1.0)


def curve(unit: Unit, box_f: float, ambient_f: float) -> Curve:
    """Return what a sound unit runs at each share of its charge, with box and air on the condenser at these temperatures, °F."""
    box, ambient = round(min(max(box_f, BOX_F[0]), BOX_F[1])), round(min(max(ambient_f, AMBIENT_F[0]), AMBIENT_F[1]))
    return _curve(UnitKey(unit), box, ambient)


@lru_cache(maxsize=32)
def _curve(key: UnitKey, box_f: float, ambient_f: float) -> Curve:
    plant = turned_down(key.unit).repeated(len(SHARES))
    plant.parts.charge_lb *= np.array(SHARES)
    state = at_rest(plant, air_f=box_f, outside_f=ambient_f)
    state.next_defrost_h[:] = 1e9
    f = run(plant, RUNS_H, ambient_f, state).flows
    return Curve(
        np.array(SHARES), np.asarray(f.suction_psia) - atmosphere_psia(key.unit.altitude_ft),
        100.0 * np.asarray(f.amps) / np.asarray(plant.parts.rla_a), 100.0 * np.asarray(f.receiver_share),
    )  # fmt: skip


def missing(
    unit: Unit,
    box_f: float,
    ambient_f: float,
    suction_psig: float | None,
    amps_pct: float | None,
    level_pct: float | None = None,
) -> Missing | None:
    """Return about how much gas is missing, oz, by suction, amps and receiver level read at this box and air.

    Each is read with its own doubt, and the span holds what any of them says. None where none of them tells: not read, or as it stands
    with a full charge already (behind a receiver suction and amps tell nothing of what is left in it).
    """
    known = curve(unit, box_f, ambient_f)
    absolute = 0.0 if suction_psig is None else suction_psig + atmosphere_psia(unit.altitude_ft)
    reads = (
        ("suction", known.suction_psig, suction_psig, SUCTION_SHARE * absolute), ("amps", known.amps_pct, amps_pct, AMPS_PCT),
        ("receiver level", known.level_pct, level_pct if unit.receiver else None, LEVEL_PCT),
    )  # fmt: skip
    spans: list[tuple[float, ...]] = []
    by: list[str] = []
    for name, figures, read, doubt in reads:
        # An empty receiver says that much is missing, and not how much where anything else does.
        empty = name == "receiver level" and bool(spans) and read is not None and read <= LEVEL_PCT
        if read is not None and not empty and read + doubt < known.full(figures):
            spans.append(tuple(known.share_of(figures, read + way * doubt) for way in (-1.0, 0.0, 1.0)))
            by.append(name)
    if not spans:
        return None
    whole, gone = usual_charge_oz(unit), 1.0 - sum(span[1] for span in spans) / len(spans)
    low, high = 1.0 - max(span[2] for span in spans), 1.0 - min(span[0] for span in spans)
    low, high = min(low, gone - LEAST_DOUBT), max(high, gone + LEAST_DOUBT)
    return Missing(gone * whole, max(low, 0.0) * whole, min(high, 1.0) * whole, tuple(by))


def went_in_oz(unit: Unit, box_f: float, ambient_f: float, before_pct: float, after_pct: float) -> tuple[float, float] | None:
    """Return about how much gas went in between two readings of the amps, % of rated, and how far that may be off, oz.

    None where the amps did not rise, or stood already where a full charge has them: then they tell nothing of it.
    """
    known = curve(unit, box_f, ambient_f)
    if after_pct <= before_pct or before_pct + AMPS_PCT >= known.full(known.amps_pct):
        return None
    whole, spans = usual_charge_oz(unit), []
    for read in (before_pct, after_pct):
        spans.append([known.share_of(known.amps_pct, read + way * AMPS_PCT) for way in (-1.0, 0.0, 1.0)])
    room = max(LEAST_DOUBT, sum(high - low for low, _, high in spans) / 4.0)
    return (spans[1][1] - spans[0][1]) * whole, room * whole
