"""How far the shipped look-ups lie from CoolProp. Run with the test requirements: python -m benchmarks.accuracy

Minutes long: 2,000 random points of each refrigerant, -60 °F to the end of its table.
"""

import random

import CoolProp

from kettle.knowledge import refrigerants
from tools.generate_saturation import PA_PER_PSI, REFRIGERANTS, state_of

POINTS = 2000
WANTED = 0.05


def worst_of(name):
    """Return the largest errors of one refrigerant, psi and °F, and how many points the source could solve."""
    refrigerant, (state, _) = refrigerants.get(name), state_of(REFRIGERANTS[name][0])
    chance, psi, degrees, solved = random.Random(name), 0.0, 0.0, 0
    for _ in range(POINTS):
        temperature = chance.uniform(max(refrigerant.low_f, -60), refrigerant.high_f)
        for quality, line in ((0, refrigerant.bubble), (1, refrigerant.dew)):
            try:
                state.update(CoolProp.QT_INPUTS, quality, (temperature + 459.67) / 1.8)
            except ValueError:
                continue
            solved += 1
            psia = state.p() / PA_PER_PSI
            psi = max(psi, abs(line.psia_at(temperature) - psia))
            degrees = max(degrees, abs(line.temperature_f_at(psia) - temperature))
    return psi, degrees, solved


def main():
    """Print each refrigerant's largest errors, and the largest of all against what is wanted."""
    worst = 0.0
    for name in refrigerants.catalogue():
        psi, degrees, solved = worst_of(name)
        worst = max(worst, psi, degrees)
        print(f"{name:9} {psi:.4f} psi, {degrees:.4f} °F at {solved} of {2 * POINTS} solved points")
    print(f"largest: {worst / WANTED:.2f} of the {WANTED} wanted")


if __name__ == "__main__":
    main()
