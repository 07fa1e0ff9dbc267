"""Speed of the core, as ratios. Run with the test requirements installed: python -m benchmarks.core"""

import timeit

from CoolProp.CoolProp import PropsSI

from kettle import refrigerants
from kettle.judge import judge
from tests.core.faults import FAULTS, unit_of

BUDGET_JUDGE_S = 0.020


def best(function, number):
    """Return the best seconds per call over five runs."""
    return min(timeit.repeat(function, number=number, repeat=5)) / number


def main():
    """Print each figure with what it is measured against."""
    blend = refrigerants.get("R-404A")
    ours = best(lambda: blend.dew_f(31.7), 20_000)
    theirs = best(lambda: PropsSI("T", "P", 319_000, "Q", 1, "HEOS::R404A.mix"), 20)
    print(f"dew look-up: {ours * 1e6:.2f} µs; CoolProp's own call takes {theirs / ours:.0f} times as long")
    spec, seen = FAULTS["undercharge"][0]
    unit = unit_of(spec)
    judging = best(lambda: judge(unit, seen), 50)
    print(f"judgement: {judging * 1e3:.1f} ms, {judging / BUDGET_JUDGE_S:.2f} of the {BUDGET_JUDGE_S * 1e3:.0f} ms wanted")


if __name__ == "__main__":
    main()
