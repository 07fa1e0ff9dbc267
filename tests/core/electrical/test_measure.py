"""Following the volts: what a reading clears, where to measure next, and what cannot be a reading."""

import pytest

from kettle.electrical import finds, measure, mistakes
from kettle.electrical.faults import SOUND, Fault, every_fault, single_faults
from kettle.electrical.measure import Reading, Seen
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import solve
from kettle.knowledge import causes, observations
from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import InputError
from kettle.plant.simulate import PRESETS

FREEZER = circuit_of(resolve(PRESETS["walk_in_freezer"]))
REACH_IN = circuit_of(resolve(PRESETS["reach_in_cooler"]))
DEAD = (Seen("compressor", works=False), Seen("contactor_coil", works=True))


def shown(circuit, fault, one, other, state="calling"):
    return Reading("volts", one, other, round(float(solve(circuit, state, (fault,)).between(one, other)[0]), 1), state)


def test_full_line_volts_clear_the_supply_and_line_volts_over_a_pole_find_it():
    fault = Fault("pole_2", "open")
    line = [shown(FREEZER, fault, "L1", "L2"), shown(FREEZER, fault, "L2", "L3")]
    _, likely = measure.standing(FREEZER, line, DEAD)
    faults = every_fault(FREEZER)
    assert likely[faults.index(Fault("fuse_1", "open"))] < 0.01 and likely[faults.index(Fault("fuse_3", "open"))] < 0.01
    found = measure.suspects(FREEZER, [*line, shown(FREEZER, fault, "L2", "T2")], DEAD)
    assert found[0].fault == fault and found[0].probability > 0.9
    assert found[0].label == "Contactor pole 2: pole does not make"


def test_nothing_across_a_switch_clears_it_only_where_it_is_fed():
    # 0 V over the low-pressure switch with the path before it dead: it may be open all the same.
    faults = every_fault(FREEZER)
    seen = (Seen("compressor", works=False), Seen("contactor_coil", works=False))
    _, likely = measure.standing(FREEZER, [Reading("volts", "K3", "K4", 0.0)], seen)
    assert likely[faults.index(Fault("lp_switch", "open"))] > 0.05
    _, likely = measure.standing(FREEZER, [Reading("volts", "K4", "L2", 229.0)], seen)
    assert likely[faults.index(Fault("lp_switch", "open"))] < 0.01


@pytest.mark.parametrize("part", ["fuse_2", "lp_switch", "fan_lead_1", "pole_3", "stat", "winding_2", "control_fuse"])
def test_the_proposals_lead_to_the_fault(part):
    fault, faults = Fault(part, "open"), every_fault(FREEZER)
    place = faults.index(fault)
    solved = solve(FREEZER, "calling", faults)
    seen = [Seen(load, bool(solved.runs(load)[place])) for load in ("compressor", "contactor_coil", "fan_1", "fan_2", "condenser_fan")]
    readings, measured = [], set()
    for _ in range(8):
        _, likely = measure.standing(FREEZER, readings, seen)
        leads = measure.next_leads(FREEZER, faults, likely, "calling", measured=measured)
        if likely[[n for n, one in enumerate(faults) if one.part == fault.part]].sum() > 0.9 or not leads:
            break
        lead = leads[0]
        assert lead.why and lead.gain_bits > 0 and lead.minutes > 0
        measured.add(frozenset((lead.one, lead.other)) if lead.what == "volts" else frozenset((lead.one,)))
        value = solved.between(lead.one, lead.other) if lead.what == "volts" else solved.through(lead.one)
        readings.append(Reading(lead.what, lead.one, lead.other, float(value[place])))
    assert likely[[n for n, one in enumerate(faults) if one.part == fault.part]].sum() > 0.9
    assert len(readings) <= 6


def test_a_place_that_is_open_already_is_measured_first():
    _, likely = measure.standing(FREEZER, (), (Seen("fan_1", works=False), Seen("fan_2", works=False)))
    closed = measure.next_leads(FREEZER, every_fault(FREEZER), likely, "calling", ("panel",), 1)[0]
    opened = measure.next_leads(FREEZER, every_fault(FREEZER), likely, "calling", ("panel", "coil", "box"), 1)[0]
    assert opened.minutes <= closed.minutes and opened.gain_bits >= closed.gain_bits - 1e-9


