"""What is given away by address: a customer's page that ends, a calendar, a sticker; and everything of a call in one file."""

import io
import json
import re
import zipfile
import zlib
from contextlib import suppress
from datetime import date, timedelta

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse
from django.utils import timezone
from icalendar import Calendar
from PIL import Image

from kettle.knowledge.measures import TRADE
from tests.web.conftest import make_person
from web.benches.defrost.actions.keep_program import keep_program
from web.logbook.actions import people
from web.logbook.actions.add_photo import add_photo
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.promise import promise
from web.logbook.calls.judging import judge_call
from web.logbook.models import CustomerLink, FollowUp, GasMove, LogEntry, Sticker, Unit
from web.logbook.units.labels import label_of


@pytest.fixture
def nobody():
    """A browser in which nobody is logged in."""
    return Client()


def give(client, call):
    client.post(reverse("customer-link", args=[call.number]))
    return CustomerLink.objects.get()


def test_a_customer_reads_the_page_without_a_log_in_until_it_ends_and_nothing_else(at_work, nobody, call, user):
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    link = give(at_work, call)
    answer = nobody.get(reverse("for-you", args=[link.key]))
    body = answer.content.decode()
    assert "We put in a new fan." in body and 'href="/' not in body.replace('href="/static', "") and "Superheat" not in body
    assert answer["Referrer-Policy"] == "no-referrer" and "no-store" in answer["Cache-Control"]
    assert nobody.get(reverse("customer", args=[call.number])).status_code == 302
    before = link.key
    assert give(at_work, call).key != before and nobody.get(reverse("for-you", args=[before])).status_code == 404
    CustomerLink.objects.update(until=timezone.now() - timedelta(seconds=1))
    assert nobody.get(reverse("for-you", args=[CustomerLink.objects.get().key])).status_code == 404
    link = give(at_work, call)
    at_work.post(reverse("customer-link", args=[call.number]), {"do": "end"})
    assert nobody.get(reverse("for-you", args=[link.key])).status_code == 404


def test_ones_follow_ups_are_a_calendar_at_a_secret_address_that_can_be_renewed(at_work, nobody, call, user, stranger):
    promise(user, call, "Look at the glass", timezone.localdate() + timedelta(days=3))
    at_work.post(reverse("feed"))
    user.member.refresh_from_db()
    key = user.member.feed_key
    assert str(key) in at_work.get(reverse("me")).content.decode()
    told = Calendar.from_ical(nobody.get(reverse("feed-of", args=[key])).content)
    assert [str(part["summary"]) for part in told.walk("VEVENT")] == ["Freezer 9 · Test barn: Look at the glass"]
    FollowUp.objects.update(by=stranger)
    assert not Calendar.from_ical(nobody.get(reverse("feed-of", args=[key])).content).walk("VEVENT")
    at_work.post(reverse("feed"))
    assert nobody.get(reverse("feed-of", args=[key])).status_code == 404


def test_a_sticker_opens_the_unit_for_its_shop_and_says_nothing_to_others(at_work, nobody, client, stranger, unit, call, read_in):
    read_in(box_temp_f="-4.0")
    body = at_work.get(reverse("sticker", args=[unit.pk]), {"size": "small"}).content.decode()
    key = Sticker.objects.get().key
    assert "<svg" in body and 'class="stickers small"' in body and "−4.0 °F" in body and str(key) not in body
    assert at_work.get(reverse("scanned", args=[key])).url == reverse("unit", args=[unit.pk])
    assert at_work.get(reverse("sticker", args=[unit.pk])).status_code == 200 and Sticker.objects.count() == 1
    answer = nobody.get(reverse("scanned", args=[key]))
    assert answer.status_code == 302 and "login" in answer.url and b"Freezer" not in answer.content
    client.force_login(stranger)
    assert client.get(reverse("scanned", args=[key])).status_code == 404
    assert client.get(reverse("sticker", args=[unit.pk])).status_code == 404


def photo(name):
    file = io.BytesIO()
    Image.new("RGB", (640, 480), (120, 80, 40)).save(file, "JPEG")
    return SimpleUploadedFile(name, file.getvalue(), "image/jpeg")


def inside(pdf):
    """What a PDF's packed parts hold."""
    found = b""
    for part in re.findall(rb"stream\r?\n(.*?)endstream", pdf, re.DOTALL):
        with suppress(zlib.error):
            found += zlib.decompress(part)
    return found


