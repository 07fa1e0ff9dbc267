"""What runs decides what is evidence and what is asked: a unit that stands still is judged as one."""

import pytest

from kettle.judging import checks, holds, stopped, verdicts
from kettle.judging.judge import judge
from kettle.judging.readings import work_out
from kettle.knowledge import observations, refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve

FREEZER = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", set_f=-5, phases=3, nameplate_v=230))
WARM_AND_OFF = {"compressor": "off", "box_temp_f": 31.0}


def facts(**seen):
    return work_out(FREEZER, {key: float(value) if isinstance(value, int) else value for key, value in seen.items()})


def share(judged, code):
    return sum(one.probability for one in judged.ranking if code in one.codes)


@pytest.mark.parametrize(
    ("seen", "state"),
    [
        ({}, ""),
        ({"compressor": "running"}, "running"),
        ({"compressor": "off", "control_call": "in_defrost"}, "defrosting"),
        ({"compressor": "off", "control_call": "satisfied", "box_temp_f": -5}, "off"),
        ({"compressor": "off", "control_call": "calling"}, "dead"),
        ({"compressor": "humming"}, "dead"),
        (WARM_AND_OFF, "dead"),
        ({"compressor": "off", "box_temp_f": -6}, "still"),
        ({"compressor": "off", "box_temp_f": 20, "suction_psig": 0}, "pumped_down"),
    ],
)
def test_what_runs_is_told_from_what_is_known(seen, state):
    assert stopped.state(facts(**seen)) == state and state in stopped.WORDS


def test_a_condenser_fan_that_stands_with_its_compressor_is_no_fault_and_no_hold():
    alone, with_contactor_in = WARM_AND_OFF | {"condenser_fans": "stopped"}, {"condenser_fans": "stopped", "contactor": "in"}
    judged = judge(FREEZER, alone)
    assert share(judged, "condenser_fan_failed") < 0.05 and "condenser_fan_stopped" not in {hold.code for hold in judged.holds}
    assert any("stands with the compressor" in why for _, why in judged.discounted)
    assert "condenser_fan_stopped" in {hold.code for hold in holds.standing(facts(**WARM_AND_OFF, **with_contactor_in))}, "it should run"


def test_glass_sound_and_lines_of_a_unit_that_stands_say_nothing_and_are_not_asked():
    silent = judge(FREEZER, WARM_AND_OFF)
    seen = judge(FREEZER, WARM_AND_OFF | {"sight_glass": "empty", "valve_sound": "silent", "suction_line_feel": "warm"})
    assert [one.codes for one in seen.ranking] == [one.codes for one in silent.ranking]
    assert seen.ranking[0].probability == pytest.approx(silent.ranking[0].probability)
    assert not {check.key for check in silent.next_checks} & set(stopped.FLOW)


def test_a_dead_unit_is_followed_along_its_current():
    keys = [check.key for check in judge(FREEZER, WARM_AND_OFF).next_checks]
    on_the_way = [key for key in keys if key in stopped.CURRENT]
    assert keys[0] == "control_call" and on_the_way == sorted(on_the_way, key=stopped.CURRENT.index) == keys[: len(on_the_way)]


def test_suction_at_rest_near_the_box_clears_the_solenoid_and_far_below_it_points_there():
    box = 20.0
    at = {name: refrigerants.get("R-404A").dew_psig(f) for name, f in (("near", box - 2), ("far", box - 45))}
    plain, near, far = (share(judge(FREEZER, {"compressor": "off", "box_temp_f": box} | extra), "liquid_solenoid_closed")
                        for extra in ({}, {"suction_psig": at["near"]}, {"suction_psig": at["far"]}))  # fmt: skip
    assert near < plain < far and near < 0.5 * plain


