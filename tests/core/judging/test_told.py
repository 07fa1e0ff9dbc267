"""Why they called and who was there last move what is likely."""

import pytest

from kettle.judging.judge import judge
from kettle.knowledge import causes
from kettle.knowledge.causes.noticed import NOTICED, states_noticed
from kettle.knowledge.equipment import UnitSpec, resolve

COOLER = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A"))


def share(seen, code):
    judged = judge(COOLER, seen)
    return sum(one.probability for one in judged.ranking if (code in one.codes if code else not one.codes))


def test_somebody_who_calls_about_a_warm_box_is_seldom_told_nothing_wrong():
    assert share({"complaint": ("warm",)}, "") < 0.6 * share({}, "")
    assert share({"complaint": ("service",)}, "") > share({}, "")


@pytest.mark.parametrize(
    ("complaint", "code"),
    [
        ("water", "drain_blocked"),
        ("does_not_run", "compressor_grounded"),
        ("starts_and_stops", "short_cycle"),
        ("iced", "defrost_too_little"),
    ],
)
def test_words_lift_what_does_that(complaint, code):
    assert share({"complaint": (complaint,)}, code) > 1.5 * share({}, code)


def test_what_a_visit_changed_is_looked_at_first():
    assert share({"last_touched": ("charge",)}, "overcharge") > 2 * share({}, "overcharge")
    assert share({"last_touched": ("valve",)}, "bulb_fault") > 1.5 * share({}, "bulb_fault")


def test_what_is_noticed_follows_from_what_a_cause_does():
    shapes = {"box_temp_f": {"low": 0.1, "ok": 0.1, "high": 0.8}, "last_touched": {"nothing": 0.75},
              "held_warm_f": {"low": 0.03, "ok": 0.93, "high": 0.04}}  # fmt: skip
    leak, ((_, _, often),) = NOTICED["warm"]
    found = states_noticed(causes.get("undercharge"), shapes)["complaint"]["warm"]
    assert found == pytest.approx(1 - (1 - leak) * (1 - often * 0.8))


def test_a_habit_is_apart_from_hardware():
    seen = {"ice_form": "hard_ice", "ice_places": ("coil_whole",)}
    assert share(seen | {"door_habits": "propped_open"}, "door_infiltration") > share(seen, "door_infiltration")
    assert share(seen | {"door_habits": "shut"}, "door_infiltration") < share(seen, "door_infiltration")
