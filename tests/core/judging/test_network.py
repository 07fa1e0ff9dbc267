"""The network over causes: noisy-or, pairs, history, and what must hold for any evidence."""

import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.judging import mistakes
from kettle.judging.judge import judge, suspect_of
from kettle.judging.network import network_of
from kettle.knowledge import causes, observations
from kettle.knowledge.equipment import KINDS, UnitSpec, resolve
from kettle.knowledge.errors import InputError
from tests.core.judging.faults import COOLER, FAULTS, FREEZER, REACH_IN, sound, unit_of
from tests.core.judging.scoring import EXPECTED, judged
from tests.examples import at_most

STEADY = {"moment": "steady", "outside": "mild"}
NETWORK = network_of(unit_of(COOLER), STEADY)


@pytest.mark.parametrize("kind", KINDS)
def test_every_row_is_a_distribution(kind):
    network = network_of(resolve(UnitSpec(kind=kind, refrigerant="R-404A")), STEADY)
    for columns in network.columns.values():
        part = network.table[:, columns.place]
        assert (part > 0).all() and (part < 1).all()
        if not columns.many:
            assert part.sum(axis=1) == pytest.approx(1.0, abs=1e-4)
    assert np.exp(network.log_prior).sum() == pytest.approx(1.0)


def test_a_second_cause_that_does_nothing_to_a_feature_leaves_it_as_it_was():
    first, second = NETWORK.singles["condenser_dirty"], NETWORK.singles["door_seal"]
    pair = next(i for i, m in enumerate(NETWORK.members) if {c.code for c in m} == {"condenser_dirty", "door_seal"})
    assert NETWORK.shape(pair, "split_f") == pytest.approx(NETWORK.shape(first, "split_f"), abs=1e-4)
    assert NETWORK.shape(pair, "door") == pytest.approx(NETWORK.shape(second, "door"), abs=1e-4)


def test_opposite_pushes_can_cancel_and_like_ones_add():
    def pair(*codes):
        return next(i for i, m in enumerate(NETWORK.members) if {c.code for c in m} == set(codes))

    alone = NETWORK.shape(NETWORK.singles["undercharge"], "split_f")
    against = NETWORK.shape(pair("undercharge", "condenser_dirty"), "split_f")
    assert alone["high"] < against["high"] < NETWORK.shape(NETWORK.singles["condenser_dirty"], "split_f")["high"]
    with_restriction = NETWORK.shape(pair("undercharge", "liquid_restriction"), "superheat_evap_f")
    assert with_restriction["high"] > NETWORK.shape(NETWORK.singles["undercharge"], "superheat_evap_f")["high"]


def test_a_word_of_a_list_that_both_make_less_usual_is_left_by_the_share_of_each():
    # Both come of a hand that was there before: that nothing was touched is less usual with either, and not impossible with both.
    usual = NETWORK.shape(0, "last_touched")["nothing"]
    one, other = (NETWORK.shape(NETWORK.singles[code], "last_touched")["nothing"] for code in ("stat_calibration", "txv_overfeeding"))
    both = NETWORK.shape(NETWORK.rows[frozenset(("stat_calibration", "txv_overfeeding"))], "last_touched")["nothing"]
    assert max(one, other) < usual and both == pytest.approx(one * other / usual)
    # What neither takes away either may bring: it is there where it is not missing three times over.
    leak, drawn = (NETWORK.shape(row, "ice_places")["ceiling"] for row in (0, NETWORK.singles["door_infiltration"]))
    pair = NETWORK.shape(NETWORK.rows[frozenset(("door_infiltration", "drain_blocked"))], "ice_places")["ceiling"]
    plain = NETWORK.shape(NETWORK.singles["drain_blocked"], "ice_places")["ceiling"]
    assert plain >= leak and pair == pytest.approx(1.0 - (1.0 - drawn) * (1.0 - plain) / (1.0 - leak))


