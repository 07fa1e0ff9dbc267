import pytest

from kettle.benches.valve import adjust
from kettle.judging import holds, readings, verdicts
from kettle.knowledge import parameters
from kettle.knowledge.errors import InputError
from tests.core.judging.faults import COOLER, sound, unit_of


def standing(**changes):
    unit, seen = unit_of(COOLER), sound(COOLER, **changes)
    facts = readings.work_out(unit, seen)
    verdict = next(v for v in verdicts.on(facts) if v.quantity == "superheat_evap_f")
    return verdict, holds.standing(facts)


def test_high_superheat_asks_to_open_and_low_to_close():
    assert adjust.goal_from(standing(superheat=25)[0]) == "lower"
    assert adjust.goal_from(standing(superheat=2)[0]) == "raise"
    assert adjust.goal_from(standing(superheat=8)[0]) is None
    assert adjust.goal_from(None) is None


def test_the_right_direction_has_no_objection():
    verdict, held = standing(superheat=17)
    advice = adjust.advise("out", 0.5, None, verdict, held)
    assert advice.objections == ()
    assert "lowers superheat" in advice.effect


def test_the_wrong_direction_is_objected_to_with_the_right_one_named():
    verdict, held = standing(superheat=17)
    advice = adjust.advise("in", 0.25, "lower", verdict, held)
    assert "turn out, counter-clockwise" in advice.objections[0]


def test_a_goal_against_the_reading_is_objected_to():
    verdict, held = standing(superheat=17)
    assert "points the other way" in adjust.advise("in", 0.25, "raise", verdict, held).objections[0]


@pytest.mark.parametrize("change", [{"bulb": "loose"}, {"box": 44}, {"adjusted_min": 3.0}, {"evap_fans": "stopped"}])
def test_a_hold_is_an_objection(change):
    verdict, held = standing(superheat=17, **change)
    assert any("must wait" in text for text in adjust.advise("out", 0.25, None, verdict, held).objections)


def test_large_steps_only_far_out():
    assert any("large step" in o for o in adjust.advise("out", 1.0, None, *standing(superheat=14)).objections)
    assert adjust.advise("out", 1.0, None, *standing(superheat=30)).objections == ()


@pytest.mark.parametrize(("direction", "turns", "goal"), [("up", 0.5, None), ("in", 0.0, None), ("in", 5.0, None), ("in", 0.5, "x")])
def test_what_no_stem_can_do_is_refused(direction, turns, goal):
    with pytest.raises(InputError):
        adjust.advise(direction, turns, goal, None, [])


def test_turns_are_counted_from_where_the_stem_was_found():
    assert adjust.net_turns([("out", 0.5), ("in", 0.25), ("in", 0.25)]) == 0
    assert adjust.net_turns([("out", 0.5)]) == 0.5


def test_settings_are_stored_with_their_unit_and_refused_with_range():
    assert parameters.get("fail_safe").parse("30", "As left") == "30 min"
    assert parameters.get("set_point").parse("-5,5", "As left") == "−5.5 °F"
    assert parameters.get("service_mode").parse(" off ", "As left") == "off"
    with pytest.raises(InputError, match="As left: 999 min is outside 0 to 240 min"):
        parameters.get("fail_safe").parse("999", "As left")
    with pytest.raises(InputError, match="As found: write what it was"):
        parameters.get("fail_safe").parse(" ", "As found")
    with pytest.raises(InputError):
        parameters.get("no_such")


def test_closing_a_valve_that_floods_is_never_held():
    verdict, held = standing(superheat=1, box=52)
    assert held and adjust.advise("in", 0.5, None, verdict, held).objections == ()
    assert adjust.advise("out", 0.5, "lower", verdict, held).objections
    dry, held = standing(superheat=22, box=52)
    assert adjust.advise("out", 0.5, None, dry, held).objections, "opening waits for the box"
