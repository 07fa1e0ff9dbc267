import io
import re
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from django.utils import timezone
from PIL import Image

from kettle.benches.ice.map import PLACES
from web.logbook.actions.open_call import open_call
from web.logbook.calls.judging import judge_call
from web.logbook.models import IceDrawing, Melt, Photo, Reading, Unit
from web.logbook.units.ice_history import watch_list

BARE, HARD = "/".join(["." * 10] * 5), "/".join(["i" * 10] * 5)
LOOKED = {f"place-{code}": "." for code in PLACES}


def send(client, call, rows, stage="before", **more):
    return client.post(reverse("ice", args=[call.number]), {"stage": stage, "coil": "1", "rows": rows, **more}, follow=True)


def test_a_kept_map_becomes_readings_and_moves_the_standing(at_work, call):
    send(at_work, call, HARD, **{"place-ceiling": "s"})
    drawing = IceDrawing.objects.get()
    assert (drawing.stage, drawing.places, drawing.face_ft2) == ("before", {"ceiling": "snow"}, 8.0)
    facts = judge_call(call).facts
    assert facts.seen["ice_form"] == "hard_ice"
    assert facts.seen["ice_places"] == ("coil_whole", "ceiling")
    assert "iced_coil" in {hold.code for hold in judge_call(call).holds}
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "Melt it all, then judge" in page


def test_a_map_being_painted_is_read_and_not_stored(at_work, call):
    data = {"stage": "before", "coil": "1", "rows": "/".join(["iihl......"] * 5)}
    body = at_work.post(reverse("ice", args=[call.number]), data, headers={"HX-Request": "true"}).content.decode()
    assert "Ice on the first passes" in body
    assert "40 %" in body
    assert not IceDrawing.objects.exists()
    assert not Reading.objects.exists()


@pytest.mark.parametrize(
    "wrong",
    [
        {"rows": "iii"},
        {"rows": HARD.replace("i", "x")},
        {"stage": "during"},
        {"coil": "7"},
        {"coil": "x"},
        {"oil": "9-9"},
        {"oil": "a"},
        {"place-ceiling": "x"},
    ],
)
def test_a_map_that_is_none_stores_nothing(at_work, call, wrong):
    data = {"stage": "before", "coil": "1", "rows": HARD} | wrong
    assert "Ice map" in at_work.post(reverse("ice", args=[call.number]), data, follow=True).content.decode()
    assert not IceDrawing.objects.exists()
    assert not Reading.objects.exists()


def test_an_oil_mark_moves_the_leak_up(at_work, call):
    send(at_work, call, "/".join(["iihl......"] * 5))
    before = {s.codes: s.probability for s in judge_call(call).ranking}[("undercharge",)]
    send(at_work, call, "/".join(["iihl......"] * 5), oil="2-0 2-1")
    after = {s.codes: s.probability for s in judge_call(call).ranking}[("undercharge",)]
    assert after > before
    assert judge_call(call).facts.seen["melt_water"] == "cloudy_foaming"


def test_two_coils_have_a_map_each(at_work, call):
    call.unit.evaporators = 2
    call.unit.save()
    send(at_work, call, BARE)
    send(at_work, call, HARD, coil="2")
    assert judge_call(call).facts.seen["ice_form"] == "none"
    assert IceDrawing.objects.get(evaporator=2).rows[0] == "i" * 10
    page = at_work.get(reverse("stop", args=[call.number, "melt"])).content.decode()
    assert "Ice map, coil 2" in page


def start(client, call, method="warm_water"):
    data = {"method": method, "supply": "warm", "coil_place": "open"}
    return client.post(reverse("start-melt", args=[call.number]), data, follow=True).content.decode()


SAFE = {"power_locked_out": "yes", "parts_protected": "yes", "inside_release": "works", "latch_blocked": "yes"}


def test_melting_waits_for_lock_out_and_cover(at_work, call, read_in):
    assert "Melting waits for: Power locked out" in start(at_work, call)
    read_in(**SAFE)
    read_in(power_locked_out="no")
    assert "Melting waits for: Power locked out" in start(at_work, call)
    assert not Melt.objects.exists()
    read_in(power_locked_out="yes", drain="running")
    assert "started" in start(at_work, call)
    assert Melt.objects.get().method == "warm_water"


def test_a_refused_method_is_refused_by_the_server_too(at_work, call, read_in):
    read_in(**SAFE)
    call.unit.refrigerant = "R-290"
    call.unit.save()
    assert "it burns (A3)" in start(at_work, call, "flame")
    assert "Method: choose one" in start(at_work, call, "dynamite")
    assert not Melt.objects.exists()


def test_a_release_that_fails_needs_the_other_way_with_words_of_its_own(at_work, call, read_in):
    read_in(**SAFE | {"inside_release": "fails"}, drain="running")
    assert "somebody outside who knows" in start(at_work, call)
    read_in(someone_outside="yes")
    assert "say who stands outside" in start(at_work, call) and not Melt.objects.exists()
    data = {"method": "warm_water", "supply": "warm", "coil_place": "open", "way_out": "Sunniva at the door, timber in the frame"}
    at_work.post(reverse("start-melt", args=[call.number]), data)
    assert Melt.objects.exists()
    assert "timber in the frame" in at_work.get(reverse("report", args=[call.number])).content.decode()


