"""Whatever a unit's plate and wiring: its circuit works when sound, can be drawn, and its faults stay told apart from it."""

import math
from dataclasses import replace
from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.electrical import bench
from kettle.benches.electrical.drawing import drawn
from kettle.electrical import dead, finds, measure, truth
from kettle.electrical.circuit import STATES
from kettle.electrical.faults import SOUND, every_fault, weight_of
from kettle.electrical.measure import Reading
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import solve
from kettle.electrical.wiring import CONTROLS, ENDS_BY, FANS_BY, HEATERS_BY, SHAPES, START_GEAR, Bank, Wiring, from_data
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.plant.simulate import PRESETS
from tests.examples import at_most

WIRINGS = st.builds(
    Wiring,
    st.builds(Bank, st.integers(1, 6), st.sampled_from((400.0, 1100.0)), st.sampled_from(sorted(SHAPES))),
    st.integers(1, 4), st.sampled_from(sorted(START_GEAR)), st.sampled_from(sorted(CONTROLS)), st.integers(0, 3), st.booleans(),
    st.sampled_from((50, 60)), heaters_by=st.sampled_from(sorted(HEATERS_BY)), fans_by=st.sampled_from(sorted(FANS_BY)),
    ends_by=st.sampled_from(sorted(ENDS_BY)),
)  # fmt: skip
TWO_LEGS = {
    f"{kind} on two legs": replace(PRESETS[kind], phases=1, nameplate_v=volts)
    for kind, volts in (("walk_in_freezer", 230.0), ("reach_in_freezer", 208.0), ("walk_in_cooler", 240.0))
}
BY_GAS = {
    f"{kind}, hot gas, {by}": replace(PRESETS[kind], defrost="hot_gas", box_control=by)
    for kind in ("walk_in_freezer", "display_freezer") for by in ("controller", "thermostat")
}  # fmt: skip
# A clock with heaters on one phase.
CLOCKED = {"reach_in_freezer by a clock": replace(PRESETS["reach_in_freezer"], box_control="thermostat")}
PLATES = PRESETS | TWO_LEGS | BY_GAS | CLOCKED
KINDS = st.sampled_from(sorted(PLATES))


def made(kind, wiring):
    unit = resolve(PLATES[kind])
    # Heaters in delta or wye need three legs, a contactor of three poles as well.
    if unit.phases == 1:
        wiring = replace(wiring, bank=replace(wiring.bank, shape=""), poles=min(wiring.poles, 2))
    return circuit_of(unit, wiring)


@at_most(60)
@given(KINDS, WIRINGS)
def test_a_sound_circuit_runs_when_called_and_stands_in_a_defrost(kind, wiring):
    circuit = made(kind, wiring)
    called, frosting = solve(circuit, "calling"), solve(circuit, "defrosting")
    assert called.runs("compressor")[0] and called.runs("contactor_coil")[0]
    assert all(called.runs(part.key)[0] for part in circuit.parts if part.kind == "motor")
    if circuit.has("hot_gas_coil"):
        # The gas that melts is pumped round: the valve for it opens, that for liquid shuts, the fans stand.
        assert frosting.runs("compressor")[0] and frosting.runs("hot_gas_coil")[0] and not called.runs("hot_gas_coil")[0]
        assert not circuit.has("solenoid") or (called.runs("solenoid")[0] and not frosting.runs("solenoid")[0])
        assert not frosting.runs("fan_1")[0]
    if circuit.has("defrost_coil") or circuit.has("heater_feed"):
        assert not frosting.runs("compressor")[0]
        elements = [part.key for part in circuit.parts if part.key.startswith("element_") and part.kind == "heater"]
        # A wye of fewer than three has no way back for a lone leg.
        if wiring.bank.shape != "wye" or len(elements) % 3 == 0:
            assert all(frosting.runs(key)[0] for key in elements)
    dead_volts = solve(circuit, "locked_out").between("L1", circuit.common)[0]
    assert dead_volts < 0.05 * circuit.volts


@at_most(40)
@given(KINDS, WIRINGS)
def test_every_circuit_is_drawn_whole(kind, wiring):
    circuit = made(kind, wiring)
    picture = drawn(circuit)
    # The heaters' star lies where its elements end, the compressor's where its windings meet.
    shown = {dot.key for dot in picture.dots} | {end.key for end in picture.ends}
    assert shown == {point.key for point in circuit.points} - {"Y"}
    assert {line.part.key for line in picture.lines} == {part.key for part in circuit.parts}
    assert all(0.0 <= dot.x <= picture.wide and 0.0 <= dot.y <= picture.high for dot in picture.dots)
    places = [(dot.x, dot.y) for dot in picture.dots]
    # A point is drawn as a circle of 12.
    assert all(math.dist(one, other) >= 24.0 for one, other in combinations(places, 2)), "no two points lie on each other"


