"""Lines told by hand: the same standing as with instruments, with wider doubt."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from kettle.judging import readings, touch
from kettle.judging.evidence import membership
from kettle.judging.judge import judge
from kettle.knowledge.observations import get
from tests.core.judging.faults import COOLER, FREEZER, sound, unit_of

LINES = ("suction_line_evap_f", "suction_line_comp_f", "liquid_line_f", "discharge_line_f")
WORDS = [code for code, _ in get("coil_outlet_feel").choices]


def by_feel(spec, **felt):
    """A sound unit without a clamp on any line, told by hand."""
    return {key: value for key, value in sound(spec).items() if key not in LINES} | felt


def superheat_of(spec, **seen):
    judgement = judge(unit_of(spec), by_feel(spec, **seen))
    return next((v for v in judgement.verdicts if v.quantity == "superheat_evap_f"), None)


def test_a_warm_outlet_is_a_starved_coil_and_says_how_sure_it_is():
    # SST of the cooler is 26.5 °F; a lukewarm line is at most as warm as the air of 36.5 °F: no superheat above 10.
    assert superheat_of(COOLER, coil_outlet_feel="cold").state == "ok"
    starved = superheat_of(FREEZER, coil_outlet_feel="cool", box_temp_f=40.0)
    assert (starved.state, starved.trust) == ("high", "weak")
    assert "give or take" in starved.why and starved.spread >= 5


def test_frost_that_comes_and_goes_at_the_outlet_is_superheat_about_right():
    verdict = superheat_of(FREEZER, coil_outlet_feel="frost_comes_and_goes")
    assert (verdict.state, verdict.trust, verdict.value) == ("ok", "weak", 7.0)


def test_without_a_gauge_saturation_is_taken_from_the_air_and_the_doubt_grows():
    with_gauge = touch.estimates(unit_of(COOLER), {"coil_outlet_feel": "cold"}, {"sst_f": 26.0})["superheat_evap_f"]
    seen = {"coil_outlet_feel": "cold", "box_temp_f": 37.5}
    without = touch.estimates(unit_of(COOLER), seen, readings.derive(unit_of(COOLER), seen))["superheat_evap_f"]
    assert without.spread > touch.GAUGE_SPREAD_F
    assert with_gauge.spread > 5
    assert "usual TD" in without.why


def test_an_instrument_always_goes_before_the_hand():
    seen = sound(COOLER, coil_outlet_feel="hot", liquid_line_feel="cold", discharge_line_feel="cool", suction_line_feel="warm")
    assert readings.work_out(unit_of(COOLER), seen).felt == {}


def test_a_lukewarm_liquid_line_stands_for_the_split_where_no_gauge_is_on():
    seen = {"liquid_line_feel": "hot", "ambient_f": 80.0}
    split = touch.estimates(unit_of(COOLER), seen, {})["split_f"]
    assert split.value > 40
    assert "split_f" not in touch.estimates(unit_of(COOLER), seen, {"sct_f": 100.0})


def test_by_feel_the_top_suspect_is_the_same_and_superheat_weighs_less():
    numbers = sound(FREEZER, box=3, td=34, split=18, superheat=29, subcooling=6, drier_drop_f=0.5)
    felt = {
        k: v for k, v in numbers.items() if k not in ("suction_line_evap_f", "suction_line_comp_f", "liquid_line_f", "discharge_line_f")
    }
    felt |= {"coil_outlet_feel": "cold", "suction_line_feel": "warm", "liquid_line_feel": "lukewarm"}
    by_numbers, by_hand = judge(unit_of(FREEZER), numbers), judge(unit_of(FREEZER), felt)
    assert by_hand.ranking[0].codes == by_numbers.ranking[0].codes == ("txv_underfeeding",)
    weights = [{e.key: e.weight for e in j.ranking[0].speaks_for} for j in (by_numbers, by_hand)]
    assert 0 < weights[1]["superheat_evap_f"] < weights[0]["superheat_evap_f"]


@given(st.floats(-20, 60), st.floats(0.5, 20))
def test_spread_softens_and_the_parts_still_sum_to_one(value, spread):
    # On an edge itself two states share what is left of the third, and either may be a hair over a half.
    assume(min(abs(value - 4), abs(value - 10)) > 0.01)
    sharp, soft = membership(value, 4, 10), membership(value, 4, 10, spread)
    assert sum(soft.values()) == pytest.approx(1.0)
    assert max(soft.values()) <= max(sharp.values()) + 1e-9


@given(st.sampled_from(WORDS), st.sampled_from(["warm", "cool", "sweating", "frosted"]), st.floats(-60, 150), st.floats(-14.7, 700))
def test_no_word_on_any_circuit_crashes(outlet, suction, box, pressure):
    seen = {"coil_outlet_feel": outlet, "suction_line_feel": suction, "liquid_line_feel": "hot", "discharge_line_feel": "cool"}
    for spec in (COOLER, FREEZER):
        felt = readings.work_out(unit_of(spec), seen | {"box_temp_f": box, "suction_psig": pressure}).felt
        assert all(estimate.spread >= 0 for estimate in felt.values())
