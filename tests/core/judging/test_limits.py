"""Each limit of the reasoning from both sides: the last value that is, the first that is not."""

from types import SimpleNamespace

import numpy as np
import pytest

from kettle.call.stages import _taken_back
from kettle.judging import stopped
from kettle.judging.course import Done
from kettle.judging.evidence import Feature, weigh
from kettle.judging.given import seen_there
from kettle.judging.judge import judge, suspect_of
from kettle.judging.network import Columns
from kettle.judging.readings import work_out
from kettle.judging.verdicts import on
from kettle.knowledge import bands
from kettle.knowledge.equipment import UnitSpec, resolve

COOLER = {"kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": 36.0, "differential_f": 3.0}
FREEZER = {"kind": "walk_in_freezer", "refrigerant": "R-404A", "set_f": -5.0, "differential_f": 3.0}


def facts(plate, **seen):
    return work_out(resolve(UnitSpec(**plate)), {key: float(one) if isinstance(one, int) else one for key, one in seen.items()})


@pytest.mark.parametrize(("volts", "there"), [(89.9, False), (90.0, True)])
def test_a_fan_has_its_volts_from_ninety_on(volts, there):
    assert ("evap_fan_failed" in seen_there(facts(FREEZER, evap_fans="stopped", evap_fan_supply_v=volts))) == there


@pytest.mark.parametrize(("load", "contactor", "lost"), [(210.0, "in", False), (209.0, "in", True), (209.0, "out", False)])
def test_a_leg_is_lost_past_twenty_volts_over_a_closed_contactor(load, contactor, lost):
    f = facts(COOLER, line_v_12=230, load_v_12=load, contactor=contactor, condenser_fans="stopped")
    assert stopped.lost_a_leg(f) == lost
    assert bool(stopped.says_nothing("condenser_fans", f)) == lost


def test_a_fan_that_only_cycles_on_a_lost_leg_still_speaks():
    assert not stopped.says_nothing("condenser_fans", facts(COOLER, line_v_12=230, load_v_12=100, contactor="in", condenser_fans="cycling"))


@pytest.mark.parametrize(
    ("seen", "says"),
    [
        ({"box_temp_f": 39, "box_trend": "falling"}, ""),
        ({"box_temp_f": 39.1, "box_trend": "falling"}, "falling"),
        ({"box_temp_f": 60, "complaint": ("first_start",)}, "first_start"),
        ({"box_temp_f": 60, "complaint": ("first_start",), "box_trend": "steady"}, ""),
        ({"box_temp_f": 60, "complaint": ("first_start",), "box_trend": "rising"}, ""),
        ({"box_temp_f": 51, "since_defrost_min": 44}, "after_defrost"),
        ({"box_temp_f": 51, "since_defrost_min": 45}, ""),
        ({"box_temp_f": 51.1, "since_defrost_min": 44}, ""),
        ({"box_temp_f": 51, "since_defrost_min": 44, "box_trend": "rising"}, ""),
        ({"box_trend": "falling"}, ""),
        ({"box_temp_f": 51, "door": "left_open", "box_trend": "rising"}, "door_open"),
        ({"box_temp_f": 51.1, "door": "left_open", "box_trend": "rising"}, ""),
        ({"box_temp_f": 51, "door": "left_open", "box_trend": "steady"}, ""),
        ({"box_temp_f": 51, "door": "gasket_gap", "box_trend": "rising"}, ""),
    ],
)
def test_when_a_box_is_only_coming_down(seen, says):
    assert facts(COOLER, **seen).coming_down == says


@pytest.mark.parametrize(
    ("box", "call", "compressor", "rightly"),
    [
        (39.0, "satisfied", "off", True),
        (39.1, "satisfied", "off", False),
        (36.0, "calling", "off", False),
        (36.0, "satisfied", "running", False),
    ],
)
def test_when_a_unit_is_rightly_off(box, call, compressor, rightly):
    f = facts(COOLER, box_temp_f=box, control_call=call, compressor=compressor)
    assert f.is_rightly_off == rightly
    assert (stopped.says_nothing("control_call", f) == "satisfied and off, as it should be") == rightly
    assert not facts(COOLER, control_call="satisfied", compressor="off").is_rightly_off, "nobody measured the box"


def test_what_a_unit_pumps_down_to_is_the_usual_or_what_its_coil_runs_above():
    cooler, freezer = (resolve(UnitSpec(**plate)) for plate in (COOLER, {**FREEZER, "set_f": -20.0}))
    assert bands.pump_down_psig(cooler) == 5.0
    coldest = freezer.refrigerant.dew_psig(-20.0 - 2.5 * bands.default_band(freezer, "td_f")[1], freezer.altitude_ft)
    assert bands.pump_down_psig(freezer) == pytest.approx(coldest) and coldest < 5.0


