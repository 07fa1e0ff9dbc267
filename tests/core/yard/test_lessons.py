"""The lessons: each stands, asks for what can be shown, and says when it was; and the pages of how it works."""

import math

import pytest

from kettle.knowledge import acts, anatomy, causes, observations
from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant import faults
from kettle.plant.simulate import PRESETS
from kettle.yard import begin, how, lessons
from kettle.yard.lessons import GROUPS, HALF_MELT, HELD, LESSONS, NAMED, PAINTED, SAFE
from kettle.yard.practice import ASKED, DID, MELTED, METERED, PUT, SET, STOPPED, Step


def test_there_are_thirty_at_least_of_every_group_each_once():
    assert len(LESSONS) >= 30 and {one.group for one in LESSONS.values()} == set(GROUPS)
    assert len({one.title for one in LESSONS.values()}) == len(LESSONS) == len({one.draw.number for one in LESSONS.values()})
    order = [list(GROUPS).index(one.group) for one in LESSONS.values()]
    assert order == sorted(order)


@pytest.mark.parametrize("code", LESSONS)
def test_a_lesson_stands_and_what_it_asks_for_can_be_had_of_its_unit(code):
    one = lessons.get(code)
    unit = resolve(PRESETS[one.kind])
    assert all(faults.possible(cause, unit) for cause, _ in one.wrong) and all(cause in causes.CATALOGUE for cause, _ in one.wrong)
    assert one.how in how.HOW and one.help in ("all", "covered") and len(one.aim) > 30 and "calls" in one.story
    for must, words in one.must_words:
        assert words
        if must in observations.REGISTRY:
            assert observations.get(must).exists_on(unit), must
        elif must in acts.ACTS:
            assert acts.ACTS[must].exists_on(unit), must
        else:
            assert must in (NAMED, SAFE, HELD, PAINTED, HALF_MELT, "meter", "program", "leak") or must in PARAMETERS
    practice = begin(one.draw)
    assert practice.draw.codes == tuple(cause for cause, _ in one.wrong)
    assert practice.ask("complaint").value == (one.symptom,)


def test_what_was_shown_is_told_from_the_steps_and_the_debrief():
    one = LESSONS["iced-all-over"]
    none = lessons.shown(one, [], None)
    assert set(none) == set(one.must) and not any(none.values())
    steps = [Step(ASKED, "ice_form", "hard_ice", 1, 0), Step(PUT, "power_locked_out", "yes", 3, 1), Step(MELTED, "warm_water", None, 0, 4)]
    some = lessons.shown(one, steps, None)
    assert [key for key, there in some.items() if there] == ["ice_form", "power_locked_out", HALF_MELT]
    every = lessons.shown(one, steps, {"right": True, "painted": 0.7})
    assert all(every.values())
    assert not lessons.shown(one, steps, {"right": False, "painted": 0.69})[PAINTED]
    assert not lessons.shown(one, [*steps, Step(STOPPED, "", None, 0, 4)], {"right": True})[SAFE]


@pytest.mark.parametrize(("code", "must", "step"), [
    ("fan-no-volts", "meter", Step(METERED, "volts L1 L2", 230.0, 2, 0)),
    ("clock-stands", "program", Step(SET, "fail_safe", 30.0, 4, 0)),
    ("clock-stands", "timer.replaced", Step(DID, "timer.replaced", None, 45, 0)),
    ("find-the-leak", "leak", Step("leak_look", "", None, 2, 0)),
    ("prove-a-program", "fail_safe", Step(SET, "fail_safe", 30.0, 4, 0)),
    ("prove-a-program", HALF_MELT, Step(DID, "coil.melted", None, 9, 0)),
])  # fmt: skip
def test_each_kind_of_thing_asked_for_is_shown_by_its_step(code, must, step):
    one = LESSONS[code]
    assert not lessons.shown(one, [], None)[must] and lessons.shown(one, [step], None)[must]


def test_a_look_that_gave_nothing_shows_nothing():
    assert not lessons.shown(LESSONS["fan-dead"], [Step(ASKED, "evap_fan_supply_v", None, 3, 0)], None)["evap_fan_supply_v"]
    assert lessons.shown(LESSONS["fan-dead"], [], {"right": True})[NAMED]
    assert lessons.shown(LESSONS["prove-a-fan"], [], {"held": True})[HELD] and not lessons.shown(LESSONS["prove-a-fan"], [], {})[HELD]


def test_what_is_no_lesson_is_said():
    with pytest.raises(InputError, match="tea"):
        lessons.get("tea")
    with pytest.raises(InputError, match="thermostat"):
        how.get("tea")
    assert "walk-in cooler" in lessons.unit_words(LESSONS["fan-dead"]) and "R-448A" in lessons.unit_words(LESSONS["fan-dead"])


@pytest.mark.parametrize("code", how.HOW)
def test_a_page_moves_with_the_model(code):
    one, frames = how.get(code), how.moving(code)
    assert len(frames) == one.frames + 1 and frames[-1].minute == pytest.approx(one.span_min)
    assert all(set(frame.figures) == set(one.seen) <= set(how.FIGURES) for frame in frames)
    moved = [key for key in one.seen if len({round(frame.figures[key], 1) for frame in frames if not math.isnan(frame.figures[key])}) > 3]
    assert len(moved) >= len(one.seen) - 1, "something is to be seen"
    assert len({frame.running for frame in frames}) == 2 or one.comes_min, "it starts and stops"
    assert all(0.0 <= share <= 1.0 for frame in frames for share in frame.ice)
    assert how.moving(code) is frames and len(one.says) >= 3


def test_a_defrost_is_seen_and_melts_what_was_there():
    frames = how.moving("defrost")
    hot = [place for place, frame in enumerate(frames) if frame.defrosting]
    assert hot and frames[hot[-1]].figures["frost_lb"] < 0.2 * frames[hot[0]].figures["frost_lb"]
    iced = how.moving("coil_ices")
    assert iced[-1].ice[0] > iced[0].ice[0] and iced[-1].ice[3] < 0.05, "the first rows alone"


def test_every_part_leads_to_one_page_at_the_most_and_every_name_is_known():
    parts = [part for one in how.HOW.values() for part in one.parts]
    codes = [code for one in how.HOW.values() for code in one.parameters]
    assert len(parts) == len(set(parts)) and set(parts) <= set(anatomy.PARTS)
    assert len(codes) == len(set(codes)) and set(codes) <= set(PARAMETERS)
    assert set(anatomy.PARTS) - set(parts) == {"told", "parameters"}, "every part of a unit has its page"
    assert set(PARAMETERS) - set(codes) == {"service_mode", "other"}
    assert how.of_part("valve") == "valve" and how.of_part("told") == "" and how.of_parameter("lp_cut_in") == "pump_down"
    assert how.of_parameter("other") == ""
