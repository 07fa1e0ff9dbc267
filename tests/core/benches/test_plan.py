"""The planner on the plant model: what is known and not, a week of a program, each school's program, which to take, what would help."""

from dataclasses import replace
from functools import cache

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.defrost import proposals
from kettle.benches.defrost.plan import against, plan
from kettle.benches.defrost.program import DAY_MIN, Hours, Program, parse_starts
from kettle.benches.defrost.situation import DOUBTS, UNWATCHED, WATCHED, Watched, calibrated, cured, plant_of, situation
from kettle.benches.defrost.watch import expected
from kettle.benches.defrost.week import look_ahead
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError, Stopped
from kettle.knowledge.measures import TRADE
from kettle.plant.sizing import sized
from tests.examples import at_most

FREEZER = resolve(UnitSpec("walk_in_freezer", "R-404A", compressor_rla_a=14.0, phases=3))
AIR_COOLER = resolve(UnitSpec("walk_in_cooler", "R-448A", compressor_rla_a=9.4, phases=3, defrost="timed_air"))
HOURS = Hours(420, 1110, (390, 780))
TOO_MUCH = Program(parse_starts("8 a day"), {"fail_safe_min": 45.0, "termination_f": 85.0, "drip_min": 0.0, "fan_delay_f": 40.0})
RIGHT = Program(parse_starts("4 a day"), {"fail_safe_min": 25.0, "termination_f": 55.0, "drip_min": 3.0, "fan_delay_f": 25.0})


def asked(unit=FREEZER, seen=None, derived=None, hours=HOURS):
    return situation(unit, seen or {}, derived or {}, hours)


@cache
def planned(kind):
    """Plans are worth keeping: each takes a second or two."""
    if kind == "freezer":
        return plan(asked(), TOO_MUCH)
    if kind == "dead heater":
        return plan(asked(derived={"heater_pct": 8.0}), TOO_MUCH)
    if kind == "open door":
        return plan(asked(seen={"door": "left_open", "door_traffic": "heavy"}), TOO_MUCH)
    return plan(asked(replace(AIR_COOLER, set_f=30.0)), Program((0, 720), {"fail_safe_min": 15.0}))


def test_what_was_seen_makes_the_situation():
    found = asked(seen={"door_traffic": "heavy", "strip_curtain": "missing", "ambient_f": 95.0, "heater_rated_w": 4500.0},
                  derived={"heater_pct": 66.0})  # fmt: skip
    assert found.moisture == pytest.approx(1.8 * 1.4)
    propped = asked(seen={"door_open_h": 2.0})
    assert propped.moisture == pytest.approx(4.0) and propped.doors == ((4.0, "keep the door shut between goods"),)
    assert (found.outside_f, found.working) == (95.0, pytest.approx(0.66))
    plant = plant_of(found)
    # 4,500 W are 15,354 Btu/h; two thirds of them work.
    assert plant.parts.heater_btu_h[0] == pytest.approx(15354 * 0.66, rel=1e-3)
    assert plant.count == len(DOUBTS)
    with pytest.raises(InputError, match="no defrost to plan"):
        asked(replace(FREEZER, defrost="none"))


def test_too_many_and_too_long_defrosts_only_add_heat():
    found, right = look_ahead(asked(), [TOO_MUCH, RIGHT])
    assert found.heat_kwh.middle > 2 * right.heat_kwh.middle
    assert found.runs_on_min.middle > 10 > right.runs_on_min.middle
    assert found.box_peak_f.middle > right.box_peak_f.middle
    assert found.ceiling_lb.middle > right.ceiling_lb.middle
    assert found.power_kwh.middle > right.power_kwh.middle
    assert right.frost_lb.middle > found.frost_lb.middle
    assert (found.starts_a_day.middle, right.starts_a_day.middle) == (8.0, 4.0)
    for week in (found, right):
        assert week.wins and week.left_lb.middle == 0
        for span in (week.frost_lb, week.clear_min, week.heat_kwh):
            assert span.low <= span.middle <= span.high
        assert len(week.curve.minutes) == len(week.curve.frost_lb) and sorted(week.curve.minutes) == list(week.curve.minutes)


