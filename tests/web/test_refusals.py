"""What is refused is said on the page it was sent from: closed calls, figures without end, ways back that lead nowhere."""

import pytest
from django.contrib.messages import get_messages
from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from django.utils import timezone

from web.logbook.actions.open_call import open_call
from web.logbook.actions.promise import promise
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Call, Measurement, SwitchMoment, TimeMark, TrendLog

DIGITS = "9" * 6000


@pytest.fixture
def closed(call, user):
    """A closed call with something of each kind on it that has a way back of its own."""
    rows = {
        "undo-mark": TimeMark.objects.create(call=call, by=user, what="arrived"),
        "undo-measurement": Measurement.objects.create(
            call=call, by=user, what="volts", one="L1", other="L2", value=230.0, state="calling"
        ),
        "undo-cycle": SwitchMoment.objects.create(call=call, by=user, what="start"),
    }
    Call.objects.filter(pk=call.pk).update(closed_at=timezone.now())
    return rows


@pytest.mark.parametrize("name", ["undo-mark", "undo-measurement", "undo-cycle"])
def test_nothing_is_taken_back_on_a_closed_call_and_it_is_said_where_one_was(at_work, call, closed, name):
    here = reverse("stop", args=[call.number, "power"])
    answer = at_work.post(reverse(name, args=[call.number, closed[name].pk]), headers={"Referer": f"http://testserver{here}"}, follow=True)
    assert "is closed; open a new call" in answer.content.decode()
    closed[name].refresh_from_db()
    assert closed[name].undone_at is None


def test_a_fragment_is_told_to_look_again(at_work, call, closed):
    answer = at_work.post(reverse("undo-mark", args=[call.number, closed["undo-mark"].pk]), headers={"HX-Request": "true"})
    assert answer.status_code == 204 and answer["HX-Refresh"] == "true"


@pytest.mark.parametrize("came", ["", "http://elsewhere.example/page", "http://testserver", "nonsense"])
def test_without_a_page_of_ours_to_go_back_to_it_is_the_board(at_work, call, closed, came):
    answer = at_work.post(reverse("undo-mark", args=[call.number, closed["undo-mark"].pk]), headers={"Referer": came} if came else {})
    assert answer.status_code == 302 and answer["Location"] == "/"


@pytest.mark.parametrize(
    "to", ["x", "//elsewhere.example/", "http://elsewhere.example/", "javascript:alert(1)", "", "/\\elsewhere", DIGITS]
)
def test_a_way_back_that_is_no_page_of_ours_is_the_board(at_work, call, user, to):
    due = timezone.localdate()
    for n, name in enumerate(("promise-done", "promise-let-go")):
        made = promise(user, call, f"Look again {n}", due)
        answer = at_work.post(reverse(name, args=[made.pk]), {"next": to, "reason": "no need", "call": DIGITS})
        assert answer.status_code == 302 and answer["Location"] == reverse("board")
    answer = at_work.post(reverse("by-feel"), {"next": to})
    assert answer.status_code == 302 and answer["Location"] == reverse("board")


def test_a_page_of_ours_is_gone_back_to(at_work):
    assert at_work.post(reverse("by-feel"), {"next": "/me/"})["Location"] == "/me/"


def test_what_a_log_shows_goes_to_one_of_two_open_calls(at_work, user, call, unit):
    newer = open_call(user, unit, "again")
    log = TrendLog.objects.create(
        shop=unit.shop, unit=unit, call=call, by=user, state="ready", name="a", findings=[{"to": 1.0, "keys": {"box_temp_f": 4.0}}]
    )
    at_work.post(reverse("take-log", args=[log.pk]), {"place": "0"})
    assert call.readings.filter(key="box_temp_f").exists() and not newer.readings.exists()
    TrendLog.objects.update(call=None)
    at_work.post(reverse("take-log", args=[log.pk]), {"place": "0"})
    assert newer.readings.filter(key="box_temp_f").exists()
    for place in (DIGITS, "1", "-1", "x"):
        answer = at_work.post(reverse("take-log", args=[log.pk]), {"place": place})
        assert [str(one) for one in get_messages(answer.wsgi_request)][-1] == "That log shows no such thing"


@pytest.mark.parametrize(("name", "typed"), [
    ("remind", {"minutes": DIGITS}), ("use-part", {"what": "Fan", "quantity": DIGITS, "each": "9" * 31}),
    ("quote-limit", {"limit": "9" * 31}), ("watch-box", {"box_temp_f": DIGITS}),
    ("quote-line", {"what": "Fan", "quantity": DIGITS, "price": "9" * 31}),
])  # fmt: skip
def test_figures_without_end_are_refused_beside_their_field(at_work, call, name, typed):
    assert at_work.post(reverse(name, args=[call.number]), typed, follow=True).status_code == 200


def test_a_ledger_with_a_nul_in_it_is_no_csv(at_work):
    upload = SimpleUploadedFile("a.csv", b"day,kind,ounces,cylinder,reason\n2026-01-01,bought,5,\x00,a\n")
    assert "no CSV in UTF-8" in at_work.post(reverse("ledger-read-in"), {"file": upload}, follow=True).content.decode()


def test_a_reading_on_a_closed_call_is_refused(call, user, closed):
    with pytest.raises(Exception, match="is closed"):
        record_reading(user, Call.objects.get(pk=call.pk), "box_temp_f", "4")
