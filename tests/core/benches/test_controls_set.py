"""Pressure switches, thermostats, regulators, sensors and alarms set by computation: by hand, as properties, and against the plant."""

import math
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.controls import alarms, cycles, drawing, head, predict, pressure, registers, regulators, sensors, swing, year
from kettle.benches.controls.predict import by_setting
from kettle.benches.controls.pressure import Setting
from kettle.judging.judge import judge
from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import psig_to_psia
from kettle.plant.run import run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

BOTTLES = resolve(UnitSpec("bottle_cooler", "R-134a", box_control="suction_pressure"))
# Saturated pressures of vapour, psig at the altitude in ft, from the published tables of each refrigerant, to about a psi.
TABLES = [("R-404A", 0, 38, 82.0), ("R-404A", 0, 14, 48.0), ("R-134a", 0, 40, 35.0), ("R-22", 0, 40, 68.6), ("R-290", 0, 20, 41.1),
          ("R-410A", 0, 40, 118.6), ("R-507A", 0, 10, 46.1), ("R-134a", 5000, 40, 37.5), ("R-404A", 9000, 38, 86.2)]  # fmt: skip


@pytest.mark.parametrize(("name", "altitude", "sat_f", "psig"), TABLES)
def test_a_setting_is_saturation_of_this_refrigerant_at_this_altitude(name, altitude, sat_f, psig):
    found = pressure.as_thermostat(refrigerants.get(name), altitude, sat_f, sat_f - 10.0, 10.0).setting
    assert found.cut_in_psig == pytest.approx(psig, abs=1.5)


def test_the_setting_of_the_trade_and_its_reasons():
    found = pressure.as_thermostat(refrigerants.get("R-404A"), 0.0, 38.0, 34.0, 20.0)
    assert (round(found.setting.cut_in_psig), round(found.setting.cut_out_psig)) == (82, 48)
    # (82.0 − 47.8) psi over 38 − 14 °F.
    assert found.psi_per_f == pytest.approx(1.43, abs=0.02) and "boils at 14.0 °F, 48 psig" in found.reasons[1]


def test_what_cannot_be_is_said_by_field():
    with pytest.raises(FieldErrors) as told:
        pressure.as_thermostat(refrigerants.get("R-404A"), 0.0, 138.0, 34.0, 90.0)
    assert set(told.value.by_field) == {"warmest_f", "td_f"} and "-40 to 75 °F" in told.value.by_field["warmest_f"].replace("−", "-")
    with pytest.raises(FieldErrors, match="not below the warmest"):
        pressure.as_thermostat(refrigerants.get("R-404A"), 0.0, 34.0, 34.0, 20.0)
    with pytest.raises(FieldErrors, match="Cut-in"):
        pressure.checked(refrigerants.get("R-404A"), 0.0, 900.0, 40.0)


def words(problems, refused=None):
    return " | ".join(one.text for one in problems if refused is None or one.refused == refused)


def test_a_thermostat_that_never_thaws_is_refused():
    r134a = refrigerants.get("R-134a")
    # R-134a boils at 32 °F at 27.8 psig, at 36 °F at 31.5.
    assert "can never run" in words(pressure.thermostat_problems(r134a, 0.0, Setting(20.0, 20.0), produce=False), refused=True)
    assert "never lets the coil thaw" in words(pressure.thermostat_problems(r134a, 0.0, Setting(26.0, 12.0), produce=False), refused=True)
    assert "only just" in words(pressure.thermostat_problems(r134a, 0.0, Setting(29.0, 12.0), produce=False), refused=False)
    good = pressure.thermostat_problems(r134a, 0.0, Setting(36.0, 20.0), produce=True)
    assert not words(good, refused=True) and "Supply air" in words(good) and "Supply air" not in words(
        pressure.thermostat_problems(r134a, 0.0, Setting(36.0, 20.0), produce=False))  # fmt: skip


def test_a_pump_down_that_draws_air_or_never_starts_again_is_refused():
    r404a = refrigerants.get("R-404A")
    assert "air is drawn in" in words(pressure.pump_down_problems(r404a, 0.0, Setting(20.0, 0.0), 40.0), refused=True)
    # At −10 °F the low side stands at 24.6 psig.
    assert "does not start again" in words(pressure.pump_down_problems(r404a, 0.0, Setting(30.0, 5.0), -10.0), refused=True)
    assert "coldest night" in words(pressure.pump_down_problems(r404a, 0.0, Setting(23.0, 5.0), -10.0), refused=False)
    assert "creeps up 12 psi" in words(pressure.pump_down_problems(r404a, 0.0, Setting(18.0, 5.0), 20.0, creep_psi=12.0))
    assert not pressure.pump_down_problems(r404a, 0.0, Setting(25.0, 5.0), 20.0, creep_psi=3.0)


