"""What three ohm readings between a compressor's terminals, and one to bare shell, say of its windings.

Practice of the trade: on one phase the two smaller readings add up to the largest, which lies between start and run; the terminal opposite
it is common, and of the others the one nearer to common is run. On three phases the pairs are equal.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number, ohms_text

TERMINALS: Final = ("1", "2", "3")
# The pairs of the readings, by terminal.
PAIRS: Final = (("1", "2"), ("2", "3"), ("3", "1"))
MOST_OHM: Final = 1e10
# From here on a meter shows no connection.
OPEN_FROM_OHM: Final = 1e4
SHORTED_BELOW_OHM: Final = 0.1
ADDS_UP_WITHIN_PCT: Final = 10.0
EQUAL_WITHIN_PCT: Final = 10.0
# Insulation to ground, Ω: below the first condemned, up to the second wet or dirty.
CONDEMNED_BELOW_OHM, GOOD_ABOVE_OHM = 1e5, 1e6


@dataclass(frozen=True)
class Windings:
    """What was told: which terminal is which (empty where that cannot be told), whether sound, and what it means in words."""

    names: dict[str, str]
    sound: bool
    says: str


def _checked(ohms: tuple[float, float, float]) -> None:
    for value in ohms:
        if not 0.0 <= value <= MOST_OHM:
            raise InputError(f"{format_number(value)} Ω is outside 0 to {ohms_text(MOST_OHM)}; nothing between two terminals is “open”")


def single_phase(ohm_12: float, ohm_23: float, ohm_31: float) -> Windings:
    """Return which terminal is common, start and run, and what the three readings mean, Ω in any order of terminals.

    Raises InputError for figures that are no resistance.
    """
    ohms = (ohm_12, ohm_23, ohm_31)
    _checked(ohms)
    is_open = [value >= OPEN_FROM_OHM for value in ohms]
    if all(is_open):
        return Windings({}, sound=False, says="No way between any two: more than one winding open, or leads not on the pins")
    if sum(is_open) == 2:
        there = PAIRS[is_open.index(False)]
        alone = next(one for one in TERMINALS if one not in there)
        found = f"{ohms_text(ohms[is_open.index(False)])} between {there[0]} and {there[1]}"
        return Windings(
            {}, sound=False,
            says=f"Terminal {alone} is open to both others, with {found}. If {alone} is common, that is the "
            "overload: let it cool and measure again. If it is not, its winding is open",
        )  # fmt: skip
    if sum(is_open) == 1:
        return Windings({}, sound=False, says="Two ways there and the third not cannot be: one reading is off. Take all three again")
    if min(ohms) < SHORTED_BELOW_OHM:
        return Windings({}, sound=False, says=f"{ohms_text(min(ohms))} between two terminals: a winding is shorted, or the leads touch")
    largest = max(range(3), key=lambda n: ohms[n])
    common = next(one for one in TERMINALS if one not in PAIRS[largest])
    to_common = {one: next(ohms[n] for n in range(3) if set(PAIRS[n]) == {one, common}) for one in PAIRS[largest]}
    run, start = sorted(to_common, key=lambda one: to_common[one])
    names = {common: "common", run: "run", start: "start"}
    off = mismatch_pct(ohms)
    figures = f"run {ohms_text(to_common[run])}, start {ohms_text(to_common[start])}"
    if off > ADDS_UP_WITHIN_PCT:
        return Windings(names, sound=False, says=f"{figures}, but together they are {off:.0f} % off {ohms_text(ohms[largest])}: turns are "
                        "shorted, or a lead lies beside it. Lift the leads and take them again")  # fmt: skip
    if math.isclose(to_common[run], to_common[start], rel_tol=0.1):
        return Windings(names, sound=True, says=f"{figures}: they add up, but are too alike to tell run from start. Go by the marks")
    return Windings(names, sound=True, says=f"Common is {common}, run {run}, start {start}: {figures}; they add up")


def mismatch_pct(ohms: Sequence[float]) -> float:
    """Return how far the two smaller readings are from adding up to the largest, % of the largest."""
    small, middle, large = sorted(ohms)
    return 100.0 * abs(large - small - middle) / large if large else 0.0


def three_phase(ohm_12: float, ohm_23: float, ohm_31: float) -> Windings:
    """Return whether three pairs are equal within `EQUAL_WITHIN_PCT`, and which winding is out where they are not, Ω."""
    ohms = (ohm_12, ohm_23, ohm_31)
    _checked(ohms)
    if all(value >= OPEN_FROM_OHM for value in ohms):
        return Windings({}, sound=False, says="No way between any two: the protector at the star point is open. Let it cool, measure again")
    is_open = [value >= OPEN_FROM_OHM for value in ohms]
    if any(is_open):
        alone = next((one for one in TERMINALS if sum(one in PAIRS[n] for n in range(3) if is_open[n]) == 2), "")
        which = f"the winding at terminal {alone} is open" if alone else "one reading is off: take all three again"
        return Windings({}, sound=False, says=f"Open between {sum(is_open)} of the pairs: {which}")
    mean = sum(ohms) / 3.0
    off = 100.0 * max(abs(value - mean) for value in ohms) / mean if mean else 0.0
    if mean < SHORTED_BELOW_OHM:
        return Windings({}, sound=False, says=f"{ohms_text(mean)} between terminals: shorted, or too little for this meter")
    if off > EQUAL_WITHIN_PCT:
        return Windings({}, sound=False, says=f"The pairs are {off:.0f} % from equal, 10 % at most: turns are shorted in one")
    return Windings({}, sound=True, says=f"The pairs are equal within {off:.0f} %: sound")


def to_ground(ohm: float) -> Windings:
    """Return what a reading from a terminal to bare shell means, Ω; InputError outside what a meter shows."""
    if not 0.0 <= ohm <= MOST_OHM:
        raise InputError(f"{format_number(ohm)} Ω is outside 0 to {ohms_text(MOST_OHM)}")
    if ohm < CONDEMNED_BELOW_OHM:
        return Windings({}, sound=False, says=f"{ohms_text(ohm)} to the shell, under 0.1 MΩ: grounded. Never switch it on again")
    if ohm <= GOOD_ABOVE_OHM:
        return Windings({}, sound=False, says=f"{ohms_text(ohm)} to the shell: wet or dirty. Dry and clean the terminals, then repeat")
    return Windings({}, sound=True, says=f"{ohms_text(ohm)} to the shell, over 1 MΩ: good")


# How long a hot overload takes to close again, by what the shell feels like, in words.
_COOL_DOWN: Final = {
    "hot": "The shell is hot: an open common is then the overload. Let it cool an hour, more with ice or a wet rag, and measure again",
    "warm": "The shell is warm: give the overload 20 minutes and measure again before a winding is condemned",
}


def maybe_overload(ohms: Sequence[float | None], phases: int) -> bool:
    """Return whether three readings (common–start, start–run, common–run; Ω) can be an open overload: common open, start–run there."""
    cs, sr, cr = ohms
    if cs is None or sr is None or cr is None:
        return False
    common_open = cs >= OPEN_FROM_OHM and cr >= OPEN_FROM_OHM
    return common_open and (phases == 3 or sr < OPEN_FROM_OHM)


def cool_down(shell: str) -> str:
    """Return how long to wait for an overload, by what the shell feels like (a word of `compressor_shell`; empty: nobody felt it)."""
    if not shell:
        return "Feel the shell: a hot one has its overload open, and only a cold one can be condemned by these"
    return _COOL_DOWN.get(shell, "The shell is cold: an overload would have closed by now")
