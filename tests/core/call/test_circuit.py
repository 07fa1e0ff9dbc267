"""What a meter says of the circuit is heard by the judgement, and what the judgement knows by the meter's next place."""

from tests.core.call.made import FREEZER, REACH_IN, did, happened, read, told

ONE_PHASE = REACH_IN | {"nameplate_v": 115, "phases": 1}
DEAD = (read("box_temp_f", 22, 1), read("control_call", "calling", 1), read("compressor", "off", 2), read("contactor", "in", 2))


def volts(one, other, value, at, state="calling"):
    return happened("measured", at, what="volts", one=one, other=other, value=value, state=state)


def share(call, code, stands="left"):
    course = call.course(1)
    rows = course.left if stands == "left" else course.was
    return sum(one.probability for one in rows if code in one.codes)


def test_full_volts_over_a_pole_that_is_pulled_in_is_a_contactor():
    # Line 1 to load 1 across a closed pole: 0 V when it carries, all of it when it does not.
    before, after = told(FREEZER, *DEAD), told(FREEZER, *DEAD, volts("L1", "T1", 228.0, 5))
    carries = told(FREEZER, *DEAD, volts("L1", "T1", 0.1, 5))
    assert share(after, "contactor_pole_open") > 2 * share(before, "contactor_pole_open")
    assert share(carries, "contactor_pole_open") < share(before, "contactor_pole_open")
    assert sum(part.probability for part in after.leads.parts if part.part.startswith("pole")) > 0.8


def test_measured_before_a_repair_says_nothing_of_the_wiring_after_it():
    call = told(FREEZER, *DEAD, volts("L1", "T1", 228.0, 5), did("contactor", "replaced", 30))
    assert not call.call.judged.wired.wirings[-1].readings
    assert share(call, "contactor_pole_open", "was") > share(call, "contactor_pole_open")


def test_what_the_meter_found_is_of_the_stage_it_was_measured_in_though_it_is_written_later():
    call = told(FREEZER, *DEAD, volts("L1", "T1", 228.0, 5), did("contactor", "replaced", 30), volts("L1", "T1", 0.1, 40))
    assert [len(one.readings) for one in call.call.judged.wired.wirings] == [1, 1]


def test_where_nothing_electrical_is_asked_no_lead_is_named():
    assert told(FREEZER, read("box_temp_f", -5, 1), read("compressor", "running", 1)).leads is None
    assert told(FREEZER, *DEAD).leads is not None


def test_a_capacitor_by_itself_is_no_reading_of_the_circuit():
    call = told(ONE_PHASE, happened("measured", 1, what="microfarads", one="run_capacitor", value=31.0))
    assert not any(one.readings for one in call.call.judged.wired.wirings)


def over_the_low_pressure_switch():
    return next((part.a, part.b) for part in told(FREEZER).call.record.circuit.parts if part.key == "lp_switch")


STANDS_OUT = (read("control_call", "calling", 1), read("compressor", "off", 2), read("contactor", "out", 2))


def test_a_low_pressure_switch_found_open_by_the_meter_is_told_like_one_seen_open():
    # An open switch says that the suction is low or its setting high: never its setting alone.
    met = told(FREEZER, *STANDS_OUT, volts(*over_the_low_pressure_switch(), 228.0, 5))
    seen = told(FREEZER, *STANDS_OUT, read("low_pressure_switch", "open", 5))
    assert met.course(1).now.facts.is_("low_pressure_switch", "open")
    for code in ("lp_control_misset", "liquid_solenoid_closed"):
        assert abs(share(met, code) - share(seen, code)) < 0.1
        assert share(met, code) > 0.2


def test_the_suction_decides_why_a_low_pressure_switch_stands_open():
    # R-404A: 8 psig is -24 °F, far below a freezer's; 60 psig is 27 °F, where a switch left right has made long ago.
    starved, full = (
        told(FREEZER, *STANDS_OUT, volts(*over_the_low_pressure_switch(), 228.0, 5), read("suction_psig", psig, 6)) for psig in (8.0, 60.0)
    )
    assert share(starved, "lp_control_misset") < 0.15 < 0.6 < share(full, "lp_control_misset")


def test_volts_over_a_switch_say_nothing_of_it_outside_a_call_or_where_they_are_few():
    ends = over_the_low_pressure_switch()
    for reading in (volts(*ends, 228.0, 5, "off"), volts(*ends, 3.0, 5)):
        assert "low_pressure_switch" not in told(FREEZER, *STANDS_OUT, reading).course(1).now.facts.seen


HEATED = FREEZER | {"defrost": "electric"}
RENEWED = happened("act", 20, part="heater", did="replaced")


def to_ground(point, ohms, at):
    return happened("measured", at, what="ohms", one=point, other="G", value=ohms, state="locked_out")


def codes(*events):
    return [hold.code for hold in told(HEATED, read("power_locked_out", "yes", 1), *events).holds()]


def test_a_heater_to_ground_has_no_volts_before_its_new_one_was_read_clear():
    lies = (to_ground("E2", 8e6, 5), to_ground("E1", 3.0, 6))
    call = told(HEATED, read("power_locked_out", "yes", 1), *lies)
    assert share(call, "heater_grounded", "was") > 0.99 and "grounded_heater" in codes(*lies)
    assert "grounded_heater" in codes(*lies, to_ground("E3", 9e6, 8)), "one that is clear does not clear another"
    assert "grounded_heater" in codes(*lies, RENEWED)
    assert "grounded_heater" in codes(*lies, RENEWED, to_ground("E1", 2e5, 24))
    assert "grounded_heater" not in codes(*lies, RENEWED, to_ground("E1", 9e6, 24))
    assert "grounded_heater" in codes(read("heater_ground_ohm", 40.0, 4)) and "grounded_heater" not in codes(
        to_ground("E1", 5e6, 4), RENEWED
    )
