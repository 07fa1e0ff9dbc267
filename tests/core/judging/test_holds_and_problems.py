import pytest

from kettle.judging import holds, problems, readings
from kettle.judging.judge import judge
from kettle.knowledge.equipment import UnitSpec, resolve
from tests.core.judging.faults import COOLER, FREEZER, REACH_IN, sound, unit_of

PROPANE = UnitSpec(kind="reach_in_cooler", refrigerant="R-290", critical_charge_oz=4.9, set_f=38)


def facts(spec, seen):
    unit = spec if not isinstance(spec, UnitSpec) else unit_of(spec)
    return readings.work_out(unit, seen)


def codes(spec, seen):
    return {hold.code for hold in holds.standing(facts(spec, seen))}


def test_a_sound_unit_waits_for_nothing_once_nobody_can_be_shut_in():
    assert codes(FREEZER, sound(FREEZER, inside_release="works", latch_blocked="yes")) == set()
    assert codes(FREEZER, sound(FREEZER)) == {"lone_working"}
    assert codes(REACH_IN, sound(REACH_IN)) == set()


@pytest.mark.parametrize(
    ("spec", "change", "code", "blocks"),
    [
        (FREEZER, {"ice_form": "hard_ice", "ice_places": ("coil_whole",)}, "iced_coil", "gauges"),
        (COOLER, {"evap_fans": "some_stopped"}, "fans_not_running", "charge_judge"),
        (COOLER, {"condenser_coil": "blocked"}, "condenser_blocked", "charge_judge"),
        (COOLER, {"condenser_fans": "stopped"}, "condenser_fan_stopped", "charge_add"),
        (FREEZER, {"box": 3}, "box_far_from_set", "txv_adjust"),
        (FREEZER, {"settled_min": 4.0}, "settling", "superheat_judge"),
        (FREEZER, {"adjusted_min": 4.0}, "settling", "txv_adjust"),
        (COOLER, {"sight_glass": "flashing"}, "glass_alone", "charge_add"),
        (COOLER, {"bulb": "loose"}, "bulb_first", "txv_adjust"),
        (PROPANE, {}, "critical_charge", "gauges"),
        (PROPANE, {}, "flammable", "flame"),
        (COOLER, {"winding_ground_ohm": 500.0}, "grounded_compressor", "power_on"),
        (COOLER, {"compressor": "humming"}, "lock_out", "resistance_test"),
        (COOLER, {"leak_test": "found"}, "licensed_work", "open_circuit"),
    ],
)
def test_each_hold_and_what_it_blocks(spec, change, code, blocks):
    seen = sound(spec, **change) if spec is not PROPANE else {"box_temp_f": 45.0}
    in_force = [hold for hold in holds.standing(facts(spec, seen)) if hold.code == code]
    assert in_force
    assert blocks in in_force[0].blocks
    assert in_force[0].text
    assert in_force[0].until
    assert set(in_force[0].blocks) <= set(holds.ACTIONS)


def test_iced_frame_is_no_iced_coil():
    assert "iced_coil" not in codes(COOLER, sound(COOLER, ice_form="heavy_frost", ice_places=("door_frame",)))


def test_the_bulb_hold_stands_until_the_bulb_was_looked_at():
    seen = sound(COOLER)
    del seen["bulb"]
    assert "bulb_first" in codes(COOLER, seen)
    assert "bulb_first" not in codes(REACH_IN, sound(REACH_IN))


def test_a_flashing_glass_is_no_longer_alone_with_low_level_and_all_else_cleared():
    with_level = sound(COOLER, sight_glass="flashing", receiver_level_pct=8.0)
    assert "glass_alone" not in codes(COOLER, with_level)
    assert "glass_alone" in codes(COOLER, sound(COOLER, sight_glass="flashing", receiver_level_pct=8.0, ambient=50))
    missing = {k: v for k, v in with_level.items() if k != "condenser_coil"}
    hold = next(h for h in holds.standing(facts(COOLER, missing)) if h.code == "glass_alone")
    assert "condenser coil" in hold.text
    assert "coil fans" not in hold.text


def test_gauges_wait_on_a_critical_charge_until_the_outside_evidence_asks():
    outside = {"box_temp_f": 46.0, "evap_fans": "running", "condenser_coil": "clean", "condenser_fans": "running", "compressor": "running"}
    held = holds.standing(facts(PROPANE, outside))
    assert not holds.blocking(held, "gauges")
    assert holds.blocking(held, "charge_judge")


def found(spec, seen):
    return {problem.code for problem in problems.found(facts(spec, seen))}


def test_a_sound_unit_has_no_problem():
    assert found(FREEZER, sound(FREEZER)) == set()


