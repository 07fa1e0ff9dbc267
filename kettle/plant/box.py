"""The box: air, stock, structure, coil metal, and the frost that grows on it, melts, drips, freezes again or blows about."""

from typing import Final

import numpy as np

from kettle.plant.air import (
    AIR_BTU_LBF,
    FREEZING_F,
    MELT_BTU_LB,
    SUBLIME_BTU_LB,
    VAPOR_BTU_LB,
    frost_lb_ft3,
    humidity_at_saturation,
)
from kettle.plant.circuit import Flows
from kettle.plant.compiled import compiled
from kettle.plant.parts import Parts
from kettle.plant.rows import SECTIONS
from kettle.plant.state import State

# Ice of part-defrosts is denser, lb/ft³ with its air: a pound of it blocks less than a pound of frost.
ICE_LB_FT3: Final = 40.0
# Frost insulates: its resistance against the coil's air side, where it fills the section.
FROST_RESISTS: Final = 1.6
# Share of full airflow that passes with the fans off, and of that what the face of a packed section still meets.
STILL_AIR: Final = 0.021
PACKED_PASSES: Final = 0.3
# A coil that stands still takes heat from an electric heater by section, hottest at the bottom; hot gas heats evenly.
HEATER_SHARES: Final = (0.22, 0.25, 0.26, 0.27)
TO_BOX: Final = 0.10
HOT_GAS_TO_BOX: Final = 0.03
MELT_CONDUCTANCE: Final = 2.0
# Below this mass, lb, a section counts as bare.
BARE_LB: Final = 1e-6
# Hotter outside air is drier: its moisture is that of air at this temperature.
DAMPEST_F: Final = 80.0
# Moisture is in the air alone, a share of what stands for air and shelves in heat.
MOIST_SHARE: Final = 0.1
# Ice on ceiling and guards lies in lumps: it dries away over this share of the surface that caught it.
LUMPS: Final = 0.15
# Water: leaves the coil, and freezes to it, in these times, h; in a pan without heat.
DRIP_H: Final = 4.0 / 60.0
FREEZE_H: Final = 1.0 / 60.0
PAN_FREEZES_H: Final = 0.5
# So much water on the coil, against its free room, begins to drip.
FIRST_DRIP: Final = 0.0005
# A pan holds this of what fills the coil's free room with water, ft³ for ft³; a line freezes shut on so many pounds.
PAN_SHARE: Final = 0.1
WATER_LB_FT3: Final = 62.4
LINE_FREEZES: Final = 0.3
LINE_HOLDS_LB: Final = 3.0
# Fans that come back on a wet coil throw this much of its water about.
BLOWN: Final = 0.3
# The shell of a running compressor stands so far over suction saturation, and follows within this time.
SHELL_OVER_F: Final = 110.0
SHELL_H: Final = 0.4


class Heats:
    """What passed in a step, Btu/h; summed over a run, Btu."""

    to_refrigerant: float
    walls: float
    infiltration: float
    inside: float
    heater: float
    latent: float
    melt: float
    evaporation: float
    ceiling: float
    boil: float


@compiled
def conductance(p: Parts, s: State, f: Flows) -> None:
    """Write into `f` the coil's air side by section, Btu/h°F, and the share of its full airflow that gets through."""
    whole = 0.0
    for k in range(SECTIONS):
        room = p.gap_ft3 / SECTIONS
        filled = max(s.frost_ft3[k] + s.ice_lb[k] / ICE_LB_FT3, 0.0) / room
        blocked = min(filled, 1.0)
        passes = 1.0 - blocked**1.5
        flow = max(p.fan_flow * s.fans * passes, STILL_AIR * max(passes, PACKED_PASSES))
        if filled > 1.0:
            # Packed and growing outwards: ever less of the air finds a way through.
            flow /= filled**2
        ua = p.coil_air / SECTIONS * flow**0.6 / (1.0 + FROST_RESISTS * blocked)
        capacity = p.coil_flow / SECTIONS * flow
        f.air_side[k] = capacity * (1.0 - np.exp(-ua / capacity))
        whole += flow / SECTIONS
    f.air_share = whole


