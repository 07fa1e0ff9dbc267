"""Speed of the plant model, as shares of what is wanted: a day of one unit in 1 s, of 64 variants in 8 s, a plan in 6 s.

Run with the test requirements installed: python -m benchmarks.plant
"""

from benchmarks.core import best
from kettle.benches.defrost.plan import plan
from kettle.benches.defrost.program import Hours, Program, parse_starts
from kettle.benches.defrost.situation import DOUBTS, situation
from kettle.benches.defrost.week import look_ahead
from kettle.plant.run import run
from kettle.plant.simulate import preset

HOURS = 24.0
WANTED_S = {1: 1.0, 64: 8.0}
PLANNED_S, TRIED_S = 6.0, 0.15


def main():
    """Print each batch's time, and a plan's and a try's, and their shares of what is wanted."""
    for count, wanted in WANTED_S.items():
        plant = preset("walk_in_freezer").repeated(count)
        seconds = best(lambda: run(plant, HOURS), 1)
        print(f"{HOURS:.0f} h of {count} variant{'s' if count > 1 else ''}: {seconds:.2f} s, {seconds / wanted:.2f} of what is wanted")
    asked = situation(plant.unit, {}, {}, Hours(420, 1110, (390, 780)))
    found = Program(parse_starts("8 a day"), {"fail_safe_min": 45.0, "termination_f": 85.0, "drip_min": 0.0, "fan_delay_f": 40.0})
    seconds = best(lambda: plan(asked, found), 1)
    print(f"a plan, four schools and as found, seven days: {seconds:.2f} s, {seconds / PLANNED_S:.2f} of what is wanted")
    seconds = best(lambda: look_ahead(asked, [found, found], 2, DOUBTS[:1]), 3)
    print(f"two programs tried on the dial, two days: {seconds * 1000:.0f} ms, {seconds / TRIED_S:.2f} of what is wanted")


if __name__ == "__main__":
    main()
