"""The valve bench: how settled superheat is, what a turn does on this valve, the next turn, no answer, the bulb, electronic valves."""

import math
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.valve import bulb, electronic, no_answer
from kettle.benches.valve.course import Point, Turned, settling
from kettle.benches.valve.drawing import drawn
from kettle.benches.valve.learn import Answer, answers, learned, next_turn, without_answer
from kettle.judging.facts import Facts
from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import KINDS, UnitSpec, resolve
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import TRADE
from kettle.plant import faults
from kettle.plant.run import run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest
from kettle.trends.turning import turning_points

COOLER = resolve(UnitSpec("walk_in_cooler", "R-448A"))


def course(of, until=20.0, every=0.5):
    return [Point(n * every, of(n * every)) for n in range(int(until / every) + 1)]


def test_superheat_that_stands_is_settled_before_the_clock_has_run():
    turned = [Turned(-1.0, 0.5)]
    found = settling(course(lambda t: 9.0 + 6.0 * math.exp(-t / 1.5), until=10.0), turned, 10.0)
    assert found.state == "settled" and found.done and abs(found.moves_f_10_min) < 1.0


def test_superheat_that_moves_is_still_moving_after_the_clock_has_run():
    found = settling(course(lambda t: 30.0 - t, until=18.0), [Turned(-1.0, 0.5)], 18.0)
    assert found.state == "moving" and found.moves_f_10_min == pytest.approx(-10.0) and "down 10.0 °F" in found.says


@given(st.floats(5.0, 12.0), st.floats(2.0, 5.0))
def test_hunting_is_told_with_swing_and_period(swing, period):
    found = settling(course(lambda t: 15.0 + swing / 2.0 * math.sin(2.0 * math.pi * t / period), every=0.1), [], 20.0)
    assert (
        found.state == "hunting" and found.swing_f == pytest.approx(swing, rel=0.1) and found.period_min == pytest.approx(period, rel=0.1)
    )


def test_few_readings_leave_it_to_the_clock():
    turned = [Turned(0.0, -0.5)]
    assert "5 of 15 min" in settling([], turned, 5.0).says and not settling([], turned, 5.0).done
    assert "read superheat again" in settling([Point(-1.0, 20.0)], turned, 16.0).says
    assert settling([Point(16.0, 12.0)], turned, 16.5).done and not settling([], [], 0.0).done


def test_a_course_turns_where_it_has_moved_away_by_that_much():
    found = turning_points([(0, 5.0), (1, 9.0), (2, 3.0), (3, 8.0), (4, 7.5)], 4.0)
    assert [(one.at_min, one.value, one.highest) for one in found] == [(1, 9.0, True), (2, 3.0, False)]


def test_the_answer_to_a_turn_is_the_last_reading_before_the_next():
    points = [Point(0.0, 24.0), Point(12.0, 21.0), Point(14.0, 20.0), Point(40.0, 16.0)]
    found = answers(points, [Turned(1.0, 1.0), Turned(15.0, 0.5), Turned(16.0, 0.5)])
    assert [(one.turns, one.before_f, one.after_f) for one in found] == [(1.0, 24.0, 20.0), (1.0, 20.0, 16.0)]
    assert answers([Point(0.0, 24.0)], [Turned(1.0, 1.0)]) == answers([Point(0.0, 24.0)], []) == answers([], []) == []


def test_what_is_read_after_something_else_was_done_tells_nothing_of_a_turn():
    points = [Point(0.0, 30.0), Point(12.0, 30.5), Point(40.0, 8.0), Point(60.0, 6.0)]
    turns = [Turned(1.0, 0.5), Turned(15.0, 0.5), Turned(45.0, 0.25)]
    found = answers(points, turns, others_min=[30.0])
    assert [(one.turns, one.before_f, one.after_f) for one in found] == [(0.5, 30.0, 30.5), (0.25, 8.0, 6.0)]