def test_a_defrost_cut_short_leaves_ice_that_grows():
    short = Program(RIGHT.starts_min, {**RIGHT.values, "fail_safe_min": 8.0})
    week = look_ahead(asked(), [short], doubts=DOUBTS[:1])[0]
    days = look_ahead(asked(), [short], days=3, doubts=DOUBTS[:1])[0]
    assert week.left_lb.middle > days.left_lb.middle > 0
    assert week.by_time.middle == 1.0 and week.margin_min.middle < 0 and not week.wins


def test_the_plan_takes_less_heat_and_says_why():
    made = planned("freezer")
    taken, found = made.choice(made.take), made.choice("found")
    assert {choice.code for choice in made.choices} == {"found", *(school.code for school in proposals.SCHOOLS)}
    assert made.take in ("few_long", "as_needed") and not made.cures
    assert taken.outlook.heat_kwh.middle < found.outlook.heat_kwh.middle / 2
    assert taken.outlook.kept == (True, True)
    assert any("less heat into the box than as found" in reason for reason in made.reasons)
    assert any("after the coil is clear" in text for text in found.against)
    # A fail-safe sits a little over what the coil needs, and on fives.
    for choice in made.choices[1:]:
        fail_safe, needs = choice.outlook.program.values["fail_safe_min"], choice.outlook.clear_min
        assert fail_safe % 5 == 0 and needs.middle <= fail_safe <= max(2.2 * needs.middle, needs.high + 15)
    assert "needs a controller" in made.choice("demand").against[-1]


def test_a_program_that_wins_already_is_left():
    made = plan(asked(replace(AIR_COOLER, defrost="off_cycle")), Program((), {}))
    assert made.take == "found" and "Leave it as it was found" in made.reasons[0]
    assert made.choice("as_needed").outlook.program == Program((), {})


def test_no_program_wins_without_a_heater_and_mending_it_is_tried():
    made = planned("dead heater")
    assert made.take == "" and "No program wins" in made.cures[0]
    assert not made.choice("found").outlook.clears and planned("freezer").choice("found").outlook.clears
    assert any(line.startswith("Put the heater right: then a program wins") for line in made.cures)


def test_no_program_wins_against_an_open_door_and_shutting_it_is_tried():
    made = planned("open door")
    assert made.take == ""
    assert any(line.startswith("Shut the door: then a program wins") for line in made.cures)
    assert set(cured(asked(seen={"door": "left_open", "door_traffic": "heavy"}))) >= {"shut the door", "halve the traffic through the door"}


def test_air_below_freezing_melts_nothing():
    made = planned("frozen air")
    assert made.take == "" and "melts nothing" in made.cures[0]
    assert not made.choice("found").outlook.wins


def test_an_air_defrost_with_too_little_time_is_given_enough():
    damp = asked(AIR_COOLER, {"door": "gasket_gap", "door_traffic": "heavy"})
    made = plan(damp, Program((0, 720), {"fail_safe_min": 15.0, "termination_f": 38.0}))
    assert not made.choice("found").outlook.kept[1]
    assert made.choice(made.take).outlook.kept == (True, True)


def test_limits_are_kept():
    made = plan(asked(), TOO_MUCH, proposals.Limits(whole_hours=True, box_limit_f=-4.0, can_demand=True))
    for choice in made.choices[1:]:
        assert all(start % 60 == 0 for start in choice.outlook.program.starts_min)
    assert any("over its limit of −4 °F" in text for choice in made.choices for text in choice.against)
    assert made.choice("demand").against == tuple(t for t in made.choice("demand").against if "needs a controller" not in t)


@given(st.integers(1, 12), st.floats(5, 60), st.lists(st.integers(0, DAY_MIN - 1), max_size=3), st.booleans())
def test_starts_lie_on_the_clocks_grid_and_off_deliveries_where_they_can(count, length, deliveries, whole):
    starts = proposals.place_starts(count, length, Hours(420, 1110, tuple(deliveries)), whole)
    assert list(starts) == sorted(set(starts)) and 1 <= len(starts) <= count
    assert all(start % (60 if whole else 30) == 0 and 0 <= start < DAY_MIN for start in starts)
    if count <= 2:
        assert all(not 0 <= (start - at + 45) % DAY_MIN < 90 for start in starts for at in deliveries)


def test_it_tells_how_far_it_is_and_stops_when_told():
    shares = []
    plan(asked(), None, tell=shares.append)
    assert shares == sorted(shares) and shares[-1] == pytest.approx(1.0) and len(shares) == 10

    def enough(share):
        if share > 0.3:
            raise Stopped

    with pytest.raises(Stopped):
        plan(asked(), None, tell=enough)


