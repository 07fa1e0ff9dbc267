"""The automatic technician on simulated units: he is never sent for what cannot be had, and finds what is wrong."""

import pytest

from benchmarks.technician import Told, jobs, one
from benchmarks.visit import Visit, entropy_bits
from kettle.judging import stopped
from kettle.judging.course import judge_course
from kettle.knowledge import acts, bands, observations
from kettle.knowledge.equipment import resolve
from kettle.knowledge.quantities import QUANTITIES
from kettle.plant import faults
from kettle.plant.observer import stand
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.simulate import PRESETS

# Iced, dead, short-cycling, in the wrong weather, sound: one of each sort that the holds are about.
UNITS = [
    ("walk_in_freezer", "defrost_heater_open", 85.0), ("walk_in_cooler", "evap_fan_failed", 85.0), ("reach_in_cooler", "undercharge", 85.0),
    ("walk_in_freezer", "compressor_grounded", 60.0), ("walk_in_cooler", "lp_control_misset", 60.0),
    ("prep_rail", "start_parts_failed", 85.0),
    ("display_cooler", "liquid_restriction", 85.0), ("provision_room_cooler", "overcharge", 85.0),
    ("bottle_cooler", "condenser_dirty", 100.0),
    ("reach_in_freezer", "contactor_pole_open", 60.0), ("walk_in_cooler", "sensor_mixup", 85.0), ("walk_in_cooler", "", 85.0),
]  # fmt: skip


class Watched(Visit):
    """A visit that looks at every proposal before it is followed."""

    def __init__(self, rig, told):
        super().__init__(rig, told)
        self.proposed = []

    def take(self, key, again=False):
        course = judge_course(self.rig.unit, self.stages, self.done)
        self.proposed.append((course, [check.key for check in course.now.next_checks]))
        super().take(key, again)


def visited(kind, code, outside_f):
    rig = stand(resolve(PRESETS[kind]), [(code, 1.0)] if code else [], 54.0, outside_f)
    visit = Watched(rig, Told(kind, (code,) if code else (), 1.0, outside_f, 1))
    visit.find()
    return visit


@pytest.mark.parametrize(("kind", "code", "outside_f"), UNITS)
def test_nothing_is_proposed_that_cannot_be_had_now_or_is_known(kind, code, outside_f):
    visit = visited(kind, code, outside_f)
    assert any(keys for _, keys in visit.proposed)
    for course, keys in visit.proposed:
        facts = course.now.facts
        blocked = {action for hold in course.now.holds for action in hold.blocks}
        for key in keys:
            entry = observations.get(key)
            assert entry.exists_on(visit.rig.unit) and key not in facts.seen, key
            if "superheat_judge" in blocked:
                # The coil is iced, or its fans stand: what would be read there says nothing.
                assert key not in ("suction_line_evap_f", *bands.COIL_FELT), key
            if "gauges" in blocked:
                assert entry.tool != "gauge", key
            if "resistance_test" in blocked:
                assert "lock_out" not in entry.holds, key
            if facts.is_("power_locked_out", "yes"):
                assert not key.startswith(stopped.POWERED), key
            if facts.is_("compressor", "off") and key not in ("suction_psig", "discharge_psig"):
                # A shell that stands, and the pull of a coil that is called, can be had all the same.
                called = key == "liquid_solenoid" and facts.is_("control_call", "calling") and not facts.is_("power_locked_out", "yes")
                assert key not in (*acts.RUNNING, *stopped.FLOW) or key in ("resting_psig", "compressor_shell") or called, key
            if facts.is_("control_call", "in_defrost"):
                assert key not in stopped.FANS or key == "fan_delay", key


@pytest.mark.parametrize(("kind", "code", "outside_f"), UNITS)
def test_the_fault_is_among_the_first_three_and_nothing_is_blamed_on_a_sound_unit(kind, code, outside_f):
    told = visited(kind, code, outside_f).told
    if code:
        assert any(code in codes for codes, _ in told.ranking[:3])
    else:
        assert not told.ranking[0][0]
    assert told.checks <= 25


def test_a_second_fault_is_found_once_the_first_is_put_right():
    told = one(("walk_in_freezer", ("contactor_pole_open", "undercharge"), 1.0, 85.0, 1))
    assert told.answers[0] == ("contactor_pole_open",)
    assert told.found_all, told.answers


def test_a_check_is_proposed_only_where_its_answer_could_change_what_is_done():
    # Both take a new compressor: telling the two apart alone sends nobody to measure.
    unit = resolve(PRESETS["walk_in_freezer"])
    same = [code for code, act in acts.SUREST.items() if act == "compressor.replaced"]
    assert {"compressor_grounded", "compressor_open_winding", "compressor_inefficient"} <= set(same)
    seen = {"compressor": "off", "control_call": "calling", "contactor": "in", "winding_ground_ohm": 40.0, "power_locked_out": "yes"}
    course = judge_course(unit, [seen], [])
    assert course.was[0].codes == ("compressor_grounded",)
    needs = {key for quantity in QUANTITIES.values() for key in quantity.needs}
    assert not [c.key for c in course.now.next_checks if c.key.startswith("winding") and c.key in needs]


def test_every_fault_of_the_oracle_is_among_the_jobs_where_it_can_be():
    work = jobs(["reach_in_cooler"], (), (1,), 1)
    unit = resolve(PRESETS["reach_in_cooler"])
    wanted = {code for code in faults.FAULTS if faults.possible(code, unit)} - {"hot_stock"}
    assert {code for _, wrong, *_ in work for code in wrong} == wanted
    assert any(not wrong for _, wrong, *_ in work)


def test_what_is_open_falls_to_nothing_with_one_sure_answer():
    class Answer:
        def __init__(self, probability):
            self.probability = probability

    assert entropy_bits([Answer(1.0)]) == pytest.approx(0.0)
    assert entropy_bits([Answer(0.5), Answer(0.5)]) == pytest.approx(1.0)
    assert entropy_bits([Answer(0.5)]) == pytest.approx(1.0)


def test_what_he_does_himself_is_known():
    assert set(OWN_DOING) <= set(observations.REGISTRY)


@pytest.mark.parametrize("kind", ["walk_in_cooler", "display_cooler", "walk_in_freezer"])
def test_a_box_that_is_only_pulling_down_after_loading_is_no_starving_valve(kind):
    rig = stand(resolve(PRESETS[kind]), [("hot_stock", 1.0)], 2.0, 85.0)
    assert rig.look("box_temp_f") > rig.unit.set_f + 5.0
    visit = Visit(rig, Told(kind, ("hot_stock",), 1.0, 85.0, 1))
    visit.find()
    first, chance = visit.told.ranking[0]
    assert first in ((), ("hot_stock",)) or chance < 0.5, visit.told.ranking


def test_fans_that_rest_in_a_defrost_are_no_fault():
    rig = stand(resolve(PRESETS["walk_in_freezer"]), [], 53.0, 85.0)
    while not (rig.defrosting and rig.look("evap_fans") == "stopped"):
        rig.wait(2.0)
    seen = {key: rig.look(key) for key in ("box_temp_f", "evap_fans", "compressor", "control_call", "ice_form", "ambient_f")}
    course = judge_course(rig.unit, [seen], [])
    assert not {code for s in course.was if s.probability > 0.1 for code in s.codes} & {"evap_fan_failed", "evap_fan_no_power"}
