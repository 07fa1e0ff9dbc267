"""Speed of the plant model, as shares of what is wanted: a day of one unit in 1 s, of 64 variants in 8 s.

Run with the test requirements installed: python -m benchmarks.plant
"""

from benchmarks.core import best
from kettle.plant.run import run
from kettle.plant.simulate import preset

HOURS = 24.0
WANTED_S = {1: 1.0, 64: 8.0}


def main():
    """Print each batch's time and its share of what is wanted."""
    for count, wanted in WANTED_S.items():
        plant = preset("walk_in_freezer").repeated(count)
        seconds = best(lambda: run(plant, HOURS), 1)
        print(f"{HOURS:.0f} h of {count} variant{'s' if count > 1 else ''}: {seconds:.2f} s, {seconds / wanted:.2f} of what is wanted")


if __name__ == "__main__":
    main()
