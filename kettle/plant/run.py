"""Running a plant through time."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from kettle.plant import box, circuit, controls
from kettle.plant.air import Figures
from kettle.plant.sizing import DESIGN_WATER_F, WATTS_PER_BTU_H, Plant
from kettle.plant.state import State, at_rest

STEP_S = 60.0
RECORDED_EVERY = 5
# Doors by the hour of the day: little at night, most before opening and at noon; one on average.
TRAFFIC = (0.2, 0.2, 0.2, 0.2, 0.3, 0.8, 1.8, 2.0, 1.6, 1.4, 1.4, 1.6, 1.8, 1.4, 1.3, 1.3, 1.4, 1.4, 1.2, 1.0, 0.8, 0.4, 0.2, 0.2)
RECORDED = (
    "air_f", "product_f", "sst_f", "sct_f", "superheat_f", "subcooling_f", "discharge_line_f", "amps", "running", "frost_lb", "ice_lb",
    "defrosting", "opening", "power_w", "supply_f", "receiver_share", "flow_lb_h",
)  # fmt: skip


@dataclass
class Course:
    """What happened: hours, and each recorded figure as an array of times × variants; sums of heat over all of it, Btu."""

    hours: Figures
    series: dict[str, Figures]
    state: State
    flows: circuit.Flows
    coolant_f: Figures
    rise_f: Figures
    stored_btu: Figures
    heats: dict[str, Figures]


def stored_heat(plant: Plant, s: State) -> Figures:
    """Return the sensible heat in air, stock, structure and coil metal, Btu over 0 °F."""
    found: Figures = (
        plant.air_btu_f * s.air_f + plant.product_btu_f * s.product_f + plant.core_btu_f * s.core_f + plant.structure_btu_f * s.structure_f
        + plant.metal_btu_f * s.metal_f.mean(axis=1)
    )  # fmt: skip
    return found


def run(
    plant: Plant,
    hours: float,
    outside_f: float | Callable[[float], float] = 85.0,
    state: State | None = None,
    water_f: float = DESIGN_WATER_F,
    traffic: tuple[float, ...] = TRAFFIC,
    step_s: float = STEP_S,
) -> Course:
    """Run every variant for some hours from a state (at rest near set where none is given).

    `outside_f` is a figure or a function of the hour; `water_f` the water entering a water-cooled condenser.
    """
    tables = circuit.Tables(plant.refrigerant)
    s = state if state is not None else at_rest(plant)
    dt_h, count = step_s / 3600.0, round(hours * 3600.0 / step_s)
    water = plant.unit.condensing == "water"
    recorded: dict[str, list[Figures]] = {name: [] for name in RECORDED}
    times: list[float] = []
    heats: dict[str, Figures] = {}
    flows: circuit.Flows | None = None
    before, zero = stored_heat(plant, s), np.zeros(len(plant.set_f))
    for place in range(count):
        outside = outside_f(s.hours) if callable(outside_f) else outside_f
        air = np.full(len(plant.set_f), float(outside))
        fans, heating = controls.step(plant, s, flows, dt_h)
        side, share = box.conductance(plant, s, fans)
        flows = circuit.step(plant, tables, s, np.full_like(air, water_f) if water else air, side, dt_h)
        exchanged = box.step(plant, s, flows, side, air, traffic[int(s.hours) % 24], fans, heating, dt_h)
        for name in ("to_refrigerant", "walls", "infiltration", "inside", "heater", "latent", "melt"):
            heats[name] = heats.get(name, zero) + exchanged[name] * dt_h
        s.shell_f = s.shell_f + (np.where(s.running > 0, s.sst_f + 110.0, air) - s.shell_f) * (1.0 - np.exp(-dt_h / 0.4))
        s.hours += dt_h
        if place % RECORDED_EVERY == 0 or place == count - 1:
            times.append(s.hours)
            now = {
                "frost_lb": s.frost_lb.sum(axis=1),
                "ice_lb": s.ice_lb.sum(axis=1),
                "supply_f": box.supply_f(plant, s, exchanged["from_air"], share),
                "power_w": (flows.work_btu_h + exchanged["heater"]) * WATTS_PER_BTU_H,
            }
            for name in RECORDED:
                value = now.get(name)
                if value is None:
                    value = getattr(flows, name, None)
                    value = getattr(s, name) if value is None else value
                recorded[name].append(value.copy())
    assert flows is not None
    series = {name: np.array(values) for name, values in recorded.items()}
    coolant = np.full_like(s.air_f, water_f) if water else air
    rise = (flows.work_btu_h + exchanged["to_refrigerant"]) / plant.condenser_flow
    return Course(np.array(times), series, s, flows, coolant, rise, stored_heat(plant, s) - before, heats)
