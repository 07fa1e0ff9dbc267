"""What is proved, found beside left, what is promised, and a shop's own record."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.prove import held, promised, proofs
from kettle.benches.prove.beside import beside
from kettle.judging.judge import judge
from kettle.knowledge.acts import ACTS
from kettle.knowledge.equipment import UnitSpec, resolve

COOLER = resolve(UnitSpec("walk_in_cooler", "R-448A", receiver=True))
FREEZER = resolve(UnitSpec("walk_in_freezer", "R-404A", phases=3))
REACH_IN = resolve(UnitSpec("reach_in_cooler", "R-134a"))


def told(done, unit=COOLER, **since):
    return {code: proofs.proof_of(code, proofs.Since(unit, **since), by) for code, by in proofs.wanted(unit, done).items()}


def test_a_valve_turned_is_proved_by_set_superheat_and_glass():
    open_ = told(["valve.turned_in"])
    assert list(open_) == ["at_set", "superheat", "glass"] and {one.state for one in open_.values()} == {proofs.OPEN}
    shut = told(["valve.turned_in"], seen={"box_temp_f": 37.0, "sight_glass": "clear"}, verdicts={"superheat_evap_f": "ok"})
    assert {one.state for one in shut.values()} == {proofs.PROVED}
    leaving = proofs.may_leave(list(shut.values()))
    assert leaving.may and leaving.says == "May be left" and len(leaving.reasons) == 3
    warm = told(["valve.turned_in"], seen={"box_temp_f": 44.0, "sight_glass": "flashing"}, verdicts={"superheat_evap_f": "high"})
    assert [one.state for one in warm.values()] == [proofs.OPEN, proofs.AGAINST, proofs.AGAINST]
    waits = proofs.may_leave(list(warm.values()), pull_down_min=95.0)
    clock = proofs.may_leave(list(told(["condenser_fan.replaced"]).values()), settles_min=13.0)
    assert dict(clock.missing)["Split in band"] == 13.0 and dict(clock.missing)["Amps on each leg"] == 3.0
    assert (
        not waits.may
        and waits.says == "Not yet: something speaks against it"
        and dict(waits.missing)["Box at set: 44.0 °F, set 36.0 °F"] == 95.0
    )


def test_a_control_wants_two_cycles_a_defrost_its_end_and_three_legs_their_amps():
    assert told(["pressure_control.adjusted"], cycles=1)["cycles"].says == "1 of 2 watched"
    assert told(["pressure_control.adjusted"], cycles=2)["cycles"].state == proofs.PROVED
    assert told(["pressure_control.adjusted"], cycles=3, cycles_wide=1)["cycles"].state == proofs.AGAINST
    program = told(["program.changed"], FREEZER, ended_by="time", coil_bare=False, seen={"drain": "running"})
    assert [program[code].state for code in ("defrost", "coil", "water")] == [proofs.AGAINST, proofs.AGAINST, proofs.PROVED]
    assert told(["program.changed"], FREEZER, ended_by="termination", coil_bare=True)["defrost"].state == proofs.PROVED
    assert "defrost" not in told(["program.changed"], COOLER)
    legs = told(["contactor.replaced"], FREEZER, amps_legs=2, starts=1, seen={"compressor_amps": 9.0})
    assert legs["amps"].says == "2 of 3 legs" and legs["starts"].says == "1 of 2 starts"
    assert told(["contactor.replaced"], REACH_IN, seen={"compressor_amps": 3.0}, starts=2)["amps"].state == proofs.PROVED


def test_a_new_sensor_is_proved_by_a_display_that_agrees():
    assert list(told(["sensor.replaced"])) == ["at_set", "satisfied", "display"]
    assert told(["sensor.replaced"])["display"].state == proofs.OPEN
    good = told(["sensor.replaced"], seen={"sensor_error_f": 0.4}, verdicts={"sensor_error_f": "ok"})["display"]
    bad = told(["sensor.moved"], seen={"sensor_error_f": -4.0}, verdicts={"sensor_error_f": "low"})["display"]
    assert (good.state, good.says) == (proofs.PROVED, "off by 0.4 °F")
    assert (bad.state, bad.says) == (proofs.AGAINST, "off by −4.0 °F")


def test_what_was_tapped_counts_where_nothing_speaks_against_it():
    assert told(["evap_fan.replaced"], tapped=frozenset({"at_set"}))["at_set"].state == proofs.PROVED
    assert told(["evap_fan.replaced"], seen={"air_weak_at": ["door_2"]}, tapped=frozenset({"air"}))["air"].state == proofs.AGAINST
    assert told(["evap_fan.replaced"], seen={"air_weak_at": ["nowhere"]})["air"].state == proofs.PROVED
    assert (
        told(["leak.repaired"], held=False)["held"].state == proofs.AGAINST
        and told(["leak.repaired"], held=True)["held"].state == proofs.PROVED
    )


def test_every_part_that_can_be_worked_on_is_proved_by_something():
    assert {code.partition(".")[0] for code in ACTS} <= set(proofs.BY_PART) and set(proofs.BY_ACT) <= set(ACTS)
    assert list(proofs.wanted(FREEZER, ["wiring.output_moved"])) == ["at_set", "air"]
    assert list(proofs.wanted(FREEZER, ["wiring.put_right"])) == ["at_set", "amps", "starts"]
    assert all(code in proofs.KINDS for wanted in proofs.BY_PART.values() for code in wanted)
    assert list(proofs.wanted(COOLER, [])) == ["at_set"] and proofs.wanted(COOLER, ["charge.recovered"]) == {}
    assert proofs.wanted(COOLER, ["leak.repaired", "charge.added"])["held"] == ("leak.repaired",)


@given(st.lists(st.sampled_from(sorted(ACTS)), max_size=6), st.sets(st.sampled_from(sorted(proofs.KINDS))))
def test_what_may_be_left_has_nothing_missing_whatever_was_done(done, tapped):
    for unit in (COOLER, FREEZER, REACH_IN):
        found = list(told(done, unit, tapped=frozenset(tapped)).values())
        leaving = proofs.may_leave(found)
        assert leaving.may == (not leaving.missing) and len(leaving.reasons) + len(leaving.missing) == len(found)
        assert len({one.kind.code for one in found}) == len(found)


def test_found_beside_left_with_limits():
    found = judge(COOLER, {"box_temp_f": 44.0, "suction_psig": 30.0, "suction_line_evap_f": 40.0})
    now = judge(COOLER, {"box_temp_f": 36.0, "suction_psig": 44.0, "suction_line_evap_f": 33.0, "return_air_f": 36.5})
    rows = {row.quantity: row for row in beside(found.facts, now.facts, now.verdicts, {}, True)}
    assert (rows["box_temp_f"].found, rows["box_temp_f"].left) == ("44.0 °F", "36.0 °F")
    assert rows["superheat_evap_f"].state in ("pass", "fail") and " to " in rows["superheat_evap_f"].limits
    assert rows["return_air_f"].found == "" and list(rows)[0] == "box_temp_f"
    waiting = {row.quantity: row.state for row in beside(found.facts, now.facts, now.verdicts, {}, False)}
    assert waiting["superheat_evap_f"] == "waits"


def test_what_was_read_before_the_last_act_is_no_figure_as_left():
    ages = {"box_temp_f": 30.0, "suction_psig": 2.0, "return_air_f": 2.0}
    now = judge(COOLER, {"box_temp_f": 44.0, "suction_psig": 44.0, "return_air_f": 43.0}, ages_min=ages)
    rows = {row.quantity: row for row in beside(now.facts, now.facts, now.verdicts, {}, True, done_min=10.0)}
    assert (rows["box_temp_f"].found, rows["box_temp_f"].left, rows["box_temp_f"].state) == ("44.0 °F", "", "waits")
    assert rows["return_air_f"].left == "43.0 °F" and rows["suction_psig"].left != ""


def codes(done=(), unit=COOLER, **left):
    return [one.code for one in promised.proposed(promised.Left(unit, done, **left))]


def test_what_to_come_back_for():
    assert codes(melted=True) == ["melted"] and codes(melted=True, ice_left=True) == ["ice_left"]
    assert codes(["valve.exercised"]) == ["valve_freed"] and codes(["valve.exercised", "valve.replaced"]) == []
    cold = {"ambient_f": 48.0}
    assert codes(["charge.weighed_in"], seen=cold) == ["cold_charge"]
    assert codes(["charge.added"], seen=cold) == ["gas_added", "cold_charge"]
    assert codes(["charge.added", "leak.repaired"], seen={"ambient_f": 80.0}) == []
    assert codes(["charge.weighed_in"], REACH_IN, seen=cold) == [] and codes(["charge.added", "leak.given_up"]) == ["leak_open"]
    assert codes(temporary=("output moved",), proved=False, quote_waits=True) == ["temporary", "quote", "not_proved"]
    assert all(one.days[0] <= one.days[1] and one.what and one.why for one in promised.PROPOSALS.values())


def case(
    suspect="undercharge", probability=0.9, found="undercharge", minutes=40.0, done=("charge.added",), answer="held", unit="A", year=2026
):
    return held.Case((suspect,), probability, (found,) if found else (), minutes, done, answer, unit, year)


def test_a_shops_record_by_hand():
    cases = [case(), case(found="liquid_restriction"), case(probability=0.6, answer="came_back"), case(found="", answer=""),
             case(probability=0.6, minutes=90.0, answer="came_back", unit="B", year=2025)]  # fmt: skip
    told = held.record(cases)
    assert (told.first_right.of, told.first_right.count) == (3, 4) and told.minutes == 40.0
    assert [(one.name, one.of, one.count) for one in told.by_probability] == [("50 to 70 %", 2, 2), ("85 to 95 %", 1, 2)]
    assert told.by_probability[0].mean == pytest.approx(0.6)
    assert {one.name: (one.of, one.count) for one in told.by_cause} == {"undercharge": (3, 3), "liquid_restriction": (0, 1)}
    assert (told.back.of, told.back.count) == (2, 4) and told.back_by_unit[0].name in ("A", "B")
    assert {one.name: one.of for one in told.back_by_year} == {"2026": 1, "2025": 1}
    assert {one.name: one.of for one in told.back_by_repair} == {"charge.added": 2} and told.back.few
    empty = held.record([])
    assert empty.first_right.share == 0.0 and empty.minutes is None and empty.by_probability == ()
