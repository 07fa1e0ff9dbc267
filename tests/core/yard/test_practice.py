"""Work on a drawn unit: nothing is given, everything costs its minutes, acts act, and what would hurt is stopped."""

from dataclasses import replace

import pytest

from kettle.benches.ice import melt
from kettle.knowledge import acts, observations
from kettle.knowledge.errors import InputError
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.simulate import PRESETS
from kettle.yard.debrief import debrief, holds_for_a_week
from kettle.yard.drawn import Draw
from kettle.yard.follow import follow, put_right_until_it_runs
from kettle.yard.practice import ASKED, BEFORE_MELT_MIN, DID, FACE_FT2, PUT_MIN, STOPPED, WITH_PARTS_MIN, WITHOUT_PARTS_MIN, Step, begin


def drawn(kind, *codes, outside_f=85.0, severity=1.0, number=1):
    return Draw(number, PRESETS[kind], outside_f, "one", tuple((code, severity) for code in codes), (), "warm", "“Too warm.”")


def test_nothing_is_known_at_the_beginning_but_what_the_customer_says():
    practice = begin(drawn("walk_in_cooler", "evap_fan_failed"))
    assert practice.stages == [{"complaint": ("warm",)}] and practice.minutes == 0.0 and practice.steps == []


def test_a_look_costs_its_minutes_and_the_unit_runs_on_meanwhile():
    practice = begin(drawn("walk_in_cooler", "condenser_dirty"))
    hours = float(practice.rig.state.hours)
    step = practice.ask("box_temp_f")
    minutes = observations.get("box_temp_f").minutes
    assert (step.what, step.minutes, step.at_min) == (ASKED, minutes, 0.0) and isinstance(step.value, float)
    assert float(practice.rig.state.hours) - hours == pytest.approx(minutes / 60.0, abs=0.01)
    assert practice.stages[-1]["box_temp_f"] == step.value
    assert practice.ask("door").at_min == minutes and practice.minutes == minutes + observations.get("door").minutes


def test_what_cannot_be_had_now_says_why_and_costs_its_minutes_too():
    practice = begin(drawn("walk_in_cooler", "no_call"))
    step = practice.ask("suction_line_evap_f")
    assert step.value is None and "compressor stands" in step.says and step.minutes > 0.0
    assert "suction_line_evap_f" not in practice.stages[-1]


@pytest.mark.parametrize(("ask", "says"), [
    (lambda p: p.ask("suction"), "suction_psig"), (lambda p: p.ask("water_in_f"), "has none"),
    (lambda p: p.ask("power_locked_out"), "put power_locked_out yes"), (lambda p: p.put("door", "good"), "ask door"),
    (lambda p: p.wait(0.0), "0 to 10080 min"), (lambda p: p.wait(10081.0), "0 to 10080 min"), (lambda p: p.do("charge", "added"), "oz"),
    (lambda p: p.do("charge", "added", -1.0), "outside"), (lambda p: p.do("water_valve", "replaced"), "cannot be done"),
    (lambda p: p.name(["tea"]), "tea"),
])  # fmt: skip
def test_what_cannot_be_is_said_and_costs_nothing(ask, says):
    practice = begin(drawn("walk_in_cooler", "condenser_dirty"))
    with pytest.raises(InputError, match=says):
        ask(practice)
    assert practice.steps == [] and practice.minutes == 0.0


def test_what_a_hold_forbids_is_stopped_explained_and_not_done():
    practice = begin(drawn("walk_in_cooler", "evap_fan_failed"))
    practice.ask("evap_fans")
    assert practice.facts.is_("evap_fans", "stopped", "some_stopped")
    charge = float(practice.rig.parts.charge_lb)
    step = practice.do("charge", "added", 8.0)
    assert step.what == STOPPED and "Not until" in step.says and step.minutes == 0.0
    assert float(practice.rig.parts.charge_lb) == charge and practice.done == []


def test_hands_go_on_after_the_lock_out_and_what_needs_power_rests_then():
    practice = begin(drawn("walk_in_cooler", "evap_fan_failed"))
    code = next(act for act in acts.ACTS.values() if act.part == "evap_fan" and act.did == "replaced")
    assert practice.do(code.part, code.did).what == STOPPED
    step = practice.put("power_locked_out", "yes")
    assert step.minutes == PUT_MIN
    assert practice.ask("compressor").value is None and "locked out" in practice.steps[-1].says
    done = practice.do(code.part, code.did)
    assert (done.what, done.minutes) == (DID, WITH_PARTS_MIN if code.spares else WITHOUT_PARTS_MIN)
    assert "evap_fan_failed" not in practice.rig.wrong
    assert practice.stages[-1]["power_locked_out"] == "yes", "it stays locked until it is let on"


