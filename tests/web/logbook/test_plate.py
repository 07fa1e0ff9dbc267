"""The plate: kind and build by picture, refrigerant by a few letters, how high the place lies, make and serial, charge, its photo."""

import io
import re

from django.core.files.uploadedfile import SimpleUploadedFile
from django.urls import reverse
from PIL import Image

from web.logbook import kept_files
from web.logbook.models import Site, Unit

PLATE = {"site_name": "Upper mill", "name": "Case 4", "kind": "walk_in_cooler", "refrigerant": "R-448A"}


def test_the_altitude_is_the_sites_and_reaches_every_unit_there(at_work, user):
    at_work.post(reverse("new-unit"), PLATE | {"altitude_ft": "5200", "make": "Brass Hen 40", "serial": "BH-0071"})
    unit = Unit.objects.get(name="Case 4")
    assert (Site.objects.get(name="Upper mill").altitude_ft, unit.altitude_ft, unit.resolved().altitude_ft) == (5200, None, 5200.0)
    at_work.post(reverse("new-unit"), PLATE | {"name": "Case 5"})
    assert Unit.objects.get(name="Case 5").resolved().altitude_ft == 5200.0, "left empty it stays as it is known"
    page = at_work.get(reverse("edit-unit", args=[unit.pk])).content.decode()
    assert 'name="altitude_ft" value="5200"' in page and 'value="BH-0071"' in page
    assert "Brass Hen 40, serial BH-0071" in at_work.get(reverse("unit", args=[unit.pk])).content.decode()


def test_a_height_no_unit_stands_at_is_refused(at_work):
    body = at_work.post(reverse("new-unit"), PLATE | {"altitude_ft": "45000"}).content.decode()
    assert "Altitude: 45000 ft is outside" in body and not Unit.objects.exists()


def test_a_charge_is_ounces_or_pounds_and_ounces(at_work):
    for name, typed, ounces in (("A", "10.5", 10.5), ("B", "0 lb 10.5 oz", 10.5), ("C", "3 lb 8 oz", 56.0), ("D", "6 lb", 96.0)):
        at_work.post(
            reverse("new-unit"), PLATE | {"name": name, "kind": "reach_in_cooler", "refrigerant": "R-290", "critical_charge_oz": typed}
        )
        assert Unit.objects.get(name=name).critical_charge_oz == ounces
    assert "56 oz (3 lb 8 oz)" in at_work.get(reverse("unit", args=[Unit.objects.get(name="C").pk])).content.decode()


def test_pounds_on_the_plate_of_a_room_do_not_make_it_a_capillary(at_work):
    at_work.post(reverse("new-unit"), PLATE | {"critical_charge_oz": "6 lb"})
    room = Unit.objects.get().resolved()
    assert room.metering == "txv" and room.receiver
    small = PLATE | {"name": "S", "kind": "bottle_cooler", "refrigerant": "R-290", "critical_charge_oz": "4.6"}
    at_work.post(reverse("new-unit"), small)
    assert Unit.objects.get(name="S").resolved().metering == "cap_tube"


def test_a_kind_is_chosen_with_its_build_and_stays_so(at_work):
    page = at_work.get(reverse("new-unit")).content.decode()
    assert page.count('name="kind"') == 15 and 'value="reach_in_freezer:under_counter"' in page and "checked" not in page
    at_work.post(reverse("new-unit"), PLATE | {"kind": "reach_in_freezer:under_counter", "refrigerant": "290"})
    unit = Unit.objects.get()
    assert (unit.kind, unit.build, unit.refrigerant, unit.kind_label) == (
        "reach_in_freezer",
        "under_counter",
        "R-290",
        "under-counter freezer",
    )
    page = at_work.get(reverse("edit-unit", args=[unit.pk])).content.decode()
    assert re.findall(r'value="([^"]*)"[^>]*checked', page) == ["reach_in_freezer:under_counter"]
    at_work.post(
        reverse("edit-unit", args=[unit.pk]),
        PLATE | {"kind": "prep_rail", "refrigerant": "R-290", "was-kind": "reach_in_freezer:under_counter"},
    )
    assert (Unit.objects.get().kind, Unit.objects.get().build) == ("prep_rail", "")


def test_a_refrigerant_that_may_be_several_is_asked_and_nothing_typed_is_lost(at_work):
    body = at_work.post(reverse("new-unit"), PLATE | {"refrigerant": "44"}).content.decode()
    assert "“44” may be R-448A, R-449A" in body and 'value="Upper mill"' in body and not Unit.objects.exists()
    found = at_work.get(reverse("refrigerants"), {"refrigerant": "44"}).content.decode()
    assert 'data-pick="R-448A"' in found and "A1" in found
    assert at_work.get(reverse("refrigerants"), {"refrigerant": ""}).content.strip() == b""


def test_an_altitude_nobody_said_is_assumed_and_asked_once_per_site(at_work, user):
    for name, height in (("Low", 400), ("Mid", 3100), ("High", 5200)):
        Site.objects.create(shop=user.member.shop, name=name, altitude_ft=height)
    at_work.post(reverse("new-unit"), PLATE)
    unit = Unit.objects.get()
    assert unit.site.altitude_ft is None and unit.resolved().altitude_ft == 3100.0
    assert "3100 ft, assumed" in at_work.get(reverse("unit", args=[unit.pk])).content.decode()
    assert "3100, assumed" in at_work.get(reverse("site-altitude"), {"site_name": "Upper mill"}).content.decode()
    known = at_work.get(reverse("site-altitude"), {"site_name": "High"}).content.decode()
    assert "5200 ft" in known and "<input" not in known


def test_the_picture_says_how_the_unit_is_built_while_it_is_entered(at_work):
    page = at_work.get(
        reverse("plate-picture"), {"kind": "walk_in_cooler", "metering": "eev", "set_f": "38", "phases": "3"}
    ).content.decode()
    assert "electr" in page and "set 38 °F" in page and "3 phase" in page and 'data-plate="valve"' in page
    assert "Choose the kind" in at_work.get(reverse("plate-picture"), {"kind": "spaceship"}).content.decode()
    # What cannot be is left out, not drawn.
    assert "set 36 °F" in at_work.get(reverse("plate-picture"), {"kind": "walk_in_cooler", "set_f": "9000"}).content.decode()
    assert at_work.get(reverse("kind-picture", args=["reach_in_freezer:under_counter"])).headers["Content-Type"] == "image/svg+xml"
    assert at_work.get(reverse("kind-picture", args=["spaceship"])).status_code == 404


def test_the_photo_of_the_plate_is_kept_checked_and_shown_to_its_own_shop(at_work, client, stranger, settings, tmp_path):
    settings.MEDIA_ROOT = tmp_path
    body = at_work.post(
        reverse("new-unit"), PLATE | {"plate_photo": SimpleUploadedFile("plate.jpg", b"no picture at all")}
    ).content.decode()
    assert "not a JPEG, PNG or WebP" in body and not Unit.objects.exists()
    out = io.BytesIO()
    Image.new("RGB", (64, 48), "white").save(out, "PNG")
    at_work.post(reverse("new-unit"), PLATE | {"plate_photo": SimpleUploadedFile("plate.png", out.getvalue())})
    unit = Unit.objects.get()
    assert at_work.get(reverse("plate-photo", args=[unit.pk])).headers["Content-Type"] == "image/jpeg"
    assert kept_files.sweep(now=9e12) == 0, "a plate's photo is nobody's leftover"
    client.force_login(stranger)
    assert client.get(reverse("plate-photo", args=[unit.pk])).status_code == 404
