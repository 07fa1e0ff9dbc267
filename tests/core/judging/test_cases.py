"""The judgement on the case files: the right cause, the holds that must stand, and no harmful advice."""

import pytest

from kettle.benches.valve import adjust
from kettle.judging import holds
from kettle.knowledge import causes, observations
from tests.core.judging.scoring import EXPECTED, judged, out_of_sight, report, score
from tests.core.judging.write_cases import CASES, EARLY, written

NAMES = list(EXPECTED)


@pytest.mark.parametrize("name", NAMES)
def test_the_cause_is_among_the_first_three_with_its_holds_and_nothing_harmful(name):
    judgement, expected = judged(name), EXPECTED[name]
    assert set(expected["causes"]) in [set(suspect.codes) for suspect in judgement.ranking[:3]]
    assert set(expected["holds"]) <= {hold.code for hold in judgement.holds}
    assert {problem.code for problem in judgement.problems} <= {"sensor_disagrees"}
    blocked = {action for hold in judgement.holds for action in hold.blocks}
    for check in judgement.next_checks:
        entry = observations.get(check.key)
        assert not ("gauges" in blocked and entry.tool == "gauge")
        assert not ("resistance_test" in blocked and "lock_out" in entry.holds)
    if "txv_adjust" in blocked:
        verdict = next((v for v in judgement.verdicts if v.quantity == "superheat_evap_f"), None)
        assert adjust.advise("out", 0.25, None, verdict, judgement.holds).objections
    if "undercharge" in judgement.ranking[0].codes and not expected["early"]:
        shows_low = {"subcooling_f", "receiver_level_pct", "sight_glass"} & {e.key for e in judgement.ranking[0].speaks_for}
        assert shows_low or judgement.facts.unit.metering == "cap_tube"
    if "grounded_compressor" in expected["holds"]:
        assert holds.blocking(list(judgement.holds), "power_on")


def test_nine_in_ten_come_out_on_top_in_sight_and_out_of_sight():
    print("\n" + report())
    for hidden in (False, True):
        total, _ = score([name for name in NAMES if out_of_sight(name) == hidden])
        assert total.top >= 0.9 * total.cases


def test_what_is_stated_as_likely_is_right_about_as_often():
    _, bins = score(NAMES)
    answers, hits, summed = bins[-1]
    assert hits / answers >= summed / answers - 0.1
    answers, hits, summed = bins[0]
    assert hits / answers <= summed / answers + 0.05


def test_every_cause_stands_in_two_contexts_and_there_are_pairs_sound_units_and_first_sights():
    singles = {code: cases for code, cases in CASES.items() if code and "+" not in code}
    assert set(singles) == set(causes.CATALOGUE)
    assert all(len(cases) >= 2 for cases in singles.values())
    assert sum("+" in code for code in CASES) >= 12
    assert len(CASES[""]) >= 8 and len(EARLY) >= 10
    assert len(NAMES) >= 80 and 15 <= sum(out_of_sight(name) for name in NAMES) <= 35


def test_the_files_are_what_the_writer_writes():
    from tests.core.judging.scoring import FOLDER

    for codes, cases in CASES.items():
        for count, (plate, readings) in enumerate(cases, start=1):
            name = f"{codes or 'healthy'}-{count}"
            assert (FOLDER / f"{name}.json").read_text() == written(name, plate, readings)
