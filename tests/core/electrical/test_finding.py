"""What a row of measurements comes to: slips, the order of a dead unit, the truth table of a timer, heaters. By hand."""

from dataclasses import replace

import numpy as np
import pytest

from kettle.benches.electrical import bench
from kettle.electrical import dead, finds, heaters, measure, truth
from kettle.electrical.faults import SOUND, Fault, every_fault, from_key, together, weight_of
from kettle.electrical.measure import Reading, Seen, standing
from kettle.electrical.mistakes import mistakes
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import resistances, solve
from kettle.electrical.wiring import Bank, Wiring
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.plant.simulate import PRESETS

FREEZER = circuit_of(resolve(PRESETS["walk_in_freezer"]))
# A freezer with a mechanical timer and a relay of its own for the compressor.
TIMED = circuit_of(resolve(UnitSpec("walk_in_freezer", "R-404A", box_control="thermostat", receiver=False, phases=3)), Wiring(relay=True))


def volts(one, other, value, state="calling"):
    return Reading("volts", one, other, value, state)


def test_no_volts_across_a_switch_say_closed_only_where_it_is_fed():
    lone = volts("K3", "K4", 0.2)
    assert "measure K3 to L2" in mistakes(FREEZER, lone)[0]
    assert not mistakes(FREEZER, lone, [volts("K3", "L2", 229.0)])
    assert "nothing feeds it" in mistakes(FREEZER, lone, [volts("K3", "L2", 0.4)])[0]
    assert not mistakes(FREEZER, volts("K3", "K4", 229.0)), "the source's volts across it are an open switch"


def test_volts_to_ground_and_volts_fed_back_are_not_taken_for_a_supply():
    assert "leg to leg" in mistakes(FREEZER, volts("L1", "G", 132.0))[0]
    pole = solve(FREEZER, "calling", (Fault("pole_1", "open"),)).between("T1", "T2")[0]
    assert "feeds an open leg back" in mistakes(FREEZER, volts("T1", "T2", float(pole)))[0]
    assert not mistakes(FREEZER, volts("T1", "T2", 229.0)) and not mistakes(FREEZER, volts("L1", "L2", 231.0))


def test_ohms_with_power_on_or_with_a_path_beside():
    assert "power on" in mistakes(FREEZER, Reading("ohms", "K3", "K4", 0.2, "calling"))[0]
    assert "lift one" in mistakes(FREEZER, Reading("ohms", "E1", "H2", 30.0, "locked_out"))[0], (
        "two elements of a delta lie beside the third"
    )
    assert not mistakes(FREEZER, Reading("ohms", "3L", "L2", 900.0, "locked_out"))


def test_two_wires_in_the_clamp_and_a_coil_that_never_had_volts():
    nothing = Reading("amps", "lead_1", "", 0.0)
    clamp = Reading("amps", "winding_1", "", 0.05)
    assert "cancel" in mistakes(FREEZER, clamp, (), [Seen("compressor", True)])[0]
    assert not mistakes(FREEZER, nothing, (), [Seen("compressor", False)])
    assert "not the one at fault" in mistakes(FREEZER, volts("K4", "L2", 3.0))[-1]
    assert not mistakes(FREEZER, volts("K4", "L2", 228.0))


def walked(fault, circuit=FREEZER, seen=None):
    """The whole order of a dead unit measured on one with a fault."""
    solved = solve(circuit, "calling", (fault,))
    steps = dead.along(circuit, [])
    readings = [
        Reading(s.what, s.one, s.other, float(solved.through(s.one)[0] if s.what == "amps" else solved.between(s.one, s.other)[0]))
        for s in steps
    ]
    return dead.comes_to(circuit, dead.along(circuit, readings), bool(solved.runs("contactor_coil")[0]) if seen is None else seen)


@pytest.mark.parametrize(("key", "says"), [
    ("disconnect_2:open", "A leg of the line is lost"), ("stat:open", "No call comes through"),
    ("hp_switch:open", "High-pressure switch: open"),
    ("contactor_coil:stuck", "the contactor's coil"), ("pole_2:open", "Drop over pole 2"), ("pole_3:worn", "The pole is worn"),
    ("winding_1:open", "the motor, its start gear, or an overload"),
])  # fmt: skip
def test_the_order_of_a_dead_unit_ends_at_the_part(key, says):
    assert says in walked(from_key(key))


