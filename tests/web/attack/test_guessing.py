"""Guessing a password: slowed, locked by name and address, noted, the same for names that do not exist; sessions on others' devices end."""

import re
import time

import pytest
from axes.models import AccessFailureLog
from django.test import Client
from django.urls import reverse

from web.accounts import views
from web.accounts.middleware import ShortSessions
from web.logbook.actions.people import reset_password

RIGHT = "a-long-pass-phrase"


def try_in(name, password, address="10.0.0.7", client=None, **more):
    client = client or Client(REMOTE_ADDR=address)
    return client.post(reverse("login"), {"username": name, "password": password, **more})


def words(answer):
    return re.sub(r"\s+", " ", re.sub(r"<[^>]*>", " ", answer.content.decode()))


def test_a_name_is_locked_for_the_address_that_guesses_it_and_nobody_else(user):
    answers = [try_in("ansel", f"guess-{n}") for n in range(8)]
    assert answers[0].status_code == 200 and answers[-1].status_code == 429
    assert "Too many tries" in words(answers[-1])
    assert try_in("ansel", RIGHT).status_code == 429, "also the right password is refused there"
    assert try_in("ansel", RIGHT, "10.0.0.8").status_code == 302, "elsewhere its owner logs in"
    assert AccessFailureLog.objects.filter(username="ansel", ip_address="10.0.0.7").count() >= 6


def test_names_that_do_not_exist_are_answered_the_same(user):
    known, unknown = ([words(try_in(name, f"guess-{n}")) for n in range(8)] for name in ("ansel", "nobody-here"))
    assert known == unknown


def test_an_address_that_guesses_many_names_is_locked(user, monkeypatch):
    monkeypatch.setattr(views, "MOST_FAILURES_OF_ADDRESS", 9)
    for n in range(9):
        try_in(f"name-{n}", "guess")
    assert try_in("ansel", RIGHT).status_code == 429


def test_a_new_password_opens_a_locked_name(user, db):
    user.member.owner = True
    user.member.save()
    for n in range(8):
        try_in("ansel", f"guess-{n}")
    password = reset_password(user, user.member)
    assert try_in("ansel", password).status_code == 302


def test_hashing_never_takes_every_thread(user, monkeypatch):
    monkeypatch.setattr(views, "WAITING_S", 0.05)
    for _ in range(views.HASHED_AT_ONCE):
        assert views._hashing.acquire(timeout=1)
    try:
        answer = try_in("ansel", RIGHT)
        assert answer.status_code == 503 and "Many are logging in" in words(answer)
    finally:
        views._hashing.release(views.HASHED_AT_ONCE)
    assert try_in("ansel", RIGHT).status_code == 302


@pytest.mark.parametrize(("own", "stays"), [("yes", True), ("", False)])
def test_a_session_on_somebody_elses_device_ends_when_nobody_uses_it(user, client, own, stays):
    assert try_in("ansel", RIGHT, client=client, own_device=own).status_code == 302
    assert client.session.get_expire_at_browser_close() is not stays
    session = client.session
    session["seen"] = int(time.time()) - ShortSessions.IDLE_S - 60
    session.save()
    assert client.get(reverse("board")).status_code == (200 if stays else 302)
