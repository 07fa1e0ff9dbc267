"""Sets lined up, the unit's own baseline, several coils on one circuit, old readings."""

import json

import pytest

from kettle import case
from kettle.benches.sets import baseline
from kettle.judging import readings, verdicts
from kettle.judging.coils import judge_coil, state_of
from kettle.knowledge.measures import TRADE
from tests.core.judging.faults import COOLER, FREEZER, sound, unit_of


def facts(spec=FREEZER, **changes):
    return readings.work_out(unit_of(spec), sound(spec, **changes))


def test_sets_are_lined_up_with_what_moved():
    first, second = facts(superheat=16), facts(superheat=9)
    bare = readings.work_out(unit_of(FREEZER), {"box_temp_f": -4.0})
    rows = {row.key: row for row in baseline.line_up([first, bare, second])}
    superheat = rows["superheat_evap_f"]
    assert superheat.values == pytest.approx((16.0, None, 9.0))
    assert superheat.differences == pytest.approx((None, None, -7.0))
    assert "rise_f" not in rows


def test_the_baseline_is_the_one_of_the_same_weather_else_the_latest():
    assert baseline.closest(80.0, {1: 55.0, 2: 78.0, 3: None}) == 2
    assert baseline.closest(None, {7: 55.0, 2: 78.0}) == 7
    assert baseline.closest(80.0, {}) is None


def test_drift_is_told_with_side_time_and_ambient():
    now, then = facts(superheat=20, ambient=82), facts(superheat=8, ambient=80)
    told = baseline.drifts(now, then, "on 5 Mar 2026", TRADE)
    assert told[0].words.startswith("Superheat, coil 12 °F above what it ran on 5 Mar 2026 at about the same ambient")
    cold = baseline.drifts(facts(superheat=20, ambient=50), then, "last spring", TRADE)
    assert "at 80 °F outside, against 50 °F now" in cold[0].words
    assert baseline.drifts(then, facts(superheat=8.4, ambient=80), "then", TRADE) == []


def two_coils(second):
    return [sound(COOLER), sound(COOLER) | second]


def test_each_coil_is_judged_with_the_other_as_its_sibling():
    unit = unit_of(COOLER)
    known = ("box_temp_f", "suction_psig", "suction_line_evap_f", "evap_fans", "ice_form", "compressor")
    starved = [{key: value for key, value in seen.items() if key in known} for seen in two_coils({"suction_line_evap_f": 56.0})]
    sick, well = judge_coil(unit, starved, 2), judge_coil(unit, starved, 1)
    assert sick.facts.seen["siblings"] == "all_ok"
    assert well.facts.seen["siblings"] == "also_bad"
    alone = judge_coil(unit, [starved[1]], 1)
    charge = {"alone": alone, "beside": sick}
    likely = {name: sum(s.probability for s in j.ranking if s.codes == ("undercharge",)) for name, j in charge.items()}
    assert likely["beside"] < likely["alone"]


def test_what_somebody_said_of_other_boxes_stands_before_the_other_coil():
    seen = [one | {"siblings": "none"} for one in two_coils({})]
    assert judge_coil(unit_of(COOLER), seen, 2).facts.seen["siblings"] == "none"


def test_a_coil_nobody_read_says_nothing_and_ice_or_dead_fans_say_bad():
    unit = unit_of(COOLER)
    assert state_of(readings.work_out(unit, {})) is None
    assert state_of(readings.work_out(unit, {"ice_form": "hard_ice"})) == "bad"
    assert state_of(readings.work_out(unit, {"evap_fans": "stopped"})) == "bad"
    assert state_of(facts(COOLER)) == "ok"


def test_in_the_case_file_what_is_left_out_is_the_first_coil():
    unit = {"kind": "walk_in_cooler", "refrigerant": "R-448A", "evaporators": 2}
    data = {"format": case.FORMAT, "version": case.VERSION, "unit": unit}
    data["observations"] = [
        {"key": "suction_line_evap_f", "value": 30.0, "at": "2026-03-02T06:00:00Z"},
        {"key": "suction_line_evap_f", "value": 50.0, "on": 2, "at": "2026-03-02T06:40:00Z"},
        {"key": "suction_psig", "value": 45.0, "at": "2026-03-02T05:55:00Z"},
    ]
    read = case.read(json.dumps(data))
    first, second = read.coils()
    assert (first["suction_line_evap_f"], second["suction_line_evap_f"]) == (30.0, 50.0)
    assert first["suction_psig"] == second["suction_psig"] == 45.0


def test_an_old_reading_weakens_the_verdicts_that_rest_on_it():
    seen = sound(FREEZER)
    told = {v.quantity: v for v in verdicts.on(readings.work_out(unit_of(FREEZER), seen, {"box_temp_f": 60.0}))}
    assert told["td_f"].trust == "weak" and "old reading: box air" in told["td_f"].why
    assert told["superheat_evap_f"].trust == "good"
    fresh = {v.quantity: v for v in verdicts.on(readings.work_out(unit_of(FREEZER), seen, {"box_temp_f": 20.0}))}
    assert fresh["td_f"].trust == "good"


def test_minutes_since_something_run_on():
    unit, seen = unit_of(FREEZER), sound(FREEZER, since_defrost_min=10.0)
    assert readings.work_out(unit, seen).moment == "just_started"
    later = readings.work_out(unit, seen, {"since_defrost_min": 20.0})
    assert later.moment == "after_defrost"
    assert {v.quantity: v for v in verdicts.on(later)}["td_f"].trust == "weak"
    assert readings.work_out(unit, seen, {"since_defrost_min": 60.0}).moment == "steady"