def test_a_load_pair_at_nothing_is_feed_back_and_a_low_line_is_the_supply():
    some = [volts("T1", "T2", 229.0), volts("T2", "T3", 2.0), volts("T3", "T1", 228.0)]
    assert "Load 23 shows nothing" in dead.comes_to(FREEZER, dead.along(FREEZER, some), True)
    low = [volts("L1", "L2", 203.0), volts("L2", "L3", 204.0), volts("L3", "L1", 204.0)]
    assert "203 V against 230 V" in dead.comes_to(FREEZER, dead.along(FREEZER, low), None)
    off = [volts("L1", "L2", 231.0), volts("L2", "L3", 221.0), volts("L3", "L1", 223.0)]
    # Mean 225, furthest 6 V from it: 2.7 %.
    assert "2.7 % out of balance" in dead.comes_to(FREEZER, dead.along(FREEZER, off), None)
    assert dead.comes_to(FREEZER, dead.along(FREEZER, []), None) == ""


def told(fault, runs=False, amps=9.0):
    """The truth table filled on a unit with a fault."""
    readings = []
    for state in truth.STATES:
        solved = solve(TIMED, state, (fault,))
        readings += [volts(row.key, "L2", float(solved.between(row.key, "L2")[0]), state) for row in truth.table(TIMED, [])]
    rows = truth.table(TIMED, readings)
    return rows, truth.comes_to(TIMED, rows, runs, amps)


def test_the_truth_table_tells_the_timer_from_the_relay_behind_it():
    rows, said = told(Fault())
    assert not said and all(cell.right for row in rows for cell in row.cells)
    assert [(row.key, round(row.cells[0].expected, -1), round(row.cells[1].expected, -1)) for row in rows if row.key in "34"] == [
        ("4", 230, 0), ("3", 0, 230)]  # fmt: skip
    assert "cooling contact has welded" in told(from_key("timer_cool:welded"))[1][0]
    assert "defrost contact has welded" in told(from_key("timer_heat:welded"))[1][0]
    relay = told(from_key("comp_relay:welded"), runs=True)[1]
    assert len(relay) == 1 and "Tap it" in relay[0]
    assert "the relay between them" in told(from_key("defrost_coil:open"))[1][0]
    assert "an open element or limit" in told(Fault(), amps=0.0)[1][0]


def test_the_output_of_a_controller_is_told_from_the_wire_behind_it():
    def said(*readings):
        return truth.comes_to(FREEZER, truth.table(FREEZER, readings), None, None)

    assert "output is dead" in said(volts("KF", "L2", 0.0))[0]
    assert "wire or a switch" in said(volts("KF", "L2", 229.0), volts("M1", "L2", 0.0))[0]
    assert not said(volts("KF", "L2", 229.0), volts("M1", "L2", 229.0))


def test_a_heater_bank_by_hand():
    # 5,200 W at 230 V: 22.6 A on one phase, 13.05 A on three; each of three elements 1,733 W, 30.5 Ω, in wye a third of that.
    one, three = heaters.heater_bank(230, 5200, 3, 1, 15.07), heaters.heater_bank(230, 5200, 3, 3, None)
    assert one.expected_amps == pytest.approx(22.61, abs=0.01) and three.expected_amps == pytest.approx(13.05, abs=0.01)
    assert one.element_ohms == pytest.approx(30.5, abs=0.1) and one.working == pytest.approx(2.0, abs=0.01) and three.working is None
    assert heaters.heater_bank(230, 5200, 3, 3, None, "wye").element_ohms == pytest.approx(30.5 / 3.0, abs=0.05)
    assert "2.0 of 3" in heaters.telling(one, 3, 15.07) and "what it should" in heaters.telling(one, 3, 22.0)
    assert heaters.cold([30.0, 1e6, 12.0, None], 30.5) == ["good", "open", heaters.cold([12.0], 30.5)[0], ""]
    for bad in ((0, 3, ""), (5200, 0, ""), (5200, 3, "star")):
        with pytest.raises(InputError, match="Heater"):
            heaters.heater_bank(230, bad[0], bad[1], 1, None, bad[2])


