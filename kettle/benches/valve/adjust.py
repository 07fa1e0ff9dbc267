"""Turning the stem: direction, effect, size of step, and the wait that must follow."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.judging import holds
from kettle.judging.holds import Hold
from kettle.judging.verdicts import Verdict
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits

# Stem clockwise (in) closes the valve and raises superheat; out opens it and lowers superheat. Trade practice; the
# few valves that turn the other way carry it on their plate.
DIRECTIONS: Final = {"in": "in, clockwise", "out": "out, counter-clockwise"}
OTHER_WAY: Final = {"in": "counter-clockwise, which closes this one", "out": "clockwise, which opens this one"}
EFFECT_OF: Final = {"in": "raise", "out": "lower"}
GOALS: Final = {"raise": "raise superheat", "lower": "lower superheat"}
SMALLEST_TURN: Final = 0.125
LARGEST_TURN: Final = 2.0
USUAL_STEP_TURNS: Final = 0.5
FAR_OUT_STEP_TURNS: Final = 1.0
FAR_OUT_F: Final = 4.0
# Superheat this low is liquid at the bulb.
FLOODS_F: Final = 3.0
SETTLE_MIN: Final = 15


@dataclass(frozen=True)
class Advice:
    """What a turn would do, in words; `objections` must be empty or answered with a reason before it is recorded."""

    effect: str
    objections: tuple[str, ...]


def directions(other_way: bool = False) -> dict[str, str]:
    """Return the two ways of a stem in words: `in` closes, `out` opens; `other_way` for a valve that turns the other way."""
    return OTHER_WAY if other_way else DIRECTIONS


def effect_words(direction: str) -> str:
    """Return what a direction does, as one sentence."""
    if direction == "in":
        return "Closes the valve: feeds less, raises superheat."
    return "Opens the valve: feeds more, lowers superheat."


def goal_from(verdict: Verdict | None) -> str | None:
    """Return "raise" or "lower" from the verdict on superheat at the coil; None where it gives no direction."""
    if verdict is None or verdict.state in ("ok", "impossible"):
        return None
    return "raise" if verdict.state == "low" else "lower"


def check_turns(turns: float) -> float:
    """Return the turns if they are a step a stem can take; InputError names the range."""
    if not SMALLEST_TURN <= turns <= LARGEST_TURN:
        raise InputError(f"Turns: {turns:g} is outside {SMALLEST_TURN:g} to {LARGEST_TURN:g} turns; more is never one step")
    return turns


def advise(
    direction: str,
    turns: float,
    goal: str | None,
    verdict: Verdict | None,
    in_force: Sequence[Hold],
    shown: ShownUnits = TRADE,
    other_way: bool = False,
) -> Advice:
    """Weigh one turn of the stem.

    direction "in" or "out"; turns in whole turns of the stem; goal "raise", "lower" or None for the one the verdict
    on superheat gives; verdict on superheat at the coil if there is one; in_force the holds on the unit; shown the units of its words.
    `other_way` marks a valve that closes counter-clockwise.
    Raises InputError for a direction, goal or size that does not exist. Rules: trade practice, step ¼ to ½ turn near
    target and up to 1 turn far out.
    """
    if direction not in DIRECTIONS:
        raise InputError(f"Direction: “{direction[:20]}” is not one of in, out")
    if goal is not None and goal not in GOALS:
        raise InputError(f"Goal: “{goal[:20]}” is not one of raise, lower")
    check_turns(turns)
    measured = goal_from(verdict)
    # Liquid on its way to the compressor is stopped at once, warm box or not.
    floods = direction == "in" and verdict is not None and measured == "raise" and verdict.value <= FLOODS_F
    held = [] if floods else holds.blocking(list(in_force), "txv_adjust")
    objections = [f"{hold.title} must wait: {hold.text}." for hold in held]
    words = directions(other_way)
    if verdict is not None and verdict.state == "impossible":
        objections.append(
            f"Superheat {shown.text(verdict.value, '°F diff')} cannot be. It is line less saturation: the other way round it turns the "
            "valve the wrong way. Read both again first."
        )
    wanted = goal or measured
    if wanted is not None and EFFECT_OF[direction] != wanted:
        other = "out" if direction == "in" else "in"
        objections.append(
            f"This works against the goal: turning {words[direction]} will {EFFECT_OF[direction]} superheat, and the "
            f"goal is to {wanted} it. To {wanted} superheat turn {words[other]}."
        )
    if goal is not None and measured is not None and goal != measured and verdict is not None:
        objections.append(
            f"Superheat is {shown.text(verdict.value, '°F diff')}, {verdict.state} against "
            f"{shown.span(verdict.low, verdict.high, '°F diff')}: the goal points the other way."
        )
    limit = USUAL_STEP_TURNS if verdict is None else step_limit(verdict.low, verdict.high, verdict.value)
    if turns > limit:
        objections.append(f"{turns:g} turns is a large step here: ¼ to ½ near target, {limit:g} at most now.")
    return Advice(effect_words(direction), tuple(objections))


def step_limit(low_f: float, high_f: float, superheat_f: float) -> float:
    """Return the most turns of one step by how far superheat lies outside its band, °F: more than a usual turn's worth is far out."""
    return FAR_OUT_STEP_TURNS if max(low_f - superheat_f, superheat_f - high_f) >= FAR_OUT_F else USUAL_STEP_TURNS


def way_back(turned: Sequence[tuple[str, float]]) -> list[tuple[str, float]]:
    """Return the turns that bring a stem back to where it was found, none larger than one step can be; empty where it stands there."""
    net, steps = net_turns(turned), []
    while abs(net) >= SMALLEST_TURN / 2.0:
        step = min(abs(net), LARGEST_TURN)
        steps.append(("in" if net > 0 else "out", step))
        net -= step if net > 0 else -step
    return steps


def drifted(was_f: float, now_f: float, low_f: float, high_f: float, shown: ShownUnits = TRADE) -> str:
    """Return what it means that a valve set to its band reads otherwise now, °F; empty where it was not set right, or still is."""
    if not low_f <= was_f <= high_f or low_f <= now_f <= high_f:
        return ""
    return (
        f"Drifted since last set: {shown.text(was_f, '°F diff')} then, {shown.text(now_f, '°F diff')} now and nobody turned it. "
        "A valve does not do that by itself: what changed?"
    )


def net_turns(turned: Sequence[tuple[str, float]]) -> float:
    """Return the stem's place against where it was found, in turns; positive is out (open)."""
    return sum(turns if direction == "out" else -turns for direction, turns in turned)
