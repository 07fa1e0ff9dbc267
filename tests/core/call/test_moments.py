"""How it reasons, moment by moment: what was seen is there, what is normal is an answer, what rests says nothing, a later look counts.

The figures are worked by hand: saturation from the tables, superheat never over TD, a circuit as it runs with that fault.
"""

import pytest

from kettle.call import cures
from kettle.call.advice import held
from kettle.judging.judge import judge
from kettle.knowledge import acts, refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve
from tests.core.call.made import COOLER, FREEZER, REACH_IN, did, happened, read, told
from tests.core.judging.stories import ran

THREE_PHASE = COOLER | {"phases": 3, "nameplate_v": 230, "compressor_rla_a": 12.0}
LOST_LEG = {"line_v_12": 230, "line_v_23": 229, "line_v_31": 231, "load_v_12": 230, "load_v_23": 118, "load_v_31": 121, "contactor": "in"}
SHORT = {"suction_psig": 30.0, "sight_glass": "flashing", "receiver_level_pct": 5, "box_temp_f": 46, "evap_fans": "running",
         "ice_form": "none"}  # fmt: skip


def circuit(plate, box, td, superheat, split=22.0, subcooling=8.0, outside=75.0, **seen):
    """A circuit read while it ran, from TD and split."""
    return ran(plate, box, box - td, superheat, outside + split, subcooling, outside=outside, **seen)


def all_read(seen, at=0):
    return [read(key, value, at) for key, value in seen.items()]


def was(plate, *seen):
    """What it was, each answer with its chance."""
    return [(set(one.codes), one.probability) for one in told(plate, *seen).course().was]


def left(plate, *events):
    return [(set(one.codes), one.probability) for one in told(plate, *events).course().left]


def chance(answers, code):
    """How likely a cause is in all answers together."""
    return sum(share for codes, share in answers if code in codes)


# What is seen beside what is inferred -> what it was, all of it.
SEEN = {
    "a gasket gap and a fan that stands with its volts on": (
        FREEZER, {"box_temp_f": 12, "door": "gasket_gap", "evap_fans": "some_stopped", "evap_fan_supply_v": 228, "fan_delay": "let_go"},
        {"door_seal", "evap_fan_failed"}),
    "a blocked condenser, and gas short behind it": (
        COOLER, circuit(COOLER, 46, 24, 18, split=40, subcooling=2, condenser_coil="blocked", sight_glass="flashing",
                        receiver_level_pct=5.0, evap_fans="running", ice_form="none"), {"condenser_dirty", "undercharge"}),
    "fans that wait, gas short, condenser blocked": (
        FREEZER, {"box_temp_f": 24, "evap_fans": "stopped", "fan_delay": "waits_cold", "suction_psig": 4, "receiver_level_pct": 3,
                  "sight_glass": "flashing", "condenser_coil": "blocked", "compressor": "running", "ambient_f": 80, "liquid_line_f": 92,
                  "discharge_psig": 230}, {"fan_delay_waiting", "undercharge", "condenser_dirty"}),
    "a plugged drain beside a coil that is not cleared": (
        FREEZER, {"box_temp_f": 6, "drain": "blocked", "ice_form": "hard_ice", "ice_places": ["coil_bottom", "drain_pan"],
                  "coil_after_defrost": "part_iced", "defrost_ended_by": "time", "heater_volts": 228, "heater_amps": 7.9,
                  "heater_rated_w": 1800}, {"drain_blocked", "defrost_too_little"}),
    "a dirty coil, and a door that does not close": (
        COOLER, {"box_temp_f": 44, "evap_coil": "dirty", "door": "closer_failed", "evap_fans": "running"},
        {"evap_airflow_low", "door_seal"}),
}  # fmt: skip


@pytest.mark.parametrize("name", SEEN)
def test_what_was_seen_is_there_and_others_are_found_beside_it(name):
    plate, seen, wanted = SEEN[name]
    first, share = was(plate, *all_read(seen))[0]
    assert first == wanted and share > 0.5