@pytest.mark.parametrize(
    ("suction", "compressor", "over"), [(12.0, "running", 7.0), (2.0, "running", -3.0), (12.0, "off", None), (12.0, "", 7.0)]
)
def test_suction_over_pump_down_is_that_of_a_unit_that_runs(suction, compressor, over):
    f = facts(COOLER, suction_psig=suction, box_temp_f=45, **({"compressor": compressor} if compressor else {}))
    assert f.derived.get("over_pump_down_psi") == (None if over is None else pytest.approx(over))
    states = {one.quantity: one.state for one in on(f)}
    if over is not None:
        assert states["over_pump_down_psi"] == ("low" if over < 0 else "ok"), "nothing is too high for it"


def test_the_line_is_held_against_the_air_only_where_td_is_wide():
    wide = bands.default_band(resolve(UnitSpec(**COOLER)), "td_f")[1]
    dew = resolve(UnitSpec(**COOLER)).refrigerant.dew_psig
    for td, told in ((wide - 0.5, False), (wide + 0.5, True)):
        f = facts(COOLER, box_temp_f=45, suction_psig=dew(45.0 - td), suction_line_evap_f=38)
        assert ("line_under_air_f" in f.derived) == told
        assert not told or f.derived["line_under_air_f"] == pytest.approx(7.0)


@pytest.mark.parametrize(("volts", "amps", "dead"), [(90.0, 0.39, True), (89.0, 0.39, False), (90.0, 0.4, False)])
def test_a_heater_without_a_rating_is_dead_under_volts_without_amps(volts, amps, dead):
    assert (facts(FREEZER, heater_volts=volts, heater_amps=amps).derived.get("heater_pct") == 0.0) == dead


@pytest.mark.parametrize(("defrost", "told"), [("electric", True), ("hot_gas", True), ("timed_air", False), ("off_cycle", False)])
def test_minutes_of_defrost_a_day_are_those_of_heated_ones(defrost, told):
    f = facts({**COOLER, "defrost": defrost}, defrosts_per_day=4, defrost_set_min=20)
    assert f.derived.get("defrost_min_a_day") == (80.0 if told else None)


def turn(did, value):
    return Done("valve", did, value)


@pytest.mark.parametrize(
    ("done", "back"),
    [
        ([turn("turned_out", 0.5), turn("turned_in", 0.5)], {0, 1}),
        ([turn("turned_out", 0.5), turn("turned_out", 0.5), turn("turned_in", 1.0)], {0, 1, 2}),
        ([turn("turned_out", 0.5), turn("turned_in", 0.25)], set()),
        ([turn("turned_out", 0.5), Done("valve", "element_replaced"), turn("turned_in", 0.5)], set()),
        ([turn("turned_out", 0.5), Done("coil", "melted"), turn("turned_in", 0.5)], {0, 2}),
        ([turn("turned_out", 0.5), Done("valve", "turned_in", 0.5, elsewhere=True)], set()),
        ([turn("turned_out", 0.5), turn("turned_in", 0.5), turn("turned_out", 0.25)], {0, 1}),
    ],
)
def test_which_turns_were_taken_back(done, back):
    assert _taken_back(done) == back


def test_a_hiss_is_of_the_liquid_valve_only_where_nobody_looked_at_it_and_the_unit_stands():
    assert stopped.hisses_at_rest(facts(COOLER, compressor="off", valve_sound="hissing_gas"))
    assert not stopped.hisses_at_rest(facts(COOLER, compressor="off", valve_sound="hissing_gas", liquid_solenoid="open"))
    assert not stopped.hisses_at_rest(facts(COOLER, compressor="running", valve_sound="hissing_gas"))
    assert not stopped.hisses_at_rest(facts(COOLER, compressor="off", valve_sound="silent"))