def test_a_method_with_nothing_to_mind_has_no_empty_line(at_work, call):
    call.unit.kind = "reach_in_cooler"
    call.unit.save()
    body = at_work.get(reverse("stop", args=[call.number, "melt"])).content.decode()
    assert "Fans only, box held open" in body and not re.search(r'<summary class="watch">\s*</summary>', body)


def test_a_melt_rests_and_goes_on(at_work, call, read_in):
    read_in(**SAFE, drain="running")
    assert "No melt is under way" in at_work.post(reverse("pause-melt", args=[call.number]), follow=True).content.decode()
    start(at_work, call)
    Melt.objects.update(at=timezone.now() - timedelta(minutes=20))
    at_work.post(reverse("pause-melt", args=[call.number]))
    Melt.objects.update(paused_at=timezone.now() - timedelta(minutes=15))
    assert round(Melt.objects.get().ran_min) == 5
    at_work.post(reverse("resume-melt", args=[call.number]))
    melt = Melt.objects.get()
    assert melt.paused_at is None and round(melt.paused_min) == 15 and round(melt.ran_min) == 5


def end(client, call, reason=""):
    return client.post(reverse("end-melt", args=[call.number]), {"reason": reason}, follow=True).content.decode()


def test_the_pour_rate_is_weighed_against_the_drain(at_work, call, read_in):
    read_in(drain="slow")
    melt_page = reverse("stop", args=[call.number, "melt"])
    assert "Poured at 2 gal/min" in at_work.get(melt_page, {"pour": "2"}).content.decode()
    assert "runs over" not in at_work.get(melt_page, {"pour": "0,2"}).content.decode()
    for typed, says in (("50", "50 gal/min is outside 0.05 to 10 gal/min"), ("much", "is not a number; allowed 0.05 to 10 gal/min")):
        body = at_work.get(melt_page, {"pour": typed}).content.decode()
        assert says in body
        assert f'value="{typed}"' in body


def test_all_clear_needs_every_coil_bare_with_back_and_corners(at_work, call):
    send(at_work, call, HARD)
    assert "no after-map yet" in end(at_work, call)
    send(at_work, call, BARE.replace(".", "l", 3), "after", **LOOKED)
    assert "ice is still drawn on the face" in end(at_work, call)
    send(at_work, call, BARE, "after")
    body = end(at_work, call)
    assert "back of the coil not looked at" in body
    assert "inside corners not looked at" in body
    send(at_work, call, BARE, "after", **LOOKED | {"place-inside_corners": "i"})
    assert "inside corners still iced" in end(at_work, call)
    send(at_work, call, BARE, "after", **LOOKED)
    assert "All clear" in end(at_work, call)
    assert Melt.objects.get().clear is True
    assert "iced_coil" not in {hold.code for hold in judge_call(call).holds}


def test_ice_left_needs_a_reason_and_is_suspected_at_the_next_visit(at_work, user, unit, call):
    send(at_work, call, HARD)
    assert "give the reason" in end(at_work, call, "no")
    assert not Melt.objects.exists()
    end(at_work, call, "shop opens in ten minutes")
    assert Melt.objects.get().clear is False
    following = open_call(user, unit)
    assert judge_call(following).facts.seen["left_ice"] == "yes"
    assert ("residual_ice",) in [s.codes for s in judge_call(following).ranking[:2]]


def test_three_ice_ups_in_a_year_are_on_the_watch_list(at_work, user, unit):
    for days in (10, 100, 200, 700):
        call = open_call(user, unit, opened_at=timezone.now() - timedelta(days=days))
        assert watch_list(user) == ([] if days <= 200 else [(unit, 3)])
        send(at_work, call, HARD)
    assert watch_list(user) == [(unit, 3)]
    assert "iced 3 times in a year" in at_work.get(reverse("board")).content.decode()
    assert at_work.get(reverse("unit", args=[unit.pk])).content.decode().count("% covered") >= 4


def picture(kind="JPEG", size=(640, 480), **save):
    out = io.BytesIO()
    Image.new("RGB", size, "teal").save(out, kind, **save)
    return out.getvalue()


@pytest.fixture
def media(settings, tmp_path):
    settings.MEDIA_ROOT = tmp_path


def add(client, call, content, name="x.jpg", **data):
    upload = {"photo": SimpleUploadedFile(name, content)} if content is not None else {}
    return client.post(reverse("add-photo", args=[call.number]), upload | {"stop": "arrive"} | data, follow=True).content.decode()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_photo_is_re_encoded_and_stripped(media, at_work, call, kind):
    exif = Image.Exif()
    exif[0x010E] = "taken at home"
    add(at_work, call, picture(kind, (4000, 100), exif=exif), of="place:drain_pan", caption="<i>pan")
    photo = Photo.objects.get()
    stored = at_work.get(reverse("photo", args=[call.number, photo.pk]))
    content = b"".join(stored.streaming_content)
    opened = Image.open(io.BytesIO(content))
    assert (opened.format, max(opened.size)) == ("JPEG", 2400)
    assert not opened.getexif()
    assert b"taken at home" not in content
    small = b"".join(at_work.get(reverse("thumbnail", args=[call.number, photo.pk])).streaming_content)
    assert max(Image.open(io.BytesIO(small)).size) == 320
    assert photo.place == "drain_pan"
    assert "&lt;i&gt;pan" in at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()


