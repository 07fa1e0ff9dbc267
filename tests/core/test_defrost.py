import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.defrost import dial
from kettle.defrost.program import DAY_MIN, ROLES, Hours, Program, clock, concerns, parse_clock, parse_starts
from kettle.electrics import heater_bank, imbalance_pct, winding_mismatch_pct
from kettle.errors import InputError
from kettle.unit import UnitSpec, resolve
from kettle.units import ShownUnits

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
    assert sum(mark.kind == "heat" for mark in shapes) == sum(mark.kind == "found" for mark in shapes) == len(starts)
    assert all("nan" not in mark.path and mark.path.startswith("M") for mark in shapes)
    assert len(dial.ticks()) == 24


def test_midnight_is_at_the_top_and_six_at_the_right():
    assert dial.point(0, 100) == pytest.approx((dial.CENTRE, dial.CENTRE - 100))
    assert dial.point(360, 100) == pytest.approx((dial.CENTRE + 100, dial.CENTRE))


def test_a_heater_bank_by_hand():
    # 5,200 W at 230 V: 22.6 A on one phase, 13.05 A on three; each of three elements 1,733 W, 30.5 Ω.
    one, three = heater_bank(230, 5200, 3, 1, 15.07), heater_bank(230, 5200, 3, 3, None)
    assert one.expected_amps == pytest.approx(22.61, abs=0.01)
    assert three.expected_amps == pytest.approx(13.05, abs=0.01)
    assert one.element_ohms == pytest.approx(30.5, abs=0.1)
    assert one.working == pytest.approx(2.0, abs=0.01)
    assert three.working is None
    with pytest.raises(InputError, match="above 0"):
        heater_bank(230, 0, 3, 1, None)


def test_volts_and_windings_by_hand():
    assert imbalance_pct([231.0, 204.0, 214.0]) == pytest.approx(6.78, abs=0.01)
    assert winding_mismatch_pct([4.1, 1.4, 5.5]) == pytest.approx(0.0, abs=1e-9)
    assert winding_mismatch_pct([4.1, 1.4, 9.0]) == pytest.approx(38.9, abs=0.1)
