"""Units of one's own, by feel, several coils, bands of a unit."""

import pytest
from django.urls import reverse

from kettle.knowledge.measures import ShownUnits
from tests.web.round.test_read import enter
from web.logbook.calls.judging import judge_call
from web.logbook.models import BandChange, LogEntry, Reading
from web.round.standing import Standing

METRIC = {"temperature": "°C", "pressure": "bar", "mass": "kg", "vacuum": "Pa"}


@pytest.fixture
def metric(at_work, user):
    at_work.post(reverse("me"), METRIC)
    user.member.refresh_from_db()
    return at_work


def test_units_are_chosen_once_and_every_screen_follows(metric, user, call, read_in):
    assert user.member.shown == ShownUnits("°C", "bar", "kg", "Pa")
    enter(metric, call, "suction_psig", "0.6")
    reading = Reading.objects.get()
    assert (reading.value, reading.typed) == (pytest.approx(8.702, abs=0.001), "0.6")
    body = enter(metric, call, "suction_line_evap_f", "-18,6 C").content.decode()
    assert 'value="-18.6"' in body and "16." in body
    page = metric.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "set −20.6 °C" in page and '<span class="unit">bar<' in page and '<span class="unit">psig<' not in page
    assert "°C" in metric.get(reverse("report", args=[call.number])).content.decode()


def test_a_refusal_is_told_in_the_persons_units(metric, call):
    assert "outside −1.01 to 48.26 bar" in enter(metric, call, "suction_psig", "90").content.decode()


def test_the_plate_is_typed_and_shown_in_the_persons_units(metric, unit):
    page = metric.get(reverse("edit-unit", args=[unit.pk])).content.decode()
    assert 'value="-20.56"' in page and "Set temperature, °C" in page
    form = {"site_name": "Test barn", "name": "Freezer 9", "kind": "walk_in_freezer", "refrigerant": "R-404A", "set_f": "-22"}
    metric.post(reverse("edit-unit", args=[unit.pk]), form)
    unit.refresh_from_db()
    assert unit.set_f == pytest.approx(-7.6)
    refused = metric.post(reverse("edit-unit", args=[unit.pk]), form | {"set_f": "99"}).content.decode()
    assert "Set temperature: 99 °C" in refused.replace("99.0", "99") and 'value="99"' in refused


def test_a_unit_nobody_offers_is_refused(at_work, user):
    assert "Temperature: choose one of °F, °C" in at_work.post(reverse("me"), METRIC | {"temperature": "K"}).content.decode()
    assert not LogEntry.objects.filter(action="choose_units").exists()


def test_what_was_typed_is_kept_beside_what_it_became(at_work, call):
    body = enter(at_work, call, "suction_psig", "2.1 bar").content.decode()
    assert "Typed as 2.1 bar, which is 30.5 psig." in body


def test_by_feel_lines_are_words_and_the_standing_is_the_same_with_doubt(at_work, user, call, starved):
    at_work.post(reverse("by-feel"), {"by_feel": "yes", "next": reverse("stop", args=[call.number, "read"])})
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert 'id="tag-coil_outlet_feel"' in page and 'id="tag-suction_line_evap_f"' not in page
    for reading in Reading.objects.filter(key__in=("suction_line_evap_f", "liquid_line_f")):
        reading.delete()
    body = enter(at_work, call, "coil_outlet_feel", "cold").content.decode()
    assert "by feel" in body and "±" in body
    away = at_work.post(reverse("by-feel"), {"by_feel": "no", "next": "https://elsewhere.example/"})
    assert away.url == reverse("board")


def test_old_and_unusual_readings_are_marked(at_work, user, call, read_in):
    from datetime import timedelta

    read_in(box_temp_f="62", suction_psig="8.6", suction_line_evap_f="130")
    Reading.objects.filter(key="suction_psig").update(at=call.opened_at - timedelta(minutes=62))
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "◷ 1 old" in page and "? 1 unusual" in page
    assert "62 min old: read it again." in page
    assert "130.0 °F is unusual here" in page


