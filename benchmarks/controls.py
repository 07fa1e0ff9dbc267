"""A pressure control foretold at three ambients, against the half second a technician waits: python -m benchmarks.controls"""

from statistics import median
from time import perf_counter

from kettle.benches.controls.predict import by_setting
from kettle.benches.controls.pressure import as_thermostat
from kettle.knowledge.equipment import UnitSpec, resolve

WANTED_S = 0.5
KINDS = ("bottle_cooler", "reach_in_cooler", "walk_in_cooler", "display_cooler")
AMBIENTS_F = (40.0, 80.0, 100.0)
TIMES = 5


def main():
    """Print the median of some predictions by kind, as a share of what is wanted."""
    for kind in KINDS:
        unit = resolve(UnitSpec(kind, "R-134a", box_control="suction_pressure"))
        setting = as_thermostat(unit.refrigerant, 0.0, unit.set_f + 2.0, unit.set_f - 2.0, 20.0).setting
        by_setting(unit, setting, AMBIENTS_F[:1])
        took = []
        for _ in range(TIMES):
            begun = perf_counter()
            by_setting(unit, setting, AMBIENTS_F)
            took.append(perf_counter() - begun)
        print(f"{kind:18} {1000.0 * median(took):5.0f} ms  {median(took) / WANTED_S:.2f} of what is wanted")


if __name__ == "__main__":
    main()