def test_what_a_turn_does_is_learned_from_its_answers():
    usual = learned([])
    # By hand: precision 1/1.8² + 1²/(2·0.9²) = 0.926; mean (4/1.8² + 8/(2·0.9²)) / 0.926 = 6.67.
    strong = learned([Answer(1.0, 20.0, 12.0)])
    assert (
        usual.f_per_turn == 4.0 and strong.f_per_turn == pytest.approx(6.67, abs=0.02) and strong.doubt_f == pytest.approx(1.04, abs=0.01)
    )
    assert learned([Answer(-1.0, 0.0, 0.0)]).turns == 0


def test_two_turns_that_moved_nothing_are_no_answer():
    assert without_answer([Answer(0.5, 28.0, 28.2), Answer(0.5, 28.2, 27.8)])
    assert not without_answer([Answer(0.5, 28.0, 25.5), Answer(0.5, 25.5, 25.3)])
    assert not without_answer([Answer(0.5, 28.0, 28.0)])


def test_the_next_turn_points_the_right_way_and_says_what_to_expect():
    opens = next_turn(25.0, 6.0, 12.0, learned([]))
    assert opens.turns == 1.0 and opens.expect_f == pytest.approx(21.0) and "out, it opens" in opens.says and "bulb" in opens.if_nothing
    closes = next_turn(1.0, 6.0, 12.0, learned([]))
    assert closes.turns < 0 and closes.expect_f > 1.0
    assert next_turn(9.0, 6.0, 12.0, learned([])).turns == 0.0
    near = next_turn(13.0, 6.0, 12.0, learned([]))
    assert 0.0 < near.turns <= 0.5


@given(st.floats(0.0, 60.0), st.floats(0.2, 12.0), st.floats(0.1, 2.0))
def test_a_proposed_turn_never_asks_for_the_far_side_of_the_band(superheat, per_turn, doubt):
    valve = learned([])
    valve = type(valve)(per_turn, doubt, 3)
    found = next_turn(superheat, 6.0, 12.0, valve)
    assert abs(found.turns) <= 1.0
    if superheat > 12.0 and found.turns > 0.125:
        assert superheat - per_turn * found.turns >= 6.0
    if superheat < 6.0 and found.turns < -0.125:
        assert superheat + per_turn * -found.turns <= 12.0


def running_plant(kind, refrigerant, count):
    """Plants that run all the while near set, as a technician has them while the stem is turned."""
    unit = resolve(UnitSpec(kind, refrigerant))
    plant = sized(unit).repeated(count)
    plant.parts.lights_btu_h[:] += 0.42 * KINDS[kind].capacity_btu_h
    plant.parts.set_f[:] -= 15.0
    plant.parts.defrosts_per_day[:] = 0.0
    return unit, plant, at_rest(plant, air_f=np.full(count, unit.set_f + 1.0))


def tuned(kind, refrigerant, count, seed):
    """Simulated valves, each set wrong by some turns and with a thread of its own, tuned by what is proposed from noisy readings.

    Returns how many turns each took to read in its band (9: not within three), and the lowest true superheat after any opening turn.
    """
    chance = np.random.default_rng(seed)
    unit, plant, state = running_plant(kind, refrigerant, count)
    low, high = default_band(unit, "superheat_evap_f")
    thread = np.exp(chance.normal(0.0, 0.3, count))
    plant.parts.stem_turns[:] = chance.uniform(-1.5, 2.7, count) * thread
    true = np.array(run(plant, 1.0, 85.0, state).flows.superheat_f)
    seen, took, lowest = [[] for _ in range(count)], np.full(count, 9), 99.0
    for turn in range(4):
        read = np.maximum(true + chance.normal(0.0, 0.6, count), 0.0)
        for i in np.flatnonzero(took == 9):
            if seen[i]:
                seen[i][-1] = Answer(seen[i][-1].turns, seen[i][-1].before_f, float(read[i]))
            if low <= read[i] <= high:
                took[i] = turn
                continue
            proposed = next_turn(float(read[i]), low, high, learned(seen[i]))
            seen[i].append(Answer(proposed.turns, float(read[i]), 0.0))
            if turn < 3:
                plant.parts.stem_turns[i] -= proposed.turns * thread[i]
        if turn < 3:
            true = np.array(run(plant, 0.25, 85.0, state).flows.superheat_f)
            opened = [i for i in np.flatnonzero(took == 9) if seen[i][-1].turns > 0]
            lowest = min([lowest, *(float(true[i]) for i in opened)])
    return took, lowest


