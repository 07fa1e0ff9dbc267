"""Every quantity that is worked out, by hand; and where it must not be."""

import pytest

from kettle.judging.readings import derive
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.quantities import QUANTITIES

FREEZER = resolve(UnitSpec("walk_in_freezer", "R-404A", set_f=-5, phases=3, nameplate_v=230, compressor_rla_a=14.0))
PLATELESS = resolve(UnitSpec("walk_in_freezer", "R-404A", set_f=-5, phases=3))
COOLER = resolve(UnitSpec("walk_in_cooler", "R-448A", set_f=36, phases=1, nameplate_v=230, compressor_rla_a=10.0))
HIGH_UP = resolve(UnitSpec("walk_in_cooler", "R-134a", set_f=36, altitude_ft=6000))
ON_WATER = resolve(UnitSpec("provision_room_cooler", "R-134a", set_f=36))
HELD_HEAD = resolve(UnitSpec("walk_in_cooler", "R-134a", set_f=36, head_control="mixing_valve"))
SUCTION = {"suction_psig": COOLER.refrigerant.dew_psig(24)}
HEAD = {"discharge_psig": COOLER.refrigerant.bubble_psig(104)}
OHMS = {"winding_cs_ohm": 4.1, "winding_cr_ohm": 1.3, "winding_sr_ohm": 5.0}