def test_the_customers_page_shows_what_is_quoted_and_its_photos(at_work, nobody, user, call):
    name_cause(user, call, ["txv_underfeeding"])
    shown, other = (add_photo(user, call, photo(name), stop="arrive") for name in ("coil.jpg", "plate.jpg"))
    at_work.post(reverse("take-quote", args=[call.number]))
    at_work.post(reverse("quote-photos", args=[call.number]), {"photo": [shown.pk, "x", 10**9]})
    assert list(call.quote.photos.all()) == [shown]
    # Without prices it is a draft, which is nobody's but the shop's.
    link = give(at_work, call)
    assert "What it would cost" not in nobody.get(reverse("for-you", args=[link.key])).content.decode()
    call.quote.lines.update(cents=4000)
    body = nobody.get(reverse("for-you", args=[give(at_work, call).key])).content.decode()
    assert "What it would cost" in body and body.count("data:image/jpeg") == 1
    assert b"/Image" in at_work.get(reverse("quote-pdf", args=[call.number])).content
    assert at_work.get(reverse("decide-quote", args=[call.number])).content.decode().count("<figure>") == 1
    # One photo taken back is gone from the quote as well.
    at_work.post(reverse("quote-photos", args=[call.number]), {"photo": [other.pk]})
    type(other).objects.filter(pk=other.pk).update(undone_at=timezone.now())
    assert "data:image/jpeg" not in nobody.get(reverse("for-you", args=[CustomerLink.objects.get().key])).content.decode()


def test_everything_of_a_call_is_one_file_and_its_photos_are_in_the_pdf(at_work, user, call, read_in):
    read_in(box_temp_f="-4.0", evap_fans="stopped")
    without = len(at_work.get(reverse("report-pdf", args=[call.number])).content)
    add_photo(user, call, photo("coil.jpg"), stop="arrive")
    with_photo = at_work.get(reverse("report-pdf", args=[call.number]), {"paper": "a4"}).content
    assert b"/Image" in with_photo and len(with_photo) > without
    assert b"595.27" in inside(with_photo) and b"595.27" not in inside(at_work.get(reverse("report-pdf", args=[call.number])).content)
    answer = at_work.get(reverse("call-zip", args=[call.number]))
    packed = zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))
    names = packed.namelist()
    assert {"readings.csv", f"call-{call.number}.json", f"call-{call.number}.pdf"} <= set(names)
    assert [name for name in names if name.startswith("photos/")] and packed.testzip() is None
    assert json.loads(packed.read(f"call-{call.number}.json"))["format"] == "orange-kettle/case"
    rows = packed.read("readings.csv").decode().splitlines()
    assert rows[0].startswith("at,key,label,value,unit") and len(rows) == 3 and ",box_temp_f," in rows[1]


def test_nothing_of_it_is_given_to_another_shop(client, stranger, call):
    client.force_login(stranger)
    assert client.get(reverse("call-zip", args=[call.number])).status_code == 404
    assert client.post(reverse("customer-link", args=[call.number])).status_code == 404


def test_a_label_says_readings_charge_and_what_everything_is_set_to(at_work, user, unit, call, read_in):
    read_in(box_temp_f="-4.0")
    change_setting(user, call, "lp_cut_out", "4", "2", "ran through")
    for side, starts in (("found", "02:00"), ("left", "02:00 14:00")):
        keep_program(user, call, side, {"starts": starts, "fail_safe_min": "35", "termination_f": "55"}, "dry days")
    line = {"shop": unit.shop, "kind": "added", "refrigerant": "R-404A", "unit": unit, "by": user}
    GasMove.objects.create(day=date(2026, 3, 4), oz=20.0, **line)
    taken_back = GasMove.objects.create(day=date(2026, 3, 5), oz=90.0, **line)
    GasMove.objects.create(day=date(2026, 3, 6), oz=-90.0, counters=taken_back, **line)
    said = dict(label_of(unit, call, TRADE))
    assert dict(said["Read"])["Box air"] == "−4.0 °F"
    assert said["Charge"] == [("Last in", "20.0 oz, 4 Mar 2026")]
    settings = dict(said["Set to"])
    assert settings["Set point"] == "−5 °F" and settings["Low-pressure cut-out"] == "2 psig"
    assert settings["Defrosts, 2 a day"] == "02:00 14:00" and settings["Defrost: fail-safe"] == "35 min"
    # A setting of its own that came later than the program stands before it.
    change_setting(user, call, "fail_safe", "35", "25", "clear sooner")
    assert dict(dict(label_of(unit, call, TRADE))["Set to"])["Defrost fail-safe"] == "25 min"