def test_ohms_between_terminals_tell_an_open_winding_from_a_sound_one():
    faults = every_fault(FREEZER)
    one, two = (faults.index(Fault(f"winding_{n}", "open")) for n in (1, 2))

    def standing(*pair):
        value = float(measure.expected(FREEZER, Reading("ohms", *pair, 1.0, "locked_out"), faults)[one])
        return value, measure.standing(FREEZER, [Reading("ohms", *pair, value, "locked_out")], DEAD)[1]

    value, likely = standing("C1", "C2")
    # Not open to the meter: the condenser fan lies beside it, and its lead is not lifted.
    assert 200.0 < value < 1000.0 and likely[one] > 0.2
    value, likely = standing("C2", "C3")
    assert value < 5.0 and likely[two] < 0.02 < likely[one]


@pytest.mark.parametrize(
    ("reading", "says"),
    [
        (Reading("volts", "L1", "L1", 230.0), "one point"),
        (Reading("volts", "L1", "Q9", 230.0), "is not in this circuit"),
        (Reading("volts", "L1", "L2", 2300.0), "outside 0 to 1000 V"),
        (Reading("volts", "L1", "L2", -1.0), "outside 0 to 1000 V"),
        (Reading("amps", "pole_9", "", 3.0), "is not in this circuit"),
        (Reading("amps", "pole_1", "", 900.0), "outside 0 to 600 A"),
        (Reading("ohms", "C1", "C2", 2.0, "calling"), "locked out and proved dead"),
        (Reading("henries", "C1", "C2", 2.0), "is not measured here"),
        (Reading("volts", "L1", "L2", 230.0, "asleep"), "states are"),
    ],
)
def test_what_cannot_be_a_reading_is_refused_with_what_can(reading, says):
    with pytest.raises(InputError, match=says):
        measure.checked(FREEZER, reading)


def test_what_is_found_is_a_cause_and_what_is_measured_an_observation():
    for circuit in (FREEZER, REACH_IN):
        codes = {finds.cause_of(fault) for fault in single_faults(circuit) if fault != SOUND} - {""}
        assert codes <= set(causes.CATALOGUE)
        keys = {finds.observed_as(circuit, *pair) for pair in measure.pairs(circuit)} - {""}
        assert keys <= set(observations.REGISTRY)
    assert finds.observed_as(FREEZER, "T3", "T1") == "load_v_31" and finds.observed_as(FREEZER, "L2", "T2") == "pole_drop_v_2"
    assert finds.observed_as(REACH_IN, "L1", "N") == "line_v_12" and finds.observed_as(FREEZER, "K1", "K2") == ""
    assert (
        finds.cause_of(Fault("fan_2", "open")) == "evap_fan_failed" and finds.cause_of(Fault("fan_lead_2", "open")) == "evap_fan_no_power"
    )


def test_what_is_lifted_has_nothing_beside_it():
    switch, coil = FREEZER.part("hp_switch"), FREEZER.part("contactor_coil")
    across = Reading("ohms", switch.a, switch.b, 0.2, "locked_out", lifted=True)
    faults = [SOUND, Fault("hp_switch", "open")]
    closed, opened = measure.expected(FREEZER, across, faults)
    assert closed < 0.1 and opened == measure.OPEN_SHOWN_OHM
    # A coil by itself shows its copper; with what lies beside it less.
    alone = measure.expected(FREEZER, Reading("ohms", coil.a, coil.b, 0.0, "locked_out", lifted=True), [SOUND])[0]
    beside = measure.expected(FREEZER, Reading("ohms", coil.a, coil.b, 0.0, "locked_out"), [SOUND])[0]
    assert alone == pytest.approx(coil.ohm.real, rel=0.01) and beside < alone


def test_the_windings_of_a_motor_are_read_through_each_other_when_its_leads_are_lifted():
    one_winding = FREEZER.part("winding_1").dc_ohm
    pair = measure.expected(FREEZER, Reading("ohms", "C1", "C2", 0.0, "locked_out", lifted=True), [SOUND, Fault("winding_1", "open")])
    assert pair[0] == pytest.approx(2.0 * one_winding, rel=0.01) and pair[1] == measure.OPEN_SHOWN_OHM
    ground = Reading("ohms", "C1", "G", 0.0, "locked_out", lifted=True)
    clear, lies = measure.expected(FREEZER, ground, [SOUND, Fault("winding_1", "grounded")])
    assert clear > 1e6 and lies < 100.0


def test_lifted_ohms_of_a_closed_switch_are_no_slip():
    switch = FREEZER.part("hp_switch")
    reading = Reading("ohms", switch.a, switch.b, 0.2, "locked_out", lifted=True)
    assert mistakes.mistakes(FREEZER, reading) == []
    _, likely = measure.standing(FREEZER, [reading])
    assert float(likely[[fault.key for fault in every_fault(FREEZER)].index("hp_switch:open")]) < 0.001
