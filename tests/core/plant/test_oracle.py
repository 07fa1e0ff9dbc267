"""The simulated unit under the hands: it answers everything, the same by the same seed, and acts change it."""

import pytest

from kettle.judging.course import judge_course
from kettle.knowledge import acts, observations
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.plant import faults
from kettle.plant.observer import stand
from kettle.plant.observer.answers import ANSWERS
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.observer.seen import feel
from kettle.plant.observer.wired import Wired
from kettle.plant.simulate import PRESETS

# What cannot be had of a unit that was not touched.
NEVER_ASKED = {"adjusted_min"}


def rig_of(kind, *wrong, **more):
    return stand(resolve(PRESETS[kind]), list(wrong), hours=more.pop("hours", 30.0), **more)


def test_every_observation_has_an_answer_and_nothing_else():
    assert set(ANSWERS) | set(OWN_DOING) == set(observations.REGISTRY)


@pytest.mark.parametrize("kind", PRESETS)
def test_every_key_is_answered_on_every_kind_by_words_and_figures_that_can_be(kind):
    rig = rig_of(kind)
    rig.settle()
    for key, entry in observations.REGISTRY.items():
        if not entry.exists_on(rig.unit):
            with pytest.raises(InputError, match="has none"):
                rig.look(key)
            continue
        value = rig.look(key)
        if value is not None:
            assert entry.check(value) == value
        else:
            absent = {"heater_amps", "heater_volts", "heater_rated_w"} if rig.unit.defrost != "electric" else set()
            no_defrost = {"defrost_starts", "coil_after_defrost", "since_defrost_min", "defrost_ran_min"}
            absent |= {"vacuum_micron"}
            absent |= no_defrost if rig.parts.defrosts_per_day <= 0 else set()
            # A lone phase has one pair of volts and one pole.
            lone = {key for key in observations.REGISTRY if key.endswith(("_v_23", "_v_31", "drop_v_2", "drop_v_3"))}
            absent |= lone if rig.unit.phases == 1 else set()
            absent |= {"lp_cut_in_psig", "lp_cut_out_psig"} if rig.unit.metering == "cap_tube" else set()
            absent |= set() if rig.has_regulator else {"regulator_before_psig", "regulator_after_psig"}
            assert key in NEVER_ASKED | absent, key


def test_the_same_seed_gives_the_same_unit_and_another_scatters():
    one, again, other = (rig_of("walk_in_freezer", ("undercharge", 0.7), seed=seed) for seed in (4, 4, 5))
    keys = ("suction_psig", "discharge_psig", "box_temp_f", "oil_trace", "liquid_line_f")
    assert [one.look(key) for key in keys] == [again.look(key) for key in keys]
    assert [one.look(key) for key in keys] != [other.look(key) for key in keys]
    assert abs(one.look("box_temp_f") - other.look("box_temp_f")) < 4.0


def test_a_fault_that_cannot_be_on_a_unit_is_refused_with_one_line():
    with pytest.raises(InputError, match="txv_underfeeding cannot be on a reach-in cooler, capillary tube"):
        rig_of("reach_in_cooler", ("txv_underfeeding", 1.0))
    assert not faults.possible("cap_tube_restricted", resolve(PRESETS["walk_in_cooler"]))
    assert faults.possible("head_control_not_holding", resolve(UnitSpec("walk_in_cooler", "R-448A", head_control="mixing_valve")))


def test_a_hand_calls_a_pipe_by_its_temperature():
    assert [feel(f) for f in (130.0, 100.0, 80.0, 60.0, 40.0, 20.0)] == ["hot", "warm", "lukewarm", "cool", "sweating", "frosted"]


def test_a_dead_unit_answers_along_its_current():
    rig = rig_of("walk_in_freezer", ("contactor_pole_open", 1.0))
    assert rig.look("compressor") == "humming" and rig.look("contactor") == "in" and rig.look("condenser_fans") == "running"
    assert rig.look("line_v_12") - rig.look("load_v_12") > 100.0 and rig.look("load_v_23") > 215.0
    rig.own["power_locked_out"] = "yes"
    assert rig.look("line_v_12") < 3.0 and rig.look("power_locked_out") == "yes"
    # A meter on a plate of 115 V shows what it can.
    small = rig_of("reach_in_cooler", ("contactor_pole_open", 1.0))
    assert small.look("pole_drop_v_1") == pytest.approx(114.0, abs=2.0)


def test_what_starves_on_its_low_side_starts_and_stops_and_is_read_while_it_runs():
    rig = rig_of("walk_in_cooler", ("undercharge", 1.0), hours=54.0)
    assert rig.look("compressor") == "short_cycling" and rig.short_cycles
    rig.settle()
    assert rig.running and rig.look("suction_psig") is not None and rig.look("condenser_fans") == "running"
    assert not rig_of("walk_in_cooler", hours=54.0).short_cycles


