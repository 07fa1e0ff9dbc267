"""Every form of every page, sent with what somebody hostile would type into each of its fields: no server error, and no long answer."""

import random
import time

import pytest
from django.contrib.auth import get_user_model
from django.db import transaction
from django.test import Client

from tests.web.attack.addresses import HOSTILE
from tests.web.attack.forms import forms_of, pages_of
from web.logbook.models import Call

SLOWEST_S = 2.0
LONGER = ("9" * 31, "1" * 200, "-" * 30, "1e9999", "½", "1/0", "0x10", "NaN,NaN", "9" * 4299, "+", ".", ",", "−", "12:99", "2026-13-45")


def two_calls():
    """A call in progress and a closed one."""
    return [Call.objects.filter(closed_at=None, unit__name="Freezer 1").first(), Call.objects.exclude(closed_at=None).first()]


def every_state():
    """Calls of the demo and what becomes of them: in progress, just opened, stopped for safety, overdue, held by the customer, closed."""
    return [*Call.objects.filter(closed_at=None), *Call.objects.exclude(closed_at=None)[:4]]


def hostile(client, most, seed, calls):
    """Posts of every form with one field after another made hostile, in an order drawn by chance; yields what was sent and the answer."""
    forms = [form for call in calls for form in forms_of(client, pages_of(call.number))]
    sent = [(to, typed | {field: value}) for _, to, typed in forms for field in typed for value in (*HOSTILE, *LONGER)]
    random.Random(seed).shuffle(sent)
    for to, typed in sent[:most]:
        with transaction.atomic():
            began = time.perf_counter()
            answer = client.post(to, typed)
            yield to, typed, answer, time.perf_counter() - began
            transaction.set_rollback(True)


@pytest.fixture
def wren(loaded):
    client = Client(raise_request_exception=False)
    client.force_login(get_user_model().objects.get(username="wren"))
    return client


def test_no_form_answers_with_an_error_whatever_is_typed_into_it(wren):
    wrong = [(to, typed) for to, typed, answer, _ in hostile(wren, 250, 1, two_calls()) if answer.status_code >= 500]
    assert wrong == []


@pytest.mark.attack
def test_ten_thousand_hostile_values(wren, caplog):
    wrong = [(to, str(typed)[:300], answer.status_code, took) for to, typed, answer, took in hostile(wren, 10_000, 2, every_state())
             if answer.status_code >= 500 or took > SLOWEST_S]  # fmt: skip
    assert wrong == []
    assert [one.getMessage() for one in caplog.records if "held the data" in one.getMessage()] == [], "nobody waits for another's form"
