"""A week of a program in the plant model: the figures a technician weighs, with what they may be."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from kettle.benches.defrost.program import AIR, DAY_MIN, Program
from kettle.benches.defrost.situation import DOUBTS, ICE_STAYS, Doubt, Situation, plant_of, set_program
from kettle.knowledge.bands import default_band
from kettle.plant.box import ICE_LB_FT3, WATER_LB_FT3
from kettle.plant.controls import LONGEST_GUESS_MIN, WAS_CLEAR
from kettle.plant.parts import Plant
from kettle.plant.rows import SECTIONS, Figures
from kettle.plant.run import run, set_clock
from kettle.plant.state import at_rest, wipe_tallies

DAYS: Final = 7
HOURS_A_DAY: Final = 24.0
BTU_PER_KWH: Final = 3412.14
# A coil packed to this share of its room holds no box; nor does one that is too warm for so many minutes a day.
PACKED: Final = 0.95
TOO_WARM_MIN: Final = 240.0
CURVE_EVERY_S: Final = 600.0
# Air that has not cleared a coil after so long does not, min.
LONGEST_AIR_MIN: Final = 240.0


@dataclass(frozen=True)
class Span:
    """A figure as assumed, and the least and most it comes to with what is not known."""

    middle: float
    low: float
    high: float


@dataclass(frozen=True)
class Curve:
    """A day by the model: minutes after midnight, frost and ice on the coil, lb, and the box, °F."""

    minutes: tuple[float, ...]
    frost_lb: tuple[float, ...]
    box_f: tuple[float, ...]


@dataclass(frozen=True)
class Outlook:
    """What a week of a program comes to. Per day where it says so; `blocked` is the coil's free room filled at worst, of one.

    `kept` says whether the coil came out of its last defrost without ice, as assumed and with all against it.
    """

    program: Program
    starts_a_day: Span
    frost_lb: Span
    blocked: Span
    clear_min: Span
    margin_min: Span
    runs_on_min: Span
    box_peak_f: Span
    over_limit_min: Span
    heat_kwh: Span
    power_kwh: Span
    ceiling_lb: Span
    left_lb: Span
    by_time: Span
    kept: tuple[bool, bool]
    curve: Curve

    @property
    def clears(self) -> bool:
        """Whether the coil's need could be told at all: beyond the longest guess nothing melts it in any time that matters."""
        return self.clear_min.middle < LONGEST_GUESS_MIN

    @property
    def wins(self) -> bool:
        """Whether the coil stays clear over the week and the box is held, as assumed."""
        return self.kept[0] and self.blocked.middle < PACKED and self.over_limit_min.middle < TOO_WARM_MIN


def look_ahead(
    asked: Situation,
    programs: Sequence[Program],
    days: int = DAYS,
    doubts: Sequence[Doubt] = DOUBTS,
    tell: Callable[[float], None] | None = None,
) -> list[Outlook]:
    """Return what each program comes to in a week that begins with a clear coil, all of them run together.

    `tell` is called after each day with the share done, and may raise `Stopped`.
    """
    plants = [plant_of(asked, doubts) for _ in programs]
    starts = np.concatenate([set_program(plant, program) for plant, program in zip(plants, programs, strict=True)])
    plant = Plant(asked.unit, plants[0].refrigerant, np.concatenate([one.parts for one in plants]).view(np.recarray))
    state = at_rest(plant, outside_f=asked.outside_f)
    set_clock(state, starts)
    wipe_tallies(state)
    hourly, course = asked.usual_day, None
    for done in range(days):
        course = run(plant, HOURS_A_DAY, asked.outside_f, state, usual=hourly, starts_h=starts, every_s=CURVE_EVERY_S)
        if tell is not None:
            tell((done + 1) / days)
    assert course is not None
    size = len(doubts)
    longest = _by_air_min(asked, plant, course.state) if asked.unit.defrost in AIR else course.state.worst_clear_min
    return [_outlook(program, plant, course, slice(i * size, (i + 1) * size), days, longest) for i, program in enumerate(programs)]


def _by_air_min(asked: Situation, plant: Plant, week: Any) -> Figures:
    """Minutes that each variant's worst frost of a week takes to clear by air.

    A defrost by the clock may meet a coil that an off-cycle has cleared, or one at the end of a long run: the box at its coldest, the
    coil cold below it, and all the frost there was. The last is what its program has to be long enough for.
    """
    still = Plant(plant.unit, plant.refrigerant, plant.parts.copy())
    p = still.parts
    p.fail_safe_min, p.termination_f, p.demand_share = LONGEST_AIR_MIN, 999.0, 0.0
    coldest = p.set_f - p.differential_f / 2.0
    state = at_rest(still, air_f=coldest, outside_f=asked.outside_f)
    td = sum(default_band(asked.unit, "td_f") or (10.0, 10.0)) / 2.0
    state.metal_f = np.repeat((coldest - td)[:, None], SECTIONS, axis=1)
    state.frost_lb = np.repeat(week.worst_frost_lb[:, None] / SECTIONS, SECTIONS, axis=1)
    state.frost_ft3 = np.repeat((week.worst_blocked * p.gap_ft3)[:, None] / SECTIONS, SECTIONS, axis=1)
    state.next_defrost_h = state.hours
    run(still, LONGEST_AIR_MIN / 60.0 + 0.1, asked.outside_f, state, usual=asked.usual_day)
    return np.asarray(state.last_clear_min)


def _span(values: Figures) -> Span:
    return Span(float(values[0]), float(values.min()), float(values.max()))


def _outlook(program: Program, plant: Plant, course: Any, part: slice, days: int, longest: Figures) -> Outlook:
    p, s, first, clear_min = plant.parts[part], course.state[part], part.start, longest[part]
    ended = s.defrosts > 0
    # Without a defrost, what lies on the coil at the end is what is left.
    left = np.where(ended, s.last_left_lb, (s.frost_lb + s.ice_lb).sum(axis=1))
    left = np.where(left <= WAS_CLEAR * p.gap_ft3 * WATER_LB_FT3, 0.0, left)
    kept = left < ICE_STAYS * p.gap_ft3 * ICE_LB_FT3
    frost = course.series["frost_lb"][:, first] + course.series["ice_lb"][:, first]
    minutes = np.round(course.hours % HOURS_A_DAY * 60.0) % DAY_MIN
    order = np.argsort(minutes, kind="stable")
    fail_safe = program.values.get("fail_safe_min", np.nan)
    return Outlook(
        program=program,
        starts_a_day=_span(s.defrosts / days),
        frost_lb=_span(s.worst_frost_lb),
        blocked=_span(s.worst_blocked),
        clear_min=_span(clear_min),
        margin_min=_span(np.where(ended, fail_safe - clear_min, 0.0)),
        runs_on_min=_span(np.maximum(s.ran_min - s.clear_min, 0.0) / np.maximum(s.defrosts, 1.0)),
        box_peak_f=_span(s.peak_f),
        over_limit_min=_span(60.0 * s.over_limit_h / days),
        heat_kwh=_span(s.defrost_btu / BTU_PER_KWH / days),
        power_kwh=_span(s.kwh / days),
        ceiling_lb=_span(s.ceiling_lb),
        left_lb=_span(left),
        by_time=_span(np.where(ended, s.by_time / np.maximum(s.defrosts, 1.0), 0.0)),
        kept=(bool(kept[0]), bool(kept.all())),
        curve=Curve(
            tuple(float(minutes[i]) for i in order),
            tuple(round(float(frost[i]), 3) for i in order),
            tuple(round(float(course.series["air_f"][i, first]), 2) for i in order),
        ),
    )
