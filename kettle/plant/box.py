"""The box: air, stock, structure, coil metal, and the frost that grows on it, melts, and drips."""

from typing import Final

import numpy as np

from kettle.plant.air import (
    AIR_BTU_LBF,
    FREEZING_F,
    MELT_BTU_LB,
    SUBLIME_BTU_LB,
    VAPOR_BTU_LB,
    Figures,
    between,
    humidity_at_saturation,
)
from kettle.plant.circuit import Flows
from kettle.plant.sizing import SECTIONS, Plant
from kettle.plant.state import State

# Ice of part-defrosts is denser: a pound of it blocks this much of what a pound of frost does.
ICE_BLOCKS: Final = 0.4
# Frost insulates: its resistance against the coil's air side, at the mass that blocks the section.
FROST_RESISTS: Final = 1.6
STILL_AIR: Final = 0.07
# A coil that stands still takes heat from a heater by section, hottest at the bottom.
HEATER_SHARES: Final = np.array([0.22, 0.25, 0.26, 0.27])
TO_BOX: Final = 0.10
MELT_CONDUCTANCE: Final = 2.0
OUTDOOR_RH: Final = 0.55
# Hotter air is drier: its moisture is that of air at this temperature.
DAMPEST_F: Final = 80.0


def conductance(plant: Plant, s: State, fans_on: Figures) -> tuple[Figures, Figures]:
    """Return the coil's air side by section, Btu/h°F, and the share of its full airflow that gets through."""
    blocked = between((s.frost_lb + ICE_BLOCKS * s.ice_lb) / (plant.block_lb[:, None] / SECTIONS), 0.0, 1.0)
    open_share = np.maximum(1.0 - blocked**1.5, 0.02)
    moving = plant.fan_flow * fans_on
    flow = np.maximum(moving[:, None] * open_share, STILL_AIR * 0.3)
    ua = plant.coil_air[:, None] / SECTIONS * flow**0.6 / (1.0 + FROST_RESISTS * blocked)
    capacity = plant.coil_flow[:, None] / SECTIONS * flow
    return capacity * (1.0 - np.exp(-ua / capacity)), flow.mean(axis=1)


