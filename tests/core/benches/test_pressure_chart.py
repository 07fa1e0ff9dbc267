import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.pressure_chart import rails as ladder
from kettle.knowledge import refrigerants
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits

NAMES = st.sampled_from(list(refrigerants.catalogue()))


def test_a_look_up_by_hand():
    blend = refrigerants.get("R-448A")
    looked = ladder.at_pressure(blend, 31.0)
    assert looked.dew_f == pytest.approx(7.9, abs=0.3)
    assert looked.glide_f == pytest.approx(11.3, abs=0.3)
    assert looked.mid_f == pytest.approx(looked.dew_f - looked.glide_f / 2)
    assert ladder.at_temperature(blend, looked.bubble_f, "bubble").psig == pytest.approx(31.0)


@given(NAMES, st.floats(0.02, 0.98), st.sampled_from(["dew", "bubble"]), st.floats(0, 9000))
def test_both_sides_of_the_ladder_agree(name, share, line, altitude):
    refrigerant = refrigerants.get(name)
    temperature = max(-60, refrigerant.low_f) + share * (refrigerant.high_f - max(-60, refrigerant.low_f))
    try:
        looked = ladder.at_temperature(refrigerant, temperature, line, altitude)
    except InputError:
        return  # the other line ends before this temperature
    assert (looked.dew_f if line == "dew" else looked.bubble_f) == pytest.approx(temperature, abs=1e-6)


@pytest.mark.parametrize("name", refrigerants.catalogue())
@pytest.mark.parametrize("shown", [TRADE, ShownUnits("°C", "bar"), ShownUnits("°C", "kPa")])
def test_the_rails_are_marked_readably_for_every_refrigerant(name, shown):
    rails = ladder.rails(refrigerants.get(name), 4000, shown, 600)
    heights = [mark.y for mark in rails.pressures]
    assert len(heights) >= 8
    assert all(low - high >= ladder.BETWEEN_MARKS for low, high in zip(heights, heights[1:], strict=False))
    assert all(0 <= mark.y <= 600 for mark in (*rails.pressures, *rails.temperatures))
    assert all(rung.y_dew <= rung.y_bubble + 1e-6 for rung in rails.rungs)


def test_vacuum_is_marked_in_inches_of_mercury():
    rails = ladder.rails(refrigerants.get("R-134a"), 0, TRADE, 600)
    assert {mark.label for mark in rails.pressures} & {"5 inHg", "10 inHg", "15 inHg"}


def test_the_card_leaves_out_what_lies_outside():
    pairs = ladder.card(refrigerants.get("R-744"), [-75.0, 20.0, 100.0])
    assert pairs[0] == pairs[2] == (None, None)
    assert pairs[1][0] == pytest.approx(407, abs=1)


def test_an_unknown_line_is_refused():
    with pytest.raises(InputError, match="dew, bubble"):
        ladder.at_temperature(refrigerants.get("R-22"), 20, "middle")
