import pytest

from kettle.judging import readings, verdicts
from kettle.judging.scale import push, scale
from kettle.knowledge import amps, bands
from kettle.knowledge.equipment import KINDS, UnitSpec, resolve
from tests.core.judging.faults import COOLER, FREEZER, REACH_IN, sound, unit_of


def judged(spec, seen):
    unit = unit_of(spec)
    facts = readings.work_out(unit, seen)
    return {v.quantity: v for v in verdicts.on(facts)}, facts


def test_a_sound_unit_is_ok_and_trusted():
    found, facts = judged(FREEZER, sound(FREEZER))
    assert facts.moment == "steady"
    superheat = found["superheat_evap_f"]
    assert (superheat.state, superheat.trust, superheat.low, superheat.high) == ("ok", "good", 4, 10)
    assert "walk-in freezer, expansion valve" in superheat.why
    assert found["td_f"].state == found["split_f"].state == "ok"


def test_pull_down_widens_the_bands_and_weakens_the_verdict():
    found, facts = judged(FREEZER, sound(FREEZER, box=12, superheat=13, td=18))
    assert facts.moment == "pull_down"
    assert (found["superheat_evap_f"].high, found["superheat_evap_f"].state) == (16, "ok")
    assert found["superheat_evap_f"].trust == "weak"


def test_a_gross_fault_is_named_even_in_pull_down():
    found, _ = judged(FREEZER, sound(FREEZER, box=12, superheat=35))
    assert (found["superheat_evap_f"].state, found["superheat_evap_f"].trust) == ("high", "good")


# Set 37 °F, TD 14 to 28 °F: with its box at set the coil of this kind works at 23 °F and below.
@pytest.mark.parametrize(
    ("box", "superheat", "td", "trust"),
    [(75, 40, 50, "none"), (75, 40, 53, "good"), (75, 50, 50, "none"), (75, 51, 50, "good"), (46, 40, 60, "good")],
)
def test_a_coil_that_gets_more_than_it_was_built_for_is_not_starved(box, superheat, td, trust):
    found, facts = judged(REACH_IN, sound(REACH_IN, box=box, superheat=superheat, td=td))
    assert facts.unit.set_f == 37.0
    for quantity in ("superheat_evap_f", "td_f"):
        assert found[quantity].state == "high"
        assert (found[quantity].trust == "none") is (trust == "none")


def test_a_flooded_coil_is_said_whatever_the_suction():
    found, _ = judged(COOLER, sound(COOLER, box=75, superheat=0, td=40))
    assert (found["superheat_evap_f"].state, found["superheat_evap_f"].trust) == ("low", "good")


@pytest.mark.parametrize(("call", "trust"), [("calling", "none"), ("satisfied", "good")])
def test_behind_a_liquid_valve_that_does_not_pull_nothing_is_read(call, trust):
    found, _ = judged(COOLER, sound(COOLER, superheat=30, liquid_solenoid="closed_no_pull", control_call=call, compressor="running"))
    assert found["superheat_evap_f"].trust == found["td_f"].trust == trust


def test_just_started_is_not_judged():
    found, facts = judged(COOLER, sound(COOLER, settled_min=5.0))
    assert facts.moment == "just_started"
    assert found["superheat_evap_f"].trust == found["td_f"].trust == "none"


@pytest.mark.parametrize(
    ("change", "quantity", "trust"),
    [
        ({"evap_fans": "some_stopped"}, "td_f", "none"),
        ({"ice_form": "hard_ice"}, "superheat_evap_f", "none"),
        ({"compressor": "off"}, "split_f", "none"),
        ({}, "subcooling_f", "weak"),
    ],
)
def test_trust_falls_with_the_reason(change, quantity, trust):
    found, _ = judged(COOLER, sound(COOLER, **change))
    assert found[quantity].trust == trust


def test_amps_are_judged_for_the_evaporating_temperature():
    near, _ = judged(FREEZER, sound(FREEZER, td=11, amps_pct=60))
    starved, _ = judged(FREEZER, sound(FREEZER, td=40, amps_pct=50))
    assert starved["amps_pct"].low < near["amps_pct"].low
    assert starved["amps_pct"].trust == "good" and "expected at SST" in starved["amps_pct"].why
    without = {key: value for key, value in sound(FREEZER, amps_pct=60).items() if key != "suction_psig"}
    unknown, _ = judged(FREEZER, without)
    assert (unknown["amps_pct"].low, unknown["amps_pct"].high, unknown["amps_pct"].trust) == (55, 100, "weak")


def test_ice_elsewhere_does_not_spoil_the_coil_readings():
    found, _ = judged(COOLER, sound(COOLER, ice_form="heavy_frost", ice_places=("door_frame",)))
    assert found["td_f"].trust == "good"


def test_superheat_below_minus_three_is_impossible_and_just_below_zero_is_low():
    assert judged(COOLER, sound(COOLER, superheat=-6))[0]["superheat_evap_f"].state == "impossible"
    assert judged(COOLER, sound(COOLER, superheat=-2))[0]["superheat_evap_f"].state == "low"


def test_the_units_own_band_goes_before_that_of_the_kind():
    unit = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-134a", bands={"td_f": (5, 10)}))
    assert bands.default_band(unit, "td_f") == (5, 10)


