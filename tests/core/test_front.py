"""The front door: what `import kettle` gives, its examples, and what it refuses."""

import doctest
import subprocess
import sys

import pytest

import kettle
from kettle import front

COOLER = kettle.unit("walk_in_cooler", "R-448A", set_f=36)


@pytest.mark.parametrize("module", [kettle, front], ids=["kettle", "front"])
def test_its_examples_do_what_they_say(module):
    done = doctest.testmod(module)
    assert done.attempted and not done.failed


def test_everything_it_names_is_there_and_nothing_else():
    assert all(getattr(kettle, name) for name in kettle.__all__)
    with pytest.raises(AttributeError, match="no attribute 'moon'"):
        kettle.moon  # noqa: B018


@pytest.mark.parametrize(("seen", "says"), [
    ({"suction_psig": "40"}, "Suction: “40” is not a number"), ({"suction_psi": 40}, "the nearest known key is “suction_psig”"),
    ({"bulb": "looose"}, "“looose” is not one of tight_insulated, loose"), ({"suction_psig": 9000}, "outside -14.7 to 700"),
    ({"suction_psig": True}, "is not a number"), ({"water_in_f": 70}, "has none"),
])  # fmt: skip
def test_what_cannot_be_is_said_and_never_passed_over(seen, says):
    with pytest.raises(kettle.InputError) as error:
        kettle.judge(COOLER, {"box_temp_f": 45} | seen)
    assert says in str(error.value).replace("−", "-")


def test_a_whole_number_is_a_figure():
    whole, exact = (kettle.judge(COOLER, {"box_temp_f": box, "suction_psig": 40}) for box in (45, 45.0))
    assert whole.facts.derived == exact.facts.derived and whole.facts.derived["td_f"] > 0


def test_a_field_nobody_knows_is_refused():
    with pytest.raises(kettle.InputError, match="“sett_f” is not a field"):
        kettle.unit("walk_in_cooler", "R-448A", sett_f=3)


@pytest.mark.parametrize(("given", "says"), [
    ({}, "and not both"), ({"psig": 3.0, "at_f": 3.0}, "and not both"), ({"psig": 3.0, "altitude_ft": 30_000.0}, "outside -1500 to 20000"),
])  # fmt: skip
def test_saturation_wants_one_of_two(given, says):
    with pytest.raises(kettle.InputError, match=says):
        kettle.saturation("R-404A", **given)


def test_saturation_goes_there_and_back_at_the_sites_altitude():
    there = kettle.saturation("R-134a", at_f=20.0, altitude_ft=5000.0)
    assert kettle.saturation("R-134a", psig=there.dew_psig, altitude_ft=5000.0).dew_f == pytest.approx(20.0, abs=0.01)
    assert there.dew_psig > kettle.saturation("R-134a", at_f=20.0).dew_psig


def test_to_import_it_loads_nothing_of_it():
    code = "import sys, kettle; print([name for name in sys.modules if name.startswith('kettle.')])"
    assert subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout.strip() == "[]"
