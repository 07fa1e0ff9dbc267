"""What a plan starts from: the unit as it stands, what was seen on it, and what nobody knows exactly."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import exp, log, prod
from typing import Final

import numpy as np

from kettle.benches.defrost.program import Hours, Program, no_stronger
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant import day
from kettle.plant.box import ICE_LB_FT3
from kettle.plant.parts import Plant
from kettle.plant.rows import Figures
from kettle.plant.run import run, set_clock
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

BTU_H_PER_W: Final = 3.412
USUAL_OUTSIDE_F: Final = 85.0
# What comes in by the door against a sound door with usual traffic, and what would put it right (judgement of the trade).
DOORS: Final[dict[str, dict[str, tuple[float, str]]]] = {
    "door": {
        "gasket_gap": (1.8, "mend the gasket"),
        "left_open": (5.0, "shut the door"),
        "misaligned": (1.6, "hang the door true"),
        "closer_failed": (3.0, "mend the closer"),
    },
    "door_traffic": {"light": (0.6, ""), "heavy": (1.8, "halve the traffic through the door")},
    "strip_curtain": {"missing": (1.4, "hang a strip curtain")},
}
# Each hour a day that a door stands open lets in about what a sound door with usual traffic does in a day and a half (judgement).
OPEN_HOUR: Final = 1.5
KEPT_SHUT: Final = "keep the door shut between goods"
WEAK_HEATER: Final = 0.7
# A heater as rated lies inside this, against the size of the plant of the kind.
HEATERS: Final = (0.3, 3.0)
# Watched defrosts narrow what is not known of the moisture.
UNWATCHED, WATCHED = 1.5, 1.2
# Moisture against what was assumed that is tried against what the site has shown, and for how long.
MATCHED: Final = (0.2, 0.3, 0.45, 0.65, 1.0, 1.5, 2.2, 3.3, 5.0)
MATCHED_HOURS: Final = 48.0
ICED_HOURS: Final = 168.0
# How near the model's minutes come to those of a coil whose moisture is known, as a share; and how sharply ice counts as there.
MINUTES_WITHIN: Final = 0.15
ICE_WITHIN: Final = 0.008
SUREST: Final = 0.97
# A box this far over what the model holds is warmed by more than its moisture, °F.
BOX_FAR_F: Final = 5.0
# Ice that fills more than this share of the coil's free room after its last defrost stays and grows.
ICE_STAYS: Final = 0.03


@dataclass(frozen=True)
class Watched:
    """A defrost watched on site: how long it ran, min, by what it ended, when the coil was clear, min, and whether it was."""

    ran_min: float
    by_time: bool
    clear_min: float | None = None
    left_clear: bool | None = None


@dataclass(frozen=True)
class Situation:
    """A unit to plan for: the place's hours, air outside, °F, moisture by the door (1 as usual), its spread, the heater's share.

    `heater_w` is the heater's rating where it is known; `working` the share of it that works; `doors` what is wrong there: what
    it multiplies the moisture by, and what would put it right. `fit` says how the model reproduces what was found, `unexplained` that
    it does not; `disproved` holds programs that left ice on this coil, each with why.
    """

    unit: Unit
    hours: Hours
    outside_f: float = USUAL_OUTSIDE_F
    moisture: float = 1.0
    moisture_spread: float = UNWATCHED
    heater_w: float | None = None
    working: float = 1.0
    doors: tuple[tuple[float, str], ...] = ()
    watched: int = 0
    fit: tuple[str, ...] = ()
    unexplained: bool = False
    disproved: tuple[tuple[Program, str], ...] = ()

    def against(self, program: Program) -> str:
        """Return why the site has disproved a program: one no stronger left ice there; empty where it has not."""
        return next((why for shown, why in self.disproved if no_stronger(program, shown)), "")

    @property
    def usual_day(self) -> Figures:
        """The day of the place by the hour, as the model takes it."""
        hours = self.hours
        if hours.opens_min is None or hours.closes_min is None:
            return day.usual()
        return day.of_hours(hours.opens_min, hours.closes_min, hours.deliveries_min)


def situation(unit: Unit, seen: Mapping[str, Value], derived: Mapping[str, float], hours: Hours) -> Situation:
    """Return what to plan from, by what was seen; InputError for a unit nothing can be planned for."""
    if unit.defrost == "none":
        raise InputError("This unit has no defrost to plan; say on its plate what kind it has")
    doors = tuple(factors[str(seen[key])] for key, factors in DOORS.items() if str(seen.get(key, "")) in factors)
    stands_open = seen.get("door_open_h")
    if isinstance(stands_open, float) and stands_open > 0:
        doors += ((1.0 + OPEN_HOUR * stands_open, KEPT_SHUT),)
    outside, rated = seen.get("ambient_f"), seen.get("heater_rated_w")
    return Situation(
        unit=unit,
        hours=hours,
        outside_f=outside if isinstance(outside, float) else USUAL_OUTSIDE_F,
        moisture=prod(factor for factor, _ in doors),
        heater_w=rated if isinstance(rated, float) and rated > 0 else None,
        working=min(derived.get("heater_pct", 100.0) / 100.0, 1.0),
        doors=tuple((factor, cure) for factor, cure in doors if cure),
    )


@dataclass(frozen=True)
class Doubt:
    """One thing nobody knows exactly: what it is called, and what the plant's part may be against what was assumed."""

    label: str
    moisture: float = 0.0
    heater: float = 1.0
    room: float = 1.0
    load: float = 1.0