@pytest.mark.parametrize("kind", KINDS)
def test_two_at_once_never_make_impossible_what_each_leaves_likely(kind):
    network = network_of(resolve(UnitSpec(kind=kind, refrigerant="R-404A")), STEADY)
    for columns in (one for one in network.columns.values() if one.many):
        table = network.table[:, columns.place]
        lesser = np.minimum(table[network.first_of_pair], table[network.second_of_pair])
        assert (table[network.pairs] >= 0.3 * lesser**2).all()


def test_two_at_once_are_named_with_whose_evidence_is_whose():
    suspect = judged("txv_underfeeding+condenser_dirty-1").ranking[0]
    assert set(suspect.codes) == {"condenser_dirty", "txv_underfeeding"}
    whose = {evidence.key: evidence.of for evidence in suspect.speaks_for}
    assert whose["condenser_coil"] == "Condenser dirty"
    assert whose["superheat_evap_f"] == "Valve feeding too little"
    assert suspect.plain.startswith("Two things at once.")
    assert len(suspect.correct) > len(causes.CATALOGUE["txv_underfeeding"].correct)


def test_what_excludes_each_other_is_never_paired():
    for members in NETWORK.members:
        assert len({cause.code for cause in members}) == len(members)
        assert {cause.code for cause in members} != {"undercharge", "overcharge"}


def test_a_cause_found_before_is_likelier_again():
    seen = {"box_temp_f": 43.0, "sight_glass": "few_bubbles"}
    told = {history: judge(unit_of(COOLER), seen, history=history) for history in ((), ("undercharge",))}
    share = {history: next(s.probability for s in j.ranking if s.codes == ("undercharge",)) for history, j in told.items()}
    assert share[("undercharge",)] > share[()]


def test_weather_and_moment_change_what_a_cause_shows():
    unit = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", head_control="mixing_valve"))
    cold = network_of(unit, {"moment": "low_ambient", "outside": "cold"})
    mild = network_of(unit, STEADY)
    row = cold.singles["winter_charge_short"]
    assert cold.shape(row, "receiver_level_pct")["low"] > 0.8 > mild.shape(mild.singles["winter_charge_short"], "receiver_level_pct")["low"]


def test_any_cause_can_be_asked_about_however_unlikely():
    unit, seen = unit_of(COOLER), sound(COOLER)
    asked = suspect_of(judge(unit, seen), "overcharge")
    assert asked.probability < 0.05 and asked.speaks_against
    built_without = suspect_of(judge(unit_of(REACH_IN), sound(REACH_IN)), "bulb_fault")
    assert built_without.probability == 0 and "not built" in built_without.speaks_against[0].text
    with pytest.raises(InputError, match="overcharge"):
        suspect_of(judge(unit, seen), "overcharged")


def test_close_calls_say_so():
    judgement = judge(unit_of(COOLER), {"box_temp_f": 43.0})
    assert judgement.close_call.startswith("Close between")
    assert judge(unit_of(FREEZER), FAULTS["undercharge"][0][1]).close_call == ""


CASES = st.sampled_from([name for name, wanted in EXPECTED.items() if not wanted["early"]])


@at_most(30)
@given(CASES, st.randoms(use_true_random=False))
def test_the_order_of_entry_does_not_matter(name, chance: random.Random):
    facts = judged(name).facts
    items = list(facts.seen.items())
    chance.shuffle(items)
    one, other = judge(facts.unit, facts.seen), judge(facts.unit, dict(items))
    assert [s.codes for s in one.ranking] == [s.codes for s in other.ranking]
    assert [s.probability for s in one.ranking] == pytest.approx([s.probability for s in other.ranking], rel=1e-6)


