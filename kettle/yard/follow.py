"""A practice call worked off by the application's own holds and next checks alone: the path a learner's is set beside."""

from collections import defaultdict
from typing import Final

from kettle.judging import stopped
from kettle.judging.course import Left
from kettle.judging.suspects import Suspect
from kettle.knowledge import acts, observations
from kettle.plant.observer.rig import OWN_DOING
from kettle.yard.drawn import AT_FIRST
from kettle.yard.practice import STOPPED, Practice

# An answer this sure is named; so many checks are made at the most.
SURE: Final = 0.9
MOST_CHECKS: Final = 25
# Where no check is left, what is less likely than not is not named.
NAMED_FROM: Final = 0.5
# What nobody leaves out, for the path that goes by information per minute alone.
AT_A_GLANCE: Final = ("box_temp_f", "ice_form", "compressor", "evap_fans")
FIRST: Final = (
    "since_when", "last_touched", "left_ice", *(key for key in AT_FIRST if key != "sight_glass"), "ice_places", "drain_pan",
    "control_call", "door_traffic", "strip_curtain", "evap_coil", "controller_alarm",
)  # fmt: skip
# After a repair the unit is looked at again so much later, min.
SEEN_AGAIN_MIN: Final = 24.0 * 60.0
NOTHING_MORE: Final = ("service",)


def follow(practice: Practice, looks: tuple[str, ...] = FIRST) -> tuple[str, ...]:
    """Look (`looks`: observations), follow holds and next checks until an answer stands clear, name it and return it: the codes of the
    first answer."""
    codes = _settle(practice, looks)
    practice.name(codes)
    return codes


def put_right_until_it_runs(practice: Practice, answers: int) -> tuple[tuple[str, ...], ...]:
    """Do the same, put right what it comes to, and come back the next day as long as somebody would call again; at most so many `answers`.

    Returns the answers in their order, each the codes it named; the last one is empty where none was left to give.
    """
    told: list[tuple[str, ...]] = []
    for _ in range(answers):
        codes = _settle(practice, FIRST)
        told.append(codes)
        if not codes or not _put_right(practice, codes):
            break
        practice.wait(SEEN_AGAIN_MIN)
        practice.ask("complaint")
        if practice.rig.look("complaint") == NOTHING_MORE:
            break
    return tuple(told)


def _put_right(practice: Practice, codes: tuple[str, ...]) -> bool:
    """Do what puts each cause right most surely; whether anything could be done."""
    able = [acts.ACTS[acts.SUREST[code]] for code in codes if code in acts.SUREST]
    able = [act for act in able if act.exists_on(practice.rig.unit)]
    practice.put("power_locked_out", "yes")
    done = [practice.do(act.part, act.did, 1.0 if act.unit else None).what != STOPPED for act in able]
    practice.put("power_locked_out", "no")
    return any(done)


def _standing(practice: Practice) -> tuple[Suspect | Left, ...]:
    """What it was, or once something was put right what is left, the likeliest first."""
    if any((one.part, one.did) != ("coil", "melted") for one in practice.done):
        return tuple(one for one in practice.course.left if one.codes)
    return tuple(practice.course.was)


def _best(practice: Practice) -> tuple[tuple[str, ...], float]:
    """The answer that stands on top, and how likely it is."""
    top = next(iter(_standing(practice)), None)
    return (top.codes, top.probability) if top is not None else ((), 0.0)


def _in_most(practice: Practice) -> tuple[str, ...]:
    """The causes that are in most of what it may be, where no one answer is: they are put right whichever it is."""
    shares: dict[str, float] = defaultdict(float)
    for one in _standing(practice):
        for code in one.codes:
            shares[code] += one.probability
    return tuple(code for code, share in shares.items() if share >= NAMED_FROM)


def _settle(practice: Practice, looks: tuple[str, ...]) -> tuple[str, ...]:
    """Look, and follow holds and next checks until an answer stands clear, or none is left to make; its codes."""
    first = [key for key in looks if observations.get(key).exists_on(practice.rig.unit)]
    for key in first:
        practice.ask(key)
    tried, melted, waited = {*first}, False, False
    for _ in range(MOST_CHECKS):
        codes, likely = _best(practice)
        if codes and likely >= SURE and not stopped.ground_unread(practice.facts):
            break
        if any(hold.code == "iced_coil" for hold in practice.course.now.holds) and not melted:
            melted = True
            _melt(practice)
            tried = {"power_locked_out"} & tried
            for key in first:
                if observations.get(key).group != "told":
                    practice.ask(key)
                    tried.add(key)
            continue
        check = next((one for one in practice.course.now.next_checks if one.key not in tried), None)
        if check is None:
            break
        tried.add(check.key)
        if check.key in OWN_DOING:
            practice.put(check.key, "yes")
            continue
        if practice.facts.is_("compressor", "running", "short_cycling") and not practice.rig.readable and not waited:
            practice.run()
            waited = not practice.rig.readable
        practice.ask(check.key)
    codes, likely = _best(practice)
    return codes if likely >= NAMED_FROM else _in_most(practice)


def _melt(practice: Practice) -> None:
    """What comes before a melt, as far as this unit has it; the melt; and power on again until it can be read."""
    for key in ("power_locked_out", "parts_protected", "latch_blocked", "someone_outside"):
        if observations.get(key).exists_on(practice.rig.unit):
            practice.put(key, "yes")
    practice.do("coil", "melted")
    practice.put("power_locked_out", "no")
    practice.wait(45.0)
    practice.run()
