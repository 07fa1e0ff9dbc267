import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.defrost import dial, edit, timeline
from kettle.benches.defrost.program import DAY_MIN, ROLES, Hours, Program, clock, concerns, no_stronger, parse_clock, parse_starts, times
from kettle.electrical.windings import mismatch_pct
from kettle.judging.electrics import imbalance_pct
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import ShownUnits

FREEZER = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", defrost="electric", set_f=-5))
COOLER = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", defrost="off_cycle"))
GOOD = {"fail_safe_min": 30.0, "termination_f": 55.0, "drip_min": 3.0, "fan_delay_f": 25.0, "alarm_delay_min": 60.0}


@pytest.mark.parametrize(
    ("typed", "starts"),
    [
        ("4 a day", (0, 360, 720, 1080)),
        ("06:30 14.00 2200", (390, 840, 1320)),
        ("0", ()),
        ("", ()),
        ("6:00, 6:00", (360,)),
        ("3x", (0, 480, 960)),
    ],
)
def test_starts_are_understood(typed, starts):
    assert parse_starts(typed) == starts


@pytest.mark.parametrize("typed", ["25:00", "noon", "12:75", "06:00 x"])
def test_what_is_no_time_is_refused(typed):
    with pytest.raises(InputError, match="no time of day"):
        parse_starts(typed)


@given(st.integers(0, DAY_MIN - 1))
def test_a_time_of_day_reads_back(minutes):
    assert parse_clock(clock(minutes)) == minutes


def said(values, starts=(0, 300, 720, 1140), unit=FREEZER, seen=None, hours=None):
    return {concern.role: concern.text for concern in concerns(Program(tuple(starts), GOOD | values), unit, seen or {}, hours or Hours())}


def test_a_sound_program_goes_against_nothing():
    assert said({}) == {}


