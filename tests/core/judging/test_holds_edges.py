"""Every hold from one state in which it stands: each thing it asks for, changed by itself, lifts it or leaves it."""

import pytest

from kettle.judging import holds, readings
from kettle.knowledge.equipment import UnitSpec, resolve

COOLER = resolve(UnitSpec("walk_in_cooler", "R-134a", set_f=36))
TRIM = resolve(UnitSpec("reach_in_cooler", "R-134a", set_f=37, critical_charge_oz=9.0))
ON_WATER = resolve(UnitSpec("provision_room_cooler", "R-134a", set_f=36))
BUBBLES = {
    "sight_glass": "flashing", "evap_fans": "running", "condenser_coil": "clean", "condenser_fans": "running", "ambient_f": 80.0,
    "receiver_level_pct": 50.0,
}  # fmt: skip
OUTSIDE_SOUND = {
    "evap_fans": "running", "condenser_coil": "clean", "condenser_fans": "running", "compressor": "running", "box_temp_f": 44.0,
}  # fmt: skip
WAITING = {"evap_fans": "stopped", "fan_delay": "waits_cold", "receiver_level_pct": 5.0}


def stands(unit, seen, code, action=""):
    found = holds.standing(readings.work_out(unit, seen))
    return any(one.code == code and (not action or action in one.blocks) for one in found)