def test_proposed_turns_reach_the_band_in_three_and_none_floods():
    kinds = [("walk_in_cooler", "R-448A"), ("walk_in_freezer", "R-404A"), ("display_cooler", "R-449A"), ("provision_room_cooler", "R-404A")]
    found = [tuned(kind, refrigerant, 50, seed) for seed, (kind, refrigerant) in enumerate(kinds, 1)]
    took = np.concatenate([turns for turns, _ in found])
    assert len(took) == 200 and np.mean(took <= 3) >= 0.95 and np.mean(took > 0) > 0.3
    assert min(lowest for _, lowest in found) >= 2.0


FAULTS = [
    ("undercharge", 0.25), ("condenser_dirty", 0.6), ("overcharge", 0.5), ("noncondensables", 0.4), ("evap_airflow_low", 0.3),
    ("door_infiltration", 0.6), ("compressor_inefficient", 0.4), ("txv_underfeeding", 0.4),
    ("condenser_fan_failed", 0.3), ("hot_stock", 0.5),
]  # fmt: skip


@pytest.mark.parametrize(("code", "severity"), FAULTS)
def test_what_is_learned_lies_within_its_doubt_on_a_faulty_plant(code, severity):
    chance = random.Random(5)
    _, plant, state = running_plant("walk_in_cooler", "R-448A", 1)
    faults.apply(plant, state, code, severity)
    plant.parts.stem_turns[:] = 0.5
    true = [float(run(plant, 1.0, 85.0, state).flows.superheat_f[0])]
    seen = []
    for _ in range(3):
        plant.parts.stem_turns[:] += 0.5
        true.append(float(run(plant, 0.25, 85.0, state).flows.superheat_f[0]))
        seen.append(Answer(-0.5, true[-2] + chance.gauss(0.0, 0.6), true[-1] + chance.gauss(0.0, 0.6)))
    valve = learned(seen)
    assert valve.f_per_turn == pytest.approx((true[-1] - true[0]) / 1.5, abs=2.0 * valve.doubt_f)


def facts(unit=COOLER, **seen):
    return Facts(unit, seen)


def test_the_way_of_a_valve_without_answer_goes_step_by_step():
    def states(f, exercised=False, before=None):
        return [step.state for step in no_answer.way(before or f, f, exercised)]

    assert states(facts()) == ["next", "waits", "waits", "waits"]
    assert states(facts(bulb="loose")) == ["put_right", "waits", "waits", "waits"]
    supplied = {"bulb": "tight_insulated", "liquid_solenoid": "open", "drier_drop_f": 1.0}
    assert states(facts(**supplied)) == ["done", "done", "next", "waits"]
    assert states(facts(**supplied | {"drier_drop_f": 9.0}))[1] == "put_right"
    warmed = facts(**supplied, valve_response="none")
    assert states(warmed) == ["done", "done", "done", "next"]
    assert states(facts(**supplied), True, warmed) == ["done", "done", "done", "done", "next"]


def test_before_a_stem_is_opened_bulb_and_supply_are_looked_at_but_flooding_waits_only_for_the_bulb():
    assert [step.code for step in no_answer.first(facts(), opens=True)] == ["bulb", "supply"]
    assert [step.code for step in no_answer.first(facts(bulb="tight_insulated"), opens=True)] == ["supply"]
    assert no_answer.first(facts(bulb="tight_insulated"), opens=False) == []
    assert no_answer.first(facts(bulb="tight_insulated", liquid_solenoid="open", drier_drop_f=1.0), opens=True) == []


