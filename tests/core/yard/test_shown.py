"""What a practice unit shows to the eye: the face of its coil, and its program."""

import pytest

from kettle.benches.ice.map import COLUMNS, ROWS, IceMap, parse
from kettle.benches.refrigerant.leaks import places_on
from kettle.knowledge.equipment import resolve
from kettle.plant.observer import stand
from kettle.plant.simulate import PRESETS
from kettle.yard.drawn import Draw, standing_as_drawn
from kettle.yard.leaking import heard_at, leaks_at
from kettle.yard.shown import alike, face, line, program, trace


def rig(kind, *wrong, hours=54.0):
    return stand(resolve(PRESETS[kind]), [(code, 1.0) for code in wrong], hours)


def test_a_face_is_a_map_that_reads_as_what_is_seen_of_the_coil():
    first = face(rig("walk_in_freezer", "liquid_restriction"))
    drawn = parse(first.rows, first.places)
    assert len(first.rows) == ROWS and all(len(row) == COLUMNS for row in first.rows)
    left, right = drawn.share(columns=slice(0, 3)), drawn.share(columns=slice(8, 10))
    assert left == 1.0 and right == 0.0, "little liquid ices the valve end"
    assert first.places["valve_outlet"] == "hard_ice" and first.places["coil_back"] == "hard_ice"
    whole = face(rig("walk_in_cooler", "evap_fan_failed"))
    assert parse(whole.rows, whole.places).share(forms=("heavy_frost", "hard_ice")) > 0.9


def test_a_melted_coil_is_bare_everywhere_and_the_same_coil_looks_the_same():
    one = rig("walk_in_freezer", "liquid_restriction")
    assert face(one) == face(one)
    one.melt_off(1.0)
    bare = face(one)
    assert set("".join(bare.rows)) == {"."} and bare.places["coil_back"] == bare.places["inside_corners"] == "none"


@pytest.mark.parametrize(("mine", "share"), [("iiiii", 1.0), ("iiii.", 0.8), (".....", 0.0)])
def test_a_painting_is_compared_cell_by_cell(mine, share):
    there = IceMap(("i" * COLUMNS,) * ROWS, {})
    assert alike(IceMap(tuple(letter * COLUMNS for letter in mine), {}), there) == pytest.approx(share)


def test_a_program_is_what_the_clock_works_by():
    starts, figures = program(rig("walk_in_freezer", hours=3.0))
    assert starts == (180, 540, 900, 1260)
    assert figures == {"fail_safe_min": 35.0, "termination_f": 55.0, "drip_min": 3.0, "fan_delay_f": 25.0, "pump_down_min": 0.0}
    stuck = program(rig("walk_in_freezer", "defrost_not_terminating", hours=3.0))[1]
    assert stuck["termination_f"] == 120.0, "no scale goes further"
    assert program(rig("walk_in_freezer", "defrost_never_starts", hours=3.0))[0] == ()
    cooler = program(rig("walk_in_cooler", hours=3.0))[1]
    assert "fan_delay_f" not in cooler


def test_a_leak_is_at_one_place_of_the_unit_and_only_it_is_heard():
    found = set()
    for number in range(1, 12):
        one = Draw(number, PRESETS["walk_in_cooler"], 85.0, "one", (("undercharge", 0.8),), (), "warm", "")
        unit = standing_as_drawn(one)
        at = leaks_at(one, unit)
        found.add(at)
        assert at in {place.code for place in places_on(unit.unit)} and leaks_at(one, standing_as_drawn(one)) == at
        assert heard_at(one, unit, at) == "twice" and heard_at(one, unit, at, "bubbles") == "bubbles"
        other = next(place.code for place in places_on(unit.unit) if place.code != at)
        assert heard_at(one, unit, other) == heard_at(one, unit, other, "bubbles") == "no"
        oil = {"at_valve_stem": "caps", "at_fitting": "flares", "at_coil": "coil_joints"}.get(unit.look("oil_trace"))
        assert oil in (None, at), "oil shows where it leaks"
    assert len(found) > 2
    sound = Draw(3, PRESETS["walk_in_cooler"], 85.0, "one", (("condenser_dirty", 0.8),), (), "warm", "")
    assert leaks_at(sound, standing_as_drawn(sound)) == ""


def test_a_trace_is_what_was_read_over_the_span_and_ends_now():
    one = rig("walk_in_cooler", hours=20.0)
    for _ in range(3):
        one.wait(1.0)
    box = trace(one, "box_temp_f", 60.0)
    assert box[-1] == (pytest.approx(0.0, abs=0.3), pytest.approx(float(one.state.air_f), abs=1e-6))
    assert [ago for ago, _ in box] == sorted(ago for ago, _ in box) and -60.0 <= box[0][0] < -50.0
    assert [round(ago, 2) for ago, _ in box[-6:]] == [-2.75, -2.0, -1.75, -1.0, -0.75, 0.0]
    suction = trace(one, "suction_psig", 60.0)
    evaporating = float(one.state.sst_f)
    assert suction[-1][1] == pytest.approx(one.unit.refrigerant.dew_psig(evaporating, one.unit.altitude_ft), abs=0.2)
    assert trace(one, "sight_glass", 60.0) == []


def test_a_line_has_now_at_its_right_and_its_middle_half_way_up():
    assert line([(-60.0, 40.0), (-30.0, 38.0), (0.0, 44.0)], 60.0, 120.0, 30.0, 2.0) == "0.0,20.0 60.0,30.0 120.0,0.0"
    assert line([(-30.0, 40.0), (0.0, 41.0)], 60.0, 120.0, 30.0, 2.0) == "60.0,22.5 120.0,7.5", "no finer than it is read"
    assert line([(0.0, 40.0)], 60.0, 120.0, 30.0, 2.0) == ""