def test_a_grounded_compressor_is_not_let_on_again():
    practice = begin(drawn("walk_in_cooler", "compressor_grounded"))
    practice.ask("compressor")
    practice.put("power_locked_out", "yes")
    assert practice.ask("winding_ground_ohm").value is not None
    assert practice.put("power_locked_out", "no").what == STOPPED
    assert practice.rig.own["power_locked_out"] == "yes"


def test_one_that_starts_and_stops_is_read_in_the_minute_it_runs():
    practice = begin(drawn("bottle_cooler", "stat_calibration", "overcharge", outside_f=95.0))
    practice.run()
    assert practice.rig.running and practice.ask("suction_psig").value is not None


def test_a_fan_that_stood_while_it_ran_is_not_seen_anew_when_it_stops():
    practice = begin(drawn("bottle_cooler", "condenser_fan_failed"))
    practice.run()
    assert (practice.ask("compressor").value, practice.ask("condenser_fans").value) == ("short_cycling", "stopped")
    while practice.rig.running:
        practice.wait(1.0)
    assert practice.stages[-1]["compressor"] == "short_cycling" and practice.course.was[0].codes == ("condenser_fan_failed",)


@pytest.mark.parametrize(("kind", "code"), [
    ("walk_in_cooler", "condenser_dirty"), ("reach_in_cooler", "evap_airflow_low"), ("walk_in_freezer", "bulb_fault"),
    ("display_cooler", "no_call"), ("walk_in_freezer", "compressor_grounded"), ("reach_in_freezer", "compressor_grounded"),
    ("prep_rail", "voltage_problem"), ("bottle_cooler", "residual_ice"),
])  # fmt: skip
def test_it_is_found_by_holds_and_checks_alone(kind, code):
    practice = begin(drawn(kind, code))
    assert follow(practice) == (code,)
    told = debrief(practice)
    assert told.right and told.named == told.codes == (code,)
    assert told.known_at_min is not None and told.known_at_min <= told.minutes and told.gave_away
    assert told.shortest[0] == (code,) and told.shortest[1] <= practice.minutes and told.shortest[2] <= told.asked
    assert told.path and sum(step.minutes for step in told.path) == pytest.approx(told.shortest[1])
    with pytest.raises(InputError, match="over"):
        practice.ask("door")


def test_a_right_repair_holds_for_a_week_and_another_does_not():
    right, wrong = (begin(drawn("walk_in_cooler", "condenser_dirty", outside_f=100.0)) for _ in range(2))
    act = acts.ACTS[acts.SUREST["condenser_dirty"]]
    right.put("power_locked_out", "yes")
    assert right.do(act.part, act.did).what == DID
    wrong.put("power_locked_out", "yes")
    other = next(one for one in acts.ACTS.values() if one.part == "drain" and one.exists_on(wrong.rig.unit) and not one.unit)
    wrong.do(other.part, other.did)
    assert holds_for_a_week(right) and not holds_for_a_week(wrong)


def test_the_debrief_names_harm_parts_for_nothing_and_gas():
    practice = begin(drawn("walk_in_cooler", "evap_fan_failed"))
    practice.do("charge", "added", 10.0)
    practice.do("drier", "replaced")
    practice.ask("evap_fans")
    practice.do("charge", "added", 10.0)
    practice.name(["undercharge"])
    told = debrief(practice)
    assert [step.of for step in told.stopped] == ["charge.added"] and not told.right and told.held is False
    assert told.for_nothing == (acts.get("drier", "replaced").label,) and told.gas_oz == 10.0
    words = "\n".join(told.words)
    for said in ("which it is not", "never stood clear", "did not hold", "Drier replaced", "Gas moved for nothing: 10 oz", "Stopped: "):
        assert said in words


def test_what_is_your_own_to_do_can_be_undone():
    practice = begin(drawn("walk_in_cooler", "condenser_dirty"))
    practice.put("power_locked_out", "yes")
    practice.put("power_locked_out", "no")
    assert practice.rig.own["power_locked_out"] == "no" and practice.ask("compressor").value is not None
    assert "power_locked_out" in OWN_DOING


def test_the_customer_says_what_the_story_says():
    """What somebody did before is told when it is asked for, and a melt does not change why they called."""
    one = drawn("walk_in_cooler", "evap_fan_failed")
    practice = begin(replace(one, before=(("valve", "turned_in", 1.5),), symptom="iced"))
    assert practice.ask("last_touched").value == ("valve",) and practice.ask("complaint").value == ("iced",)
    assert begin(one).ask("last_touched").value == ("nothing",)


