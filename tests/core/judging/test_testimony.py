"""What speaks for causes by itself, weighed under every hypothesis: worked by hand."""

import math

import pytest

from kettle.judging.network import network_of
from kettle.judging.testimony import HEARD, weighed
from kettle.judging.testimony import Testimony as Said
from kettle.knowledge.equipment import UnitSpec, resolve

NETWORK = network_of(resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-134a")), {"moment": "running", "outside": "mild"}, ())
SOUND = next(row for row, members in enumerate(NETWORK.members) if not members)


def under(one, code=""):
    """Its log-likelihood under one cause by itself, or under a sound unit."""
    return float(weighed(NETWORK, one)[1][NETWORK.singles[code] if code else SOUND])


def pair(one, *codes):
    row = next(row for row, members in enumerate(NETWORK.members) if {cause.code for cause in members} == set(codes))
    return float(weighed(NETWORK, one)[1][row])


def test_a_cause_has_its_own_figure_and_every_other_the_rest():
    one = Said("seen", "words", {"undercharge": -0.5}, rest=-3.0, sound=-4.0)
    assert (under(one, "undercharge"), under(one, "txv_underfeeding"), under(one)) == (-0.5, -3.0, -4.0)


def test_a_pair_fits_as_well_as_the_better_of_its_two():
    one = Said("seen", "words", {"undercharge": -0.5, "condenser_dirty": -2.0}, rest=-3.0)
    assert pair(one, "undercharge", "condenser_dirty") == -0.5


def test_what_is_said_of_a_whole_set_goes_before():
    both = frozenset(("undercharge", "condenser_dirty"))
    one = Said("said", "words", {"undercharge": -0.5}, rest=-3.0, exact={both: -0.1})
    assert pair(one, *both) == -0.1 and under(one, "undercharge") == -0.5


@pytest.mark.parametrize("code", ["", "liquid_solenoid_closed", "lp_control_misset", "condenser_dirty"])
def test_what_an_observation_explains_is_weighed_by_how_often_a_cause_shows_it(code):
    # P(open | cause)·e^0 + (1 − P)·e^−6: a switch found open speaks for whatever opens it.
    one = Said("circuit", "words", {}, rest=-6.0, sound=-6.0, shown=(("low_pressure_switch", "open", 0.0),))
    row = NETWORK.singles[code] if code else SOUND
    opens = NETWORK.shape(row, "low_pressure_switch")["open"]
    assert under(one, code) == pytest.approx(math.log(opens + (1.0 - opens) * math.exp(-6.0)))


def test_a_cause_that_opens_it_oftener_fits_better_and_one_measured_shut_worse():
    found_open = Said("circuit", "words", {}, rest=-6.0, sound=-6.0, shown=(("low_pressure_switch", "open", 0.0),))
    shut = Said("circuit", "words", {}, rest=0.0, sound=0.0, shown=(("low_pressure_switch", "open", -6.0),))
    assert under(found_open, "liquid_solenoid_closed") > under(found_open, "condenser_dirty")
    assert under(shut, "liquid_solenoid_closed") < under(shut, "condenser_dirty")


def test_an_observation_no_unit_of_the_kind_has_changes_nothing():
    one = Said("circuit", "words", {"undercharge": -1.0}, rest=-2.0, shown=(("no_such_thing", "open", 0.0),))
    assert under(one, "undercharge") == -1.0


def test_its_feature_is_told_from_an_observation_and_knows_its_stage():
    feature, _ = weighed(NETWORK, Said("circuit", "words"), 3)
    assert feature.key == f"{HEARD}circuit" and feature.stage == 3 and feature.text == "words"


def test_what_speaks_against_a_cause_takes_from_every_row_that_holds_it():
    bare = Said("bare", "bare for hours", against={"door_seal": -1.5, "drain_blocked": -0.5})
    assert under(bare, "door_seal") == pytest.approx(-1.5) and under(bare, "undercharge") == under(bare) == 0.0
    assert pair(bare, "door_seal", "drain_blocked") == pytest.approx(-2.0), "both of a pair"
