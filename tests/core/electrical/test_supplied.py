"""A circuit on the volts that were measured coming in."""

import pytest

from kettle.electrical import dead, measure, supplied
from kettle.electrical.measure import Reading
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import solve
from kettle.knowledge.equipment import UnitSpec, resolve

THREE = circuit_of(resolve(UnitSpec("walk_in_freezer", "R-404A", phases=3, nameplate_v=230)))
ONE = circuit_of(resolve(UnitSpec("reach_in_cooler", "R-134a", phases=1, nameplate_v=115)))


def volts(one, other, value, state="calling"):
    return Reading("volts", one, other, float(value), state)


@pytest.mark.parametrize(
    ("readings", "share"),
    [
        ([], 1.0),
        ([volts("L1", "L2", 230)], 1.0),
        # Within what a meter is good to, 3 %, it is the plate's.
        ([volts("L1", "L2", 224)], 1.0),
        ([volts("L1", "L2", 223)], 0.97),
        ([volts("L1", "L2", 195.5)], 0.85),
        ([volts("L1", "L2", 253)], 1.1),
        # A lost leg takes two pairs down with it; the third says what comes in.
        ([volts("L1", "L2", 115), volts("L2", "L3", 110), volts("L3", "L1", 207)], 0.9),
        # So little is no supply.
        ([volts("L1", "L2", 171)], 1.0),
        ([volts("L1", "L2", 174)], 0.76),
        ([volts("L1", "L2", 290)], 1.0),
        # Behind the contactor, to ground, and ohms say nothing of what comes in.
        ([volts("T1", "T2", 196)], 1.0),
        ([volts("L1", "G", 115)], 1.0),
        ([Reading("ohms", "L1", "L2", 196.0, "locked_out")], 1.0),
    ],
)
def test_what_comes_in_as_a_share_of_the_plate(readings, share):
    assert supplied.share_of_plate(THREE, readings) == pytest.approx(share)


def test_one_leg_is_held_against_its_neutral():
    assert supplied.share_of_plate(ONE, [volts("L1", "N", 103.5)]) == pytest.approx(0.9)


def test_the_circuit_is_fed_with_what_was_measured():
    fed = supplied.as_measured(THREE, [volts("L1", "L2", 196)])
    assert float(solve(fed, "calling").between("T1", "T2")[0]) == pytest.approx(0.85 * 230, rel=0.03)
    assert supplied.as_measured(THREE, []) is THREE and supplied.as_measured(THREE, [volts("S1", "S2", 196)]) is fed


def poles(circuit, readings):
    """How likely a pole of the contactor is at fault."""
    faults, likely = measure.standing(circuit, readings)
    return sum(share for fault, share in zip(faults, likely, strict=True) if any(one.part.startswith("pole_") for one in fault.each))


def test_a_brown_out_condemns_no_pole():
    low = [volts(a, b, v) for a, b, v in (("L1", "L2", 196), ("L2", "L3", 195), ("T1", "T2", 195), ("T2", "T3", 194))]
    fed = supplied.as_measured(THREE, low)
    assert poles(fed, low) < 0.1
    assert poles(THREE, low) > 0.9, "on the plate's volts each pole would seem to drop some"


def test_a_dead_unit_on_low_volts_is_the_supply_and_its_load_is_right():
    low = [volts("L1", "L2", 196), volts("T1", "T2", 195)]
    steps = {step.label: step for step in dead.along(THREE, low)}
    assert steps["Line 12"].verdict == "bad" and steps["Load 12"].verdict == "good"
    assert steps["Load 12"].expected == pytest.approx(0.85 * 230)
    assert "196 V against 230 V on the plate" in dead.comes_to(THREE, list(steps.values()), True)