def test_a_year_of_a_pump_down_switch_says_when_it_stays_off():
    year = pressure.over_the_year(refrigerants.get("R-404A"), 0.0, Setting(30.0, 5.0), 36.0, (-10.0, 20.0, 80.0))
    # At −10 °F some 24 psig stand there, at 20 °F 55; in summer the box is the colder, 79 psig at 36 °F.
    assert [one.starts for one in year] == [False, True, True]
    assert [one.stands_psig for one in year] == pytest.approx([24.3, 55.0, 79.0], abs=1.0)


def test_watched_cycles_are_lined_up_by_the_longest():
    found = drawing.bars([cycles.Cycle(12.0, 18.0, 30.0, 38.0), cycles.Cycle(10.0, 10.0, 30.0, 38.0)])
    assert [(round(one.on_pct), round(one.off_pct)) for one in found] == [(40, 60), (33, 33)]
    assert drawing.bars([]) == []


def test_each_build_of_switch_says_which_screw_moves_which_end():
    now, wanted = Setting(40.0, 20.0), Setting(82.0, 48.0)
    first, second = pressure.screws("in_diff", now, wanted)
    assert "Main screw up the scale: cut-in from 40 to 82 psig; the cut-out goes along to 62" in first
    assert "wider: cut-out from 62 to 48 psig, the cut-in stays" in second
    first, second = pressure.screws("out_diff", now, wanted)
    assert "cut-out from 20 to 48 psig; the cut-in goes along to 68" in first and "wider: cut-in from 68 to 82" in second
    assert len(pressure.screws("each", now, wanted)) == 2 and "goes along" not in pressure.screws("each", now, wanted)[0]
    assert pressure.screws("in_diff", wanted, wanted) == []
    with pytest.raises(InputError, match="none of"):
        pressure.screws("lever", now, wanted)


@given(
    st.sampled_from(sorted(refrigerants.catalogue())),
    st.floats(34.0, 60.0),
    st.floats(1.0, 10.0),
    st.floats(5.0, 30.0),
    st.floats(0.0, 9000.0),
)
def test_warmer_air_never_means_a_lower_pressure(name, warmest, span, td, altitude):
    r = refrigerants.get(name)
    one = pressure.as_thermostat(r, altitude, warmest, warmest - span, td).setting
    other = pressure.as_thermostat(r, altitude, warmest + 2.0, warmest - span + 2.0, td).setting
    assert other.cut_in_psig > one.cut_in_psig and other.cut_out_psig > one.cut_out_psig and one.differential_psi > 0.0


def test_a_handle_moved_up_never_makes_the_box_colder():
    r = BOTTLES.refrigerant
    outs = [r.dew_psig(sst, 0.0) for sst in (12.0, 18.0, 24.0)]
    lowest = [by_setting(BOTTLES, Setting(r.dew_psig(42.0, 0.0), out), (85.0,))[0].lowest_f for out in outs]
    assert lowest == sorted(lowest)
    ins = [r.dew_psig(sat, 0.0) for sat in (38.0, 42.0, 46.0)]
    highest = [by_setting(BOTTLES, Setting(into, outs[1]), (85.0,))[0].highest_f for into in ins]
    assert highest == sorted(highest)


