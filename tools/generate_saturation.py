"""Generate kettle/knowledge/refrigerants/data/saturation.json from CoolProp.

Run from the project folder with the test requirements installed: python tools/generate_saturation.py
"""

import itertools
import json
import math
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

import CoolProp
from CoolProp import AbstractState
from CoolProp.CoolProp import PropsSI, apply_simple_mixing_rule, get_fluid_param_string

TARGET = Path(__file__).parent.parent / "kettle" / "knowledge" / "refrigerants" / "data" / "saturation.json"
PA_PER_PSI = 6894.757293
KG_M3_PER_LB_FT3 = 16.018463
J_KG_PER_BTU_LB = 2326.0
J_KGK_PER_BTU_LBF = 4186.8
LB_FTH_PER_PA_S = 2419.0883
RANKINE = 459.67
LOW_F, HIGH_F, STEP_F = -80, 150, 2
# A table starts above the triple point and ends this far below the critical point.
MARGIN_F = 2
# As far as a solved neighbour is looked for across a gap.
WIDEST_GAP_F = 30
# Enthalpy is counted from saturated liquid at this temperature, as the trade's tables do.
DATUM_F = -40
# For a pair of refrigerants nobody fitted, the source's own simple rule; the file names every such pair.
MIXING_RULE = "linear"


class Blend(NamedTuple):
    """A blend by its parts and their mass shares (ASHRAE 34), where the source has no recipe of its own."""

    parts: tuple[str, ...]
    shares: tuple[float, ...]