NOT_THERE = {
    "a coil fan nobody has measured": {"evap_fans": "stopped"},
    "a coil fan that waits for the cold": {"evap_fans": "stopped", "evap_fan_supply_v": 230, "fan_delay": "waits_cold"},
    "a coil fan in a defrost": {"evap_fans": "stopped", "evap_fan_supply_v": 230, "control_call": "in_defrost"},
    "a coil fan without volts": {"evap_fans": "stopped", "evap_fan_supply_v": 3},
    "a condenser fan beside a compressor that is off": {"condenser_fans": "stopped", "compressor": "off"},
    "a condenser fan nobody saw the compressor with": {"condenser_fans": "stopped"},
    "a condenser fan on a cold day": {"condenser_fans": "stopped", "compressor": "running", "ambient_f": 40},
    "a dusty condenser": {"condenser_coil": "dusty"},
    "a door that stands open": {"door": "left_open"},
    "a slow drain": {"drain": "slow"},
}


@pytest.mark.parametrize("name", NOT_THERE)
def test_what_may_be_right_where_it_was_seen_competes_as_before(name):
    unit = resolve(UnitSpec(**FREEZER))
    seen = {key: float(value) if isinstance(value, int) else value for key, value in NOT_THERE[name].items()}
    assert judge(unit, seen).given == frozenset()
    assert judge(unit, {**seen, "condenser_fans": "reversed", "compressor": "running", "ambient_f": 75.0}).given == {"condenser_fan_failed"}


def test_past_three_the_rest_competes():
    seen = {"condenser_coil": "blocked", "door": "gasket_gap", "drain": "frozen", "evap_coil": "dirty", "leak_test": "found"}
    assert len(judge(resolve(UnitSpec(**FREEZER)), seen).given) == 3


def test_what_was_seen_is_put_right_by_its_act_and_the_other_stays():
    plate, seen, _ = SEEN["a blocked condenser, and gas short behind it"]
    events = [*all_read(seen), did("condenser", "cleaned", 20), read("condenser_coil", "clean", 25)]
    answers = left(plate, *events)
    assert answers[0][0] == {"undercharge"} and chance(answers, "condenser_dirty") < 0.1
    before = [one.code for one in cures.seen_there(told(plate, *all_read(seen)).call.judged)]
    after = [one.code for one in cures.seen_there(told(plate, *events).call.judged)]
    assert (before, after) == (["condenser_dirty"], [])


def test_a_settled_cause_is_done_and_not_asked_about():
    judged = told(FREEZER, *all_read(SEEN["a gasket gap and a fan that stands with its volts on"][1])).call.judged
    assert set(cures.settled(judged).codes) == {one.code for one in cures.due(judged)} == {"door_seal", "evap_fan_failed"}
    both = told(COOLER, *all_read(SEEN["a blocked condenser, and gas short behind it"][1])).call.judged
    assert [one.code for one in cures.due(both)] == ["condenser_dirty"], "what was seen first, though more is settled"
    assert cures.settled(told(COOLER, read("box_temp_f", 46, 0)).call.judged) is None, "there is more to ask"
    once = (*all_read({"drain": "blocked", "drain_pan": "overflowing"}), did("drain", "cleared", 20))
    assert cures.settled(told(FREEZER, *once).call.judged) is None, "it was done; now it is proved"


# Moments in which nothing is wrong -> what was read, and what was called wrong there once.
NORMAL = {
    "a delivery through an open door": (
        COOLER, {"box_temp_f": 47, "door": "left_open", "box_trend": "rising", "compressor": "running", "evap_fans": "running",
                 "ice_form": "none"}, "undercharge"),
    "a first start, with bubbles": (
        FREEZER, {"box_temp_f": 48, "complaint": ["first_start"], "box_trend": "falling", "sight_glass": "few_bubbles", "settled_min": 8,
                  "compressor": "running", "evap_fans": "running"}, "undercharge"),
    "a freezer only pulling down": (
        FREEZER, circuit(FREEZER, 35, 18, 16, split=26, subcooling=5, outside=85.0, box_trend="falling", evap_fans="running",
                         ice_form="none"), "txv_underfeeding"),
    "fresh from a defrost, the stock cold": (
        FREEZER, {"box_temp_f": 4, "since_defrost_min": 12, "product_temp_f": -3, "evap_fans": "running", "compressor": "running",
                  "ice_form": "light_frost"}, "hot_stock"),
    "satisfied, pumped down and off": (
        COOLER, {"box_temp_f": 35.5, "control_call": "satisfied", "compressor": "off", "suction_psig": 8, "low_pressure_switch": "open",
                 "contactor": "out", "condenser_fans": "stopped"}, "no_call"),
    "a cold night with a low head": (
        COOLER, circuit(COOLER, 37, 11, 9, split=38, subcooling=6, outside=30.0, sight_glass="few_bubbles", evap_fans="running"),
        "undercharge"),
}  # fmt: skip


