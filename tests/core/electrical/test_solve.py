"""Volts and amps against networks worked out by hand."""

import cmath
import math

import numpy as np
import pytest

from kettle.electrical.circuit import OPEN_OHM, STATES, Circuit, Part, Point
from kettle.electrical.faults import SOUND, WAYS, Fault, single_faults, together
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import resistances, solve
from kettle.electrical.wiring import Bank, Wiring
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.plant.simulate import PRESETS

FREEZER = circuit_of(resolve(PRESETS["walk_in_freezer"]))
LEGS = {f"S{n}": cmath.rect(230.0 / math.sqrt(3.0), -math.radians(120.0 * (n - 1))) for n in (1, 2, 3)}


def circuit(parts, supply, volts=120.0, phases=1, motors=None):
    ends = [end for part in parts for end in (part.a, part.b, *part.secondary) if end]
    keys = dict.fromkeys(["G", *supply, *ends])
    return Circuit("by hand", phases, volts, 60, supply, tuple(Point(key, key) for key in keys), tuple(parts), motors or {})


ONE = {"S1": complex(120.0), "N": complex(0.0)}


def test_two_resistors_in_series_share_the_volts():
    made = circuit([Part("a", "a", "heater", "S1", "M", 20.0), Part("b", "b", "heater", "M", "N", 40.0)], ONE)
    solved = solve(made, "calling")
    assert solved.between("M", "N")[0] == pytest.approx(80.0, rel=2e-3)
    assert solved.through("a")[0] == pytest.approx(2.0, rel=2e-3)


def test_two_loads_side_by_side_draw_their_sum():
    parts = [Part("lead", "lead", "wire", "S1", "M"), Part("a", "a", "heater", "M", "N", 20.0), Part("b", "b", "heater", "M", "N", 30.0)]
    assert solve(circuit(parts, ONE), "calling").through("lead")[0] == pytest.approx(120.0 / 12.0, rel=1e-2)


def test_an_open_switch_reads_the_source_and_a_closed_one_nothing_fed_or_not():
    parts = [Part("fuse", "fuse", "fuse", "S1", "A"), Part("stat", "stat", "switch", "A", "B", closed_in=frozenset(("calling",))),
             Part("load", "load", "heater", "B", "N", 60.0)]  # fmt: skip
    made = circuit(parts, ONE)
    assert solve(made, "off").between("A", "B")[0] == pytest.approx(120.0, rel=1e-3)
    assert solve(made, "calling").between("A", "B")[0] == pytest.approx(0.04, abs=0.02)
    # Nothing before it: an open one shows nothing either, and is no proof of closed.
    blown = solve(made, "off", (Fault("fuse", "open"),))
    assert blown.between("A", "B")[0] < 2.0


def test_a_balanced_star_draws_its_phase_volts_over_its_impedance():
    parts = [Part(f"w{n}", "w", "winding", f"S{n}", "Y", 10.0) for n in (1, 2, 3)]
    solved = solve(circuit(parts, LEGS, 230.0, 3), "calling")
    assert solved.through("w1")[0] == pytest.approx(230.0 / math.sqrt(3.0) / 10.0, rel=4e-3)
    assert solved.between("S1", "S2")[0] == pytest.approx(230.0, rel=4e-3)


def test_a_lost_leg_is_fed_back_by_the_motor_to_half_the_line():
    parts = [*(Part(f"p{n}", "p", "fuse", f"S{n}", f"T{n}") for n in (1, 2, 3)),
             *(Part(f"w{n}", "w", "winding", f"T{n}", "Y", 10.0) for n in (1, 2, 3))]  # fmt: skip
    solved = solve(circuit(parts, LEGS, 230.0, 3), "calling", (Fault("p1", "open"),))
    assert solved.between("T2", "T3")[0] == pytest.approx(230.0, rel=5e-3)
    assert solved.between("T1", "T2")[0] == pytest.approx(115.0, rel=5e-3)
    assert solved.between("T3", "T1")[0] == pytest.approx(115.0, rel=5e-3)
    # Over the open pole: the height of the triangle, √3/2 of the line.
    assert solved.between("S1", "T1")[0] == pytest.approx(230.0 * math.sqrt(3.0) / 2.0, rel=5e-3)
    assert solved.through("w2")[0] == pytest.approx(230.0 / 20.0, rel=5e-3)
    assert solved.through("w1")[0] < 1e-3


