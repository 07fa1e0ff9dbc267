"""Scenarios of a shop: written on a screen, taken in from a file, laid out of a closed call, begun, handed on."""

import json

import pytest
from django.utils import timezone

from kettle.yard import scenario as core
from tests.web.yard.conftest import AtPractice
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call
from web.yard.models import Practice, Scenario

GOOD = {"title": "Hot kitchen", "story": "It does not keep up.", "kind": "walk_in_cooler", "refrigerant": "448", "outside": "102",
        "cause-1": "condenser_dirty", "severity-1": "1.0", "before": "charge.added", "help": "covered"}  # fmt: skip


def test_it_is_written_kept_for_the_shop_begun_and_handed_on(at_work, client, stranger):
    assert "What is wrong with it" in at_work.get("/yard/scenarios/new/").content.decode()
    page = at_work.post("/yard/scenarios/new/", GOOD, follow=True).content.decode()
    assert "Hot kitchen: kept for the shop." in page
    kept = Scenario.objects.get()
    at_work.post(f"/yard/scenarios/{kept.pk}/", follow=True)
    practice = Practice.objects.get()
    assert practice.scenario == kept and practice.help == "covered" and practice.drawn["wrong"] == [["condenser_dirty", 1.0]]
    assert practice.difficulty == "worked_on" and practice.drawn["outside_f"] == 102.0
    file = at_work.get(f"/yard/scenarios/{kept.pk}/file.json")
    assert "attachment" in file.headers["Content-Disposition"] and core.read(file.content) == core.checked(kept.told)
    assert at_work.get("/yard/scenarios/schema.json").json()["properties"]["faults"]
    client.force_login(stranger)
    for answer in (client.post(f"/yard/scenarios/{kept.pk}/"), client.get(f"/yard/scenarios/{kept.pk}/file.json"),
                   client.post(f"/yard/scenarios/{kept.pk}/away/")):  # fmt: skip
        assert answer.status_code == 404
    assert "Hot kitchen" not in client.get("/yard/scenarios/").content.decode()


@pytest.mark.parametrize(("changed", "says"), [
    ({"title": ""}, "What it is called"), ({"story": " "}, "What the customer says"), ({"kind": "tea"}, "Kind: choose one"),
    ({"refrigerant": "9"}, "refrigerant"), ({"outside": "300"}, "less than or equal to 120"), ({"outside": "x"}, "Weather"),
    ({"cause-1": ""}, "What is wrong: choose one"), ({"cause-1": "cap_tube_restricted"}, "cannot be on a walk-in cooler"),
    ({"cause-2": "cap_tube_restricted"}, "cannot be on a walk-in cooler"),
])  # fmt: skip
def test_what_is_wrong_is_said_beside_its_field_and_nothing_is_lost(at_work, changed, says):
    answer = at_work.post("/yard/scenarios/new/", GOOD | changed)
    page = answer.content.decode()
    assert answer.status_code == 422 and says in page and Scenario.objects.count() == 0
    if "title" not in changed:
        assert 'value="Hot kitchen"' in page


@pytest.mark.parametrize(("content", "says"), [
    (b"tea", "not JSON"), (b"{}", "format"), (b"\x89PNG", "not JSON"), (b" " * 200_001, "200 kB"),
    (b'{"format": "orange-kettle-scenario", "version": 1, "title": "xx", "story": "xx", "unit": {"kind": "x", "refrigerant": "R-22"}}',
     "unit.kind"),
])  # fmt: skip
def test_a_file_is_checked_by_what_is_in_it(at_work, content, says):
    from django.core.files.uploadedfile import SimpleUploadedFile

    answer = at_work.post("/yard/scenarios/read-in/", {"file": SimpleUploadedFile("one.json", content)}, follow=True)
    assert says in answer.content.decode() and Scenario.objects.count() == 0
    assert "Choose a file" in at_work.post("/yard/scenarios/read-in/", follow=True).content.decode()


def test_a_file_goes_in_and_can_be_put_away(at_work):
    from django.core.files.uploadedfile import SimpleUploadedFile

    one = core.checked({"format": core.FORMAT, "version": 1, "title": "From a colleague", "story": "“Warm.”",
                        "unit": {"kind": "prep_rail", "refrigerant": "R-290"}, "faults": [{"cause": "cap_tube_restricted"}]})  # fmt: skip
    page = at_work.post("/yard/scenarios/read-in/", {"file": SimpleUploadedFile("one.json", core.write(one).encode())}, follow=True)
    assert "From a colleague: kept" in page.content.decode()
    kept = Scenario.objects.get()
    assert "Put away." in at_work.post(f"/yard/scenarios/{kept.pk}/away/", follow=True).content.decode()
    assert "From a colleague" not in at_work.get("/yard/scenarios/").content.decode() and Scenario.objects.count() == 1


def close(call, closed=True):
    Call.objects.filter(pk=call.pk).update(closed_at=timezone.now() if closed else None)
    call.refresh_from_db()


def test_a_closed_call_becomes_an_exercise_without_names_or_places(at_work, user, call, read_in):
    read_in(box_temp_f="31", evap_fans="stopped", evap_fan_supply_v="230", ice_form="light_frost", power_locked_out="yes")
    refused = at_work.post(f"/yard/scenarios/from/{call.number}/", follow=True).content.decode()
    assert "Close the call first" in refused
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    read_in(evap_fans="running", box_temp_f="12")
    close(call)
    assert "no exercise" in at_work.post(f"/yard/scenarios/from/{call.number}/", follow=True).content.decode()
    close(call, False)
    name_cause(user, call, ["evap_fan_failed"])
    close(call)
    assert f"Call {call.number}" in at_work.get("/yard/scenarios/").content.decode()
    at_work.post(f"/yard/scenarios/from/{call.number}/", follow=True)
    kept = Scenario.objects.get()
    told = json.dumps(kept.told)
    assert "Freezer 9" not in told and "Test barn" not in told and user.first_name not in told and str(call.opened_at.year) not in told
    assert kept.told["found"] == ["evap_fan_failed"] and kept.told["stages"][0]["evap_fans"] == "stopped"
    at_work.post(f"/yard/scenarios/{kept.pk}/", follow=True)
    at = AtPractice(at_work, Practice.objects.get())
    at.take("evap_fans")
    at.take("door")
    assert at.value("evap_fans") == "stopped" and at.value("door") is None and "not taken on that call" in at.page("read/")
    page = at.yard("name/", cause="evap_fan_failed").content.decode()
    assert "That is what it was" in page and "A week later" not in page
