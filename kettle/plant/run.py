"""Running a plant through time."""

import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from kettle.plant import box, circuit, controls, day
from kettle.plant.compiled import compiled
from kettle.plant.parts import Parts, Plant
from kettle.plant.rows import SECTIONS, Figures, bare, rows
from kettle.plant.sizing import DESIGN_WATER_F
from kettle.plant.state import State, at_rest

# Coil, bulb and valve follow within 20 to 30 s, and hunt where they should: steps must be shorter than that.
STEP_S: Final = 15.0
RECORDED_EVERY_S: Final = 300.0
WATTS_PER_BTU_H: Final = 0.29307
# Hot gas melts with heat the compressor moves: what it costs in electricity against the heat given.
HOT_GAS_WORK: Final = 0.25
JUST_BEFORE_H: Final = 1e-3
RECORDED: Final = (
    "air_f", "product_f", "sst_f", "sct_f", "superheat_f", "subcooling_f", "discharge_line_f", "amps", "running", "frost_lb", "ice_lb",
    "ceiling_lb", "defrosting", "fans", "opening", "power_w", "supply_f", "receiver_share", "flow_lb_h", "coil_f",
)  # fmt: skip
HEATS: Final = ("to_refrigerant", "walls", "infiltration", "inside", "heater", "latent", "melt", "evaporation", "ceiling", "boil")


@dataclass
class Course:
    """What happened: hours, each recorded figure as an array of times × variants, sums of heat over all of it, Btu.

    `state` and `flows` are those of the end, a row for each variant.
    """

    hours: Figures
    series: dict[str, Figures]
    state: Any
    flows: Any
    heats: dict[str, Figures]
    stored_btu: Figures

    def followed_by(self, more: "Course") -> "Course":
        """Return this course and the next as one."""
        return Course(
            np.concatenate([self.hours, more.hours]),
            {name: np.concatenate([values, more.series[name]]) for name, values in self.series.items()},
            more.state,
            more.flows,
            {name: values + more.heats[name] for name, values in self.heats.items()},
            self.stored_btu + more.stored_btu,
        )


def stored_heat(plant: Plant, s: Any) -> Figures:
    """Return the sensible heat in air, stock, structure and coil metal, Btu over 0 °F."""
    p = plant.parts
    found: Figures = (
        p.air_btu_f * s.air_f + p.product_btu_f * s.product_f + p.core_btu_f * s.core_f + p.structure_btu_f * s.structure_f
        + p.metal_btu_f * s.metal_f.mean(axis=1)
    )  # fmt: skip
    return found


@compiled
def _variant(
    p: Parts, s: State, f: circuit.Flows, h: box.Heats, sums: box.Heats, starts: Figures, kept: Figures,
    table: Figures, low_f: float, outside: Figures, water_f: float, water: bool, hours: Figures, dt_h: float, every: int,
) -> None:  # fmt: skip
    """Run one variant through all steps; `kept` takes a row of the recorded figures each `every` steps and at the end."""
    f.suction_psia = circuit.look_up(table, low_f, circuit.DEW, s.sst_f)
    row = 0
    for step in range(len(outside)):
        air = outside[step]
        fans_back = controls.step(p, s, f, starts, dt_h)
        box.conductance(p, s, f)
        circuit.step(p, s, f, table, low_f, water_f if water else air, dt_h)
        hour = int(s.hours) % 24
        box.step(p, s, f, h, air, hours[hour, day.DOORS], hours[hour, day.LIGHTS], hours[hour, day.STOCK], fans_back, dt_h)
        heater_w = h.heater * WATTS_PER_BTU_H * (HOT_GAS_WORK if p.hot_gas > 0 else 1.0)
        f.power_w = (f.work_btu_h + p.fans_btu_h * p.fan_flow * s.fans) * WATTS_PER_BTU_H + heater_w
        controls.tally(p, s, f.power_w, h.heater, heater_w, dt_h)
        sums.to_refrigerant += h.to_refrigerant * dt_h
        sums.walls += h.walls * dt_h
        sums.infiltration += h.infiltration * dt_h
        sums.inside += h.inside * dt_h
        sums.heater += h.heater * dt_h
        sums.latent += h.latent * dt_h
        sums.melt += h.melt * dt_h
        sums.evaporation += h.evaporation * dt_h
        sums.ceiling += h.ceiling * dt_h
        sums.boil += h.boil * dt_h
        s.hours += dt_h
        if step % every == 0 or step == len(outside) - 1:
            frost = ice = 0.0
            for k in range(SECTIONS):
                frost += s.frost_lb[k]
                ice += s.ice_lb[k]
            kept[row, 0], kept[row, 1], kept[row, 2], kept[row, 3] = s.air_f, s.product_f, s.sst_f, s.sct_f
            kept[row, 4], kept[row, 5], kept[row, 6], kept[row, 7] = f.superheat_f, f.subcooling_f, f.discharge_line_f, f.amps
            kept[row, 8], kept[row, 9], kept[row, 10], kept[row, 11] = s.running, frost, ice, s.ceiling_lb
            kept[row, 12], kept[row, 13], kept[row, 14], kept[row, 15] = s.defrosting, s.fans, s.opening, f.power_w
            kept[row, 16], kept[row, 17], kept[row, 18], kept[row, 19] = (
                f.supply_f,
                f.receiver_share,
                f.flow_lb_h,
                s.metal_f[controls.SENSOR_SECTION],
            )
            row += 1


