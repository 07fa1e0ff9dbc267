"""May gas go in, may the stem be turned: one answer each, out of everything on record."""

import pytest

from tests.core.call.made import COOLER, FREEZER, REACH_IN, did, happened, read, told

STARVED = (
    read("box_temp_f", -3, 0), read("evap_fans", "running", 1), read("ice_form", "none", 1), read("bulb", "tight_insulated", 1),
    read("sight_glass", "clear", 1), read("suction_psig", 9.4, 2), read("suction_line_evap_f", -8, 2),
)  # fmt: skip


def turn(at, turns=0.5, way="turned_out"):
    return did("valve", way, at, value=turns)


def test_a_high_superheat_asks_for_a_turn_out_and_a_low_one_for_a_turn_in():
    # 9.4 psig of R-404A is −30.4 °F at sea level: a line of −8 °F is 22 °F of superheat.
    call = told(FREEZER, *STARVED)
    assert call.valve().may == "yes" and call.valve().turn == ("turned_out", 1.0)
    flooded = told(FREEZER, *STARVED[:-1], read("suction_line_evap_f", -32, 2))
    assert flooded.valve().may == "yes" and flooded.valve().turn[0] == "turned_in"


@pytest.mark.parametrize(
    ("events", "may"),
    [
        ((*STARVED[:3], read("bulb", "loose", 1), *STARVED[4:]), "wait"),
        ((*STARVED[:4], read("sight_glass", "flashing", 1), *STARVED[5:]), "no"),
        ((*STARVED[:2], read("ice_form", "hard_ice", 1), *STARVED[3:]), "no"),
        ((*STARVED[:6],), "no"),
        ((*STARVED[:-1], read("suction_line_evap_f", -24, 2)), "no"),
        ((*STARVED, turn(10)), "wait"),
    ],
)
def test_what_keeps_a_stem_from_being_turned(events, may):
    assert told(FREEZER, *events).valve().may == may


def test_two_turns_without_an_answer_and_there_is_no_third():
    events = (*STARVED, turn(10), read("suction_psig", 9.4, 30), read("suction_line_evap_f", -8, 30))
    once = told(FREEZER, *events)
    assert once.valve().may == "yes" and not once.valve().no_answer
    again = told(FREEZER, *events, turn(35), read("suction_psig", 9.4, 55), read("suction_line_evap_f", -8.5, 55))
    assert again.valve().may == "no" and again.valve().no_answer and "no third" in again.valve().text
    answered = told(FREEZER, *events, turn(35), read("suction_psig", 11.5, 55), read("suction_line_evap_f", -14, 55))
    assert answered.valve().may == "yes"
    freed = told(FREEZER, *again_of(events), did("valve", "exercised", 60), read("suction_psig", 9.4, 80),
                 read("suction_line_evap_f", -8, 80))  # fmt: skip
    assert not freed.valve().no_answer


def again_of(events):
    return (*events, turn(35), read("suction_psig", 9.4, 55), read("suction_line_evap_f", -8.5, 55))


def test_a_capillary_tube_has_no_stem():
    call = told(REACH_IN | {"metering": "cap_tube"}, read("box_temp_f", 44))
    assert call.valve().may == "no" and "no stem" in call.valve().text


SHORT = (
    read("box_temp_f", 41, 0), read("evap_fans", "running", 1), read("evap_coil", "clean", 1), read("ice_form", "none", 1),
    read("condenser_coil", "clean", 1), read("condenser_fans", "running", 1), read("ambient_f", 78, 1), read("sight_glass", "flashing", 2),
    read("receiver_level_pct", 8, 2),
)  # fmt: skip


def test_gas_is_asked_for_by_more_than_one_sign_and_never_by_a_clear_glass():
    call = told(COOLER, *SHORT)
    assert call.charge.may in ("yes", "first") and any("glass bubbles" in one for one in call.charge.why)
    assert told(COOLER, *SHORT[:-2], read("sight_glass", "clear", 2)).charge.may == "no"
    assert told(COOLER, read("box_temp_f", 36)).charge.may == "no"


@pytest.mark.parametrize(
    ("instead", "first"),
    [
        (read("ice_form", "hard_ice", 1), "melt"),
        (read("condenser_coil", "blocked", 1), "condenser"),
        (read("evap_fans", "stopped", 1), "airflow"),
    ],
)
def test_what_comes_before_gas_is_named(instead, first):
    events = tuple(instead if one["key"] == instead["key"] else one for one in SHORT)
    call = told(COOLER, *events)
    assert call.charge.may == "first" and first in call.charge.text.lower(), call.charge


def test_a_leak_that_was_found_comes_before_gas_and_gas_that_went_in_is_enough_by_the_glass():
    found = told(COOLER, *SHORT, read("leak_test", "found", 3))
    assert found.charge.may == "first" and "leak" in found.charge.text.lower()
    went = (*SHORT, did("leak", "repaired", 10), happened("weighed", 20, did="added", before_oz=200, after_oz=168))
    assert told(COOLER, *went).charge.may == "first", "ten minutes first"
    full = told(COOLER, *went, read("sight_glass", "clear", 35), read("receiver_level_pct", 55, 35))
    assert full.charge.may == "stop" and "32" in full.charge.text


@pytest.mark.parametrize(("end", "way", "may"), [("at_end_out", "out", "no"), ("at_end_in", "out", "yes"), ("at_end_out", "in", "yes")])
def test_a_stem_at_its_stop_is_not_turned_further(end, way, may):
    line = read("suction_line_evap_f", -8 if way == "out" else -32, 2)
    call = told(FREEZER, *STARVED[:-1], line, happened("looked", 3, part="valve", state=end))
    assert call.valve().may == may and ("stop" in call.valve().text) is (may == "no")


@pytest.mark.parametrize(("minute", "may"), [(16, "yes"), (17, "wait"), (25, "wait")])
def test_suction_and_line_of_different_moments_are_both_read_before_a_turn(minute, may):
    call = told(FREEZER, *STARVED[:-1], read("suction_line_evap_f", -8, minute))
    assert call.valve().may == may and ("read both" in call.valve().text) is (may == "wait")