# The first is what is assumed; moisture counts in spreads up (+1) or down (−1).
DOUBTS: Final = (
    Doubt("as assumed"),
    Doubt("drier", moisture=-1.0),
    Doubt("damper", moisture=1.0),
    Doubt("weaker heater, finer fins", heater=0.9, room=0.75),
    Doubt("warmer stock and walls", load=1.2),
    Doubt("all against it", moisture=1.0, heater=0.9, room=0.75, load=1.2),
)


def plant_of(asked: Situation, doubts: Sequence[Doubt] = DOUBTS) -> Plant:
    """Return the plant of a situation, one variant for each doubt."""
    one = sized(asked.unit)
    if asked.heater_w is not None and one.parts.heater_btu_h[0] > 0 and asked.unit.defrost == "electric":
        usual = float(one.parts.heater_rated_btu_h[0])
        rated = min(max(asked.heater_w * BTU_H_PER_W, HEATERS[0] * usual), HEATERS[1] * usual)
        one.parts.heater_btu_h = one.parts.heater_rated_btu_h = rated
    plant = one.repeated(len(doubts))
    p = plant.parts
    p.infiltration_lb_h *= asked.moisture * np.array([asked.moisture_spread**doubt.moisture for doubt in doubts])
    p.heater_btu_h *= asked.working * np.array([doubt.heater for doubt in doubts])
    p.gap_ft3 *= np.array([doubt.room for doubt in doubts])
    for name in ("walls", "stock_btu_h", "lights_btu_h"):
        p[name] *= np.array([doubt.load for doubt in doubts])
    return plant


def set_program(plant: Plant, program: Program) -> Figures:
    """Put a program into every variant of a plant, and return its starts as `run` takes them: variants × 24 hours of the day."""
    p, values = plant.parts, program.values
    p.fail_safe_min = values.get("fail_safe_min", 240.0)
    p.termination_f = values.get("termination_f", 999.0)
    p.drip_min = values.get("drip_min", 0.0)
    p.fan_delay_f = values.get("fan_delay_f", 99.0)
    p.pump_down_min = values.get("pump_down_min", 0.0)
    p.demand_share = values.get("demand_pct", 0.0) / 100.0
    p.defrosts_per_day = 0.0
    starts = np.full((plant.count, 24), -1.0)
    starts[:, : len(program.starts_min)] = np.array(program.starts_min, dtype=float) / 60.0
    return starts


def set_box(plant: Plant, set_f: float | None = None, differential_f: float | None = None) -> None:
    """Set the box control of every variant."""
    if set_f is not None:
        plant.parts.limit_f += set_f - plant.parts.set_f
        plant.parts.set_f = set_f
    if differential_f is not None:
        plant.parts.differential_f = differential_f


def cured(asked: Situation) -> dict[str, Situation]:
    """Return the situation after each repair that would help a program, and after all of them, by what to do."""
    repairs = {cure: replace(asked, moisture=asked.moisture / factor) for factor, cure in asked.doors}
    if asked.working < WEAK_HEATER:
        repairs["put the heater right"] = replace(asked, working=1.0)
    if len(repairs) > 1:
        moisture = asked.moisture / prod(factor for factor, _ in asked.doors)
        repairs[" and ".join(repairs)] = replace(asked, moisture=moisture, doors=(), working=1.0)
    return repairs