# unit, what stands, the hold, whether it stands.
ROWS = [
    # Bubbles alone: everything cleared and a second witness low lifts it; each of them by itself puts it back.
    (COOLER, BUBBLES, "glass_alone", True),
    (COOLER, BUBBLES | {"receiver_level_pct": 19.9}, "glass_alone", False),
    (COOLER, BUBBLES | {"receiver_level_pct": 20.0}, "glass_alone", True),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "evap_fans": "stopped"}, "glass_alone", True),
    (COOLER, BUBBLES | WAITING, "glass_alone", False),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "condenser_coil": "blocked"}, "glass_alone", True),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "condenser_coil": "blocked", "condenser_blocking": "on_purpose"}, "glass_alone", False),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "condenser_coil": "dusty"}, "glass_alone", False),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "condenser_fans": "slow"}, "glass_alone", True),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "condenser_fans": "cycling"}, "glass_alone", False),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "ambient_f": 59.9}, "glass_alone", True),
    (COOLER, BUBBLES | {"receiver_level_pct": 10.0, "ambient_f": 60.0}, "glass_alone", False),
    (ON_WATER, {"sight_glass": "flashing", "evap_fans": "running", "receiver_level_pct": 10.0}, "glass_alone", False),
    (COOLER, BUBBLES | {"sight_glass": "clear"}, "glass_alone", False),
    # Gas that was seen to get out is a witness by itself, and so is a low receiver with frost on the first passes alone.
    (COOLER, {"sight_glass": "few_bubbles", "leak_test": "found"}, "glass_alone", False),
    (COOLER, {"sight_glass": "few_bubbles", "oil_trace": "at_fitting"}, "glass_alone", False),
    (COOLER, {"sight_glass": "few_bubbles", "melt_water": "cloudy_foaming"}, "glass_alone", False),
    (COOLER, {"sight_glass": "few_bubbles", "melt_water": "clear"}, "glass_alone", True),
    (COOLER, {"sight_glass": "few_bubbles", "receiver_level_pct": 8.0, "ice_places": ("coil_inlet_passes",)}, "glass_alone", False),
    (COOLER, {"sight_glass": "few_bubbles", "receiver_level_pct": 8.0, "ice_places": ("coil_whole",)}, "glass_alone", True),
    # Critically charged: hoses wait until all outside is found right and the box is warm for it; then it is weighed.
    (TRIM, {}, "critical_charge gauges", True),
    (TRIM, OUTSIDE_SOUND, "critical_charge gauges", False),
    (TRIM, OUTSIDE_SOUND, "critical_charge", True),
    (TRIM, OUTSIDE_SOUND | {"charge_weighed": "yes"}, "critical_charge", False),
    (TRIM, OUTSIDE_SOUND | {"box_temp_f": 37.0 + TRIM.differential_f}, "critical_charge gauges", True),
    (TRIM, OUTSIDE_SOUND | {"box_temp_f": 37.1 + TRIM.differential_f}, "critical_charge gauges", False),
    (TRIM, OUTSIDE_SOUND | {"condenser_coil": "blocked"}, "critical_charge gauges", True),
    (TRIM, OUTSIDE_SOUND | {"condenser_fans": "stopped"}, "critical_charge gauges", True),
    (TRIM, OUTSIDE_SOUND | {"evap_fans": "some_stopped"}, "critical_charge gauges", True),
    (TRIM, OUTSIDE_SOUND | {"compressor": "short_cycling"}, "critical_charge gauges", True),
    (COOLER, {}, "critical_charge", False),
    # A receiver that is full, its glass clear or not looked at.
    (COOLER, {"receiver_level_pct": 75.0}, "glass_alone", True),
    (COOLER, {"receiver_level_pct": 74.9}, "glass_alone", False),
    # Fans: all of them, and not those that wait for a coil that only gas makes cold.
    (COOLER, {"evap_fans": "some_stopped"}, "fans_not_running charge_add", True),
    (COOLER, {"evap_fans": "running"}, "fans_not_running", False),
    (COOLER, {"evap_fans": "stopped", "control_call": "in_defrost"}, "fans_not_running", False),
    (COOLER, WAITING, "fans_not_running charge_add", False),
    (COOLER, WAITING, "fans_not_running txv_adjust", True),
    (COOLER, WAITING | {"receiver_level_pct": 50.0}, "fans_not_running charge_add", True),
    # No suction over a coil that is not cold asks for gas as a low receiver does.
    (COOLER, WAITING | {"receiver_level_pct": 50.0, "compressor": "running", "suction_psig": 3.0, "coil_outlet_feel": "warm"},
     "fans_not_running charge_add", False),
    (COOLER, WAITING | {"receiver_level_pct": 50.0, "compressor": "running", "suction_psig": 3.1, "coil_outlet_feel": "warm"},
     "fans_not_running charge_add", True),
    (COOLER, WAITING | {"receiver_level_pct": 50.0, "compressor": "running", "suction_psig": 1.0, "coil_outlet_feel": "frosted"},
     "fans_not_running charge_add", True),
    (COOLER, {"condenser_coil": "blocked"}, "condenser_blocked", True),
    (COOLER, {"condenser_coil": "blocked", "condenser_blocking": "on_purpose"}, "condenser_blocked", False),
    (COOLER, {"condenser_fans": "reversed"}, "condenser_fan_stopped", True),
    (COOLER, {"condenser_fans": "slow"}, "condenser_fan_stopped", False),
    # The stem: a box within 5 °F of set, or superheat far out with bulb, drier and supply cleared.
    (COOLER, {"box_temp_f": 41.0}, "box_far_from_set", False),
    (COOLER, {"box_temp_f": 41.1}, "box_far_from_set", True),
    (TRIM, {"box_temp_f": 60.0}, "box_far_from_set", False),
    (COOLER, {"bulb": "loose"}, "bulb_first", True),
    (COOLER, {"bulb": "tight_insulated"}, "bulb_first", False),
    (TRIM, {}, "bulb_first", False),
    # Lock-out: whatever wants ohms; a lone sign of trouble each.
    (COOLER, {"compressor": "running", "evap_fans": "running", "condenser_fans": "running"}, "lock_out", False),
    *((COOLER, trouble, "lock_out", True) for trouble in (
        {"compressor": "humming"}, {"compressor": "off"}, {"evap_fans": "held_by_ice"}, {"condenser_fans": "stopped"},
        {"contactor": "chattering"}, {"coil_after_defrost": "iced"})),
    (COOLER, {"compressor": "humming", "power_locked_out": "yes"}, "lock_out", False),
    # Ohms to ground.
    (COOLER, {"winding_ground_ohm": 1e6}, "grounded_compressor", False),
    (COOLER, {"winding_ground_ohm": 999_000.0}, "grounded_compressor", True),
    (COOLER, {"heater_ground_ohm": 1e6}, "grounded_heater", False),
    (COOLER, {"heater_ground_ohm": 999_000.0}, "grounded_heater", True),
    # Going in.
    (COOLER, {"inside_release": "works", "latch_blocked": "yes"}, "lone_working", False),
    (COOLER, {"inside_release": "works", "latch_blocked": "no"}, "lone_working", True),
    (COOLER, {"inside_release": "fails", "latch_blocked": "yes"}, "lone_working", True),
    (COOLER, {"inside_release": "fails", "latch_blocked": "yes", "someone_outside": "yes"}, "lone_working", False),
    (TRIM, {}, "lone_working", False),
    # As found first, until one of the settings was read.
    *((COOLER, touched, "as_found_first", True) for touched in (
        {"defrost_ended_by": "time"}, {"coil_after_defrost": "part_iced"}, {"controller_alarm": "sensor_fault"},
        {"compressor": "short_cycling"}, {"stat_cut_in_f": 40.0, "stat_cut_out_f": 35.0})),
    *((COOLER, {"defrost_ended_by": "time", key: 4.0}, "as_found_first", False) for key in (
        "defrost_set_min", "termination_f", "defrosts_per_day", "lp_cut_in_psig")),
    (COOLER, {"defrost_ended_by": "termination"}, "as_found_first", False),
    # Opening the circuit.
    (COOLER, {"oil_trace": "at_coil"}, "licensed_work", True),
    (COOLER, {"receiver_level_pct": 5.0}, "licensed_work", True),
    (COOLER, {"receiver_level_pct": 50.0}, "licensed_work", False),
    # Behind a receiver subcooling sets no charge until glass or level was looked at.
    (COOLER, {"discharge_psig": 120.0, "liquid_line_f": 90.0}, "receiver_subcooling", True),
    (COOLER, {"discharge_psig": 120.0, "liquid_line_f": 90.0, "sight_glass": "clear"}, "receiver_subcooling", False),
    (COOLER, {"discharge_psig": 120.0, "liquid_line_f": 90.0, "receiver_level_pct": 40.0}, "receiver_subcooling", False),
    (TRIM, {"discharge_psig": 120.0, "liquid_line_f": 90.0}, "receiver_subcooling", False),
]  # fmt: skip


