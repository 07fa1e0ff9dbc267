"""Windings, capacitors and balance by hand-worked figures."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.electrical import capacitors, windings
from kettle.knowledge.errors import InputError


@pytest.mark.parametrize("order", [(0, 1, 2), (1, 2, 0), (2, 0, 1)])
def test_the_terminals_are_told_in_any_order(order):
    # 1.3 Ω run, 4.2 Ω start, 5.5 Ω between them; the pair opposite common is the largest.
    readings = [1.3, 5.5, 4.2]
    told = windings.single_phase(*(readings[n] for n in order))
    largest = order.index(1)
    assert told.sound and told.names[next(t for t in "123" if t not in windings.PAIRS[largest])] == "common"
    run = set(windings.PAIRS[order.index(0)]) - {one for one, name in told.names.items() if name == "common"}
    assert told.names[run.pop()] == "run" and "they add up" in told.says


@given(st.floats(0.3, 20.0), st.floats(1.3, 5.0), st.permutations([0, 1, 2]))
def test_whatever_the_sizes_two_windings_in_series_are_sound(run, ratio, order):
    readings = [run, run * ratio, run * (1 + ratio)]
    told = windings.single_phase(*(readings[n] for n in order))
    assert told.sound and set(told.names.values()) == {"common", "run", "start"}


@pytest.mark.parametrize(
    ("ohms", "says"),
    [
        ((1e9, 5.5, 1e9), "overload"),
        ((1e9, 1e9, 1e9), "more than one winding"),
        ((1.3, 5.5, 1e9), "one reading is off"),
        ((1.3, 4.4, 4.2), "turns are shorted"),
        ((0.02, 4.2, 4.2), "shorted"),
        ((2.1, 4.2, 2.1), "too alike"),
    ],
)
def test_what_is_wrong_with_single_phase_windings_is_said(ohms, says):
    assert says in windings.single_phase(*ohms).says


@pytest.mark.parametrize(
    ("ohms", "sound", "says"),
    [
        ((1.8, 1.82, 1.79), True, "equal"),
        ((1.8, 1.8, 1.2), False, "from equal"),
        ((1.8, 1e9, 1e9), False, "winding at terminal 3"),
        ((1e9, 1e9, 1e9), False, "star point"),
        ((0.01, 0.01, 0.01), False, "shorted"),
    ],
)
def test_three_phase_pairs_are_equal_within_a_tenth(ohms, sound, says):
    told = windings.three_phase(*ohms)
    assert told.sound is sound and says in told.says


@pytest.mark.parametrize(
    ("ohm", "sound", "says"), [(40.0, False, "grounded"), (99e3, False, "grounded"), (5e5, False, "wet or dirty"), (2e6, True, "good")]
)
def test_insulation_to_the_shell(ohm, sound, says):
    told = windings.to_ground(ohm)
    assert told.sound is sound and says in told.says


def test_microfarads_by_amps_and_volts():
    # 2652 × 5 A ÷ 370 V = 35.8 µF at 60 Hz; 3183 × 5 ÷ 370 = 43.0 at 50.
    assert capacitors.uf_of(5.0, 370.0) == pytest.approx(35.84, abs=0.02)
    assert capacitors.uf_of(5.0, 370.0, 50) == pytest.approx(43.01, abs=0.02)
    assert capacitors.judged(35.8, 35.0, 6.0, 6.0).sound
    weak = capacitors.judged(28.0, 35.0, 6.0, 6.0)
    assert not weak.sound and weak.low_uf == pytest.approx(32.9) and "weak" in weak.says
    assert "over its print" in capacitors.judged(60.0, 35.0, 6.0, 6.0).says


def test_two_percent_out_of_balance_is_eight_percent_more_heat():
    assert capacitors.extra_heat_pct(2.0) == pytest.approx(8.0)
    assert capacitors.extra_heat_pct(5.0) == pytest.approx(50.0)


@pytest.mark.parametrize(
    "wrong",
    [
        lambda: windings.single_phase(-1.0, 2.0, 3.0), lambda: windings.to_ground(-5.0), lambda: windings.three_phase(1.0, 1e12, 1.0),
        lambda: capacitors.uf_of(0.0, 370.0), lambda: capacitors.uf_of(5.0, 370.0, 400), lambda: capacitors.judged(5.0, 0.0, 5.0, 5.0),
        lambda: capacitors.judged(5.0, 5.0, 90.0, 5.0), lambda: capacitors.extra_heat_pct(-1.0),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_what_can(wrong):
    with pytest.raises(InputError, match=r"outside|above 0|0 to|50 or 60"):
        wrong()
