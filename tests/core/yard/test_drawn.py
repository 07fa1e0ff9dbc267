"""What a number draws: the same each time, as hard as was asked, and something somebody would call about."""

from dataclasses import replace

import pytest

from kettle.judging.judge import judge
from kettle.knowledge import causes
from kettle.knowledge.equipment import KINDS, UnitSpec
from kettle.knowledge.errors import InputError
from kettle.plant import faults
from kettle.plant.simulate import PRESETS
from kettle.yard import draw
from kettle.yard.drawn import AT_FIRST, COMPLAINTS, DIFFICULTIES, HOURS, standing_as_drawn, symptom_of
from kettle.yard.stories import BEFORE, CALLERS


@pytest.mark.parametrize("difficulty", DIFFICULTIES)
@pytest.mark.parametrize("number", [11, 12])
def test_a_number_draws_the_same_and_something_to_call_about(number, difficulty):
    one = draw(number, difficulty=difficulty)
    assert one == draw(number, difficulty=difficulty)
    assert one.difficulty == difficulty and one.number == number
    assert len(one.wrong) == 1 or difficulty == "several" and len(one.wrong) in (2, 3)
    assert bool(one.before) == (difficulty == "worked_on")
    assert all(faults.possible(code, one.unit) and 0.0 < severity <= 1.0 for code, severity in one.wrong)
    rig = standing_as_drawn(one)
    assert symptom_of(rig) == one.symptom in COMPLAINTS
    assert rig.course.hours[-1] >= HOURS
    # The story gives nothing away.
    assert not any(causes.get(code).label.lower() in one.story.lower() for code in one.codes)
    assert "{" not in one.story


def test_other_numbers_draw_other_calls():
    drawn = {(one.spec.kind, one.codes) for one in (draw(number, difficulty="one") for number in range(20, 32))}
    assert len(drawn) >= 8 and len({kind for kind, _ in drawn}) >= 4


def test_what_is_chosen_is_kept():
    one = draw(5, "walk_in_freezer", "R-449A", "one", 95.0)
    assert (one.spec.kind, one.spec.refrigerant, one.outside_f) == ("walk_in_freezer", "R-449A", 95.0)
    assert one.spec.phases == PRESETS["walk_in_freezer"].phases


@pytest.mark.parametrize("number", [3, 4, 5, 6])
def test_one_that_misleads_has_another_cause_on_top_at_first(number):
    one = draw(number, difficulty="misleading")
    rig = standing_as_drawn(one)
    able = [key for key in AT_FIRST if rig.unit.metering != "cap_tube" or key != "sight_glass"]
    seen = {key: value for key in able if (value := rig.look(key)) is not None}
    top = judge(rig.unit, seen).ranking[0].codes
    assert top and not set(top) & set(one.codes)


def test_what_somebody_did_before_is_done_to_the_unit():
    found = set()
    for number in range(8):
        one = draw(number, difficulty="worked_on")
        [(part, did, amount)] = one.before
        assert BEFORE[part] in one.story
        rig = standing_as_drawn(one)
        found.add(part)
        if part == "valve":
            assert rig.turns == pytest.approx(amount if did == "turned_in" else -amount)
        else:
            untouched = standing_as_drawn(replace(one, before=()))
            assert rig.added_lb == pytest.approx(amount * float(untouched.parts.charge_lb), abs=0.004) and 0.1 <= amount <= 0.2
    assert found == {"valve", "charge"}


@pytest.mark.parametrize(("given", "says"), [
    ({"kind": "walk_in_cooller"}, "walk_in_cooler"), ({"difficulty": "hard"}, "difficulty “hard” is none of one, several"),
    ({"outside_f": 121.0}, "-20 to 120 °F"), ({"outside_f": -21.0}, "-20 to 120 °F"), ({"refrigerant": "R-9999"}, "R-"),
])  # fmt: skip
def test_what_cannot_be_is_said(given, says):
    with pytest.raises(InputError, match=says.replace("(", r"\(")):
        draw(1, **given)


def test_every_kind_has_somebody_who_calls():
    for kind in KINDS:
        assert sum(kind.startswith(begins) for begins in CALLERS) == 1, kind
    assert isinstance(draw(1, "prep_rail").spec, UnitSpec)
