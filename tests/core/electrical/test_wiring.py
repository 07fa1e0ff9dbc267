"""What a person says of a unit's circuit, and the wires of its start gear by function."""

import pytest

from kettle.electrical import start_gear
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import solve
from kettle.electrical.wiring import START_GEAR, USUAL, Bank, Wiring, from_data, from_words
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import FieldErrors, InputError


def test_what_is_kept_is_read_back_and_what_is_missing_is_usual():
    said = Wiring(Bank(5, 800.0, "wye"), 4, "ptc", "transformer", 2, True, frozenset({"lp_switch"}))
    assert from_data(said.as_data()) == said and from_data({}) == USUAL


def test_what_is_typed_is_taken_or_told_by_field():
    assert from_words({"elements": "6", "element_w": "950,5", "relay": "yes"}) == Wiring(Bank(6, 950.5), relay=True)
    assert from_words({}, Wiring(fans=5)).fans == 5
    with pytest.raises(FieldErrors) as told:
        from_words({"elements": "0", "fans": "many", "element_w": "9000", "start_gear": "steam", "poles": "7"})
    assert set(told.value.by_field) == {"elements", "fans", "element_w", "start_gear", "poles"}
    assert "20 to 6000 W" in told.value.by_field["element_w"].replace(",", "") and "1 to 24" in told.value.by_field["elements"]


@pytest.mark.parametrize("gear", START_GEAR)
def test_wires_as_they_should_be_differ_in_nothing_whichever_way_they_are_run(gear):
    wires = start_gear.usual(gear)
    assert start_gear.differences(gear, wires) == []
    assert start_gear.differences(gear, [(other, one) for one, other in reversed(wires)]) == []
    assert len(start_gear.differences(gear, [])) == len(start_gear.JOINED[gear]), "nothing joined: every group is missing"


def test_capacitors_may_lie_either_way_round():
    swap = {"SC1": "SC2", "SC2": "SC1"}
    wires = [(swap.get(a, a), swap.get(b, b)) for a, b in start_gear.usual("potential")]
    assert start_gear.differences("potential", wires) == []


@pytest.mark.parametrize(("off", "on", "says"), [
    (("1", "SC2"), ("2", "SC2"), "goes round the relay's contact"),
    (("T1", "5"), ("T2", "5"), "coil lies on the wrong side"),
    (None, ("T1", "T2"), "a dead short across the line"),
    (("T1", "5"), ("S", "5"), "never pulls"),
    (None, ("1", "2"), "the contact is bridged"),
])  # fmt: skip
def test_each_wrong_wire_is_said_with_what_it_does(off, on, says):
    wires = [wire for wire in start_gear.usual("potential") if off is None or set(wire) != set(off)]
    told = start_gear.differences("potential", [*wires, on])
    assert any(says in words for words in told), told


def test_wires_that_cannot_be_are_refused_in_one_line():
    assert start_gear.checked("ptc", [("T1", "C"), ("C", "T1")]) == [("T1", "C")], "the same wire once"
    for wires, says in (
        ([("T1", "9")], "not on this start gear"),
        ([("T1", "T1")], "Both ends"),
        ([("T1",)], "two ends"),
        ([("T1", "C", "R")], "two ends"),
    ):
        with pytest.raises(InputError, match=says):
            start_gear.checked("potential", wires)
    with pytest.raises(InputError, match="none of"):
        start_gear.checked("steam", [])


def test_a_wire_from_point_to_point_carries_and_one_taken_away_does_not():
    unit = resolve(UnitSpec("walk_in_freezer", "R-404A", phases=1, nameplate_v=230.0, defrost="electric"))
    # Fans wired past their switches run in a defrost too; without the lead of one it stands.
    past = circuit_of(unit, Wiring(wires=frozenset({("F2", "K1")})))
    assert solve(past, "defrosting").runs("fan_1")[0] and not solve(circuit_of(unit), "defrosting").runs("fan_1")[0]
    assert not solve(circuit_of(unit, Wiring(without=frozenset({"fan_lead_1"}))), "calling").runs("fan_1")[0]
    kept = Wiring(wires=frozenset({("F2", "K1")}))
    assert from_data(kept.as_data()) == kept and from_data({"wires": ["K1-F2"]}) == kept
    assert circuit_of(unit, Wiring(wires=frozenset({("F2", "Q9")}))).parts == circuit_of(unit).parts