@pytest.mark.parametrize(("named", "says"), [
    (("evap_fan_failed",), "You said: Coil fan failed, and more"), (("evap_fan_failed", "compressor_grounded"), "winding to ground"),
    (("undercharge",), "which it is not"), ((), "You said: nothing"),
])  # fmt: skip
def test_a_part_of_it_is_no_wrong_answer(named, says):
    practice = begin(drawn("walk_in_cooler", "evap_fan_failed", "compressor_grounded"))
    practice.name(named)
    told = debrief(practice)
    assert says in told.words[1] and told.right == (len(named) == 2)
    assert (", and more" in told.words[1]) == (named == ("evap_fan_failed",))
    assert told.words[3].endswith("put right") == (set(told.shortest[0]) < set(told.codes) and bool(told.shortest[0]))


def test_one_hears_it_start_and_what_was_seen_with_it_is_seen_again():
    practice = begin(drawn("walk_in_cooler", "stat_calibration"))
    assert practice.ask("compressor").value == "off" and practice.ask("condenser_fans").value == "stopped"
    for _ in range(60):
        if practice.rig.running:
            break
        assert practice.stages[-1]["compressor"] == "off"
        practice.wait(2.0)
    assert practice.stages[-1]["compressor"] == "running" and practice.stages[-1]["condenser_fans"] == "running"
    assert "contactor" not in practice.stages[-1], "nobody looked at it"


def test_a_shell_is_felt_with_the_power_off():
    practice = begin(drawn("walk_in_cooler", "compressor_overload"))
    practice.put("power_locked_out", "yes")
    assert practice.ask("compressor_shell").value is not None and practice.ask("contactor").value is None


def test_a_melt_takes_what_the_ice_bench_plans():
    practice = begin(drawn("walk_in_freezer", "defrost_never_starts"))
    for key in ("power_locked_out", "parts_protected", "latch_blocked", "someone_outside"):
        practice.put(key, "yes")
    ice_lb = float(practice.rig.state.frost_lb.sum() + practice.rig.state.ice_lb.sum())
    low, high = next(way.minutes for way in melt.plans(practice.facts, (ice_lb, ice_lb), FACE_FT2, "hot", "open") if way.minutes)
    step = practice.do("coil", "melted")
    assert step.minutes == pytest.approx(BEFORE_MELT_MIN + (low + high) / 2.0) and step.minutes > 10.0
    assert float(practice.rig.state.frost_lb.sum()) < 0.3 * ice_lb


def test_what_most_answers_share_is_named_where_none_of_them_stands_clear():
    practice = begin(drawn("display_cooler", "door_infiltration"))
    assert follow(practice) == ("door_infiltration",)
    was = practice.course.was
    assert was[0].probability < 0.5 <= sum(one.probability for one in was if "door_infiltration" in one.codes)


def test_what_is_less_likely_than_not_is_not_named(monkeypatch):
    monkeypatch.setattr("kettle.yard.follow.MOST_CHECKS", 0)
    practice = begin(drawn("reach_in_freezer", "voltage_problem"))
    assert follow(practice, ("complaint",)) == () and practice.course.was[0].probability < 0.5


def test_the_box_warms_while_the_power_is_off_and_comes_down_after():
    practice = begin(drawn("walk_in_freezer", "condenser_dirty"))
    practice.put("power_locked_out", "yes")
    practice.wait(10.0)
    before = float(practice.rig.state.air_f)
    practice.wait(90.0)
    warm = float(practice.rig.state.air_f)
    assert warm > before + 3.0 and not practice.rig.running
    practice.put("power_locked_out", "no")
    practice.wait(240.0)
    assert float(practice.rig.state.air_f) < warm - 3.0


def test_gas_is_for_nothing_only_where_it_is_not_what_was_short():
    short, other = (begin(drawn("walk_in_cooler", code)) for code in ("undercharge", "evap_airflow_low"))
    for practice in (short, other):
        assert practice.do("charge", "added", 6.0).what == DID
    assert (debrief(short).gas_oz, debrief(other).gas_oz) == (0.0, 6.0)


def test_what_was_done_is_done_over_as_it_was():
    one = drawn("walk_in_freezer", "defrost_too_little", "evap_fan_failed")
    practice = begin(one)
    practice.ask("box_temp_f")
    practice.ask("evap_fans")
    practice.put("power_locked_out", "yes")
    practice.do("evap_fan", "replaced")
    practice.measure("ohms", "T1", "T2")
    practice.melt("warm_water")
    practice.wait(20.0)
    practice.end_melt()
    practice.put("power_locked_out", "no")
    practice.set("fail_safe", 30.0)
    practice.run()
    practice.back()
    again = begin(one)
    for step in practice.steps:
        again.again(step)
    assert again.stages == practice.stages and again.done == practice.done and again.rig.wrong == practice.rig.wrong
    assert float(again.rig.state.hours) == pytest.approx(float(practice.rig.state.hours))
    assert again.rig.state.frost_lb == pytest.approx(practice.rig.state.frost_lb) and again.minutes == practice.minutes