@pytest.mark.parametrize(("kind", "refrigerant", "in_f", "out_f"), [
    ("bottle_cooler", "R-134a", 39.0, 12.5), ("reach_in_cooler", "R-290", 40.0, 14.0), ("display_cooler", "R-404A", 40.0, 18.0),
    ("walk_in_cooler", "R-448A", 40.0, 22.0),
])  # fmt: skip
def test_a_prediction_is_what_a_long_run_of_the_plant_does(kind, refrigerant, in_f, out_f):
    unit = resolve(UnitSpec(kind, refrigerant, box_control="suction_pressure"))
    r = unit.refrigerant
    setting = Setting(r.dew_psig(in_f, 0.0), r.dew_psig(out_f, 0.0))
    told = by_setting(unit, setting, (85.0,))[0]
    plant = sized(unit)
    plant.parts.lp_in_psia[:], plant.parts.lp_out_psia[:] = psig_to_psia(setting.cut_in_psig), psig_to_psia(setting.cut_out_psig)
    state = at_rest(plant, outside_f=85.0)
    run(plant, 72.0, 85.0, state)
    before = float(state.starts[0])
    long = run(plant, 48.0, 85.0, state, every_s=60.0)
    air = long.series["air_f"][:, 0]
    assert told.highest_f == pytest.approx(air.max(), abs=1.0) and told.lowest_f == pytest.approx(air.min(), abs=1.0)
    assert told.starts_an_hour == pytest.approx((float(state.starts[0]) - before) / 48.0, abs=0.2)
    assert not told.runs_on and not told.stays_off and told.clears


def test_a_pressure_control_set_too_cold_is_named_where_the_box_froze_and_the_coil_iced():
    seen = {"complaint": "freezing_product", "box_temp_f": 30.0, "ice_form": "heavy_frost", "ice_places": ("coil_whole",),
            "compressor": "running", "evap_fans": "running", "lp_cut_in_psig": 24.0, "lp_cut_out_psig": 4.0}  # fmt: skip
    cold = judge(BOTTLES, seen)
    assert cold.ranking[0].codes == ("lp_control_misset",) and cold.ranking[0].probability > 0.7
    right = judge(BOTTLES, seen | {"lp_cut_in_psig": 36.0, "lp_cut_out_psig": 15.0})
    assert right.ranking[0].codes != ("lp_control_misset",)


def test_a_thermostat_is_swung():
    # It closes at 44 and opens at 40: it holds 42 on a dial of 34, eight off.
    found = swing.swung(44.0, 40.0, 34.0, 36.0)
    assert (found.holds_f, found.differential_f, found.off_f, found.new_dial_f) == (42.0, 4.0, 8.0, 28.0)
    assert "8.0 °F above its dial" in found.says[0] and "Set the dial to 28.0 °F" in found.says[1]
    assert swing.swung(38.0, 34.0, 34.0, 36.0, "cut_out").off_f == 0.0
    assert "too little" in " ".join(swing.swung(36.5, 36.0, 36.0, 36.0).says)
    for wrong, field in (((40.0, 44.0, 34.0, 36.0), "cut_in_f"), ((440.0, 40.0, 34.0, 36.0), "cut_in_f")):
        with pytest.raises(FieldErrors) as told:
            swing.swung(*wrong)
        assert set(told.value.by_field) == {field}


@pytest.mark.parametrize(("code", "at_f", "ohm"), [
    # Published: at 32 °F an NTC of 10 kΩ and β 3977 about 33.9 k (its β is of 25/85 °C), platinum its name; Pt at 100 °C 138.5.
    ("ntc10k_3435", 77.0, 10_000.0), ("ntc10k_3435", 32.0, 28_704.0), ("ntc5k_3977", 77.0, 5_000.0), ("pt100", 32.0, 100.0),
    ("pt100", 212.0, 138.51), ("pt1000", 32.0, 1_000.0), ("ptc1k", 77.0, 1_000.0),
])  # fmt: skip
def test_sensors_by_their_curves(code, at_f, ohm):
    assert sensors.ohm_at(code, at_f) == pytest.approx(ohm, rel=0.002)
    assert sensors.f_of(code, ohm) == pytest.approx(at_f, abs=0.2)


@given(st.sampled_from(sorted(sensors.CURVES)), st.floats(-40.0, 200.0))
def test_ohms_and_back(code, at_f):
    assert sensors.f_of(code, sensors.ohm_at(code, at_f)) == pytest.approx(at_f, abs=0.01)


def test_a_sensor_beside_a_thermometer():
    assert "good" in sensors.judged("pt1000", 1001.0, 32.0)
    assert "too warm" in sensors.judged("ntc10k_3435", 24_000.0, 32.0)
    assert "NTC 5 kΩ" in sensors.judged("ntc10k_3977", sensors.ohm_at("ntc5k_3977", 32.0), 32.0), "another sensor than it is set to"
    with pytest.raises(InputError, match="open, shorted"):
        sensors.judged("ntc10k_3435", 5.0, 32.0)


