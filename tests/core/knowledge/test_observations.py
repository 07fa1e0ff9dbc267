import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.knowledge import observations
from kettle.knowledge.equipment import KINDS, UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import ShownUnits
from kettle.knowledge.plausible import usual_range

# Hold codes of the case format.
HOLDS = {"iced_coil", "fans_not_running", "condenser_blocked", "condenser_fan_stopped", "settling", "glass_alone", "critical_charge"}
HOLDS |= {"bulb_first", "lock_out"}
NUMBERS = [entry for entry in observations.REGISTRY.values() if entry.is_number]


@pytest.mark.parametrize("entry", observations.REGISTRY.values(), ids=lambda entry: entry.key)
def test_every_entry_says_what_it_is_and_how_it_is_taken(entry):
    assert entry.label
    assert len(entry.how) > 3
    assert entry.minutes > 0
    assert entry.is_number != bool(entry.choices)
    assert entry.spoiled_by
    assert entry.stays_fresh_min > 0
    assert entry.stop in ("arrive", "melt", "read", "power", "programs")
    assert set(entry.holds) <= HOLDS
    if entry.is_number:
        assert entry.unit
        assert entry.low < entry.high < float("inf")


@given(st.sampled_from(NUMBERS), st.floats(0, 1))
def test_any_value_in_range_is_stored_as_typed(entry, share):
    value = entry.low + share * (entry.high - entry.low)
    assert entry.check(value) == value
    assert entry.parse(entry.edit_text(0.0 if entry.low <= 0 <= entry.high else entry.high)) is not None


def test_out_of_range_names_value_range_and_unit():
    with pytest.raises(InputError, match=r"Suction: 900.0 psig is outside −14.7 to 700 psig"):
        observations.get("suction_psig").parse("900")
    with pytest.raises(InputError, match=r"Box air: “warm” is not a number.*−60 to 150 °F"):
        observations.get("box_temp_f").parse("warm")


@pytest.mark.parametrize("value", [True, None, [], {}, float("nan"), float("inf"), "12"])
def test_only_numbers_are_numbers(value):
    with pytest.raises(InputError):
        observations.get("suction_psig").check(value)


def test_words_and_lists_of_words():
    assert observations.get("sight_glass").check("clear") == "clear"
    assert observations.get("ice_places").check(["ceiling", "floor", "ceiling"]) == ("ceiling", "floor")
    assert observations.get("ice_places").show(("coil_inlet_passes",)) == "first passes only"
    with pytest.raises(InputError, match="not one of clear"):
        observations.get("sight_glass").check("cloudy")
    with pytest.raises(InputError):
        observations.get("ice_places").check(["ceiling", 3])


def test_an_unknown_key_names_the_nearest():
    with pytest.raises(InputError, match="nearest known key is “suction_psig”"):
        observations.get("suction_psi")


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_plausible_lies_inside_what_can_be_and_around_what_is_normal(kind):
    unit = resolve(UnitSpec(kind=kind, refrigerant="R-448A"))
    told = 0
    for entry in NUMBERS:
        span = usual_range(entry, unit)
        if span is not None:
            told += 1
            assert entry.low <= span[0] < span[1] <= entry.high
    assert told >= 15
    box = usual_range(observations.get("box_temp_f"), unit)
    assert box[0] < unit.set_f < box[1]


def test_a_plausible_pressure_goes_by_the_refrigerant():
    spans = {
        name: usual_range(observations.get("suction_psig"), resolve(UnitSpec(kind="walk_in_freezer", refrigerant=name)))
        for name in ("R-404A", "R-134a", "R-744")
    }
    assert spans["R-134a"][1] < spans["R-404A"][1] < spans["R-744"][1]
    assert spans["R-404A"] == pytest.approx((2.0, 94.2), abs=0.1)


def test_ranges_are_refused_in_the_persons_own_units():
    metric = ShownUnits("°C", "bar")
    with pytest.raises(InputError, match=r"Suction: 90.00 bar is outside −1.01 to 48.26 bar"):
        observations.get("suction_psig").parse("90", metric)
    assert observations.get("suction_psig").range_text() == "−14.7 to 700 psig"