def test_behind_a_grounded_winding_nothing_is_measured_that_needs_power():
    judged = judge(FREEZER, {"compressor": "tripping", "winding_ground_ohm": 40.0})
    powered = ("line_v", "load_v", "pole_drop", "compressor_amps", "suction", "discharge")
    assert not [check.key for check in judged.next_checks if check.key.startswith(powered)]
    assert "grounded_compressor" in {hold.code for hold in judged.holds}


def test_under_a_megohm_is_held_and_named_and_a_good_winding_is_not():
    low = judge(FREEZER, {"compressor": "off", "winding_ground_ohm": 200e3})
    hold = next(hold for hold in low.holds if hold.code == "grounded_compressor")
    assert "200 kΩ" in hold.text
    assert next(v for v in low.verdicts if v.quantity == "winding_ground_ohm").state == "low"
    assert "grounded_compressor" not in {h.code for h in judge(FREEZER, {"compressor": "off", "winding_ground_ohm": 5e6}).holds}


def test_a_compressor_that_is_off_still_has_to_be_locked_out_for_ohms():
    assert "lock_out" in {hold.code for hold in judge(FREEZER, WARM_AND_OFF).holds}
    assert "lock_out" not in {hold.code for hold in judge(FREEZER, WARM_AND_OFF | {"power_locked_out": "yes"}).holds}


def test_a_coil_without_fans_has_no_fan_to_fail_and_none_to_look_at():
    judged = judge(FREEZER, {"evap_fans": "none", "box_temp_f": 12.0, "compressor": "running"})
    assert not {"evap_fan_failed", "evap_fan_no_power", "fan_delay_waiting"} & {code for one in judged.ranking for code in one.codes}
    assert not {check.key for check in judged.next_checks} & set(stopped.FANS)
    assert "fans_not_running" not in {hold.code for hold in judged.holds}


def test_fans_at_rest_in_a_defrost_are_no_fault():
    judged = judge(FREEZER, {"evap_fans": "stopped", "control_call": "in_defrost", "compressor": "off"})
    assert share(judged, "evap_fan_failed") + share(judged, "evap_fan_no_power") < 0.15
    assert not stopped.can_be_asked(observations.get("evap_fan_supply_v"), judged.facts)


def test_fans_held_by_ice_hold_what_still_fans_hold():
    assert "fans_not_running" in {hold.code for hold in judge(FREEZER, {"evap_fans": "held_by_ice"}).holds}


def test_fans_that_wait_for_gas_do_not_keep_gas_out():
    waiting = {"evap_fans": "stopped", "fan_delay": "waits_cold", "receiver_level_pct": 4.0, "compressor": "running"}
    held = [hold for hold in judge(FREEZER, waiting).holds if hold.code == "fans_not_running"]
    assert held and "charge_add" not in held[0].blocks
    full = judge(FREEZER, waiting | {"receiver_level_pct": 50.0})
    assert "charge_add" in next(hold for hold in full.holds if hold.code == "fans_not_running").blocks, "nothing says it is short"


def test_a_condenser_blocked_on_purpose_stands_for_weather():
    cold = {"sight_glass": "flashing", "evap_fans": "running", "condenser_fans": "running", "ambient_f": 31.0, "receiver_level_pct": 5.0,
            "condenser_coil": "clean"}  # fmt: skip
    assert "glass_alone" in {hold.code for hold in judge(FREEZER, cold).holds}
    assert "glass_alone" not in {hold.code for hold in judge(FREEZER, cold | {"condenser_blocking": "on_purpose"}).holds}


def test_a_starved_coil_need_not_reach_set_before_the_stem_is_turned():
    dew = refrigerants.get("R-404A").dew_psig(-31.0)
    starved = {"box_temp_f": 14.0, "suction_psig": dew, "suction_line_evap_f": 6.0, "sight_glass": "clear", "bulb": "tight_insulated"}
    held = lambda seen: "box_far_from_set" in {hold.code for hold in judge(FREEZER, seen).holds}  # noqa: E731
    assert held(starved), "the drier is not cleared yet"
    assert not held(starved | {"drier_drop_f": 0.5})
    assert held(starved | {"drier_drop_f": 0.5, "bulb": "loose"})