# name on the plate: (name in CoolProp or the recipe, safety class of ASHRAE 34)
REFRIGERANTS: dict[str, tuple[str | Blend, str]] = {
    "R-12": ("R12", "A1"),
    "R-22": ("R22", "A1"),
    "R-134a": ("R134a", "A1"),
    "R-290": ("Propane", "A3"),
    "R-401A": (Blend(("R22", "R152A", "R124"), (53, 13, 34)), "A1"),
    "R-402A": (Blend(("R125", "n-Propane", "R22"), (60, 2, 38)), "A1"),
    "R-404A": ("R404A.mix", "A1"),
    "R-407A": ("R407A.mix", "A1"),
    "R-407C": ("R407C.mix", "A1"),
    "R-407F": ("R407F.mix", "A1"),
    "R-408A": (Blend(("R125", "R143a", "R22"), (7, 46, 47)), "A1"),
    "R-409A": (Blend(("R22", "R124", "R142b"), (60, 25, 15)), "A1"),
    "R-410A": ("R410A.mix", "A1"),
    "R-422D": ("R422D.mix", "A1"),
    "R-438A": (Blend(("R32", "R125", "R134a", "n-Butane", "Isopentane"), (8.5, 45, 44.2, 1.7, 0.6)), "A1"),
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
# Pairs found without fitted parameters so far; the source remembers a rule once it is applied.
ESTIMATED: set[tuple[str, str]] = set()
# What is tabled: column -> (quality, value in trade units, whether it is bridged as a logarithm over 1/T, digits).
COLUMNS: dict[str, tuple[float, Callable[[AbstractState], float], bool, int]] = {
    "bubble_psia": (0.0, lambda s: s.p() / PA_PER_PSI, True, 4),
    "dew_psia": (1.0, lambda s: s.p() / PA_PER_PSI, True, 4),
    "liquid_lb_ft3": (0.0, lambda s: s.rhomass() / KG_M3_PER_LB_FT3, False, 3),
    "vapor_lb_ft3": (1.0, lambda s: s.rhomass() / KG_M3_PER_LB_FT3, True, 5),
    "liquid_btu_lb": (0.0, lambda s: s.hmass() / J_KG_PER_BTU_LB, False, 3),
    "vapor_btu_lb": (1.0, lambda s: s.hmass() / J_KG_PER_BTU_LB, False, 3),
    "liquid_btu_lbf": (0.0, lambda s: s.cpmass() / J_KGK_PER_BTU_LBF, False, 5),
    "vapor_btu_lbf": (1.0, lambda s: s.cpmass() / J_KGK_PER_BTU_LBF, False, 5),
}


def state_of(fluid: str | Blend) -> tuple[AbstractState, list[str]]:
    """Return a state of the fluid, and the pairs of it whose mixing is estimated rather than fitted to measurements."""
    if isinstance(fluid, str):
        return AbstractState("HEOS", fluid), []
    estimated = []
    for one, other in itertools.combinations(fluid.parts, 2):
        numbers = (get_fluid_param_string(part, "CAS") for part in (one, other))
        try:
            apply_simple_mixing_rule(*numbers, MIXING_RULE)
        except ValueError as error:
            if "already in binary interaction map" not in str(error):
                raise
        else:
            ESTIMATED.add((one, other))
        if (one, other) in ESTIMATED:
            estimated.append(f"{one} with {other}")
    moles = [share / PropsSI("M", part) for part, share in zip(fluid.parts, fluid.shares, strict=True)]
    state = AbstractState("HEOS", "&".join(fluid.parts))
    state.set_mole_fractions([mole / sum(moles) for mole in moles])
    return state, estimated


def solved(state: AbstractState, column: str, temperature_f: float) -> float | None:
    """Return a column's value at a temperature, None where the source's solver fails."""
    quality, value, _, _ = COLUMNS[column]
    try:
        state.update(CoolProp.QT_INPUTS, quality, (temperature_f + RANKINE) / 1.8)
    except ValueError:
        return None
    return float(value(state))


def tabled(state: AbstractState, column: str, temperature_f: float) -> float:
    """Return a column's value at a temperature, bridging the gaps the mixture solver leaves.

    A gap is closed by the cubic through the four nearest solved temperatures: ln of the value over 1/T for pressures
    and vapour density, the value over T for the rest.
    """
    found = solved(state, column, temperature_f)
    if found is not None:
        return found
    logarithmic = COLUMNS[column][2]
    near: list[tuple[float, float]] = []
    for distance in range(STEP_F, WIDEST_GAP_F + 1, STEP_F):
        for neighbour in (temperature_f - distance, temperature_f + distance):
            value = solved(state, column, neighbour) if len(near) < 4 else None
            if value is not None:
                near.append((1.0 / (neighbour + RANKINE), math.log(value)) if logarithmic else (neighbour, value))
    if len(near) < 4:
        raise ValueError(f"no saturation state near {temperature_f} °F for {column}")
    x = 1.0 / (temperature_f + RANKINE) if logarithmic else temperature_f
    bridged = sum(y * math.prod((x - xj) / (xi - xj) for xj, _ in near if xj != xi) for xi, y in near)
    return math.exp(bridged) if logarithmic else bridged


def parts_of(fluid: str | Blend, state: AbstractState) -> list[tuple[AbstractState, float, float]]:
    """Return the pure parts of a fluid, each with its mole share and its molar mass."""
    names, shares = state.fluid_names(), state.get_mole_fractions() if len(state.fluid_names()) > 1 else [1.0]
    return [(part := AbstractState("HEOS", name), share, part.molar_mass()) for name, share in zip(names, shares, strict=True)]


def thickness(part: AbstractState, quality: float, temperature_f: float) -> float:
    """Return the viscosity of a pure part on its own saturation line, Pa·s; near or beyond its critical point that just below it, and where
    the source has none that of its nearest solved temperature."""
    kelvin = min((temperature_f + RANKINE) / 1.8, part.T_critical() - 2.0)
    kelvin = max(kelvin, part.Ttriple() + 1.0)
    for away in (0.0, *(step * sign for step in range(2, 60, 2) for sign in (1, -1))):
        try:
            part.update(CoolProp.QT_INPUTS, quality, min(max(kelvin + away, part.Ttriple() + 1.0), part.T_critical() - 2.0))
            return float(part.viscosity())
        except ValueError:
            continue
    raise ValueError("no viscosity")


def viscosity(parts: list[tuple[AbstractState, float, float]], quality: float, temperature_f: float) -> float:
    """Return the viscosity of a blend on its saturation line, lb/ft·h, from its parts at the same temperature.

    Liquid by the logarithm over mole shares (Grunberg and Nissan 1949, without interaction), vapour weighed by mole share and root of molar
    mass (Herning and Zipperer 1936). A part the source has no viscosity of is left out.
    """
    found = []
    for part, share, mass in parts:
        try:
            found.append((thickness(part, quality, temperature_f), share, mass))
        except ValueError:
            continue
    weights = [share if quality == 0.0 else share * math.sqrt(mass) for _, share, mass in found]
    of = [math.log(mu) if quality == 0.0 else mu for mu, _, _ in found]
    mean = sum(weight * value for weight, value in zip(weights, of, strict=True)) / sum(weights)
    return LB_FTH_PER_PA_S * (math.exp(mean) if quality == 0.0 else mean)


def temperatures_of(state: AbstractState) -> range:
    """Return the temperatures of a table, °F: as wide as wanted, inside triple and critical point."""
    low, high = LOW_F, HIGH_F
    if len(state.fluid_names()) == 1:
        triple_f, critical_f = state.Ttriple() * 1.8 - RANKINE, state.T_critical() * 1.8 - RANKINE
        low = max(low, STEP_F * math.ceil(triple_f / STEP_F))
        high = min(high, STEP_F * math.floor((critical_f - MARGIN_F) / STEP_F))
    return range(low, high + 1, STEP_F)


def entry_of(fluid: str | Blend, safety_class: str) -> dict[str, object]:
    """Return one refrigerant's part of the file."""
    state, estimated = state_of(fluid)
    temperatures = temperatures_of(state)
    columns = {}
    for column, (_, _, _, digits) in COLUMNS.items():
        datum = tabled(state, "liquid_btu_lb", DATUM_F) if column.endswith("_btu_lb") else 0.0
        columns[column] = [round(tabled(state, column, t) - datum, digits) for t in temperatures]
    parts = parts_of(fluid, state)
    for column, quality in (("liquid_lb_fth", 0.0), ("vapor_lb_fth", 1.0)):
        columns[column] = [round(viscosity(parts, quality, t), 5) for t in temperatures]
    return {
        "safety_class": safety_class,
        "molar_mass": round(state.molar_mass() * 1000, 3),
        "estimated": estimated,
        "low_f": temperatures[0],
        **columns,
    }


def main() -> None:
    """Write the table: every column at every STEP_F of each refrigerant's range."""
    table = {
        "source": f"CoolProp {CoolProp.__version__}, HEOS equations of state and mixture models; "
        f"pairs named under “estimated” by its {MIXING_RULE} mixing rule",
        "step_f": STEP_F,
        "refrigerants": {name: entry_of(*entry) for name, entry in REFRIGERANTS.items()},
    }
    TARGET.write_text(json.dumps(table, indent=None, separators=(",", ":")) + "\n")


if __name__ == "__main__":
    main()