@pytest.mark.parametrize("name", NORMAL)
def test_a_normal_moment_is_an_answer(name):
    plate, seen, once = NORMAL[name]
    answers = was(plate, *all_read(seen))
    assert answers[0][0] <= {"hot_stock"}, answers[:3]
    assert chance(answers, once) < 0.15 or answers[0][0] == {once}


def test_satisfied_far_above_set_is_no_normal_moment():
    warm = {"box_temp_f": 47, "control_call": "satisfied", "compressor": "off", "contactor": "out"}
    assert chance(was(COOLER, *all_read(warm)), "stat_calibration") + chance(was(COOLER, *all_read(warm)), "no_call") > 0.6


def test_a_warm_box_that_falls_counts_for_nothing_and_says_so():
    judged = told(COOLER, *all_read({"box_temp_f": 46, "box_trend": "falling"})).now()
    assert ("it is coming down: warm is usual on the way") in dict(judged.discounted).values()
    still = told(COOLER, *all_read({"box_temp_f": 46, "box_trend": "steady"})).now()
    assert not still.discounted


def test_warm_stock_is_told_by_the_stock():
    seen = {"box_temp_f": 40, "box_trend": "falling"}
    warm = was(COOLER, *all_read(seen | {"product_temp_f": 52}))
    cold = was(COOLER, *all_read(seen | {"product_temp_f": 37}))
    assert warm[0][0] == {"hot_stock"} and chance(warm, "hot_stock") > 0.6 > 0.2 > chance(cold, "hot_stock")


@pytest.mark.parametrize("compressor", ["off", "humming"])
def test_a_condenser_fan_on_a_lost_leg_says_nothing(compressor):
    answers = was(THREE_PHASE, *all_read(LOST_LEG | {"compressor": compressor, "condenser_fans": "stopped", "box_temp_f": 55}))
    assert answers[0][0] == {"contactor_pole_open"} and answers[0][1] > 0.9


def test_after_the_clock_was_repaired_a_unit_that_is_satisfied_has_nothing_left():
    events = [read("ice_form", "hard_ice", 0), read("defrost_starts", "never", 1), read("box_temp_f", 14, 1), did("timer", "replaced", 20),
              did("coil", "melted", 70), read("ice_form", "none", 75), read("box_temp_f", -6, 200), read("control_call", "satisfied", 200),
              read("compressor", "off", 200), read("low_pressure_switch", "open", 201), read("defrost_starts", "yes", 202),
              read("coil_after_defrost", "clear", 203)]  # fmt: skip
    assert left(FREEZER, *events)[0][0] == set() and left(FREEZER, *events)[0][1] > 0.9


def test_a_drain_that_runs_again_is_not_blocked_whoever_cleared_it():
    events = [read("drain", "blocked", 0), read("drain_pan", "overflowing", 0), did("coil", "melted", 30), read("drain", "running", 40)]
    assert chance(left(FREEZER, *events), "drain_blocked") < 0.2
    assert chance(left(FREEZER, *events[:-1]), "drain_blocked") > 0.9


def test_a_leak_that_is_tight_again_has_not_its_gas_again():
    events = [*all_read(SHORT | {"leak_test": "found"}), did("leak", "repaired", 40), read("leak_test", "none_found", 60)]
    assert chance(left(COOLER, *events), "undercharge") > 0.5


def test_ice_that_is_back_on_a_bare_coil_speaks():
    bare = [read("ice_form", "hard_ice", 0), read("ice_places", ["coil_whole"], 0), read("box_temp_f", 47, 1), read("door", "left_open", 2),
            did("coil", "melted", 60), read("ice_form", "none", 62)]  # fmt: skip
    back = [*bare, read("ice_form", "hard_ice", 400), read("ice_places", ["coil_whole"], 400)]
    ice = [one.key for one in told(COOLER, *back).course().was[0].speaks_for if one.stage == 1]
    assert "ice_form" in ice and not [one for one in told(COOLER, *bare).course().was[0].speaks_for if one.stage == 1]


