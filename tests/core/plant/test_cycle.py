"""The model's steady state against a cycle worked out independently with CoolProp's equations of state."""

from functools import cache

import pytest

from kettle.plant.circuit import HEAT_KEPT
from kettle.plant.run import run
from kettle.plant.simulate import preset
from kettle.plant.state import at_rest
from tests.core.plant.kept import kept_running

NAMED = {"reach_in_cooler": "R134a", "walk_in_freezer": "R404A", "prep_rail": "R290", "bottle_cooler": "R134a"}
PA_PER_PSI, J_KG_PER_BTU_LB = 6894.757, 2326.0


def kelvin(temperature_f):
    return (temperature_f + 459.67) / 1.8


def fahrenheit(temperature_k):
    return temperature_k * 1.8 - 459.67


@cache
def steady(kind, outside_f):
    """A sound plant after an hour and a half."""
    plant, air = kept_running(kind)
    return run(plant, 1.5, outside_f, at_rest(plant, air))


@pytest.mark.parametrize("outside_f", [75.0, 95.0])
@pytest.mark.parametrize("kind", NAMED)
def test_capacity_and_discharge_are_those_of_the_equations_of_state(kind, outside_f):
    from CoolProp.CoolProp import PropsSI  # five seconds to load, for whoever only collects

    course, fluid = steady(kind, outside_f), NAMED[kind]
    flows, state = course.flows[0], course.state[0]
    suction_pa, discharge_pa = float(flows.suction_psia) * PA_PER_PSI, float(flows.discharge_psia) * PA_PER_PSI
    # A tube that floods a little leaves its coil as vapour with liquid in it: no temperature tells that.
    out = ("T", kelvin(float(state.sst_f + flows.superheat_f))) if flows.superheat_f > 0.1 else ("Q", 1.0)
    leaving_coil = PropsSI("H", *out, "P", suction_pa, fluid)
    liquid = PropsSI("H", "T", kelvin(float(flows.liquid_f)), "Q", 0, fluid)
    cycle_btu_h = float(flows.flow_lb_h) * (leaving_coil - liquid) / J_KG_PER_BTU_LB
    # What the coil took out of its metal over the last step, and what warmed the vapour behind the boiling part, is the same heat.
    model_btu_h = coil_btu_h(kind, course)
    assert model_btu_h == pytest.approx(cycle_btu_h, rel=0.03)
    entering = PropsSI("H", "T", kelvin(float(flows.suction_line_f)), "P", suction_pa, fluid)
    leaving = entering + HEAT_KEPT * float(flows.work_btu_h) / float(flows.flow_lb_h) * J_KG_PER_BTU_LB
    hot_f = fahrenheit(PropsSI("T", "H", leaving, "P", discharge_pa, fluid))
    assert float(flows.discharge_line_f) == pytest.approx(hot_f, abs=2.0)


def coil_btu_h(kind, course):
    """The model's own capacity, Btu/h: liquid boiled off and vapour warmed, by its tables of properties."""
    refrigerant = preset(kind).refrigerant
    flows, state = course.flows[0], course.state[0]
    latent = refrigerant.vapor_btu_lb.at(float(state.sst_f)) - refrigerant.liquid_btu_lb.at(float(flows.liquid_f))
    return float(flows.flow_lb_h) * (latent + refrigerant.vapor_btu_lbf.at(float(state.sst_f)) * float(flows.superheat_f))
