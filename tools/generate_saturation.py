"""Generate kettle/refrigerants/data/saturation.json from CoolProp.

Run from the project folder with the test requirements installed: python tools/generate_saturation.py
"""

import json
import math
from pathlib import Path

import CoolProp
from CoolProp import AbstractState

TARGET = Path(__file__).parent.parent / "kettle" / "refrigerants" / "data" / "saturation.json"
PA_PER_PSI = 6894.757293
RANKINE = 459.67
LOW_F, HIGH_F, STEP_F = -80, 150, 2
# name on the plate: (name in CoolProp, safety class of ASHRAE 34)
REFRIGERANTS = {
    "R-134a": ("R134a", "A1"),
    "R-290": ("Propane", "A3"),
    "R-404A": ("R404A.mix", "A1"),
    "R-448A": ("R448A.mix", "A1"),
}


def solved_psia(state: AbstractState, quality: float, temperature_f: float) -> float | None:
    """Return the saturation pressure in psia at vapour quality 0 (bubble) or 1 (dew), None where the solver fails."""
    try:
        state.update(CoolProp.QT_INPUTS, quality, (temperature_f + RANKINE) / 1.8)
    except ValueError:
        return None
    return float(state.p()) / PA_PER_PSI


def saturation_psia(state: AbstractState, quality: float, temperature_f: float) -> float:
    """Return the saturation pressure in psia, bridging the short gaps the mixture solver leaves near its limits.

    A gap is closed by the cubic through the four nearest solved temperatures, ln p over 1/T.
    """
    solved = solved_psia(state, quality, temperature_f)
    if solved is not None:
        return solved
    near: list[tuple[float, float]] = []
    for offset in (-2, 2, -4, 4, -6, 6, -8, 8):
        pressure = solved_psia(state, quality, temperature_f + offset)
        if pressure is not None and len(near) < 4:
            near.append((1.0 / (temperature_f + offset + RANKINE), math.log(pressure)))
    if len(near) < 4:
        raise ValueError(f"no saturation state near {temperature_f} °F, quality {quality}")
    x = 1.0 / (temperature_f + RANKINE)
    terms = (y * math.prod((x - xj) / (xi - xj) for xj, _ in near if xj != xi) for xi, y in near)
    return math.exp(sum(terms))


def main() -> None:
    """Write the table: psia of bubble and dew at every STEP_F from LOW_F to HIGH_F."""
    temperatures = range(LOW_F, HIGH_F + 1, STEP_F)
    table = {
        "source": f"CoolProp {CoolProp.__version__}, HEOS equations of state and mixture models",
        "low_f": LOW_F,
        "step_f": STEP_F,
        "refrigerants": {},
    }
    for name, (fluid, safety_class) in REFRIGERANTS.items():
        state = AbstractState("HEOS", fluid)
        table["refrigerants"][name] = {
            "safety_class": safety_class,
            "bubble_psia": [round(saturation_psia(state, 0.0, t), 4) for t in temperatures],
            "dew_psia": [round(saturation_psia(state, 1.0, t), 4) for t in temperatures],
        }
    TARGET.write_text(json.dumps(table, indent=None, separators=(",", ":")) + "\n")


if __name__ == "__main__":
    main()