def test_a_line_that_is_colder_than_the_air_is_fed():
    starved = circuit(COOLER, 44, 30, 23, sight_glass="clear", bulb="tight_insulated", evap_fans="running", ice_form="none")
    answers = was(COOLER, *all_read(starved))
    assert answers[0][0] == {"txv_underfeeding"} and chance(answers, "liquid_solenoid_closed") < 0.05
    unfed = {"box_temp_f": 48, "suction_psig": 1, "suction_line_evap_f": 47, "compressor": "running", "evap_fans": "running"}
    assert was(COOLER, *all_read(unfed))[0][0] == {"liquid_solenoid_closed"}


def test_two_turns_without_an_answer_speak_for_a_valve_that_is_stuck():
    starved = circuit(COOLER, 44, 30, 23, sight_glass="clear", bulb="tight_insulated", evap_fans="running", ice_form="none")
    again = circuit(COOLER, 44, 30, 23)
    turn = {"part": "valve", "did": "turned_out", "value": 0.5}
    events = [*all_read(starved), happened("act", 5, **turn), *all_read(again, 25), happened("act", 26, **turn), *all_read(again, 50)]
    assert left(COOLER, *events)[0][0] == {"txv_underfeeding"}


@pytest.mark.parametrize(("back", "cures"), [(1.0, False), (0.5, True)])
def test_a_stem_that_is_turned_back_cures_nothing(back, cures):
    starved = circuit(COOLER, 44, 30, 23, sight_glass="clear", bulb="tight_insulated", evap_fans="running", ice_form="none")
    turned = [happened("act", at, part="valve", did="turned_out", value=0.5) for at in (5, 6)]
    events = [*all_read(starved), *turned, happened("act", 7, part="valve", did="turned_in", value=back)]
    before = chance(was(COOLER, *all_read(starved)), "txv_underfeeding")
    after = chance(left(COOLER, *events), "txv_underfeeding")
    assert (after < before - 0.1) == cures


@pytest.mark.parametrize(("superheat", "further"), [((1.0, -0.5), True), ((20.0, 9.0), False)])
def test_what_goes_further_from_its_band_is_not_praised(superheat, further):
    before, after = (circuit(COOLER, 38, 24, one, evap_fans="running") for one in superheat)
    events = [*all_read(before), happened("act", 10, part="charge", did="added", value=16), *all_read(after, 40)]
    effect = next(one for one in told(COOLER, *events).course().effects if one.quantity == "superheat_evap_f")
    assert (effect.way, effect.came, effect.past) == ("down", True, further)


# What was collected and never weighed -> what it says.
WEIGHED = {
    "liquid much colder at the valve": (
        COOLER, circuit(COOLER, 44, 26, 20, evap_fans="running", sight_glass="flashing", drier_drop_f=0.5, liquid_line_valve_f=55.0),
        "liquid_restriction"),
    "no volts on the heaters in a defrost": (
        FREEZER, {"ice_form": "hard_ice", "box_temp_f": 8, "control_call": "in_defrost", "heater_amps": 0, "heater_volts": 0},
        "defrost_never_starts"),
    "volts, no amps and no rating": (
        FREEZER, {"ice_form": "hard_ice", "box_temp_f": 8, "control_call": "in_defrost", "heater_amps": 0, "heater_volts": 229},
        "defrost_heater_open"),
    "the label charge is in, and it starves": (
        REACH_IN | {"metering": "cap_tube"}, {"box_temp_f": 52, "charge_weighed": "yes", "suction_psig": 3, "suction_line_evap_f": 40,
                                              "compressor": "running", "evap_fans": "running", "ice_form": "none", "ambient_f": 78,
                                              "discharge_psig": 130, "liquid_line_f": 82}, "cap_tube_restricted"),
}  # fmt: skip


@pytest.mark.parametrize("name", WEIGHED)
def test_every_observation_bears(name):
    plate, seen, wanted = WEIGHED[name]
    answers = was(plate, *all_read(seen))
    assert answers[0][0] == {wanted}, answers[:3]


