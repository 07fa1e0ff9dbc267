"""A practice call by lines: what each answers, what it asks for before it helps, and the command that plays it."""

import io
import json

import pytest

from kettle.__main__ import main
from kettle.knowledge import anatomy
from kettle.knowledge.errors import InputError
from kettle.plant.simulate import PRESETS
from kettle.yard.drawn import Draw
from kettle.yard.practice import begin
from kettle.yard.spoken import COVERED, NONE, Spoken


def spoken(*codes, helped="all", kind="walk_in_cooler"):
    return Spoken(begin(Draw(1, PRESETS[kind], 85.0, "one", tuple((code, 1.0) for code in codes), (), "warm", "")), helped)


def test_a_key_is_taken_an_act_done_a_wait_waited():
    call = spoken("evap_fan_failed")
    told = call.answer("evap_fans\n")
    assert (told["what"], told["of"], told["value"]) == ("asked", "evap_fans", "stopped") and told["says"] == "Coil fans: stopped (1 min)"
    assert call.answer("wait 30")["says"] == "30 min later" and call.practice.minutes == pytest.approx(31.0)
    assert call.answer("do evap_fan.replaced")["says"].startswith("Stopped. ")
    assert call.answer("put power_locked_out yes")["value"] == "yes"
    assert call.answer("do evap_fan.replaced")["what"] == "did"
    assert call.answer("run")["of"] == "thermostat down"


def test_it_is_ends_with_the_debrief():
    told = spoken("evap_fan_failed")
    told.answer("say evap_fan_failed, evap_fan_supply_v, 230")
    told.answer("evap_fan_supply_v")
    end = told.answer("it is evap_fan_failed")
    assert (end["what"], end["right"], end["was"], end["stopped"], end["held"]) == ("debrief", True, ["evap_fan_failed"], 0, None)
    assert "You expected volts" in end["says"] and "230" in end["says"]


@pytest.mark.parametrize(("line", "says"), [
    ("sucktion", "suction"), ("sight glass", "no line"), ("do valve.turned_in", "turns"), ("do valve.turned_in much", "not a figure"),
    ("wait long", "not a figure"), ("it undercharge", "it is CAUSE"), ("it is tea", "tea"), ("put door good", "ask door"),
    ("say undercharge", "observation"), ("say tea, door, good", "tea"), ("say undercharge, suction_psig, low", "not a figure"),
])  # fmt: skip
def test_a_line_that_cannot_be_understood_is_said_and_changes_nothing(line, says):
    call = spoken("undercharge")
    with pytest.raises(InputError, match=says):
        call.answer(line)
    assert call.practice.steps == [] and call.expected == []


def test_the_standing_is_covered_until_it_is_said_what_one_thinks():
    call = spoken("condenser_dirty", helped=COVERED)
    with pytest.raises(InputError, match="say first"):
        call.answer("standing")
    call.answer("say condenser_dirty, condenser_coil, dusty")
    assert call.answer("standing")["ranking"]
    call.answer("condenser_coil")
    with pytest.raises(InputError, match="say first"):
        call.answer("standing")


def test_without_help_there_is_neither_standing_nor_hint():
    call = spoken("condenser_dirty", helped=NONE)
    for line in ("standing", "hint"):
        with pytest.raises(InputError, match="without help"):
            call.answer(line)


def test_hints_come_in_three_steps_and_begin_anew_after_a_look():
    call = spoken("condenser_dirty")
    where, what, how = (call.answer("hint")["says"] for _ in range(3))
    key = call.practice.course.now.next_checks[0].key
    assert where == f"Look at the {anatomy.part_of(key).label.lower()}" and how.startswith(f"{key}: ")
    assert what == call.practice.course.now.next_checks[0].meaning and call.answer("hint")["says"] == how
    call.answer(key)
    assert call.answer("hint")["says"].startswith(("Look at the ", "Nothing more"))


def test_lists_name_what_this_unit_has():
    call = spoken("condenser_dirty")
    assert "water_in_f" not in call.answer("keys")["of"] and "box_temp_f" in call.answer("keys")["of"]
    assert "water_valve.replaced" not in call.answer("acts")["of"] and "undercharge" in call.answer("causes")["of"]
    assert "standing" in call.answer("help")["of"]


def play(monkeypatch, capsys, lines, *given):
    monkeypatch.setattr("sys.stdin", io.StringIO(lines))
    code = main(["yard", *given])
    out = capsys.readouterr()
    return code, out.out, out.err


def test_the_command_plays_a_call_to_its_debrief(monkeypatch, capsys):
    given = ("--seed", "7", "--difficulty", "one")
    code, out, err = play(monkeypatch, capsys, "box_temp_f\n\nsoup\nit is undercharge\ndoor\n", *given)
    first, *rest = out.splitlines()
    assert code == 0 and err == "" and first.startswith("PRACTICE 7. ")
    assert "You said: " in out and "the nearest known key is" in out and "Door" not in rest[-1], "after the debrief nothing is answered"
    lines = play(monkeypatch, capsys, "box_temp_f\nit is undercharge\n", *given, "--json")[1].splitlines()
    assert [json.loads(line)["what"] for line in lines] == ["story", "asked", "debrief"]
    assert json.loads(lines[0])["practice"] == 7


@pytest.mark.parametrize(("given", "says"), [
    (("--seed", "1", "--help-by", "much"), "--help-by"), (("--seed", "1", "--kind", "cellar"), "cellar"), (("--seed", "x"), "--seed"),
    ((), "--seed"), (("--seed", "1", "--difficulty", "hard"), "difficulty"),
])  # fmt: skip
def test_a_bad_argument_is_one_line(monkeypatch, capsys, given, says):
    code, out, err = play(monkeypatch, capsys, "", *given)
    assert (code, out) == (2, "") and says in err and len(err.splitlines()) == 1
