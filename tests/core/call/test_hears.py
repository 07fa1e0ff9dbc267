"""What the judgement hears of each kind of event."""

import pytest

from tests.core.call.made import FREEZER, REACH_IN, did, happened, read, said, told

MIXED = (read("box_temp_f", 12, 1), read("display_temp_f", -8, 1), read("circuit_extra", "probe_wrong_role", 2))


def left(call, code):
    return sum(one.probability for one in call.course(1).left if code in one.codes)


def seen(call, key):
    return call.call.facts_now(1).seen.get(key)


def test_a_probe_given_its_right_role_is_what_puts_a_mixed_up_sensor_right():
    setting = happened("setting", 10, parameter="probe_role", found="box 2", left="box 1")
    before, after = told(FREEZER, *MIXED), told(FREEZER, *MIXED, setting)
    assert [step.did.code for step in after.call.staged.steps] == ["sensor.swapped_back"]
    assert left(before, "sensor_mixup") > 0.5 > 3 * left(after, "sensor_mixup")
    assert "probe role" in said(after, "done").lower()


def test_a_setting_left_as_it_was_found_is_a_look_and_no_act():
    call = told(FREEZER, happened("setting", 1, parameter="lp_cut_in", found="12 psig", left="12 psig"))
    assert not call.call.staged.steps and seen(call, "lp_cut_in_psig") == 12.0


def test_a_setting_left_otherwise_stands_as_it_was_left():
    call = told(FREEZER, happened("setting", 1, parameter="lp_cut_in", found="12 psig", left="20 psig"))
    assert [step.did.code for step in call.call.staged.steps] == ["pressure_control.adjusted"]
    assert seen(call, "lp_cut_in_psig") == 20.0


@pytest.mark.parametrize(("on_min", "off_min", "word"), [(3, 4, "short_cycling"), (5, 5, "running"), (12, 9, "running")])
def test_cycles_from_start_to_start_of_less_than_ten_minutes_are_short(on_min, off_min, word):
    assert seen(told(REACH_IN, happened("cycle", 1, on_min=on_min, off_min=off_min)), "compressor") == word


def test_what_a_cycle_cuts_at_is_the_controls_where_suction_pressure_is_the_thermostat():
    cycle = happened("cycle", 1, on_min=12, off_min=9, cut_in_psig=38.0, cut_out_psig=19.0)
    assert seen(told(REACH_IN | {"box_control": "suction_pressure"}, cycle), "lp_cut_in_psig") == 38.0
    assert seen(told(REACH_IN, cycle), "lp_cut_in_psig") is None


def test_a_defrost_watched_to_its_end_tells_how_it_ended_and_how_long_it_took():
    call = told(FREEZER, happened("watched", 40, ended_by="time", minutes=28, coil_after="part_iced", fans="running"))
    assert (seen(call, "defrost_ended_by"), seen(call, "defrost_ran_min"), seen(call, "coil_after_defrost")) == ("time", 28.0, "part_iced")
    assert seen(call, "defrost_starts") == "yes" and seen(call, "fans_in_defrost") == "running"


def test_the_lowest_pin_to_the_shell_counts_until_the_compressor_is_another():
    dead = happened("measured", 2, what="ohms", one="C1", other="G", value=30_000, state="locked_out")
    clear = happened("measured", 3, what="ohms", one="C2", other="G", value=50_000_000, state="locked_out")
    locked = read("power_locked_out", "yes", 1)
    ground = next(point.key for point in told(FREEZER).call.record.circuit.points if point.key == told(FREEZER).call.record.circuit.ground)
    dead, clear = ({**one, "other": ground} for one in (dead, clear))
    assert seen(told(FREEZER, locked, dead, clear), "winding_ground_ohm") == 30_000.0
    assert seen(told(FREEZER, locked, dead, did("compressor", "replaced", 60), {**clear}), "winding_ground_ohm") != 30_000.0


@pytest.mark.parametrize(("amps", "word"), [(0.2, None), (11.0, "running"), (60.0, None)])
def test_a_clamp_that_shows_running_amps_says_that_it_runs(amps, word):
    # Rated 14 A: 60 A is a compressor that tries to start.
    unit = FREEZER | {"compressor_rla_a": 14.0}
    assert seen(told(unit, happened("measured", 1, what="amps", one="lead_1", value=amps, state="calling")), "compressor") == word


def test_a_cycle_of_no_minutes_says_and_proves_nothing():
    unit = REACH_IN | {"box_control": "suction_pressure"}
    empty, whole = (happened("cycle", 30, on_min=on, off_min=12.0, cut_in_psig=20.0, cut_out_psig=5.0) for on in (0.0, 8.0))
    nothing, something = (told(unit, read("box_temp_f", 38, 1), one) for one in (empty, whole))
    assert seen(nothing, "lp_cut_in_psig") is None and seen(something, "lp_cut_in_psig") == 20.0
    assert "cycle" not in said(nothing, "found") and "cycle" in said(something, "found")
