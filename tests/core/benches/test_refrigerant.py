"""Refrigerant work: cylinders, nitrogen, decay curves, the ledger, leak places, changes, capillary tubes, compressors, retrofit."""

import math
import random
import re
from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from benchmarks.capillary import TUBES, published_flow
from kettle.benches.refrigerant import capillary, change, compressor, cylinders, leaks, ledger, nitrogen, retrofit, vacuum
from kettle.benches.refrigerant.drawing import SPOTS
from kettle.benches.refrigerant.ledger import Move
from kettle.judging.facts import Facts
from kettle.knowledge import refrigerants
from kettle.knowledge.cautions import words
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import FieldErrors, InputError

FREEZER = resolve(UnitSpec("walk_in_freezer", "R-404A"))
REACH_IN = resolve(UnitSpec("reach_in_cooler", "R-134a"))


@pytest.mark.parametrize(("name", "water", "warmest", "limit"), [
    # 0.8 x 47.7/62.37 ft³ x liquid density, by published tables: R-134a at 130 °F 67.0 lb/ft³, R-22 at 130 °F 65.3, R-290 at 120 °F 28.1.
    ("R-134a", 47.7, 130.0, 41.0), ("R-22", 47.7, 130.0, 40.0), ("R-290", 26.2, 120.0, 9.45),
])  # fmt: skip
def test_how_much_a_cylinder_may_hold(name, water, warmest, limit):
    assert cylinders.limit_lb(refrigerants.get(name), water, warmest) == pytest.approx(limit, rel=0.015)


def test_what_is_in_a_cylinder_and_what_may_go_into_it():
    found = cylinders.room(41.0, 60.0, 28.0)
    assert found.inside_lb == 32.0 and found.left_lb == 9.0 and not found.over and cylinders.room(30.0, 60.0, 28.0).over
    assert "does not go in with it" in cylinders.may_go_in("R-22", "R-404A", recovery=True)
    assert "supply cylinder" in cylinders.may_go_in("", "R-404A", recovery=False)
    assert cylinders.may_go_in("", "R-404A", recovery=True) == cylinders.may_go_in("R-404A", "R-404A", recovery=True) == ""
    for call, field in (
        (lambda: cylinders.room(41.0, 20.0, 28.0), "gross_lb"),
        (lambda: cylinders.limit_lb(FREEZER.refrigerant, 0.0), "water_lb"),
    ):
        with pytest.raises(FieldErrors) as wrong:
            call()
        assert list(wrong.value.by_field) == [field]


def test_what_came_out_by_the_scale():
    assert cylinders.came_out(480.0, 482.4) == pytest.approx(2.4)
    with pytest.raises(FieldErrors) as wrong:
        cylinders.came_out(480.0, 480.0)
    assert list(wrong.value.by_field) == ["after"]


@pytest.mark.parametrize(("got", "says"), [(98.0, "as it should be"), (60.0, "40 % short"), (130.0, "30 % over")])
def test_what_was_recovered_against_what_should_be_in_it(got, says):
    assert says in cylinders.recovered(100.0, got)


def test_nitrogen_goes_with_the_temperature():
    # 150 psig at 70 °F (164.7 psia, 529.67 °R) at 50 °F: 164.7 x 509.67 / 529.67 - 14.7 = 143.8 psig.
    found = nitrogen.stood(150.0, 70.0, 143.8, 50.0, 60.0)
    assert found.due_psig == pytest.approx(143.8, abs=0.1) and not found.leaks and "cannot be told" in found.says
    assert nitrogen.stood(150.0, 70.0, 138.0, 50.0, 60.0).leaks
    assert "a valve passes" in nitrogen.stood(150.0, 70.0, 155.0, 70.0, 60.0).says
    with pytest.raises(FieldErrors) as wrong:
        nitrogen.stood(5.0, 300.0, 143.8, 50.0, 0.0)
    assert set(wrong.value.by_field) == {"start_psig", "start_f", "minutes"}