def calibrated(
    asked: Situation, program: Program, watched: Sequence[Watched], iced: bool | None = None, box_f: float | None = None
) -> Situation:
    """Return the situation with the moisture at which the model does what was seen on site under a program.

    Seen are defrosts watched (minutes to a clear coil, else to the end by temperature; one that ended by time with ice left needed
    longer than it ran) and whether the coil was `iced` when it was found. Like is held against like: the model's last defrost after two
    days, as `watch.expected` tells it, and its ice after a week. Moisture is weighed on a grid with what was assumed as the prior
    (log-normal); what was watched leaves less in doubt, and `fit` says how well it came out. The box as it was found, °F, moves nothing,
    since a warm box is mostly the circuit's; where it is far over what the model holds, that is said.
    """
    told = [one for one in watched if one.clear_min is not None or not one.by_time or one.left_clear is False]
    if not (told or iced is not None) or not (program.starts_min or program.values.get("demand_pct")):
        return asked
    minutes, left, air = _tried(asked, program, iced is not None)
    grid = np.linspace(log(MATCHED[0]), log(MATCHED[-1]), 201)
    score = -0.5 * (grid / log(UNWATCHED)) ** 2
    for one in told:
        score = score + _fits(one, {name: np.interp(grid, np.log(MATCHED), values) for name, values in minutes.items()})
    if iced is not None:
        there = np.interp(grid, np.log(MATCHED), left)
        score = score + np.log(there if iced else 1.0 - there)
    weights = np.exp(score - score.max())
    found = float((weights * grid).sum() / weights.sum())
    at = {name: float(np.exp(np.interp(found, np.log(MATCHED), values))) for name, values in minutes.items()}
    stays = float(np.interp(found, np.log(MATCHED), left)) > 0.5
    words = [f"Watched: clear after {one.clear_min:.0f} min; the model says {at['clear']:.0f}" for one in told if one.clear_min is not None]
    if iced is not None:
        words.append(f"Found {'iced' if iced else 'without ice'}; the model {'leaves ice' if stays else 'comes out clear'} by that program")
    held = float(np.interp(found, np.log(MATCHED), air))
    if box_f is not None and iced is not None and box_f > held + BOX_FAR_F:
        words.append("The box was found warmer than the model holds it by that program: something else warms it")
    return replace(
        asked, moisture=asked.moisture * exp(found), moisture_spread=WATCHED if told else asked.moisture_spread,
        watched=asked.watched + len(told), fit=(*asked.fit, *words), unexplained=asked.unexplained or (iced is not None and iced != stays),
    )  # fmt: skip


def _tried(asked: Situation, program: Program, with_ice: bool) -> tuple[dict[str, Figures], Figures, Figures]:
    """What the model does at each moisture tried: log minutes of its last defrost, how surely ice stays after a week, and its box, °F."""
    doubts = [Doubt("", moisture=log(factor) / log(UNWATCHED)) for factor in MATCHED]
    plant = plant_of(replace(asked, moisture_spread=UNWATCHED), doubts)
    starts = set_program(plant, program)
    state = at_rest(plant, outside_f=asked.outside_f)
    set_clock(state, starts)
    run(plant, MATCHED_HOURS, asked.outside_f, state, usual=asked.usual_day, starts_h=starts)
    minutes = {"clear": np.log(np.maximum(state.last_clear_min, 0.5)), "ran": np.log(np.maximum(state.last_defrost_min, 0.5))}
    if not with_ice:
        return minutes, np.full(len(MATCHED), 0.5), np.asarray(state.air_f)
    run(plant, ICED_HOURS - MATCHED_HOURS, asked.outside_f, state, usual=asked.usual_day, starts_h=starts)
    left = np.where(state.defrosts > 0, state.last_left_lb, (state.frost_lb + state.ice_lb).sum(axis=1))
    share = left / (plant.parts.gap_ft3 * ICE_LB_FT3)
    sure = 1.0 / (1.0 + np.exp(np.clip((ICE_STAYS - share) / ICE_WITHIN, -50.0, 50.0)))
    return minutes, np.clip(np.maximum.accumulate(sure), 1.0 - SUREST, SUREST), np.asarray(state.air_f)


def _fits(one: Watched, minutes: Mapping[str, Figures]) -> Figures:
    """How well each moisture fits one watched defrost, as a log-likelihood."""
    if one.clear_min is not None or not one.by_time:
        seen, of = (one.clear_min, "clear") if one.clear_min is not None else (one.ran_min, "ran")
        return -0.5 * ((minutes[of] - log(max(seen, 0.5))) / MINUTES_WITHIN) ** 2
    # Cut off by time with ice left: it needed longer than it ran.
    longer = np.clip((minutes["clear"] - log(max(one.ran_min, 0.5))) / MINUTES_WITHIN, -50.0, 50.0)
    return np.asarray(-np.log1p(np.exp(-longer)))