# R-134a at 120 psig is 98.0 °F at its bubble point.
@pytest.mark.parametrize(
    ("seen", "runs"),
    [
        ({"liquid_psig": 120.0, "ambient_f": 85.9}, True),
        ({"liquid_psig": 120.0, "ambient_f": 86.1}, False),
        ({"discharge_psig": 120.0, "ambient_f": 84.0}, True),
        ({"liquid_psig": 120.0, "discharge_psig": 100.0, "ambient_f": 84.0}, False),
        ({"liquid_psig": 120.0}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "compressor": "off"}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "contactor": "out"}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "power_locked_out": "yes"}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "control_call": "satisfied"}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "control_call": "no_power"}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "control_call": "in_defrost"}, False),
        ({"liquid_psig": 120.0, "ambient_f": 80.0, "control_call": "calling"}, True),
    ],
)
def test_a_head_well_over_its_air_is_one_of_a_unit_that_runs(seen, runs):
    unit = COOLER | {"refrigerant": "R-134a", "condensing": "air"}
    assert stopped.runs_by_its_head(facts(unit, **seen)) is runs


def test_water_or_a_pressure_past_the_tables_tells_no_head_over_the_air():
    known = {"liquid_psig": 120.0, "ambient_f": 80.0}
    assert facts(COOLER | {"refrigerant": "R-134a", "condensing": "water"}, **known).head_over_air_f is None
    assert facts(COOLER | {"refrigerant": "R-134a", "condensing": "air"}, liquid_psig=900.0, ambient_f=80.0).head_over_air_f is None


def test_a_head_over_its_air_counts_less_than_a_look_at_the_compressor():
    unit = resolve(UnitSpec(**(COOLER | {"refrigerant": "R-134a", "condensing": "air"})))
    warm = {"box_temp_f": 53.0, "ambient_f": 80.0, "liquid_psig": 120.0}
    told, looked = judge(unit, warm), judge(unit, warm | {"compressor": "running"})
    against = [
        next(e.weight for e in suspect_of(one, "compressor_open_winding").speaks_against if e.key == "compressor") for one in (told, looked)
    ]
    assert against[0] == pytest.approx(0.7 * against[1]) and against[1] < -1.0


def test_a_head_over_its_air_speaks_against_what_keeps_a_compressor_from_running():
    unit = resolve(UnitSpec(**(COOLER | {"refrigerant": "R-134a", "condensing": "air"})))
    warm = {"box_temp_f": 53.0, "ambient_f": 80.0}
    before, after = judge(unit, warm), judge(unit, warm | {"liquid_psig": 120.0})
    stands = {"contactor_pole_open", "no_call", "start_parts_failed", "compressor_grounded", "compressor_open_winding"}

    def share(judged):
        return sum(one.probability for one in judged.ranking if {cause.code for cause in one.causes} & stands)

    assert share(after) < 0.4 * share(before)


def test_what_is_given_is_beside_every_answer_and_excludes_what_cannot_be_with_it():
    judged = judge(resolve(UnitSpec(**COOLER)), {"leak_test": "found", "box_temp_f": 45.0})
    assert judged.given == {"undercharge"}
    assert all("undercharge" in one.codes for one in judged.ranking)
    assert not [one for one in judged.ranking if {"overcharge", "noncondensables"} & set(one.codes)]
    assert sum(one.probability for one in judged.ranking) == pytest.approx(1.0, abs=0.09)


@pytest.mark.parametrize(
    ("box", "door", "trend", "held"),
    [
        (51, "left_open", "rising", False),
        (51.1, "left_open", "rising", True),
        (51, "left_open", "steady", True),
        (51, "good", "rising", True),
    ],
)
def test_a_box_that_rises_with_its_door_is_not_held_warm(box, door, trend, held):
    assert ("held_warm_f" in facts(COOLER, box_temp_f=box, door=door, box_trend=trend).derived) == held


@pytest.mark.parametrize(("chance", "shrinks"), [(0.249, True), (0.251, False)])
def test_what_a_sound_unit_shows_a_quarter_of_the_time_is_no_chance(chance, shrinks):
    columns = {"td_f": Columns(0, ("low", "ok", "high"), False)}
    table = np.array([[0.05, 0.95 - chance, chance], [0.02, 0.08, 0.9]])
    network = SimpleNamespace(columns=columns, table=table, rows={frozenset(): 0})
    near, far = (weigh(network, [Feature("td_f", {"high": 1.0}, 1.0, "", by_chance=share)])[0][1] for share in (1.0, 0.1))
    assert (far[0] < near[0]) == (far[1] < near[1]) == shrinks


@pytest.mark.parametrize(("ohm", "condemned"), [(0.2, True), (99_999.0, True), (100_000.0, False), (5e6, False)])
def test_ohms_to_the_shell_below_a_tenth_of_a_megohm_condemn_by_themselves(ohm, condemned):
    unit = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", phases=3, nameplate_v=230.0))
    assert ("compressor_grounded" in seen_there(work_out(unit, {"winding_ground_ohm": ohm}))) is condemned