@given(st.floats(50.0, 500.0), st.floats(0.0, 110.0), st.floats(0.0, 110.0), st.floats(5.0, 1440.0))
def test_temperature_alone_is_never_called_a_leak_and_longer_tells_smaller_ones(psig, start, now, minutes):
    due = nitrogen.stood(psig, start, 1.0, now, minutes).due_psig
    found = nitrogen.stood(psig, start, due, now, minutes)
    assert not found.leaks and nitrogen.stood(psig, start, due, now, 2.0 * minutes).tells_psi_h < found.tells_psi_h


def test_a_signal_no_higher_than_the_air_is_none():
    facts = Facts(FREEZER, {})
    heard, readings = {"coil_right": "twice", "coil_left": "no", "coil_joints": "no"}, {"background": 6.0, "coil_right": 11.0}
    assert leaks.drifting(heard, readings) == ("coil_right",)
    assert "11.0 where the air itself reads 6.0" in leaks.found(FREEZER, facts, heard, readings).says
    assert not leaks.found(FREEZER, facts, heard, readings).places
    assert leaks.found(FREEZER, facts, heard, readings | {"coil_right": 12.5}).places == ("coil_right",)
    assert leaks.found(FREEZER, facts, heard, {"coil_right": 11.0}).places == ("coil_right",)
    assert "Coil: left half" in leaks.neighbours(leaks.BY_CODE["coil_right"], FREEZER)


def test_every_place_of_a_search_lies_on_the_drawing_apart_from_the_others():
    assert set(SPOTS) == set(leaks.BY_CODE)
    spots = list(SPOTS.values())
    assert all(25 <= x <= 395 and 25 <= y <= 375 for x, y in spots)
    assert min(math.dist(one, other) for n, one in enumerate(spots) for other in spots[:n]) > 50


def test_the_first_half_hour_of_a_new_compressor():
    unit = replace(FREEZER, compressor_rla_a=10.0)
    start, later = (
        [compressor.FirstStart(minute, 13.0, 5.0, 220.0, "foaming") for minute in minutes] for minutes in ((1,), (1, 30))
    )  # fmt: skip
    assert compressor.first_start(unit, start) == []
    amps, oil = compressor.first_start(unit, later)
    assert "130 %" in amps and "oil still foams" in oil
    backwards = compressor.FirstStart(1, 4.0, 60.0, 58.0, "in_glass")
    assert "wrong way" in compressor.first_start(unit, [backwards])[0]
    assert "vacuum" in compressor.first_start(unit, [compressor.FirstStart(10, 4.0, -3.0, 158.0, "in_glass")])[0]


def test_what_a_new_compressor_must_match_is_of_this_unit():
    match = compressor.to_match(replace(FREEZER, compressor_rla_a=10.0, nameplate_v=230.0, phases=3))
    assert FREEZER.refrigerant.name in match["matched"] and "polyol ester" in match["matched"]
    assert match["match_volts"] == "230 V, three phase, 10.0 A" and "Contactor" in match["match_start"]
    steps = {step.code for step in change.steps("compressor", FREEZER)}
    assert set(match) <= steps and [step.code for step in change.steps("triple", FREEZER)][::2] == ["to_1500", "to_1000", "to_500"]


def test_a_line_smaller_than_its_stub():
    assert compressor.line_and_stub(1.125, 1.125)[0] == "as_stub"
    # (1.125 / 0.875) to the fifth is 3.5.
    word, says = compressor.line_and_stub(0.875, 1.125)
    assert word == "smaller" and "3.5 times" in says
    with pytest.raises(FieldErrors) as wrong:
        compressor.line_and_stub(0.01, 9.0)
    assert set(wrong.value.by_field) == {"line_in", "stub_in"}


def test_a_plugged_tube_is_told_from_a_wrong_one():
    r, rated, at = refrigerants.get("R-134a"), (15.0, 110.0), (110.0, 15.0, 15.0)
    passes = capillary.flow(r, 8.0, 0.036, *at).lb_h
    capacity = capillary.capacity_of(r, passes, *at)
    assert capillary.flow_for(r, capacity, *at) == pytest.approx(passes)
    assert "agree" in capillary.plugged_or_wrong(r, passes, capacity, rated, *at)
    starved = (105.0, -20.0, 20.0)
    same_tube, longer = (capillary.flow(r, feet, 0.036 if feet == 8.0 else 0.026, *starved).lb_h for feet in (8.0, 12.0))
    assert "plugged" in capillary.plugged_or_wrong(r, same_tube, capacity, rated, *starved)
    assert "the wrong tube" in capillary.plugged_or_wrong(r, longer, capacity, rated, *starved)