def test_two_faults_at_once_are_found_as_two():
    half = from_key("element_1:open+element_2:open")
    solved = solve(FREEZER, "defrosting", (half,))
    readings = [Reading("amps", key, "", float(solved.through(key)[0]), "defrosting") for key in ("element_1", "element_2", "element_3")]
    faults, likely = standing(FREEZER, readings)
    assert faults[int(likely.argmax())] == half
    assert together([half, Fault("element_1", "open")]) == half and half.key == "element_1:open+element_2:open"
    assert all(from_key(fault.key) == fault for fault in every_fault(FREEZER))


POLE_AND_PROTECTOR = [
    Reading("volts", "L1", "T1", 0.2), Reading("volts", "L2", "T2", 229.0), Reading("volts", "L3", "T3", 0.1),
    Reading("volts", "T1", "T2", 0.5), Reading("volts", "T2", "T3", 229.0), Reading("volts", "T3", "T1", 229.0),
]  # fmt: skip


def test_a_protector_open_behind_an_open_pole_is_found_with_it():
    # The load side floats to the leg its remaining windings and the condenser fan lead to: 0 V to it, the whole to the third.
    stands = [measure.Seen("compressor", False, silent=True), measure.Seen("contactor_coil", True)]
    told = bench.stand(FREEZER, "calling", POLE_AND_PROTECTOR, stands)
    chances = {(one.fault.part, one.fault.way): one.probability for one in told.suspects}
    assert chances["pole_2", "open"] > 0.98 and chances["winding_3", "open"] > 0.7 and told.leads == ()
    assert told.marks["pole_2"] == "found" and told.suspects[0].label == "Contactor pole 2: pole does not make"


@pytest.mark.parametrize("windings", [("winding_1",), ("winding_3",), ("winding_1", "winding_3"), ("winding_1", "winding_2", "winding_3")])
def test_windings_open_behind_an_open_pole_leave_no_fault_standing_that_the_meter_excludes(windings):
    wrong = together([Fault("pole_2", "open"), *(Fault(one, "open") for one in windings)])
    solved = solve(FREEZER, "calling", (wrong,))
    pairs = (("L1", "T1"), ("L2", "T2"), ("L3", "T3"), ("T1", "T2"), ("T2", "T3"), ("T3", "T1"))
    readings = [Reading("volts", *pair, float(solved.between(*pair)[0])) for pair in pairs]
    every, likely = measure.standing(FREEZER, readings, [measure.Seen("compressor", False)])
    assert wrong in every
    singles = sum(float(chance) for fault, chance in zip(every, likely, strict=True) if len(fault.each) == 1)
    assert singles < 0.02, "no fault alone makes these volts"


def test_what_opens_every_winding_at_once_is_the_protector_among_them():
    every = together(Fault(f"winding_{n}", "open") for n in (1, 2, 3))
    assert finds.cause_of(every) == "compressor_overload" and finds.cause_of(Fault("winding_1", "open")) == "compressor_open_winding"
    assert weight_of(FREEZER, every) > weight_of(FREEZER, together([Fault("winding_1", "open"), Fault("winding_2", "open")])) > 0.0


def test_round_what_carries_a_silent_motor_no_clamp_is_put():
    silent = measure.known_dead(FREEZER, [measure.Seen("compressor", False, silent=True)])
    assert {frozenset(("pole_1",)), frozenset(("winding_2",)), frozenset(("lead_3",))} <= silent and frozenset(("fan_1",)) not in silent
    assert measure.known_dead(FREEZER, [measure.Seen("compressor", False)]) == set()


TWO_LEGS = circuit_of(resolve(UnitSpec("reach_in_freezer", "R-404A", phases=1, nameplate_v=230.0, compressor_rla_a=21.0)))