def test_cycles_are_watched_before_anything_is_moved():
    tapped = [
        cycles.Moment(0, "start", 42.0),
        cycles.Moment(12, "stop", 33.0),
        cycles.Moment(30, "start", 42.5),
        cycles.Moment(43, "stop", 32.0),
    ]
    found = cycles.cycles_of(tapped)
    assert [(one.on_min, one.off_min) for one in found] == [(12, 18)]
    assert cycles.cycles_say(found, 42.0, 34.0, 1.0) == ["Watch 1 more whole cycle before anything is moved"]
    found = cycles.cycles_of([*tapped, cycles.Moment(60, "start", 42.4)])
    # Two degrees too cold at a psi a degree.
    assert cycles.cycles_say(found, 42.0, 34.0, 1.0) == ["It stops at 32.0 °F, 34.0 °F is wanted: cut-out up by 2 psi"]
    assert "Settled" in cycles.cycles_say(found, 42.0, 32.5, 1.0)[0]


def test_the_high_side():
    r = refrigerants.get("R-404A")
    assert head.psig_at(r, 0.0, 100.0) == pytest.approx(238.0, abs=4.0)
    over = head.head_over(r, 0.0, (0.0, 60.0, 95.0), 20.0, 80.0)
    assert over[0] == over[1] < over[2], "held in the cold"
    two = [head.FanSwitch(230.0, 180.0), head.FanSwitch(250.0, 200.0)]
    assert not head.problems(two, 400.0, 300.0)
    said = " ".join(one.text for one in head.problems([head.FanSwitch(230.0, 220.0), head.FanSwitch(225.0, 150.0)], 320.0, 300.0))
    assert "10 psi between" in said and "starts no later" in said and "20 psi are left" in said
    with pytest.raises(FieldErrors, match="40 to 160"):
        head.psig_at(r, 0.0, 400.0)


def test_regulators():
    r = refrigerants.get("R-404A")
    high, hot = regulators.crankcase_psig(r, 0.0, 105.0, freezer=True), regulators.crankcase_psig(r, 0.0, 125.0, freezer=True)
    assert hot < high and r.dew_f(hot, 0.0) == pytest.approx(5.0, abs=1.0), "rated where freezers' compressors are rated"
    assert regulators.coil_psig(r, 0.0, 20.0) == pytest.approx(55.0, abs=2.0)
    assert regulators.regulator_says("crankcase", 60.0, 40.0, 30.0).turn == "close"
    assert regulators.regulator_says("crankcase", 60.0, 15.0, 30.0).turn == "open"
    assert regulators.regulator_says("crankcase", 20.0, 19.0, 30.0).turn == "", "fully open and nothing to hold"
    assert regulators.regulator_says("evaporator", 70.0, 30.0, 55.0).turn == "open"
    assert regulators.regulator_says("evaporator", 40.0, 39.0, 55.0).turn == "close"
    assert "exchanged" in regulators.regulator_says("evaporator", 20.0, 39.0, 55.0).says


def test_alarms_that_settings_bring_up_by_themselves():
    said = alarms.provoked(alarms.Settings(20.0, 30.0, 5.0, 2.0, 4.0))
    assert [text.split(":")[-1] for text in said] == [" every defrost alarms", " it alarms at every cut-in"]
    assert alarms.provoked(alarms.Settings(60.0, 30.0, 5.0, 8.0, 4.0)) == alarms.provoked(alarms.Settings(defrost_min=30.0)) == []
    late = alarms.provoked(alarms.Settings(start_delay_min=8.0, interlock=True))
    assert "low superheat" in late[0] and "wired interlock" in late[1]
    assert alarms.provoked(alarms.Settings(start_delay_min=3.0, interlock=False)) == []


@pytest.mark.parametrize(("shows", "code"), [
    ("P2", "sensor_coil"), ("p1 fault", "sensor_air"), ("HI", "high_box"), ("LO", "low_box"), ("dEF time", "by_time"),
    ("DI", "open_interlock"), ("offline", "communication"), ("low superheat", "low_superheat"),
])  # fmt: skip
def test_what_a_display_shows_is_translated_to_a_role(shows, code):
    assert code in [one.code for one in alarms.translated(shows)]
    assert alarms.translated("zz9") == []


def test_every_alarm_of_the_controller_on_the_line_has_a_role():
    assert len(alarms.of_controller(registers.ALARMS)) == len(registers.ALARMS)
    assert [one.code for one in alarms.of_controller(["high temperature"])] == ["high_box"]