def decay(chance, kind):
    """A rise after shutting off, read every minute or so, with a gauge that scatters by 4 %."""
    start, span = chance.uniform(200.0, 480.0), chance.uniform(12.0, 25.0)
    at = [span * n / 14.0 for n in range(15)]
    if kind == "tight":
        rise = chance.uniform(30.0, 350.0)
        true = [start + rise * (1.0 - math.exp(-t / 5.0)) for t in at]
    elif kind == "wet":
        rise, tau = chance.uniform(1800.0, 9000.0), chance.uniform(1.5, 0.3 * span)
        true = [start + rise * (1.0 - math.exp(-t / tau)) for t in at]
    else:
        true = [start + chance_rate * t for chance_rate in (chance.uniform(120.0, 3000.0),) for t in at]
    return [(t, microns * chance.gauss(1.0, 0.04)) for t, microns in zip(at, true, strict=True)]


def test_decay_curves_are_told_apart():
    chance, right = random.Random(11), 0
    for n in range(300):
        kind = ("tight", "wet", "leaking")[n % 3]
        right += vacuum.read_decay(decay(chance, kind)).state == kind
    assert right >= 0.95 * 300


def test_a_decay_is_watched_long_enough():
    assert vacuum.read_decay([(0, 400), (1, 420)]).state == "watch"
    short = vacuum.read_decay([(0, 400), (1, 420), (2, 430), (3, 440)])
    assert short.state == "watch" and short.watch_min == pytest.approx(7.0) and "watch 7 more min" in short.says
    wet = vacuum.read_decay([(t, 400 + 4000 * (1 - math.exp(-t / 3))) for t in range(16)])
    assert wet.levels_at == pytest.approx(4400, rel=0.02)


def test_the_time_a_pump_needs():
    # Without a line: volume over speed x ln(760/0.5). 1 ft³ is 28.3 L, 6 cfm 2.83 L/s: 10.0 s x 7.33 = 73 s.
    wide = vacuum.pull_down(1.0, 6.0, 0.5, 2.0)
    assert wide.minutes == pytest.approx(73.3 / 60.0, rel=0.05) and wide.let_through > 0.95
    thin = vacuum.pull_down(1.0, 6.0, 6.0, 0.25)
    assert thin.minutes > 3.0 * wide.minutes and thin.let_through < 0.1
    with pytest.raises(FieldErrors) as wrong:
        vacuum.pull_down(0.0, 600.0, 3.0, 0.25)
    assert set(wrong.value.by_field) == {"volume_ft3", "pump_cfm"}


KIND_NAMES = sorted(ledger.KINDS)
moves = st.lists(st.builds(
    Move, st.dates(date(2025, 1, 1), date(2026, 12, 31)), st.sampled_from(KIND_NAMES), st.floats(0.1, 500.0), st.just("R-404A"),
    st.sampled_from(["C-1", "C-2"]), st.sampled_from(["U-1", "U-2"]),
), max_size=40)  # fmt: skip


def held_oz(lines, cylinder="", unit=""):
    """What a cylinder or a unit holds by its lines, one by one."""
    kinds = [(ledger.KINDS[one.kind], one) for one in lines]
    return sum(
        (kind.cylinder if cylinder else kind.unit) * one.oz
        for kind, one in kinds
        if (one.cylinder if cylinder else one.unit) == (cylinder or unit)
    )


@given(moves)
def test_the_ledger_always_balances(lines):
    # What left or entered the shop is what cylinders and units hold together.
    inside = sum(held_oz(lines, cylinder=one) for one in ("C-1", "C-2")) + sum(held_oz(lines, unit=one) for one in ("U-1", "U-2"))
    outside = sum(one.oz if one.kind == "bought" else -one.oz for one in lines if one.kind not in ("added", "recovered"))
    assert inside == pytest.approx(outside, abs=1e-6)


