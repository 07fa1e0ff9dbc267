import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.ice import map as ice
from kettle.benches.ice import melt
from kettle.judging.facts import Facts
from kettle.judging.judge import judge
from kettle.judging.readings import work_out
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from tests.core.judging.faults import COOLER, FREEZER, unit_of

BARE = "." * 10
# Drawn as a technician paints them: valve end left, top row first; then the pattern and where it counts as ice.
DRAWN = {
    "bare": ([BARE] * 5, "bare", ()),
    "door-abused cooler": (["iiiiiiiiii"] * 5, "whole_hard", ("coil_whole",)),
    "starved coil": (["iihl......", "iiihl.....", "iihll.....", "iiih......", "ihl......."], "first_passes", ("coil_inlet_passes",)),
    "starved, just begun": (["hh........", "hhl.......", "hhh.......", "hh........", "hhl......."], "first_passes", ("coil_inlet_passes",)),
    "missed defrost": (["hhhhhhhhhh"] * 5, "whole_soft", ("coil_whole",)),
    "working freezer": (["llllllllll"] * 5, "light_even", ("coil_whole",)),
    "short fail-safe": ([BARE, BARE, "..i..i....", "iiiiiiiiii", "iiiiiiiiii"], "bottom", ("coil_bottom",)),
    "snow by the door": (["ssssssssss"] * 4 + ["sssssss..."], "snow", ("coil_whole",)),
    "dead far element": ([".......iii"] * 5, "far_end", ("coil_part",)),
    "warm air above": (["hhhhhhhhhh", "hhhhhhhh..", BARE, BARE, BARE], "top", ("coil_part",)),
    "oil spots": (["..........", "....h.....", "...hh.....", "..........", "........h."], "patchy", ("coil_part",)),
    "three quarters": (["iiiiiiiiii", "iiiiiiii..", "iiiiiii...", "iiiiiiii..", "ii..iiii.."], "most", ("coil_part",)),
    "hard with soft rim": (["iiiiiiiiih", "iiiiiiiihh", "iiiiiiiiih", "iiiiiiiiih", "iiiiiiiii."], "whole_hard", ("coil_whole",)),
    "one speck": ([BARE, BARE, "....l.....", BARE, BARE], "bare", ()),
}


@pytest.mark.parametrize("name", DRAWN)
def test_a_drawn_pattern_is_read_as_a_technician_reads_it(name):
    rows, pattern, places = DRAWN[name]
    read = ice.read(ice.parse(rows, {}), 8.0)
    assert read.pattern.code == pattern
    assert read.ice_places == places
    assert read.pattern.usually
    assert read.pattern.not_proved


def test_places_beyond_the_coil_are_kept_with_their_meaning():
    read = ice.read(ice.parse([BARE] * 5, {"ceiling": "hard_ice", "drain_pan": "none", "coil_back": "hard_ice"}), 8.0)
    assert read.ice_form == "hard_ice", "the back counts"
    assert read.ice_places == ("coil_part", "ceiling")
    assert any("Ceiling: defrosts too long" in text for text in read.beyond)
    assert any("Back of the coil" in text for text in read.beyond)


def test_bare_and_looked_at_are_two_things():
    drawn = ice.parse([BARE] * 5, {"ceiling": "none"})
    assert drawn.bare
    assert "coil_back" in drawn.not_looked
    assert "ceiling" not in drawn.not_looked


def test_mass_by_hand():
    # 8 ft² wholly in hard ice, 0.35 to 0.90 in thick at 55 lb/ft³: 8 · 55 · 0.35/12 = 12.8 lb, 8 · 55 · 0.90/12 = 33.0 lb.
    low, high = ice.mass_lb(ice.parse(["i" * 10] * 5, {}), 8.0)
    assert (low, high) == (pytest.approx(12.83, abs=0.01), pytest.approx(33.0, abs=0.01))
    assert ice.mass_lb(ice.parse([BARE] * 5, {}), 8.0) == (0.0, 0.0)


def test_the_ice_of_two_coils_adds_up():
    hard, bare = ice.parse(["i" * 10] * 5, {}), ice.parse([BARE] * 5, {})
    assert ice.total_mass_lb([(hard, 8.0), (hard, 4.0), (bare, 8.0)]) == pytest.approx((12.83 * 1.5, 33.0 * 1.5), abs=0.02)
    assert ice.total_mass_lb([]) is None


@given(st.lists(st.text(alphabet=".lhis", min_size=10, max_size=10), min_size=5, max_size=5))
def test_any_map_is_read_and_more_ice_never_weighs_less(rows):
    drawn = ice.parse(rows, {})
    read = ice.read(drawn, 6.0)
    assert 0 <= read.covered_pct <= 100
    assert read.mass_lb[0] <= read.mass_lb[1]
    fuller = ice.parse([row.replace(".", "l") for row in rows], {})
    assert ice.mass_lb(fuller, 6.0)[1] >= read.mass_lb[1]


