"""The write-up: what was found before it was changed, what was done, what is left; figures as typed; one thing once."""

import pytest

from tests.core.call.made import BARE, COOLER, FREEZER, REACH_IN, did, happened, read, said, told

ICED = {"rows": ["iiiiiiiiii"] * 3 + [".........."] * 2, "places": {"fan_guards": "hard_ice"}}


def test_what_was_wrong_when_found_is_told_though_it_is_right_now():
    call = told(COOLER, read("box_temp_f", 47, 1), read("evap_fans", "stopped", 2), did("evap_fan", "replaced", 30),
                read("evap_fans", "running", 40), read("box_temp_f", 38, 90))  # fmt: skip
    assert "Box found at 47.0 °F, set 36 °F." in said(call, "found") and "Coil fans: stopped." in said(call, "found")
    assert "Fan replaced." in said(call, "done")
    assert "box 38.0 °F" in said(call, "left") and "47" not in said(call, "left") and "38.0" not in said(call, "found")


def test_ice_seen_before_the_melt_is_found_and_the_bare_coil_is_left():
    call = told(FREEZER, happened("ice", 1, map=ICED), read("drain", "frozen", 2),
                happened("melt", 40, method="hose", minutes=35, all_clear=True), happened("ice", 45, map=BARE))  # fmt: skip
    assert "Hard ice over 60 % of the coil, at fan guards." in said(call, "found") and "Drain: frozen." in said(call, "found")
    assert "35 min" in said(call, "done") and "Coil seen bare, back and corners too." in said(call, "left")


def test_a_coil_found_iced_and_bare_later_is_not_found_right_though_nobody_wrote_the_melt_down():
    call = told(FREEZER, happened("ice", 1, map=ICED), happened("ice", 45, map=BARE))
    assert "Hard ice" in said(call, "found") and "bare" not in said(call, "found") and "Coil seen bare." in said(call, "left")


@pytest.mark.parametrize(("turns", "words"), [(0.25, "¼ turn"), (0.5, "½ turn"), (0.75, "¾ turn"), (1.0, "1 turn")])
def test_turns_are_told_as_typed(turns, words):
    assert f"Valve turned out {words}" in said(told(FREEZER, did("valve", "turned_out", 1, value=turns)), "done")


def test_two_equal_turns_without_an_answer_are_twice():
    line, suction = read("suction_line_evap_f", -8, 1), read("suction_psig", 9.4, 1)
    call = told(FREEZER, line, suction, did("valve", "turned_out", 5, value=0.5), {**line, "at": read("x", 1, 25)["at"]},
                {**suction, "at": read("x", 1, 25)["at"]}, did("valve", "turned_out", 30, value=0.5), read("suction_line_evap_f", -8, 50),
                read("suction_psig", 9.4, 50))  # fmt: skip
    assert "Valve turned out ½ turn, twice, no answer." in said(call, "done")


def test_small_ohms_and_large_keep_their_figures_and_points_their_names():
    call = told(
        FREEZER,
        happened("measured", 1, what="ohms", one="T1", other="T2", value=0.2, state="locked_out"),
        happened("measured", 2, what="ohms", one="T1", other="G", value=3_000_000, state="locked_out"),
    )
    assert "0.20 Ω T1 to T2" in said(call) and "3.0 MΩ T1 to G" in said(call)


def test_a_program_and_the_setting_it_is_are_told_once():
    figures = {"fail_safe_min": 20, "termination_f": 50}
    call = told(
        FREEZER,
        happened("program", 1, side="found", starts=["06:00", "18:00"], figures=figures),
        happened("program", 10, side="left", starts=["06:00", "18:00"], figures=figures | {"fail_safe_min": 30}, why="coil part iced"),
    )
    assert said(call, "done").count("30 min") == 1 and "because coil part iced" in said(call, "done")


def test_a_setting_in_words_is_told_from_to():
    call = told(
        COOLER, happened("setting", 1, parameter="other", found="coil regulator 78 psig", left="coil regulator 62 psig", why="shut")
    )
    assert "Coil regulator from 78 psig to 62 psig, because shut." in said(call, "done")


def test_gas_by_the_scale_is_told_with_the_scale_and_what_the_hose_kept():
    lot = happened("weighed", 5, did="added", before_oz=288, after_oz=270, lost_oz=0.5, cylinder="404-3", form="liquid")
    assert "added as liquid from cylinder 404-3: 17.5 oz, scale 288 to 270 oz, 0.5 oz lost in the hose." in said(told(FREEZER, lot), "done")


def test_a_verdict_at_the_end_of_its_band_by_the_figure_told_is_not_called_low():
    call = told(REACH_IN | {"compressor_rla_a": 10.0}, read("compressor_amps", 5.49, 1), read("box_temp_f", 44, 1))
    assert "low for 55" not in said(call)


