import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.errors import InputError
from kettle.units import (
    TRADE,
    atmosphere_psia,
    format_number,
    format_percent,
    psia_to_psig,
    psig_to_psia,
    vacuum_inhg,
)


def test_atmosphere_at_sea_level_and_at_5000_ft():
    assert atmosphere_psia() == pytest.approx(14.696)
    assert atmosphere_psia(5000) == pytest.approx(12.23, abs=0.02)


def test_three_psi_below_zero_is_six_inches_of_mercury():
    assert vacuum_inhg(-3) == pytest.approx(6.1, abs=0.02)
    assert vacuum_inhg(0) is None
    assert TRADE.text(-3.0, "psig") == "−3.0 psig (6.1 inHg)"


@pytest.mark.parametrize(
    ("typed", "unit", "expected"),
    [
        ("31.5", "°F", 31.5),
        ("31,5", "°F", 31.5),
        (" -6 ", "°F", -6.0),
        ("−6", "°F", -6.0),
        ("-20C", "°F", -4.0),
        ("-20 °C", "°F", -4.0),
        ("12 f", "°F", 12.0),
        ("5 inHg", "psig", -2.4558),
        ("2.1 bar", "psig", 30.458),
        ("100 kPa", "psig", 14.504),
        ("8.6 psig", "psig", 8.6),
        (".5", "turns", 0.5),
        ("7.9 A", "A", 7.9),
    ],
)
def test_entries_are_understood(typed, unit, expected):
    assert TRADE.parse(typed, unit) == pytest.approx(expected, abs=0.001)


@pytest.mark.parametrize("typed", ["", "-", "abc", "1.2.3", "1,2,3", "5 feet", "12 bar", "1e5", "--3", "NaN", "9" * 400])
def test_nonsense_is_refused_in_one_clear_line(typed):
    with pytest.raises(InputError) as caught:
        TRADE.parse(typed, "°F")
    assert "\n" not in str(caught.value)


@given(st.floats(-14, 600), st.floats(-1000, 12000))
def test_gauge_and_absolute_pressure_round_trip(pressure, altitude):
    assert psia_to_psig(psig_to_psia(pressure, altitude), altitude) == pytest.approx(pressure, abs=1e-9)


@given(st.floats(-1000, 1000))
def test_what_is_shown_is_understood_again(value):
    assert TRADE.parse(format_number(value, 2), "°F") == pytest.approx(value, abs=0.0051)


def test_no_minus_zero_and_no_certainty_by_rounding():
    assert format_number(-0.04) == "0.0"
    assert [format_percent(p) for p in (0.0, 0.001, 0.583, 0.999, 1.0)] == ["0", "<1", "58", ">99", "100"]
