"""Speed of the core, as ratios. Run with the test requirements installed: python -m benchmarks.core"""

import timeit

import numpy as np

from kettle.judging.course import Done, judge_course
from kettle.judging.judge import judge
from kettle.knowledge import observations, refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve
from tests.core.judging.faults import FAULTS, unit_of
from tests.core.judging.stories import FREEZER, ran

BUDGET_JUDGE_S = 0.020
BUDGET_LOOK_UP_S = 5e-6
ARRAY = 1_000_000
WANTED_PER_S = 5e6


def best(function, number):
    """Return the best seconds per call over five runs."""
    return min(timeit.repeat(function, number=number, repeat=5)) / number


def any_value(entry):
    """Return a value an observation can have: the middle of its range, or its first word."""
    if entry.is_number:
        return (entry.low + entry.high) / 2
    return (entry.choices[0][0],) if entry.many else entry.choices[0][0]


STARVED = ran(FREEZER, -1, -31, 27, 98, 6, gain=10, sight_glass="clear")
# A valve that answers nothing: bulb put right, turned three times, its strainer cleaned, replaced.
SIX_STAGES = (
    FREEZER,
    [{**STARVED, "bulb": "uninsulated"}, STARVED, STARVED, STARVED, STARVED, ran(FREEZER, -3, -15, 7, 99, 4, sight_glass="clear")],
    [
        ("bulb", "insulated"),
        ("valve", "turned_out", 0.5),
        ("valve", "turned_out", 0.5),
        ("valve", "strainer_cleaned"),
        ("valve", "replaced"),
    ],
)


def main():
    """Print each figure with what it is measured against."""
    from CoolProp.CoolProp import PropsSI  # five seconds to load, for whoever only imports

    blend = refrigerants.get("R-404A")
    ours = best(lambda: blend.dew_f(31.7), 20_000)
    theirs = best(lambda: PropsSI("T", "P", 319_000, "Q", 1, "HEOS::R404A.mix"), 20)
    print(
        f"dew look-up: {ours * 1e6:.2f} µs, {ours / BUDGET_LOOK_UP_S:.2f} of the {BUDGET_LOOK_UP_S * 1e6:.0f} µs wanted; "
        f"CoolProp's own call takes {theirs / ours:.0f} times as long"
    )
    pressures = np.random.default_rng(1).uniform(0, 300, ARRAY)
    a_second = ARRAY / best(lambda: blend.dew_f_of(pressures), 1)
    print(
        f"dew look-up of an array: {a_second / 1e6:.1f} million/s, {a_second / WANTED_PER_S:.1f} times what is wanted; "
        f"CoolProp's own call takes {theirs * a_second:.0f} times as long"
    )
    spec, seen = FAULTS["undercharge"][0]
    unit = unit_of(spec)
    everything = {entry.key: any_value(entry) for entry in observations.REGISTRY.values() if entry.exists_on(unit)} | seen
    for words, known in (("a circuit read", seen), ("every observation present", everything), ("nothing known", {})):
        judging = best(lambda: judge(unit, known), 20)
        print(
            f"judgement with next checks, {words}: {judging * 1e3:.1f} ms, "
            f"{judging / BUDGET_JUDGE_S:.2f} of the {BUDGET_JUDGE_S * 1e3:.0f} ms wanted"
        )
    plate, stages, done = SIX_STAGES
    built = resolve(UnitSpec(**plate))
    told = [{key: observations.get(key).check(value) for key, value in stage.items()} for stage in stages]
    course = best(lambda: judge_course(built, told, [Done(*one) for one in done]), 20)
    print(
        f"course of {len(stages)} stages: {course * 1e3:.1f} ms, {course / BUDGET_JUDGE_S:.2f} of the {BUDGET_JUDGE_S * 1e3:.0f} ms wanted"
    )


if __name__ == "__main__":
    main()