def test_what_was_gone_on_with_against_a_hold_is_told_with_its_reason_and_what_was_left_with_what():
    call = told(
        COOLER,
        happened("override", 1, holds=["iced_coil"], action="charge_add", texts=["long words"], reason="Only chance today"),
        happened("override", 2, action="close", texts=["Not proved: box at set"], reason="The customer watches it"),
    )
    assert "against coil iced, because only chance today." in said(call, "done") and "long words" not in said(call)
    assert "Left so (not proved: box at set): the customer watches it." in said(call, "left")


def test_a_leak_named_is_not_told_again_as_a_test():
    look = happened("leak_look", 2, place="flares", heard="bubbles")
    call = told(COOLER, read("leak_test", "found", 1), look)
    assert "Leak test" not in said(call) and "flares" in said(call, "found").lower()
    assert "Leak test: found." in said(told(COOLER, read("leak_test", "found", 1)), "found")


@pytest.mark.parametrize("code", ["lone_working", "tD", "inside_release", "txv_adjust", "charge_add", "_"])
def test_no_code_of_ours_is_in_a_sentence(code):
    call = told(
        COOLER, read("box_temp_f", 47, 1), read("inside_release", "fails", 1), read("evap_fans", "stopped", 2),
        happened("override", 3, holds=["fans_not_running"], action="txv_adjust", reason="wanted"), did("evap_fan", "replaced", 30),
        happened("override", 3, action="lone_working", reason="block in the door"), happened("step", of="compressor", step="nitrogen"),
        happened("time", what="arrived"), happened("placed", what="output_moved", where="FAN to AUX"),
    )  # fmt: skip
    assert code not in said(call)


def test_a_line_of_the_list_tells_an_event_by_itself():
    call = told(
        FREEZER,
        happened("measured", 1, what="volts", one="L1", other="L2", value=229.0),
        happened("time", 1, what="arrived"),
        happened("vacuum", 2, microns=480, pump=True),
        happened("found", 3, causes=["txv_underfeeding"]),
        happened("left_so", 4, what="not_proved:at_set", answer="watches"),
        happened("melt", 5, method="warm_water", minutes=40, all_clear=False),
        happened("placed", 6, what="jumper", where="K3 to K4"),
        happened("seen", 7, proof="air"),
    )
    lines = [call.brief(event) for event in call.record.events]
    assert lines[0].startswith("229 V L1 to L2")
    assert lines[1:] == [
        "Arrived", "microns 480, pump", "Valve feeding too little", "not proved, at set – the customer watches it and calls",
        "warm water, 40 min, ice left", "jumper, K3 to K4", "Air felt at every section",
    ]  # fmt: skip


def test_the_volts_that_found_a_contactor_are_told_as_they_were_read():
    unit = FREEZER | {"phases": 1, "nameplate_v": 230}
    read_at = (read("line_v_12", 219.0, 2), read("load_v_12", 131.0, 3), read("pole_drop_v_1", 88.0, 4))
    call = told(unit, read("box_temp_f", 24, 1), read("contactor", "in", 1), *read_at, did("contactor", "replaced", 20))
    found = said(call, "found")
    assert "219 V" in found and "131 V" in found and "88.0 V" in found
    after = (read("load_v_12", 217.0, 30), read("pole_drop_v_1", 0.4, 31), read("compressor", "running", 32))
    box = read("box_temp_f", 24, 1)
    hummed = told(
        unit, box, read("compressor", "humming", 1), read("contactor", "in", 1), *read_at, did("contactor", "replaced", 20), *after
    )
    left = said(hummed, "left").lower()
    assert "217 v" in left and "0.4 v" in left and "compressor running" in left and "219 v" not in left
    ran = told(unit, box, read("compressor", "running", 1), *read_at, did("contactor", "replaced", 20), *after)
    assert "compressor running" not in said(ran, "left").lower()
    sound = told(unit, read("box_temp_f", 24, 1), read("line_v_12", 231.0, 2), read("load_v_12", 230.0, 3))
    assert "231 V" not in said(sound, "found") and "230 V" not in said(sound, "found")


@pytest.mark.parametrize(("nameplate_v", "line_v", "words"), [
    (230, 195.5, "The line has 15 % less than the plate’s 230 V"),
    (208, 247.5, "The line has 19 % more than the plate’s 208 V"),
    (None, 97.75, "The line has 15 % less than the nearest usual supply"),
])  # fmt: skip
def test_volts_are_told_against_what_they_should_be(nameplate_v, line_v, words):
    unit = FREEZER | {"phases": 1, "nameplate_v": nameplate_v}
    assert words in said(told(unit, read("compressor", "tripping", 1), read("line_v_12", line_v, 2)), "found")


def test_what_only_shows_that_the_power_is_locked_out_is_not_written_up_as_found():
    events = (read("box_temp_f", 47, 1), read("compressor", "running", 1), read("line_v_12", 96, 2), read("power_locked_out", "yes", 5))
    call = told(REACH_IN | {"phases": 1}, *events, read("line_v_12", 0, 6), read("condenser_fans", "stopped", 7))
    found = said(call, "found")
    assert "96 V" in found and "17 % less" in found and " 0 V" not in found and "stopped" not in found
