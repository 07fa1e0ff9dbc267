import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import (
    MEASURES,
    SHOWN_CHOICES,
    TRADE,
    ShownUnits,
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


METRIC = ShownUnits("°C", "bar", "kg", "Pa")


@pytest.mark.parametrize(
    ("value", "unit", "expected"),
    [
        (36.5, "°F", "2.5 °C"),
        (9.0, "°F diff", "5.0 K"),
        (31.0, "psig", "2.14 bar"),
        (-3.0, "psig", "−0.21 bar (6.1 inHg)"),
        (4.5, "lb", "2.04 kg"),
        (4.5, "oz", "0.1276 kg"),
        (500.0, "micron", "66.66 Pa"),
        (12.0, "A", "12.0 A"),
    ],
)
def test_figures_are_read_in_the_persons_own_units(value, unit, expected):
    assert METRIC.text(value, unit) == expected


@pytest.mark.parametrize("unit", MEASURES)
@given(st.floats(-500, 5000))
def test_every_unit_converts_there_and_back(unit, value):
    for measure in MEASURES[unit]:
        assert measure.to_stored(measure.to_shown(value)) == pytest.approx(value, abs=1e-9 * max(1, abs(value)))


@given(st.floats(-60, 150), st.sampled_from(SHOWN_CHOICES["temperature"]), st.floats(-14, 700), st.sampled_from(SHOWN_CHOICES["pressure"]))
def test_what_stands_in_a_field_is_read_back_within_what_is_shown(temperature, degrees, pressure, bars):
    shown = ShownUnits(degrees, bars)
    assert shown.parse(shown.edit(temperature, "°F"), "°F") == pytest.approx(temperature, abs=0.1)
    assert shown.parse(shown.edit(pressure, "psig"), "psig") == pytest.approx(pressure, abs=0.1)


def test_a_bare_figure_is_in_the_persons_unit_and_a_named_one_in_its_own():
    assert METRIC.parse("2.1", "psig") == pytest.approx(30.458, abs=0.001)
    assert METRIC.parse("31 psig", "psig") == 31
    assert METRIC.parse("5 inHg", "psig") == pytest.approx(-2.456, abs=0.001)
    assert METRIC.parse("-20", "°F") == pytest.approx(-4)
    assert METRIC.parse("5", "°F diff") == pytest.approx(9)
    assert METRIC.in_other_unit("31 psig", "psig")
    assert not METRIC.in_other_unit("2.1 bar", "psig")
    assert not METRIC.in_other_unit("2.1", "psig")
    with pytest.raises(InputError, match="it is taken in °C"):
        METRIC.parse("5 feet", "°F")


def test_a_range_is_told_in_one_unit():
    assert METRIC.span(32, 50, "°F") == "0 to 10 °C"
    assert ShownUnits().span(4, 10, "°F diff") == "4 to 10 °F"


@pytest.mark.parametrize(
    ("typed", "unit", "expected"),
    [("8.6 amps", "A", 8.6), ("850 mA", "A", 0.85), ("118 volts", "V", 118.0), ("1.4 kW", "W", 1400.0), ("2 h", "min", 120.0),
     ("1,200 microns", "micron", 1200.0), ("31,5", "psig", 31.5), ("-12,000", "Ω", -12000.0), ("29 in hg", "psig", -14.243)],
)  # fmt: skip
def test_units_are_named_as_people_type_them(typed, unit, expected):
    assert ShownUnits().parse(typed, unit) == pytest.approx(expected, abs=0.01)


@pytest.mark.parametrize(
    ("typed", "unit", "what"), [("33 ohm", "A", "a resistance"), ("45 psig", "°F", "a pressure"), ("9 A", "V", "a current")]
)
def test_a_unit_of_another_quantity_is_named_with_the_one_that_is_wanted(typed, unit, what):
    with pytest.raises(InputError, match=f"{what}.*taken in {unit}"):
        ShownUnits().parse(typed, unit)


def test_inches_of_mercury_are_no_vacuum_reading():
    # 29.92 inHg is one atmosphere, and an inch of mercury 25,400 micron: 28.9 inHg leaves 1.02 of them.
    with pytest.raises(InputError, match="about 25,900 micron.*micron gauge"):
        ShownUnits().parse("28.9 inHg", "micron")


def test_ohms_that_find_no_way_through_are_read_and_shown_as_such():
    winding = observations.get("winding_cs_ohm")
    assert winding.parse("OL") == winding.parse("open") == winding.high and winding.show(winding.high) == "OL"
    assert winding.show(9_000_000.0) == "9.0 MΩ"
