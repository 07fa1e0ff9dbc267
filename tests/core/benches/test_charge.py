"""The charge bench: may gas be added, additions, winter charge, receiver, critical charge, at rest, what a sound unit runs."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.charge import additions, at_rest, critical, expected, may_add, missing, receiver, winter
from kettle.benches.charge.additions import Addition
from kettle.judging.facts import Facts
from kettle.judging.holds import standing as standing_holds
from kettle.judging.readings import work_out
from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import FieldErrors, InputError

COOLER = resolve(UnitSpec("walk_in_cooler", "R-404A", receiver=True, head_control="mixing_valve"))
CLEARED = {"ice_form": "none", "evap_fans": "running", "condenser_coil": "clean", "condenser_fans": "running", "ambient_f": 82.0,
           "head_control": "normal", "box_temp_f": 38.0, "sight_glass": "flashing", "leak_test": "none_found"}  # fmt: skip
SHORT = {"superheat_evap_f": 22.0, "subcooling_f": 0.5}


def facts(unit=COOLER, derived=SHORT, **changes):
    return Facts(unit, CLEARED | changes, dict(derived))


def line(answer, code):
    return next(one for one in answer.lines if one.code == code)


def test_gas_may_go_in_where_everything_nearer_is_cleared():
    found = may_add.may_add(facts())
    assert found.may and found.says.startswith("Yes") and any("weighed before and after" in text for text in found.how)
    assert all(one.state == "ok" for one in found.lines)


@pytest.mark.parametrize(("change", "code", "says"), [
    ({"ice_form": "hard_ice"}, "ice", "melt it all"), ({"evap_fans": "stopped"}, "airflow", "airflow first"),
    ({"evap_coil": "dirty"}, "airflow", "clean it"), ({"condenser_coil": "blocked"}, "condenser", "clean it"),
    ({"condenser_fans": "stopped"}, "condenser", "does not move the air"), ({"ambient_f": 41.0}, "ambient", "come back above 70 °F"),
    ({"head_control": "bypassing_when_warm"}, "mixing", "past the condenser"), ({"box_temp_f": 60.0}, "load", "Pull down first"),
    ({"leak_test": "found"}, "leak", "the customer decides in writing"),
])  # fmt: skip
def test_each_reason_that_lies_nearer_says_first_this(change, code, says):
    found = may_add.may_add(facts(**change))
    assert not found.may and found.says.startswith("No, first this") and says in found.says and line(found, code).state == "first"


@pytest.mark.parametrize("key", ["ice_form", "evap_fans", "condenser_coil", "ambient_f"])
def test_what_nobody_looked_at_holds_the_gas(key):
    seen = {name: value for name, value in CLEARED.items() if name != key}
    assert may_add.may_add(Facts(COOLER, seen, dict(SHORT))).says.startswith("Not yet")


def test_bubbles_alone_never_do():
    alone = may_add.may_add(facts(derived={"superheat_evap_f": 9.0}))
    assert not alone.may and "besides the glass" in alone.says
    level = may_add.may_add(facts(derived={"superheat_evap_f": 9.0}, receiver_level_pct=60.0))
    assert not level.may and "receiver at 60 %, not low" in level.says
    full = may_add.may_add(facts(derived={"superheat_evap_f": 9.0, "subcooling_f": 6.0}))
    assert full.says == "No, it does not look short: subcooling 6.0 °F is not low" and not full.may


def test_a_condenser_blocked_on_purpose_mimics_the_warm_day():
    cold = facts(ambient_f=35.0, condenser_blocking="on_purpose", condenser_coil="blocked")
    assert may_add.may_add(cold).may


def test_the_flooding_valve_is_said_before_a_pound_is_added():
    flooding = facts(derived={"superheat_evap_f": 1.0, "subcooling_f": 1.0})
    assert may_add.floods_and_flashes(flooding)
    assert "not short, the valve" in may_add.may_add(flooding).says
    assert not may_add.floods_and_flashes(facts(derived={"superheat_evap_f": 15.0, "subcooling_f": 1.0}))
    assert not may_add.floods_and_flashes(facts(derived={"superheat_evap_f": 1.0, "subcooling_f": 1.0}, sight_glass="clear"))


def test_a_critical_charge_is_never_topped_by_gauge():
    unit = resolve(UnitSpec("reach_in_cooler", "R-290", critical_charge_oz=5.3))
    assert "weigh in 5.3 oz" in may_add.may_add(Facts(unit, CLEARED, dict(SHORT))).says


# Liquid densities, lb/ft³, by published tables at the mean of held condensing and outdoor air: R-404A at 50 °F 69.0, R-134a at 45 °F 79.4,
# R-22 at 25 °F 81.0. Share = 1 - split / (held - outdoor); pounds = volume x share x density.
@pytest.mark.parametrize(("name", "volume", "split", "held", "ambient", "share", "pounds"), [
    ("R-404A", 0.30, 15.0, 80.0, 20.0, 0.750, 15.5), ("R-134a", 0.20, 20.0, 90.0, 0.0, 0.778, 12.35),
    ("R-22", 0.50, 15.0, 70.0, -20.0, 0.833, 33.7), ("R-404A", 0.30, 20.0, 90.0, 75.0, 0.0, 0.0),
])  # fmt: skip
def test_the_winter_charge_by_hand(name, volume, split, held, ambient, share, pounds):
    found = winter.winter(refrigerants.get(name), volume, split, held, ambient, 20.0)
    assert found.flooded == pytest.approx(share, abs=0.001) and found.add_lb == pytest.approx(pounds, rel=0.02)
    # All of it in a receiver four fifths full: R-404A at 100 °F is 61.7 lb/ft³.
    if name == "R-404A" and share:
        assert found.receiver_ft3 == pytest.approx((20.0 + 15.5) / (0.8 * 61.7), rel=0.03)
    assert found.thumb_lb == (2.0, 3.0)


@given(st.floats(8.0, 30.0), st.floats(75.0, 110.0), st.floats(-30.0, 70.0), st.floats(0.0, 20.0))
def test_the_colder_the_fuller(split, held, ambient, colder):
    first, second = (winter.flooded_share(split, held, at) for at in (ambient, ambient - colder))
    assert 0.0 <= first <= second < 1.0


def test_a_condensers_volume_by_its_tube_and_by_the_summer_charge():
    # 100 ft of 0.311 in: 1200 x π/4 x 0.311² = 91.2 in³.
    assert winter.volume_of_tube_ft3(100.0, 0.311) == pytest.approx(91.2 / 1728.0, rel=0.002)
    assert winter.usual_volume_ft3(COOLER, 20.0) == pytest.approx(2.0 * winter.usual_volume_ft3(COOLER, 10.0))
    r = COOLER.refrigerant
    for call in (lambda: winter.volume_of_tube_ft3(0.0, 0.3), lambda: winter.volume_of_tube_ft3(50.0, 9.0),
                 lambda: winter.winter(r, 99.0, 15.0, 80.0, 20.0), lambda: winter.winter(r, 0.3, 1.0, 80.0, 20.0)):  # fmt: skip
        with pytest.raises(FieldErrors):
            call()


def test_condenser_and_receiver_over_the_year():
    r = refrigerants.get("R-404A")
    days = [95.0, 60.0, 30.0, 0.0, -20.0]
    without = winter.over_the_year(r, 0.3, 15.0, 80.0, days, 0.5, 40.0, 0.0)
    extra = winter.winter(r, 0.3, 15.0, 80.0, -20.0).add_lb
    with_it = winter.over_the_year(r, 0.3, 15.0, 80.0, days, 0.5, 40.0, extra)
    assert without[-1].empty and not with_it[-1].empty
    assert [one.condenser for one in with_it] == sorted(one.condenser for one in with_it)
    assert with_it[0].receiver > with_it[-1].receiver
    assert winter.over_the_year(r, 0.3, 15.0, 80.0, days, 0.4, 60.0, extra)[0].over


def test_the_condenser_is_blocked_to_a_warm_days_condensing_and_half_the_summer_charge_lies_in_the_receiver():
    assert winter.block_to_f(None) == 95.0 and winter.block_to_f(15.0) == 90.0
    # 20 lb of R-404A, half of it at 61.7 lb/ft³ in 0.5 ft³.
    assert winter.usual_summer_level_pct(refrigerants.get("R-404A"), 20.0, 0.5) == pytest.approx(100.0 * 10.0 / (0.5 * 61.7), rel=0.02)


def test_the_days_looked_at_go_from_hot_to_the_coldest_and_nothing_is_drawn_over_full():
    assert winter.days_f(-25.0) == [95.0, 75.0, 55.0, 35.0, 15.0, -5.0, -25.0]
    full = winter.Filling(95.0, 0.25, 1.3)
    assert (full.condenser_pct, full.receiver_pct, full.drawn_pct, full.over) == (25.0, 130.0, 100.0, True)
    assert receiver.drawn(30.0) == (70.0, 30.0) and receiver.drawn(140.0) == (0.0, 100.0)


def test_what_a_receiver_holds():
    assert receiver.share_filled(0.5, "lying") == pytest.approx(0.5) and receiver.share_filled(0.25, "lying") == pytest.approx(
        0.1955, abs=1e-4
    )
    assert receiver.share_filled(0.25, "standing") == 0.25 and receiver.share_filled(1.0, "lying") == pytest.approx(1.0)
    # 6 in across, 24 in long: 679 in³; half of it R-404A at 100 °F.
    whole = receiver.volume_ft3(24.0, 6.0)
    assert whole == pytest.approx(678.6 / 1728.0, rel=1e-3)
    assert receiver.held_lb(refrigerants.get("R-404A"), whole, 50.0, "lying", 100.0) == pytest.approx(0.5 * 0.3927 * 61.7, rel=0.02)
    with pytest.raises(FieldErrors) as wrong:
        receiver.volume_ft3(1.0, 99.0)
    assert set(wrong.value.by_field) == {"length_in", "diameter_in"}


def test_what_a_scale_says_went_in():
    assert additions.by_scale(400.0, 391.5, 0.5) == pytest.approx(8.0)
    for before, after, lost, field in (
        (400.0, 400.0, 0.0, "after"),
        (400.0, 410.0, 0.0, "after"),
        (0.0, 10.0, 0.0, "before"),
        (40.0, 30.0, 50.0, "lost"),
    ):
        with pytest.raises(FieldErrors) as wrong:
            additions.by_scale(before, after, lost)
        assert field in wrong.value.by_field


@pytest.mark.parametrize(("added", "says"), [
    ([], "at a time"), ([Addition(8.0, glass="clear")], "Stop: the glass is clear after 8.0 oz"),
    ([Addition(8.0, glass="flashing", amps_pct=112.0)], "112 % of rated amps"),
    ([Addition(8.0, glass="few_bubbles", superheat_f=0.0)], "liquid comes back"),
    ([Addition(8.0, glass="flashing")], "8.0 oz in. Ten minutes"),
    ([Addition(40.0, glass="flashing"), Addition(60.0, glass="flashing")], "nothing moved"),
    ([Addition(40.0, glass="flashing"), Addition(60.0, glass="few_bubbles")], "more"),
])  # fmt: skip
def test_when_to_stop_adding(added, says):
    assert says in additions.additions_say(COOLER, added)[0]


def test_without_a_receiver_subcooling_says_when():
    unit = resolve(UnitSpec("reach_in_cooler", "R-134a"))
    assert "Stop: subcooling" in additions.additions_say(unit, [Addition(2.0, subcooling_f=8.0)])[0]
    assert "take some out" in additions.additions_say(unit, [Addition(2.0, subcooling_f=25.0)])[0]
    assert "more" in additions.additions_say(unit, [Addition(2.0, subcooling_f=1.0)])[0]


@pytest.mark.parametrize(("went_in", "says", "right"), [
    (8.0, "Right by the label", True), (8.1, "Right by the label", True), (7.8, "top it up", False), (7.0, "weigh the rest in", False),
    (8.3, "most units stand that", False), (9.5, "never let a little out", False),
])  # fmt: skip
def test_a_weighed_charge_against_its_label(went_in, says, right):
    found = critical.weighed(8.0, went_in)
    assert says in found.says and found.right == right and found.off_pct == pytest.approx(100.0 * (went_in - 8.0) / 8.0)


def test_the_suction_a_label_charge_gives():
    # R-134a, box 38 °F, reach-in cooler's TD 14 to 28 °F: dew 10 to 24 °F, 12 to 22 psig by the table.
    unit = resolve(UnitSpec("reach_in_cooler", "R-134a", critical_charge_oz=8.0))
    due = critical.suction_due(unit, 38.0, None)
    assert due.low_psig == pytest.approx(11.9, abs=0.7) and due.high_psig == pytest.approx(21.5, abs=0.9) and due.says == ""
    assert "plugged" in critical.suction_due(unit, 38.0, 2.0).says and "does not pump" in critical.suction_due(unit, 38.0, 45.0).says
    assert "as it should" in critical.suction_due(unit, 38.0, 16.0).says


def test_at_rest_air_another_gas_and_right_are_told_apart():
    r134a = refrigerants.get("R-134a")
    # R-134a at 80 °F: 86.7 psig by the published table.
    right = at_rest.resting_says(r134a, 0.0, 87.0, 80.0)
    assert right.bubble_psig == pytest.approx(86.7, abs=0.5) and "right, no air" in right.says and right.others == ()
    air = at_rest.resting_says(r134a, 0.0, 104.0, 80.0)
    assert "air, or another gas" in air.says and "Never vented" in air.says
    # R-22 at 80 °F: 143.6 psig.
    wrong = at_rest.resting_says(r134a, 0.0, 143.6, 80.0)
    assert "R-22" in wrong.others
    assert "not equalised yet" in at_rest.resting_says(r134a, 0.0, 40.0, 80.0).says
    with pytest.raises(InputError):
        at_rest.resting_says(r134a, 0.0, 40.0, 900.0)


def test_a_blend_at_rest_stands_between_its_two_points():
    blend = refrigerants.get("R-407C") if "R-407C" in refrigerants.catalogue() else refrigerants.get("R-448A")
    bubble, dew = blend.bubble_psig(75.0), blend.dew_psig(75.0)
    assert at_rest.resting_says(blend, 0.0, (bubble + dew) / 2.0, 75.0).over_psi == 0.0


@pytest.mark.parametrize(
    ("kind", "refrigerant"), [("walk_in_cooler", "R-404A"), ("reach_in_cooler", "R-134a"), ("display_freezer", "R-404A")]
)
def test_what_a_sound_unit_runs_near_set_lies_in_its_bands(kind, refrigerant):
    unit = resolve(UnitSpec(kind, refrigerant))
    found = expected.expected(unit, unit.set_f + 1.0, 85.0)
    low, high = found.suction_psig
    assert low - 1.0 <= found.plant_suction_psig <= high + 1.0
    low, high = found.head_psig
    assert low - 3.0 <= found.plant_head_psig <= high + 3.0
    warm, hot = expected.expected(unit, unit.set_f + 25.0, 85.0), expected.expected(unit, unit.set_f + 1.0, 105.0)
    assert warm.plant_suction_psig > found.plant_suction_psig and hot.plant_head_psig > found.plant_head_psig


def test_water_cooled_has_no_head_by_the_air():
    unit = resolve(UnitSpec("provision_room_cooler", "R-404A", condensing="water"))
    assert expected.expected(unit, 38.0, 85.0).head_psig is None


@pytest.mark.parametrize(
    ("kind", "more"), [("walk_in_cooler", {}), ("walk_in_cooler", {"head_control": "mixing_valve"}), ("display_freezer", {})]
)
@pytest.mark.parametrize("ambient_f", [20.0, 60.0, 95.0])
def test_what_is_due_and_how_far_it_may_lie_never_contradict_each_other(kind, more, ambient_f):
    unit = resolve(UnitSpec(kind, "R-448A", **more))
    found = expected.expected(unit, unit.set_f + 8.0, ambient_f)
    for figure, span in ((found.plant_suction_psig, found.suction_psig), (found.plant_head_psig, found.head_psig),
                         (found.plant_superheat_f, found.superheat_f), (found.plant_subcooling_f, found.subcooling_f)):  # fmt: skip
        assert span is None or span[0] <= figure <= span[1]
    if more and ambient_f < 40.0:
        # A mixing valve holds 85 °F condensing whatever the air is.
        assert found.head_psig[0] >= unit.refrigerant.bubble_psig(80.0)


@pytest.mark.parametrize(
    ("name", "liquid"), [("R-448A", True), ("R-404A", True), ("R-507A", True), ("R-134a", False), ("R-290", False), ("R-744", False)]
)
def test_mixtures_of_the_400_and_500_series_go_in_as_liquid_glide_or_not(name, liquid):
    assert refrigerants.get(name).is_mixture is liquid
    unit = resolve(UnitSpec("walk_in_cooler", name))
    assert may_add.how(work_out(unit, {}))[0].startswith("As liquid") is liquid


def test_an_emptier_glass_is_filled_in_fewer_rounds():
    unit = resolve(UnitSpec("walk_in_cooler", "R-448A"))
    by_glass = [additions.one_addition_oz(unit, glass) for glass in ("empty", "flashing", "few_bubbles", None)]
    assert by_glass == sorted(by_glass, reverse=True) and by_glass[0] == pytest.approx(3.0 * by_glass[2], abs=1.5)


@pytest.mark.parametrize(
    ("level", "glass", "held"), [(75.0, None, True), (74.0, None, False), (75.0, "clear", True), (90.0, "flashing", False)]
)
def test_a_full_receiver_holds_gas_whether_the_glass_was_looked_at_or_not(level, glass, held):
    unit = resolve(UnitSpec("walk_in_cooler", "R-448A"))
    seen = {"receiver_level_pct": level} | ({"sight_glass": glass} if glass else {})
    full = [hold for hold in standing_holds(work_out(unit, seen)) if "full" in hold.text]
    assert bool(full) is held


def test_a_leak_that_the_customer_left_open_does_not_come_first_any_more():
    found = facts(leak_test="found")
    assert line(may_add.may_add(found), "leak").state == "first" and not may_add.may_add(found).may
    assert line(may_add.may_add(found, leak_decided=True), "leak").state == "ok" and may_add.may_add(found, leak_decided=True).may


CAPILLARY = resolve(UnitSpec("reach_in_cooler", "R-134a"))


@pytest.mark.parametrize("unit", [CAPILLARY, COOLER], ids=["capillary", "receiver"])
def test_what_a_charge_runs_tells_how_much_of_it_is_missing(unit):
    known, whole = missing.curve(unit, 44.0, 85.0), missing.usual_charge_oz(unit)
    for place in (2, 3):
        told = missing.missing(unit, 44.0, 85.0, float(known.suction_psig[place]), float(known.amps_pct[place]))
        gone = (1.0 - known.shares[place]) * whole
        # The figures of the curve itself come back as the share they are of, inside a span no narrower than its doubt.
        assert told.oz == pytest.approx(gone, rel=0.02) and told.low_oz < gone < told.high_oz
        assert told.oz - told.low_oz >= missing.LEAST_DOUBT * whole * 0.99
    full = missing.missing(unit, 44.0, 85.0, known.full(known.suction_psig), known.full(known.amps_pct))
    assert full is None, "a unit that runs as with all of it misses nothing that these tell"


def test_behind_a_receiver_its_level_tells_what_suction_and_amps_do_not():
    known, whole = missing.curve(COOLER, 38.0, 85.0), missing.usual_charge_oz(COOLER)
    suction, amps = known.full(known.suction_psig), known.full(known.amps_pct)
    assert missing.missing(COOLER, 38.0, 85.0, suction, amps) is None
    half = missing.missing(COOLER, 38.0, 85.0, suction, amps, known.full(known.level_pct) / 2.0)
    assert half.by == ("receiver level",) and 0.1 * whole < half.oz < 0.5 * whole
    # Without a receiver nobody has a level.
    assert missing.missing(CAPILLARY, 38.0, 85.0, None, None, 10.0) is None
    # An empty one says that much is missing; how much, suction tells.
    short = missing.missing(COOLER, 38.0, 85.0, float(known.suction_psig[2]), None, 0.0)
    assert short.by == ("suction",)


def test_gas_by_the_amps_is_what_they_rose_by_and_is_never_told_better_than_it_is():
    known, whole = missing.curve(CAPILLARY, 44.0, 85.0), missing.usual_charge_oz(CAPILLARY)
    oz, room = missing.went_in_oz(CAPILLARY, 44.0, 85.0, float(known.amps_pct[4]), float(known.amps_pct[6]))
    assert oz == pytest.approx(0.2 * whole, rel=0.02) and room >= missing.LEAST_DOUBT * whole
    assert missing.went_in_oz(CAPILLARY, 44.0, 85.0, 70.0, 60.0) is None, "amps that fell"
    assert missing.went_in_oz(CAPILLARY, 44.0, 85.0, known.full(known.amps_pct), 99.0) is None, "they stood as with all of it"


def test_what_lies_within_its_doubt_of_a_full_charge_tells_nothing():
    known = missing.curve(CAPILLARY, 44.0, 85.0)
    full = known.full(known.amps_pct)
    within, beyond = (missing.missing(CAPILLARY, 44.0, 85.0, None, full - missing.AMPS_PCT + off) for off in (0.01, -0.01))
    assert within is None and beyond is not None and beyond.by == ("amps",)
    before = full - missing.AMPS_PCT
    assert missing.went_in_oz(CAPILLARY, 44.0, 85.0, before + 0.01, full) is None
    assert missing.went_in_oz(CAPILLARY, 44.0, 85.0, before - 0.01, full) is not None
    assert missing.went_in_oz(CAPILLARY, 44.0, 85.0, 60.0, 60.0) is None, "amps that stood"


def test_a_receiver_is_as_good_as_empty_at_its_doubt_and_tells_alone_what_nothing_else_does():
    known = missing.curve(COOLER, 38.0, 85.0)
    suction = float(known.suction_psig[2])
    for level, by in ((missing.LEVEL_PCT, ("suction",)), (missing.LEVEL_PCT + 0.1, ("suction", "receiver level"))):
        assert missing.missing(COOLER, 38.0, 85.0, suction, None, level).by == by
    assert missing.missing(COOLER, 38.0, 85.0, None, None, 0.0).by == ("receiver level",)


def test_towards_several_pounds_the_rounds_are_few_and_the_last_ones_small():
    whole = missing.usual_charge_oz(COOLER)
    small = additions.one_addition_oz(COOLER)
    assert additions.one_addition_oz(COOLER, None, 8 * small) == pytest.approx(2 * small, abs=0.5)
    assert additions.one_addition_oz(COOLER, None, small) == small
    left, rounds = 0.6 * whole, 0
    while left > 0:
        left -= additions.one_addition_oz(COOLER, None, left)
        rounds += 1
    assert rounds <= 10


def test_an_emptied_circuit_is_told_what_such_units_hold_half_of_it_at_once():
    whole = missing.usual_charge_oz(COOLER)
    empty = additions.to_go(COOLER, None, 0.0)
    assert empty.empty and empty.oz == pytest.approx(whole) and empty.low_oz == pytest.approx(0.75 * whole)
    says = additions.additions_say(COOLER, [], to_go=empty)
    assert "what such units hold" in says[0] and "compressor off" in says[1]
    half = additions.to_go(COOLER, None, 0.5 * whole)
    assert not half.empty and half.oz == pytest.approx(0.5 * whole)
    more = additions.additions_say(COOLER, [Addition(0.5 * whole, "flashing")], to_go=half)
    assert "Ten minutes" in more[0] and "to go" in more[1]
    assert additions.to_go(COOLER, None) is None


def test_gas_by_eye_is_no_figure():
    assert additions.additions_say(COOLER, [Addition(None, "few_bubbles")])[0].startswith("Gas by eye in. Ten minutes")


def test_a_starved_coil_is_not_told_to_pull_down_first_and_a_tube_has_no_bubbles():
    warm = {"box_temp_f": 52.0, "receiver_level_pct": 4.0}
    starved = may_add.may_add(facts(derived={"superheat_evap_f": 45.0}, **warm))
    assert line(starved, "load").state == "ok" and "does not come down without gas" in line(starved, "load").says and starved.may
    # Neither short by a sign no valve brings about, nor starved: first the box.
    for derived, change in (({"superheat_evap_f": 20.0}, {}), ({"superheat_evap_f": 45.0}, {"receiver_level_pct": 60.0})):
        assert line(may_add.may_add(facts(derived=derived, **warm | change)), "load").state == "first"
    tube = resolve(UnitSpec("bottle_cooler", "R-134a"))
    says = line(may_add.may_add(Facts(tube, {"box_temp_f": 60.0}, {})), "load").says
    assert "Pull down first" in says and "bubbles" not in says
