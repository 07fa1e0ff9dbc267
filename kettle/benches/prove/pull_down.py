"""A box watched down: the course a sound unit takes with its doubt, and what readings on it say.

The course is that of the plant model (`kettle/plant`), lived by sixty-four boxes that differ in what nobody knows: how strong the unit is
for its box, what leaks in, how much stock there is and how warm it became. Readings weigh them, so that the doubt shrinks as it comes down.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Final

import numpy as np

from kettle.benches.prove.stock import STOCK
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import TRADE, ShownUnits, format_number, long_words
from kettle.plant.run import run
from kettle.plant.sizing import DESIGN_WATER_F, sized
from kettle.plant.state import at_rest

# Heat the stock holds against that of the model's usual box.
_STOCK_SHARE: Final = {"little": 0.3, "half": 1.0, "full": 1.9}
BOXES: Final = 64
# What is looked at: a freezer from room temperature takes a day, a cooler full of warm stock on a hot one nearly, h.
HOURS: Final = {False: 20.0, True: 24.0}
EVERY_S: Final = 300.0
# What nobody knows: the span of each, as a factor (log-normal, two deviations), and how warm the stock is of what the air is.
CAPACITY_X, LOAD_X, STOCK_X = 1.35, 1.6, 1.5
STOCK_WARMTH: Final = (0.45, 1.0)
# A reading is good to this, °F; the box stands this far from what a model of its kind does, °F.
READ_F: Final = 1.5
# The doubt drawn holds this share of the boxes.
INSIDE: Final = (0.03, 0.97)
JUDGED_WITHIN_F: Final = 5.0
# Falling by less than this in so long, min, while more is due, is standing still.
STALL_F: Final = 1.0
STALL_MIN: Final = 25.0
DUE_F: Final = 2.0
AIR_F: Final = (-40.0, 120.0)
AMBIENT_F: Final = (-20.0, 125.0)


@dataclass(frozen=True)
class Expected:
    """The expected course: minutes, and of the box least, middle and most, °F; minutes until set and until superheat may be judged.

    `at_set_min` and `judged_min` are (soonest, middle, latest); a latest one that is not reached in the time looked at is None.
    """

    minutes: tuple[float, ...]
    low_f: tuple[float, ...]
    middle_f: tuple[float, ...]
    high_f: tuple[float, ...]
    at_set_min: tuple[float | None, float | None, float | None]
    judged_min: tuple[float | None, float | None, float | None]


def _check(from_f: float, ambient_f: float, stock: str) -> None:
    wrong = {}
    for name, label, value, (low, high) in (("from_f", "Box now", from_f, AIR_F), ("ambient_f", "Air outside", ambient_f, AMBIENT_F)):
        if not low <= value <= high:
            wrong[name] = f"{label}: {format_number(value)} °F is outside {low:g} to {high:g} °F"
    if stock not in STOCK:
        wrong["stock"] = f"Stock: choose one of {', '.join(STOCK.values())}"
    if wrong:
        raise FieldErrors(wrong)


def expected(unit: Unit, from_f: float, ambient_f: float, stock: str, readings: Sequence[tuple[float, float]] = ()) -> Expected:
    """Return how a sound unit's box comes down from a temperature, °F, with the air outside and the stock in it (a word of `STOCK`).

    Readings (minutes since, box °F) weigh the boxes it may be. FieldErrors by field for what cannot be.
    """
    _check(from_f, ambient_f, stock)
    minutes, boxes = _lived(_Key(unit), round(from_f), round(ambient_f), stock)
    # The whole degrees the boxes were lived at are moved onto what was read first.
    boxes = boxes + (from_f - round(from_f)) * np.exp(-minutes / 60.0)[:, None]
    weights = _weights(minutes, boxes, readings)
    low, middle, high = (np.array([_quantile(row, weights, share) for row in boxes]) for share in (INSIDE[0], 0.5, INSIDE[1]))
    target = unit.set_f + unit.differential_f / 2.0
    return Expected(
        tuple(minutes.tolist()), tuple(low.tolist()), tuple(middle.tolist()), tuple(high.tolist()),
        _reached(minutes, boxes, weights, target), _reached(minutes, boxes, weights, unit.set_f + JUDGED_WITHIN_F),
    )  # fmt: skip


def _weights(minutes: Any, boxes: Any, readings: Sequence[tuple[float, float]]) -> Any:
    weights = np.zeros(boxes.shape[1])
    kept = [(at, value) for at, value in readings if 0.0 < at <= minutes[-1]]
    for at, value in kept:
        there = np.array([np.interp(at, minutes, boxes[:, n]) for n in range(boxes.shape[1])])
        # Readings of one course are not independent: together they weigh as three.
        weights -= 0.5 * ((there - value) / READ_F) ** 2 * min(3.0 / len(kept), 1.0)
    weights = np.exp(np.maximum(weights - weights.max(), -30.0))
    # What no box reproduces leaves all of them a share, so that the doubt does not vanish.
    weights += 0.01
    return weights / weights.sum()


def _quantile(values: Any, weights: Any, share: float) -> float:
    order = np.argsort(values)
    return float(np.interp(share, np.cumsum(weights[order]) - weights[order] / 2.0, values[order]))


def _reached(minutes: Any, boxes: Any, weights: Any, target_f: float) -> tuple[float | None, float | None, float | None]:
    there = boxes <= target_f
    at = np.where(there.any(axis=0), minutes[np.argmax(there, axis=0)], np.inf)
    order = np.argsort(at)
    cumulated = np.cumsum(weights[order])
    soonest, middle, latest = (
        float(at[order][min(int(np.searchsorted(cumulated, share)), len(at) - 1)]) for share in (INSIDE[0], 0.5, INSIDE[1])
    )
    return tuple(None if value == float("inf") else value for value in (soonest, middle, latest))  # type: ignore[return-value]


@dataclass(frozen=True)
class _Key:
    """A unit as a key of the cache: what its plant is sized from."""

    unit: Unit

    def __hash__(self) -> int:
        unit = self.unit
        return hash((unit.kind.code, unit.refrigerant.name, unit.metering, unit.condensing, unit.receiver, unit.set_f, unit.differential_f))


@lru_cache(maxsize=64)
def _lived(key: _Key, from_f: float, ambient_f: float, stock: str) -> tuple[Any, Any]:
    """Minutes, and the air of every box (times × boxes)."""
    unit = key.unit
    plant = sized(unit).repeated(BOXES)
    spread = _spread(BOXES, 5)
    p = plant.parts
    strong = CAPACITY_X ** (spread[:, 0] - 0.5)
    for name in ("swept_ft3_h", "coil_air", "coil_refrigerant", "condenser", "condenser_flow", "valve", "vapor_side"):
        p[name] *= strong
    # What comes in: through walls and doors, and from fans; after work the doors are shut, so less than on a usual day.
    load = LOAD_X ** (spread[:, 1] - 0.5)
    for name in ("walls", "infiltration_lb_h", "lights_btu_h"):
        p[name] *= load
    p.stock_btu_h[:] = 0.0
    stocked = _STOCK_SHARE[stock] * STOCK_X ** (spread[:, 2] - 0.5)
    for name in ("product_btu_f", "core_btu_f", "product_air", "product_core"):
        p[name] *= stocked
    p.air_btu_f *= 1.3 ** (spread[:, 3] - 0.5)
    state = at_rest(plant, air_f=float(from_f), outside_f=float(ambient_f))
    warmth = STOCK_WARMTH[0] + (STOCK_WARMTH[1] - STOCK_WARMTH[0]) * spread[:, 4]
    cold = np.minimum(unit.set_f, float(from_f))
    state.product_f[:] = cold + warmth * (from_f - cold)
    state.core_f[:] = cold + warmth**1.5 * (from_f - cold)
    state.structure_f[:] = cold + np.maximum(warmth, 0.7) * (from_f - cold)
    state.next_defrost_h[:] = 1e9
    p.defrosts_per_day[:] = 0.0
    course = run(plant, HOURS[unit.kind.freezer], float(ambient_f), state, DESIGN_WATER_F, every_s=EVERY_S)
    boxes = course.series["air_f"]
    minutes = (course.hours - course.hours[0]) * 60.0
    return minutes, np.minimum.accumulate(boxes, axis=0)


def _spread(count: int, figures: int) -> Any:
    """Points that fill a unit cube evenly: the additive recurrence of Roberts (2018), the same at every run."""
    phi = 2.0
    for _ in range(40):
        phi = (1.0 + phi) ** (1.0 / (figures + 1))
    steps = (1.0 / phi) ** np.arange(1, figures + 1)
    return (0.5 + np.outer(np.arange(1, count + 1), steps)) % 1.0


@dataclass(frozen=True)
class Watched:
    """What readings on the course say: state (before, on_track, slow, stalled, at_set), since which minute, in words, what it points at."""

    state: str
    since_min: float | None
    says: str
    points_at: tuple[str, ...] = ()


# What standing still points at: the observation and the words of it that say so, and what is to be looked at; judgement of the trade.
_POINTS: Final = (
    ("evap_fans", ("some_stopped", "stopped", "reversed"), "the coil's fans do not move the air"),
    ("ice_form", ("hard_ice", "heavy_frost", "snow"), "ice on the coil: it was not all melted, or it came back"),
    ("door", ("left_open", "gasket_gap", "misaligned", "closer_failed"), "the door lets warm air in"),
    ("compressor", ("off", "tripping", "humming", "short_cycling"), "the compressor does not run through"),
    ("condenser_coil", ("blocked",), "the condenser is blocked"),
    ("sight_glass", ("flashing", "empty"), "too little liquid comes to the valve"),
)
_STALL_CHECKS: Final = (
    "the coil for ice and its fans",
    "the door and warm stock",
    "suction and superheat: a starved coil stands still too",
)


def watched(
    unit: Unit, course: Expected, readings: Sequence[tuple[float, float]], seen: dict[str, Any] | None = None, shown: ShownUnits = TRADE
) -> Watched:
    """Return what readings (minutes since the start, box °F) on an expected course say; `seen` are the observations that stand."""
    if not readings:
        return Watched("before", None, "The box's temperature from time to time tells whether it comes down as it should")
    at, value = readings[-1]
    target = unit.set_f + unit.differential_f / 2.0
    if value <= target:
        return Watched("at_set", at, f"At set: {shown.text(value, '°F')} after {long_words(at)}")
    since = _still_since(readings, course, target)
    high = float(np.interp(at, course.minutes, course.high_f))
    if since is not None:
        told = tuple(words for key, bad, words in _POINTS if (seen or {}).get(key) in bad) or _STALL_CHECKS
        was = next(value for then, value in readings if then >= since)
        fall = shown.text(max(was - value, 0.0), "°F diff")
        return Watched("stalled", since, f"Stalled for {long_words(at - since)}: {fall} in that time", told)
    if value > high + READ_F / 2.0 and len(readings) > 1:
        due = float(np.interp(at, course.minutes, course.middle_f))
        return Watched("slow", at, f"Slow: {shown.text(value, '°F')}, {shown.text(due, '°F')} was due by now")
    left = course.at_set_min[1]
    if left is not None and at > left and value > float(np.interp(at, course.minutes, course.middle_f)) + READ_F:
        return Watched("slow", at, f"Slow: at set after {long_words(left)} was due")
    ahead = f", at set in about {long_words(left - at)}" if left is not None and left > at else ""
    return Watched("on_track", at, f"On track{ahead}")


def _still_since(readings: Sequence[tuple[float, float]], course: Expected, target: float) -> float | None:
    """Since when the box stands still though more is due, minutes; None where it comes down."""
    at, value = readings[-1]
    since = None
    for then, was in reversed(readings[:-1]):
        if was - value > STALL_F:
            break
        if at - then >= STALL_MIN:
            due = float(np.interp(then, course.minutes, course.middle_f) - np.interp(at, course.minutes, course.middle_f))
            if due >= DUE_F or value > target + JUDGED_WITHIN_F:
                since = then
    return since
