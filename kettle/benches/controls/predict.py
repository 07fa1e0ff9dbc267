"""What a pressure switch as thermostat will do, by the plant model: the box, its cycles, and whether the coil clears."""

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from typing import Final

from kettle.benches.controls.pressure import Setting
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import psig_to_psia
from kettle.plant.parts import Plant
from kettle.plant.run import run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

# Twice half a day to come to its cycles, stock and walls set to what the air came to after each; then two days of doors and deliveries
# that are looked at: where a cycle stands when the doors open in the morning differs from day to day.
SETTLES_H: Final = 12.0
SEEN_H: Final = 48.0
RECORDED_S: Final = 60.0
# Frost and ice at the end from which a coil counts as not clearing, lb of one ft² face of room; stock freezes below.
CLEAR_LB: Final = 0.25
FREEZES_F: Final = 30.0
# Shorter than this no run cools a box, min; so far over the warmest air wanted it is not held, °F.
SHORT_MIN: Final = 5.0
MISSES_BY_F: Final = 3.0


@dataclass(frozen=True)
class Predicted:
    """At one ambient: warmest and coldest box °F, minutes on and off, starts an hour, lb of frost left, coldest stock °F."""

    outside_f: float
    highest_f: float
    lowest_f: float
    on_min: float
    off_min: float
    starts_an_hour: float
    left_lb: float
    stock_f: float

    @property
    def runs_on(self) -> bool:
        """Whether it never stopped in the hours looked at."""
        return self.off_min <= 0.0

    @property
    def stays_off(self) -> bool:
        """Whether it never ran in the hours looked at."""
        return self.on_min <= 0.0

    @property
    def clears(self) -> bool:
        """Whether the coil was clear of frost at some stop."""
        return self.left_lb < CLEAR_LB

    @property
    def freezes(self) -> bool:
        """Whether what stands in it freezes."""
        return self.stock_f < FREEZES_F


def stops_early(predicted: Predicted, warmest_f: float) -> bool:
    """Whether it stops long before the box is as cold as wanted: at a start suction falls further than the TD seen says."""
    return 0.0 < predicted.on_min < SHORT_MIN and predicted.highest_f > warmest_f + MISSES_BY_F


def by_setting(unit: Unit, setting: Setting, outside_f: Sequence[float]) -> list[Predicted]:
    """Return what a pressure switch as thermostat comes to at each ambient (°F), on a sound unit of this kind."""

    def switch(plant: Plant) -> None:
        plant.parts.by_pressure[:] = 1.0
        plant.parts.pump_down[:] = 0.0
        plant.parts.lp_in_psia[:] = psig_to_psia(setting.cut_in_psig, unit.altitude_ft)
        plant.parts.lp_out_psia[:] = psig_to_psia(setting.cut_out_psig, unit.altitude_ft)

    return _days(unit, switch, outside_f)


def by_thermostat(unit: Unit, holds_f: float, differential_f: float, outside_f: Sequence[float]) -> list[Predicted]:
    """Return what a thermostat that holds a middle with a differential (°F) comes to at each ambient, on a sound unit of this kind."""

    # Its pressure switches stand as those of a unit with a thermostat.
    unit = replace(unit, box_control="thermostat")

    def dial(plant: Plant) -> None:
        plant.parts.set_f[:], plant.parts.differential_f[:] = holds_f, differential_f

    return _days(unit, dial, outside_f)


def _days(unit: Unit, control: Callable[[Plant], None], outside_f: Sequence[float]) -> list[Predicted]:
    with ThreadPoolExecutor(max_workers=len(outside_f) or 1) as together:
        return list(together.map(lambda one: _at(unit, control, one), outside_f))


def _at(unit: Unit, control: Callable[[Plant], None], outside_f: float) -> Predicted:
    plant = sized(unit)
    control(plant)
    state = at_rest(plant, outside_f=outside_f)
    for _ in range(2):
        air_f = float(run(plant, SETTLES_H, outside_f, state).series["air_f"].mean())
        state.product_f[:] = state.core_f[:] = state.structure_f[:] = air_f
    started = float(state.starts[0])
    course = run(plant, SEEN_H, outside_f, state, every_s=RECORDED_S)
    air, running = course.series["air_f"][:, 0], course.series["running"][:, 0]
    frost = (course.series["frost_lb"] + course.series["ice_lb"])[:, 0]
    starts = float(course.state.starts[0]) - started
    share = float(running.mean())
    on, off = (60.0 * SEEN_H * share, 60.0 * SEEN_H * (1.0 - share))
    each = max(starts, 1.0)
    return Predicted(
        outside_f, float(air.max()), float(air.min()), on / each, off / each, starts / SEEN_H, float(frost.min()),
        float(course.series["product_f"][:, 0].min()),
    )  # fmt: skip
