"""What was found stays known when it is melted, turned or put right: the stages of a call come from its acts by themselves."""

from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.knowledge import refrigerants
from web.benches.valve.actions.turn_valve import turn_valve
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import course_of, judge_call
from web.logbook.models import Call, Melt, Reading, ValveTurn

BARE = {"rows": "/".join(["." * 10] * 5)}


def fresh(call):
    return Call.objects.get(pk=call.pk)


def share(answers, code):
    return sum(one.probability for one in answers if code in one.codes)


@pytest.fixture
def iced(user, call):
    """Hard ice of an abused door, seen an hour ago."""
    at = timezone.now() - timedelta(hours=1)
    for key, typed in {"ice_form": "hard_ice", "ice_places": ["coil_whole", "ceiling"], "box_temp_f": "12", "door": "left_open",
                       "door_traffic": "heavy", "strip_curtain": "missing"}.items():  # fmt: skip
        record_reading(user, call, key, typed, at=at)
    return call


def test_a_melt_proved_clear_leaves_the_case_as_it_was(user, iced, at_work):
    before = share(judge_call(fresh(iced)).ranking, "door_infiltration")
    at = timezone.now() - timedelta(minutes=40)
    Melt.objects.create(call=iced, by=user, method="warm_water", at=at, ended_at=timezone.now(), clear=True)
    record_reading(user, iced, "ice_form", "none")
    record_reading(user, iced, "ice_places", [])
    told = course_of(fresh(iced))
    assert before > 0.8 and share(told.was, "door_infiltration") == pytest.approx(before, abs=0.05)
    assert told.left[0].codes == ("door_infiltration",), "ice is gone, the door is not"
    assert "iced_coil" not in {hold.code for hold in told.now.holds}
    page = at_work.get(reverse("stop", args=[iced.number, "judge"])).content.decode()
    assert "Left, after: coil melted" in page


def test_melt_water_seen_on_the_way_speaks(user, iced):
    Melt.objects.create(
        call=iced, by=user, method="warm_water", at=timezone.now() - timedelta(minutes=40), ended_at=timezone.now(), clear=True
    )
    dry = share(course_of(fresh(iced)).was, "undercharge")
    record_reading(user, iced, "melt_water", "cloudy_foaming", at=timezone.now() - timedelta(minutes=20))
    assert share(course_of(fresh(iced)).was, "undercharge") > 3 * dry


def test_a_turn_that_helped_says_that_it_was_the_valve(user, call, starved, at_work):
    before = share(judge_call(fresh(call)).ranking, "txv_underfeeding")
    Reading.objects.filter(call=call).update(at=timezone.now() - timedelta(hours=1))
    turn_valve(user, call, judge_call(fresh(call)), "out", "0.5", "lower", "", at=timezone.now() - timedelta(minutes=25))
    for key, typed in {
        "suction_psig": f"{refrigerants.get('R-404A').dew_psig(-14.5):.1f}",
        "suction_line_evap_f": "-7",
        "suction_line_comp_f": "5",
        "sight_glass": "clear",
    }.items():
        record_reading(user, call, key, typed)
    told = course_of(fresh(call))
    assert share(told.was, "txv_underfeeding") > before
    assert ValveTurn.objects.count() == 1 and "turned out" in at_work.get(reverse("stop", args=[call.number, "judge"])).content.decode()
    taken_back = ValveTurn.objects.get()
    taken_back.undone_at = timezone.now()
    taken_back.save()
    assert course_of(fresh(call)).done == ()
