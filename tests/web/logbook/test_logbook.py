import json
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.urls import reverse
from django.utils import timezone

from kettle import case
from kettle.call import tell
from tests.core.test_case import GOOD, text
from web.demo import load as demo
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call, LogEntry, Reading, Site, Unit


def test_a_call_is_opened_numbered_and_lands_on_arrive(at_work, unit, call):
    response = at_work.post(reverse("new-call"), {"unit": unit.pk, "complaint": "Ice again"})
    made = Call.objects.get(complaint="Ice again")
    assert made.number == call.number + 1
    assert response.url == reverse("stop", args=[made.number, "arrive"])


def test_another_shops_unit_cannot_be_chosen(client, stranger, unit):
    client.force_login(stranger)
    assert "Select a valid choice" in client.post(reverse("new-call"), {"unit": unit.pk}).content.decode()


def test_a_unit_is_added_and_wrong_figures_are_named(at_work, user):
    good = {"site_name": "New hall", "name": "Box 1", "kind": "walk_in_cooler", "refrigerant": "R-448A"}
    body = at_work.post(reverse("new-unit"), good | {"set_f": "500"}).content.decode()
    assert "Set temperature: 500 °F is outside −60 to 80 °F" in body
    assert 'value="New hall"' in body
    assert not Unit.objects.filter(name="Box 1").exists()
    at_work.post(reverse("new-unit"), good | {"set_f": "36", "receiver": "false"})
    made = Unit.objects.get(name="Box 1")
    assert (made.site.name, made.set_f, made.receiver, made.shop) == ("New hall", 36.0, False, user.member.shop)


def test_a_quick_look_goes_straight_to_read_and_is_kept_as_a_new_unit(at_work, user):
    response = at_work.post(reverse("quick-look"), {"kind": "reach_in_freezer", "refrigerant": "R-290"})
    made = Call.objects.get()
    assert response.url == reverse("stop", args=[made.number, "read"])
    assert made.unit.site is None
    assert "0 of" in at_work.get(response.url).content.decode()
    body = at_work.post(reverse("keep", args=[made.number]), {}).content.decode()
    assert "Site: needed for a new unit" in body
    at_work.post(reverse("keep", args=[made.number]), {"site_name": "Lodge", "unit_name": "Freezer 2"})
    made.refresh_from_db()
    assert str(made.unit) == "Freezer 2 · Lodge"
    assert Site.objects.get(name="Lodge").shop == user.member.shop


def test_a_quick_look_is_kept_on_a_known_unit_with_its_readings(at_work, unit):
    at_work.post(reverse("quick-look"), {"kind": "walk_in_freezer", "refrigerant": "R-404A"})
    made = Call.objects.get()
    at_work.post(reverse("enter", args=[made.number, "suction_psig"]), {"suction_psig": "9"})
    at_work.post(reverse("keep", args=[made.number]), {"unit": unit.pk})
    made.refresh_from_db()
    assert made.unit == unit
    assert Unit.objects.count() == 1
    assert judge_call(made).facts.seen["suction_psig"] == 9.0


def test_a_quick_look_needs_words_of_the_list(at_work):
    response = at_work.post(reverse("quick-look"), {"kind": "igloo", "refrigerant": "R-290"}, follow=True)
    assert "Kind: choose one of the list" in response.content.decode()
    assert not Call.objects.exists()


def upload(client, content):
    preview = client.post(reverse("preview-case"), {"case": SimpleUploadedFile("c.json", content)}, follow=True)
    if preview.context is None or "content" not in preview.context:
        return preview
    return client.post(reverse("import-case"), {"content": preview.context["content"]}, follow=True)


def test_a_case_file_becomes_a_call_and_goes_out_again_the_same(at_work):
    upload(at_work, text().encode())
    made = Call.objects.get()
    assert made.unit.set_f == 36.0
    back = case.read_call(at_work.get(reverse("export-case", args=[made.number])).content)
    first = case.read_call(text())
    assert tell(back).now(1).facts.seen == tell(first).now(1).facts.seen
    assert back.unit == first.unit


@pytest.mark.parametrize(
    "content", [b"", b"\xff\xd8\xff\xe0 not a case", text(version=3).encode(), text(observations={"suction_psig": 9999}).encode()]
)
def test_a_hostile_case_file_gets_one_clear_error_and_stores_nothing(at_work, content):
    body = upload(at_work, content).content.decode()
    assert body.count("Case file: ") == 1
    assert not Call.objects.exists()
    assert not Unit.objects.exists()
    assert not Reading.objects.exists()


