"""The plate: how high the place lies, make and serial, a charge in ounces or pounds."""

from django.urls import reverse

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
