"""Where the meter goes next: only where something electrical is asked, to what is worth most, and nowhere once a part is found."""

import pytest

from kettle.benches.electrical.bench import FOUND_FROM
from tests.core.call.made import FREEZER, REACH_IN, happened, read, told

THREE = FREEZER | {"nameplate_v": 230, "phases": 3}
CALLS = read("control_call", "calling", 1)
STANDS_IN = (read("box_temp_f", 22, 1), CALLS, read("compressor", "off", 2), read("contactor", "in", 2))


def volts(one, other, value, at=5, state="calling"):
    return happened("measured", at, what="volts", one=one, other=other, value=value, state=state)


@pytest.mark.parametrize(("key", "word", "asked"), [
    ("evap_fans", "stopped", True), ("evap_fans", "some_stopped", True), ("evap_fans", "running", False),
    ("contactor", "chattering", True), ("defrost_starts", "never", True), ("defrost_starts", "yes", False),
    ("breaker", "trips_at_once", True), ("breaker", "trips_warm", True), ("breaker", "holds", False),
])  # fmt: skip
def test_what_stands_asks_for_a_meter_and_what_runs_does_not(key, word, asked):
    call = told(THREE, read("box_temp_f", 5, 1), read(key, word, 2))
    assert (call.leads is not None) is asked


def test_fans_that_rest_in_a_defrost_ask_for_none():
    assert told(THREE, read("control_call", "in_defrost", 1), read("evap_fans", "stopped", 2)).leads is None


def test_a_condenser_fan_that_stands_with_its_compressor_asks_for_none():
    # It waits for the head, or hangs on the contactor: only one that stands while the compressor runs is a fault.
    assert told(THREE, CALLS, read("compressor", "running", 2), read("condenser_fans", "stopped", 2)).leads is not None
    resting = told(THREE, read("control_call", "satisfied", 1), read("compressor", "off", 2), read("condenser_fans", "stopped", 2))
    assert resting.leads is None


def test_the_next_lead_names_its_points_and_what_is_due():
    hums = (read("box_temp_f", 22, 1), CALLS, read("compressor", "humming", 2), read("contactor", "in", 2))
    clamp = told(THREE, *hums, volts("L1", "L2", 230), volts("T1", "T2", 230), volts("T2", "T3", 230)).leads
    assert clamp.lead.what == "amps" and clamp.state == "calling" and clamp.text.startswith("Clamp round ") and " A is due." in clamp.text
    # One that does not even hum draws nothing: a clamp round its leads says nothing.
    leads = told(THREE, *STANDS_IN).leads
    assert leads.lead.what == "volts" and leads.text.startswith("Volts between ") and f" {leads.lead.expected:.0f} V is due." in leads.text
    assert f"{leads.lead.one} (" in leads.text and f"{leads.lead.other} (" in leads.text


def test_a_part_that_is_found_is_said_with_what_to_ask_before_a_new_one():
    leads = told(THREE, *STANDS_IN, volts("L1", "L2", 230, 3), volts("L1", "T1", 199, 4), volts("T3", "T1", 115, 5)).leads
    # Behind an open pole a sound winding floats midway between the other two: 115 V to each, 230·√3⁄2 over the pole.
    assert leads.lead is None and leads.text.startswith("Found: ") and "pole 1" in leads.text
    assert leads.parts[0].probability >= FOUND_FROM and leads.parts[0].part == "pole_1"
    assert any("Why did it burn?" in one for one in leads.afterwards)


def test_a_pressure_switch_found_open_asks_which_pressure_opened_it():
    unit = told(THREE).call.record.circuit
    ends = next((part.a, part.b) for part in unit.parts if part.key == "lp_switch")
    out = (read("box_temp_f", 22, 1), CALLS, read("compressor", "off", 2), read("contactor", "out", 2))
    leads = told(THREE, *out, volts(*ends, 229)).leads
    assert leads.text.startswith("Found: ") and any("Which pressure opened it?" in one for one in leads.afterwards)


def test_where_it_was_measured_is_not_measured_again():
    measured = volts("L1", "L2", 229, 4)
    first = told(THREE, *STANDS_IN, measured).leads.lead
    again = told(THREE, *STANDS_IN, measured, volts(first.one, first.other, first.expected, 6)).leads
    assert again.lead is None or {again.lead.one, again.lead.other} != {first.one, first.other}


def test_behind_a_lock_out_no_volts_are_taken():
    leads = told(THREE, *STANDS_IN, read("power_locked_out", "yes", 8), volts("L1", "L2", 230, 3)).leads
    assert leads is None or leads.lead is None


def test_the_parts_told_share_the_doubt_likeliest_first():
    parts = told(THREE, *STANDS_IN).leads.parts
    shares = [one.probability for one in parts]
    assert shares == sorted(shares, reverse=True) and all(0.01 <= one <= 1.0 for one in shares) and len(parts) <= 8


def test_one_phase_has_two_poles_at_the_most():
    leads = told(REACH_IN | {"nameplate_v": 115, "phases": 1}, CALLS, read("compressor", "off", 2), read("contactor", "in", 2)).leads
    assert leads is not None and all(part.part not in ("pole_3", "winding_3") for part in leads.parts)


def test_what_lies_to_ground_stays_off_and_is_named_by_the_circuit_too():
    call = told(THREE, *STANDS_IN, read("winding_ground_ohm", 20.0, 4))
    assert call.leads.lead is None and sum(one.probability for one in call.leads.parts if one.way == "grounded") > 0.75
    wet = told(THREE, *STANDS_IN, read("heater_ground_ohm", 4e5, 4)).leads
    assert wet.lead is None and wet.text.startswith("Stays off: ")
