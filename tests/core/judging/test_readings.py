"""Derived quantities against examples worked by hand from the refrigerants' published saturation."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.judging import readings
from kettle.judging.judge import judge
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.quantities import QUANTITIES
from tests.core.judging.faults import COOLER, FREEZER, sound, unit_of


def test_a_starved_walk_in_freezer_by_hand():
    # R-404A: dew at 10.0 psig is -29.4 °F, bubble at 213 psig is 92.7 °F.
    unit = unit_of(FREEZER)
    seen = {
        "suction_psig": 10.0,
        "discharge_psig": 213.0,
        "suction_line_evap_f": -1.4,
        "suction_line_comp_f": 12.6,
        "liquid_line_f": 86.7,
        "box_temp_f": 3.0,
        "ambient_f": 75.0,
        "compressor_amps": 7.0,
    }
    derived = readings.derive(unit, seen)
    assert derived["sst_f"] == pytest.approx(-29.4, abs=0.3)
    assert derived["superheat_evap_f"] == pytest.approx(28.0, abs=0.3)
    assert derived["superheat_comp_f"] == pytest.approx(42.0, abs=0.3)
    assert derived["line_gain_f"] == pytest.approx(14.0)
    assert derived["subcooling_f"] == pytest.approx(6.0, abs=0.2)
    assert derived["td_f"] == pytest.approx(32.4, abs=0.3)
    assert derived["split_f"] == pytest.approx(17.7, abs=0.2)
    assert derived["ratio"] == pytest.approx((213 + 14.696) / (10 + 14.696), abs=0.001)
    assert derived["amps_pct"] == pytest.approx(50.0)


def test_superheat_uses_dew_and_subcooling_bubble_on_a_blend_with_glide():
    # R-448A at 31 psig: dew 7.9 °F, bubble about -3.4 °F. With bubble, superheat would read 11 °F too much.
    unit = unit_of(COOLER)
    derived = readings.derive(unit, {"suction_psig": 31.0, "suction_line_evap_f": 16.9, "discharge_psig": 250.0, "liquid_line_f": 95.0})
    assert derived["superheat_evap_f"] == pytest.approx(9.0, abs=0.2)
    assert derived["subcooling_f"] == pytest.approx(unit.refrigerant.bubble_f(250.0) - 95.0)


def test_return_air_goes_before_box_air_and_liquid_gauge_before_discharge():
    unit = unit_of(COOLER)
    derived = readings.derive(
        unit,
        {"suction_psig": 50.0, "box_temp_f": 40.0, "return_air_f": 38.0, "supply_air_f": 30.0, "discharge_psig": 250.0,
         "liquid_psig": 240.0, "liquid_line_f": 90.0},
    )  # fmt: skip
    assert derived["td_f"] == pytest.approx(38.0 - derived["sst_f"])
    assert derived["delta_t_f"] == pytest.approx(8.0)
    assert derived["subcooling_f"] == pytest.approx(unit.refrigerant.bubble_f(240.0) - 90.0)


def test_altitude_moves_saturation():
    high = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", altitude_ft=5000))
    sea = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A"))
    at_5000, at_sea = (readings.derive(unit, {"suction_psig": 10.0})["sst_f"] for unit in (high, sea))
    assert 3 < at_sea - at_5000 < 6


def test_what_cannot_be_worked_out_is_left_out():
    assert readings.derive(unit_of(FREEZER), {}) == {}
    only = readings.derive(unit_of(FREEZER), {"suction_line_evap_f": 10.0, "compressor_amps": 5.0, "sight_glass": "clear"})
    assert set(only) == {"amps_pct"}


def test_expected_head_is_saturation_at_air_plus_normal_split():
    unit = unit_of(FREEZER)
    derived = readings.derive(unit, {"ambient_f": 75.0})
    assert derived["expected_head_psig"] == pytest.approx(unit.refrigerant.bubble_psig(75.0 + 18.5))


def test_a_water_cooled_unit_has_no_air_split():
    unit = resolve(UnitSpec(kind="provision_room_freezer", refrigerant="R-404A"))
    assert "split_f" not in readings.derive(unit, {"discharge_psig": 200.0, "ambient_f": 80.0})


@given(st.floats(-20, 40), st.floats(0, 40))
def test_superheat_comes_back_as_it_was_built(td, superheat):
    derived = readings.derive(unit_of(COOLER), sound(COOLER, td=td, superheat=superheat))
    assert derived["superheat_evap_f"] == pytest.approx(superheat, abs=1e-6)
    assert derived["td_f"] == pytest.approx(td, abs=1e-6)


@given(st.floats(-14.7, 250), st.floats(-14.7, 650), st.floats(-60, 150), st.floats(-500, 12000))
def test_no_in_range_reading_crashes(suction, discharge, line, altitude):
    unit = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", altitude_ft=altitude))
    derived = readings.derive(unit, {"suction_psig": suction, "discharge_psig": discharge, "suction_line_evap_f": line})
    assert set(derived) <= set(QUANTITIES)


def test_what_one_observation_says_of_another():
    assert readings.implied_by("box_temp_f", {"box_temp_f": 37.5}) == {}
    assert readings.implied_by("box_temp_f", {"box_temp_f": 37.5, "display_temp_f": 34.0}) == {"sensor_error_f": -3.5}
    assert readings.implied_by("fans_still", {"fans_still": ("fan_2",)}) == {"evap_fans": "some_stopped"}
    assert readings.implied_by("fans_still", {"fans_still": ("none",)}) == {"evap_fans": "running"}
    assert readings.implied_by("ambient_f", {"ambient_f": 80.0, "fans_still": ("fan_1",)}) == {}


def test_what_a_probe_set_shows_is_superheat_and_subcooling_until_both_readings_are_taken_anew():
    unit = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-404A"))
    read = readings.work_out(unit, {"superheat_read_f": 28.0, "subcooling_read_f": 9.0})
    assert read.derived["superheat_evap_f"] == 28.0 and read.derived["subcooling_f"] == 9.0
    both = {"superheat_read_f": 28.0, "suction_psig": 50.0, "suction_line_evap_f": 40.0}
    worked_out = readings.work_out(unit, {key: value for key, value in both.items() if key != "superheat_read_f"}).derived[
        "superheat_evap_f"
    ]
    older = {"superheat_read_f": 30.0, "suction_psig": 5.0, "suction_line_evap_f": 4.0}
    assert readings.work_out(unit, both, older).derived["superheat_evap_f"] == worked_out != 28.0
    assert readings.work_out(unit, both, older | {"superheat_read_f": 1.0}).derived["superheat_evap_f"] == 28.0


def test_a_suction_regulator_that_holds_back_is_told_by_the_pressures_on_both_its_sides():
    unit = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-404A"))
    seen = {"regulator_before_psig": 48.0, "regulator_after_psig": 24.0}
    assert readings.derive(unit, seen)["regulator_drop_psi"] == 24.0
    starved = {"box_temp_f": 44.0, "suction_psig": 24.0, "suction_line_evap_f": 38.0, "sight_glass": "clear", "evap_fans": "running"}

    def share(seen):
        return sum(one.probability for one in judge(unit, seen).ranking if "suction_regulator_shut" in one.codes)

    assert share(starved | seen) > 3.0 * share(starved)


def test_a_suction_regulator_is_looked_for_and_its_pressures_read_only_where_there_is_one():
    unit = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-404A"))
    starved = {
        "box_temp_f": 44.0, "suction_psig": 24.0, "suction_line_evap_f": 38.0, "sight_glass": "clear", "evap_fans": "running",
        "compressor": "running", "bulb": "tight_insulated", "drier_drop_f": 0.3, "liquid_solenoid": "open", "valve_sound": "steady",
    }  # fmt: skip

    def told(seen):
        judged = judge(unit, seen)
        share = sum(one.probability for one in judged.ranking if "suction_regulator_shut" in one.codes)
        return share, [check.key for check in judged.next_checks]

    unknown, asked = told(starved)
    assert asked[0] == "suction_regulator", "a look before the gauges"
    none, asked = told(starved | {"suction_regulator": "none"})
    assert none < 0.1 * unknown and not {"suction_regulator", "regulator_before_psig"} & set(asked)
    fitted, asked = told(starved | {"suction_regulator": "fitted"})
    assert fitted > unknown and "regulator_before_psig" in asked