@pytest.mark.parametrize(
    ("seen", "asked"),
    [
        ({"control_call": "calling"}, True),
        ({"control_call": "satisfied"}, False),
        ({"control_call": "calling", "power_locked_out": "yes"}, False),
    ],
)
def test_the_pull_of_a_solenoid_is_looked_for_on_a_dead_unit_that_calls(seen, asked):
    f = facts(box_temp_f=20, compressor="off", **seen)
    assert stopped.can_be_asked(observations.get("liquid_solenoid"), f) == asked
    assert stopped.can_be_asked(observations.get("compressor_shell"), f)
    assert not stopped.can_be_asked(observations.get("suction_line_feel"), f)


HUMS = {"compressor": "humming", "contactor": "in", "control_call": "calling", "box_temp_f": 60.0}


@pytest.mark.parametrize(
    ("phases", "read", "left"),
    [
        (3, {"line_v_12": 228.0, "load_v_12": 227.0}, ("line_v_23", "load_v_23")),
        (3, {"line_v_12": 228.0, "load_v_12": 227.0, "line_v_23": 227.0}, ("load_v_23",)),
        # Pole 3 lies in both of the pairs that are read, 1 and 2 in one each.
        (3, {"line_v_23": 228.0, "load_v_23": 227.0, "line_v_31": 228.0, "load_v_31": 227.0}, ()),
        # The band ends at 8 V: what is lost beyond it says all, whatever was not read.
        (3, {"line_v_12": 228.0, "load_v_12": 220.0}, ("line_v_23", "load_v_23")),
        (3, {"line_v_12": 228.0, "load_v_12": 219.9}, ()),
        (1, {"line_v_12": 228.0, "load_v_12": 227.0}, ()),
    ],
)
def test_two_pairs_see_every_pole_of_three_and_one_does_not(phases, read, left):
    unit = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", set_f=-5, phases=phases))
    f = work_out(unit, HUMS | read)
    assert verdicts.legs_to_read(f, "load_loss_v") == left
    [verdict] = [one for one in verdicts.on(f) if one.quantity == "load_loss_v"]
    assert (verdict.trust == "none") == bool(left)


def test_a_sound_pole_clears_a_contactor_of_three_only_with_the_others():
    first = HUMS | {"pole_drop_v_1": 0.3}
    unread, one = judge(FREEZER, HUMS), judge(FREEZER, first)
    assert share(one, "contactor_pole_open") == pytest.approx(share(unread, "contactor_pole_open"), abs=0.01)
    assert verdicts.legs_to_read(one.facts, "pole_drop_v") == ("pole_drop_v_2",)
    two = first | {"pole_drop_v_2": 0.3}
    assert verdicts.legs_to_read(judge(FREEZER, two).facts, "pole_drop_v") == ("pole_drop_v_3",)
    every = judge(FREEZER, two | {"pole_drop_v_3": 0.2})
    assert share(every, "contactor_pole_open") < 0.5 * share(one, "contactor_pole_open")
    assert verdicts.legs_to_read(every.facts, "pole_drop_v") == verdicts.legs_to_read(every.facts, "td_f") == ()


def test_on_a_compressor_that_trips_live_readings_come_before_ohms_and_ohms_before_what_runs():
    tripping = {"box_temp_f": 50.0, "compressor": "tripping", "contactor": "in", "control_call": "calling", "evap_fans": "running",
                "high_pressure_switch": "closed", "line_v_12": 228.0, "suction_psig": 80.0}  # fmt: skip

    def asked(seen):
        return [check.key for check in judge(FREEZER, tripping | seen).next_checks]

    live = ("line_v_23", "line_v_31", "load_v_12")
    assert asked({})[0] in live and "power_locked_out" not in asked({})
    read = {f"{what}_{pair}": 228.0 for what in ("line_v", "load_v") for pair in ("12", "23", "31")} | {
        f"pole_drop_v_{pole}": 0.2 for pole in "123"
    }
    after = asked(read | {"condenser_fans": "running", "compressor_shell": "warm"})
    assert after[0] == "power_locked_out"
    assert not {"load_v_23", "pole_drop_v_2"} & set(asked({"power_locked_out": "yes"})), "never with the power off"


