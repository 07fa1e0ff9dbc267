"""What keeps a call from being left: opened by one event, ended or answered by another."""

import pytest

from tests.core.call.made import BARE, COOLER, FREEZER, did, happened, read, told

BOX = read("box_temp_f", 36.5, 1)
TWO = COOLER | {"evaporators": 2, "coils": ["left", "right"]}
ICED = {"rows": ["iiiiiiiiii"] * 5, "places": {}}
TALK = {"settings": {}, "refused": {}}


def codes(*events, unit=COOLER):
    return [one.key for one in told(unit, BOX, *events).leave]


@pytest.mark.parametrize(
    ("code", "opens", "ends"),
    [
        ("inside_release", read("inside_release", "fails"), read("inside_release", "works")),
        ("ice_left", happened("ice", map=ICED), happened("ice", map=BARE)),
        ("ice_left", read("ice_form", "hard_ice"), happened("melt", method="hose", all_clear=True)),
        ("ice_left", happened("melt", method="hose", all_clear=False), read("coil_after_defrost", "clear")),
        ("still_defrosting", read("control_call", "in_defrost"), read("compressor", "running")),
        ("still_defrosting", read("control_call", "in_defrost"), happened("watched", ended_by="time", minutes=22)),
        ("left_there:jumper", happened("placed", what="jumper", where="K3 to K4"), happened("gone", what="jumper", where="K3 to K4")),
        ("left_there:condenser.blocked_on_purpose", did("condenser", "blocked_on_purpose"), did("condenser", "unblocked")),
        ("leak_open", read("leak_test", "found"), did("leak", "repaired")),
        ("leak_open", happened("leak_look", place="flares", heard="bubbles"), did("leak", "given_up")),
        (
            "service_mode",
            happened("talked", wrote={"service_mode": 1}, **TALK),
            happened("talked", **TALK | {"settings": {"service_mode": 0}}),
        ),
    ],
)
def test_what_opens_it_and_what_ends_it(code, opens, ends):
    assert code not in codes() and code in codes(opens) and code not in codes(opens, ends)
    assert code not in codes({**opens, "undone": True})


def test_light_frost_is_no_ice_left_and_a_first_charge_no_leak():
    assert "ice_left" not in codes(read("ice_form", "light_frost"))
    first = happened("weighed", did="weighed_in", before_oz=200, after_oz=150)
    assert "leak_open" not in codes(read("complaint", ["first_start"]), first)


def test_the_box_was_read_with_an_own_thermometer_or_it_is_asked():
    assert "box_not_read" in [one.code for one in told(COOLER, read("display_temp_f", 36)).leave]
    for key in ("box_temp_f", "return_air_f"):
        assert "box_not_read" not in [one.code for one in told(COOLER, read(key, 36)).leave]


def test_each_coil_worked_on_is_asked_by_its_name():
    iced = read("ice_form", "hard_ice", on="right")
    [ice] = [one for one in told(TWO, BOX, read("ice_form", "none", on="left"), iced).leave if one.code == "ice_left"]
    assert ice.on == 2 and "right" in ice.text
    replaced = told(TWO, BOX, did("evap_fan", "replaced", on="right"))
    assert {one.on for one in replaced.leave if one.of == "air"} == {2}


@pytest.mark.parametrize(
    ("what", "open_"),
    [("not_proved", set()), ("not_proved:at_set", {"air"}), ("not_proved:air", {"at_set"}), ("ice_left", {"air", "at_set"})],
)
def test_an_answer_is_to_one_of_its_code_or_to_all(what, open_):
    warm = read("box_temp_f", 44, 1)
    call = told(COOLER, warm, did("evap_fan", "replaced"), happened("left_so", what=what, answer="again"))
    assert {one.of for one in call.leave if one.code == "not_proved" and not one.answered} == open_


def test_a_call_may_be_left_when_every_one_is_answered_and_only_who_comes_again_has_promised():
    gauges = happened("placed", what="gauges", where="suction")
    assert not told(COOLER, BOX, gauges).may_leave
    kept = told(COOLER, BOX, gauges, happened("left_so", what="left_there:gauges", answer="needed"))
    assert kept.may_leave and [one.given.again for one in kept.leave] == [False]
    again = told(COOLER, BOX, gauges, happened("left_so", what="left_there:gauges", answer="again"))
    assert again.may_leave and [one.given.again for one in again.leave] == [True]


def test_a_controller_that_did_not_take_what_was_written_is_asked_until_it_reads_so():
    wrote = happened("talked", wrote={"fail_safe": 30}, **TALK)
    assert "unconfirmed:fail_safe" in codes(wrote, unit=FREEZER)
    assert "unconfirmed:fail_safe" not in codes(wrote, happened("talked", **TALK | {"settings": {"fail_safe": 30}}), unit=FREEZER)
    assert "unconfirmed:fail_safe" in codes(wrote, happened("talked", **TALK | {"settings": {"fail_safe": 20}}), unit=FREEZER)
