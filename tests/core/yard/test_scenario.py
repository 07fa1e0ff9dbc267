"""A scenario somebody wrote: read with one clear line for what is wrong, written back the same, begun as a practice call."""

import json

import pytest

from kettle.knowledge.errors import InputError
from kettle.yard import begin, scenario
from kettle.yard.practice import STOPPED

GOOD = {
    "format": "orange-kettle-scenario", "version": 1, "title": "A hot kitchen", "story": "“It does not keep up.”",
    "unit": {"kind": "walk_in_cooler", "refrigerant": "R-448A", "phases": 3, "compressor_rla_a": 9.4}, "outside_f": 102.0,
    "faults": [{"cause": "condenser_dirty", "severity": 0.9}], "before": [{"part": "charge", "did": "added", "amount": 12.0}],
}  # fmt: skip
WAS = {**{key: value for key, value in GOOD.items() if key not in ("faults", "before")}, "found": ["evap_fan_failed"],
       "stages": [{"evap_fans": "stopped", "box_temp_f": 55.0, "complaint": ["iced"]},
                  {"evap_fans": "running", "box_temp_f": 48.0}]}  # fmt: skip


def test_it_is_read_and_written_back_the_same():
    one = scenario.checked(GOOD)
    assert scenario.read(scenario.write(one)) == one == scenario.read(json.dumps(GOOD).encode())
    assert scenario.checked(json.loads(scenario.write(scenario.checked(WAS)))) == scenario.checked(WAS)


@pytest.mark.parametrize(("changed", "says"), [
    ({"format": "x"}, "“format” is not"), ({"version": 2}, "version: "), ({"title": ""}, "title: "), ({"story": "x"}, "story: "),
    ({"tea": 1}, "tea: "), ({"outside_f": 121.0}, "outside_f: "), ({"outside_f": -21.0}, "outside_f: "), ({"help": "some"}, "help: "),
    ({"faults": []}, "faults: put at least one in"), ({"faults": [{"cause": "tea"}]}, "faults.0.cause: “tea” is not known"),
    ({"faults": [{"cause": "cap_tube_restricted"}]}, "cannot be on a walk-in cooler"),
    ({"faults": [{"cause": "undercharge", "severity": 0.0}]}, "faults.0.severity: "),
    ({"faults": [{"cause": "undercharge", "severity": 1.01}]}, "faults.0.severity: "),
    ({"faults": [{"cause": "undercharge"}] * 4}, "faults: "),
    ({"unit": {"kind": "fridge", "refrigerant": "R-448A"}}, "unit.kind: “fridge”"),
    ({"unit": {"kind": "walk_in_cooler", "refrigerant": "R-9"}}, "unit: refrigerant “R-9”"),
    ({"unit": {"kind": "walk_in_cooler"}}, "unit.refrigerant: "),
    ({"before": [{"part": "charge", "did": "added"}]}, "before.0.amount: say how much, oz"),
    ({"before": [{"part": "charge", "did": "drunk"}]}, "before.0: "),
    ({"before": [{"part": "water_valve", "did": "replaced"}]}, "before.0: "),
    ({"before": [{"part": "charge", "did": "added", "amount": -3.0}]}, "before.0: "),
    ({"stages": [{"suction": 3.0}], "found": ["undercharge"]}, "stages.0.suction: "),
    ({"stages": [{"box_temp_f": 900.0}], "found": ["undercharge"]}, "stages.0.box_temp_f: "),
    ({"stages": [{"box_temp_f": 40.0}], "found": ["tea"]}, "found.0: "), ({"stages": [{"box_temp_f": 40.0}]}, "found: say what it was"),
])  # fmt: skip
def test_what_is_wrong_is_said_in_one_line_with_where(changed, says):
    with pytest.raises(InputError) as refused:
        scenario.checked({**GOOD, **changed})
    assert says in str(refused.value) and "\n" not in str(refused.value)


@pytest.mark.parametrize(
    ("text", "says"), [("tea", "not JSON"), ("[1]", "“format”"), ("[" * 9000, "JSON"), (" " * 200_001, "at most 200 kB")]
)
def test_what_is_no_scenario_at_all_is_said(text, says):
    with pytest.raises(InputError, match=says):
        scenario.read(text)


def test_it_is_begun_as_it_was_written():
    one = scenario.draw_of(scenario.checked(GOOD))
    assert one.wrong == (("condenser_dirty", 0.9),) and one.outside_f == 102.0 and one.difficulty == "worked_on" and one.symptom
    practice = begin(one)
    assert practice.rig.added_lb == pytest.approx(12.0 / 16.0), "ounces as they were written"
    assert practice.ask("condenser_coil").value == "blocked" and practice.ask("last_touched").value == ("charge",)
    two = scenario.draw_of(scenario.checked({**GOOD, "before": [], "faults": [*GOOD["faults"], {"cause": "undercharge"}]}))
    assert two.difficulty == "several" and scenario.draw_of(scenario.checked({**GOOD, "before": []})).difficulty == "one"


def test_a_call_that_really_was_answers_with_its_own_figures_stage_by_stage_and_nothing_else():
    practice = begin(scenario.draw_of(scenario.checked(WAS)))
    assert practice.draw.codes == ("evap_fan_failed",) and practice.draw.symptom == "iced"
    assert practice.ask("box_temp_f").value == 55.0 and practice.ask("evap_fans").value == "stopped"
    door = practice.ask("door")
    assert door.value is None and "not taken on that call" in door.says
    practice.put("power_locked_out", "yes")
    assert practice.do("evap_fan", "replaced").what != STOPPED
    assert practice.ask("box_temp_f").value == 48.0 and practice.ask("evap_fans").value == "running"


def test_a_closed_call_is_laid_open_where_it_says_enough():
    plate = scenario.Plate(kind="walk_in_cooler", refrigerant="R-448A")
    stage = {"box_temp_f": 55.0, "evap_fans": "stopped", "complaint": ("warm",), "power_locked_out": "yes"}
    made = scenario.laid_open("As it was", "Somebody calls.", plate, [stage, {}], ["evap_fan_failed"])
    assert made.stages == [{"box_temp_f": 55.0, "evap_fans": "stopped", "complaint": ["warm"]}], "what one does oneself is no figure"
    for stages, found, says in (([stage], [], "no exercise"), ([{"box_temp_f": 5.0, "door": "good"}], ["undercharge"], "Fewer than three")):
        with pytest.raises(InputError, match=says):
            scenario.laid_open("As it was", "Somebody calls.", plate, stages, found)


def test_the_schema_names_every_field():
    told = scenario.schema()
    assert {"format", "version", "title", "story", "unit", "faults", "before", "stages", "found"} <= set(told["properties"])
