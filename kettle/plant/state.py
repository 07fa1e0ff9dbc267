"""What changes while a plant runs."""

from dataclasses import dataclass

import numpy as np

from kettle.plant.air import Figures, humidity_at_saturation
from kettle.plant.sizing import SECTIONS, Plant


@dataclass
class State:
    """The state of every variant: temperatures °F, masses lb, humidity lb/lb; coil metal, frost and ice by section."""

    hours: float
    air_f: Figures
    humidity: Figures
    product_f: Figures
    core_f: Figures
    structure_f: Figures
    metal_f: Figures
    frost_lb: Figures
    ice_lb: Figures
    ceiling_lb: Figures
    sst_f: Figures
    sct_f: Figures
    wetted: Figures
    rejected_btu_h: Figures
    opening: Figures
    bulb_f: Figures
    shell_f: Figures
    running: Figures
    since_start_h: Figures
    since_stop_h: Figures
    defrosting: Figures
    defrost_h: Figures
    dripping_h: Figures
    next_defrost_h: Figures
    fans_wait: Figures
    ended_by_time: Figures
    last_defrost_min: Figures


def at_rest(plant: Plant, air_f: float | None = None, outside_f: float = 85.0) -> State:
    """Return a plant that has stood for a while with its box at a temperature (its set temperature where none is given)."""
    count = len(plant.set_f)
    box = plant.set_f + 1.0 if air_f is None else np.full(count, air_f)

    def full(value: float) -> Figures:
        return np.full(count, float(value))

    every = np.where(plant.defrosts_per_day > 0, 24.0 / np.maximum(plant.defrosts_per_day, 1e-9), np.inf)
    return State(
        hours=0.0, air_f=box.copy(), humidity=0.85 * humidity_at_saturation(box), product_f=box.copy(), core_f=box.copy(),
        structure_f=box + 1.0, metal_f=np.repeat(box[:, None], SECTIONS, axis=1), frost_lb=np.zeros((count, SECTIONS)),
        ice_lb=np.zeros((count, SECTIONS)), ceiling_lb=full(0), sst_f=box - 5.0, sct_f=full(outside_f), wetted=full(0.5),
        rejected_btu_h=full(0), opening=full(0.4), bulb_f=full(10), shell_f=full(outside_f), running=full(0), since_start_h=full(0),
        since_stop_h=full(1), defrosting=full(0), defrost_h=full(0), dripping_h=full(0), next_defrost_h=every / 2.0, fans_wait=full(0),
        ended_by_time=full(0), last_defrost_min=full(0),
    )  # fmt: skip