def test_watched_defrosts_fit_the_moisture_and_narrow_the_doubt():
    sees = expected(asked(), RIGHT)
    assert sees.first_drip_min.middle < sees.clear_min.middle < sees.end_min.middle and not sees.by_time
    usual = look_ahead(asked(), [RIGHT], 2, DOUBTS[:1])[0].clear_min.middle
    damp = calibrated(asked(), RIGHT, [Watched(30.0, False, clear_min=usual * 1.3, left_clear=True)])
    dry = calibrated(asked(), RIGHT, [Watched(12.0, False, clear_min=usual * 0.6, left_clear=True)])
    assert dry.moisture < 1.0 < damp.moisture
    assert (asked().moisture_spread, damp.moisture_spread, damp.watched) == (UNWATCHED, WATCHED, 1)
    # The model now needs about as long as was watched.
    again = expected(damp, RIGHT)
    assert again.clear_min.middle == pytest.approx(usual * 1.3, rel=0.3)
    # Cut off by time with ice left: it needed longer than it ran. Cut off with a clear coil says nothing.
    assert calibrated(asked(), RIGHT, [Watched(25.0, True, left_clear=False)]).moisture > 1.0
    assert calibrated(asked(), RIGHT, [Watched(25.0, True, left_clear=True)]) == asked()
    assert calibrated(asked(), Program((), {}), [Watched(25.0, False)]) == asked()


def test_a_box_warmer_than_the_model_holds_is_said_and_moves_nothing():
    warm, cold = (calibrated(asked(), RIGHT, (), iced=False, box_f=box) for box in (40.0, -4.0))
    assert any("something else warms it" in words for words in warm.fit) and warm.moisture == cold.moisture
    assert not any("warms" in words for words in cold.fit)


def test_what_speaks_against_a_program_is_in_the_persons_units():
    short = Program(RIGHT.starts_min, {**RIGHT.values, "fail_safe_min": 8.0})
    week = look_ahead(asked(), [short], 3, DOUBTS[:1])[0]
    metric = replace(TRADE, mass="kg")
    assert "kg of ice stays" in against(week, "found", asked(), proposals.USUAL, metric)[0]
    assert "lb of ice stays" in against(week, "found", asked(), proposals.USUAL, TRADE)[0]


def test_nothing_is_expected_of_a_program_that_never_starts():
    assert expected(asked(), Program((), {"fail_safe_min": 30.0})) is None


PROGRAMS = st.builds(
    lambda starts, fail_safe, ends, drip, back, empties: Program(
        tuple(sorted(starts)),
        {"fail_safe_min": fail_safe, "termination_f": ends, "drip_min": drip, "fan_delay_f": back, "pump_down_min": empties},
    ),
    st.sets(st.integers(0, DAY_MIN - 1), max_size=12), st.floats(1, 120), st.floats(33, 110), st.floats(0, 20), st.floats(-30, 60),
    st.floats(0, 10),
)  # fmt: skip


@at_most(25)
@given(PROGRAMS, st.sampled_from([FREEZER, replace(FREEZER, defrost="hot_gas"), AIR_COOLER]), st.floats(0.3, 4.0), st.floats(0.0, 1.0))
def test_any_program_on_any_unit_can_be_lived_for_a_day(program, unit, moisture, working):
    week = look_ahead(replace(asked(unit), moisture=moisture, working=working), [program], 1)[0]
    for name in ("frost_lb", "blocked", "clear_min", "box_peak_f", "heat_kwh", "power_kwh", "ceiling_lb", "left_lb", "starts_a_day"):
        span = getattr(week, name)
        assert span.low <= span.middle <= span.high and abs(span.high) < 1e4, name
    assert 0 <= week.blocked.high <= 1 and week.left_lb.low >= 0 and week.frost_lb.low >= 0
    assert week.starts_a_day.high <= len(program.starts_min)
    assert all(-60 < box < 120 for box in week.curve.box_f)


@given(st.floats(0.5, 3.0))
@at_most(8)
def test_more_moisture_is_more_frost(factor):
    less, more = (look_ahead(replace(asked(), moisture=moisture), [RIGHT], 1, DOUBTS[:1])[0] for moisture in (factor, 1.4 * factor))
    assert more.frost_lb.middle > less.frost_lb.middle