# unit, what was seen, quantity, worth
BY_HAND = [
    (COOLER, SUCTION, "sst_f", 24.0),
    (COOLER, SUCTION, "sst_mid_f", (24.0 + COOLER.refrigerant.bubble_f(SUCTION["suction_psig"])) / 2),
    (COOLER, HEAD, "sct_f", 104.0),
    (COOLER, HEAD, "sct_dew_f", COOLER.refrigerant.dew_f(HEAD["discharge_psig"])),
    (COOLER, SUCTION | {"suction_line_evap_f": 33.5}, "superheat_evap_f", 9.5),
    (COOLER, SUCTION | {"suction_line_comp_f": 51.0}, "superheat_comp_f", 27.0),
    (COOLER, SUCTION | {"suction_line_evap_f": 33.5, "suction_line_comp_f": 51.0}, "line_gain_f", 17.5),
    (COOLER, HEAD | {"liquid_line_f": 97.5}, "subcooling_f", 6.5),
    # Where liquid stands at another pressure than the head, it is that which counts.
    (COOLER, HEAD | {"liquid_psig": COOLER.refrigerant.bubble_psig(99), "liquid_line_f": 97.5}, "subcooling_f", 1.5),
    (COOLER, SUCTION | {"box_temp_f": 37.0}, "td_f", 13.0),
    (COOLER, SUCTION | {"box_temp_f": 37.0, "return_air_f": 40.0}, "td_f", 16.0),
    (COOLER, {"return_air_f": 40.0, "supply_air_f": 31.0}, "delta_t_f", 9.0),
    (COOLER, HEAD | {"ambient_f": 81.0}, "split_f", 23.0),
    (ON_WATER, {"discharge_psig": ON_WATER.refrigerant.bubble_psig(92), "water_out_f": 84.0}, "approach_f", 8.0),
    (ON_WATER, {"water_in_f": 71.0, "water_out_f": 84.0}, "rise_f", 13.0),
    # 5.3 psig and 105.3 psig at the sea: 20 and 120 psia.
    (FREEZER, {"suction_psig": 5.304, "discharge_psig": 105.304}, "ratio", 6.0),
    # At 6,000 ft the air weighs 11.78 psia.
    (HIGH_UP, {"suction_psig": 8.22, "discharge_psig": 88.22}, "ratio", 5.0),
    # 228, 231, 240 V: mean 233, the furthest 7 away.
    (FREEZER, {"line_v_12": 228.0, "line_v_23": 231.0, "line_v_31": 240.0}, "volts_imbalance_pct", 3.004),
    (FREEZER, {"line_v_12": 228.0, "line_v_23": 231.0, "line_v_31": 207.0}, "volts_off_pct", -10.0),
    (FREEZER, {"line_v_12": 253.0, "line_v_23": 229.0}, "volts_off_pct", 10.0),
    # Without a plate against the usual supply they are nearest to, by share: 253 V is 8.7 % under 277 and 10 over 230.
    (PLATELESS, {"line_v_12": 103.5}, "volts_off_pct", -10.0),
    (PLATELESS, {"line_v_12": 187.2}, "volts_off_pct", -10.0),
    (PLATELESS, {"line_v_12": 253.0}, "volts_off_pct", -8.664),
    (PLATELESS, {"line_v_12": 437.0}, "volts_off_pct", -5.0),
    (PLATELESS, {"line_v_12": 126.5}, "volts_off_pct", 10.0),
    (PLATELESS, {"line_v_12": 460.0, "line_v_23": 460.0, "line_v_31": 437.0}, "volts_off_pct", -5.0),
    (FREEZER, {"line_v_12": 228.0, "load_v_12": 226.0, "line_v_23": 229.0, "load_v_23": 190.0}, "load_loss_v", 39.0),
    (FREEZER, {"compressor": "off", "contactor": "in", "line_v_12": 228.0, "load_v_12": 0.0}, "load_loss_v", 228.0),
    (FREEZER, {"compressor": "humming", "line_v_12": 228.0, "load_v_12": 190.0}, "load_loss_v", 38.0),
    (FREEZER, {"pole_drop_v_1": 0.3, "pole_drop_v_2": 6.1, "pole_drop_v_3": 0.2}, "pole_drop_v", 6.1),
    (COOLER, OHMS, "winding_highest_ohm", 5.0),
    # 4.1 + 1.3 = 5.4 against 5.0 Ω.
    (COOLER, OHMS, "winding_mismatch_pct", 8.0),
    (COOLER, {"heater_volts": 230.0, "heater_amps": 9.0, "heater_rated_w": 2300.0}, "heater_pct", 90.0),
    # Three phases: 230 V · 9 A · √3 = 3,585 W.
    (FREEZER, {"heater_volts": 230.0, "heater_amps": 9.0, "heater_rated_w": 3585.3}, "heater_pct", 100.0),
    (FREEZER, {"heater_volts": 230.0, "heater_amps": 0.3}, "heater_pct", 0.0),
    (FREEZER, {"defrosts_per_day": 4.0, "defrost_set_min": 30.0}, "defrost_min_a_day", 120.0),
    (COOLER, {"stat_cut_out_f": 35.0, "stat_cut_in_f": 40.0}, "stat_span_f", 5.0),
    (COOLER, {"stat_cut_out_f": 35.0, "stat_cut_in_f": 40.0}, "stat_off_f", 1.5),
    (COOLER, {"lp_cut_in_psig": COOLER.refrigerant.dew_psig(20)}, "lp_cut_in_off_f", -16.0),
    (COOLER, SUCTION | {"low_pressure_switch": "open"}, "lp_open_off_f", -12.0),
    (COOLER, {"suction_psig": 29.0}, "over_pump_down_psi", 24.0),
    (COOLER, SUCTION | {"box_temp_f": 48.0, "suction_line_evap_f": 46.0}, "line_under_air_f", 2.0),
    (COOLER, {"liquid_line_f": 97.5, "liquid_line_valve_f": 61.0}, "liquid_drop_f", 36.5),
    (COOLER, {"product_temp_f": 47.0, "box_temp_f": 38.0}, "product_over_air_f", 9.0),
    (COOLER, {"regulator_before_psig": 52.0, "regulator_after_psig": 31.0}, "regulator_drop_psi", 21.0),
    (COOLER, {"compressor_amps": 7.5}, "amps_pct", 75.0),
    (COOLER, SUCTION | {"compressor": "off", "box_temp_f": 41.0}, "rest_off_f", -17.0),
    (COOLER, {"box_temp_f": 44.0, "box_trend": "steady"}, "held_warm_f", 8.0),
    (COOLER, {"box_temp_f": 31.0, "box_trend": "rising"}, "held_warm_f", -5.0),
    (COOLER, {"resting_psig": COOLER.refrigerant.bubble_psig(90), "ambient_f": 71.0}, "rest_over_air_f", 19.0),
    # The middle of the split of a walk-in cooler, 15 to 30 °F, over 80 °F air: 102.5 °F.
    (HIGH_UP, {"ambient_f": 80.0}, "expected_head_psig", HIGH_UP.refrigerant.bubble_psig(102.5, 6000)),
    # Water: the middle of the approach, 4 to 14 °F.
    (ON_WATER, {"water_out_f": 84.0}, "expected_head_psig", ON_WATER.refrigerant.bubble_psig(93)),
    # A head that is held stands at 85 °F on a cold day, and where the day wants it on a warm one.
    (HELD_HEAD, {"ambient_f": 20.0}, "expected_head_psig", HELD_HEAD.refrigerant.bubble_psig(85)),
    (HELD_HEAD, {"ambient_f": 80.0}, "expected_head_psig", HELD_HEAD.refrigerant.bubble_psig(102.5)),
]


