"""The course of a call: what it was stays known through melting, turning and repairing; what is left goes down as it is put right."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle import case
from kettle.__main__ import main
from kettle.judging.course import Done, judge_course, standing_at
from kettle.judging.judge import judge
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.quantities import QUANTITIES
from tests.core.judging.by_coil import judge_coil_course
from tests.core.judging.stories import COOL_WELL, COOLER, FREEZER, STORIES, ran

STARVED_COOLER = ran(COOLER, 40, 14, 24, 103, 6, gain=10, sight_glass="clear", bulb="tight_insulated", drier_drop_f=0.4)


def unit_of(plate):
    return resolve(UnitSpec(**plate))


def checked(stages):
    return [{key: observations.get(key).check(value) for key, value in stage.items()} for stage in stages]


def course(plate, stages, done):
    return judge_course(unit_of(plate), checked(stages), [Done(*one) for one in done])


def probability(answers, code):
    return sum(one.probability for one in answers if code in one.codes)


@pytest.mark.parametrize("name", STORIES)
def test_a_story_says_what_it_was_and_nothing_false_is_left(name):
    plate, stages, done, cause, left = STORIES[name]
    told = course(plate, stages, done)
    assert told.was[0].codes[:1] == (cause,) or cause in told.was[0].codes, [(s.codes, s.probability) for s in told.was[:4]]
    assert set(told.left[0].codes) == left, [(one.codes, one.probability) for one in told.left[:4]]
    assert sum(s.probability for s in told.was) == pytest.approx(1.0, abs=0.09)


@pytest.mark.parametrize("name", STORIES)
def test_the_right_cause_never_falls_by_being_put_right(name):
    plate, stages, done, cause, _ = STORIES[name]
    before = probability(course(plate, stages[:1], []).was, cause)
    after = probability(course(plate, stages, done).was, cause)
    assert after >= before - 0.02


def test_melting_takes_the_ice_and_not_the_case():
    plate, stages, done, _, _ = STORIES["ice of a door left open is melted, and the ice goes on speaking"]
    iced, melted = course(plate, stages[:1], []), course(plate, stages, done)
    assert probability(melted.was, "door_infiltration") == pytest.approx(probability(iced.was, "door_infiltration"), abs=0.03)
    assert melted.now.facts.seen["ice_form"] == "none"
    assert "iced_coil" in {hold.code for hold in iced.now.holds} and "iced_coil" not in {hold.code for hold in melted.now.holds}
    # The same facts in one heap, as it used to be, lose it.
    heap = judge(unit_of(plate), {**checked(stages)[0], **checked(stages)[1]})
    assert probability(heap.ranking, "door_infiltration") < probability(melted.was, "door_infiltration") - 0.15


def test_a_clamped_bulb_that_helped_proves_the_bulb_and_one_that_did_not_speaks_against_it():
    plate, [found, well], done, _, _ = STORIES["a bulb clamped right"]
    helped, did_not = course(plate, [found, well], done), course(plate, [found, {k: v for k, v in found.items() if k != "bulb"}], done)
    asked = course(plate, [found], [])
    assert probability(helped.was, "bulb_fault") > probability(asked.was, "bulb_fault") > probability(did_not.was, "bulb_fault")
    assert probability(helped.left, "bulb_fault") < 0.05
    assert {e.stage for e in helped.was[0].speaks_for} == {0, 1} and helped.stage_words(1) == "After: bulb clamped"


def test_a_treated_cause_stays_until_it_is_proved():
    plate, [found, _], done, _, _ = STORIES["a bulb clamped right"]
    told = course(plate, [found, {}], done)
    [open_one] = [left for left in told.left if left.codes == ("bulb_fault",)]
    assert "Superheat in its band" in open_one.to_prove[0]


DEAD = {
    "box_temp_f": 62.0, "box_trend": "steady", "compressor": "humming", "contactor": "in", "control_call": "calling",
    "line_v_12": 230.0, "line_v_23": 230.0, "line_v_31": 230.0, "load_v_12": 8.0, "load_v_23": 228.0, "load_v_31": 110.0,
    "evap_fans": "running", "condenser_fans": "running", "condenser_coil": "clean", "evap_coil": "clean", "door": "good",
    "ice_form": "none",
}  # fmt: skip
RUNS_AGAIN = {"compressor": "running", "evap_fans": "running", "control_call": "calling", "ice_form": "none"}


@pytest.mark.parametrize(("trend", "low", "high"), [("falling", 0.9, 1.0), ("steady", 0.0, 0.25), ("rising", 0.0, 0.25)])
def test_a_box_that_stays_warm_over_a_repaired_unit_that_runs_is_not_put_right(trend, low, high):
    plate = {"kind": "walk_in_cooler", "refrigerant": "R-448A", "phases": 3, "nameplate_v": 230.0}
    told = course(plate, [DEAD, {**RUNS_AGAIN, "box_temp_f": 60.0, "box_trend": trend}], [("contactor", "replaced")])
    nothing = sum(one.probability for one in told.left if not one.codes)
    assert probability(told.was, "contactor_pole_open") > 0.9 and low <= nothing <= high
    assert bool(told.now.next_checks) == (trend != "falling"), "and there is something to ask"


def test_gas_leaves_the_leak_open_until_it_is_repaired():
    plate, stages, done, _, _ = STORIES["a leak repaired after gas"]
    charged, repaired = course(plate, stages[:2], done[:1]), course(plate, stages, done)
    assert charged.left[0].codes == ("undercharge",) and "leak" in charged.left[0].to_prove[-1]
    assert repaired.left[0].codes == () and not repaired.left[0].to_prove


def test_a_turn_without_an_answer_makes_the_stem_less_likely():
    plate, stages, done, _, _ = STORIES["a valve that answers no turn, replaced"]
    told = [probability(course(plate, stages[: n + 1], done[:n]).was, "txv_underfeeding") for n in range(3)]
    assert told[0] > told[1] > told[2] > 0.3


def test_looking_twice_at_what_nobody_touched_says_little():
    plate, [found, *_], _, _, _ = STORIES["a burnt contactor"]
    once = course(plate, [found], [])
    twice = course(plate, [found, found], [("door", "adjusted", None)])
    assert probability(twice.was, "contactor_pole_open") == pytest.approx(probability(once.was, "contactor_pole_open"), abs=0.05)


def test_readings_from_before_an_act_are_past_and_what_an_act_sets_stands():
    plate, stages, done, _, _ = STORIES["a bulb clamped right"]
    stands = standing_at([*checked(stages)[:1], {}], [Done(*done[0])], 1)
    assert stands["bulb"] == "tight_insulated" and "suction_psig" not in stands and stands["box_temp_f"] == 40.0


def test_without_acts_a_course_is_the_judgement():
    seen = checked([COOL_WELL])[0]
    told, plain = judge_course(unit_of(COOLER), [seen]), judge(unit_of(COOLER), seen)
    assert told.was == plain.ranking and [one.suspect for one in told.left] == list(plain.ranking)


@given(st.lists(st.sampled_from(sorted(acts.ACTS)), max_size=6))
def test_whatever_is_done_probabilities_are_probabilities(codes):
    done = [Done(*code.split(".")) for code in codes]
    told = judge_course(unit_of(FREEZER), [{"box_temp_f": 9.0, "ice_form": "hard_ice"}, *({"box_temp_f": 6.0} for _ in done)], done)
    assert 0.9 <= sum(s.probability for s in told.was) <= 1.0001
    assert sum(one.probability for one in told.left) <= 1.0001
    assert all(0.0 <= one.probability <= 1.0001 for one in (*told.was, *told.left))


def test_every_act_names_causes_observations_and_proofs_that_exist():
    for act in acts.ACTS.values():
        assert set(act.removes) | set(act.leaves) | set(act.closes) <= set(causes.CATALOGUE), act.code
        assert all(0.0 < share < 1.0 for share in act.removes.values()), act.code
        assert {*act.voids, *act.mutes, *act.sets, *act.proof} <= {*observations.REGISTRY, *QUANTITIES}, act.code
        assert bool(act.proof) == bool(act.prove), act.code
        for key, word in act.sets.items():
            observations.get(key).check(word)
    treated = {code for act in acts.ACTS.values() for code in act.removes}
    assert set(causes.CATALOGUE) - treated == {"hot_stock"}, "what nothing is done about recovers alone"


@pytest.mark.parametrize(("part", "did", "near"), [("bulbb", "clamped", "bulb"), ("bulb", "clampt", "clamped")])
def test_an_act_that_is_not_known_names_the_nearest(part, did, near):
    with pytest.raises(InputError, match=f"nearest .*“{near}”"):
        acts.get(part, did)


def story_file(name):
    plate, stages, done, _, _ = STORIES[name]
    rows = [{"key": key, "value": value, "stage": place} for place, stage in enumerate(stages) for key, value in stage.items()]
    made = [{"part": part, "did": did, **({"value": value} if value else {})} for part, did, value in done]
    return {"format": "orange-kettle/case", "version": 1, "unit": plate, "acts": made, "observations": rows}


def test_a_case_file_carries_the_course_and_the_command_line_tells_it(tmp_path, capsys):
    path = tmp_path / "story.json"
    path.write_text(json.dumps(story_file("a leak repaired after gas")))
    assert main(["judge", str(path), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["was"] == told["ranking"] and told["was"][0]["causes"] == ["undercharge"]
    assert told["left"][0]["causes"] == []
    assert main(["judge", str(path)]) == 0
    assert "Left, after what was done:" in capsys.readouterr().out
    again = case.read(case.write(case.read(path.read_text())))
    assert [len(stage) > 0 for stage in again.stages()] == [True, True, True]


def test_a_stage_is_named_or_told_by_its_time():
    at = ["2026-03-02T06:00:00Z", "2026-03-02T07:00:00Z", "2026-03-02T08:00:00Z"]
    read = case.read(
        json.dumps(
            {
                "format": "orange-kettle/case",
                "version": 1,
                "unit": {**COOLER, "evaporators": 2},
                "acts": [{"part": "coil", "did": "melted", "at": at[1], "on": 2}],
                "observations": [
                    {"key": "box_temp_f", "value": 47, "at": at[0]},
                    {"key": "box_temp_f", "value": 39, "at": at[2]},
                    {"key": "drain", "value": "running", "stage": 1},
                    {"key": "door", "value": "good"},
                ],
            }
        )
    )
    assert read.stages(1) == [{"box_temp_f": 47.0, "door": "good"}, {"box_temp_f": 39.0, "drain": "running"}]
    assert [one.elsewhere for one in (*read.done(1), *read.done(2))] == [True, False]


@pytest.mark.parametrize(
    ("changed", "words"),
    [({"acts": [{"part": "coyl", "did": "melted"}]}, "“coil”"), ({"acts": [{"part": "coil", "did": "malted"}]}, "“melted”"),
     ({"acts": [{"part": "coil", "did": "melted", "onn": 1}]}, "“on”"),
     ({"acts": [{"part": "coil", "did": "melted", "on": 2}]}, "evaporator"),
     ({"observations": [{"key": "door", "value": "good", "stage": 3}]}, "“stage” is 3"),
     ({"acts": [{"part": "valve", "did": "turned_in", "value": -1}]}, "outside 0")],
)  # fmt: skip
def test_a_course_that_cannot_be_is_one_clear_line(changed, words):
    with pytest.raises(InputError, match=words):
        case.read(json.dumps({"format": "orange-kettle/case", "version": 1, "unit": COOLER, **changed}))


def coils(plate, stages_by_coil, done_by_coil, number):
    told = [checked(stages) for stages in stages_by_coil]
    return judge_coil_course(unit_of(plate | {"evaporators": 2}), told, [[Done(*one) for one in done] for done in done_by_coil], number)


def test_of_two_coils_each_has_its_own_story():
    found = ran(COOLER, 40, 32, 1, 106, 3, gain=3, bulb="loose", suction_line_feel="frosted")
    fine = {"suction_line_evap_f": 40.0, "suction_psig": found["suction_psig"], "box_temp_f": 40.0, "evap_fans": "running"}
    here, there = [found, COOL_WELL], [fine, {"suction_line_evap_f": 34.5, "suction_psig": COOL_WELL["suction_psig"], "box_temp_f": 37.0}]
    done = [[("bulb", "clamped")], [("bulb", "clamped", None, True)]]
    one, other = (coils(COOLER, [here, there], done, number) for number in (1, 2))
    assert one.was[0].codes == ("bulb_fault",) and one.left[0].codes == ()
    assert probability(other.was, "bulb_fault") < 0.2 and "bulb" not in other.now.facts.seen, "what was clamped is the other coil's"


def test_a_coil_nobody_looked_at_says_nothing_of_the_first():
    alone = course(COOLER | {"set_f": 36}, [STARVED_COOLER], [])
    beside = coils(COOLER, [[STARVED_COOLER], [{}]], [[], []], 1)
    assert [s.codes for s in beside.was[:3]] == [s.codes for s in alone.was[:3]]
    assert probability(beside.was, "txv_underfeeding") == pytest.approx(probability(alone.was, "txv_underfeeding"), abs=0.01)


def test_what_an_act_did_is_held_against_what_it_should_do():
    plate, stages, done, _, _ = STORIES["a stem turned the wrong way first, then the right one"]
    told = course(plate, stages, done)
    effects = {(one.stage, one.quantity): one for one in told.effects}
    first, second = effects[(1, "superheat_evap_f")], effects[(2, "superheat_evap_f")]
    assert (first.way, first.came) == ("up", True) and (round(first.before), round(first.after)) == (27, 30)
    assert (second.way, second.came) == ("down", True)
    no_answer = course(plate, [stages[0], stages[0]], [("valve", "turned_out", 0.5)])
    assert no_answer.effects[0].came is None
    wrong = course(plate, [stages[0], stages[1]], [("valve", "turned_out", 0.5)])
    assert wrong.effects[0].came is False
    assert course(plate, [stages[0], {"box_temp_f": -1.0}], [("valve", "turned_out", 0.5)]).effects == (), "not read again"


def test_every_quantity_an_act_should_move_exists():
    known = set(QUANTITIES) | {entry.key for entry in observations.REGISTRY.values() if entry.is_number}
    assert all(set(act.shows) <= known and set(act.shows.values()) <= {"up", "down"} for act in acts.ACTS.values())
    assert sum(bool(act.shows) for act in acts.ACTS.values()) >= 20 and set(acts._SHOWS) <= set(acts.ACTS)


@pytest.mark.parametrize(
    ("act", "past", "stays"),
    [
        ("contactor.replaced", ("load_v_12", "pole_drop_v_3", "contactor_face"), ("line_v_12",)),
        ("contactor.tightened", ("load_v_31", "pole_drop_v_1"), ("contactor_face",)),
        ("supply.restored", ("line_v_12", "load_v_23"), ("winding_cs_ohm",)),
        ("compressor.rested", ("winding_cs_ohm", "winding_sr_ohm"), ("winding_ground_ohm",)),
        ("compressor.replaced", ("winding_ground_ohm", "pump_down_low_psig"), ("pump_down_rise_psi",)),
        ("charge.added", ("resting_psig", "suction_psig"), ("charge_weighed",)),
        ("charge.recovered", ("resting_psig",), ("leak_test",)),
        ("pressure_control.adjusted", ("low_pressure_switch", "lp_cut_in_psig"), ("high_pressure_switch",)),
        ("timer.set", ("defrost_set_min", "defrosts_per_day"), ("defrost_starts",)),
        ("timer.replaced", ("defrost_set_min", "defrost_starts"), ("defrost_ended_by",)),
        ("termination.replaced", ("termination_f", "defrost_ended_by"), ("defrost_starts",)),
        ("drain.cleared", ("drain", "drain_pan"), ("drain_heater", "drain_fault")),
        ("bulb.moved", ("bulb_clock",), ("door",)),
        ("coil.melted", ("compressor", "contactor", "control_call", "ice_form"), ("evap_fans", "drain", "winding_cs_ohm")),
    ],
)
def test_what_was_measured_at_a_part_is_past_once_it_was_worked_on(act, past, stays):
    voids = acts.voided(acts.ACTS[act])
    assert set(past) <= voids and not set(stays) & voids


def test_of_several_faults_of_a_drain_an_act_puts_right_its_own_and_the_rest_stands():
    found = {"drain": "blocked", "drain_fault": ("plugged", "trap_wrong", "pan_leaking")}
    one = standing_at([found, {}], [Done("drain", "cleared")], 1)
    assert one["drain"] == "running" and one["drain_fault"] == ("trap_wrong", "pan_leaking")
    both = standing_at([found, {}, {}], [Done("drain", "cleared"), Done("drain", "resealed")], 2)
    assert both["drain_fault"] == ("trap_wrong",)
    every = standing_at([found, {}, {}, {}], [Done("drain", "cleared"), Done("drain", "resealed"), Done("drain", "trap_set")], 3)
    assert "drain_fault" not in every
    # What froze once freezes again: thawing mends none of them. A file of old has one word.
    assert standing_at([{"drain_fault": "line_heater_dead"}, {}], [Done("drain", "thawed")], 1)["drain_fault"] == "line_heater_dead"
    assert "drain_fault" not in standing_at([{"drain_fault": "line_heater_dead"}, {}], [Done("drain_heater", "replaced")], 1)