def test_times_to_come_in_a_case_file_do_not_outrank_what_is_read_now(at_work):
    later = (timezone.now() + timedelta(days=400)).isoformat()
    upload(at_work, json.dumps(GOOD | {"observations": [{"key": "box_temp_f", "value": 40, "at": later}]}).encode())
    made = Call.objects.get()
    at_work.post(reverse("enter", args=[made.number, "box_temp_f"]), {"box_temp_f": "37"})
    assert judge_call(made).facts.seen["box_temp_f"] == 37.0


def test_the_board_shows_the_day_and_finds_a_unit(at_work, call, read_in):
    read_in(evap_fans="stopped")
    body = at_work.get(reverse("board")).content.decode()
    assert "Freezer 9 · Test barn" in body
    assert "must wait" in body
    assert "Freezer 9" in at_work.get(reverse("board"), {"q": "barn r-404"}).content.decode()
    assert "No unit fits" in at_work.get(reverse("board"), {"q": "zeppelin"}).content.decode()


def test_what_was_promised_is_on_the_board_and_the_next_arrive_until_it_was_looked_at(at_work, user, unit, call, read_in):
    due = timezone.localdate() + timedelta(days=2)
    read_in(box_temp_f="-4.0")
    at_work.post(reverse("promise", args=[call.number]), {"what": "The glass again", "due": due.isoformat()})
    at_work.post(reverse("close", args=[call.number]))
    assert "The glass again" in at_work.get(reverse("board")).content.decode()
    at_work.post(reverse("new-call"), {"unit": unit.pk})
    visit = unit.calls.order_by("-pk").first()
    body = at_work.get(reverse("stop", args=[visit.number, "arrive"])).content.decode()
    assert "The glass again" in body and "Then: box −4.0 °F" in body.replace("box air", "box")
    one = call.follow_ups.get()
    at_work.post(reverse("promise-done", args=[one.pk]), {"call": visit.number})
    assert "The glass again" not in at_work.get(reverse("board")).content.decode()
    one.refresh_from_db()
    assert one.done_on == visit


def test_the_database_is_durable_and_concurrent(db):
    with connection.cursor() as cursor:
        for pragma, value in (("foreign_keys", 1), ("synchronous", 2)):
            assert cursor.execute(f"PRAGMA {pragma}").fetchone()[0] == value
        assert cursor.execute("PRAGMA busy_timeout").fetchone()[0] >= 5000


def test_the_demo_has_something_real_for_every_working_stop(client, loaded, django_user_model):
    # Loaded again it stays as it is.
    demo.load()
    assert Site.objects.count() == len(demo.SCENARIO["sites"])
    assert Unit.objects.count() >= 6
    assert Call.objects.filter(closed_at__isnull=False).count() >= 6
    client.force_login(django_user_model.objects.get(username="wren"))
    stops = ("arrive", "read", "judge", "correct", "hand-over")
    for n, call in enumerate(Call.objects.all()):
        assert not judge_call(call).problems
        # Each call on two of them in turn.
        for stop in (stops[n % 5], stops[(n + 2) % 5]):
            assert client.get(reverse("stop", args=[call.number, stop])).status_code == 200
    for unit in Unit.objects.all():
        assert client.get(reverse("unit", args=[unit.pk])).status_code == 200


def test_a_plate_is_corrected_and_the_judgement_follows(at_work, unit, call, read_in):
    read_in(box_temp_f="36")
    assert at_work.get(reverse("edit-unit", args=[unit.pk])).status_code == 200
    data = {"site_name": "Test barn", "name": "Cooler 9", "kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": "36"}
    at_work.post(reverse("edit-unit", args=[unit.pk]), data)
    call.refresh_from_db()
    assert str(call.unit) == "Cooler 9 · Test barn"
    assert judge_call(call).facts.box_over_set_f == 0
    assert LogEntry.objects.filter(action="save_unit").exists()


def test_another_shops_plate_stays_as_it_is(client, stranger, unit):
    client.force_login(stranger)
    assert client.get(reverse("edit-unit", args=[unit.pk])).status_code == 404
