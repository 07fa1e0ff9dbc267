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
# A table starts above the triple point and ends this far below the critical point.
MARGIN_F = 2
# As far as a solved neighbour is looked for across a gap.
WIDEST_GAP_F = 30
# name on the plate: (name in CoolProp, safety class of ASHRAE 34). R-401A, R-402A, R-408A, R-409A and R-438A need binary
# pairs that the source does not have.
REFRIGERANTS = {
    "R-12": ("R12", "A1"),
    "R-22": ("R22", "A1"),
    "R-134a": ("R134a", "A1"),
    "R-290": ("Propane", "A3"),
    "R-404A": ("R404A.mix", "A1"),
    "R-407A": ("R407A.mix", "A1"),
    "R-407C": ("R407C.mix", "A1"),
    "R-407F": ("R407F.mix", "A1"),
    "R-410A": ("R410A.mix", "A1"),
    "R-422D": ("R422D.mix", "A1"),
    "R-448A": ("R448A.mix", "A1"),
    "R-449A": ("R449A.mix", "A1"),
    "R-450A": ("R450A.mix", "A1"),
    "R-452A": ("R452A.mix", "A1"),
    "R-454A": ("R454A.mix", "A2L"),
    "R-454C": ("R454C.mix", "A2L"),
    "R-455A": ("R455A.mix", "A2L"),
    "R-502": ("R502.mix", "A1"),
    "R-507A": ("R507A.mix", "A1"),
    "R-513A": ("R513A.mix", "A1"),
    "R-600a": ("IsoButane", "A3"),
    "R-744": ("CarbonDioxide", "A1"),
    "R-1234yf": ("R1234yf", "A2L"),
}


def solved_psia(state: AbstractState, quality: float, temperature_f: float) -> float | None:
    """Return the saturation pressure in psia at vapour quality 0 (bubble) or 1 (dew), None where the solver fails."""
    try:
        state.update(CoolProp.QT_INPUTS, quality, (temperature_f + RANKINE) / 1.8)
    except ValueError:
        return None
    return float(state.p()) / PA_PER_PSI


def saturation_psia(state: AbstractState, quality: float, temperature_f: float) -> float:
    """Return the saturation pressure in psia, bridging the gaps the mixture solver leaves.

    A gap is closed by the cubic through the four nearest solved temperatures, ln p over 1/T.
    """
    solved = solved_psia(state, quality, temperature_f)
    if solved is not None:
        return solved
    near: list[tuple[float, float]] = []
    for distance in range(STEP_F, WIDEST_GAP_F + 1, STEP_F):
        for neighbour in (temperature_f - distance, temperature_f + distance):
            pressure = solved_psia(state, quality, neighbour) if len(near) < 4 else None
            if pressure is not None:
                near.append((1.0 / (neighbour + RANKINE), math.log(pressure)))
    if len(near) < 4:
        raise ValueError(f"no saturation state near {temperature_f} °F, quality {quality}")
    x = 1.0 / (temperature_f + RANKINE)
    terms = (y * math.prod((x - xj) / (xi - xj) for xj, _ in near if xj != xi) for xi, y in near)
    return math.exp(sum(terms))


def temperatures_of(state: AbstractState) -> range:
    """Return the temperatures of a table, °F: as wide as wanted, inside triple and critical point."""
    low, high = LOW_F, HIGH_F
    if len(state.fluid_names()) == 1:
        triple_f, critical_f = state.Ttriple() * 1.8 - RANKINE, state.T_critical() * 1.8 - RANKINE
        low = max(low, STEP_F * math.ceil(triple_f / STEP_F))
        high = min(high, STEP_F * math.floor((critical_f - MARGIN_F) / STEP_F))
    return range(low, high + 1, STEP_F)


def main() -> None:
    """Write the table: psia of bubble and dew at every STEP_F of each refrigerant's range."""
    table = {
        "source": f"CoolProp {CoolProp.__version__}, HEOS equations of state and mixture models",
        "step_f": STEP_F,
        "refrigerants": {},
    }
    for name, (fluid, safety_class) in REFRIGERANTS.items():
        state = AbstractState("HEOS", fluid)
        temperatures = temperatures_of(state)
        table["refrigerants"][name] = {
            "safety_class": safety_class,
            "low_f": temperatures[0],
            "bubble_psia": [round(saturation_psia(state, 0.0, t), 4) for t in temperatures],
            "dew_psia": [round(saturation_psia(state, 1.0, t), 4) for t in temperatures],
        }
    TARGET.write_text(json.dumps(table, indent=None, separators=(",", ":")) + "\n")


if __name__ == "__main__":
    main()