@pytest.fixture
def two_coils(unit):
    unit.evaporators = 2
    unit.save()
    return unit


def test_each_coil_has_its_own_readings_side_by_side(at_work, two_coils, call, read_in):
    read_in(suction_psig="8.6", box_temp_f="-4")
    enter(at_work, call, "suction_line_evap_f", "-25")
    sent = {"suction_line_evap_f": "5", "stop": "read", "coil": "2"}
    body = at_work.post(reverse("enter", args=[call.number, "suction_line_evap_f"]), sent, HTTP_HX_REQUEST="true").content.decode()
    assert Reading.objects.get(value=5.0).evaporator == 2
    assert "Coil 1" in body and "Coil 2" in body
    assert judge_call(call).facts.seen["suction_line_evap_f"] == -25.0
    assert judge_call(call, coil=2).facts.seen["suction_line_evap_f"] == 5.0
    assert judge_call(call, coil=2).facts.seen["suction_psig"] == 8.6
    coils = Standing(call).coils
    assert [coil["mark"][1] for coil in coils] == ["ok", "high"]
    page = at_work.get(reverse("stop", args=[call.number, "read"]) + "?coil=2").content.decode()
    assert 'value="5"' in page
    assert at_work.get(reverse("stop", args=[call.number, "read"]) + "?coil=9").context["standing"].coil == 1


def change(client, unit, **typed):
    return client.post(reverse("unit-bands", args=[unit.pk]), {"quantity": "superheat_evap_f"} | typed)


def test_a_band_becomes_the_units_own_with_who_when_and_why(at_work, user, unit, call, starved):
    change(at_work, unit, low="5", high="9", why="maker's sheet for this coil")
    unit.refresh_from_db()
    assert unit.bands == {"superheat_evap_f": [5.0, 9.0]}
    kept = BandChange.objects.get()
    assert (kept.by, kept.why, kept.low, kept.high) == (user, "maker's sheet for this coil", 5.0, 9.0)
    call.refresh_from_db()
    verdict = next(v for v in judge_call(type(call).objects.get()).verdicts if v.quantity == "superheat_evap_f")
    assert (verdict.low, verdict.high) == (5, 9) and "this unit's own band" in verdict.why
    page = at_work.get(reverse("unit-bands", args=[unit.pk])).content.decode()
    assert "maker&#x27;s sheet" in page
    change(at_work, unit, low="", high="", why="sheet was for another coil")
    unit.refresh_from_db()
    assert unit.bands == {}
    assert BandChange.objects.count() == 2


@pytest.mark.parametrize(
    ("typed", "says"),
    [
        ({"low": "9", "high": "5", "why": "because"}, "From must lie below To"),
        ({"low": "warm", "high": "9", "why": "because"}, "From: “warm” is not a number"),
        ({"low": "4", "high": "9", "why": ""}, "Why: say it"),
        ({"low": "-900", "high": "9", "why": "because"}, "is outside"),
    ],
)
def test_a_band_that_is_none_is_refused_and_nothing_typed_is_lost(at_work, unit, typed, says):
    body = change(at_work, unit, **typed).content.decode()
    assert says in body
    assert f'value="{typed["low"]}"' in body
    unit.refresh_from_db()
    assert unit.bands == {} and not BandChange.objects.exists()


def test_bands_of_another_shop_are_out_of_reach(client, stranger, unit):
    client.force_login(stranger)
    assert change(client, unit, low="1", high="9", why="because").status_code == 404


def test_a_held_reading_says_what_it_waits_for(at_work, call, read_in):
    read_in(evap_fans="stopped")
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "Line at bulb: Waits: Coil fans are not all running: restore the airflow first." in page


def test_the_pressure_at_rest_is_taken_on_arriving_and_names_another_refrigerant(at_work, call, read_in):
    read_in(ambient_f="80")
    body = enter(at_work, call, "resting_psig", "143.6", stop="arrive", view="part").content.decode()
    assert 'id="look-resting_psig"' in body
    assert "At rest the pressure does not fit R-404A; it fits" in body and "R-22" in body
