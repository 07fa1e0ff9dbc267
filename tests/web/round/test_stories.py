"""The stories of the core, entered as a person enters them: stage by stage through the fields, sheets and benches of the application."""

from datetime import timedelta

import pytest
from django.db.models import F
from django.urls import reverse
from django.utils import timezone

from kettle.judging.course import Done, judge_course
from kettle.knowledge import observations
from kettle.knowledge.equipment import UnitSpec, resolve
from tests.core.judging.stories import STORIES
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import course_of
from web.logbook.models import Act, Call, Melt, Reading, Site, Unit, ValveTurn

AN_HOUR = timedelta(hours=1)
# What a hold may refuse goes through the field, the rest by the action behind it: each answer of a field judges the call twice.
POSTED = ("suction_psig", "winding_ground_ohm", "ice_form")


def an_hour_goes_by(call):
    """Everything on record is an hour older."""
    for model in (Reading, Act, Melt, ValveTurn):
        model.objects.filter(call=call).update(at=F("at") - AN_HOUR)
    Melt.objects.filter(call=call).update(ended_at=F("ended_at") - AN_HOUR)


def enter(client, call, key, value):
    typed = list(value) if isinstance(value, (list, tuple)) else str(value)
    if key not in POSTED:
        record_reading(call.opened_by, call, key, typed, at=timezone.now())
        return
    response = client.post(reverse("enter", args=[call.number, key]), {key: typed, "stop": "read"}, headers={"HX-Request": "true"})
    assert response.status_code == 200 and 'role="alert" id="error-' not in response.content.decode(), (key, value)


def do(client, call, user, part, did, value):
    if part == "coil":
        Melt.objects.create(call=call, by=user, method="warm_water", ended_at=timezone.now(), clear=True)
    elif did in ("turned_in", "turned_out"):
        typed = {"direction": did.removeprefix("turned_"), "turns": str(value), "reason": "to see what it does"}
        client.post(reverse("turn-valve", args=[call.number]), typed)
    elif part == "program":
        Act.objects.create(call=call, by=user, part=part, did=did)
    else:
        amount = {"amount": f"{value:g} oz"} if value else {}
        client.post(reverse("done", args=[call.number]), {"act": f"{part}.{did}", "reason": "told to", **amount})


@pytest.mark.parametrize("name", STORIES)
def test_a_story_entered_by_hand_ends_as_the_core_tells_it(user, at_work, name):
    plate, stages, done, cause, left = STORIES[name]
    site = Site.objects.create(shop=user.member.shop, name="Story")
    call = open_call(user, Unit.objects.create(shop=user.member.shop, site=site, name="Told", **plate), "")
    for place, stage in enumerate(stages):
        if place:
            an_hour_goes_by(call)
            do(at_work, call, user, *done[place - 1])
            an_hour_goes_by(call)
        for key, value in stage.items():
            enter(at_work, call, key, value)
    told = course_of(Call.objects.get(pk=call.pk))
    assert [(one.part, one.did) for one in told.done] == [(part, did) for part, did, _ in done]
    # Fields also say what follows from what was entered (fans one by one); the core is told the same.
    checked = [{key: observations.get(key).check(value) for key, value in stage.items()} for stage in stages]
    alone = judge_course(resolve(UnitSpec(**plate)), checked, [Done(*one) for one in done])
    assert cause in told.was[0].codes and told.was[0].codes == alone.was[0].codes
    assert set(told.left[0].codes) == left
    judged = at_work.get(reverse("stop", args=[call.number, "judge"])).content.decode()
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    for one in told.done:
        assert f"After: {one.act.label.lower()}" in at_work.get(reverse("taken", args=[call.number])).content.decode()
        assert one.act.label in report
    assert ("Nothing of it is left by what we see now." in report) == (not left) and 'id="left"' in judged
