"""What is there because somebody saw it, or measured it beyond doubt."""

import pytest

from kettle.judging.given import MOST, given, seen_there
from kettle.judging.readings import work_out
from kettle.knowledge.equipment import UnitSpec, resolve

FREEZER = resolve(UnitSpec("walk_in_freezer", "R-404A", set_f=-5, phases=3, nameplate_v=230))
COOLER = resolve(UnitSpec("walk_in_cooler", "R-134a", set_f=36))


def there(unit=FREEZER, **seen):
    return set(seen_there(work_out(unit, {key: float(one) if isinstance(one, int) else one for key, one in seen.items()})))


@pytest.mark.parametrize(
    ("seen", "code", "is_there"),
    [
        # A tenth of a megohm condemns (field guide, electrical).
        ({"winding_ground_ohm": 99_000}, "compressor_grounded", True),
        ({"winding_ground_ohm": 100_000}, "compressor_grounded", False),
        # 230 V less 13 % is 200.1 V.
        ({"line_v_12": 200}, "voltage_problem", True),
        ({"line_v_12": 201}, "voltage_problem", False),
        ({"line_v_12": 260}, "voltage_problem", True),
        ({"line_v_12": 259}, "voltage_problem", False),
        # 230, 230, 206 V: mean 222, the furthest 16 away, 7.2 %; 230, 230, 214: 4.7 %.
        ({"line_v_12": 230, "line_v_23": 230, "line_v_31": 206}, "voltage_problem", True),
        ({"line_v_12": 230, "line_v_23": 230, "line_v_31": 214}, "voltage_problem", False),
        ({"condenser_coil": "blocked"}, "condenser_dirty", True),
        ({"condenser_coil": "dusty"}, "condenser_dirty", False),
        ({"evap_fans": "stopped", "evap_fan_supply_v": 228}, "evap_fan_failed", True),
        ({"evap_fans": "stopped", "evap_fan_supply_v": 89}, "evap_fan_failed", False),
        ({"evap_fans": "stopped"}, "evap_fan_failed", False),
        ({"evap_fans": "stopped", "evap_fan_supply_v": 228, "fan_delay": "waits_cold"}, "evap_fan_failed", False),
        ({"condenser_fans": "stopped", "compressor": "running"}, "condenser_fan_failed", True),
        ({"condenser_fans": "stopped", "compressor": "off"}, "condenser_fan_failed", False),
        ({"condenser_fans": "stopped", "compressor": "running", "ambient_f": 40}, "condenser_fan_failed", False),
        ({"liquid_solenoid": "closed_no_pull", "control_call": "calling"}, "liquid_solenoid_closed", True),
        ({"liquid_solenoid": "closed_no_pull"}, "liquid_solenoid_closed", False),
        ({"liquid_solenoid": "closed_no_pull", "control_call": "in_defrost", "compressor": "off"}, "liquid_solenoid_closed", False),
    ],
)
def test_what_is_seen_is_there(seen, code, is_there):
    assert (code in there(**seen)) is is_there


@pytest.mark.parametrize(
    ("cut_in", "box", "switch", "is_there"),
    [
        # 44.4 psig of R-134a is 48.6 °F: at 48 °F the switch can never make, at 50 °F it can.
        (44.4, 48, "open", True),
        (44.4, 50, "open", False),
        (44.4, 48, "closed", False),
        (20.0, 48, "open", False),
    ],
)
def test_a_switch_whose_cut_in_the_box_cannot_reach_is_set_wrong(cut_in, box, switch, is_there):
    seen = {"lp_cut_in_psig": cut_in, "box_temp_f": box, "low_pressure_switch": switch}
    assert ("lp_control_misset" in there(COOLER, **seen)) is is_there


@pytest.mark.parametrize(("box", "is_there"), [(38, False), (39, False), (40, True)])
def test_a_switch_that_holds_the_box_rests_until_the_box_is_warm(box, is_there):
    # Set 36 °F, 3 °F of differential.
    by_suction = resolve(UnitSpec("walk_in_cooler", "R-134a", set_f=36, box_control="suction_pressure"))
    seen = {"lp_cut_in_psig": 44.4, "box_temp_f": box, "low_pressure_switch": "open"}
    assert ("lp_control_misset" in there(by_suction, **seen)) is is_there


# Set 36 °F, 3 °F of differential; a display is right within 3 °F.
@pytest.mark.parametrize(
    ("box", "error", "more", "is_there"),
    [
        (41, -5, {}, True),
        (41, -3, {}, False),  # inside what a display may be off
        (41, 5, {}, False),  # it shows 46 and should bring the box down: it does not do as it is told
        (30, 6, {}, True),
        (39, -4, {}, False),  # within its differential
        (45, -4, {}, False),  # shows 41: warmer than it is told to hold
        (41, -5, {"circuit_extra": "probe_wrong_role"}, False),
        (41, -5, {"complaint": ("first_start",)}, False),
        (41, -5, {"since_defrost_min": 20.0, "box_trend": "steady"}, False),
        (41, -5, {"since_defrost_min": 46.0, "box_trend": "steady"}, True),
        (41, -5, {"door": "left_open", "box_trend": "rising"}, False),
        # Exactly what is let pass, and exactly its differential.
        (41, -3.1, {}, True),
        (39.1, -6, {}, True),
        (39.1, -6.2, {}, False),
        (41, -5, {"box_trend": "falling"}, True),
    ],
)
def test_a_box_off_by_as_much_as_its_display_does_as_it_is_told(box, error, more, is_there):
    seen = {"box_temp_f": box, "sensor_error_f": error, "circuit_extra": "nothing", **more}
    assert ("stat_calibration" in there(COOLER, **seen)) is is_there
    # Sensors that changed places show the same until it was looked.
    del seen["circuit_extra"]
    assert "stat_calibration" not in there(COOLER, **seen)


def test_no_more_than_three_are_held_at_once():
    seen = {"condenser_coil": "blocked", "door": "gasket_gap", "drain": "blocked", "evap_coil": "dirty"}
    facts = work_out(FREEZER, seen)
    assert len(seen_there(facts)) == 4 and len(given([facts], [])) == MOST == 3
