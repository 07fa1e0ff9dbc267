import pytest
from CoolProp.CoolProp import PropsSI
from hypothesis import given
from hypothesis import strategies as st

from kettle import refrigerants
from kettle.errors import InputError

PURE = {"R-12": "R12", "R-22": "R22", "R-134a": "R134a", "R-290": "Propane", "R-600a": "IsoButane", "R-744": "CarbonDioxide"}
PURE |= {"R-1234yf": "R1234yf"}
BLENDS = [name for name in refrigerants.catalogue() if name not in PURE]
FLUIDS = PURE | {name: f"{name.replace('-', '')}.mix" for name in BLENDS}
# Between the nodes of the table, which lie at even °F.
BETWEEN_NODES = [-59.3, -41.7, -31.9, -18.3, -4.55, 0.7, 13.13, 27.9, 45.01, 68.6, 91.3, 110.9, 128.7, 143.3]
NAMES = st.sampled_from(list(FLUIDS))


@pytest.mark.parametrize("name", FLUIDS)
def test_saturation_agrees_with_the_source_between_nodes(name):
    refrigerant = refrigerants.get(name)
    compared = 0
    for temperature in (t for t in BETWEEN_NODES if refrigerant.low_f <= t <= refrigerant.high_f):
        for quality, pressure_of, temperature_of in (
            (0, refrigerant.bubble_psig, refrigerant.bubble_f),
            (1, refrigerant.dew_psig, refrigerant.dew_f),
        ):
            try:
                pascal = PropsSI("P", "T", (temperature + 459.67) / 1.8, "Q", quality, f"HEOS::{FLUIDS[name]}")
            except ValueError:
                continue  # one of the gaps the source's solver leaves on a blend
            compared += 1
            psig = pascal / 6894.757293 - 14.696
            assert pressure_of(temperature) == pytest.approx(psig, abs=0.1)
            assert temperature_of(psig) == pytest.approx(temperature, abs=0.1)
    assert compared >= 18


def test_published_points():
    # ASHRAE Fundamentals, thermodynamic properties: R-134a boils at -14.93 °F, R-290 at -43.80 °F at one atmosphere.
    assert refrigerants.get("R-134a").dew_f(0) == pytest.approx(-14.93, abs=0.1)
    assert refrigerants.get("R-290").dew_f(0) == pytest.approx(-43.80, abs=0.1)
    assert refrigerants.get("R-22").dew_psig(40) == pytest.approx(68.6, abs=0.2)
    assert refrigerants.get("R-744").dew_psig(20) == pytest.approx(407.1, abs=1)


def test_every_plate_a_technician_meets_is_there():
    assert len(refrigerants.catalogue()) == 23
    classes = {name: refrigerant.safety_class for name, refrigerant in refrigerants.catalogue().items()}
    assert {name for name, safety in classes.items() if safety != "A1"} == {"R-290", "R-600a", "R-1234yf", "R-454A", "R-454C", "R-455A"}


@given(NAMES, st.floats(0, 0.99), st.floats(0.05, 1))
def test_pressure_rises_with_temperature_and_dew_never_lies_above_bubble(name, share, step):
    refrigerant = refrigerants.get(name)
    temperature = refrigerant.low_f + share * (refrigerant.high_f - refrigerant.low_f)
    assert refrigerant.dew_psig(min(temperature + step, refrigerant.high_f)) > refrigerant.dew_psig(temperature)
    assert refrigerant.bubble_psig(min(temperature + step, refrigerant.high_f)) > refrigerant.bubble_psig(temperature)
    assert refrigerant.dew_psig(temperature) <= refrigerant.bubble_psig(temperature) + 1e-9


@given(NAMES, st.floats(0, 1), st.floats(0, 9000))
def test_look_up_round_trips_at_any_altitude(name, share, altitude):
    refrigerant = refrigerants.get(name)
    temperature = refrigerant.low_f + share * (refrigerant.high_f - refrigerant.low_f)
    assert refrigerant.dew_f(refrigerant.dew_psig(temperature, altitude), altitude) == pytest.approx(temperature, abs=1e-6)
    assert refrigerant.bubble_f(refrigerant.bubble_psig(temperature, altitude), altitude) == pytest.approx(temperature, abs=1e-6)


def test_the_blend_with_glide_glides():
    blend = refrigerants.get("R-448A")
    assert 9 < blend.dew_f(31) - blend.bubble_f(31) < 13
    assert refrigerants.get("R-290").dew_f(31) == refrigerants.get("R-290").bubble_f(31)


def test_names_are_forgiving_and_unknown_ones_name_the_known():
    assert refrigerants.get("r404a").name == refrigerants.get("R 404A").name == "R-404A"
    with pytest.raises(InputError, match=r"R-999.*R-404A"):
        refrigerants.get("R-999")


def test_outside_the_table_is_refused_with_the_range():
    with pytest.raises(InputError, match="2000.0 psig is outside the R-404A table"):
        refrigerants.get("R-404A").dew_f(2000)
    with pytest.raises(InputError, match="−80 to 150 °F"):
        refrigerants.get("R-404A").dew_psig(200)


def test_safety_class_says_what_burns():
    assert refrigerants.get("R-290").flammable
    assert not refrigerants.get("R-404A").flammable