@compiled
def _moisture(p: Parts, s: State, f: Flows, outside_f: float, inflow_lb_h: float, dt_h: float) -> None:
    """Move the air's humidity, implicit: what comes in by the door, goes to coil and ceiling, or comes back from them."""
    air_lb = MOIST_SHARE * p.air_btu_f / AIR_BTU_LBF
    gained = inflow_lb_h * p.outdoor_rh * humidity_at_saturation(min(outside_f, DAMPEST_F))
    taken = inflow_lb_h
    for k in range(SECTIONS):
        held = s.frost_lb[k] + s.ice_lb[k]
        surface = min(s.metal_f[k], FREEZING_F) if held > BARE_LB else min(s.metal_f[k], 60.0)
        saturated = humidity_at_saturation(surface)
        if s.humidity > saturated or held > BARE_LB or s.wet_lb[k] > BARE_LB:
            side = f.air_side[k] / AIR_BTU_LBF
            taken, gained = taken + side, gained + side * saturated
    if s.structure_f < FREEZING_F:
        saturated = humidity_at_saturation(s.structure_f)
        side = p.structure_air / AIR_BTU_LBF * (1.0 if s.humidity > saturated else LUMPS * min(s.ceiling_lb, 1.0))
        taken, gained = taken + side, gained + side * saturated
    s.humidity = (s.humidity + dt_h / air_lb * gained) / (1.0 + dt_h / air_lb * taken)
    s.humidity = min(s.humidity, humidity_at_saturation(s.air_f))


@compiled
def _water(p: Parts, s: State, dripped_lb: float, dt_h: float) -> None:
    """Water off the coil: in the pan, down the line, over the edge, or frozen where nothing keeps it warm."""
    s.pan_lb += dripped_lb
    cold = s.air_f < FREEZING_F and p.drain_heater == 0
    runs = p.drain_lb_h * max(1.0 - s.line_ice_lb / LINE_HOLDS_LB, 0.0)
    out = min(s.pan_lb, runs * dt_h)
    frozen_in_line = LINE_FREEZES * out if cold else 0.0
    s.pan_lb -= out
    s.line_ice_lb += frozen_in_line
    s.drained_lb += out - frozen_in_line
    if cold:
        frozen = s.pan_lb * (1.0 - np.exp(-dt_h / PAN_FREEZES_H))
        s.pan_lb -= frozen
        s.pan_ice_lb += frozen
    over = max(s.pan_lb + s.pan_ice_lb - PAN_SHARE * p.gap_ft3 * WATER_LB_FT3, 0.0)
    over = min(over, s.pan_lb)
    s.pan_lb -= over
    s.floor_lb += over


@compiled
def _passing(p: Parts, s: State, f: Flows, k: int, held: float, dt_h: float) -> tuple[float, float, float, float, float]:
    """What water does on a section, lb/h: icing, wetting, drying, subliming, freezing."""
    metal = s.metal_f[k]
    surface = min(metal, FREEZING_F) if held > BARE_LB else min(metal, 60.0)
    icing = wetting = drying = subliming = freezing = 0.0
    passing = f.air_side[k] / AIR_BTU_LBF * (s.humidity - humidity_at_saturation(surface))
    if passing > 0 and surface < FREEZING_F:
        icing = passing
    elif passing > 0:
        wetting = passing
    elif surface < FREEZING_F:
        subliming = min(-passing, s.frost_lb[k] / dt_h)
    else:
        drying = min(-passing, s.wet_lb[k] / dt_h)
    if metal < FREEZING_F - 0.5:
        freezing = s.wet_lb[k] * (1.0 - np.exp(-dt_h / FREEZE_H)) / dt_h
    return icing, wetting, drying, subliming, freezing