@pytest.mark.parametrize(
    "content",
    [None, b"", b"GIF89a not here", b"\x89PNG\r\n\x1a\nbroken", b"<svg onload=alert(1)>", picture("GIF"), picture("BMP"), picture()[:400]],
)
def test_anything_else_is_refused_by_its_content(media, at_work, call, content):
    assert "Photo: " in add(at_work, call, content)
    assert not Photo.objects.exists()


def test_a_photo_is_of_a_place_or_stop_that_exists(media, at_work, call):
    assert "no place on the ice map" in add(at_work, call, picture(), of="place:roof")
    add(at_work, call, picture(), of="stop:melt")
    assert Photo.objects.get().stop == "melt"


def test_a_photo_over_15_mb_is_refused(media, at_work, call):
    assert "MB is more than 15 MB" in add(at_work, call, picture() + b"\0" * (15 * 1024 * 1024))
    assert not Photo.objects.exists()


def test_another_shop_sees_no_photo(media, client, at_work, stranger, call):
    add(at_work, call, picture())
    at_work.force_login(stranger)
    for name in ("photo", "thumbnail"):
        assert at_work.get(reverse(name, args=[call.number, Photo.objects.get().pk])).status_code == 404


def test_siblings_clear_the_shared_part_or_the_branch(at_work, user, unit, call):
    unit.plant = "rack A"
    unit.save()
    plate = {"shop": unit.shop, "site": unit.site, "plant": "rack A", "kind": "walk_in_freezer", "refrigerant": "R-404A"}
    others = [Unit.objects.create(name=name, **plate) for name in ("Freezer 7", "Freezer 8")]

    def say(other, state):
        at_work.post(reverse("sibling", args=[call.number, other.pk]), {"state": state})

    say(others[0], "ok")
    assert "siblings" not in judge_call(call).facts.seen
    say(others[1], "ok")
    assert judge_call(call).facts.seen["siblings"] == "all_ok"
    page = at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()
    assert "are cleared" in page
    say(others[0], "bad")
    assert "siblings" not in judge_call(call).facts.seen, "one fine and one bad is not all bad"
    assert "Some are bad too, and some are fine" in at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()
    say(others[1], "bad")
    assert judge_call(call).facts.seen["siblings"] == "also_bad"
    assert "look upstream" in at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()
    say(unit, "ok")
    say(others[0], "maybe")
    assert call.siblingstates.count() == 4


def test_an_overdue_check_in_is_on_the_board(at_work, call):
    at_work.post(reverse("check-in", args=[call.number]), {"minutes": "30"})
    assert "Check-in overdue" not in at_work.get(reverse("board")).content.decode()
    call.refresh_from_db()
    call.checked_in_at = timezone.now() - timedelta(minutes=31)
    call.save()
    assert "Check-in overdue" in at_work.get(reverse("board")).content.decode()
    at_work.post(reverse("check-in", args=[call.number]), {"minutes": "7"})
    assert "Check-in overdue" in at_work.get(reverse("board")).content.decode()
    at_work.post(reverse("check-in", args=[call.number]))
    assert "Check-in overdue" not in at_work.get(reverse("board")).content.decode()
    at_work.post(reverse("check-in", args=[call.number]), {"minutes": "0"})
    call.refresh_from_db()
    assert call.check_in_due is None


def test_what_changed_is_kept_as_it_is_written(at_work, call):
    kept = at_work.post(reverse("words", args=[call.number]), {"changed": "New clock last week"}).content.decode()
    assert "New clock last week</textarea>" in kept and "error" not in kept
    call.refresh_from_db()
    assert (call.changed, call.complaint) == ("New clock last week", "Too warm.")
    refused = at_work.post(reverse("words", args=[call.number]), {"changed": "x" * 5000}).content.decode()
    assert "5000 letters are more than 4000" in refused and "xxx</textarea>" in refused
    call.refresh_from_db()
    assert call.changed == "New clock last week"


def test_the_demo_has_maps_of_four_kinds(loaded):
    patterns = {
        entry.data["pattern"] for call in Unit.objects.all() for c in call.calls.all() for entry in c.log.filter(action="keep_ice_map")
    }
    assert {"whole_hard", "first_passes", "bottom", "bare"} <= patterns
    assert IceDrawing.objects.filter(places__ceiling="hard_ice").exists()
    assert IceDrawing.objects.filter(places__drain_pan="hard_ice").exists()


def test_a_map_that_nobody_painted_is_not_painted_and_not_bare(at_work, call):
    body = at_work.get(reverse("stop", args=[call.number, "arrive"]) + "?part=coil").content.decode()
    assert "Not painted." in body and "Bare coil" not in body
