"""Something else: told where nothing known fits, silent where something does."""

import math

import numpy as np
import pytest

from kettle import case
from kettle.judging import unknown
from kettle.judging.coils import judge_coil
from kettle.judging.course import Done, judge_course
from kettle.judging.evidence import Feature, by_chance, features, log_likelihood, weigh
from kettle.judging.judge import beside_the_known, context_of, judge, verdicts_of
from kettle.judging.network import network_of
from kettle.judging.readings import work_out
from kettle.judging.verdicts import Verdict
from kettle.knowledge.bands import NO_UPPER_END
from tests.core.judging.faults import COOLER, FREEZER, unit_of
from tests.core.judging.scoring import EXPECTED, FOLDER

# Nobody ever saw this together: a bare coil full of frost outside, a silent valve behind a full glass, power that is there and is not.
ODD = {"ice_form": "snow", "coil_after_defrost": "clear", "drain": "frozen", "drain_pan": "dry", "condenser_fans": "reversed",
       "valve_sound": "silent", "sight_glass": "clear", "discharge_line_feel": "cold", "compressor_shell": "frosted",
       "crankcase_heater": "cold", "defrost_starts": "never", "defrost_ended_by": "termination", "head_control": "bypassing_when_warm",
       "oil_trace": "at_valve_stem", "compressor": "running", "box_trend": "rising", "high_pressure_switch": "open"}  # fmt: skip


def read(name):
    return case.read((FOLDER / f"{name}.json").read_text())


@pytest.mark.parametrize("name", [name for name in EXPECTED if not name.startswith("early")])
def test_none_of_the_cases_is_taken_for_something_nobody_knows(name):
    found = read(name)
    assert judge_coil(found.resolved(), found.coils()).something_else == 0.0


def test_what_fits_nothing_known_is_something_else_and_says_what_to_write_down():
    judged = judge(unit_of(FREEZER), ODD)
    assert judged.something_else > 0.5 > judged.ranking[0].probability
    assert sum(one.probability for one in judged.ranking) <= 1.0 - judged.something_else + 1e-9
    assert 1 <= len(judged.does_not_fit) <= unknown.MOST_NAMED
    course = judge_course(unit_of(FREEZER), [ODD, {"box_trend": "rising"}], [Done("drain", "cleared")])
    assert course.now.something_else > 0.5


def test_a_case_whose_cause_is_taken_out_of_the_catalogue_is_something_else_more_often():
    """Of every single cause with two cases: how often it is told once nobody knows the cause; never while it is known (above)."""
    told = 0
    names = [name for name in EXPECTED if len(EXPECTED[name]["causes"]) == 1 and not name.startswith("early")]
    for name in names:
        found = read(name)
        judged = judge_coil(found.resolved(), found.coils())
        network = network_of(judged.facts.unit, context_of(judged.facts), (), judged.given)
        weighed = weigh(network, features(judged.facts, judged.verdicts, network))
        known = np.array([not ({cause.code for cause in one} & set(EXPECTED[name]["causes"])) for one in network.members])
        likelihood = np.where(known, log_likelihood(network, weighed), -1e3)
        told += unknown.something_else(network, weighed, likelihood) >= unknown.TOLD_FROM
    assert told >= 12


def test_how_likely_it_is_worked_by_hand():
    network = network_of(unit_of(FREEZER), {"moment": "steady", "outside": "mild"})
    feature = Feature("compressor", {"humming": 1.0}, 0.5, "")
    weighed = weigh(network, [feature])
    columns = network.columns["compressor"]
    humming = network.table[1 : 1 + network.inferred, columns.start + columns.states.index("humming")].mean()
    score = math.log(0.02) + 0.7 * math.log(0.5 * humming + 0.5 / len(columns.states))
    likelihood = log_likelihood(network, weighed)
    known = float(np.log(np.exp(likelihood + network.log_prior).sum()))
    expected = 1.0 / (1.0 + math.exp(known - score))
    assert unknown.something_else(network, weighed, likelihood) == pytest.approx(expected, rel=1e-6)
    later = unknown.something_else(network, weighed, likelihood, repeated=-1.0)
    assert later / (1 - later) == pytest.approx(expected / (1 - expected) / math.e)


def verdict(value, low=10.0, high=20.0, quantity="subcooling_f"):
    return Verdict(quantity, value, low, high, "high", "good", "")


@pytest.mark.parametrize(
    ("value", "share"),
    [(20.0, 1.0), (25.0, 1.0), (26.0, math.exp(-0.1)), (35.0, math.exp(-1.0)), (90.0, 0.1), (5.0, 1.0), (0.0, math.exp(-0.5))],
)
def test_how_far_out_a_sound_unit_reaches(value, share):
    assert by_chance(verdict(value)) == pytest.approx(share)