def test_superheat_far_below_zero_is_a_reading_to_resolve():
    assert "negative_superheat" in found(COOLER, sound(COOLER, superheat=-6))
    assert "negative_superheat" not in found(COOLER, sound(COOLER, superheat=-2))


def test_impossible_pressures():
    assert "impossible_pressure" in found(COOLER, sound(COOLER) | {"suction_psig": 240.0, "discharge_psig": 200.0})
    assert "impossible_pressure" in found(COOLER, sound(COOLER, td=-10))
    assert "impossible_pressure" in found(COOLER, sound(COOLER, split=-10))
    assert "impossible_pressure" in found(COOLER, sound(COOLER) | {"discharge_psig": 1100.0})
    high = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", altitude_ft=5000))
    assert "impossible_pressure" in found(high, {"suction_psig": -13.0})
    assert found(high, {"suction_psig": 80.0, "discharge_psig": 80.0, "compressor": "off"}) == set()


def test_vacuum_and_a_display_that_is_off():
    assert found(FREEZER, {"suction_psig": -3.0}) == {"vacuum"}
    assert found(FREEZER, {"display_temp_f": 3.0, "box_temp_f": -4.0}) == {"sensor_disagrees"}
    assert found(FREEZER, {"display_temp_f": -3.0, "box_temp_f": -4.0}) == set()


def test_locked_out_read_as_found_and_proved_lift_their_holds():
    assert "lock_out" not in codes(COOLER, sound(COOLER, compressor="humming", power_locked_out="yes"))
    touched = {"defrost_ended_by": "time", "coil_after_defrost": "part_iced"}
    assert "as_found_first" in codes(FREEZER, touched)
    assert "as_found_first" not in codes(FREEZER, touched | {"defrost_set_min": 30.0})
    lone = [h for h in holds.standing(facts(FREEZER, {"inside_release": "fails"})) if h.code == "lone_working"]
    assert "release fails" in lone[0].text
    assert "grounded_compressor" not in codes(COOLER, sound(COOLER, winding_ground_ohm=5e6))


def told(spec, seen):
    return {(problem.code, problem.keys) for problem in problems.found(facts(spec, seen))}


@pytest.mark.parametrize(
    ("change", "keys"),
    [
        ({"liquid_line_f": 60.0}, ("liquid_line_f", "ambient_f")),
        ({"subcooling": -12}, ("liquid_line_f", "discharge_psig")),
        ({"gain": -9}, ("suction_line_comp_f", "suction_line_evap_f")),
        ({"return_air_f": 36.0, "supply_air_f": 44.0}, ("supply_air_f", "return_air_f")),
        ({"discharge_line_f": 80.0}, ("discharge_line_f", "discharge_psig")),
        ({"return_air_f": 60.0}, ("box_temp_f", "return_air_f")),
        ({"compressor": "off"}, ("compressor", "compressor_amps")),
        ({"contactor": "out"}, ("compressor", "contactor")),
        ({"receiver_level_pct": 0.0}, ("receiver_level_pct", "sight_glass")),
        ({"fans_still": ("fan_1",)}, ("evap_fans", "fans_still")),
    ],
)
def test_readings_that_cannot_both_be_right_are_reported_and_not_averaged(change, keys):
    assert ("readings_conflict", keys) in told(COOLER, sound(COOLER, **change))
    assert not {code for code, _ in told(COOLER, sound(COOLER))}


def test_a_conflict_takes_the_trust_of_what_rests_on_it():
    judged = judge(unit_of(COOLER), sound(COOLER, gain=-9))
    trust = {v.quantity: v.trust for v in judged.verdicts}
    assert trust["superheat_comp_f"] == trust["superheat_evap_f"] == "none"
    assert trust["split_f"] == "good"
    assert any("superheat" in text.lower() for text, _ in judged.discounted)


def test_a_sign_taken_the_wrong_way_round_is_asked_about():
    # SST of the freezer is -14.5 °F and the line -6.5: typed without its minus, or with one too many.
    warm = sound(FREEZER) | {"suction_line_evap_f": 6.5}
    assert ("reversed_sign", ("suction_line_evap_f",)) in told(FREEZER, warm)
    cold = sound(COOLER, td=20) | {"suction_line_evap_f": -24.0}
    assert ("reversed_sign", ("suction_line_evap_f",)) in told(COOLER, cold)
    starved = sound(FREEZER, box=6, superheat=25, td=26)
    assert "reversed_sign" not in {code for code, _ in told(FREEZER, starved)}


@pytest.mark.parametrize(
    ("low", "high"), [("lp_cut_out_psig", "lp_cut_in_psig"), ("stat_cut_out_f", "stat_cut_in_f")], ids=["pressure", "thermostat"]
)
def test_a_cut_out_at_or_above_its_cut_in_is_a_conflict(low, high):
    def told(out, into):
        return [p for p in problems.found(facts(FREEZER, {low: out, high: into})) if low in p.keys]

    assert told(30.0, 20.0)[0].code == "readings_conflict" and told(20.0, 20.0)
    assert not told(10.0, 20.0)