@compiled
def _lay(
    s: State, k: int, held: float, metal_f: float, melted: float, icing: float, subliming: float, freezing: float, dt_h: float
) -> None:
    """Frost and ice of a section after what melted, lb, and what came or went by the air, lb/h."""
    of_frost = s.frost_lb[k] / held if held > BARE_LB else 1.0
    frost_before = s.frost_lb[k]
    s.frost_lb[k] = max(frost_before - melted * of_frost - subliming * dt_h, 0.0)
    s.frost_ft3[k] *= s.frost_lb[k] / frost_before if frost_before > BARE_LB else 0.0
    s.frost_lb[k] += icing * dt_h
    s.frost_ft3[k] += icing * dt_h / frost_lb_ft3(metal_f)
    s.ice_lb[k] = max(s.ice_lb[k] - melted * (1.0 - of_frost), 0.0) + freezing * dt_h


@compiled
def _section(p: Parts, s: State, f: Flows, h: Heats, k: int, in_coil: float, dt_h: float) -> tuple[float, float]:
    """Coil metal of a section towards what refrigerant, air, heater and melting frost make of it.

    Returns what it takes from the air, Btu/h, and the water that falls off it, lb.
    """
    held = s.frost_lb[k] + s.ice_lb[k]
    metal = s.metal_f[k]
    icing, wetting, drying, subliming, freezing = _passing(p, s, f, k, held, dt_h)
    gain = icing * SUBLIME_BTU_LB + wetting * VAPOR_BTU_LB + freezing * MELT_BTU_LB
    loss = subliming * SUBLIME_BTU_LB + drying * VAPOR_BTU_LB

    melting_side = MELT_CONDUCTANCE * p.coil_air / SECTIONS if held > BARE_LB and metal > FREEZING_F - 0.5 else 0.0
    refrigerant_side = f.covered[k] * p.coil_refrigerant / SECTIONS
    share = 1.0 / SECTIONS if p.hot_gas > 0 else HEATER_SHARES[k]
    total = refrigerant_side + f.air_side[k] + melting_side + 1e-9
    pulled = refrigerant_side * s.sst_f + f.air_side[k] * s.air_f + melting_side * FREEZING_F + gain - loss + in_coil * share
    balance = pulled / total
    rate = total * dt_h / (p.metal_btu_f / SECTIONS)
    kept = np.exp(-rate)
    mean = balance + (metal - balance) * (1.0 - kept) / rate
    s.metal_f[k] = balance + (metal - balance) * kept
    h.to_refrigerant += refrigerant_side * (mean - s.sst_f)
    melt_heat = melting_side * (mean - FREEZING_F)
    melted = min(max(melt_heat * dt_h / MELT_BTU_LB, 0.0), held)
    _lay(s, k, held, metal, melted, icing, subliming, freezing, dt_h)
    # What melts or condenses runs down the section it is on, unless it dries or freezes there first.
    s.wet_lb[k] = max(s.wet_lb[k] + melted + (wetting - drying - freezing) * dt_h, 0.0)
    h.latent, h.evaporation, h.melt = h.latent + gain, h.evaporation + loss, h.melt + melt_heat
    return f.air_side[k] * (s.air_f - mean), s.wet_lb[k] * (1.0 - np.exp(-dt_h / DRIP_H)) if s.metal_f[k] > FREEZING_F else 0.0


@compiled
def _coil(p: Parts, s: State, f: Flows, h: Heats, in_coil: float, dt_h: float) -> tuple[float, float]:
    """The coil section by section; what it takes from the air, Btu/h, and the water that falls off it, lb."""
    h.to_refrigerant = h.latent = h.evaporation = h.melt = 0.0
    from_air = dripped = wet = 0.0
    for k in range(SECTIONS):
        taken, falls = _section(p, s, f, h, k, in_coil, dt_h)
        from_air += taken
        wet += s.wet_lb[k]
        s.wet_lb[k] -= falls
        dripped += falls
    if s.defrosting > 0 and s.drip_at_min == 0 and wet > FIRST_DRIP * p.gap_ft3 * WATER_LB_FT3:
        s.drip_at_min = s.defrost_h * 60.0
    return from_air, dripped