@given(moves, st.randoms())
def test_a_counter_entry_takes_back_what_it_counters(lines, chance):
    if lines:
        wrong = chance.choice(lines)
        mended = [*lines, ledger.counter(wrong, date(2027, 1, 1))]
        without = [one for one in lines if one is not wrong]
        for name in ("C-1", "C-2"):
            assert held_oz(mended, cylinder=name) == pytest.approx(held_oz(without, cylinder=name), abs=1e-6)


def test_leak_rates_by_both_methods():
    today = date(2026, 11, 26)
    lines = [Move(today - timedelta(days=days), "added", oz, "R-404A", unit="U") for days, oz in ((400, 32.0), (100, 16.0), (10, 8.0))]
    # 8 oz of 160 after 90 days: 5 % x 365/90 = 20.3 %; the last year took 24 of 160.
    assert ledger.leak_rate(lines, "U", 160.0, today, "annualised").pct == pytest.approx(20.28, abs=0.02)
    assert ledger.leak_rate(lines, "U", 160.0, today, "rolling").pct == pytest.approx(15.0)
    assert ledger.leak_rate(lines, "V", 160.0, today, "rolling") is None and ledger.leak_rate(lines, "U", 0.0, today, "rolling") is None
    assert ledger.leak_rate(lines[:1], "U", 160.0, today, "annualised").pct == pytest.approx(20.0)


def seen(**values):
    return Facts(FREEZER, values)


def test_places_are_searched_by_how_often_they_leak_and_by_the_signs():
    assert leaks.in_order(FREEZER, seen())[0].code in ("caps", "cores")
    foaming = [place.belongs for place in leaks.in_order(FREEZER, seen(melt_water="cloudy_foaming"))[:3]]
    assert foaming == ["coil", "coil", "coil"]
    assert leaks.in_order(FREEZER, seen(oil_trace="at_valve_stem"))[0].code == "caps"
    assert "receiver" not in [place.code for place in leaks.in_order(REACH_IN, Facts(REACH_IN, {}))]


@pytest.mark.parametrize(("heard", "says", "places"), [
    ({}, "Next: ", ()), ({"caps": "bubbles"}, "Stem caps and seals: bubbles", ("caps",)),
    ({"coil_left": "twice", "coil_joints": "no", "coil_right": "no"}, "in the coil, not the lines", ("coil_left",)),
    ({"coil_left": "twice", "coil_joints": "signal", "coil_right": "no"}, "now its neighbours", ()),
    ({"coil_left": "twice", "coil_joints": "twice", "coil_right": "no", "valve": "no"}, "between them, nothing around: in the coil",
     ("coil_left", "coil_joints")),
    ({"coil_left": "twice", "coil_joints": "twice", "coil_right": "no"}, "now its neighbours, Expansion valve", ()),
    ({"coil_left": "twice", "compressor": "twice", "coil_joints": "no", "coil_right": "no"}, "in the coil, not the lines", ("coil_left",)),
    ({"flares": "signal"}, "from the other side", ()),
    (dict.fromkeys(leaks.BY_CODE, "no"), "Nothing found at any place", ()),
])  # fmt: skip
def test_what_the_search_came_to(heard, says, places):
    found = leaks.found(FREEZER, seen(), heard)
    assert says in found.says and found.places == places


def test_neighbours_know_each_other():
    for place in leaks.PLACES:
        assert all(place.code in leaks.BY_CODE[other].neighbours for other in place.neighbours), place.code


@pytest.mark.parametrize("part", sorted(change.PARTS))
def test_a_change_goes_in_its_order_and_every_caution_exists(part):
    codes = [step.code for step in change.steps(part, FREEZER)]
    order = [codes.index(code) for code in ("power", "isolated", "nitrogen", "pressure", "evacuated", "charged", "run_in")]
    assert order == sorted(order) and len(codes) == len(set(codes)) and change.hours(part, FREEZER) > 2.0
    assert ("drier" in codes) == (part != "drier")
    for step in change.steps(part, FREEZER):
        assert len(set(words(*step.caution))) == len(step.caution)


