import pytest
from django.core.exceptions import PermissionDenied
from django.urls import reverse

from web.logbook.actions import hand_over, keep_call
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.models import Reading

STOPS = ["arrive", "melt", "read", "judge", "correct", "hand-over"]


def pages(call):
    yield reverse("unit", args=[call.unit_id])
    for stop in STOPS:
        yield reverse("stop", args=[call.number, stop])
    for name in ("call", "report", "report-pdf", "export-case", "keep"):
        yield reverse(name, args=[call.number])
    yield reverse("standing", args=[call.number, "read"])


def posts(call):
    yield reverse("enter", args=[call.number, "suction_psig"]), {"suction_psig": "10"}
    yield reverse("turn-valve", args=[call.number]), {"direction": "in", "turns": "0.25"}
    yield reverse("setting", args=[call.number]), {"parameter": "drip", "as_found": "1", "as_left": "2", "why": "test"}
    for name in ("undo", "close"):
        yield reverse(name, args=[call.number]), {}
    yield reverse("stop", args=[call.number, "hand-over"]), {"found": "x"}


def test_without_a_login_everything_leads_to_the_login(client, call):
    for address in [reverse("board"), reverse("new-call"), reverse("new-unit"), *pages(call)]:
        response = client.get(address)
        assert response.status_code == 302
        assert response.url.startswith(reverse("login"))


def test_another_shop_finds_nothing(client, stranger, call):
    client.force_login(stranger)
    for address in pages(call):
        assert client.get(address).status_code == 404, address
    for address, data in posts(call):
        assert client.post(address, data).status_code == 404, address
    assert "Freezer 9" not in client.get(reverse("board")).content.decode()
    assert not Reading.objects.exists()


def test_actions_refuse_another_shop_by_themselves(stranger, user, unit, call):
    reading = record_reading(user, call, "suction_psig", "10")
    for act in (
        lambda: record_reading(stranger, call, "suction_psig", "11"),
        lambda: undo_entry(stranger, reading),
        lambda: open_call(stranger, unit),
        lambda: change_setting(stranger, call, "drip", "1", "2", "because"),
        lambda: hand_over.write_hand_over(stranger, call, {"found": "x"}),
        lambda: hand_over.close_call(stranger, call),
        lambda: keep_call.keep_on_known_unit(stranger, call, unit),
    ):
        with pytest.raises(PermissionDenied):
            act()


def test_a_login_without_a_shop_reaches_nothing(client, django_user_model, call):
    client.force_login(django_user_model.objects.create_user("nobody"))
    assert client.get(reverse("stop", args=[call.number, "read"])).status_code == 404
    assert client.post(reverse("quick-look"), {"kind": "prep_rail", "refrigerant": "R-290"}).status_code == 403


def test_a_post_without_the_token_is_refused(user, call):
    from django.test import Client

    strict = Client(enforce_csrf_checks=True)
    strict.force_login(user)
    assert strict.post(reverse("undo", args=[call.number])).status_code == 403


def test_pages_carry_a_strict_content_policy(at_work, call):
    policy = at_work.get(reverse("stop", args=[call.number, "read"]))["Content-Security-Policy"]
    assert "script-src 'self'" in [part.strip() for part in policy.split(";")]
    assert "unsafe" not in policy


def test_a_stop_that_is_none_has_no_page(at_work, call):
    assert at_work.get(reverse("stop", args=[call.number, "nonsense"])).status_code == 404


def test_a_fragment_after_the_session_ended_is_refused_not_replaced_by_the_login(client, call):
    here = reverse("stop", args=[call.number, "read"])
    headers = {"HX-Request": "true", "HX-Current-URL": f"http://testserver{here}"}
    response = client.post(reverse("enter", args=[call.number, "suction_psig"]), {"suction_psig": "9"}, headers=headers)
    assert response.status_code == 401
    assert response["HX-Redirect"] == f"{reverse('login')}?next={here.replace('/', '%2F')}"
    assert not Reading.objects.exists()