def test_the_program_as_found_is_evidence():
    iced = {"box_temp_f": 8, "ice_form": "hard_ice", "ice_places": ["coil_whole"]}
    short = was(FREEZER, *all_read(iced | {"defrosts_per_day": 2, "defrost_set_min": 12}))
    enough = was(FREEZER, *all_read(iced | {"defrosts_per_day": 4, "defrost_set_min": 45}))
    assert short[0][0] == {"defrost_too_little"} and short[0][1] > 0.6
    assert chance(enough, "defrost_too_little") < 0.5 * chance(was(FREEZER, *all_read(iced)), "defrost_too_little")
    assert chance(enough, "defrost_heater_open") > chance(short, "defrost_heater_open")
    long = was(FREEZER, *all_read({"ice_places": ["ceiling"], "ice_form": "none", "defrosts_per_day": 8, "defrost_set_min": 45}))
    assert long[0][0] == {"defrost_too_much"}


def test_a_hiss_at_a_unit_that_stands_is_a_liquid_valve_that_does_not_shut():
    rests = {"box_temp_f": 36, "control_call": "satisfied", "compressor": "off"}
    hissing = was(COOLER, *all_read(rests | {"valve_sound": "hissing_gas"}))
    assert hissing[0][0] in ({"solenoid_leaking"}, set()) and chance(hissing, "solenoid_leaking") > 5 * chance(
        was(COOLER, *all_read(rests)), "solenoid_leaking"
    )
    running = was(COOLER, *all_read({"compressor": "running", "valve_sound": "hissing_gas"}))
    assert chance(running, "solenoid_leaking") < 0.05


@pytest.mark.parametrize(
    ("seen", "more", "key"),
    [
        ({"box_temp_f": 36.0, "control_call": "satisfied", "compressor": "off"}, {"valve_sound": "hissing_gas"}, "liquid_solenoid"),
        ({"box_temp_f": 46.0, "ambient_f": 70.0}, {"liquid_psig": 260.0}, "compressor"),
        ({"box_temp_f": 46.0, "ambient_f": 70.0}, {"discharge_psig": 260.0}, "compressor"),
    ],
)
def test_what_is_told_from_something_else_counts_after_an_act_too(seen, more, key):
    def speaking(*events):
        return {e.key for one in told(COOLER, *events).course().was for e in (*one.speaks_for, *one.speaks_against) if e.stage}

    before = [*all_read(seen), did("coil", "cleaned", 10)]
    assert key in speaking(*before, *all_read(more, 30))
    assert key not in speaking(*before, *all_read({"door": "good"}, 30))


def test_a_heater_that_is_off_outside_a_defrost_says_nothing():
    seen = {"ice_form": "hard_ice", "box_temp_f": 8, "control_call": "calling", "heater_volts": 0}
    assert chance(was(FREEZER, *all_read(seen)), "defrost_never_starts") < 0.4


def test_the_label_charge_weighed_in_speaks_against_a_wrong_charge():
    known = [key for key in SHORT if key not in ("receiver_level_pct", "sight_glass")]
    with_it, without = ({key: SHORT[key] for key in known} | {"charge_weighed": word} for word in ("yes", "no"))
    assert chance(was(COOLER, *all_read(with_it)), "undercharge") < 0.4 * chance(was(COOLER, *all_read(without)), "undercharge")


def test_low_superheat_in_a_pull_down_is_no_pull_down():
    flood = circuit(FREEZER, 8, 11, 1, evap_fans="running", compressor_shell="frosted", bulb="tight_insulated", evap_coil="clean")
    judged = told(FREEZER, *all_read(flood)).now()
    assert next(v.trust for v in judged.verdicts if v.quantity == "superheat_evap_f") == "good"
    assert was(FREEZER, *all_read(flood))[0][0] == {"txv_overfeeding"}
    assert refrigerants.get("R-404A").dew_f(judged.facts.number("suction_psig")) == pytest.approx(-3.0, abs=0.2)


WINTER = COOLER | {"head_control": "mixing_valve"}


