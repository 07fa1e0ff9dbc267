"""What shows that a repair holds: filled by events after the act, overturned by a later word against it."""

import pytest

from tests.core.call.made import BARE, COOLER, FREEZER, did, happened, read, told

ICED = {"rows": ["iiiiiiiiii"] * 5, "places": {}}
HEAD = {"rows": [".........."] * 5, "places": {"coil_back": "hard_ice"}}


def states(*events, unit=COOLER):
    return {one.code if one.on is None else (one.code, one.on): one.state for one in told(unit, *events).prove}


def test_nothing_done_asks_for_the_box_alone():
    assert states(read("evap_fans", "running", 1)) == {"at_set": "open"}


@pytest.mark.parametrize(("box", "state"), [(36.0, "proved"), (38.0, "proved"), (39.5, "open"), (44.0, "open")])
def test_a_box_at_set_is_at_most_half_the_differential_and_one_degree_over(box, state):
    # A cooler of 36 °F with a differential of 4 °F: up to 39 °F.
    assert states(did("evap_fan", "replaced", 1), read("box_temp_f", box, 60), unit=COOLER | {"differential_f": 4})["at_set"] == state


@pytest.mark.parametrize(
    ("events", "state"),
    [
        ((), "open"),
        ((happened("ice", 50, map=BARE),), "proved"),
        ((happened("ice", 50, map=HEAD),), "against"),
        ((read("coil_after_defrost", "clear", 50),), "proved"),
        ((read("coil_after_defrost", "part_iced", 50),), "against"),
        ((happened("watched", 50, ended_by="termination", minutes=20, coil_after="clear"),), "proved"),
        ((happened("ice", 50, map=BARE), read("ice_form", "hard_ice", 60)), "against"),
        ((happened("ice", 50, map=BARE), happened("ice", 60, map=ICED)), "against"),
        ((happened("ice", 50, map=ICED), happened("ice", 60, map=BARE)), "proved"),
        ((happened("ice", 50, map=BARE), read("ice_form", "light_frost", 60)), "proved"),
        ((happened("seen", 50, proof="coil"),), "proved"),
        ((happened("seen", 50, proof="coil"), read("ice_form", "heavy_frost", 60)), "against"),
        ((happened("seen", 50, proof="coil") | {"undone": True},), "open"),
    ],
)
def test_a_coil_is_proved_bare_and_a_later_word_of_ice_overturns_it(events, state):
    melted = happened("melt", 40, method="hose")
    assert states(melted, *events, unit=FREEZER)["coil"] == state


def test_a_melt_all_clear_proves_the_coil_it_melted():
    assert states(happened("melt", 40, method="hose", all_clear=True), unit=FREEZER)["coil"] == "proved"
    assert states(happened("melt", 40, method="hose", all_clear=False), unit=FREEZER)["coil"] == "against"


def test_what_was_seen_before_the_repair_is_no_proof_of_it():
    before = (happened("ice", 10, map=BARE), read("box_temp_f", 36, 10))
    assert states(*before, happened("melt", 40, method="hose")) == {"coil": "open", "water": "open", "air": "open", "at_set": "open"}


@pytest.mark.parametrize(
    ("events", "state"),
    [
        ((happened("nitrogen", 20, start_psig=150, start_f=70, now_psig=150, now_f=70, minutes=30),), "proved"),
        ((happened("nitrogen", 20, start_psig=150, start_f=70, now_psig=130, now_f=70, minutes=30),), "against"),
        # 150 psig at 90 °F is 144 psig at 70 °F: that is the weather, not a leak.
        ((happened("nitrogen", 20, start_psig=150, start_f=90, now_psig=144, now_f=70, minutes=30),), "proved"),
        ((happened("leak_look", 20, place="flares", heard="no"),), "proved"),
        ((happened("leak_look", 20, place="flares", heard="bubbles"),), "against"),
        ((read("leak_test", "none_found", 20),), "proved"),
    ],
)
def test_pressure_held_is_by_nitrogen_or_no_find_at_the_place(events, state):
    assert states(did("leak", "repaired", 10), *events)["held"] == state


def test_amps_are_of_each_leg_of_three_or_the_one_of_a_single_phase():
    legs = [happened("measured", 30, what="amps", one=f"lead_{n}", value=12.0, state="calling") for n in (1, 2, 3)]
    repaired = (did("contactor", "replaced", 1), read("suction_psig", 15, 29), read("discharge_psig", 230, 29))
    assert states(*repaired, *legs[:2], unit=FREEZER)["amps"] == "open"
    assert states(*repaired, *legs, unit=FREEZER)["amps"] != "open"


def test_a_moved_output_is_proved_by_what_it_feeds():
    assert set(states(happened("act", 1, part="wiring", did="output_moved"), unit=FREEZER)) == {"air", "at_set"}


def test_proofs_of_a_coil_are_of_the_coil_that_was_worked_on():
    two = COOLER | {"evaporators": 2, "coils": ["left", "right"]}
    asked = states(did("evap_fan", "replaced", 1, on="right"), unit=two)
    assert ("air", 2) in asked and ("air", 1) not in asked and "at_set" in asked
    felt = states(did("evap_fan", "replaced", 1, on="right"), read("air_weak_at", ["nowhere"], 5, on="left"), unit=two)
    assert felt[("air", 2)] == "open"


@pytest.mark.parametrize("done", [("charge", "recovered"), ("condenser", "blocked_on_purpose"), ("leak", "given_up")])
def test_what_only_prepares_asks_for_nothing_of_its_own(done):
    assert set(states(did(*done, 1))) == {"at_set"}