def test_one_element_of_three_open_leaves_two_thirds_of_the_amps():
    parts = [Part("lead", "lead", "wire", "S1", "H"), *(Part(f"e{n}", "e", "heater", "H", "N", 48.0) for n in (1, 2, 3))]
    solved = solve(circuit(parts, ONE), "defrosting", (SOUND, Fault("e2", "open")))
    assert solved.through("lead") == pytest.approx([7.5, 5.0], rel=5e-3)


def test_a_star_of_heaters_with_one_open_puts_two_in_series():
    parts = [Part(f"e{n}", "e", "heater", f"S{n}", "Y", 20.0) for n in (1, 2, 3)]
    solved = solve(circuit(parts, LEGS, 230.0, 3), "defrosting", (Fault("e3", "open"),))
    assert solved.through("e1")[0] == pytest.approx(230.0 / 40.0, rel=5e-3)


def test_a_capacitor_in_series_turns_the_current():
    # 20 µF at 60 Hz is 132.6 Ω: with 100 Ω the whole is 166.1 Ω.
    xc = 1.0 / (2 * math.pi * 60 * 20e-6)
    parts = [Part("r", "r", "heater", "S1", "M", 100.0), Part("c", "c", "capacitor", "M", "N", complex(0.0, -xc))]
    solved = solve(circuit(parts, ONE), "calling")
    assert solved.through("r")[0] == pytest.approx(120.0 / math.hypot(100.0, xc), rel=1e-3)
    assert solved.between("M", "N")[0] == pytest.approx(120.0 * xc / math.hypot(100.0, xc), rel=1e-3)


def test_a_transformer_gives_its_ratio_and_takes_its_power():
    parts = [
        Part("t", "t", "transformer", "S1", "N", 1e6, secondary=("R", "C"), ratio=0.2),
        Part("coil", "coil", "coil", "R", "C", 24.0),
        Part("tie", "tie", "wire", "C", "N"),
    ]
    solved = solve(circuit(parts, ONE), "calling")
    # 24 V open behind 0.6 Ω, loaded with 24 Ω.
    assert solved.between("R", "C")[0] == pytest.approx(24.0 * 24.0 / 24.6, rel=2e-3)
    assert solved.through("coil")[0] == pytest.approx(24.0 / 24.6, rel=2e-3)
    dead = solve(circuit(parts, ONE), "calling", (Fault("t", "open"),))
    assert dead.between("R", "C")[0] < 0.1


def test_a_point_that_nothing_feeds_shows_a_ghost_and_no_more():
    parts = [Part("s", "s", "switch", "S1", "A", closed_in=frozenset()), Part("s2", "s2", "switch", "A", "N", closed_in=frozenset())]
    shown = solve(circuit(parts, ONE), "calling").between("A", "N")[0]
    # Behind 1 GΩ the meter's own 10 MΩ takes nearly all of it.
    assert 0.0 < shown < 120.0 * 1e7 / (OPEN_OHM / 3)


def test_an_element_to_ground_draws_from_its_leg_to_ground():
    # In delta a leg's amps are in phase with its volts to the star, and 40 Ω to ground there draw 132.8 V / 40 Ω beside them.
    solved = solve(FREEZER, "defrosting", (SOUND, Fault("element_1", "grounded")))
    whole = solved.through("defrost_pole")
    assert whole[1] == pytest.approx(whole[0] + 230.0 / math.sqrt(3.0) / 40.0, rel=0.02)


def test_a_winding_to_ground_stands_and_draws_its_locked_amps():
    whole = solve(FREEZER, "calling", (SOUND, Fault("winding_1", "grounded"))).through("lead_2")
    assert whole[1] == pytest.approx(5.0 * whole[0], rel=0.2)


@pytest.mark.parametrize(("gear", "hums_by"), [
    ("potential", {"start_relay:open", "start_capacitor:open"}), ("ptc", {"start_ptc:open"}),
    ("current", {"start_relay:open", "start_capacitor:open", "start_capacitor:weak"}),
    ("none", {"run_capacitor:open", "run_capacitor:weak"}),
])  # fmt: skip
def test_what_starts_a_compressor_is_missed_only_at_its_start(gear, hums_by):
    made = circuit_of(resolve(PRESETS["reach_in_freezer"]), Wiring(start_gear=gear))
    faults = [fault for fault in single_faults(made) if fault.part in ("", "start_relay", "start_capacitor", "start_ptc", "run_capacitor")]
    solved = solve(made, "calling", faults)
    amps = solved.through("lead_1")
    hum = {fault.key: amps[n] for n, fault in enumerate(faults) if not solved.runs("compressor")[n]}
    assert set(hum) == hums_by
    assert all(drawn > 4.0 * amps[0] for drawn in hum.values()), "a locked rotor draws several times its running amps"
    if gear == "potential":
        left_in = amps[[fault.key for fault in faults].index("start_relay:welded")]
        assert left_in > 1.15 * amps[0], "a start winding left in draws more"