def test_of_what_was_taken_back_the_minutes_alone_passed():
    one = drawn("walk_in_cooler", "undercharge")
    practice = begin(one)
    step = practice.do("drier", "replaced") if practice.put("power_locked_out", "yes") else None
    again = begin(one)
    again.again(practice.steps[0])
    again.again(step, undone=True)
    assert (
        again.done == []
        and again.minutes == practice.minutes
        and float(again.rig.state.hours) == pytest.approx(float(practice.rig.state.hours))
    )


@pytest.mark.parametrize(("minutes", "left"), [(0.5, 0.5), (1.2, 0.0)])
def test_a_melt_goes_on_with_the_minutes_that_pass(minutes, left):
    practice = begin(drawn("walk_in_freezer", "defrost_never_starts"))
    practice.put("power_locked_out", "yes")
    practice.melt("hose")
    needs, ice = practice.melts_in_min("hose"), practice.ice_lb
    practice.wait(minutes * needs)
    assert practice.ice_lb == pytest.approx(left * ice, abs=0.12 * ice) and practice.done == []
    practice.end_melt()
    assert [(one.part, one.did) for one in practice.done] == [("coil", "melted")] and practice.melting == ""
    rested = begin(drawn("walk_in_freezer", "defrost_never_starts"))
    rested.put("power_locked_out", "yes")
    rested.melt("hose")
    rested.rest()
    before = rested.ice_lb
    rested.wait(30.0)
    assert rested.ice_lb == pytest.approx(before, rel=0.05)


def test_a_setting_is_set_within_its_range_and_counts_as_its_act():
    practice = begin(drawn("walk_in_cooler", "lp_control_misset"))
    step = practice.set("lp_cut_in", 40.0)
    assert (step.what, step.of, step.value) == ("set", "lp_cut_in", 40.0) and practice.done[-1].part == "pressure_control"
    assert "lp_control_misset" not in practice.rig.wrong
    for code, value, says in (
        ("lp_cut_in", 251.0, "-14.7 to 250 psig"),
        ("tea", 1.0, "not one of the list"),
        ("lp_cut_in", -15.0, "-14.7"),
    ):
        with pytest.raises(InputError, match=says):
            practice.set(code, value)


def test_a_meter_shows_the_circuit_as_it_is_with_what_is_wrong_in_it():
    practice = begin(drawn("walk_in_cooler", "contactor_pole_open"))
    assert practice.metered("volts", "L1", "T1") > 100.0 > 5.0 > practice.metered("volts", "L2", "T2")
    sound = begin(drawn("walk_in_cooler", "condenser_dirty"))
    sound.run()
    assert sound.metered("amps", "lead_1", "") == pytest.approx(float(sound.rig.flows.amps), rel=0.05)
    with pytest.raises(InputError, match="locked out"):
        practice.measure("ohms", "T1", "T2")
    practice.put("power_locked_out", "yes")
    step = practice.measure("ohms", "T1", "T2")
    assert step.what == "metered" and 0.1 < step.value < 50.0 and step.minutes == 2.0
    assert practice.metered("volts", "L1", "L2") < 3.0


def test_the_thermostat_is_turned_down_and_back():
    practice = begin(drawn("walk_in_cooler", "condenser_dirty"))
    set_f = float(practice.rig.parts.set_f)
    practice.run()
    assert float(practice.rig.parts.set_f) == pytest.approx(set_f - 15.0)
    step = practice.back()
    assert float(practice.rig.parts.set_f) == pytest.approx(set_f) and step.minutes == 1.0


def test_who_watches_puts_another_fault_in_and_it_is_part_of_what_it_was():
    practice = begin(drawn("walk_in_cooler", "undercharge"))
    practice.again(Step("worse", "condenser_dirty", 0.8, 0.0, 0.0))
    assert practice.draw.codes == ("undercharge", "condenser_dirty") and practice.ask("condenser_coil").value == "blocked"
    assert practice.rig.wrong["condenser_dirty"] == 0.8
    practice.again(Step("worse", "residual_ice", 1.0, 0.0, 0.0))
    assert practice.ice_lb > 1.0, "what is there from the start is there now"


def test_what_it_comes_to_is_put_right_and_looked_at_again_until_nobody_would_call():
    both = begin(drawn("walk_in_freezer", "evap_fan_failed", "defrost_never_starts"))
    answers = put_right_until_it_runs(both, 3)
    assert {code for codes in answers for code in codes} >= {"evap_fan_failed", "defrost_never_starts"} and both.rig.wrong == {}
    assert answers[0] != answers[-1] or len(answers[0]) == 2
    one = begin(drawn("walk_in_cooler", "condenser_dirty", outside_f=100.0))
    assert put_right_until_it_runs(one, 0) == ()
    assert put_right_until_it_runs(one, 3) == (("condenser_dirty",),) and one.minutes > 24 * 60.0
