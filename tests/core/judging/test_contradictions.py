"""Readings that cannot be right together: each just inside and just outside of where they begin to contradict."""

import pytest

from kettle.judging import problems, readings
from kettle.knowledge.equipment import UnitSpec, resolve

AIR = resolve(UnitSpec("walk_in_cooler", "R-134a", set_f=36))
FREEZER = resolve(UnitSpec("walk_in_freezer", "R-134a", set_f=0))
WATER = resolve(UnitSpec("provision_room_cooler", "R-134a", set_f=36))
RUNS = {"compressor": "running", "evap_fans": "running"}


def head(sct_f):
    return {"discharge_psig": AIR.refrigerant.bubble_psig(sct_f)}


def suction(sst_f):
    return {"suction_psig": AIR.refrigerant.dew_psig(sst_f)}


def found(unit, seen):
    return {(one.code, one.keys) for one in problems.found(readings.work_out(unit, seen))}


# keys, just inside, just outside.
CONFLICTS = [
    (("liquid_line_f", "ambient_f"), {"liquid_line_f": 74.0, "ambient_f": 80.0}, {"liquid_line_f": 73.9, "ambient_f": 80.0}),
    (
        ("liquid_line_f", "ambient_f"),
        {"liquid_line_f": 60.0, "ambient_f": 80.0, "compressor": "off"},
        {"liquid_line_f": 60.0, "ambient_f": 80.0},
    ),
    (("liquid_line_f", "discharge_psig"), head(100) | {"liquid_line_f": 107.9}, head(100) | {"liquid_line_f": 108.2}),
    (
        ("suction_line_comp_f", "suction_line_evap_f"),
        suction(20) | {"suction_line_evap_f": 40.0, "suction_line_comp_f": 34.1},
        suction(20) | {"suction_line_evap_f": 40.0, "suction_line_comp_f": 33.9},
    ),
    (
        ("supply_air_f", "return_air_f"),
        RUNS | {"return_air_f": 36.0, "supply_air_f": 39.0},
        RUNS | {"return_air_f": 36.0, "supply_air_f": 39.1},
    ),
    (
        ("supply_air_f", "return_air_f"),
        {"compressor": "running", "evap_fans": "stopped", "return_air_f": 36.0, "supply_air_f": 45.0},
        RUNS | {"return_air_f": 36.0, "supply_air_f": 45.0},
    ),
    (
        ("discharge_line_f", "discharge_psig"),
        RUNS | head(100) | {"discharge_line_f": 92.1},
        RUNS | head(100) | {"discharge_line_f": 91.9},
    ),
    (("box_temp_f", "return_air_f"), {"box_temp_f": 36.0, "return_air_f": 51.0}, {"box_temp_f": 36.0, "return_air_f": 51.1}),
    (("box_temp_f", "return_air_f"), {"box_temp_f": 36.0, "return_air_f": 21.0}, {"box_temp_f": 36.0, "return_air_f": 20.9}),
    (("compressor", "compressor_amps"), {"compressor": "off", "compressor_amps": 1.0}, {"compressor": "off", "compressor_amps": 1.1}),
    (("compressor", "contactor"), {"compressor": "off", "contactor": "out"}, {"compressor": "running", "contactor": "out"}),
    (
        ("receiver_level_pct", "sight_glass"),
        {"sight_glass": "clear", "receiver_level_pct": 3.1},
        {"sight_glass": "clear", "receiver_level_pct": 3.0},
    ),
    (
        ("evap_fans", "fans_still"),
        {"evap_fans": "running", "fans_still": ("none",)},
        {"evap_fans": "running", "fans_still": ("fan_2",)},
    ),
]


@pytest.mark.parametrize(("keys", "inside", "outside"), CONFLICTS)
def test_two_readings_contradict_from_a_limit_on(keys, inside, outside):
    assert ("readings_conflict", keys) not in found(AIR, inside)
    assert ("readings_conflict", keys) in found(AIR, outside)


