"""The owner's page: people, devices, the log; and nobody else's."""

import pytest
from django.test import Client
from django.urls import reverse

from tests.web.conftest import make_person
from web.accounts.models import Member
from web.logbook.models import Device, LogEntry


@pytest.fixture
def owner(user, at_work):
    Member.objects.filter(user=user).update(owner=True)
    return at_work


def password_in(body):
    return body.split('class="fig password">')[1].split("<")[0].strip()


def test_a_person_is_added_closed_opened_and_given_a_new_password(owner, user):
    body = owner.post(reverse("add-person"), {"full_name": "Runa Vik", "login": "runa"}).content.decode()
    password = password_in(body)
    visitor = Client()
    assert visitor.post(reverse("login"), {"username": "runa", "password": password}).status_code == 302
    assert visitor.get(reverse("board")).status_code == 200
    member = Member.objects.get(user__username="runa")
    owner.post(reverse("close-person", args=[member.pk]))
    assert visitor.get(reverse("board")).status_code == 302, "an open session ends"
    owner.post(reverse("reopen-person", args=[member.pk]))
    new = password_in(owner.post(reverse("password-person", args=[member.pk])).content.decode())
    assert new != password and Client().post(reverse("login"), {"username": "runa", "password": new}).status_code == 302
    lines = owner.get(reverse("log")).content.decode()
    for words in ("add person", "close person", "reopen person", "reset password"):
        assert words in lines
    assert password not in lines and new not in lines


@pytest.mark.parametrize(
    ("sent", "words"),
    [({"full_name": "R", "login": "runa"}, "Name: 2 to 60"), ({"full_name": "Runa Vik", "login": "r u"}, "Log-in: letters"),
     ({"full_name": "Runa Vik", "login": "ANSEL"}, "is taken")],
)  # fmt: skip
def test_a_person_that_cannot_be_is_said_beside_the_field_and_nothing_is_lost(owner, sent, words):
    body = owner.post(reverse("add-person"), sent).content.decode()
    assert words in body and f'value="{sent["login"]}"' in body
    assert Member.objects.count() == 1


@pytest.mark.parametrize(
    ("address", "words"),
    [
        ("192.168.8.20", "is not host:port"),
        ("host:0", "outside 1 to 65535"),
        ("host:99999", "outside"),
        ("a b:502", "is not host:port"),
        ("h:²", "outside"),
    ],
)
def test_an_address_that_is_none_is_said(owner, address, words):
    body = owner.post(reverse("add-device"), {"kind": "probes", "name": "Van", "address": address}).content.decode()
    assert words in body and not Device.objects.exists()


def test_devices_come_and_go_and_units_with_them(owner, unit):
    owner.post(reverse("add-device"), {"kind": "probes", "name": "Van", "address": "192.168.8.20:9471"})
    device = Device.objects.get()
    unit.probes = device
    unit.save()
    assert "192.168.8.20:9471" in owner.get(reverse("shop")).content.decode()
    owner.post(reverse("remove-device", args=[device.pk]))
    unit.refresh_from_db()
    assert unit.probes is None


def test_it_is_the_owners_alone(at_work, stranger, user):
    theirs = Device.objects.create(shop=stranger.member.shop, kind="probes", name="Theirs", address="h:1")
    for name in ("shop", "log"):
        assert at_work.get(reverse(name)).status_code == 403
    Member.objects.filter(user=user).update(owner=True)
    assert at_work.post(reverse("remove-device", args=[theirs.pk])).status_code == 404
    assert at_work.post(reverse("close-person", args=[stranger.member.pk])).status_code == 404
    assert Device.objects.filter(pk=theirs.pk).exists()
    make_person("Other Shop", "elm")
    LogEntry.objects.create(shop=stranger.member.shop, by=stranger, action="secret_act")
    assert "secret act" not in at_work.get(reverse("log")).content.decode()


def test_nobody_closes_the_own_log_in(owner, user):
    owner.post(reverse("close-person", args=[user.member.pk]))
    user.refresh_from_db()
    assert user.is_active