@at_most(25)
@given(KINDS, WIRINGS, st.data())
def test_a_part_that_is_not_there_leaves_a_circuit_that_works(kind, wiring, data):
    circuit = made(kind, wiring)
    optional = [
        part.key
        for part in circuit.parts
        if part.key in ("lp_switch", "hp_switch", "door_switch", "fan_delay", "drain_heater", "crankcase_heater")
    ]
    if not optional:
        return
    gone = data.draw(st.sampled_from(optional))
    less = made(kind, replace(wiring, without=frozenset({gone})))
    assert solve(less, "calling").runs("compressor")[0]
    assert all(fault.part != gone or fault.way == "open" for fault in every_fault(less)), "a wire in its place can only be open"
    assert from_data(replace(wiring, without=frozenset({gone})).as_data()).without == {gone}


@pytest.mark.parametrize("kind", sorted(PLATES))
def test_every_fault_has_a_weight_a_word_and_never_breaks_the_benches(kind):
    circuit = made(kind, Wiring())
    faults = every_fault(circuit)
    assert all(weight_of(circuit, fault) > 0.0 and measure.fault_in_words(circuit, fault) for fault in faults)
    for fault in faults[1:]:
        solved = solve(circuit, "calling", (fault,))
        steps = dead.along(circuit, [])
        readings = [
            Reading(s.what, s.one, s.other, float(solved.through(s.one)[0] if s.what == "amps" else solved.between(s.one, s.other)[0]))
            for s in steps
        ]
        filled = dead.along(circuit, readings)
        assert all(step.verdict for step in filled) and [step.of for step in filled] == sorted((s.of for s in filled), key=dead.ORDER.index)
        told = dead.comes_to(circuit, filled, bool(solved.runs("contactor_coil")[0]))
        if not solved.runs("compressor")[0] and finds.cause_of(fault) in ("contactor_pole_open", "voltage_problem"):
            assert told, fault.key
        assert truth.table(circuit, readings) and finds.afterwards(fault) is not None


def test_a_sound_unit_measured_along_its_current_comes_to_nothing_but_its_motor():
    circuit = made("walk_in_freezer", Wiring())
    solved = solve(circuit, "calling")
    steps = dead.along(circuit, [])
    readings = [
        Reading(s.what, s.one, s.other, float(solved.through(s.one)[0] if s.what == "amps" else solved.between(s.one, s.other)[0]))
        for s in steps
    ]
    assert all(step.verdict == "good" for step in dead.along(circuit, readings))
    found = bench.stand(circuit, "calling", readings, [measure.Seen("compressor", True)])
    assert found.suspects[0].fault == SOUND or found.suspects[0].probability < bench.FOUND_FROM


@pytest.mark.parametrize("volts", [115.0, 208.0, 230.0, 460.0])
@pytest.mark.parametrize("phases", [1, 3])
def test_loads_draw_the_same_watts_at_any_plate(volts, phases):
    circuit = circuit_of(resolve(UnitSpec("walk_in_freezer", "R-404A", phases=phases, nameplate_v=volts)))
    solved = solve(circuit, "calling")
    fan = circuit.part("fan_1")
    assert solved.through("fan_1")[0] * solved.between(fan.a, fan.b)[0] == pytest.approx(75.0, rel=0.05)
    assert set(bench.should_show(circuit, "off")) == {point.key for point in circuit.points} and set(STATES) >= {"off"}


@at_most(60)
@given(KINDS, WIRINGS, st.data())
def test_without_any_one_or_two_of_its_parts_everything_stands(kind, wiring, data):
    whole = made(kind, wiring)
    gone = data.draw(st.sets(st.sampled_from(sorted(part.key for part in whole.parts)), min_size=1, max_size=2))
    circuit = made(kind, replace(wiring, without=frozenset(gone)))
    stands_without(circuit)


@pytest.mark.parametrize("kind", sorted(PLATES))
@pytest.mark.parametrize(
    "gone", ["contactor_coil", "defrost_coil", "start_relay", "winding_run", "winding_1", "timer_motor", "disconnect_1"]
)
def test_without_a_part_that_moves_others_everything_stands(kind, gone):
    circuit = made(kind, Wiring(without=frozenset({gone})))
    stands_without(circuit)
    assert made(kind, Wiring()).without(gone).parts == circuit.parts


def stands_without(circuit):
    """The circuit is solved, drawn, measured along and told of in every state, under every fault."""
    faults = every_fault(circuit)
    assert all(weight_of(circuit, fault) > 0.0 and measure.fault_in_words(circuit, fault) for fault in faults)
    for state in STATES:
        solve(circuit, state, tuple(faults))
        assert set(bench.should_show(circuit, state)) == {point.key for point in circuit.points}
    steps = dead.along(circuit, [])
    assert dead.comes_to(circuit, steps, True) is not None and isinstance(truth.table(circuit, []), list)
    picture = drawn(circuit)
    assert {line.part.key for line in picture.lines} <= {part.key for part in circuit.parts}
    seen = [measure.Seen("compressor", False)] if "compressor" in circuit.motors else []
    assert bench.stand(circuit, "calling", [Reading("volts", "L1", circuit.common, circuit.volts)], seen).suspects