@pytest.mark.parametrize(("water_out", "told"), [(68.0, False), (67.9, True)])
def test_water_that_leaves_colder_than_it_came(water_out, told):
    seen = {"water_in_f": 70.0, "water_out_f": water_out}
    assert (("readings_conflict", ("water_out_f", "water_in_f")) in found(WATER, seen)) is told
    assert ("readings_conflict", ("water_out_f", "water_in_f")) not in found(WATER, seen | {"compressor": "off"})


def test_every_contradiction_has_both_its_sides():
    assert {keys for keys, _, _ in CONFLICTS} | {("water_out_f", "water_in_f")} == {rule.keys for rule in problems.CONFLICTS}


@pytest.mark.parametrize(
    ("seen", "keys", "told"),
    [
        # The coil may read 3 °F warmer than its air, and the condenser 3 °F colder than its own, before a gauge is doubted.
        (suction(39) | {"box_temp_f": 36.1}, ("suction_psig",), False),
        (suction(39) | {"box_temp_f": 35.9}, ("suction_psig",), True),
        (suction(39) | {"box_temp_f": 35.9, "compressor": "off"}, ("suction_psig",), False),
        (head(77) | {"ambient_f": 79.9}, ("discharge_psig",), False),
        (head(77) | {"ambient_f": 80.1}, ("discharge_psig",), True),
        (head(77) | {"ambient_f": 80.1, "compressor": "tripping"}, ("discharge_psig",), False),
        # Nothing is below a full vacuum, 14.7 psi under the air at the sea.
        ({"suction_psig": -14.6}, ("suction_psig",), False),
        ({"suction_psig": -14.8}, ("suction_psig",), True),
        # R-134a shows no 700 psig in service.
        ({"discharge_psig": 700.0}, ("discharge_psig",), True),
        ({"suction_psig": 60.0, "discharge_psig": 60.0}, ("suction_psig", "discharge_psig"), True),
        ({"suction_psig": 60.0, "discharge_psig": 60.1}, ("suction_psig", "discharge_psig"), False),
        ({"suction_psig": 60.0, "discharge_psig": 60.0, "compressor": "humming"}, ("suction_psig", "discharge_psig"), False),
    ],
)
def test_a_pressure_that_cannot_be(seen, keys, told):
    assert (("impossible_pressure", keys) in found(AIR, seen)) is told


@pytest.mark.parametrize(("suction_psig", "told"), [(-0.1, True), (0.0, False), (-14.6, True), (-14.8, False)])
def test_a_vacuum_on_the_suction_is_said(suction_psig, told):
    assert (("vacuum", ("suction_psig",)) in found(FREEZER, {"suction_psig": suction_psig})) is told


@pytest.mark.parametrize(("display", "told"), [(39.0, False), (39.1, True), (33.0, False), (32.9, True)])
def test_a_display_off_ones_own_thermometer_is_said(display, told):
    seen = {"display_temp_f": display, "box_temp_f": 36.0}
    assert (("sensor_disagrees", ("display_temp_f", "box_temp_f")) in found(AIR, seen)) is told


# SST −12 °F; superheat 4 to 10 °F on a frozen walk-in: a line of −5 °F typed as 5 °F stands 17 °F over it, warmer than a box of 0 °F.
@pytest.mark.parametrize(
    ("line", "box", "told"),
    [
        (5.0, 0.0, True),
        (5.0, 1.5, False),  # no warmer than its air may be: a starved coil
        (3.9, -9.0, False),  # a sign this small tells nothing
        (10.0, 0.0, True),  # −10 °F: 2 °F, as far under its band as is let pass
        (10.2, 0.0, False),
        (-13.0, 20.0, False),  # 13 °F the other way round is no sound line either
    ],
)
def test_a_sign_that_may_be_turned_round(line, box, told):
    seen = suction(-12) | {"suction_line_evap_f": line, "box_temp_f": box}
    assert (("reversed_sign", ("suction_line_evap_f",)) in found(FREEZER, seen)) is told


@pytest.mark.parametrize(("superheat", "told"), [(-3.0, False), (-3.1, True)])
def test_superheat_that_cannot_be(superheat, told):
    seen = suction(20) | {"suction_line_evap_f": 20.0 + superheat}
    assert (("negative_superheat", ("suction_line_evap_f", "suction_psig")) in found(AIR, seen)) is told
