"""What is put on a practice unit's circuit for now: a jumper carries past, a lifted lead stops, and neither replaces what protects."""

import pytest

from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import InputError
from kettle.plant.observer import stand
from kettle.plant.simulate import PRESETS
from kettle.yard import practice as core
from kettle.yard.debrief import holds_for_a_week
from kettle.yard.drawn import Draw, draw
from kettle.yard.practice import begin
from kettle.yard.put_there import JUMPER, LIFTED, MOVED, output_meant, part_meant, part_of, way_of


def lesson_of(code):
    return Draw(1, PRESETS["walk_in_cooler"], 85.0, "one", ((code, 1.0),), (), "warm", "")


def rig(kind="walk_in_freezer", **wrong):
    return stand(resolve(PRESETS[kind]), list(wrong.items()), 20.0)


@pytest.mark.parametrize(("words", "part"), [
    ("Low-pressure switch", "lp_switch"), ("over the low pressure switch, in the box", "lp_switch"), ("contactor pole 2", "pole_2"),
    ("door switch", "door_switch"), ("Pole", ""), ("L1 to T1", "pole_1"), ("K3 to K4", "hp_switch"), ("contactor pole 3", "pole_3"),
    ("fan delay", "fan_delay"), ("contactor coil", "contactor_coil"), ("", ""), ("the roof", ""),
    ("low presure switch", "lp_switch"),
])  # fmt: skip
def test_a_part_is_meant_by_its_name(words, part):
    assert part_meant(rig().wired.circuit, words) == part


def test_an_output_is_meant_by_what_hangs_on_it():
    circuit = rig().wired.circuit
    assert output_meant(circuit, "Fans from relay 2 to relay 4") == part_of(circuit, MOVED, "evaporator fan from 2 to 4") == "fan_output"
    assert output_meant(circuit, "the light") == "" == part_of(circuit, "cylinder", "fan delay")


def test_a_jumper_over_an_output_that_is_dead_lets_it_run_until_it_is_taken_away():
    unit = rig(no_call=1.0)
    assert unit.parts.can_run == 0
    unit.put_on("stat", way_of(unit, JUMPER, "stat"))
    assert unit.parts.can_run == 1 and unit.wired.called
    unit.wait(40.0)
    assert unit.running
    unit.put_on("stat", None)
    assert unit.parts.can_run == 0


def test_a_jumper_elsewhere_changes_nothing():
    unit = rig(contactor_pole_open=1.0)
    unit.put_on("lp_switch", way_of(unit, JUMPER, "lp_switch"))
    assert unit.parts.can_run == 0
    unit.put_on("pole_1", way_of(unit, JUMPER, "pole_1"))
    assert unit.parts.can_run == 1


def test_a_moved_output_and_a_bridged_lead_are_as_sound():
    unit = rig(evap_fan_no_power=1.0)
    still = float(unit.parts.fan_flow)
    unit.put_on("fan_output", way_of(unit, MOVED, "fan_output"))
    assert unit.parts.fan_flow > 20 * still
    assert way_of(unit, JUMPER, "fan_lead_1") == ""


@pytest.mark.parametrize(("part", "stands"), [("contactor_coil", "can_run"), ("lead_2", "can_run"), ("solenoid", "solenoid_open"),
                                              ("fan_output", "fan_flow")])  # fmt: skip
def test_a_lifted_lead_stops_what_hangs_on_it_and_nothing_else(part, stands):
    unit, sound = rig(), rig()
    unit.put_on(part, way_of(unit, LIFTED, part))
    for name in ("can_run", "solenoid_open", "fan_flow"):
        share = float(unit.parts[name]) / float(sound.parts[name])
        assert share <= 0.03 if name == stands else share == 1.0, name
    unit.put_on(part, None)
    assert unit.parts[stands] == sound.parts[stands]


@pytest.mark.parametrize(("part", "why"), [
    ("fuse_1", "takes away what protects"), ("hp_switch", "takes away what protects"), ("heater_limit", "takes away what protects"),
    ("contactor_coil", "is a short"), ("element_1", "is a short"), ("fan_1", "is a short"),
])  # fmt: skip
def test_no_jumper_over_what_protects_or_draws(part, why):
    with pytest.raises(InputError, match=why):
        way_of(rig(), JUMPER, part)
    assert way_of(rig(), LIFTED, part) == "open"


def test_on_a_practice_call_it_wants_the_power_off_and_counts_what_it_stopped():
    work = begin(draw(7, kind="walk_in_freezer"))
    assert work.place(JUMPER, "high-pressure switch").what == core.STOPPED
    assert work.place(JUMPER, "low-pressure switch").what == core.STOPPED, "the power is on"
    with pytest.raises(InputError, match="names no part"):
        work.place(JUMPER, "the roof")
    with pytest.raises(InputError, match="is none of jumper"):
        work.place("gauges", "low-pressure switch")
    with pytest.raises(InputError, match="nothing was put there"):
        work.take_away("lp_switch")
    work.put("power_locked_out", "yes")
    placed = work.place(JUMPER, "low-pressure switch")
    assert (placed.what, placed.of, placed.minutes) == (core.PLACED, "lp_switch", core.MEASURED_MIN) and "lp_switch" in work.rig.put
    other = begin(draw(7, kind="walk_in_freezer"))
    for step in work.steps:
        other.again(step)
    assert other.rig.put == work.rig.put and other.minutes == work.minutes
    assert work.take_away("lp_switch").what == core.GONE and not work.rig.put


def test_a_jumper_is_no_repair():
    dead = begin(lesson_of("no_call"))
    dead.put("power_locked_out", "yes")
    dead.place(JUMPER, "controller output, cooling")
    dead.put("power_locked_out", "no")
    assert dead.rig.parts.can_run == 1 and not holds_for_a_week(dead)


@pytest.mark.parametrize(("lifted", "holds"), [((), True), (("fan_lead_1", "fan_lead_2"), False)])
def test_a_lead_left_off_is_one_more_fault(lifted, holds):
    work = begin(lesson_of("no_call"))
    work.rig.do("control", "set_calling")
    for part in lifted:
        work.rig.put_on(part, way_of(work.rig, LIFTED, part))
    assert holds_for_a_week(work) is holds