@pytest.mark.parametrize("quantity", ["box_temp_f", "held_warm_f", "rest_off_f", *NO_UPPER_END])
def test_what_only_grows_with_time_or_has_no_end_says_nothing_by_how_far_out_it_is(quantity):
    assert by_chance(verdict(90.0, quantity=quantity)) == 1.0


@pytest.mark.parametrize(("quantity", "runs", "share"), [("held_warm_f", True, 0.1), ("held_warm_f", False, 1.0),
                                                         ("box_temp_f", True, 1.0), ("subcooling_f", True, 0.1)])  # fmt: skip
def test_a_box_that_stays_warm_while_its_unit_runs_wants_more_than_time(quantity, runs, share):
    assert by_chance(verdict(90.0, quantity=quantity), runs) == pytest.approx(share)


@pytest.mark.parametrize(("word", "settled", "share"), [("running", 60.0, 0.1), ("running", 4.0, 1.0), ("off", 60.0, 1.0),
                                                        ("short_cycling", 60.0, 1.0)])  # fmt: skip
def test_it_is_the_compressor_that_runs_and_not_only_since_a_moment(word, settled, share):
    seen = {"box_temp_f": 62.5, "box_trend": "steady", "compressor": word, "settled_min": settled}
    facts = work_out(unit_of(COOLER), seen)
    network = network_of(facts.unit, {"moment": "pull_down", "outside": "mild"})
    [held] = [one for one in features(facts, verdicts_of(facts), network) if one.key == "held_warm_f"]
    assert held.by_chance == pytest.approx(share)


def test_far_out_is_no_scatter_of_a_sound_unit_and_explained_by_what_brings_it():
    network = network_of(unit_of(FREEZER), {"moment": "steady", "outside": "mild"})
    near, far = (weigh(network, [Feature("superheat_evap_f", {"high": 1.0}, 1.0, "", by_chance=share)])[0][1] for share in (1.0, 0.1))
    sound, starved, door = (network.rows[frozenset(codes)] for codes in ((), ("txv_underfeeding",), ("drain_blocked",)))
    assert far[sound] - near[sound] == pytest.approx(1.4 * math.log(0.1)) == pytest.approx(far[door] - near[door])
    assert far[starved] - near[starved] == pytest.approx(1.4 * math.log((0.85 - 0.9 * 0.08) / 0.85))
    # Where a sound unit shows it as often as not, it is no chance.
    usual = [Feature("box_temp_f", {"ok": 1.0}, 1.0, "", by_chance=share) for share in (1.0, 0.1)]
    one, other = (weigh(network, [feature])[0][1] for feature in usual)
    assert one == pytest.approx(other)


@pytest.mark.parametrize(("chance", "said"), [(0.249, 0.0), (0.25, 0.25)])
def test_from_a_quarter_on_it_is_told(monkeypatch, chance, said):
    network = network_of(unit_of(FREEZER), {"moment": "steady", "outside": "mild"})
    weighed = weigh(network, [Feature("compressor", {"humming": 1.0}, 1.0, "Compressor: humming")])
    monkeypatch.setattr(unknown, "something_else", lambda *_: chance)
    sound = np.eye(1, len(network.members))[0]
    told, odd = beside_the_known(network, weighed, log_likelihood(network, weighed), sound)
    assert told == said and odd == (("Compressor: humming",) if said else ())


@pytest.mark.parametrize(("share", "fits"), [(0.121, True), (0.119, False)])
def test_what_is_seen_less_often_than_in_an_eighth_of_cases_does_not_fit(share, fits):
    told = np.array([1.4 * 0.5 * math.log(share)])
    assert unknown.does_not_fit([(Feature("drain", {"blocked": 1.0}, 0.5, "Drain: blocked"), told)], 0) == (
        () if fits else ("Drain: blocked",)
    )


def test_what_fits_least_is_named_first_and_no_more_than_four():
    shares = {"a": 0.05, "b": 0.01, "c": 0.1, "d": 0.02, "e": 0.03, "f": 0.5}
    weighed = [(Feature("drain", {"blocked": 1.0}, 1.0, name), np.array([1.4 * math.log(share)])) for name, share in shares.items()]
    heard = (Feature("heard.wiring", {}, 1.0, "measured"), np.array([-9.0]))
    assert unknown.does_not_fit([heard, *weighed], 0) == ("b", "d", "e", "a")


def test_nobody_is_surer_than_this_that_nobody_knows_it():
    network = network_of(unit_of(FREEZER), {"moment": "steady", "outside": "mild"})
    nothing_fits = np.full(len(network.members), -900.0)
    assert unknown.something_else(network, [], nothing_fits) == 0.98
    assert unknown.something_else(network, [], -nothing_fits) == pytest.approx(0.0)