@compiled
def _ceiling(p: Parts, s: State, dt_h: float) -> float:
    """Moisture that meets cold ceiling and guards stays there as frost, dry air takes it back; the heat of it, Btu/h."""
    if s.structure_f >= FREEZING_F:
        return 0.0
    passing = p.structure_air / AIR_BTU_LBF * (s.humidity - humidity_at_saturation(s.structure_f))
    caught = passing if passing > 0 else max(passing * LUMPS * min(s.ceiling_lb, 1.0), -s.ceiling_lb / dt_h)
    s.ceiling_lb += caught * dt_h
    return float(caught * SUBLIME_BTU_LB)


@compiled
def _room(
    p: Parts, s: State, f: Flows, opened: float, inside: float, from_air: float, ceiling: float, outside_f: float, dt_h: float
) -> float:
    """The box: air between everything, stock and structure behind it; the mean of its air over the step, °F."""
    ties = p.walls + opened + p.product_air + p.structure_air
    into = (p.walls + opened) * outside_f + inside + p.product_air * s.product_f + p.structure_air * s.structure_f - from_air
    balance = into / ties
    rate = ties * dt_h / p.air_btu_f
    kept = np.exp(-rate)
    mean = balance + (s.air_f - balance) * (1.0 - kept) / rate
    f.supply_f = s.air_f - from_air / max(p.coil_flow * f.air_share, 1e-6)
    s.air_f = balance + (s.air_f - balance) * kept
    to_product = p.product_air * (mean - s.product_f)
    to_core = p.product_core * (s.product_f - s.core_f)
    to_structure = p.structure_air * (mean - s.structure_f)
    s.product_f += (to_product - to_core) * dt_h / p.product_btu_f
    s.core_f += to_core * dt_h / p.core_btu_f
    s.structure_f += (to_structure + ceiling) * dt_h / p.structure_btu_f
    return float(mean)


@compiled
def step(
    p: Parts, s: State, f: Flows, h: Heats, outside_f: float, doors: float, lights: float, stock: float, fans_back: bool, dt_h: float
) -> None:
    """Move the box through one step; the heats exchanged stand in `h`.

    `doors`, `lights` and `stock` are the hour's shares of the day's mean. What leaves one node enters the other by the same
    figure, so that the balance closes.
    """
    inflow = p.infiltration_lb_h * doors * p.curtain
    heater = p.heater_btu_h if s.defrosting > 0 and s.emptying_h <= 0 else 0.0
    to_box = heater * (HOT_GAS_TO_BOX if p.hot_gas > 0 else TO_BOX)
    in_coil = heater - to_box
    # Liquid left in the coil boils off first.
    boil = min(s.boil_btu / dt_h, in_coil) if s.defrosting > 0 else 0.0
    s.boil_btu -= boil * dt_h
    in_coil -= boil
    _moisture(p, s, f, outside_f, inflow, dt_h)

    if fans_back and s.air_f < FREEZING_F:
        for k in range(SECTIONS):
            blown = BLOWN * s.wet_lb[k]
            s.wet_lb[k] -= blown
            s.ceiling_lb += blown

    from_air, dripped = _coil(p, s, f, h, in_coil, dt_h)
    _water(p, s, dripped, dt_h)
    ceiling = _ceiling(p, s, dt_h)
    opened = inflow * AIR_BTU_LBF
    inside = p.fans_btu_h * p.fan_flow * s.fans + p.lights_btu_h * lights + p.stock_btu_h * stock + to_box
    mean = _room(p, s, f, opened, inside, from_air, ceiling, outside_f, dt_h)

    s.shell_f += ((s.sst_f + SHELL_OVER_F if s.running > 0 else outside_f) - s.shell_f) * (1.0 - np.exp(-dt_h / SHELL_H))
    h.walls, h.infiltration = p.walls * (outside_f - mean), opened * (outside_f - mean)
    h.inside, h.heater, h.ceiling, h.boil = inside - to_box, heater, ceiling, boil