@compiled
def _batch(
    p: Any, s: Any, f: Any, h: Any, sums: Any, starts: Figures, kept: Figures,
    table: Figures, low_f: float, outside: Figures, water_f: float, water: bool, hours: Figures, dt_h: float, every: int,
) -> None:  # fmt: skip
    """Run all variants, rows of tables, one after the other."""
    for v in range(len(p)):
        _variant(p[v], s[v], f[v], h[v], sums[v], starts[v], kept[v], table, low_f, outside, water_f, water, hours, dt_h, every)


def run(
    plant: Plant,
    hours: float,
    outside_f: float | Callable[[float], float] = 85.0,
    state: Any = None,
    water_f: float = DESIGN_WATER_F,
    usual: Figures | None = None,
    starts_h: Figures | None = None,
    every_s: float = RECORDED_EVERY_S,
    step_s: float = STEP_S,
) -> Course:
    """Run every variant for some hours from a state, which is moved along (at rest near set where none is given).

    `outside_f` is a figure or a function of the hour; `water_f` the water entering a water-cooled condenser; `usual` the day
    by the hour (see `day`); `starts_h` the clock's defrosts, variants × 24 hours of the day, −1 where unused (evenly spaced by
    `defrosts_per_day` where left out); the course has a row each `every_s`.
    """
    s = state if state is not None else at_rest(plant)
    dt_h, count = step_s / 3600.0, max(round(hours * 3600.0 / step_s), 1)
    begins = float(s.hours[0])
    outside = np.array([outside_f(begins + dt_h * i) for i in range(count)]) if callable(outside_f) else np.full(count, float(outside_f))
    starts = np.full((plant.count, 24), -1.0) if starts_h is None else np.asarray(starts_h, dtype=float)
    every = max(round(every_s / step_s), 1)
    places = sorted({*range(0, count, every), count - 1})
    kept = np.zeros((plant.count, len(places), len(RECORDED)))
    flows, sums = rows(circuit.Flows, plant.count), rows(box.Heats, plant.count)
    table = circuit.table_of(plant.refrigerant)
    before = stored_heat(plant, s)
    tables = (
        bare(Parts, plant.parts), bare(State, s), bare(circuit.Flows, flows), bare(box.Heats, rows(box.Heats, plant.count)),
        bare(box.Heats, sums), starts, kept,
    )  # fmt: skip
    hourly, water = day.usual() if usual is None else usual, plant.unit.condensing == "water"

    def work(share: slice) -> None:
        p, state_rows, f, h, heats, clock, record = (rows_of[share] for rows_of in tables)
        _batch(p, state_rows, f, h, heats, clock, record, table, plant.refrigerant.low_f, outside, water_f, water, hourly, dt_h, every)

    # Variants know nothing of each other: each processor takes its share of them.
    sizes = np.array_split(np.arange(plant.count), min(os.cpu_count() or 1, plant.count))
    shares = [slice(int(part[0]), int(part[-1]) + 1) for part in sizes]
    if len(shares) == 1:
        work(shares[0])
    else:
        with ThreadPoolExecutor(len(shares)) as workers:
            list(workers.map(work, shares))
    series = {name: kept[:, :, column].T for column, name in enumerate(RECORDED)}
    times = begins + dt_h * (np.array(places) + 1.0)
    return Course(times, series, s, flows, {name: sums[name] for name in HEATS}, stored_heat(plant, s) - before)


def set_clock(state: Any, starts_h: Figures) -> None:
    """Point every variant's clock at the first of its times of day from now on (variants × 24, −1 where unused)."""
    for variant in range(len(state)):
        state.next_defrost_h[variant] = controls.next_start(float(state.hours[variant]) - JUST_BEFORE_H, starts_h[variant], 0.0)
