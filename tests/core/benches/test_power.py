"""The bench of stop Power: the state now, what was seen, what is cleared, and the drawing."""

from itertools import combinations

import pytest

from kettle.benches.electrical import bench
from kettle.benches.electrical.drawing import WIDE, drawn
from kettle.electrical import measure
from kettle.electrical.measure import Reading, Seen
from kettle.electrical.presets import circuit_of
from kettle.judging.readings import work_out
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.plant.simulate import PRESETS

FREEZER_UNIT = resolve(PRESETS["walk_in_freezer"])
FREEZER = circuit_of(FREEZER_UNIT)


@pytest.mark.parametrize(
    ("seen", "state"),
    [({}, "calling"), ({"control_call": "satisfied"}, "off"), ({"control_call": "in_defrost"}, "defrosting"),
     ({"control_call": "no_power"}, "calling"), ({"control_call": "calling", "power_locked_out": "yes"}, "locked_out")],
)  # fmt: skip
def test_the_state_is_that_of_the_control_and_of_the_lock(seen, state):
    assert bench.state_of(work_out(FREEZER_UNIT, seen)) == state


def test_what_runs_and_what_stands_is_taken_from_what_was_seen():
    seen = {"compressor": "humming", "contactor": "in", "fans_still": ("fan_2",), "condenser_fans": "running", "evap_fans": "some_stopped"}
    found = {(one.load, one.works) for one in bench.seen_of(FREEZER, seen, "calling")}
    assert found == {("compressor", False), ("contactor_coil", True), ("fan_1", True), ("fan_2", False), ("condenser_fan", True)}
    assert bench.seen_of(FREEZER, seen, "locked_out") == []


def test_a_fan_that_stands_is_looked_for_among_the_fans_and_their_leads_whichever_it_is():
    seen = bench.seen_of(FREEZER, {"evap_fans": "some_stopped"}, "calling")
    faults, likely = measure.standing(FREEZER, (), seen)
    share = {fault.key: float(part) for fault, part in zip(faults, likely, strict=True)}
    assert sum(part for key, part in share.items() if key.startswith(("fan_1:", "fan_2:", "fan_lead_"))) > 0.75
    # What feeds them all would stop them all, and all of them standing is another word.
    assert share["fan_1:open"] == pytest.approx(share["fan_2:open"]) and share["fan_output:open"] < 0.02
    faults, likely = measure.standing(FREEZER, (), bench.seen_of(FREEZER, {"evap_fans": "stopped"}, "calling"))
    whole = {fault.part: float(part) for fault, part in zip(faults, likely, strict=True) if fault.way == "open"}
    assert whole["fan_output"] > 0.1 > whole["fan_1"] and whole["door_switch"] > 0.1


def test_volts_that_are_observations_are_readings_of_the_circuit():
    found = bench.readings_of(FREEZER, {"line_v_12": 231.0, "pole_drop_v_2": 228.0})
    assert {(frozenset((r.one, r.other)), r.value) for r in found} == {(frozenset(("L1", "L2")), 231.0), (frozenset(("L2", "T2")), 228.0)}
    assert bench.readings_of(FREEZER, {"line_v_12": 0.0, "power_locked_out": "yes"}) == []
    [heater] = bench.readings_of(FREEZER, {"heater_volts": 229.0})
    assert heater.state == "defrosting"


def test_a_part_is_cleared_suspected_or_found_by_what_was_measured():
    dead = [Seen("compressor", works=False), Seen("contactor_coil", works=True)]
    before = bench.stand(FREEZER, "calling", [], dead)
    assert before.marks["pole_1"] == "suspect" and before.leads and not before.cause
    after = bench.stand(FREEZER, "calling", [Reading("volts", "L1", "L2", 229.0), Reading("volts", "L1", "T1", 199.0)], dead)
    assert after.marks["pole_1"] == "found" and after.marks["fuse_1"] == "good" and after.cause == "Contactor pole burnt open"
    assert bench.stand(FREEZER, "locked_out", [], []).leads == ()


def test_what_should_be_live_is_told_from_what_is_dead():
    assert bench.should_show(FREEZER, "calling")["K4"] == pytest.approx(228.0, abs=3.0)
    assert bench.should_show(FREEZER, "off")["K2"] < 5.0
    live = bench.is_live(FREEZER, "defrosting")
    assert live["H1"] and not live["M2"] or live["M2"]
    assert not any(bench.is_live(FREEZER, "locked_out")[key] for key in ("L1", "T1", "K1", "H1"))


OTHERS = [
    UnitSpec("walk_in_cooler", "R-448A", phases=1, defrost="electric", head_control="fan_cycling"),
    UnitSpec("walk_in_freezer", "R-404A", box_control="thermostat"),
]


@pytest.mark.parametrize("spec", [*PRESETS.values(), *OTHERS])
def test_every_part_and_point_is_drawn_within_the_drawing_and_targets_keep_apart(spec):
    circuit = circuit_of(resolve(spec))
    picture = drawn(circuit)
    assert {line.part.key for line in picture.lines} == {part.key for part in circuit.parts}
    assert {dot.key for dot in picture.dots} == {point.key for point in circuit.points} - {"Y"}
    assert all(0 <= dot.x <= WIDE and 0 <= dot.y <= picture.high for dot in picture.dots)
    for one, other in combinations(picture.dots, 2):
        assert max(abs(one.x - other.x), abs(one.y - other.y)) >= 36.0, (one.key, other.key)
    named = [(line.at_x, line.at_y) for line in picture.lines if line.name]
    assert len(named) == len(set(named))