@pytest.mark.parametrize(("warmed", "after", "title"), [
    ("none", "as_expected", "Dirt, wax or ice inside"), ("none", "partial", "Dirt, wax or ice inside"),
    ("none", "none", "Power element, or the valve"), ("partial", "none", "Valve"),
])  # fmt: skip
def test_what_the_way_came_to_follows_by_rule(warmed, after, title):
    supplied = {"bulb": "tight_insulated", "liquid_solenoid": "open", "drier_drop_f": 1.0}
    found = no_answer.outcome(facts(**supplied, valve_response=warmed), facts(**supplied, valve_response=after), True)
    assert found.title == title and "Drier" in found.needs
    assert no_answer.outcome(facts(**supplied), facts(**supplied), False) is None
    assert no_answer.outcome(facts(bulb="loose"), facts(bulb="loose", valve_response=after), True) is None


def test_a_bulb_belongs_high_on_small_pipes_at_four_or_eight_on_large_never_at_the_bottom():
    small, large = bulb.place(0.625, "level"), bulb.place(1.375, "level")
    assert small.hours == ((10.0, 14.0),) and large.hours == ((3.5, 4.5), (7.5, 8.5))
    assert bulb.fits(small, "upper") and not bulb.fits(small, "lower") and bulb.fits(large, "lower")
    assert not any(bulb.fits(place, "bottom") for place in (small, large))
    assert (
        len(bulb.arcs(large)) == 2 and bulb.seen_at("bottom") == (pytest.approx(100.0), pytest.approx(169.0)) and bulb.seen_at("?") is None
    )
    for size, run_, field in ((9.0, "level", "size_in"), (0.5, "sideways", "run")):
        with pytest.raises(FieldErrors) as wrong:
            bulb.place(size, run_)
        assert list(wrong.value.by_field) == [field]


@pytest.mark.parametrize(("read", "says"), [
    ({"target_f": 7.0, "own_f": 7.5}, "On target"), ({"target_f": 7.0, "own_f": 18.0, "opening_pct": 98.0}, "gets no liquid"),
    ({"target_f": 7.0, "own_f": 1.0, "opening_pct": 10.0}, "does not close"),
    ({"target_f": 7.0, "own_f": 12.0, "opening_pct": 40.0}, "on its way"),
    ({"shows_psig": 40.0, "own_psig": 46.0}, "transducer"), ({"shows_line_f": 40.0, "own_line_f": 34.0}, "warmer than the clamp"),
    ({"shows_f": 7.0, "own_f": 14.0}, "another superheat than yours"), ({"target_f": 7.0, "own_f": 14.0}, "read how far it is open"),
])  # fmt: skip
def test_an_electronic_valve_is_told_from_its_probes(read, says):
    assert any(says in text for text in electronic.electronic_says(electronic.Read(**read)))
    assert electronic.electronic_says(electronic.Read()) == []


def test_the_drawing_holds_everything_inside_its_frame():
    points = [Point(0.0, 30.0, 40.0), Point(10.0, 24.0, 38.0), Point(50.0, 9.0, 36.5)]
    found = drawn(points, [Turned(5.0, 0.5), Turned(30.0, -0.25)], 55.0, (6.0, 12.0), TRADE)
    assert [mark.words for mark in found.marks] == ["½ out", "¼ in"]
    assert all(44.0 <= x <= 720.0 and 34.0 <= y <= 224.0 for x, y, _ in found.dots) and found.dots[0][1] < found.dots[2][1]
    assert found.band_high > 0 and found.box_low == "34" and found.minutes[0][1] == "now"
    assert drawn([], [], 0.0, (6.0, 12.0), TRADE).line == ""