def heard_course(cut_in, cut_out, on_min, off_min, cycles_seen, noise):
    """Suction as a gauge sees it every six seconds: falling fast to the cut-out, rising fast to the cut-in; from 60 psig on."""
    points, at = [], 0.0
    for start, end, minutes in [(cut_out + 10.0, cut_in, 4.0), *[(cut_in, cut_out, on_min), (cut_out, cut_in, off_min)] * cycles_seen]:
        for n in range(int(minutes * 10)):
            near = start + (end - start) * (1.0 - math.exp(-4.0 * n / (minutes * 10)))
            points.append((at, near + noise * math.sin(37.0 * at)))
            at += 0.1
    return points


@given(st.floats(70.0, 90.0), st.floats(20.0, 45.0), st.floats(5.0, 20.0), st.floats(5.0, 30.0), st.floats(0.0, 1.5))
def test_starts_and_stops_are_heard_from_suction_alone(cut_in, cut_out, on_min, off_min, noise):
    found = cycles.heard(heard_course(cut_in, cut_out, on_min, off_min, 3, noise))
    assert [one.what for one in found[:5]] == ["start", "stop", "start", "stop", "start"]
    for one in cycles.cycles_of(found):
        assert one.on_min == pytest.approx(on_min, abs=2.0) and one.off_min == pytest.approx(off_min, abs=2.0)


def test_a_hunting_valve_is_no_start_and_the_box_belongs_to_its_moment():
    assert cycles.heard([(n / 10.0, 40.0 + 2.5 * math.sin(n / 5.0)) for n in range(600)]) == []
    assert cycles.heard([]) == []
    suction, box = heard_course(80.0, 40.0, 10.0, 10.0, 2, 0.0), [(4.1, 38.5), (40.0, 30.0)]
    first, second, *_ = cycles.heard(suction, box)
    assert (first.what, first.box_f, second.box_f) == ("start", 38.5, None)


def test_what_a_controller_says_of_itself_is_a_start_or_a_stop():
    assert cycles.shown_state("cooling", 12.0, 60.0, 38.0) == cycles.Moment(48.0, "start", None)
    assert cycles.shown_state("satisfied", 1.0, 60.0, 34.0) == cycles.Moment(59.0, "stop", 34.0)
    assert cycles.shown_state("fans waiting", 1.0, 60.0, 34.0) is None


def test_a_sites_year_and_what_fails_on_its_days():
    r404a = refrigerants.get("R-404A")
    year_here = year.year_of(-20.0, 115.0)
    assert year_here.given and year_here.outdoor_f[0] == -20.0 and year_here.outdoor_f[-1] == 115.0
    assert year_here.outdoor_f == sorted(year_here.outdoor_f) and not year.year_of(None, None).given
    # R-404A boils at about 0 °F at 33 psig: a cut-in of 30 psig does not come back at -20 °F, one of 12 psig does.
    assert "does not start again; this site sees −20 °F" in year.fails_in_winter(r404a, 0.0, pressure.Setting(30.0, 5.0), year_here)
    assert year.fails_in_winter(r404a, 0.0, pressure.Setting(10.0, 3.0), year_here) == ""
    heads = head.head_over(r404a, 0.0, year_here.outdoor_f, 25.0, 70.0)
    assert "from 115 °F at the condenser" in year.fails_in_summer(380.0, heads, year_here.outdoor_f)
    assert year.fails_in_summer(600.0, heads, year_here.outdoor_f) == ""
    for cold, hot, field in ((-80.0, 100.0, "coldest_f"), (0.0, 200.0, "hottest_f"), (60.0, 65.0, "hottest_f")):
        with pytest.raises(FieldErrors) as wrong:
            year.year_of(cold, hot)
        assert list(wrong.value.by_field) == [field]
    inside, outside = (resolve(UnitSpec(kind, "R-404A")) for kind in ("bottle_cooler", "walk_in_freezer"))
    assert year.at_condenser_f(outside, year_here) == (-20.0, 115.0) and year.at_condenser_f(inside, year_here) == (50.0, 100.0)


def test_a_delay_only_where_the_creep_brings_it_back_soon():
    # 20 psi of differential at 40 psi in five minutes: again after 2.5 min.
    assert "after 2.5 min: a delay of" in pressure.delay(pressure.Setting(25.0, 5.0), 40.0)
    assert pressure.delay(pressure.Setting(25.0, 5.0), 10.0) == pressure.delay(pressure.Setting(25.0, 5.0), None) == ""