@at_most(30)
@given(CASES, st.data())
def test_a_reading_taken_back_restores_the_ranking(name, data):
    facts = judged(name).facts
    key = data.draw(st.sampled_from([entry for entry in observations.REGISTRY if entry not in facts.seen]))
    entry = observations.get(key)
    value = entry.low if entry.is_number else entry.choices[0][0]
    before = judge(facts.unit, facts.seen)
    judge(facts.unit, {**facts.seen, key: entry.check(value)})
    after = judge(facts.unit, facts.seen)
    assert [(s.codes, s.probability) for s in before.ranking] == [(s.codes, s.probability) for s in after.ranking]


WORDS = [key for key, columns in NETWORK.columns.items() if key in observations.REGISTRY and not columns.many]
SINGLES = st.sampled_from(list(NETWORK.singles))


@at_most(60)
@given(SINGLES, SINGLES, st.sampled_from([k for k in WORDS if not observations.get(k).is_number]), st.data())
def test_evidence_that_fits_a_cause_better_never_lowers_it_against_its_rival(one, rival, key, data):
    state = data.draw(st.sampled_from(NETWORK.columns[key].states))
    if NETWORK.shape(NETWORK.singles[one], key)[state] <= NETWORK.shape(NETWORK.singles[rival], key)[state]:
        return
    unit, seen = unit_of(COOLER), {"box_temp_f": 41.0, "ambient_f": 82.0}

    def odds(observed):
        judgement = judge(unit, observed)
        # Of the causes themselves: a cause with every pair it is in would count rivals' pairs too.
        parts = [suspect_of(judgement, code) for code in (one, rival)]
        weights = [sum(e.weight for e in (*p.speaks_for, *p.speaks_against) if e.key == key) for p in parts]
        return weights[0] - weights[1]

    assert odds({**seen, key: state}) >= -0.16


@pytest.mark.parametrize(
    ("codes", "seen", "word"),
    [
        (("overcharge",), sound(COOLER, compressor_shell="sweating"), "does not overfeed"),
        (("undercharge",), {"sight_glass": "flashing"}, "Bubbles alone"),
        (("undercharge",), {k: v for k, v in sound(COOLER).items() if k != "receiver_level_pct"}, "Behind a receiver"),
        (("txv_overfeeding",), {"bulb": "loose"}, "bulb comes before"),
        (("txv_underfeeding",), sound(COOLER, box=46), "far from set"),
        (("compressor_open_winding",), {"line_v_12": 230.0, "load_v_12": 120.0}, "across each closed pole"),
        (("compressor_inefficient", "condenser_dirty"), {}, "pump it down"),
        (("noncondensables",), {}, "at rest"),
        (("overcharge",), sound(COOLER, split=48, condenser_coil="blocked"), "put that right and read again"),
        (("noncondensables",), sound(COOLER, split=45, condenser_fans="stopped"), "put that right and read again"),
        (("undercharge",), {k: v for k, v in sound(COOLER, sight_glass="flashing").items() if k != "drier_drop_f"}, "plugged drier"),
        (("evap_fan_failed",), {"evap_fans": "stopped", "control_call": "in_defrost"}, "rest in a defrost"),
        (("compressor_open_winding",), {"compressor": "off", "compressor_shell": "hot", "winding_cs_ohm": 1e6}, "own protector"),
        (("liquid_solenoid_closed",), {"compressor": "off", "low_pressure_switch": "open", "suction_psig": 120.0}, "keeps it off"),
    ],
)
def test_mistakes_are_caught_where_they_are_invited(codes, seen, word):
    facts = judge(unit_of(COOLER), seen).facts
    assert any(word in text for text in mistakes.invited(facts, codes))
    assert not any(word in text for text in mistakes.invited(facts, ("door_seal",)))


def test_a_cleared_way_invites_no_mistake():
    facts = judge(unit_of(COOLER), sound(COOLER, sight_glass="flashing", drier_drop_f=0.5)).facts
    assert mistakes.invited(facts, ("undercharge",)) == ()
    assert mistakes.invited(facts, ("txv_underfeeding",)) == ()
