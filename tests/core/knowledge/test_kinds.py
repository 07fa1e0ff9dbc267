"""One hand-worked, sound unit of every kind: figures a technician would write down, and every verdict ok."""

import pytest

from kettle.judging import readings, verdicts
from kettle.knowledge import bands
from kettle.knowledge.equipment import KINDS, UnitSpec, builds_of, check_figure, resolve
from kettle.knowledge.errors import InputError
from kettle.plant.simulate import PRESETS

# kind, refrigerant, SST, SCT, superheat coil, gain, subcooling, box, air or water in: each worked by hand from the bands.
BY_HAND = [
    ("walk_in_cooler", "R-448A", 25, 105, 8, 12, 4, 36, 82),
    ("walk_in_freezer", "R-404A", -16, 98, 7, 14, 4, -5, 80),
    ("reach_in_cooler", "R-134a", 18, 110, 9, 12, 9, 38, 82),
    ("reach_in_freezer", "R-290", -17, 105, 9, 15, 9, 1, 80),
    ("prep_rail", "R-290", 15, 105, 9, 12, 9, 37, 78),
    ("display_cooler", "R-449A", 20, 105, 8, 14, 5, 35, 78),
    ("display_freezer", "R-404A", -13, 98, 7, 14, 5, 0, 76),
    ("bottle_cooler", "R-134a", 17, 108, 10, 12, 8, 37, 80),
    ("provision_room_cooler", "R-407F", 25, 95, 8, 12, 4, 36, 70),
    ("provision_room_freezer", "R-404A", -16, 92, 7, 14, 4, -5, 70),
]


@pytest.mark.parametrize("row", BY_HAND, ids=lambda row: row[0])
def test_a_sound_unit_of_every_kind_reads_as_worked_by_hand(row):
    kind, refrigerant, sst, sct, superheat, gain, subcooling, box, coolant = row
    unit = resolve(UnitSpec(kind=kind, refrigerant=refrigerant, set_f=float(box), compressor_rla_a=10.0))
    seen = {
        "suction_psig": unit.refrigerant.dew_psig(sst),
        "discharge_psig": unit.refrigerant.bubble_psig(sct),
        "suction_line_evap_f": float(sst + superheat),
        "suction_line_comp_f": float(sst + superheat + gain),
        "liquid_line_f": float(sct - subcooling),
        "box_temp_f": float(box),
        "compressor": "running",
    }
    seen |= {"water_in_f": float(coolant), "water_out_f": coolant + 12.0} if unit.condensing == "water" else {"ambient_f": float(coolant)}
    facts = readings.work_out(unit, seen)
    hand = {"superheat_evap_f": superheat, "superheat_comp_f": superheat + gain, "subcooling_f": subcooling, "td_f": box - sst}
    hand |= {"approach_f": sct - coolant - 12, "rise_f": 12} if unit.condensing == "water" else {"split_f": sct - coolant}
    for key, value in hand.items():
        assert facts.derived[key] == pytest.approx(value, abs=0.05), key
    states = {v.quantity: v.state for v in verdicts.on(facts) if v.quantity in hand}
    assert states == dict.fromkeys(hand, "ok")
    assert "expected_head_psig" in facts.derived


def test_every_kind_is_worked():
    assert {row[0] for row in BY_HAND} == set(KINDS)


def test_on_water_approach_and_rise_stand_in_place_of_split():
    unit = resolve(UnitSpec(kind="provision_room_cooler", refrigerant="R-404A"))
    # R-404A: bubble at 200 psig is 88.7 °F.
    derived = readings.derive(unit, {"discharge_psig": 200.0, "water_in_f": 68.0, "water_out_f": 80.0})
    assert derived["rise_f"] == pytest.approx(12)
    assert derived["approach_f"] == pytest.approx(8.7, abs=0.4)
    assert derived["expected_head_psig"] == pytest.approx(unit.refrigerant.bubble_psig(89.0))
    assert "split_f" not in derived


def test_a_head_control_holds_the_head_up_in_the_cold():
    plain, held = (
        resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", head_control=control)) for control in ("none", "mixing_valve")
    )
    seen = {"ambient_f": 30.0, "discharge_psig": plain.refrigerant.bubble_psig(88.0), "suction_psig": 20.0}
    assert readings.derive(plain, seen)["expected_head_psig"] == pytest.approx(plain.refrigerant.bubble_psig(48.5))
    assert readings.derive(held, seen)["expected_head_psig"] == pytest.approx(plain.refrigerant.bubble_psig(bands.HELD_SCT_F))
    split = {name: {v.quantity: v for v in verdicts.on(readings.work_out(unit, seen))}["split_f"] for name, unit in
             (("plain", plain), ("held", held))}  # fmt: skip
    assert split["plain"].state == "high"
    assert split["held"].state == "ok"
    assert "head control" in split["held"].why


@pytest.mark.parametrize(
    ("value", "says"), [(9, "9 is outside 1 to 8"), (10**400, "that is outside 1 to 8"), (-(10**400), "that is outside")]
)
def test_a_figure_of_the_plate_is_held_against_its_limits_however_long_it_is(value, says):
    with pytest.raises(InputError, match=says):
        check_figure("evaporators", value)
    assert check_figure("evaporators", 8) == 8


@pytest.mark.parametrize("kind", KINDS)
def test_a_kind_stands_in_every_table_that_asks_for_it(kind):
    # What docs/architecture.md names for a new one; whoever forgets a table hears of it here.
    assert {"box_temp_f", "td_f", "txv", "superheat_comp_f", "split_f", "subcooling_f"} <= set(bands.BY_KIND[kind])
    assert builds_of(kind) and PRESETS[kind].kind == kind
    assert 1.0 <= KINDS[kind].face_ft2 <= 10.0 and 2000 <= KINDS[kind].capacity_btu_h <= 20_000