@pytest.mark.parametrize("kind", sorted(head.HOLDERS))
def test_what_holds_the_head_is_set_by_saturation_and_says_where_it_begins(kind):
    said = " ".join(head.holder(kind, refrigerants.get("R-404A"), 0.0, 90.0, 20.0))
    # R-404A condensing at 90 °F: bubble 207 psig (published tables: 204 to 208).
    assert "70 °F outside" in said and re.search(r"20[4-8]\b", said)


def test_a_holder_that_is_none_of_them():
    with pytest.raises(FieldErrors):
        head.holder("magic", refrigerants.get("R-404A"), 0.0, 90.0, 20.0)


def test_a_sensor_in_another_air_is_said():
    found = swing.swung(38.0, 34.0, 36.0, 36.0)
    assert "colder air than the box" in swing.place(found, 41.0) and "warmer air" in swing.place(found, 31.0)
    assert swing.place(found, 37.0) == swing.place(found, None) == ""
    assert "wider differential" in swing.often(12.0) and swing.often(5.0) == ""


def test_a_narrower_thermostat_starts_more_often_and_both_hold_their_middle():
    unit = resolve(UnitSpec("walk_in_cooler", "R-404A"))
    narrow, wide = (predict.by_thermostat(unit, 37.0, differential, [85.0])[0] for differential in (2.0, 6.0))
    assert narrow.starts_an_hour > 1.5 * wide.starts_an_hour > 0.0
    assert wide.highest_f - wide.lowest_f > narrow.highest_f - narrow.lowest_f
    assert narrow.lowest_f < 37.0 < narrow.highest_f and wide.lowest_f < 37.0 < wide.highest_f


def test_which_probe_is_which():
    before = {"box probe": 36.0, "coil probe": 20.0}
    assert "where it belongs" in sensors.moved("box probe", before, {"box probe": 70.0, "coil probe": 21.0})
    assert "exchanged" in sensors.moved("box probe", before, {"box probe": 36.0, "coil probe": 60.0})
    assert "Nothing moved" in sensors.moved("box probe", before, {"box probe": 37.0, "coil probe": 21.0})
    assert "alone, and again" in sensors.moved("box probe", before, {"box probe": 70.0, "coil probe": 50.0})
    with pytest.raises(InputError):
        sensors.moved("box probe", before, {"supply probe": 50.0})


def test_a_pump_down_is_proposed_by_the_coldest_the_low_side_meets():
    r404a = refrigerants.get("R-404A")
    # R-404A at -10 °F: 24.6 psig by the published table.
    found = pressure.as_pump_down(r404a, 0.0, -5.0)
    assert found.setting.cut_in_psig == pytest.approx(24.6, abs=1.0) and found.setting.cut_out_psig == 5.0
    assert pressure.pump_down_problems(r404a, 0.0, found.setting, -5.0) == []
    creeps = pressure.as_pump_down(r404a, 0.0, 20.0, creep_psi=30.0).setting
    assert creeps.differential_psi >= 35.0 and not pressure.pump_down_problems(r404a, 0.0, creeps, 20.0, 30.0)
    assert "surer way" in " ".join(pressure.as_pump_down(refrigerants.get("R-134a"), 0.0, -10.0).reasons)
    with pytest.raises(FieldErrors):
        pressure.as_pump_down(r404a, 0.0, 200.0)


@given(st.sampled_from(["R-404A", "R-134a", "R-290", "R-448A", "R-22", "R-507A"]), st.floats(-35.0, 70.0), st.sampled_from([0, 5000, 9000]))
def test_a_proposed_pump_down_never_draws_air_and_can_run(name, coldest, altitude):
    found = pressure.as_pump_down(refrigerants.get(name), altitude, coldest).setting
    assert found.cut_out_psig >= pressure.LEAST_CUT_OUT_PSIG and found.differential_psi > 0.0


def test_a_start_and_a_stop_tapped_after_the_event_are_no_cycle():
    at_once = [cycles.Moment(10.0, "start"), cycles.Moment(10.1, "stop"), cycles.Moment(24.0, "start")]
    assert cycles.cycles_of(at_once) == []
    apart = [cycles.Moment(10.0, "start"), cycles.Moment(10.25, "stop"), cycles.Moment(24.0, "start")]
    assert [one.on_min for one in cycles.cycles_of(apart)] == [0.25]
