"""Every address × every method × every role × hostile values: no server error, nothing foreign shown or changed."""

import time

import pytest
from django.contrib.auth import get_user_model
from django.test import Client
from django.urls import reverse

from tests.web.attack.addresses import METHODS, filled, luck, patterns, sent
from tests.web.conftest import make_person
from web.logbook.models import Call, Device, LogEntry, Reading, Unit

SECRET = "Quartz lane, back door"
SLOWEST_S = 2.0


@pytest.fixture
def world(loaded, settings):
    """The demo, another shop with a call of its own, somebody without a shop; and a client for each role."""
    settings.ALLOWED_HOSTS = ["testserver"]
    stranger = make_person("Other Shop", "quill")
    theirs = Unit.objects.create(shop=stranger.member.shop, name=SECRET, kind="walk_in_freezer", refrigerant="R-404A")
    Call.objects.create(shop=stranger.member.shop, unit=theirs, number=9001, opened_by=stranger)
    nobody = get_user_model().objects.create_user("nobody")
    people = {
        "anonymous": None,
        "own": get_user_model().objects.get(username="wren"),
        "colleague": get_user_model().objects.get(username="tobin"),
        "other shop": make_person("Third shop", "pike"),
        "no shop": nobody,
    }
    clients = {}
    for role, person in people.items():
        clients[role] = Client(raise_request_exception=False)
        if person is not None:
            clients[role].force_login(person)
    return clients


@pytest.fixture
def fitting(world):
    """Values that lead somewhere, by the name of a parameter."""
    from kettle.knowledge import observations
    from web.round.stops import STOPS

    return {
        "number": [*Call.objects.values_list("number", flat=True), 9001],
        "pk": [1, 2, 3, *Unit.objects.values_list("pk", flat=True)[:3], *Device.objects.values_list("pk", flat=True)],
        "key": list(observations.REGISTRY),
        "stop": [stop.slug for stop in STOPS],
        "side": ["found", "left"],
        "mark": ["drip", "clear"],
        "what": ["turn", "setting", "set", "override", "finding", "service", "leave"],
    }


def walk(world, fitting, count, seed, slowest=None):
    """Send so many requests; returns what went wrong."""
    chance, routes, wrong = luck(seed), list(patterns()), []
    theirs = Call.objects.get(number=9001)
    before = (theirs.readings.count(), theirs.found, theirs.closed_at, theirs.unit.name)
    for turn in range(count):
        route, method, role = routes[turn % len(routes)], chance.choice(METHODS), chance.choice(list(world))
        if "logout" in route:
            continue
        path = filled(route, fitting, chance)
        data = sent(chance) if method in ("get", "head", "post") else {}
        headers = {"HX-Request": "true"} if chance.random() < 0.3 else {}
        start = time.perf_counter()
        answer = getattr(world[role], method)(path, data, headers=headers)
        took = time.perf_counter() - start
        body = b"".join(answer.streaming_content) if answer.streaming else answer.content
        if answer.status_code >= 500:
            wrong.append((answer.status_code, method, role, path[:120], {k: v[:30] for k, v in data.items()}))
        if SECRET.encode() in body:
            wrong.append(("foreign", method, role, path[:120]))
        if role == "anonymous" and answer.status_code == 200 and not path.startswith(("/login", "/health")):
            wrong.append(("open", method, path[:120]))
        if slowest is not None and took > slowest:
            wrong.append((f"{took:.1f} s", method, role, path[:120]))
    theirs.refresh_from_db()
    assert (theirs.readings.count(), theirs.found, theirs.closed_at, theirs.unit.name) == before
    return wrong


def test_no_address_answers_with_an_error_whatever_it_is_sent(world, fitting):
    assert walk(world, fitting, 900, seed=1) == []


@pytest.mark.attack
def test_ten_thousand_requests(world, fitting):
    assert walk(world, fitting, 10_000, seed=2, slowest=SLOWEST_S) == []


def test_every_page_is_private_and_answers_to_head(world, fitting):
    own, seen = world["own"], 0
    for route in patterns():
        path = filled(route, {**fitting, "pk": fitting["pk"][:1]}, luck(3))
        got, head = own.get(path), own.head(path)
        if got.status_code == 200 and "logout" not in route:
            assert "no-store" in got.headers["Cache-Control"] and "private" in got.headers["Cache-Control"], path
            assert head.status_code == 200, path
            seen += 1
    assert seen > 15


def test_what_is_typed_is_kept_without_letters_nobody_types(world):
    own = world["own"]
    call = Call.objects.filter(closed_at=None, shop__members__user__username="wren").first()
    own.post(reverse("words", args=[call.number]), {"complaint": "warm\x00 since\x07 Monday\ttoo"})
    call.refresh_from_db()
    assert call.complaint == "warm since Monday\ttoo"


def test_every_action_leaves_its_line_in_the_log(world):
    own = world["own"]
    call = Call.objects.filter(closed_at=None, unit__name="Freezer 1").first()
    before = LogEntry.objects.count()
    own.post(reverse("enter", args=[call.number, "suction_psig"]), {"suction_psig": "9.8", "stop": "read"})
    assert LogEntry.objects.count() == before + 1
    assert Reading.objects.filter(call=call, key="suction_psig", value=9.8).exists()