@pytest.mark.parametrize(("unit", "seen", "quantity", "worth"), BY_HAND, ids=[f"{n} {row[2]}" for n, row in enumerate(BY_HAND)])
def test_a_quantity_is_what_it_is_by_hand(unit, seen, quantity, worth):
    assert derive(unit, seen)[quantity] == pytest.approx(worth, rel=2e-3, abs=0.05)


def test_every_quantity_is_worked_by_hand():
    assert {row[2] for row in BY_HAND} == set(QUANTITIES)


@pytest.mark.parametrize(
    ("unit", "seen", "quantity"),
    [
        # One refrigerant has no middle; a pair has no imbalance; two windings no mismatch.
        (HIGH_UP, {"suction_psig": 20.0}, "sst_mid_f"),
        (HIGH_UP, {"discharge_psig": 120.0}, "sct_dew_f"),
        (FREEZER, {"line_v_12": 228.0, "line_v_23": 231.0}, "volts_imbalance_pct"),
        (COOLER, {"winding_cs_ohm": 4.1, "winding_cr_ohm": 1.3}, "winding_mismatch_pct"),
        # A unit that stands holds no suction over its pump-down, and one that runs none at rest.
        (COOLER, SUCTION | {"compressor": "off"}, "over_pump_down_psi"),
        (COOLER, SUCTION | {"compressor": "running", "box_temp_f": 41.0}, "rest_off_f"),
        # TD 14 °F of 8 to 15 is not wide.
        (COOLER, SUCTION | {"box_temp_f": 38.0, "suction_line_evap_f": 34.0}, "line_under_air_f"),
        # Where nothing heats the program alone says little.
        (COOLER, {"defrosts_per_day": 4.0, "defrost_set_min": 30.0}, "defrost_min_a_day"),
        (COOLER, {"box_temp_f": 44.0, "box_trend": "falling"}, "held_warm_f"),
        (COOLER, {"box_temp_f": 44.0, "box_trend": "rising", "door": "left_open"}, "held_warm_f"),
        (COOLER, SUCTION | {"low_pressure_switch": "open", "control_call": "satisfied"}, "lp_open_off_f"),
        (COOLER, SUCTION | {"low_pressure_switch": "open", "control_call": "in_defrost"}, "lp_open_off_f"),
        (COOLER, SUCTION | {"low_pressure_switch": "closed"}, "lp_open_off_f"),
        # In a vacuum as deep as none there is no ratio; water has no split.
        (FREEZER, {"suction_psig": -14.7, "discharge_psig": 105.3}, "ratio"),
        (ON_WATER, {"discharge_psig": 120.0, "ambient_f": 80.0}, "split_f"),
        (COOLER, {"discharge_psig": 120.0, "water_out_f": 80.0}, "approach_f"),
        # Behind an open contactor nothing is lost; a heater that draws what a clamp can read is not dead.
        (FREEZER, {"contactor": "out", "line_v_12": 228.0, "load_v_12": 0.0}, "load_loss_v"),
        # Nor where nobody looked whether it is in, on a compressor that is silent.
        (FREEZER, {"compressor": "off", "line_v_12": 228.0, "load_v_12": 0.0}, "load_loss_v"),
        (FREEZER, {"heater_volts": 230.0, "heater_amps": 0.4}, "heater_pct"),
        (FREEZER, {"heater_volts": 89.0, "heater_amps": 0.0}, "heater_pct"),
        (resolve(UnitSpec("walk_in_cooler", "R-448A")), {"compressor_amps": 7.5}, "amps_pct"),
    ],
)
def test_what_cannot_be_worked_out_is_left_out(unit, seen, quantity):
    assert quantity not in derive(unit, seen)
