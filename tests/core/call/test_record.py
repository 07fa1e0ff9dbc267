"""The record: events in their order, stages that acts open, clocks, what is taken back, and coils by name."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle import case
from kettle.call import tell
from tests.core.call.made import COOLER, FREEZER, REACH_IN, did, happened, read, record, said, told
from tests.core.judging.by_coil import coil_ages_min, judge_coil_course
from tests.examples import at_most

WARM = (read("box_temp_f", 47.0, at=0), read("evap_fans", "stopped"), read("evap_fan_supply_v", 1.0))


def test_a_record_up_to_an_event_is_a_record():
    whole = record(COOLER, *WARM, did("wiring", "put_right"), read("evap_fans", "running"))
    part = whole.upto(3)
    assert len(part.events) == 3 and part.at == part.events[-1].at and len(whole.events) == 5
    assert tell(part).course().was == told(COOLER, *WARM).course().was
    with pytest.raises(AttributeError):
        part.events = ()


def test_events_without_a_time_follow_by_a_minute_and_are_told_at_the_last():
    one = record(
        COOLER, read("box_temp_f", 40.0, at=0), read("evap_fans", "running"), read("ambient_f", 80.0, at=30), read("drain", "running")
    )
    minutes = [(event.at - one.events[0].at).total_seconds() / 60 for event in one.events]
    assert minutes == [0, 1, 30, 31] and one.at == one.events[-1].at
    undated = record(COOLER, read("box_temp_f", 40.0), read("evap_fans", "running"))
    assert case.answer_of(tell(undated))["at"] is None


def test_what_was_taken_back_says_nothing_anywhere():
    kept = told(COOLER, *WARM)
    gone = told(COOLER, *WARM, did("valve", "turned_in", value=0.5, undone=True), read("sight_glass", "flashing", undone=True))
    assert gone.course().was == kept.course().was and said(gone) == said(kept)
    assert [one.code for one in gone.leave] == [one.code for one in kept.leave]


def test_an_act_opens_a_stage_and_voids_what_it_made_untrue():
    call = told(COOLER, *WARM, did("wiring", "put_right"), read("box_temp_f", 45.0)).call
    assert [step.did.code for step in call.staged.steps] == ["wiring.put_right"]
    assert call.staged.seen_in(0) == {"box_temp_f": 47.0, "evap_fans": "stopped", "evap_fan_supply_v": 1.0}
    assert call.staged.standing() == {"box_temp_f": 45.0, "evap_fans": "running"}
    assert call.facts_found().is_("evap_fans", "stopped")


def test_settings_of_one_device_within_minutes_are_one_act_and_what_was_found_is_of_the_stage_before():
    unit = {**REACH_IN, "box_control": "suction_pressure"}
    set_to = (happened("setting", at=0, parameter="lp_cut_in", found=22.0, left=35.0, why="too cold"),
              happened("setting", at=4, parameter="lp_cut_out", found=6.0, left=16.0, why="too cold"))  # fmt: skip
    staged = told(unit, *set_to).call.staged
    assert len(staged.steps) == 1 and (staged.steps[0].at - staged.steps[0].event.at).total_seconds() == 240
    assert staged.seen_in(0) == {"lp_cut_in_psig": 22.0, "lp_cut_out_psig": 6.0}
    assert staged.seen_in(1) == {"lp_cut_in_psig": 35.0, "lp_cut_out_psig": 16.0}
    apart = told(unit, set_to[0], {**set_to[1], "at": "2026-03-02T06:11:00+00:00"}).call.staged
    assert len(apart.steps) == 2


def test_a_figure_inside_a_clock_that_ran_out_never_was_one_of_a_settled_unit():
    turned = (read("suction_psig", 60.0, at=0), read("suction_line_evap_f", 50.0, at=1), did("valve", "turned_out", at=2, value=0.5))
    early, late = read("suction_psig", 64.0, at=10), read("suction_psig", 66.0, at=18)
    running = told(COOLER, *turned, early).call.staged
    assert running.clock is not None and running.settles_min == 7 and running.seen_now()["suction_psig"] == 64.0
    assert running.seen_now()["adjusted_min"] == 8.0 == running.seen_now()["settled_min"]
    over = told(COOLER, *turned, early, read("box_temp_f", 38.0, at=18)).call.staged
    assert over.clock is None and "suction_psig" not in over.seen_now()
    assert told(COOLER, *turned, early, late).call.staged.seen_now()["suction_psig"] == 66.0
    # A door wants no clock, and a clock has no hold on what does not run.
    assert told(COOLER, did("door", "adjusted", at=0), read("suction_psig", 60.0, at=1)).call.staged.clock is None


def test_a_clock_runs_out_on_the_minute_that_is_shown_for_it():
    turned = did("valve", "turned_out", value=0.5) | {"at": "2026-03-02T06:02:40+00:00"}
    just_after = read("suction_psig", 66.0) | {"at": "2026-03-02T06:17:05+00:00"}
    just_before = read("suction_psig", 66.0) | {"at": "2026-03-02T06:16:55+00:00"}
    later = read("box_temp_f", 38.0, at=20)
    assert told(COOLER, turned, just_after).call.staged.clock is None
    assert "suction_psig" in told(COOLER, turned, just_after, later).call.staged.seen_now()
    assert "suction_psig" not in told(COOLER, turned, just_before, later).call.staged.seen_now()


def test_a_turn_on_one_coil_holds_that_coil_and_its_minutes_are_real():
    two = {**COOLER, "coils": ["street", "yard"]}
    call = told(
        two, read("suction_psig", 60.0, at=0), did("valve", "turned_out", at=2, value=0.5, on="yard"), read("box_temp_f", 38.0, at=9)
    )
    staged = call.call.staged
    assert staged.clock_on(1) is None and staged.settles_on(1) == 0.0 and "adjusted_min" not in staged.seen_now(1)
    assert staged.clock is staged.clock_on(2) and staged.settles_on(2) == 8 and staged.seen_now(2)["adjusted_min"] == 7.0
    assert call.valve(2).may == "wait" and "until it has settled" in call.valve(2).text and "until it has settled" not in call.valve(1).text
    # A new compressor settles for an hour: it counts as not settled past the usual quarter of one.
    new = told(COOLER, did("compressor", "replaced", at=0), read("suction_psig", 60.0, at=40)).call.staged
    assert new.settles_min == 20 and new.seen_now()["adjusted_min"] == 14.9
    assert told(COOLER, did("compressor", "replaced", at=0), read("suction_psig", 60.0, at=60)).call.staged.clock is None


def test_a_line_that_did_not_move_says_that_the_suction_stands():
    before = (read("suction_psig", 60.0, at=0), read("suction_line_evap_f", 50.0, at=1), did("valve", "turned_out", at=2, value=0.5))
    same = told(COOLER, *before, read("suction_line_evap_f", 50.4, at=20)).call.staged
    assert same.seen_in(1) == {"suction_line_evap_f": 50.4, "suction_psig": 60.0}
    moved = told(COOLER, *before, read("suction_line_evap_f", 48.9, at=20)).call.staged
    assert moved.seen_in(1) == {"suction_line_evap_f": 48.9}
    # After another act the line alone says nothing of the suction.
    other = told(COOLER, *before[:2], did("condenser", "cleaned", at=2), read("suction_line_evap_f", 50.0, at=20)).call.staged
    assert other.seen_in(1) == {"suction_line_evap_f": 50.0}
    late = told(COOLER, *before[:2], did("valve", "turned_out", at=95, value=0.5), read("suction_line_evap_f", 50.0, at=120)).call.staged
    assert late.seen_in(1) == {"suction_line_evap_f": 50.0}


def test_an_act_on_one_coil_leaves_what_the_whole_unit_shows():
    two = {**COOLER, "coils": ["street", "yard"]}
    events = (read("suction_psig", 60.0, at=0), read("receiver_level_pct", 50.0), read("suction_line_evap_f", 40.0, on="street"),
              read("suction_line_evap_f", 44.0, on="yard"), did("valve", "turned_in", value=0.5, on="street"))  # fmt: skip
    staged = told(two, *events).call.staged
    assert staged.standing(1) == {"suction_psig": 60.0, "receiver_level_pct": 50.0}
    assert staged.standing(2)["suction_line_evap_f"] == 44.0
    # On the whole unit it is past everywhere.
    assert "suction_psig" not in told(two, *events[:4], did("charge", "added", value=4.0)).call.staged.standing(2)


def test_what_each_coil_has_is_true_of_every_coil_where_none_is_named():
    two = told({**COOLER, "coils": ["street", "yard"]}, read("bulb", "loose"), read("evap_fans", "stopped", on="yard")).call.staged
    assert two.standing(1) == {"bulb": "loose"} and two.standing(2) == {"bulb": "loose", "evap_fans": "stopped"}


def test_what_rested_says_nothing_once_the_unit_runs():
    unit = {**FREEZER, "head_control": "fan_cycling"}
    dead = (read("box_temp_f", 30.0, at=0), read("compressor", "off"), read("contactor", "in"), read("condenser_fans", "stopped"))
    still = told(unit, *dead, did("contactor", "replaced"), read("compressor", "running"))
    assert "condenser_fans" not in still.call.staged.standing() and not [h for h in still.holds() if h.code == "condenser_fan_stopped"]
    # A fan on the contactor that stands with it pulled in is a finding.
    plain = told(FREEZER, *dead, did("contactor", "replaced"), read("compressor", "running"))
    assert plain.call.staged.standing()["condenser_fans"] == "stopped"


CASES = sorted((__import__("pathlib").Path(__file__).parents[1] / "judging" / "cases").glob("*.json"))


@pytest.mark.parametrize("path", CASES[::4], ids=lambda path: path.stem)
def test_a_case_of_version_1_says_the_same_as_before(path):
    read_1 = case.read(path.read_text())
    coils = range(1, len(read_1.coils()) + 1)
    before = judge_coil_course(
        read_1.resolved(), [read_1.stages(n) for n in coils], [read_1.done(n) for n in coils], ages_by_coil=coil_ages_min(read_1)
    )
    now = tell(case.read_call(path.read_text())).course()
    assert case.answer(now) == case.answer(before)


EVENTS = st.lists(
    st.sampled_from([*WARM, did("wiring", "put_right"), did("condenser", "cleaned"), read("sight_glass", "flashing"),
                     did("valve", "turned_in", value=0.25), happened("note", text="looked again"),
                     happened("ice", form="hard_ice", places=["coil_whole"]), happened("melt", method="hose", all_clear=True)]),
    max_size=9,
)  # fmt: skip


@at_most(40)
@given(EVENTS)
def test_whatever_happened_everything_can_be_told(events):
    out = case.answer_of(told(COOLER, *events))
    assert out["events"] == len(events) and set(out["said"]) == {"found", "done", "left", "advice"}
    said = [one for many in out["said"].values() for one in many]
    assert all(one.endswith(".") and (one[0].isupper() or one[0].isdigit() or one[0] in "¼½¾") for one in said)
    assert all(len(set(many)) == len(many) for many in out["said"].values())