def test_watching_exactly_what_was_predicted_changes_next_to_nothing():
    for moisture in (0.7, 1.0, 2.5):
        given = replace(asked(), moisture=moisture)
        sees = expected(given, RIGHT)
        as_told = calibrated(given, RIGHT, [Watched(sees.end_min.middle, False, clear_min=sees.clear_min.middle, left_clear=True)])
        assert as_told.moisture == pytest.approx(moisture, rel=0.2)
        assert "the model says" in as_told.fit[0]


def test_a_coil_found_iced_is_damper_than_one_found_bare():
    short = Program(parse_starts("2 a day"), RIGHT.values | {"fail_safe_min": 16.0})
    iced, bare = (calibrated(asked(), short, (), found) for found in (True, False))
    assert iced.moisture > 1.03 and bare.moisture < 0.7, "it leaves ice in the model, unless the place is dry"
    assert (iced.moisture_spread, iced.watched, iced.unexplained) == (UNWATCHED, 0, False), "ice alone narrows nothing"
    assert iced.fit == ("Found iced; the model leaves ice by that program",)
    assert calibrated(asked(), TOO_MUCH, (), True).unexplained, "eight long defrosts cannot have left that ice in the model"


def test_a_program_the_site_has_disproved_is_never_recommended():
    given = replace(asked(), disproved=((TOO_MUCH, "the coil was found iced by it"),))
    made = plan(given, TOO_MUCH)
    assert made.take != "found" and made.choice("found").against[0] == "the coil was found iced by it"
    assert given.against(RIGHT), "fewer, shorter and cooler than one that left ice"
    assert not given.against(Program(TOO_MUCH.starts_min, TOO_MUCH.values | {"fail_safe_min": 60.0}))
    assert not given.against(Program((), {"demand_pct": 40.0}))
    assert all(not given.against(choice.outlook.program) for choice in made.choices if choice.code == made.take)


def test_air_needs_as_long_for_its_frost_as_hand_worked():
    """Of the worst frost of a week: its heat of melting, and the metal's, by what air a few degrees over freezing gives the coil."""
    unit = resolve(UnitSpec("walk_in_cooler", "R-448A", defrost="timed_air", set_f=36))
    asked = situation(unit, {"ambient_f": 85.0}, {}, Hours())
    (by_clock,) = look_ahead(asked, [Program((0, 480, 960), {"fail_safe_min": 40.0})], 3, DOUBTS[:1])
    parts = sized(unit).parts[0]
    frost_lb, minutes = by_clock.frost_lb.middle, by_clock.clear_min.middle
    # 144 Btu melt a pound; the coil comes up from 11 °F under the box. Air between 35 and 40 °F gives it 3 to 8 °F over freezing.
    heat_btu = 144.0 * frost_lb + float(parts.metal_btu_f) * 9.0
    fastest, slowest = (60.0 * heat_btu / (float(parts.coil_air) * over_f) for over_f in (8.0, 2.0))
    assert frost_lb > 1.0 and 0.8 * fastest < minutes < 1.5 * slowest
    # More frost takes longer, however the clock meets the off-cycles.
    damp = situation(unit, {"ambient_f": 85.0, "door_traffic": "heavy"}, {}, Hours())
    (wet,) = look_ahead(damp, [Program((0, 480, 960), {"fail_safe_min": 40.0})], 3, DOUBTS[:1])
    assert wet.frost_lb.middle > frost_lb and wet.clear_min.middle > minutes


def test_the_program_as_left_is_a_row_of_its_own():
    unit = resolve(UnitSpec("walk_in_cooler", "R-448A", defrost="timed_air", set_f=36))
    asked = situation(unit, {"ambient_f": 85.0}, {}, Hours())
    found, left = Program((0,), {"fail_safe_min": 15.0}), Program((0, 480, 960), {"fail_safe_min": 30.0})
    made = plan(asked, found, left=left)
    assert [(one.code, one.label) for one in made.choices[:2]] == [("found", "As found"), ("left", "As left")]
    assert "time without cooling" in made.choice("as_needed").says
    assert not any("heat" in text for one in made.choices for text in one.against)
    assert [one.code for one in plan(asked, found, left=found).choices].count("left") == 0