def test_a_compressor_is_proved_bad_first_and_its_heater_is_on_before_the_start():
    codes = [step.code for step in change.steps("compressor", FREEZER)]
    assert (
        codes[:2] == ["proved", "why"]
        and codes.index("heater") < codes.index("run_in")
        and codes.index("switches") < codes.index("nitrogen")
    )
    with pytest.raises(InputError):
        change.steps("door", FREEZER)


@pytest.mark.parametrize(("lowest", "rise", "good"), [(-12.0, 1.0, True), (4.0, 1.0, False), (-12.0, 20.0, False)])
def test_whether_a_compressor_pumps(lowest, rise, good):
    assert compressor.pumping(FREEZER, lowest, rise).good == good


def test_the_makers_polynomial_by_hand():
    coefficients = [1000.0, 10.0, -2.0, 0.1, 0.05, -0.01, 0.001, 0.002, -0.0003, 0.00004]
    # S 20, D 100: 1000 + 200 - 200 + 40 + 100 - 100 + 8 + 80 - 60 + 40.
    assert compressor.by_maker(coefficients, 20.0, 100.0) == pytest.approx(1108.0)
    with pytest.raises(FieldErrors):
        compressor.by_maker(coefficients[:9], 20.0, 100.0)


@pytest.mark.parametrize(("name", "feet", "bore", "sct", "sst", "subcooling"), TUBES)
def test_a_tubes_flow_against_the_published_correlation(name, feet, bore, sct, sst, subcooling):
    r = refrigerants.get(name)
    assert capillary.flow(r, feet, bore, sct, sst, subcooling).lb_h == pytest.approx(
        published_flow(r, feet, bore, sct, subcooling), rel=0.15
    )


def test_at_the_same_flow_length_goes_about_with_the_46th_power_of_the_bore():
    r = refrigerants.get("R-134a")
    passed = capillary.flow(r, 8.0, 0.031, 110.0, 10.0, 20.0).lb_h
    assert capillary.length_for(r, passed, 0.031, 110.0, 10.0, 20.0) == pytest.approx(8.0, rel=1e-3)
    other = capillary.length_for(r, passed, 0.034, 110.0, 10.0, 20.0)
    assert math.log(other / 8.0) / math.log(0.034 / 0.031) == pytest.approx(4.6, abs=0.6)


@given(st.floats(3.0, 15.0), st.floats(0.026, 0.06), st.floats(90.0, 130.0), st.floats(0.0, 30.0))
def test_a_longer_tube_passes_less_and_more_subcooling_more(feet, bore, sct, subcooling):
    r = refrigerants.get("R-134a")
    here = capillary.flow(r, feet, bore, sct, 0.0, subcooling)
    assert here.less_lb_h < here.lb_h < here.more_lb_h
    assert capillary.flow(r, feet * 1.2, bore, sct, 0.0, subcooling).lb_h < here.lb_h
    assert capillary.flow(r, feet, bore, sct, 0.0, subcooling + 5.0).lb_h > here.lb_h


def test_a_tube_that_cannot_be_is_said_by_field():
    r = refrigerants.get("R-134a")
    for call, field in (
        (lambda: capillary.flow(r, 0.1, 0.031, 110.0, 10.0, 20.0), "length_ft"),
        (lambda: capillary.flow(r, 5.0, 0.5, 110.0, 10.0, 20.0), "bore_in"),
        (lambda: capillary.flow(r, 5.0, 0.031, 110.0, 105.0, 20.0), "sst_f"),
        (lambda: capillary.length_for(r, 500.0, 0.031, 110.0, 10.0, 20.0), "bore_in"),
    ):
        with pytest.raises(FieldErrors) as wrong:
            call()
        assert field in wrong.value.by_field


@pytest.mark.parametrize(("now", "other", "refused"), [
    ("R-404A", "R-290", "not made for it"), ("R-404A", "R-744", "not made for"), ("R-404A", "R-404A", "of its plate"),
    ("R-404A", "R-449A", ""),
    ("R-22", "R-407C", ""),
])  # fmt: skip
def test_another_refrigerant_in_the_same_circuit(now, other, refused):
    found = retrofit.retrofit(resolve(UnitSpec("walk_in_cooler", now)), refrigerants.get(other))
    assert (refused in found.refused) if refused else (found.refused == "" and any("becomes" in text for text in found.changes))
    if now == "R-22":
        assert any("polyol ester" in text for text in found.changes)


