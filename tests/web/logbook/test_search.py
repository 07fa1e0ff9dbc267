"""Search over everything a shop has written: found where it stands, by all its words, never another shop's."""

import pytest
from django.db.models import TextField
from django.urls import reverse

from web.logbook.actions.do_act import do_act
from web.logbook.actions.hand_over import write_hand_over
from web.logbook.actions.open_call import open_call
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call, Site, Unit
from web.logbook.units.search import SOURCES, search


def found(shop, words):
    return [(one.label, one.words) for one in search(shop, words)]


def test_words_are_found_where_they_stand_and_lead_there(at_work, user, call, unit):
    write_hand_over(user, call, {"found": "The rear fan had seized on its bearing, as in spring.", "advice": "New fan bearing"})
    act = do_act(user, call, judge_call(call), "evap_fan.replaced", note="bearing by the van's own stock")
    shop = user.member.shop
    assert {label for label, _ in found(shop, "bearing")} == {"Call", "Done"}
    assert found(shop, "seized spring") == [("Call", "The rear fan had seized on its bearing, as in spring.")]
    assert found(shop, "seized summer") == [] and found(shop, "x") == [] and found(shop, "barn")[0][0] == "Unit"
    undo_entry(user, act)
    assert {label for label, _ in found(shop, "bearing")} == {"Call"}
    body = at_work.get(reverse("search"), {"q": "BEARING"}).content.decode()
    assert reverse("report", args=[call.number]) in body and "Freezer 9" in body
    assert "stands nowhere" in at_work.get(reverse("search"), {"q": "zeppelin"}).content.decode()


def test_another_shops_words_are_never_found(user, stranger, call):
    site = Site.objects.create(shop=stranger.member.shop, name="Bearing works")
    other = Unit.objects.create(shop=stranger.member.shop, site=site, name="Bearing cooler", kind="walk_in_cooler", refrigerant="R-448A")
    write_hand_over(stranger, open_call(stranger, other, "bearing noise"), {"done": "bearing greased"})
    assert found(user.member.shop, "bearing") == [] and len(found(stranger.member.shop, "bearing")) == 2


@pytest.mark.parametrize("asked", ["'; drop table", "%", "_", "\\", "<script>", "٣٣", "a" * 5000, "\x00b"])
def test_no_words_break_it(at_work, call, asked):
    assert at_work.get(reverse("search"), {"q": asked}).status_code == 200


def test_every_field_of_a_call_that_people_write_in_is_searched():
    written = {field.name for field in Call._meta.fields if isinstance(field, TextField)}
    assert written == set(next(source for source in SOURCES if source.model is Call).fields)
