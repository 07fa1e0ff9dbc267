"""The expected pull-down against boxes simulated with what nobody knows of them, and what readings on it say."""

import numpy as np
import pytest

from kettle.benches.prove import pull_down
from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import FieldErrors
from kettle.plant import faults
from kettle.plant.run import run
from kettle.plant.simulate import PRESETS
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

COOLER = resolve(PRESETS["walk_in_cooler"])
KINDS = ("walk_in_cooler", "walk_in_freezer", "reach_in_cooler", "display_cooler", "reach_in_freezer")


def real_boxes(unit, from_f, outside_f, count, seed, stock_share=1.0, hours=12.0):
    """Boxes drawn by chance of their own: capacity, load and stock normal in their logarithms, stock as warm as chance has it."""
    chance = np.random.default_rng(seed)
    plant = sized(unit).repeated(count)
    p = plant.parts
    strong = np.exp(chance.normal(0.0, np.log(1.35) / 4.0, count))
    for name in ("swept_ft3_h", "coil_air", "coil_refrigerant", "condenser", "condenser_flow", "valve", "vapor_side"):
        p[name] *= strong
    load = np.exp(chance.normal(0.0, np.log(1.6) / 4.0, count))
    p.walls *= load
    p.infiltration_lb_h *= load
    p.stock_btu_h[:] = 0.0
    stocked = stock_share * np.exp(chance.normal(0.0, np.log(1.5) / 4.0, count))
    for name in ("product_btu_f", "core_btu_f", "product_air", "product_core"):
        p[name] *= stocked
    state = at_rest(plant, air_f=from_f, outside_f=outside_f)
    warm = chance.uniform(0.5, 1.0, count)
    for name in ("product_f", "core_f", "structure_f"):
        state[name] = unit.set_f + warm * (from_f - unit.set_f)
    state.next_defrost_h[:] = 1e9
    p.defrosts_per_day[:] = 0.0
    course = run(plant, hours, outside_f, state, every_s=300.0)
    return (course.hours - course.hours[0]) * 60.0, np.minimum.accumulate(course.series["air_f"], axis=0)


def test_two_hundred_boxes_come_down_inside_the_stated_doubt():
    inside_course, inside_time, count = 0, 0, 0
    for n, kind in enumerate(KINDS):
        unit = resolve(PRESETS[kind])
        for half, outside in enumerate((75.0, 95.0)):
            from_f = unit.set_f + (28.0 if half else 18.0)
            minutes, boxes = real_boxes(unit, from_f, outside, 20, seed=10 * n + half)
            course = pull_down.expected(unit, from_f, outside, "half")
            low, high = (np.interp(minutes, course.minutes, line) for line in (course.low_f, course.high_f))
            target = unit.set_f + unit.differential_f / 2.0
            for box in boxes.T:
                # Until it is at set: what it does then is the thermostat's.
                until = int(np.argmax(box <= target)) if (box <= target).any() else len(box)
                within = (box[:until] >= low[:until] - 0.5) & (box[:until] <= high[:until] + 0.5)
                inside_course += within.mean() >= 0.95
                soonest, _, latest = course.at_set_min
                reached = minutes[until] if until < len(box) else np.inf
                inside_time += (soonest or 0.0) - 5.0 <= reached <= (latest or np.inf) + 5.0
                count += 1
    assert count == 200
    assert inside_course >= 180 and inside_time >= 180


def test_readings_narrow_the_doubt_and_move_the_time():
    minutes, boxes = real_boxes(COOLER, 60.0, 85.0, 6, seed=4)
    holds = 0
    for box in boxes.T:
        reached = minutes[int(np.argmax(box <= COOLER.set_f + COOLER.differential_f / 2.0))]
        readings = [(at, float(np.interp(at, minutes, box))) for at in (15.0, 30.0, 45.0, 60.0)]
        before, after = (pull_down.expected(COOLER, 60.0, 85.0, "half", seen) for seen in ((), readings))
        assert after.at_set_min[2] - after.at_set_min[0] < before.at_set_min[2] - before.at_set_min[0]
        holds += after.at_set_min[0] - 10.0 <= reached <= after.at_set_min[2] + 10.0
    assert holds >= 5


def test_what_readings_say():
    course = pull_down.expected(COOLER, 60.0, 85.0, "half")
    middle = dict(zip(course.minutes, course.middle_f, strict=True))
    at = sorted(middle)

    def say(readings, seen=None):
        return pull_down.watched(COOLER, course, readings, seen)

    assert say([]).state == "before"
    on_track = say([(m, middle[m]) for m in at[1:8]])
    assert on_track.state == "on_track" and "at set in about" in on_track.says
    assert say([(at[3], course.high_f[3] + 2.0), (at[6], course.high_f[6] + 2.0)]).state == "slow"
    stalled = say([(0.0, 60.0), (20.0, 50.0), (40.0, 48.1), (55.0, 48.0), (75.0, 47.8)], {"evap_fans": "stopped"})
    assert stalled.state == "stalled" and stalled.since_min == 40.0 and "fans" in stalled.points_at[0]
    assert len(say([(0.0, 60.0), (20.0, 50.0), (40.0, 48.1), (75.0, 47.8)]).points_at) == 3
    assert say([(0.0, 60.0), (200.0, COOLER.set_f)]).state == "at_set"


@pytest.mark.parametrize("code", ["evap_fan_failed", "undercharge", "door_infiltration"])
def test_a_box_with_a_fault_is_never_said_to_be_on_track_to_the_end(code):
    plant = sized(COOLER)
    state = at_rest(plant, air_f=62.0, outside_f=90.0)
    faults.apply(plant, state, code, 1.0)
    state.next_defrost_h[:] = 1e9
    ran = run(plant, 5.0, 90.0, state, every_s=600.0)
    readings = [((hour - ran.hours[0]) * 60.0, float(air)) for hour, air in zip(ran.hours, ran.series["air_f"][:, 0], strict=True)]
    course = pull_down.expected(COOLER, 62.0, 90.0, "half")
    assert pull_down.watched(COOLER, course, readings).state in ("slow", "stalled")


def test_stock_and_a_hotter_day_take_longer_and_what_cannot_be_is_said():
    times = [pull_down.expected(COOLER, 60.0, ambient, stock).at_set_min[1] for stock, ambient in (("little", 75.0), ("full", 75.0))]
    assert times[0] < times[1] < pull_down.expected(COOLER, 60.0, 90.0, "full").at_set_min[1]
    judged, at_set = (getattr(pull_down.expected(COOLER, 60.0, 85.0, "half"), name)[1] for name in ("judged_min", "at_set_min"))
    assert judged < at_set
    with pytest.raises(FieldErrors) as wrong:
        pull_down.expected(COOLER, 300.0, 500.0, "some")
    assert set(wrong.value.by_field) == {"from_f", "ambient_f", "stock"}