@pytest.mark.parametrize(
    ("rows", "places"),
    [([BARE] * 4, {}), (["x" * 10] * 5, {}), ([BARE] * 5, {"roof": "none"}), ([BARE] * 5, {"ceiling": "fog"}), ([1] * 5, {})],
)
def test_a_map_that_is_none_is_refused(rows, places):
    with pytest.raises(InputError, match="Ice map"):
        ice.parse(rows, places)


def facts(spec, **seen):
    unit = spec if not isinstance(spec, UnitSpec) else unit_of(spec)
    return Facts(unit, seen)


def test_heat_by_hand():
    # 10 lb at -8 °F: 10 · (0.5 · 40 + 144) = 1640 Btu; at 32 °F only the fusion.
    assert melt.heat_btu(10, -8) == pytest.approx(1640)
    assert melt.heat_btu(10, 40) == pytest.approx(1440)


def test_water_at_120_takes_two_to_four_pounds_a_pound_of_ice():
    assert melt.water_lb(1, 32, 120, 1.0) == pytest.approx(144 / 88)
    assert 2 < melt.water_lb(1, 32, 120, 0.8) < melt.water_lb(1, 32, 120, 0.42) < 4
    with pytest.raises(InputError, match="above 32 °F"):
        melt.water_lb(1, 32, 30, 0.5)


def test_nothing_starts_before_power_is_locked_out_and_the_box_is_safe():
    assert len(melt.must_come_first(facts(COOLER))) == 4
    ready = {"power_locked_out": "yes", "parts_protected": "yes", "inside_release": "works", "latch_blocked": "yes"}
    assert melt.must_come_first(facts(COOLER, **ready)) == ()
    assert melt.must_come_first(facts(COOLER, **ready | {"inside_release": "fails"}))
    assert not melt.must_come_first(facts(COOLER, **ready | {"inside_release": "fails", "someone_outside": "yes"})), "the other way in"
    reach_in = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-134a"))
    assert len(melt.must_come_first(facts(reach_in))) == 2


def by_code(spec, supply="hot", coil_place="open", **seen):
    return {p.method.code: p for p in melt.plans(facts(spec, **seen), (6.0, 11.0), 8.0, supply, coil_place)}


def test_flame_and_heat_gun_are_refused_where_the_refrigerant_burns():
    propane = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-290"))
    found = by_code(propane)
    for code in ("flame", "heat_gun"):
        assert any("it burns (A3)" in text for text in found[code].refusals)
    assert not by_code(COOLER, drain="running")["heat_gun"].refusals


@pytest.mark.parametrize(
    ("change", "code", "says"),
    [
        ({"supply": "none"}, "warm_water", "Needs warm water or hot water"),
        ({"supply": "warm"}, "hot_water", "Needs hot water"),
        ({"drain": "blocked"}, "warm_water", "drain is blocked"),
        ({"power_locked_out": "yes"}, "fans_only", "needs it on"),
        ({}, "own_heaters", "no defrost heaters"),
        ({"coil_place": "over_stock"}, "warm_water", "stock"),
        ({"coil_place": "in_cabinet"}, "hot_water", "cabinet"),
        ({"box_temp_f": 20.0}, "fans_only", "melts nothing"),
    ],
)
def test_a_method_that_will_not_do_says_why(change, code, says):
    assert any(says in text for text in by_code(COOLER, **change)[code].refusals)


def test_water_that_overruns_the_drain_is_warned_of():
    assert melt.overflow_minutes(1.5, "running") is None
    assert melt.overflow_minutes(1.5, "slow") == pytest.approx(2 / 1.2)
    assert melt.overflow_minutes(1.5, "blocked") == pytest.approx(2 / 1.5)
    assert any("runs over" in text for text in by_code(COOLER, drain="slow")["warm_water"].warnings)
    assert not by_code(COOLER, drain="running")["warm_water"].warnings


def test_water_beats_the_heat_gun_and_what_is_refused_comes_last():
    made = melt.plans(facts(FREEZER, box_temp_f=10.0, drain="running"), (6.0, 11.0), 8.0, "hot")
    order = [p.method.code for p in made]
    assert order.index("hot_water") < order.index("heat_gun") < order.index("flame") < order.index("fans_only")
    assert all(p.cautions for p in made)
    with pytest.raises(InputError):
        melt.plans(facts(FREEZER), (1.0, 2.0), 8.0, "steam")


def test_ice_left_at_the_last_visit_is_suspected_at_the_next():
    seen = {"left_ice": "yes", "ice_form": "hard_ice", "ice_places": ("coil_part",), "box_temp_f": 41.0}
    ranked = [s.codes for s in judge(unit_of(COOLER), seen).ranking]
    assert ("residual_ice",) in ranked[:2]