@pytest.mark.parametrize(("plate", "weather", "asked"), [(WINTER, {}, True), (WINTER, {"ambient_f": 40}, False), (COOLER, {}, False)])
def test_the_weather_is_asked_before_gas_where_the_cold_could_be_it(plate, weather, asked):
    short = {key: value for key, value in circuit(plate, 45, 24, 18, subcooling=2).items() if key not in ("ambient_f", "discharge_psig")}
    seen = short | {"sight_glass": "flashing", "receiver_level_pct": 5, "evap_fans": "running", "ice_form": "none"} | weather
    judged = told(plate, *all_read(seen)).call.judged
    check = next((one for one in judged.course(1).now.next_checks if one.key == "ambient_f"), None)
    assert (check is not None and "charge short for the winter" in check.meaning) == asked
    assert not (asked and cures.settled(judged)), "nothing is settled before the weather is known"


def test_on_water_nothing_of_a_condenser_coil_is_waited_for():
    seen = {"sight_glass": "flashing", "evap_fans": "running", "receiver_level_pct": 6}
    held = {name: [one.text for one in told(COOLER | {"condensing": name}, *all_read(seen)).holds(1) if one.code == "glass_alone"]
            for name in ("air", "water")}  # fmt: skip
    assert "condenser coil, condenser fan" in held["air"][0] and held["water"] == []


@pytest.mark.parametrize(("besides", "held"), [
    ({}, True), ({"oil_trace": "at_fitting"}, False), ({"melt_water": "cloudy_foaming"}, False), ({"leak_test": "found"}, False),
    ({"receiver_level_pct": 6}, True), ({"receiver_level_pct": 6, "ice_places": ["coil_inlet_passes"]}, False),
    ({"receiver_level_pct": 50, "ice_places": ["coil_inlet_passes"]}, True),
])  # fmt: skip
def test_bubbles_with_a_second_witness_do_not_stand_alone(besides, held):
    seen = {"sight_glass": "few_bubbles", "box_temp_f": 45}
    assert any(one.code == "glass_alone" for one in told(COOLER, *all_read(seen | besides)).holds(1)) == held


def test_what_was_seen_before_an_act_that_brought_nothing_is_asked_again_last():
    starved = circuit(COOLER, 44, 30, 23, sight_glass="clear", evap_fans="running", ice_form="none", bulb="tight_insulated")
    turn = happened("act", 5, part="valve", did="turned_out", value=0.5)
    checks = told(COOLER, *all_read(starved), turn, *all_read(circuit(COOLER, 44, 30, 23), 25)).next_checks(1)
    assert checks and checks[0].key != "sight_glass"


def test_low_volts_and_an_overload_are_told_together():
    seen = {"compressor": "off", "contactor": "in", "control_call": "calling", "line_v_12": 199, "line_v_23": 228, "line_v_31": 230,
            "load_v_12": 198, "load_v_23": 227, "load_v_31": 229, "compressor_shell": "hot", "box_temp_f": 50}  # fmt: skip
    answers = was(THREE_PHASE, *all_read(seen))
    assert {"voltage_problem", "compressor_overload"} in [codes for codes, _ in answers[:3]]


def test_an_off_cycle_box_has_no_defrost_that_could_not_start():
    iced = {"box_temp_f": 46, "ice_form": "hard_ice", "ice_places": ["coil_whole"]}
    assert chance(was(REACH_IN | {"defrost": "off_cycle"}, *all_read(iced)), "defrost_never_starts") == 0.0
    assert chance(was(REACH_IN | {"defrost": "electric"}, *all_read(iced)), "defrost_never_starts") > 0.02


def test_nothing_is_asked_that_cannot_be_seen_now():
    locked = told(THREE_PHASE, *all_read({"compressor": "off", "box_temp_f": 50, "power_locked_out": "yes"})).next_checks(1)
    assert locked and not {"contactor", "control_call", "compressor"} & {one.key for one in locked}
    water = {"drain": "slow", "complaint": ["water"]}
    asked = [{one.key for one in told(plate, *all_read(water)).next_checks(1)} for plate in (FREEZER, COOLER)]
    assert "drain_heater" in asked[0] and "drain_heater" not in asked[1]