@pytest.mark.parametrize(
    ("phases", "between", "first", "least"),
    [(1, 5.0, "compressor_overload", 0.85), (1, 1e6, "compressor_open_winding", 0.9), (3, 1e6, "compressor_open_winding", 0.5)],
)
def test_start_to_run_tells_a_protector_from_a_winding_and_the_shell_is_felt_first(phases, between, first, least):
    unit = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-134a", phases=phases))
    dead = {"box_temp_f": 70.0, "compressor": "off", "contactor": "in", "control_call": "calling", "power_locked_out": "yes",
            "winding_cs_ohm": 1e6}  # fmt: skip
    open_as_found = judge(unit, dead)
    # What only rests is not replaced: the two want different acts, and the hand on the shell tells.
    assert {one.codes for one in open_as_found.ranking[:2]} == {("compressor_overload",), ("compressor_open_winding",)}
    assert open_as_found.next_checks[0].key == "compressor_shell"
    told = judge(unit, dead | {"winding_sr_ohm": between}).ranking[0]
    assert told.codes == (first,) and told.probability > least


@pytest.mark.parametrize(
    ("seen", "says"),
    [
        ({"box_temp_f": 40, "box_trend": "falling", "sight_glass": "few_bubbles"}, False),
        ({"box_temp_f": 40, "box_trend": "steady", "sight_glass": "few_bubbles"}, True),
        # A flashing glass speaks at any moment.
        ({"box_temp_f": 40, "box_trend": "falling", "sight_glass": "flashing"}, True),
    ],
)
def test_a_few_bubbles_of_a_box_that_comes_down_say_nothing(seen, says):
    assert (stopped.says_nothing("sight_glass", facts(compressor="running", evap_fans="running", **seen)) == "") is says


@pytest.mark.parametrize(("stock", "why"), [(-2.0, "after_defrost"), (-1.9, "")])
def test_stock_at_set_excuses_a_box_far_over_it_after_a_defrost(stock, why):
    # Set −5 °F, 3 °F of differential; 18 °F over set is more than a defrost leaves by itself.
    assert facts(box_temp_f=13, since_defrost_min=8, product_temp_f=stock).coming_down == why


def test_what_stands_at_rest_is_asked_before_the_power_goes_off():
    """A unit that is called and stands with its contactor out: its suction tells whether liquid comes, and the fans still have volts."""
    seen = WARM_AND_OFF | {"control_call": "calling", "contactor": "out", "low_pressure_switch": "open", "evap_fans": "running"}
    asked = [check.key for check in judge(FREEZER, seen).next_checks]
    assert asked[0] == "suction_psig"
    stopped_fans = [check.key for check in judge(FREEZER, seen | {"evap_fans": "stopped", "suction_psig": 40.0}).next_checks]
    assert "evap_fan_supply_v" in stopped_fans and "power_locked_out" not in stopped_fans


def test_the_power_goes_on_again_where_a_live_reading_tells_the_most():
    seen = WARM_AND_OFF | {"control_call": "calling", "contactor": "out", "evap_fans": "stopped", "suction_psig": 40.0,
                           "door_switch": "made", "low_pressure_switch": "closed", "power_locked_out": "yes", "winding_cs_ohm": 1.4,
                           "winding_cr_ohm": 1.4, "winding_sr_ohm": 1.4, "winding_ground_ohm": 2e8, "box_trend": "steady"}  # fmt: skip

    def power(more):
        return [check for check in judge(FREEZER, seen | more).next_checks if check.key == "power_locked_out"]

    [again] = power({})
    assert again.label == "Power on again" and "everyone clear" in again.how and "volts" in again.how
    assert power({"winding_ground_ohm": 200.0}) == [], "never on a compressor to ground"
    assert [check.label for check in power({"power_locked_out": "no"})] != ["Power on again"]


