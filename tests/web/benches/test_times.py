"""Times of a visit: marked in an order that can be, summed with the shop's overtime, and the office's sheet."""

import csv
import io
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from web.benches.quote.actions.stock import keep_part, use_part
from web.benches.report.actions.mark_time import mark_time
from web.benches.report.views.times import spent_on
from web.logbook.actions.do_act import do_act
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call, TimeMark


def post(client, address, *args, **typed):
    return client.post(reverse(address, args=args), typed, follow=True).content.decode()


def test_a_visit_is_marked_by_taps_and_what_cannot_follow_is_refused(at_work, call, user):
    assert "cannot follow nothing: arrive first" in post(at_work, "mark-time", call.number, "left")
    post(at_work, "mark-time", call.number, "arrived")
    body = post(at_work, "mark-time", call.number, "away")
    assert "Back at work" in body and "Waiting" not in body.split('id="times"')[1].split("</section>")[0]
    assert "is not a time like" in post(at_work, "mark-time", call.number, "back", mark_at="soon")
    last = TimeMark.objects.last()
    post(at_work, "undo-mark", call.number, last.pk)
    assert [one.what for one in call.timemarks.filter(undone_at=None)] == ["arrived"]
    early = timezone.localtime() - timedelta(minutes=30)
    assert "it must lie after" in post(at_work, "mark-time", call.number, "left", mark_at=f"{early:%H:%M}")


def test_the_day_of_the_shop_makes_overtime_and_the_sheet_says_it_all(at_work, call, user):
    user.member.owner = True
    user.member.save()
    wrong = post(at_work, "terms", day_begins_min="17:00", day_ends_min="07:00")
    assert "it must end after it begins" in wrong and "is not a time like" in post(at_work, "terms", day_begins_min="early")
    post(at_work, "terms", day_begins_min="00:01", day_ends_min="00:02")
    now = timezone.now()
    for hours, what in ((3.0, "arrived"), (2.0, "waiting"), (1.5, "back"), (0.5, "left")):
        mark_time(user, call, what, at=now - timedelta(hours=hours))
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    call = Call.objects.get(pk=call.pk)
    told = spent_on(call)
    assert told.minutes["work"] == pytest.approx(120.0) and told.minutes["waiting"] == pytest.approx(30.0)
    assert told.overtime == pytest.approx(150.0, abs=1.1)
    rows = list(csv.DictReader(io.StringIO(at_work.get(reverse("office-sheet", args=[call.number])).content.decode())))
    assert [(row["detail"], row["quantity"]) for row in rows[:2]] == [("at work", "2.00"), ("waiting", "0.50")]
    assert any(row["what"] == "part, not noted" and row["detail"] == "fan motor" for row in rows)
    keep_part(user, {"what": "Fan Motor", "carried": "2", "wanted": "2", "price": "61.50"})
    use_part(user, call, "fan motor")
    sheet = at_work.get(reverse("office-sheet", args=[call.number])).content.decode()
    assert 'part,"Fan Motor, 61.50 each",1,piece' in sheet and "not noted" not in sheet
    assert "2.0 h at work" in at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()


def test_times_of_another_shop_are_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    assert client.post(reverse("mark-time", args=[call.number, "arrived"])).status_code == 404
    assert client.get(reverse("office-sheet", args=[call.number])).status_code == 404