def test_running_a_valve_in_out_and_back_is_held_no_more_than_closing_it():
    exercised, out = acts.get("valve", "exercised"), acts.get("valve", "turned_out")
    floods = circuit(COOLER, 46, 14, 1, bulb="tight_insulated", evap_fans="running", compressor="running", ice_form="none")
    now = told(COOLER, *all_read(floods)).now()
    assert held(now, out) and not held(now, exercised)
    for change in ({"bulb": "loose"}, {"suction_line_evap_f": floods["suction_line_evap_f"] + 12}):
        assert held(told(COOLER, *all_read(floods | change)).now(), exercised)
    assert held(now, acts.get("door", "adjusted")) == []


STOOD = (read("box_temp_f", 45, 1), read("evap_fans", "running", 1), read("ice_form", "none", 1), read("compressor", "running", 2),
         read("condenser_fans", "stopped", 3), read("condenser_coil", "clean", 3))  # fmt: skip
ENDS = {
    "it stopped since: the fan stood while it ran": ((read("compressor", "off", 15),), True),
    "locked out since": ((read("power_locked_out", "yes", 15), read("compressor", "off", 16)), True),
    "seen turning later": ((read("condenser_fans", "running", 15), read("compressor", "off", 16)), False),
    "seen standing again, at rest": ((read("compressor", "off", 15), read("condenser_fans", "stopped", 16)), False),
}


@pytest.mark.parametrize(("since", "there"), ENDS.values(), ids=ENDS)
def test_a_condenser_fan_that_stood_while_the_compressor_ran_is_there_when_that_stands_too(since, there):
    assert (chance(left(REACH_IN, *STOOD, *since), "condenser_fan_failed") > 0.95) == there


def test_a_condenser_fan_first_seen_with_the_compressor_off_or_kept_by_the_cold_is_not_there():
    off = [read("compressor", "off", 1) if event["key"] == "compressor" else event for event in STOOD]
    assert chance(was(REACH_IN, *off), "condenser_fan_failed") < 0.1
    cycled = COOLER | {"head_control": "fan_cycling"}
    assert chance(was(cycled, *STOOD, read("compressor", "off", 15)), "condenser_fan_failed") < 0.3


def test_a_new_condenser_fan_leaves_nothing_of_one_that_stood():
    after = (did("condenser_fan", "replaced", 30), read("compressor", "running", 40), read("condenser_fans", "running", 41))
    assert chance(left(REACH_IN, *STOOD, read("compressor", "off", 15), *after), "condenser_fan_failed") < 0.1


def test_what_is_seen_after_a_look_that_found_something_gone_is_heard():
    since = (read("condenser_fans", "running", 15), read("drain_fault", ["line_heater_dead"], 16))
    assert chance(left(REACH_IN, *STOOD, *since), "drain_blocked") > 0.9


LOCKED = (read("box_temp_f", 45, 1), read("compressor", "running", 2), read("line_v_12", 116, 3), read("power_locked_out", "yes", 10))


@pytest.mark.parametrize("nameplate_v", [None, 115])
def test_volts_that_prove_it_dead_are_no_fault_of_the_supply_and_volts_before_it_stand(nameplate_v):
    plate = REACH_IN | {"nameplate_v": nameplate_v, "phases": 1}
    assert chance(left(plate, *LOCKED, read("line_v_12", 0, 11)), "voltage_problem") < 0.05
    # Half a volt too few to be live, and as many as are.
    assert chance(left(plate, *LOCKED, read("line_v_12", 49.5, 11)), "voltage_problem") < 0.05
    assert chance(left(plate, *LOCKED, read("line_v_12", 50, 11)), "voltage_problem") > 0.95
    on = (read("power_locked_out", "no", 15), read("line_v_12", 0, 16))
    assert chance(left(plate, *LOCKED, *on), "voltage_problem") > 0.95


def test_a_fan_that_stands_locked_out_is_no_dead_one():
    locked = (*LOCKED, read("condenser_fans", "stopped", 11), read("evap_fans", "stopped", 12), read("compressor", "off", 13))
    answers = left(REACH_IN | {"phases": 1}, *locked)
    assert chance(answers, "condenser_fan_failed") < 0.1 and chance(answers, "evap_fan_failed") < 0.1
    loose = (*LOCKED, read("condenser_fans", "reversed", 11))
    assert chance(left(REACH_IN | {"phases": 1}, *loose), "condenser_fan_failed") > 0.5
