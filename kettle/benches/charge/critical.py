"""A critical charge: weighed in to the tenth of an ounce, and the suction it must then give."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits, format_number

# A charge by label is right within so much, whichever is more: oz, and a share of it; up to the next share most units stand it.
RIGHT_OZ: Final = 0.1
RIGHT_SHARE: Final = 0.02
STANDS_SHARE: Final = 0.05


@dataclass(frozen=True)
class Weighed:
    """A charge against its label: ounces in the unit, off by oz and %, and what to do."""

    in_oz: float
    off_oz: float
    off_pct: float
    says: str
    right: bool


def weighed(label_oz: float, in_oz: float, shown: ShownUnits = TRADE) -> Weighed:
    """Return how a weighed charge stands against the label, oz."""
    off = in_oz - label_oz
    pct = 100.0 * off / label_oz
    amount, share = shown.text(abs(off), "oz", 1), format_number(abs(pct), 1)
    right = abs(off) <= max(RIGHT_OZ, RIGHT_SHARE * label_oz)
    if right:
        says = "Right by the label"
    elif off < 0:
        says = f"{amount} short, {share} %: weigh the rest in" if pct < -100.0 * STANDS_SHARE else f"{amount} short, {share} %: top it up"
    elif pct <= 100.0 * STANDS_SHARE:
        says = f"{amount} over, {share} %: most units stand that; write it down"
    else:
        says = f"{amount} over, {share} %: recover it all and weigh it in again; never let a little out"
    return Weighed(in_oz, off, pct, says, right)


@dataclass(frozen=True)
class Suction:
    """The suction a right charge gives: psig from and to, and what it means where it does not; `says` empty where nothing was read."""

    low_psig: float
    high_psig: float
    says: str


def suction_due(unit: Unit, box_f: float, suction_psig: float | None, shown: ShownUnits = TRADE) -> Suction:
    """Return the suction that a weighed charge must give at a box temperature, °F: dew at the box less the TD's band."""
    low_td, high_td = default_band(unit, "td_f") or (10.0, 25.0)
    r = unit.refrigerant
    low, high = (r.dew_psig(max(box_f - td, r.low_f), unit.altitude_ft) for td in (high_td, low_td))
    if suction_psig is None:
        return Suction(low, high, "")
    read = shown.text(suction_psig, "psig", 0)
    if suction_psig < low:
        says = f"{read} with the label charge in: the tube is plugged or the wrong one, or it leaked again"
    elif suction_psig > high:
        says = f"{read} with the label charge in: the compressor does not pump, or the tube passes too much"
    else:
        says = f"{read}: as it should"
    return Suction(low, high, says)
