"""A refrigerant that is not the one on the plate, told from the pressures; and no false alarm from a fault."""

from dataclasses import replace

import pytest

from kettle.judging import problems, readings
from kettle.knowledge.refrigerants import get
from tests.core.judging.faults import COOLER, FAULTS, FREEZER, REACH_IN, sound, unit_of


def suspected(spec, seen):
    found = problems.found(readings.work_out(unit_of(spec), seen))
    return [problem.text for problem in found if problem.code == "wrong_refrigerant_suspected"]


@pytest.mark.parametrize(
    ("spec", "really"),
    [(FREEZER, "R-22"), (FREEZER, "R-134a"), (COOLER, "R-134a"), (COOLER, "R-410A"), (REACH_IN, "R-404A"), (REACH_IN, "R-290")],
)
def test_pressures_of_another_refrigerant_name_it(spec, really):
    texts = suspected(spec, sound(replace(spec, refrigerant=really)))
    assert len(texts) == 1
    assert really in texts[0] and spec.refrigerant in texts[0]


@pytest.mark.parametrize("cause", FAULTS)
def test_no_fault_is_taken_for_a_wrong_refrigerant(cause):
    for spec, seen in FAULTS[cause]:
        assert suspected(spec, seen) == []


def test_refrigerants_that_are_alike_are_not_told_apart():
    assert suspected(FREEZER, sound(replace(FREEZER, refrigerant="R-507A"))) == []


def test_at_rest_the_pressure_is_held_against_saturation_at_ambient():
    at_80 = get("R-22").bubble_psig(80)
    assert "R-22" in suspected(FREEZER, {"resting_psig": at_80, "ambient_f": 80.0})[0]
    assert suspected(FREEZER, {"resting_psig": get("R-404A").bubble_psig(82), "ambient_f": 80.0}) == []


def test_nothing_is_suspected_from_one_side_or_behind_dead_fans():
    seen = sound(replace(FREEZER, refrigerant="R-22"))
    assert suspected(FREEZER, seen | {"evap_fans": "stopped"}) == []
    assert suspected(FREEZER, {key: value for key, value in seen.items() if key != "discharge_psig"}) == []