def test_a_pour_rate_of_ones_own_is_weighed_against_the_drain():
    at = lambda rate: melt.plan(melt.METHODS["warm_water"], facts(COOLER, drain="slow"), (6.0, 11.0), 8.0, "warm", "open", rate)  # noqa: E731
    assert any("Poured at 2 gal/min the pan runs over after 1 min" in text for text in at(2.0).warnings)
    assert at(0.2).warnings == ()
    assert at(0.2).minutes[0] == pytest.approx(at(2.0).minutes[0] * 10)
    with pytest.raises(InputError, match="40 gal/min is outside 0.05 to 10 gal/min"):
        at(40.0)


def test_a_frozen_drain_is_opened_with_the_same_water():
    found = by_code(COOLER, drain="frozen")["warm_water"]
    assert not found.refusals and any("open it first, with the same water" in text for text in found.warnings)


def test_a_hose_takes_twenty_to_forty_minutes_and_ten_times_the_ideal_water():
    made = melt.plan(melt.METHODS["hose"], facts(COOLER, drain="running", box_temp_f=33.0), (45.0, 65.0), 8.0, "warm", "open")
    ideal = [lb * 144 / (105 - 32) / melt.LB_PER_GALLON for lb in (45.0, 65.0)]
    assert made.minutes[0] >= 15 and made.minutes[1] <= 60
    assert made.water_gal[0] / ideal[0] >= 6 and made.water_gal[1] / ideal[1] <= 13


def test_what_nobody_reaches_into_needs_no_lock_out():
    ready = {"inside_release": "works", "latch_blocked": "yes"}
    assert melt.must_come_first(facts(COOLER, **ready), melt.METHODS["fans_only"]) == ()
    # With hands off the coil and nobody inside a release that fails keeps nobody from letting the unit defrost itself.
    stuck = facts(FREEZER, inside_release="fails")
    assert melt.must_come_first(stuck, melt.METHODS["own_heaters"]) == () and melt.must_come_first(stuck, melt.METHODS["fans_only"])
    assert len(melt.must_come_first(facts(COOLER, **ready), melt.METHODS["hose"])) == 2


def test_a_hot_gas_valve_that_does_not_open_melts_nothing():
    unit = resolve(UnitSpec("display_freezer", "R-404A", defrost="hot_gas"))
    shut, opens = (by_code(unit, hot_gas_valve=word)["own_heaters"].refusals for word in ("stays_shut", "opens"))
    assert any("does not open" in text for text in shut) and not any("hot-gas" in text for text in opens)


def test_own_heaters_melt_by_their_rating_and_only_where_they_are_sound():
    sound = {"heater_rated_w": 4000.0, "heater_volts": 230.0, "heater_amps": 17.4}
    made = by_code(FREEZER, **sound)["own_heaters"]
    assert not made.refusals
    assert made.minutes[0] == pytest.approx(melt.heat_btu(6.0, -5.0) / (4000 * 3.412 / 60 * 0.55), rel=0.01)
    half = work_out(unit_of(FREEZER), sound | {"heater_amps": 8.0})
    assert any("stay iced" in text for text in melt.plan(melt.METHODS["own_heaters"], half, (6.0, 11.0), 8.0, "none", "open").refusals)


def test_a_back_still_iced_is_an_iced_coil():
    read = ice.read(ice.parse([BARE] * 5, {"coil_back": "hard_ice"}), 8.0)
    assert read.ice_form == "hard_ice" and read.ice_places[0] == "coil_part"
    held = judge(unit_of(COOLER), {"ice_form": read.ice_form, "ice_places": read.ice_places}).holds
    assert "iced_coil" in {hold.code for hold in held}


def test_a_coil_bridged_solid_holds_the_room_between_its_fins():
    hard = ice.parse(["i" * 10] * 5, {})
    low, high = ice.mass_lb(hard, 6.0, "solid")
    assert high == pytest.approx(6.0 * 5.95 / 12 * 55, rel=0.01) and 140 <= high <= 175
    usual = ice.mass_lb(hard, 6.0, "fins")
    assert usual[0] == pytest.approx(30, abs=1) and usual[1] == pytest.approx(74, abs=1) and low > usual[1]
    with pytest.raises(InputError, match="how deep"):
        ice.mass_lb(hard, 6.0, "very")


def test_a_cabinet_shuts_nobody_in_and_hot_gas_melts_its_own_coil():
    case = resolve(UnitSpec(kind="display_cooler", refrigerant="R-449A", defrost="hot_gas"))
    room = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-449A"))
    for unit, inside in ((case, False), (room, True)):
        made = melt.plan(melt.METHODS["fans_only"], Facts(unit, {}), (5.0, 9.0), 6.0, "warm", "open")
        assert any("inside release" in text for text in made.cautions) == inside
    assert "no defrost heaters" not in " ".join(
        melt.plan(melt.METHODS["own_heaters"], Facts(case, {}), (5.0, 9.0), 6.0, "warm", "open").refusals
    )
    assert melt.first_step(Facts(room, {"drain": "frozen"})).startswith("Start at the drain: open it")
    assert melt.melted_min(30.0, 12.0) == 18.0 and melt.melted_min(5.0, 12.0) == 0.0
