"""What broke once by odd values: long names, a renamed demo, a locked or full disk, quick looks that pile up."""

from datetime import timedelta

import pytest
from django.db import OperationalError
from django.urls import reverse
from django.utils import timezone

from kettle import case
from web.accounts.models import Shop
from web.demo import load as demo
from web.logbook.actions.import_case import import_case
from web.logbook.actions.open_call import end_quick_looks, quick_look
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Call, Reading, Site, Unit


def test_a_call_of_the_longest_names_is_exported_and_imported_again(user, call, at_work):
    Site.objects.update(name="S" * 80)
    Unit.objects.update(name="U" * 80)
    record_reading(user, call, "suction_psig", "12")
    content = at_work.get(reverse("export-case", args=[call.number])).content
    assert len(case.read_call(content).unit.name) == case.LONGEST_NAME
    again = import_case(user, content)
    assert again.readings.filter(key="suction_psig", value=12.0).exists()


def test_a_call_takes_no_more_than_it_can_hand_on(user, call, at_work):
    now = timezone.now()
    rows = [Reading(call=call, by=user, key="box_temp_f", value=4.0, at=now) for _ in range(case.MOST_OBSERVATIONS)]
    Reading.objects.bulk_create(rows)
    answer = at_work.post(reverse("enter", args=[call.number, "box_temp_f"]), {"box_temp_f": "5", "stop": "read"}).content.decode()
    assert "open a new call" in answer
    assert import_case(user, at_work.get(reverse("export-case", args=[call.number])).content)


def test_a_demo_whose_shop_was_renamed_starts_again(loaded):
    Shop.objects.update(name="Renamed")
    demo.load()
    assert Shop.objects.count() == 1


def test_quick_looks_end_by_themselves_after_a_day(user, at_work):
    old, new = quick_look(user, "prep_rail", "R-290"), quick_look(user, "prep_rail", "R-290")
    Call.objects.filter(pk=old.pk).update(opened_at=timezone.now() - timedelta(hours=25))
    assert end_quick_looks() == 1
    assert [c.pk for c in Call.objects.filter(closed_at=None)] == [new.pk]
    assert at_work.get(reverse("stop", args=[old.number, "read"])).status_code == 200


@pytest.mark.parametrize(
    ("error", "words"),
    [
        (OperationalError("database is locked"), "held by something else"),
        (OperationalError("database or disk is full"), "disk of the server is full"),
        (OSError(28, "No space left on device"), "disk of the server is full"),
        (OperationalError("attempt to write a readonly database"), "may not write"),
    ],
)
def test_a_locked_database_and_a_full_disk_are_said_and_nothing_is_stored(call, at_work, monkeypatch, error, words):
    def fails(*given, **named):
        raise error

    monkeypatch.setattr("web.round.views.entries.record_reading", fails)
    address = reverse("enter", args=[call.number, "box_temp_f"])
    page = at_work.post(address, {"box_temp_f": "5", "stop": "read"})
    fragment = at_work.post(address, {"box_temp_f": "5", "stop": "read"}, headers={"HX-Request": "true"})
    assert (page.status_code, fragment.status_code) == (503, 503)
    assert words in page.content.decode() and words in fragment.content.decode()
    assert not Reading.objects.exists()


def test_somebody_without_a_shop_is_told_so(client, django_user_model):
    client.force_login(django_user_model.objects.create_user("nobody"))
    for address in ("me", "site-altitude"):
        answer = client.get(reverse(address))
        assert answer.status_code == 403 and "no shop yet" in answer.content.decode(), address