@pytest.mark.parametrize(
    ("values", "more", "role", "text"),
    [
        ({"drip_min": 0.0}, {}, "drip_min", "No drip"),
        ({"fan_delay_f": 40.0}, {}, "fan_delay_f", "wet coil"),
        ({"termination_f": 34.0}, {}, "termination_f", "far end"),
        ({"termination_f": 90.0}, {}, "termination_f", "steam"),
        ({"alarm_delay_min": 20.0}, {}, "alarm_delay_min", "rings at each"),
        ({}, {"seen": {"coil_after_defrost": "part_iced", "defrost_ended_by": "time"}}, "fail_safe_min", "shorter than the coil needs"),
        ({"fail_safe_min": 45.0}, {"seen": {"defrost_ran_min": 24.0, "coil_after_defrost": "clear", "defrost_ended_by": "termination"}},
         "fail_safe_min", "28 to 30 min would do"),
        ({"fail_safe_min": 20.0}, {"seen": {"defrost_ran_min": 24.0, "coil_after_defrost": "clear", "defrost_ended_by": "termination"}},
         "fail_safe_min", "need 24 min"),
        ({}, {"hours": Hours(480, 1080, (310,))}, "starts", "Meets a delivery: 05:00"),
        ({}, {"hours": Hours(480, 1080, (1435,))}, "starts", "Meets a delivery: 00:00"),
        ({}, {"starts": (0, 60, 720)}, "starts", "60 min apart"),
        ({}, {"starts": ()}, "starts", "No start"),
        ({}, {"unit": resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", defrost="timed_air"))}, "starts", "melts nothing"),
    ],
)  # fmt: skip
def test_each_concern_is_told(values, more, role, text):
    assert text in said(values, **more)[role]


def test_minutes_of_air_defrosts_are_held_against_what_cleared_the_coil():
    room = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", defrost="timed_air"))
    seen = {"defrost_ran_min": 25.0, "coil_after_defrost": "clear", "defrost_ended_by": "time"}
    told = {
        minutes: [c.text for c in concerns(Program((0, 720), {"fail_safe_min": minutes}), room, seen)] for minutes in (15.0, 25.0, 90.0)
    }
    assert told[15.0] == ["The coil was seen clear after 25 min: no shorter one is proved"]
    assert told[25.0] == [] and told[90.0][0].startswith("Far over the 25 min it takes")


def test_an_off_cycle_coil_needs_no_starts():
    assert concerns(Program((), {}), COOLER, {}) == []
    assert not ROLES["drip_min"].exists_on(COOLER)


def test_roles_refuse_with_range_in_the_persons_unit():
    assert ROLES["termination_f"].parse("13", ShownUnits("°C")) == pytest.approx(55.4)
    assert ROLES["drip_min"].parse(" ") is None
    with pytest.raises(InputError, match="Fail-safe: 999.0 min is outside 1 to 240 min"):
        ROLES["fail_safe_min"].parse("999")


@given(st.lists(st.integers(0, DAY_MIN - 1), max_size=12, unique=True), st.floats(1, 240), st.floats(0, 30))
def test_the_dial_draws_any_program(starts, heat, drip):
    program = Program(tuple(sorted(starts)), {"fail_safe_min": heat, "drip_min": drip})
    shapes = dial.marks(program, program, Hours(480, 1080, (420,)))
    arcs = dial.arcs(program)
    assert [arc.start_min for arc in arcs] == sorted(starts)
    assert sum(mark.kind == "found" for mark in shapes) == len(starts)
    assert all("nan" not in path and path.startswith("M") for path in (*(arc.heat for arc in arcs), *(mark.path for mark in shapes)))
    assert len(dial.ticks()) == 24


def test_midnight_is_at_the_top_and_six_at_the_right():
    assert dial.point(0, 100) == pytest.approx((dial.CENTRE, dial.CENTRE - 100))
    assert dial.point(360, 100) == pytest.approx((dial.CENTRE + 100, dial.CENTRE))


def test_volts_and_windings_by_hand():
    assert imbalance_pct([231.0, 204.0, 214.0]) == pytest.approx(6.78, abs=0.01)
    assert mismatch_pct([4.1, 1.4, 5.5]) == pytest.approx(0.0, abs=1e-9)
    assert mismatch_pct([4.1, 1.4, 9.0]) == pytest.approx(38.9, abs=0.1)


def test_curves_stand_on_one_scale_and_the_box_limit_is_drawn_where_it_lies_between():
    minutes = [0.0, 360.0, 720.0, 1080.0]
    days = [dial.Day("found", minutes, [0.0, 4.0, 0.0, 2.0], [0.0] * 4), dial.Day("left", minutes, [1.0] * 4, [20.0] * 4)]
    made = dial.traces(days, 10.0)
    # Frost at 4 lb of 4 touches the ring's outer edge at 06:00, on the right.
    assert f"{dial.CENTRE + dial.FROST_RING[1]:.1f} {dial.CENTRE:.1f}" in made.sides[0].frost
    assert f"{dial.CENTRE:.1f} {dial.CENTRE - dial.BOX_RING[1]:.1f}" in made.sides[1].box
    assert made.limit and not dial.traces(days, 40.0).limit
    assert "4.0 lb" in made.sides[0].words and made.frost_scale == "ring to 4.0 lb" and made.box_scale == "ring 0 to 20 °F"
    assert dial.traces([], 10.0) is None


FOUR = Program((0, 360, 720, 1080), {"fail_safe_min": 30.0, "drip_min": 3.0})


def test_a_hand_moves_stretches_adds_and_takes_out_defrosts():
    right, below = dial.point(360, 160), dial.point(450, 160)
    assert edit.minutes_at(right) == pytest.approx(360)
    assert edit.dragged(FOUR, 1, right, below).starts_min == (0, 450, 720, 1080)
    assert edit.dragged(FOUR, 1, right, dial.point(443, 100), 60).starts_min == (0, 420, 720, 1080)
    assert edit.nudged(FOUR, 0, -1).starts_min == (360, 720, 1080, 1435)
    assert edit.stretched(FOUR, 3, dial.point(1080 + 42.3, 150)).values["fail_safe_min"] == 42
    assert edit.stretched(FOUR, 3, dial.point(1070, 150)).values["fail_safe_min"] == 1
    assert edit.longer(FOUR, -5).values["fail_safe_min"] == 25
    assert edit.without(FOUR, 2).starts_min == (0, 360, 1080)
    assert edit.with_one_more(edit.without(FOUR, 2)).starts_min == (0, 360, 720, 1080)
    assert edit.with_one_more(Program((), {})).starts_min == (0,)
    with pytest.raises(InputError, match="not in the program"):
        edit.nudged(FOUR, 4, 1)


@given(st.integers(0, 3), st.floats(0, DAY_MIN), st.floats(0, DAY_MIN))
def test_a_dragged_program_stays_one(place, grabbed, dropped):
    moved = edit.dragged(FOUR, place, dial.point(grabbed, 150), dial.point(dropped, 150))
    assert 3 <= len(moved.starts_min) <= 4 and list(moved.starts_min) == sorted(set(moved.starts_min))
    assert all(0 <= start < DAY_MIN and start % edit.GRID_MIN == 0 for start in moved.starts_min)
    assert dict(moved.values) == dict(FOUR.values)


def test_a_plan_leaves_what_it_does_not_speak_of_and_stretches_a_short_alarm():
    found = Program((0,), {"fail_safe_min": 45.0, "alarm_delay_min": 20.0, "pump_down_min": 2.0, "demand_pct": 30.0})
    merged = edit.over(found, FOUR)
    assert merged.starts_min == FOUR.starts_min
    # 30 min and 3 of drip, 15 over, on fives: 50.
    assert dict(merged.values) == {
        "fail_safe_min": 30.0, "drip_min": 3.0, "alarm_delay_min": 50.0, "pump_down_min": 2.0, "demand_pct": 0.0
    }  # fmt: skip
    assert edit.over(None, FOUR) is FOUR


def test_starts_are_written_one_way_and_read_back():
    eight = (0, 180, 360, 540, 720, 900, 1080, 1275)
    assert times(eight) == "00:00 03:00 06:00 09:00 12:00 15:00 18:00 21:15"
    assert parse_starts(times(eight)) == eight
    assert times((120, 630)) == "02:00 10:30"


def test_the_line_of_a_watched_defrost():
    made = timeline.line({"first_drip_min": (8, 6, 10), "clear_min": (15, 12, 20)}, {"drip": 7.0}, 24.0)
    drip, clear, ended = made.stones
    # The line is 30 min × 1.2 long.
    assert (made.now_pct, made.gone_min) == (pytest.approx(66.67, abs=0.01), 24)
    assert (drip.came_pct, drip.late) == (pytest.approx(19.44, abs=0.01), False)
    assert clear.late and clear.from_pct == pytest.approx(33.33, abs=0.01)
    assert ended.expected_min is None and not ended.late


def test_a_program_a_coil_was_found_iced_by_is_never_nothing_to_set_right():
    seen = {"coil_after_defrost": "clear", "defrost_ended_by": "termination", "defrost_ran_min": 20.0}
    program = Program((0, 360, 720, 1080), GOOD)
    (said_of,) = concerns(program, FREEZER, seen, against="the coil was found iced by it")
    assert said_of.text == "The coil was found iced by it"
    assert concerns(program, FREEZER, seen) == []


def test_what_was_seen_to_end_by_temperature_is_not_ended_by_the_clock_alone():
    unsaid = Program((0, 720), {name: value for name, value in GOOD.items() if name != "termination_f"})
    assert [one.role for one in concerns(unsaid, FREEZER, {})] == ["termination_f"]
    assert concerns(unsaid, FREEZER, {"defrost_ended_by": "termination"}) == []
    assert [one.role for one in concerns(unsaid, FREEZER, {"defrost_ended_by": "time"})] == ["termination_f"]


def test_only_a_program_no_stronger_than_one_that_left_ice_is_disproved_by_it():
    shown = Program((0, 720), {"fail_safe_min": 30.0, "termination_f": 55.0})
    assert no_stronger(shown, shown) and no_stronger(Program((0,), {"fail_safe_min": 30.0, "termination_f": 55.0}), shown)
    for more in (Program((0, 480, 960), shown.values), Program((0, 720), {"fail_safe_min": 31.0, "termination_f": 55.0}),
                 Program((0, 720), {"fail_safe_min": 30.0, "termination_f": 56.0}), Program((), {"demand_pct": 30.0})):  # fmt: skip
        assert not no_stronger(more, shown)
