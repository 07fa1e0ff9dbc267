import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle import observations
from kettle.errors import InputError

NUMBERS = [entry for entry in observations.REGISTRY.values() if entry.is_number]


@pytest.mark.parametrize("entry", observations.REGISTRY.values(), ids=lambda entry: entry.key)
def test_every_entry_says_what_it_is_and_how_it_is_taken(entry):
    assert entry.label
    assert len(entry.how) > 3
    assert entry.minutes > 0
    assert entry.is_number != bool(entry.choices)
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
