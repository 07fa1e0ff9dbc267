"""Every cause on every kind as a practice call: found by holds and checks alone? Does a right repair hold for a week, and a wrong one not?

    python -m benchmarks.yard [--kinds a,b] [--causes a,b] [--show]

Nobody is called about some; a cause without an act of its own is not repaired. The wrong repair is another cause's, on the same unit.
"""

import argparse
import sys
from collections import Counter, defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass

from kettle.knowledge import acts
from kettle.knowledge.equipment import resolve
from kettle.plant import faults
from kettle.plant.simulate import PRESETS
from kettle.yard.debrief import CURES_FROM, ICED, holds_for_a_week
from kettle.yard.drawn import NOT_DRAWN, Draw, standing_as_drawn, symptom_of
from kettle.yard.follow import follow, put_right_until_it_runs
from kettle.yard.practice import STOPPED, begin

OUTSIDE_F = 85.0
# So many visits, each with an answer that is put right.
ANSWERS = 3
# Repairs that are tried in the place of the right one: of air, of the valve, of the drain.
OTHERS = ("condenser.cleaned", "drain.cleared", "door.gasket_replaced", "bulb.clamped")


@dataclass
class Played:
    """What came of one: whether it was found, whether the right repair held, and whether the wrong one did (None: not tried)."""

    kind: str
    code: str
    named: tuple
    answers: tuple
    right: bool | None
    wrong: bool | None


def drawn(kind, code):
    """The draw of a cause on a kind; None where nobody would call."""
    one = Draw(1, PRESETS[kind], OUTSIDE_F, "one", ((code, 1.0),), (), "warm", "")
    symptom = symptom_of(standing_as_drawn(one))
    return Draw(1, PRESETS[kind], OUTSIDE_F, "one", ((code, 1.0),), (), symptom, "") if symptom else None


def repaired(one, act):
    """Whether a unit holds for a week after an act; None where it cannot be done on it."""
    practice = begin(one)
    if not act.exists_on(practice.rig.unit):
        return None
    practice.put("power_locked_out", "yes")
    if practice.rig.look("ice_form") in ICED:
        # What iced the coil is put right, and the ice melted off: neither holds without the other.
        practice.do("coil", "melted")
    return None if practice.do(act.part, act.did, 1.0 if act.unit else None).what == STOPPED else holds_for_a_week(practice)


def play(job):
    """Play a cause on a kind; None where nobody would call."""
    kind, code = job
    one = drawn(kind, code)
    if one is None:
        return None
    named = follow(begin(one))
    right = acts.ACTS[acts.SUREST[code]] if code in acts.SUREST else None
    other = next((acts.ACTS[name] for name in OTHERS if name in acts.ACTS and acts.ACTS[name].removes.get(code, 0.0) < CURES_FROM
                  and acts.ACTS[name].exists_on(one.unit)), None)  # fmt: skip
    answers = put_right_until_it_runs(begin(one), ANSWERS)
    return Played(kind, code, named, answers, repaired(one, right) if right else None, repaired(one, other) if other else None)


def main():
    """Play them all on all processors and print the table."""
    asked = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    asked.add_argument("--kinds", default="")
    asked.add_argument("--causes", default="")
    asked.add_argument("--show", action="store_true", help="every one that was not found, or not as it should hold")
    args = asked.parse_args()
    kinds, named = args.kinds.split(",") if args.kinds else list(PRESETS), args.causes.split(",") if args.causes else list(faults.FAULTS)
    jobs = [(kind, code) for kind in kinds for code in named if code not in NOT_DRAWN and faults.possible(code, resolve(PRESETS[kind]))]
    with ProcessPoolExecutor() as pool:
        played = [one for one in pool.map(play, jobs, chunksize=2) if one is not None]
    tried = Counter()
    by_code = defaultdict(Counter)
    for one in played:
        told = {
            "played": 1, "found": one.named == (one.code,), "solved": any(one.code in codes for codes in one.answers),
            "right tried": one.right is not None, "right holds": bool(one.right), "wrong tried": one.wrong is not None,
            "wrong holds": bool(one.wrong),
        }  # fmt: skip
        tried.update(told)
        by_code[one.code].update(told)
    print(
        f"{len(jobs)} of cause and kind, {tried['played']} somebody calls about: found {tried['found']}, "
        f"solved in {ANSWERS} answers each put right {tried['solved']}, right repair "
        f"holds {tried['right holds']} of {tried['right tried']}, wrong one holds {tried['wrong holds']} of {tried['wrong tried']}"
    )
    for code, told in sorted(by_code.items(), key=lambda pair: pair[1]["found"] / pair[1]["played"]):
        print(
            f"  {code:26} found {told['found']:2}, solved {told['solved']:2} of {told['played']:2}  "
            f"right holds {told['right holds']:2} of {told['right tried']:2}  "
            f"wrong holds {told['wrong holds']:2} of {told['wrong tried']:2}"
        )
    if args.show:
        for one in played:
            if one.named != (one.code,) or one.right is False or one.wrong:
                print(one)


if __name__ == "__main__":
    sys.exit(main())
