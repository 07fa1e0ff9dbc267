"""What a turn does on this valve, learned from its own turns, and the next turn that lands in the band without passing it.

Model: the change of settled superheat is -k times the turns out, with the error of two readings; k is normal about what is usual
(conjugate normal update, Gelman et al., Bayesian Data Analysis, ch. 2).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf, sqrt
from typing import Final

from kettle.benches.valve.adjust import FAR_OUT_STEP_TURNS, SETTLE_MIN, USUAL_STEP_TURNS, step_limit
from kettle.benches.valve.course import Point, Turned
from kettle.knowledge.measures import TRADE, ShownUnits, format_number

# A usual valve, °F a turn with one standard deviation between valves; and of one reading of superheat.
USUAL_F_PER_TURN: Final = 4.0
BETWEEN_VALVES_F: Final = 1.8
READING_F: Final = 0.9
# A reading counts as the answer to a turn from so long after it on, min.
ANSWERS_AFTER_MIN: Final = 6.0
# A turn that moved less than this share of what is usual, or than this, °F, did nothing that one could tell.
NOTHING_SHARE: Final = 0.25
NOTHING_F: Final = 1.0
TRIED_TURNS: Final = 0.5
# How far the doubt is driven out when a step is chosen, standard deviations; superheat is never asked below this, °F.
CAUTIOUS: Final = 1.3
LEAST_F: Final = 3.0
STEPS: Final = (0.125, 0.25, 0.5, 0.75, 1.0)


@dataclass(frozen=True)
class Answer:
    """What a turn brought: turns (positive opens), superheat before and settled after, °F."""

    turns: float
    before_f: float
    after_f: float

    @property
    def moved_f(self) -> float:
        """How far superheat moved the way it should: opening lowers it, closing raises it."""
        return (self.before_f - self.after_f) * (1.0 if self.turns > 0 else -1.0)

    @property
    def nothing(self) -> bool:
        """Whether nothing moved that one could tell."""
        return self.moved_f < max(NOTHING_F, NOTHING_SHARE * USUAL_F_PER_TURN * abs(self.turns))


@dataclass(frozen=True)
class Learned:
    """What a turn does on this valve, °F a turn, one standard deviation of it, and from how many turns."""

    f_per_turn: float
    doubt_f: float
    turns: int


@dataclass(frozen=True)
class Next:
    """The next turn: turns (positive opens; 0: leave it), superheat to expect with its doubt, °F, minutes to wait, in words."""

    turns: float
    expect_f: float
    doubt_f: float
    wait_min: float
    says: str
    if_nothing: str


def answers(points: Sequence[Point], turns: Sequence[Turned], others_min: Sequence[float] = ()) -> list[Answer]:
    """Return the answer to each turn that has one: the last reading before it, and the last before the next turn or now.

    Turns between which nothing was read count together. `others_min` are the minutes at which something else was done that changes how it
    runs (gas added, the stem run through): what is read after that tells nothing of the turn before.
    """
    found: list[Answer] = []
    waiting, before = 0.0, None
    for turned in turns:
        later = [one.at_min for one in turns if one.at_min > turned.at_min] + [one for one in others_min if one > turned.at_min]
        end, begin = min(later, default=inf), max((one for one in others_min if one <= turned.at_min), default=-inf)
        if before is None or before.at_min < begin:
            waiting, before = 0.0, next((one for one in reversed(points) if begin < one.at_min <= turned.at_min), None)
        if before is None:
            continue
        waiting += turned.turns
        after = next((one for one in reversed(points) if turned.at_min + ANSWERS_AFTER_MIN <= one.at_min <= end), None)
        if after is not None:
            if waiting:
                found.append(Answer(waiting, before.superheat_f, after.superheat_f))
            waiting, before = 0.0, None
    return found


def learned(seen: Sequence[Answer]) -> Learned:
    """Return what a turn does on this valve by its answers; what is usual without any. A superheat of zero tells nothing of a turn that
    closes: liquid stays liquid."""
    weight, mean = 1.0 / BETWEEN_VALVES_F**2, USUAL_F_PER_TURN / BETWEEN_VALVES_F**2
    used = [one for one in seen if not (min(one.before_f, one.after_f) <= 0.0)]
    error = 2.0 * READING_F**2
    for one in used:
        weight += one.turns**2 / error
        mean += -one.turns * (one.after_f - one.before_f) / error
    return Learned(max(mean / weight, 0.0), sqrt(1.0 / weight), len(used))


def without_answer(seen: Sequence[Answer]) -> bool:
    """Whether two turns, half a turn together at least, moved nothing."""
    last = seen[-2:]
    return len(last) == 2 and all(one.nothing for one in last) and sum(abs(one.turns) for one in last) >= TRIED_TURNS


def next_turn(superheat_f: float, low_f: float, high_f: float, valve: Learned, shown: ShownUnits = TRADE) -> Next:
    """Return the next turn for a settled superheat against its band, °F: the step that comes nearest its middle and does not pass it even
    where the valve answers more than it did."""
    if low_f <= superheat_f <= high_f:
        return Next(0.0, superheat_f, READING_F, 0.0, "In the band: leave it", "")
    opens = superheat_f > high_f
    most = step_limit(low_f, high_f, superheat_f)
    strong = valve.f_per_turn + CAUTIOUS * valve.doubt_f
    far_end = max(low_f, LEAST_F) if opens else high_f
    room = abs(superheat_f - far_end) + (0.0 if opens else READING_F)
    fits = [step for step in STEPS if step <= most and strong * step <= room] or [STEPS[0]]
    middle = (low_f + high_f) / 2.0
    sign = -1.0 if opens else 1.0
    step = min(fits, key=lambda one: abs(superheat_f + sign * valve.f_per_turn * one - middle))
    expect = max(superheat_f + sign * valve.f_per_turn * step, 0.0)
    doubt = sqrt((valve.doubt_f * step) ** 2 + READING_F**2)
    goes = "out, it opens" if opens else "in, it closes"
    says = f"{format_turns(step)} {goes}: about {shown.text(expect, '°F diff')} ± {shown.figure(doubt, '°F diff')} after {SETTLE_MIN} min"
    nothing = "Nothing after that: not the stem. First the bulb, then strainer and solenoid, then warm and chill the bulb"
    return Next(-sign * step, expect, doubt, SETTLE_MIN, says, nothing)


def turns_sign(turns: float) -> str:
    """Return turns as short as they are said: ¼, 1, 1.3."""
    words = {0.125: "⅛", 0.25: "¼", 0.5: "½", 0.75: "¾", 1.0: "1"}
    return words.get(abs(turns), format_number(abs(turns), 1))


def format_turns(turns: float) -> str:
    """Return turns as a technician says them: ¼ turn, 1 turn."""
    return f"{turns_sign(turns)} turn{'s' if abs(turns) > 1.0 else ''}"


assert max(STEPS) <= FAR_OUT_STEP_TURNS and USUAL_STEP_TURNS in STEPS
