"""Every form of every page of the demo, sent twice as by a double tap: what it stores is stored once."""

import re
import threading
from datetime import timedelta
from types import SimpleNamespace

import pytest
from django.apps import apps
from django.contrib.auth import get_user_model
from django.db import connection, transaction
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.urls import reverse
from django.utils import timezone

from tests.web.attack.forms import forms_of, pages_of
from web.logbook import once as taken
from web.logbook.actions import acting
from web.logbook.models import Call, FollowUp, SentOnce

# An answer writes so often at the most, well under a tenth of a second.
MOST_WRITES = 120


def stored():
    """How many rows there are of everything, and how many lines of the log."""
    models = [model for model in apps.get_app_config("logbook").get_models() if model is not SentOnce]
    return {model.__name__: model._base_manager.count() for model in models}


@pytest.mark.django_db(transaction=True)
@pytest.mark.usefixtures("loaded")
def test_no_form_stores_anything_twice():
    client, kept, once = Client(), set(), {}
    client.force_login(get_user_model().objects.get(username="wren"))
    number = Call.objects.filter(closed_at=None, unit__name="Freezer 1").values_list("number", flat=True)[0]
    tried = 0
    for page, to, typed in forms_of(client, pages_of(number)):
        name = re.sub(r"\d+", "N", to)
        if once.get(name, 0) >= 2:
            continue
        once[name] = once.get(name, 0) + 1
        with transaction.atomic():
            before = stored()
            with CaptureQueriesContext(connection) as asked:
                first = client.post(to, typed | {"once": f"key-{tried}"}, headers={"Referer": f"http://testserver{page}"})
            writes = [one["sql"] for one in asked if one["sql"].startswith(("INSERT", "UPDATE", "DELETE"))]
            assert len(writes) <= MOST_WRITES, f"{to} writes {len(writes)} times: everybody waits for it"
            after = stored()
            second = client.post(to, typed | {"once": f"key-{tried}"}, headers={"Referer": f"http://testserver{page}"})
            assert first.status_code < 500 and second.status_code < 500, to
            assert stored() == after, f"{to} from {page} is stored twice: {typed}"
            tried += 1
            if after != before:
                kept.add(name)
                assert second.status_code == 302, to
                assert not first.headers.get("Location") or second["Location"] == first["Location"], to
            transaction.set_rollback(True)
    assert tried > 100 and len(kept) > 40, (tried, sorted(kept))


PROMISE = {"what": "Look at the seal", "once": "one-key"}


def promises(call, client, **more):
    due = (timezone.localdate() + timedelta(days=3)).isoformat()
    return client.post(reverse("promise", args=[call.number]), {**PROMISE, "due": due, **more})


def test_other_words_another_key_and_another_person_are_something_else(at_work, call, user):
    first, again = promises(call, at_work), promises(call, at_work)
    assert FollowUp.objects.count() == 1 and again.status_code == 302 and again["Location"] == first["Location"]
    promises(call, at_work, what="Look at the hinge")
    promises(call, at_work, once="other-key")
    assert FollowUp.objects.count() == 3
    promises(call, at_work, once="")
    promises(call, at_work, once="")
    assert FollowUp.objects.count() == 5, "without a key nothing is known of it"


def test_what_was_refused_may_be_sent_again_by_its_key(at_work, call):
    assert not FollowUp.objects.exists() and promises(call, at_work, what="").status_code == 200
    assert not SentOnce.objects.exists()
    promises(call, at_work)
    assert FollowUp.objects.count() == 1


def test_a_fragment_sent_twice_changes_nothing_and_a_lost_answer_is_made_up_for(at_work, call):
    to, words = reverse("enter", args=[call.number, "box_temp_f"]), {"box_temp_f": "12", "stop": "read"}
    how = {"HX-Request": "true", "X-Once": "a"}
    assert at_work.post(to, words, headers=how).status_code == 200
    again = at_work.post(to, words, headers=how)
    assert again.status_code == 204 and "HX-Refresh" not in again
    SentOnce.objects.update(at=timezone.now() - timedelta(minutes=1))
    assert at_work.post(to, words, headers=how)["HX-Refresh"] == "true"
    assert call.readings.count() == 1


def test_keys_are_forgotten_after_some_days(at_work, call, monkeypatch):
    promises(call, at_work)
    SentOnce.objects.update(at=timezone.now() - taken.KNOWN - timedelta(hours=1))
    monkeypatch.setattr(taken, "SWEPT_EVERY", 1)
    promises(call, at_work, once="later")
    assert SentOnce.objects.count() == 1


@pytest.mark.django_db(transaction=True)
def test_two_taps_that_arrive_at_once_are_one(at_work, call, user):
    answers = []

    def tap():
        client = Client()
        client.cookies = at_work.cookies
        answers.append(promises(call, client).status_code)
        connection.close()

    taps = [threading.Thread(target=tap) for _ in range(6)]
    for one in taps:
        one.start()
    for one in taps:
        one.join()
    assert FollowUp.objects.count() == 1 and answers == [302] * 6


def test_every_form_that_is_posted_carries_a_key_of_its_own(at_work, call):
    body = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    keys = re.findall(r'name="once" value="([^"]+)"', body)
    assert len(keys) == body.count('name="csrfmiddlewaretoken"') and len(set(keys)) == len(keys) > 3


def test_an_action_that_holds_the_data_for_long_is_noted(monkeypatch, caplog, db):
    @acting.action
    def slow():
        return "done"

    moments = iter([0.0, 1.5])
    monkeypatch.setattr(acting, "time", SimpleNamespace(monotonic=lambda: next(moments)))
    assert slow() == "done" and "held the data for 1.5 s" in caplog.text
    moments = iter([0.0, 0.5])
    caplog.clear()
    assert slow() == "done" and not caplog.text
