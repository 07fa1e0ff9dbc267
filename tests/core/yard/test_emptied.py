"""The circuit of a practice unit while it is open: what comes out, what a vacuum gauge shows, what nitrogen does."""

import pytest

from kettle.benches.refrigerant.nitrogen import stood
from kettle.plant.simulate import PRESETS
from kettle.yard import begin
from kettle.yard.drawn import Draw
from kettle.yard.emptied import holds_oz, leaks, pumped_microns, shut_off_microns, stood_psig


def practice(*codes):
    return begin(Draw(1, PRESETS["walk_in_cooler"], 85.0, "one", tuple((code, 0.5) for code in codes), (), "warm", ""))


def test_what_is_in_it_comes_out_once():
    one = practice("condenser_dirty")
    assert holds_oz(one) == pytest.approx(one.sound_charge_lb * 16.0)
    short = practice("undercharge")
    assert holds_oz(short) == pytest.approx(0.6 * holds_oz(one), rel=0.01), "short by 0.8 of its severity"
    one.rig.do("charge", "recovered", holds_oz(one))
    assert holds_oz(one) == 0.0


def test_it_leaks_until_the_leak_is_repaired_not_until_gas_goes_in():
    one = practice("undercharge")
    assert leaks(one) and not leaks(practice("condenser_dirty"))
    one.do("charge", "added", 5.0)
    assert leaks(one)
    one.put("power_locked_out", "yes")
    one.do("leak", "repaired")
    assert not leaks(one)


def test_a_pump_pulls_towards_its_lowest_and_a_leak_holds_it_up():
    assert pumped_microns(0.0) == pytest.approx(760_000.0) and pumped_microns(4.0) == pytest.approx(220.0 + 759_780.0 / 2.71828, rel=1e-4)
    assert pumped_microns(40.0) < 500.0 < pumped_microns(25.0) and pumped_microns(60.0, tight=False) > 1500.0
    assert pumped_microns(5.0, begun_at=300.0) < 300.0


@pytest.mark.parametrize(
    ("minutes", "tight", "least", "most"), [(10, True, 520.0, 560.0), (60, True, 575.0, 580.1), (10, False, 4899.0, 4901.0)]
)
def test_shut_off_a_tight_circuit_stands_and_one_that_leaks_climbs(minutes, tight, least, most):
    assert least <= shut_off_microns(minutes, 400.0, tight) <= most
    assert shut_off_microns(1e6, 400.0, tight) <= 760_000.0


def test_nitrogen_goes_with_the_temperature_alone_or_shows_the_leak_the_bench_tells():
    tight = stood_psig(150.0, 70.0, 80.0, 60.0, True)
    assert tight == pytest.approx(164.7 * 539.67 / 529.67 - 14.7, abs=0.1)
    assert not stood(150.0, 70.0, tight, 80.0, 60.0).leaks
    lost = stood_psig(150.0, 70.0, 80.0, 60.0, False)
    assert tight - lost == pytest.approx(6.0) and stood(150.0, 70.0, lost, 80.0, 60.0).leaks
    assert stood_psig(150.0, 70.0, 70.0, 60_000.0, False) == 0.0