@pytest.mark.parametrize("ohm", [1.4, 2.2, 4.0, 9.0])
def test_however_much_a_burnt_pole_drops_under_a_motor_that_stands_it_is_the_pole(ohm):
    # A motor that stands is about 0.2 × 230 ÷ 21 = 2.2 Ω: behind so many of a burnt pole it has its share of the volts.
    share = 2.2 / (2.2 + ohm)
    readings = [Reading("volts", "L1", "L2", 222.0), Reading("volts", "T1", "T2", round(222.0 * share))]
    hums = [Seen("compressor", False), Seen("contactor_coil", True)]
    every, likely = standing(TWO_LEGS, readings, hums)
    told = measure.by_part(TWO_LEGS, every, likely)
    assert sum(one.probability for one in told if one.fault.part.startswith("pole_")) > 0.9
    assert {one.fault.way for one in told if one.fault.part == "pole_1"} <= {"open", "worn", "welded"}, "worn is worn, however much"
    found = bench.stand(TWO_LEGS, "calling", [*readings, Reading("volts", "L1", "T1", round(222.0 * (1.0 - share)))], hums)
    assert found.suspects[0].fault.part == "pole_1" and found.suspects[0].probability > 0.9


def test_the_load_of_one_phase_on_two_poles_is_a_reading_of_its_circuit():
    assert frozenset(("T1", "T2")) in {frozenset(pair) for pair in measure.pairs(TWO_LEGS)}
    (reading,) = bench.readings_of(TWO_LEGS, {"load_v_12": 109.0})
    assert {reading.one, reading.other} == {"T1", "T2"} and reading.value == 109.0


def test_ohms_of_a_whole_bank_by_hand_and_as_its_circuit_has_them():
    # 1,000 W at 240 V are 57.6 Ω; six beside each other 9.6 Ω. In delta two a side: 28.8, and 19.2 between two corners; wye 57.6.
    assert heaters.bank_ohm(6, 57.6, "single") == pytest.approx(9.6)
    assert heaters.bank_ohm(6, 57.6, "delta") == pytest.approx(19.2) and heaters.bank_ohm(6, 57.6, "wye") == pytest.approx(57.6)
    for shape, ends in (("delta", ("H1", "H2")), ("wye", ("H1", "H2"))):
        circuit = circuit_of(resolve(PRESETS["walk_in_freezer"]), Wiring(Bank(6, 1000.0, shape))).only(("heater", "wire"))
        points = [point.key for point in circuit.points]
        table = resistances(circuit, (SOUND,))[0]
        element = next(part for part in circuit.parts if part.key == "element_1")
        got = float(table[points.index(ends[0]), points.index(ends[1])])
        assert got == pytest.approx(heaters.bank_ohm(6, element.ohm.real, shape), rel=0.02), shape


@pytest.mark.parametrize(("ohm", "says"), [
    (9.6, "good"), (10.9, "good"), (8.3, "good"), (8.0, "too low"), (11.5, "as of 5 of 6"), (28.8, "as of 2 of 6"), (1e7, "open"),
])  # fmt: skip
def test_what_the_ohms_of_a_bank_say(ohm, says):
    assert heaters.bank_says(ohm, 6, 57.6, "single").startswith(says)


def test_a_bank_on_three_legs_is_told_pair_by_pair():
    assert heaters.bank_says(28.8, 6, 57.6, "delta").startswith("too high: an element is open on these legs")
    with pytest.raises(InputError, match="1 to 24 elements"):
        heaters.bank_ohm(0, 57.6, "delta")


def test_where_live_volts_tell_no_more_the_ohms_are_asked_for():
    circuit = circuit_of(resolve(replace(PRESETS["display_freezer"], defrost="hot_gas", box_control="thermostat")))
    readings = [Reading("volts", "3", circuit.common, 230.0, "defrosting")]
    seen = [Seen("hot_gas_coil", False, "defrosting")]
    every, likely = standing(circuit, readings, seen)
    assert all(lead.finds for lead in measure.next_leads(circuit, every, likely, "defrosting"))
    alone = np.zeros(len(every))
    alone[[fault.key for fault in every].index("hot_gas_coil:open")] = 0.7
    alone[0] = 0.3
    stood = bench.stand(circuit, "defrosting", readings, seen, alone)
    assert stood.then.endswith("the ohms of the hot-gas valve") and all(lead.finds for lead in stood.leads)
    assert bench.stand(circuit, "locked_out", readings, seen, alone).then == ""