def test_a_control_of_24_volts_moves_coils_of_24_volts():
    made = circuit_of(resolve(PRESETS["walk_in_freezer"]), Wiring(control="transformer", relay=True))
    sound, dead = SOUND, Fault("transformer", "open")
    solved = solve(made, "calling", (sound, dead))
    assert solved.between("V", "0")[0] == pytest.approx(24.0, abs=1.0) and solved.between("V", "0")[1] < 1.0
    assert list(solved.runs("compressor")) == [True, False]
    assert not solve(made, "defrosting").runs("compressor")[0]
    poles = together(Fault(f"pole_{n}", "welded") for n in (1, 2, 3))
    welded = solve(made, "defrosting", (Fault("comp_relay", "welded"), poles))
    assert list(welded.runs("compressor")) == [True, True], "either brings it in while it should stand"


def test_heaters_in_delta_and_in_wye_by_hand():
    # Delta: each element across the line, a leg carries √3 of its amps. Wye: 132.8 V over each, the leg its own amps.
    unit = resolve(PRESETS["walk_in_freezer"])
    for shape, leg in (("delta", math.sqrt(3.0) * 1100.0 / 230.0), ("wye", 1100.0 / (230.0 / math.sqrt(3.0)))):
        made = circuit_of(unit, Wiring(Bank(3, 1100.0, shape)))
        solved = solve(made, "defrosting", (SOUND, Fault("element_1", "open")))
        assert solved.through("defrost_pole")[0] == pytest.approx(leg, rel=0.02)
    assert solved.between("HY", "G")[1] == pytest.approx(230.0 / math.sqrt(3.0) / 2.0, rel=0.05), "two left in series: their star wanders"


def test_ohms_are_of_everything_that_lies_between_the_leads():
    # R between two terminals of a star is twice a winding; a path beside it that is not lifted lies parallel.
    parts = [Part(f"w{n}", "w", "winding", f"T{n}", "Y", 10.0 + 8j, dc_ohm=1.5) for n in (1, 2, 3)]
    lone = circuit([*parts, Part("s", "s", "disconnect", "S1", "T1", closed_in=frozenset())], LEGS, 230.0, 3)
    keys = [point.key for point in lone.points]
    table = resistances(lone, (SOUND, Fault("w3", "open")))
    one, two, three = (keys.index(f"T{n}") for n in (1, 2, 3))
    assert table[0, one, two] == pytest.approx(3.0, rel=1e-3) and table[0, two, three] == pytest.approx(3.0, rel=1e-3)
    assert table[1, one, two] == pytest.approx(3.0, rel=1e-3) and table[1, two, three] > 1e7
    beside = circuit([*parts, Part("h", "h", "heater", "T1", "T2", 6.0), Part("s", "s", "disconnect", "S1", "T1", closed_in=frozenset())],
                     LEGS, 230.0, 3)  # fmt: skip
    keys = [point.key for point in beside.points]
    assert resistances(beside, (SOUND,))[0, keys.index("T1"), keys.index("T2")] == pytest.approx(2.0, rel=1e-3)


def test_a_contactor_follows_its_coil():
    assert solve(FREEZER, "calling").runs("compressor")[0]
    for part in ("contactor_coil", "lp_switch", "fuse_3"):
        assert not solve(FREEZER, "calling", (Fault(part, "open"),)).runs("compressor")[0]
    assert not solve(FREEZER, "calling", (Fault("lp_switch", "open"),)).runs("contactor_coil")[0]


@pytest.mark.parametrize("kind", PRESETS)
def test_a_sound_unit_does_in_each_state_what_it_should(kind):
    made = circuit_of(resolve(PRESETS[kind]))
    runs = {state: bool(solve(made, state).runs("compressor")[0]) for state in STATES}
    pumps = any(part.key == "solenoid" for part in made.parts)
    assert runs == {"calling": True, "off": False, "pumping_down": pumps, "defrosting": False, "dripping": False, "locked_out": False}
    fans = {state: bool(solve(made, state).runs("fan_1")[0]) for state in STATES}
    assert fans["calling"] and not fans["locked_out"]
    if any(part.key == "element_1" for part in made.parts):
        heats = {state: bool(solve(made, state).runs("element_1")[0]) for state in STATES}
        assert [state for state, on in heats.items() if on] == ["defrosting"] and not fans["defrosting"]