@pytest.mark.parametrize(("unit", "seen", "hold", "there"), ROWS, ids=[f"{n} {row[2]}" for n, row in enumerate(ROWS)])
def test_a_hold_stands_where_it_should_and_nowhere_else(unit, seen, hold, there):
    code, _, action = hold.partition(" ")
    assert stands(unit, seen, code, action) is there


# Superheat 6 to 12 °F: from 18 °F on far out, where bulb, drier and supply are cleared.
CLEARED = {"bulb": "tight_insulated", "drier_drop_f": 3.0, "sight_glass": "clear", "box_temp_f": 60.0}


@pytest.mark.parametrize(
    ("superheat", "change", "waits"),
    [
        (18.0, {}, False),
        (17.9, {}, True),
        (18.0, {"drier_drop_f": 3.1}, True),
        (18.0, {"bulb": "loose"}, True),
        (18.0, {"sight_glass": "flashing"}, True),
    ],
)
def test_a_stem_need_not_wait_for_a_box_that_it_starves(superheat, change, waits):
    seen = CLEARED | {"suction_psig": COOLER.refrigerant.dew_psig(20), "suction_line_evap_f": 20.0 + superheat} | change
    assert stands(COOLER, seen, "box_far_from_set") is waits


@pytest.mark.parametrize("key", ["adjusted_min", "settled_min", "since_defrost_min"])
@pytest.mark.parametrize(("minutes", "holds_it"), [(14.9, True), (15.0, False)])
def test_a_circuit_settles_a_quarter_of_an_hour(key, minutes, holds_it):
    assert stands(COOLER, {key: minutes}, "settling", "txv_adjust") is holds_it
    assert stands(TRIM, {key: minutes}, "settling", "superheat_judge") is holds_it
    assert not stands(TRIM, {key: minutes}, "settling", "txv_adjust")