def test_metering_and_receiver_choose_the_band():
    assert bands.default_band(unit_of(REACH_IN), "superheat_evap_f") == bands.CAP_TUBE_SUPERHEAT
    assert bands.default_band(unit_of(REACH_IN), "subcooling_f") == (5, 15)
    assert bands.default_band(unit_of(COOLER), "subcooling_f") == bands.RECEIVER_SUBCOOLING
    eev = resolve(UnitSpec(kind="display_cooler", refrigerant="R-448A", metering="eev"))
    assert bands.default_band(eev, "superheat_evap_f") == (4, 10)


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_sound_bands(kind):
    unit = resolve(UnitSpec(kind=kind, refrigerant="R-404A"))
    for quantity in ("td_f", "superheat_evap_f", "superheat_comp_f", "split_f", "subcooling_f", "box_temp_f"):
        low, high = bands.default_band(unit, quantity)
        assert low < high


def test_the_scale_holds_band_and_value():
    found, _ = judged(FREEZER, sound(FREEZER))
    drawn = scale(found["superheat_evap_f"])
    assert drawn.band_from_pct == pytest.approx(100 / 3)
    assert drawn.band_from_pct < drawn.at_pct < drawn.band_from_pct + drawn.band_width_pct
    far, _ = judged(FREEZER, sound(FREEZER, superheat=90))
    assert scale(far["superheat_evap_f"]).beyond
    assert push(3.0) == (50.0, 50.0)
    assert push(-1.5) == (25.0, 25.0)


# A mixing valve holds 85 °F, give or take 10 °F: over 20 °F air the split is 55 to 75 °F, over 70 °F air as usual (15 to 30), over 50 °F
# air up to 45 °F.
@pytest.mark.parametrize(
    ("ambient", "head_control", "low", "high"),
    [(20.0, "mixing_valve", 55, 75), (70.0, "mixing_valve", 15, 30), (50.0, "mixing_valve", 25, 45), (20.0, "none", 15, 45)],
)
def test_a_head_that_is_held_has_the_split_it_is_held_at(ambient, head_control, low, high):
    spec = UnitSpec("walk_in_cooler", "R-134a", set_f=36, head_control=head_control)
    unit = resolve(spec)
    found, facts = judged(spec, {"ambient_f": ambient, "discharge_psig": unit.refrigerant.bubble_psig(90.0), "box_temp_f": 36.0})
    assert facts.moment == ("steady" if ambient == 70.0 else "low_ambient")
    assert (found["split_f"].low, found["split_f"].high) == (low, high)


@pytest.mark.parametrize(("split", "share"), [(7.5, 1 / 3), (14.0, 14 / 22.5), (15.0, 1.0), (22.5, 1.0)])
def test_with_little_heat_to_give_off_there_is_less_room_for_subcooling(split, share):
    # A walk-in cooler without a receiver: 6 to 16 °F at a split of 15 to 30 °F.
    spec = UnitSpec("walk_in_cooler", "R-134a", set_f=36, receiver=False)
    head = resolve(spec).refrigerant.bubble_psig(80.0 + split)
    found, _ = judged(spec, {"ambient_f": 80.0, "discharge_psig": head, "liquid_line_f": 78.0, "box_temp_f": 36.0})
    assert (found["subcooling_f"].low, found["subcooling_f"].high) == pytest.approx((6 * share, 16 * share))


@pytest.mark.parametrize(("ambient", "sct"), [(80.0, 102.5), (95.0, 117.5), (None, 105.0)])
def test_amps_are_held_against_what_this_coil_and_this_day_take(ambient, sct):
    spec = UnitSpec("walk_in_cooler", "R-134a", set_f=36, compressor_rla_a=10.0)
    refrigerant = resolve(spec).refrigerant
    seen = {"suction_psig": refrigerant.dew_psig(24.0), "compressor_amps": 8.0, "box_temp_f": 36.0}
    found, facts = judged(spec, seen if ambient is None else seen | {"ambient_f": ambient})
    expected = amps.expected_share_pct(refrigerant, 24.0, sct, False)
    more = 10.0 if facts.moment == "high_ambient" else 0.0
    assert found["amps_pct"].low == pytest.approx(0.78 * expected)
    assert found["amps_pct"].high == pytest.approx(min(1.2 * expected + more, 105.0 + more))


@pytest.mark.parametrize(("gain", "trust"), [(30.0, "good"), (31.0, "weak")])
def test_a_probe_far_from_the_coil_is_trusted_less(gain, trust):
    found, _ = judged(COOLER, sound(COOLER, gain=gain))
    assert found["superheat_comp_f"].trust == trust


@pytest.mark.parametrize(("superheat", "state", "trust"), [(-3.0, "low", "good"), (-3.1, "impossible", "none")])
def test_superheat_below_zero_is_liquid_and_far_below_it_a_wrong_reading(superheat, state, trust):
    found, _ = judged(COOLER, sound(COOLER, superheat=superheat))
    assert (found["superheat_evap_f"].state, found["superheat_evap_f"].trust) == (state, trust)


@pytest.mark.parametrize(
    ("places", "form", "trust"),
    [
        (("coil_whole",), "hard_ice", "none"),
        (("coil_bottom",), "snow", "none"),
        ((), "heavy_frost", "none"),
        (("door_frame", "suction_line"), "hard_ice", "good"),
        (("coil_whole",), "light_frost", "good"),
    ],
)
def test_ice_on_the_coil_spoils_what_is_read_of_it(places, form, trust):
    found, _ = judged(COOLER, sound(COOLER, ice_form=form, ice_places=places))
    assert found["superheat_evap_f"].trust == found["td_f"].trust == trust
    assert found["split_f"].trust == "good"