@pytest.mark.parametrize("kind", PRESETS)
def test_every_single_fault_is_solved_and_shows_volts_that_can_be(kind):
    made = circuit_of(resolve(PRESETS[kind]))
    wrong = tuple(single_faults(made))
    assert {fault.part for fault in wrong[1:]} == {part.key for part in made.parts}
    for state in STATES:
        solved = solve(made, state, wrong)
        assert np.isfinite(solved.volts).all()
        # Start windings stand over the line by the capacitor's doing, nothing else does.
        assert solved.between("L1", "G").max() < 1.05 * made.volts
        alone = solve(made, state, (wrong[3],))
        assert alone.between("L1", "K1")[0] == pytest.approx(solved.between("L1", "K1")[3], abs=1e-6)


def test_every_kind_of_part_has_ways_to_fail_and_every_way_does_something():
    for kind, found in WAYS.items():
        assert found and all(way.conducts for way in found), kind


def test_what_is_not_there_is_taken_out_and_a_switch_becomes_a_wire():
    bare = FREEZER.without("lp_switch", "element_3")
    assert bare.part("lp_switch").kind == "wire" and solve(bare, "calling").runs("compressor")[0]
    with pytest.raises(InputError, match="element_3"):
        bare.part("element_3")


def test_a_single_phase_plate_and_other_volts_are_followed():
    made = circuit_of(resolve(UnitSpec("walk_in_cooler", "R-448A", phases=1, nameplate_v=208.0)))
    assert solve(made, "calling").between("L1", "L2")[0] == pytest.approx(208.0, rel=0.02)
    with pytest.raises(InputError, match="states are"):
        solve(made, "asleep")


TWO_LEGS = circuit_of(resolve(UnitSpec("walk_in_cooler", "R-448A", phases=1, nameplate_v=240.0)))


def test_one_phase_of_240_v_is_two_hot_legs():
    sound = solve(TWO_LEGS, "calling")
    assert TWO_LEGS.two_legs and TWO_LEGS.common == "L2" and not any(point.key == "N" for point in TWO_LEGS.points)
    assert [sound.between(*pair)[0] for pair in (("L1", "G"), ("L2", "G"), ("L1", "L2"))] == pytest.approx([120.0, 120.0, 240.0], rel=0.02)
    assert TWO_LEGS.has("disconnect_2") and TWO_LEGS.has("fuse_2") and TWO_LEGS.has("pole_2") and TWO_LEGS.renamed("N") == "L2"
    assert sound.runs("compressor")[0] and solve(TWO_LEGS, "off").between("T1", "T2")[0] < 5.0
    # A blown fuse: nothing between the two, and the dead leg fed back to the other's volts through the loads.
    blown = solve(TWO_LEGS, "calling", (Fault("fuse_2", "open"),))
    assert blown.between("L1", "L2")[0] < 5.0 and blown.between("L1", "G")[0] == pytest.approx(120.0, rel=0.02)
    assert blown.between("D2", "G")[0] == pytest.approx(120.0, rel=0.02) and blown.between("L1", "D2")[0] == pytest.approx(240.0, rel=0.02)


@pytest.mark.parametrize(("volts", "hz", "legs"), [(199.0, 60, False), (200.0, 60, True), (230.0, 50, False), (115.0, 60, False)])
def test_below_200_v_and_at_50_hz_one_phase_has_its_neutral(volts, hz, legs):
    made = circuit_of(resolve(UnitSpec("walk_in_cooler", "R-448A", phases=1, nameplate_v=volts)), Wiring(hz=hz))
    assert made.two_legs is legs and made.renamed("N") == ("L2" if legs else "N")


def test_a_load_without_its_contactor_hangs_on_what_would_call_it():
    alone = TWO_LEGS.without("contactor_coil")
    assert alone.part("pole_1").kind == "wire" and alone.part("pole_1").a == TWO_LEGS.part("contactor_coil").a
    assert solve(alone, "calling").runs("compressor")[0] and not solve(alone, "off").runs("compressor")[0]
    heated = FREEZER.without("defrost_coil")
    assert solve(heated, "defrosting").runs("element_1")[0] and not solve(heated, "calling").runs("element_1")[0]
    bare = circuit_of(resolve(UnitSpec("walk_in_cooler", "R-448A")), Wiring(control="transformer")).without("transformer")
    assert solve(bare, "calling").between("V", "0")[0] == pytest.approx(115.0, rel=0.02)