def step(
    plant: Plant,
    s: State,
    flows: Flows,
    air_side: Figures,
    outside_f: Figures,
    traffic: float,
    fans_on: Figures,
    heating: Figures,
    dt_h: float,
) -> dict[str, Figures]:
    """Move the box of every variant through one step and return the heats exchanged, Btu/h.

    What leaves one node enters the other by the same figure, so that the balance closes.
    """
    outside_humidity = OUTDOOR_RH * humidity_at_saturation(np.minimum(outside_f, DAMPEST_F))
    inflow = plant.infiltration_lb_h * traffic
    heater = plant.heater_btu_h * heating
    heater_in_coil = heater * (1.0 - TO_BOX)

    # Coil metal, each section towards what refrigerant, air, heater and melting frost make of it.
    saturated = humidity_at_saturation(np.minimum(s.metal_f, 60.0))
    moisture_side = air_side / AIR_BTU_LBF
    deposit = moisture_side * np.maximum(s.humidity[:, None] - saturated, 0.0)
    cold = s.metal_f < FREEZING_F
    icing, wetting = deposit * cold, deposit * ~cold
    latent = icing * SUBLIME_BTU_LB + wetting * VAPOR_BTU_LB
    held = s.frost_lb + s.ice_lb
    melting_side = np.where(held > 1e-6, MELT_CONDUCTANCE * plant.coil_air[:, None] / SECTIONS, 0.0) * (s.metal_f > FREEZING_F - 0.5)
    refrigerant_side = flows.covered * plant.coil_refrigerant[:, None] / SECTIONS
    total = refrigerant_side + air_side + melting_side + 1e-9
    source = latent + heater_in_coil[:, None] * HEATER_SHARES
    balance = (refrigerant_side * s.sst_f[:, None] + air_side * s.air_f[:, None] + melting_side * FREEZING_F + source) / total
    rate = total * dt_h / (plant.metal_btu_f[:, None] / SECTIONS)
    kept = np.exp(-rate)
    mean = balance + (s.metal_f - balance) * (1.0 - kept) / np.maximum(rate, 1e-12)
    s.metal_f = balance + (s.metal_f - balance) * kept
    from_air = (air_side * (s.air_f[:, None] - mean)).sum(axis=1)
    to_refrigerant = (refrigerant_side * (mean - s.sst_f[:, None])).sum(axis=1)
    melt_heat = melting_side * (mean - FREEZING_F)
    melted = between(melt_heat * dt_h / MELT_BTU_LB, 0.0, held)
    frost_share = s.frost_lb / np.maximum(held, 1e-12)
    s.frost_lb = np.maximum(s.frost_lb + icing * dt_h - melted * frost_share, 0.0)
    s.ice_lb = np.maximum(s.ice_lb - melted * (1.0 - frost_share), 0.0)

    # Steam of a heater on a clear coil goes to the coldest places of the box.
    bare = heating * between(1.0 - held.sum(axis=1) / (0.05 * plant.block_lb), 0.0, 1.0)
    s.ceiling_lb = s.ceiling_lb + bare * heater * 0.00003 * dt_h

    # The box: air between everything, stock and structure behind it.
    opened = inflow * AIR_BTU_LBF
    inside = plant.inside_btu_h * (0.4 + 0.6 * fans_on) + heater * TO_BOX
    into = plant.walls * outside_f + opened * outside_f + inside
    ties = plant.walls + opened + plant.product_air + plant.structure_air
    coil = from_air
    balance_air = (into + plant.product_air * s.product_f + plant.structure_air * s.structure_f - coil) / ties
    rate_air = ties * dt_h / plant.air_btu_f
    kept_air = np.exp(-rate_air)
    mean_air = balance_air + (s.air_f - balance_air) * (1.0 - kept_air) / rate_air
    s.air_f = balance_air + (s.air_f - balance_air) * kept_air
    to_product = plant.product_air * (mean_air - s.product_f)
    to_core = plant.product_core * (s.product_f - s.core_f)
    to_structure = plant.structure_air * (mean_air - s.structure_f)
    s.product_f = s.product_f + (to_product - to_core) * dt_h / plant.product_btu_f
    s.core_f = s.core_f + to_core * dt_h / plant.core_btu_f
    s.structure_f = s.structure_f + to_structure * dt_h / plant.structure_btu_f

    # Moisture of the air, implicit: what comes in by the door and leaves on the coil.
    air_lb = plant.air_btu_f / AIR_BTU_LBF
    takes = (moisture_side * (deposit > 0)).sum(axis=1)
    holds = (moisture_side * (deposit > 0) * saturated).sum(axis=1)
    gained = inflow * outside_humidity + melted.sum(axis=1) / dt_h * 0.02
    s.humidity = (s.humidity + dt_h / air_lb * (gained + holds)) / (1.0 + dt_h / air_lb * (inflow + takes))
    s.humidity = np.minimum(s.humidity, humidity_at_saturation(s.air_f))
    return {
        "from_air": from_air, "to_refrigerant": to_refrigerant, "latent": latent.sum(axis=1), "melt": melt_heat.sum(axis=1),
        "walls": plant.walls * (outside_f - mean_air), "infiltration": opened * (outside_f - mean_air), "inside": inside,
        "heater": heater, "melted_lb_h": melted.sum(axis=1) / dt_h, "icing_lb_h": icing.sum(axis=1)
    }  # fmt: skip


def supply_f(plant: Plant, s: State, from_air: Figures, share: Figures) -> Figures:
    """Return the air leaving the coil, °F, at the share of its full airflow that gets through."""
    found: Figures = s.air_f - from_air / np.maximum(plant.coil_flow * share, 1e-6)
    return found
