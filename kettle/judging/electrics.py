"""What volts, amps and ohms say of supply, contactor, windings and heaters."""

from collections.abc import Mapping
from math import sqrt
from typing import Final

from kettle.electrical.windings import mismatch_pct
from kettle.knowledge.equipment import USUAL_SUPPLIES_V

PAIRS: Final = ("12", "23", "31")
# Read of three legs only.
THIRD_LEG: Final = ("line_v_23", "line_v_31", "load_v_23", "load_v_31", "pole_drop_v_3")
WINDINGS: Final = ("winding_cs_ohm", "winding_cr_ohm", "winding_sr_ohm")

# A heater that is under volts and draws less than a clamp reads has no power.
LIVE_V: Final = 90.0
DRAWS_A: Final = 0.4


def imbalance_pct(volts: list[float]) -> float:
    """Return the imbalance of three phase-to-phase voltages: 100 × greatest deviation from the mean ÷ mean (NEMA MG 1)."""
    mean = sum(volts) / len(volts)
    return 100.0 * max(abs(v - mean) for v in volts) / mean if mean else 0.0


def volts_off_pct(volts: float, nameplate_v: float | None) -> float:
    """Return how far volts are from the plate's, % of it; without a plate from the usual supply they are nearest to."""
    meant = nameplate_v or min(USUAL_SUPPLIES_V, key=lambda usual: abs(volts - usual) / usual)
    return 100.0 * (volts - meant) / meant


def heater_power_w(volts: float, amps: float, phases: int) -> float:
    """Return the power of a resistive heater in W: V·A, times √3 on three phases."""
    return volts * amps * (sqrt(3.0) if phases == 3 else 1.0)


def derive(got: Mapping[str, float], phases: int, nameplate_v: float | None) -> dict[str, float]:
    """Return every electrical quantity that can be worked out from the observed figures (V, A, Ω), by key of `QUANTITIES`: V, % and Ω."""
    out: dict[str, float] = {}
    line = [got[f"line_v_{pair}"] for pair in PAIRS if f"line_v_{pair}" in got]
    if len(line) == 3:
        out["volts_imbalance_pct"] = imbalance_pct(line)
    if line:
        out["volts_off_pct"] = max((volts_off_pct(v, nameplate_v) for v in line), key=abs)
    lost = [got[f"line_v_{p}"] - got[f"load_v_{p}"] for p in PAIRS if f"line_v_{p}" in got and f"load_v_{p}" in got]
    if lost:
        out["load_loss_v"] = max(lost)
    drops = [got[f"pole_drop_v_{pole}"] for pole in "123" if f"pole_drop_v_{pole}" in got]
    if drops:
        out["pole_drop_v"] = max(drops)
    ohms = [got[key] for key in WINDINGS if key in got]
    if ohms:
        out["winding_highest_ohm"] = max(ohms)
    if len(ohms) == 3:
        out["winding_mismatch_pct"] = mismatch_pct(ohms)
    if got.get("heater_rated_w") and "heater_volts" in got and "heater_amps" in got:
        out["heater_pct"] = 100.0 * heater_power_w(got["heater_volts"], got["heater_amps"], phases) / got["heater_rated_w"]
    elif got.get("heater_volts", 0.0) >= LIVE_V and got.get("heater_amps", 1.0) < DRAWS_A:
        # Whatever it is rated, it takes nothing.
        out["heater_pct"] = 0.0
    return out