def test_acts_change_the_unit():
    rig = rig_of("walk_in_freezer", ("condenser_dirty", 0.9))
    rig.settle()
    before = rig.look("discharge_psig")
    rig.do("condenser", "cleaned")
    rig.wait(90.0)
    rig.settle()
    assert rig.look("discharge_psig") < before - 10.0 and rig.look("condenser_coil") == "clean" and not rig.wrong
    short = rig_of("walk_in_freezer", ("undercharge", 0.6))
    charge = float(short.parts.charge_lb)
    short.do("charge", "added", 32.0)
    assert float(short.parts.charge_lb) == pytest.approx(charge + 2.0)
    assert short.wrong == {"undercharge": 0.6}, "the leak is still there"
    short.do("valve", "turned_out", 0.5)
    assert float(short.parts.stem_turns) == -0.5
    iced = rig_of("walk_in_cooler", ("residual_ice", 1.0), hours=1.0)
    assert iced.look("ice_form") in ("hard_ice", "heavy_frost")
    iced.do("coil", "melted")
    assert iced.look("ice_form") == "none"
    with pytest.raises(InputError, match="cannot be done"):
        rig_of("reach_in_cooler").do("valve", "exercised")
    with pytest.raises(InputError, match="outside"):
        short.do("charge", "added", acts.MOST["oz"] + 1)


def test_load_volts_behind_an_open_contactor_condemn_no_pole():
    unit = resolve(PRESETS["walk_in_freezer"])
    seen = {"box_temp_f": 30.0, "compressor": "off", "control_call": "calling", "line_v_12": 230.0, "load_v_12": 0.0}
    told = {word: judge_course(unit, [{**seen, "contactor": word}]).was[0] for word in ("in", "out")}
    assert told["in"].codes == ("contactor_pole_open",) and told["in"].probability > 0.5
    assert "contactor_pole_open" not in told["out"].codes


@pytest.mark.parametrize(
    ("kind", "cause"),
    [
        ("walk_in_freezer", "txv_overfeeding"), ("bottle_cooler", "contactor_pole_open"), ("walk_in_cooler", "drain_blocked"),
        ("provision_room_cooler", "bulb_fault"), ("reach_in_freezer", "compressor_open_winding"),
    ],
)  # fmt: skip
def test_an_honest_opponent_is_told_right_by_one_round_of_looking(kind, cause):
    rig = rig_of(kind, (cause, 1.0), hours=54.0)
    rig.settle()
    stage = {}
    for key, entry in observations.REGISTRY.items():
        asked = key not in NEVER_ASKED and key not in OWN_DOING and entry.exists_on(rig.unit)
        value = rig.look(key) if asked else None
        if value is not None:
            stage[key] = value
    course = judge_course(rig.unit, [stage])
    assert cause in course.was[0].codes


def test_ohms_at_the_compressor_are_its_own_whatever_else_failed_in_the_circuit():
    unit = resolve(PRESETS["walk_in_cooler"])
    of = lambda *codes: [Wired(unit, dict.fromkeys(codes, 1.0), 1500.0).winding_ohm(pins) for pins in ("cs", "cr", "g")]  # noqa: E731
    assert of("compressor_overload", "contactor_pole_open") == of("compressor_overload") != of("contactor_pole_open")


def test_what_holds_a_unit_off_holds_it_off_whatever_else_is_wrong_with_it():
    rig = rig_of("walk_in_freezer", ("contactor_pole_open", 1.0), ("lp_control_misset", 1.0))
    assert (rig.look("compressor"), rig.look("contactor"), rig.look("low_pressure_switch")) == ("off", "out", "open")
    rig.do("pressure_control", "adjusted")
    assert (rig.look("compressor"), rig.look("contactor")) == ("humming", "in")
    # A capillary unit has no such switch to be set wrong.
    with pytest.raises(InputError):
        rig_of("reach_in_cooler", ("lp_control_misset", 1.0))


def test_a_fan_delay_that_is_bridged_lets_go_at_any_coil():
    rig = rig_of("walk_in_freezer", ("undercharge", 1.0))
    rig.do("coil", "melted")
    rig.state.fans_wait_h, rig.state.fans = 5.0, 0.0
    rig.state.metal_f[:] = 60.0
    assert rig.look("fan_delay") == "waits_cold"
    rig.do("evap_fan", "delay_bridged")
    rig.wait(3.0)
    assert rig.look("fan_delay") == "let_go" and rig.look("evap_fans") == "running"


def test_a_clock_that_was_put_right_comes_to_its_next_time():
    rig = rig_of("walk_in_freezer", ("defrost_never_starts", 1.0))
    assert float(rig.state.next_defrost_h) == float("inf")
    rig.do("timer", "replaced")
    waits_h = float(rig.state.next_defrost_h) - float(rig.state.hours)
    assert waits_h == pytest.approx(12.0 / float(rig.parts.defrosts_per_day)) and rig.parts.defrosts_per_day > 0
    ran = float(rig.state.defrosts)
    rig.wait(60.0 * (waits_h + 1.0))
    assert float(rig.state.defrosts) == ran + 1


def test_a_regulator_is_read_on_both_sides_where_there_is_one_and_stays_after_it_was_opened():
    shut = rig_of("walk_in_cooler", ("suction_regulator_shut", 1.0))
    shut.settle()
    assert shut.look("suction_regulator") == "fitted"
    assert shut.look("regulator_before_psig") > shut.look("regulator_after_psig") + 4.0
    shut.do("regulator", "opened")
    shut.settle()
    assert shut.look("suction_regulator") == "fitted"
    assert shut.look("regulator_before_psig") == pytest.approx(shut.look("regulator_after_psig"), abs=2.0)
    sound = [rig_of("walk_in_cooler", seed=seed, hours=2.0) for seed in range(1, 13)]
    fitted = [rig.look("suction_regulator") == "fitted" for rig in sound]
    assert 0 < sum(fitted) < len(fitted) / 2, "some, and fewer than half"