def test_a_capillary_tube_is_not_told_to_wait_with_a_stem_it_has_not():
    small = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-290", critical_charge_oz=5.5))
    held = [hold for hold in judge(small, {"adjusted_min": 4.0, "box_temp_f": 61.0}).holds if hold.code in ("settling", "box_far_from_set")]
    assert [hold.code for hold in held] == ["settling"] and "txv_adjust" not in held[0].blocks
    assert "the last change" in held[0].text


def test_subcooling_behind_a_receiver_is_no_second_sign_while_the_valve_floods():
    room = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", set_f=36))
    blend = room.refrigerant
    cleared = {"evap_fans": "running", "condenser_coil": "clean", "condenser_fans": "running", "ambient_f": 80.0, "box_temp_f": 37.0}
    gauges = {"suction_psig": blend.dew_psig(26), "discharge_psig": blend.bubble_psig(104), "liquid_line_f": 103.8}
    seen = cleared | gauges | {"sight_glass": "flashing"}
    held = lambda line: "glass_alone" in {hold.code for hold in judge(room, seen | {"suction_line_evap_f": line}).holds}  # noqa: E731
    assert held(26.5) and not held(52.0), "a starved coil with as little subcooling is short"


def blocks(spec, seen, action):
    return {hold.code for hold in holds.standing(facts(spec, seen)) if action in hold.blocks}


@pytest.mark.parametrize(
    ("glass", "level", "held"), [("clear", 75.0, True), ("clear", 74.0, False), ("few_bubbles", 80.0, True), ("clear", None, False)]
)
def test_a_full_receiver_behind_a_clear_glass_holds_gas_as_bubbles_do(glass, level, held):
    seen = sound(COOLER, sight_glass=glass)
    seen.pop("receiver_level_pct", None)
    assert ("glass_alone" in blocks(COOLER, seen | ({"receiver_level_pct": level} if level else {}), "charge_add")) == held


@pytest.mark.parametrize(
    ("suction", "feels", "compressor", "low"),
    [(3.0, "cool", "running", True), (3.1, "cool", "running", False), (3.0, "cold", "running", False), (3.0, "warm", "off", False)],
)
def test_no_suction_over_a_coil_that_is_not_cold_is_a_second_witness(suction, feels, compressor, low):
    seen = {"box_temp_f": 20.0, "suction_psig": suction, "coil_outlet_feel": feels, "compressor": compressor, "evap_fans": "stopped",
            "fan_delay": "waits_cold"}  # fmt: skip
    # Fans that wait for a cold coil that gas alone can give do not hold the gas.
    assert ("fans_not_running" in blocks(FREEZER, seen, "charge_add")) != low


@pytest.mark.parametrize(
    ("control", "ambient", "fans", "held"),
    [
        ("fan_cycling", 45.0, "stopped", False),
        ("fan_cycling", 75.0, "stopped", True),
        ("fan_cycling", 45.0, "reversed", True),
        ("mixing_valve", 45.0, "stopped", True),
    ],
)
def test_a_condenser_fan_is_put_right_first_only_where_it_should_turn(control, ambient, fans, held):
    unit = UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", head_control=control)
    seen = {"condenser_fans": fans, "ambient_f": ambient, "compressor": "running", "box_temp_f": 36.0}
    assert ("condenser_fan_stopped" in blocks(unit, seen, "charge_add")) == held


@pytest.mark.parametrize(
    ("minutes", "words"), [(4.0, "Only 4 min since the last change"), (14.9, "It still settles after the last change")]
)
def test_a_settling_clock_says_real_minutes(minutes, words):
    assert words in next(
        hold.text for hold in holds.standing(facts(FREEZER, sound(FREEZER, adjusted_min=minutes))) if hold.code == "settling"
    )


@pytest.mark.parametrize(
    ("phases", "key", "said"),
    [
        (None, "line_v_23", "not known"), (None, "line_v_31", "not known"), (None, "load_v_23", "not known"),
        (None, "pole_drop_v_3", "not known"),
        (1, "load_v_31", "says one phase"), (3, "line_v_23", ""), (None, "line_v_12", ""), (None, "pole_drop_v_2", ""),
    ],
)  # fmt: skip
def test_a_third_leg_on_a_plate_of_one_phase_is_said(phases, key, said):
    unit = unit_of(UnitSpec("display_freezer", "R-404A", phases=phases))
    found = [one for one in problems.found(readings.work_out(unit, {key: 196.0})) if one.code == "phases_differ"]
    assert [said in one.text and one.keys == (key,) for one in found] == ([True] if said else [])
