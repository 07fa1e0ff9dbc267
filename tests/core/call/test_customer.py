"""The customer's page: in the past once it is put right, only parts the unit has, hazards first, only what was promised."""

from tests.core.call.made import COOLER, REACH_IN, did, happened, read, told

FAN = (read("box_temp_f", 47, 1), read("evap_fans", "stopped", 2), read("ice_form", "none", 2), read("evap_fan_supply_v", 230, 3))


def test_what_is_put_right_is_told_in_the_past():
    found = happened("found", 4, causes=["evap_fan_failed"])
    before, after = told(COOLER, *FAN, found), told(COOLER, *FAN, found, did("evap_fan", "replaced", 30), read("evap_fans", "running", 31))
    assert before.customer.found and after.customer.found and before.customer.found != after.customer.found
    assert not before.customer.done and after.customer.done == "We put in a new fan."


def test_a_fan_that_failed_is_named_as_what_it_was_by_whoever_says_so():
    call = told(COOLER, read("box_temp_f", 47, 1), happened("found", 2, causes=["door_infiltration"]))
    assert "door" in call.customer.found.lower()


def test_only_parts_the_unit_has_are_spoken_of():
    cause = happened("found", 2, causes=["drain_blocked"])
    walk_in, small = told(COOLER, cause).customer, told(REACH_IN, cause).customer
    assert any("floor drain" in one for one in walk_in.you) and not any("floor drain" in one for one in small.you)


def test_a_release_that_fails_comes_first_and_what_was_not_promised_is_not_said():
    call = told(COOLER, *FAN, read("inside_release", "fails", 5), did("evap_fan", "replaced", 30),
                happened("left_so", 40, what="not_proved", answer="watches"))  # fmt: skip
    assert "nobody may be shut in" in call.customer.you[0]
    assert call.customer.we == ()
    promised = told(COOLER, *FAN, happened("promise", 40, due="2026-03-09", what="look at the coil"))
    assert len(promised.customer.we) == 1 and "9 March" in promised.customer.we[0] and "look at the coil" in promised.customer.we[0]


def test_how_it_is_now_is_as_it_was_read_last():
    at_set = told(COOLER, *FAN, did("evap_fan", "replaced", 30), read("box_temp_f", 37, 90)).customer.now
    warm = told(COOLER, *FAN, did("evap_fan", "replaced", 30), read("box_temp_f", 44, 90)).customer.now
    assert at_set == "It stands at 37 °F, set 36 °F." and warm == "It is coming down and stood at 44 °F, set 36 °F."


def test_nothing_is_said_of_what_nobody_saw():
    call = told(COOLER, read("evap_fans", "running", 1))
    assert (call.customer.found, call.customer.done, call.customer.now, call.customer.we) == ("", "", "", ())