def test_a_sheet_holds_the_stickers_of_every_unit_of_a_site(at_work, unit, call):
    beside = Unit.objects.get(pk=unit.pk)
    beside.pk, beside.name = None, "Cooler 3"
    beside.save()
    body = at_work.get(reverse("sticker", args=[unit.pk]), {"of": "site"}).content.decode()
    assert "Sticker of Cooler 3" in body and "Label of Freezer 9" in body and Sticker.objects.count() == 2
    assert "Cooler 3" not in at_work.get(reverse("sticker", args=[unit.pk])).content.decode()


def feed_key(user):
    return type(user.member).objects.get(user=user).feed_key


def test_the_calendars_address_can_be_ended(at_work, nobody, user):
    at_work.post(reverse("feed"))
    key = feed_key(user)
    assert "End it" in at_work.get(reverse("me")).content.decode()
    at_work.post(reverse("feed"), {"do": "end"})
    assert nobody.get(reverse("feed-of", args=[key])).status_code == 404 and feed_key(user) is None


@pytest.mark.parametrize("how", ["new password", "closed and opened again", "own new password"])
def test_the_calendars_address_ends_with_a_new_password_and_a_closed_log_in(at_work, nobody, user, how):
    owner = make_person("Larch Hollow Cooling", "bramble")
    owner.member.owner = True
    owner.member.save()
    at_work.post(reverse("feed"))
    key, member = feed_key(user), type(user.member).objects.select_related("user").get(user=user)
    if how == "new password":
        people.reset_password(owner, member)
    elif how == "own new password":
        people.change_password(user, "another-long-phrase", "another-long-phrase")
    else:
        people.close_person(owner, member)
        people.reopen_person(owner, type(member).objects.select_related("user").get(user=user))
    assert nobody.get(reverse("feed-of", args=[key])).status_code == 404


def test_people_change_their_own_password_and_are_logged_out_elsewhere(at_work, user, client):
    client.force_login(user)
    other = Client()
    assert other.post(reverse("login"), {"username": "ansel", "password": "a-long-pass-phrase"}).status_code == 302
    for typed, says in (
        ({"old": "wrong", "new": "quiet-north-river", "again": "quiet-north-river"}, "Old password: that is not it"),
        ({"old": "a-long-pass-phrase", "new": "quiet-north-river", "again": "quiet"}, "Again: it is not the same"),
        ({"old": "a-long-pass-phrase", "new": "ansel", "again": "ansel"}, "New password: This password is too short"),
    ):
        assert says in client.post(reverse("password"), typed).content.decode(), typed
        assert not LogEntry.objects.filter(action="change_password").exists()
    typed = {"old": "a-long-pass-phrase", "new": "quiet-north-river", "again": "quiet-north-river"}
    assert "The new password holds" in client.post(reverse("password"), typed, follow=True).content.decode()
    assert client.get(reverse("me")).status_code == 200 and other.get(reverse("me")).status_code == 302
    assert Client().post(reverse("login"), {"username": "ansel", "password": "quiet-north-river"}).status_code == 302
    assert LogEntry.objects.filter(action="change_password").count() == 1


def test_who_guesses_the_old_password_at_a_device_left_open_is_shut_out_as_at_the_log_in(at_work, user):
    typed = {"old": "a-long-pass-phrase", "new": "quiet-north-river", "again": "quiet-north-river"}
    for n in range(settings.AXES_FAILURE_LIMIT):
        answer = at_work.post(reverse("password"), typed | {"old": f"guess {n}"})
    assert "Too many tries" in answer.content.decode()
    answer = at_work.post(reverse("password"), typed)
    assert answer.status_code == 429 and "Too many tries" in answer.content.decode()
    user.refresh_from_db()
    assert user.check_password("a-long-pass-phrase")


def test_what_was_looked_at_again_is_promised_to_the_customer_no_more(at_work, nobody, user, call):
    made = promise(user, call, "Look at the glass", timezone.localdate() + timedelta(days=3))
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    link = give(at_work, call)
    address = reverse("for-you", args=[link.key])
    assert "We come again by" in nobody.get(address).content.decode()
    at_work.post(reverse("promise-done", args=[made.pk]))
    assert "We come again by" not in nobody.get(address).content.decode()
