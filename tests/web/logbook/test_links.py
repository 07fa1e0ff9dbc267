"""What is given away by address: a customer's page that ends, a calendar, a sticker; and everything of a call in one file."""

import io
import json
import re
import zipfile
import zlib
from contextlib import suppress
from datetime import date, timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.urls import reverse
from django.utils import timezone
from icalendar import Calendar
from PIL import Image

from kettle.knowledge.units import TRADE
from web.benches.defrost.actions.keep_program import keep_program
from web.logbook.actions.add_photo import add_photo
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.promise import promise
from web.logbook.calls.judging import judge_call
from web.logbook.models import CustomerLink, FollowUp, GasMove, Sticker, Unit
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