@pytest.mark.parametrize(
    ("seen", "first", "then"),
    [
        # Ohms of a compressor nobody suspects, beside fans that stand: not worth the leads now that it is off.
        (
            {"compressor": "off", "contactor": "out", "evap_fans": "stopped", "suction_psig": 40.0, "low_pressure_switch": "closed",
             "door_switch": "made"},
            "power_locked_out", "winding_cs_ohm",
        ),
        # Of one that hums they tell most, and the faces stand before the eyes.
        (
            {"compressor": "humming", "contactor": "in", "evap_fans": "running", "line_v_12": 228.0, "load_v_12": 227.0,
             "pole_drop_v_1": 0.2},
            "winding_cs_ohm", "power_locked_out",
        ),
    ],
)  # fmt: skip
def test_ohms_are_read_before_the_power_goes_on_again_where_they_tell_enough(seen, first, then):
    unit = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-404A", set_f=36, phases=3, nameplate_v=230))
    judged = judge(unit, seen | {"box_temp_f": 59.0, "control_call": "calling", "power_locked_out": "yes"})
    asked = [check.key for check in judged.next_checks]
    assert asked[0] == first and then in asked


@pytest.mark.parametrize(("seen", "asked"), [
    ({"compressor": "tripping", "power_locked_out": "yes"}, True),
    ({"compressor": "humming", "power_locked_out": "yes"}, True),
    ({"compressor": "tripping"}, False),
    ({"compressor": "running", "power_locked_out": "yes"}, False),
    ({"compressor": "tripping", "power_locked_out": "yes", "winding_ground_ohm": 5e8}, False),
])  # fmt: skip
def test_a_winding_is_read_to_ground_before_the_next_try_however_sure_the_rest_is(seen, asked):
    unit = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-134a", phases=1, nameplate_v=115))
    # Seen beyond doubt: nothing else is in question.
    judged = judge(unit, seen | {"box_temp_f": 60.0, "start_parts": "burnt", "contactor": "in"})
    assert stopped.ground_unread(judged.facts) == asked
    assert ("winding_ground_ohm" in {check.key for check in judged.next_checks}) == asked


@pytest.mark.parametrize(("shell", "first"), [("hot", True), (None, False)])
def test_once_all_else_is_settled_the_winding_to_ground_is_the_next_thing(monkeypatch, shell, first):
    unit = resolve(UnitSpec(kind="provision_room_cooler", refrigerant="R-404A", phases=3, nameplate_v=230, compressor_rla_a=18.0))
    legs = {f"{what}_v_{pair}": 229.0 for what in ("line", "load") for pair in ("12", "23", "31")}
    poles = {f"pole_drop_v_{pole}": 0.1 for pole in (1, 2, 3)}
    seen = {"box_temp_f": 61.0, "compressor": "tripping", "contactor": "in", "control_call": "calling", "power_locked_out": "yes",
            "winding_cs_ohm": 1e6}  # fmt: skip
    judged = judge(unit, legs | poles | seen | ({"compressor_shell": shell} if shell else {}))
    assert (judged.ranking[0].probability >= 0.9) == first
    assert (judged.next_checks[0].key == "winding_ground_ohm") == first
    if first:
        monkeypatch.setattr(checks, "SETTLED", judged.ranking[0].probability + 0.02)
        assert [one.key for one in judge(unit, legs | poles | seen | {"compressor_shell": "hot"}).next_checks][0] == "winding_cr_ohm"
