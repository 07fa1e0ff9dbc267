"""A practice call worked off by the application's own holds and next checks alone: the path a learner's is set beside."""

from typing import Final

from kettle.knowledge import observations
from kettle.plant.observer.rig import OWN_DOING
from kettle.yard.drawn import AT_FIRST
from kettle.yard.practice import Practice

# An answer this sure is named; so many checks are made at the most.
SURE: Final = 0.9
MOST_CHECKS: Final = 25
# Where no check is left, what is less likely than not is not named.
NAMED_FROM: Final = 0.5
# What nobody leaves out, for the path that goes by information per minute alone.
AT_A_GLANCE: Final = ("box_temp_f", "ice_form", "compressor", "evap_fans")
FIRST: Final = ("since_when", "last_touched", *(key for key in AT_FIRST if key != "sight_glass"), "ice_places", "drain_pan", "control_call",
                "door_traffic", "strip_curtain", "evap_coil", "controller_alarm")  # fmt: skip


def follow(practice: Practice, looks: tuple[str, ...] = FIRST) -> tuple[str, ...]:
    """Look (`looks`: observations), follow holds and next checks until an answer stands clear, name it and return it: the codes of the
    first answer."""
    unit = practice.rig.unit
    first = [key for key in looks if observations.get(key).exists_on(unit)]
    for key in first:
        practice.ask(key)
    tried, melted, waited = {step.of for step in practice.steps}, False, False
    for _ in range(MOST_CHECKS):
        was = practice.course.was
        if was and was[0].codes and was[0].probability >= SURE:
            break
        if any(hold.code == "iced_coil" for hold in practice.course.now.holds) and not melted:
            melted = True
            _make_ready(practice)
            practice.do("coil", "melted")
            _power_on(practice)
            practice.wait(45.0)
            practice.run()
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
    was = practice.course.was
    codes = was[0].codes if was and was[0].probability >= NAMED_FROM else ()
    practice.name(codes)
    return codes


def _make_ready(practice: Practice) -> None:
    """What comes before a melt, as far as this unit has it."""
    for key in ("power_locked_out", "parts_protected", "latch_blocked", "someone_outside"):
        if observations.get(key).exists_on(practice.rig.unit):
            practice.put(key, "yes")


def _power_on(practice: Practice) -> None:
    practice.put("power_locked_out", "no")