@pytest.mark.parametrize(("metering", "has", "lacks"), [("txv", "valve", "tube"), ("cap_tube", "tube", "valve")])
def test_a_leak_is_searched_only_at_places_the_unit_has(metering, has, lacks):
    unit = resolve(UnitSpec("reach_in_cooler", "R-134a", metering=metering))
    codes = {place.code for place in leaks.in_order(unit, Facts(unit, {}, {}))}
    assert has in codes and lacks not in codes and ("receiver" in codes) is unit.receiver


def test_of_several_coils_the_one_that_leaks_is_named():
    unit = resolve(UnitSpec("walk_in_freezer", "R-404A", evaporators=2))
    codes = [one.code for one in leaks.places_on(unit)]
    assert "coil_left@1" in codes and "coil_left@2" in codes and "coil_left" not in codes and codes.count("lines") == 1
    assert set(leaks.near("coil_left@2", unit)) == {"coil_joints@2", "coil_right@2"}, "a coil's places are beside those of its own"
    assert set(leaks.near("valve@1", unit)) == {"coil_joints@1", "lines"}
    assert {"valve@1", "valve@2"} <= set(leaks.near("lines", unit)), "a line of the circuit leads to every coil"
    quiet = {"coil_joints@2": "no", "coil_right@2": "no"}
    told = leaks.found(unit, Facts(unit, {}, {}), {"coil_left@2": "twice"} | quiet)
    assert told.places == ("coil_left@2",) and told.says.startswith("Coil: left half, coil 2: signalled twice, nothing at its neighbours")
    # Signals at the other coil leave it open.
    assert leaks.found(unit, Facts(unit, {}, {}), {"coil_left@2": "twice", "coil_joints@1": "no", "coil_right@1": "no"}).places == ()


def test_a_chart_of_tubes_is_for_other_temperatures_and_the_longer_of_two_lengths_is_cut():
    r = refrigerants.get("R-134a")
    same = capillary.by_chart(r, 8.0, 0.036, (20.0, 120.0), 120.0, 20.0, 10.0)
    assert same[-1] == "Both agree: cut 8.0 ft"
    cold = capillary.by_chart(r, 8.0, 0.036, (20.0, 120.0), 104.0, 7.0, 10.0)
    assert "yours boils 13 °F colder, its head is 16 °F lower" in cold[2]
    # A colder coil's gas is thin: less is taken, by a longer tube, and the tube told passes what the compressor is told to take.
    takes, wanted = (float(one) for one in re.findall(r"takes ([\d.]+) lb/h at yours: ([\d.]+) ft", cold[1])[0])
    assert wanted > 8.0 and cold[3].startswith(f"Cut {wanted:.1f} ft, the one worked out")
    assert capillary.flow(r, wanted, 0.036, 104.0, 7.0, 10.0).lb_h == pytest.approx(takes, rel=0.02)
    # The flow it passes at either is what the model says of that tube there.
    passes = [capillary.flow(r, 8.0, 0.036, sct, sst, 10.0).lb_h for sct, sst in ((120.0, 20.0), (104.0, 7.0))]
    assert all(f"{lb_h:.1f}" in cold[0] for lb_h in passes)
    small = capillary.by_chart(r, 8.0, 0.036, (20.0, 120.0), 120.0, 20.0, 10.0, 900.0)
    wanted = capillary.length_for(r, capillary.flow_for(r, 900.0, 120.0, 20.0, 10.0), 0.036, 120.0, 20.0, 10.0)
    assert "of another size" in small[2] and small[3].startswith(f"Cut {wanted:.1f} ft, the one worked out") and wanted > 8.5
    with pytest.raises(FieldErrors) as wrong:
        capillary.by_chart(r, 80.0, 0.036, (20.0, 120.0), 104.0, 7.0, 10.0)
    assert set(wrong.value.by_field) == {"chart_ft"}
