"""Two people over one form, one undo button each, and whose drafts are whose."""

import pytest
from django.urls import reverse

from tests.web.conftest import make_person
from web.accounts.context import installation_key
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Reading


@pytest.fixture
def colleague(user):
    return make_person("Larch Hollow Cooling", "birch")


def hidden(body, name):
    return body.split(f'name="was-{name}" value="')[1].split('"')[0]


def plate(client, unit):
    """The plate's form as it was opened: every field with what it shows."""
    body = client.get(reverse("edit-unit", args=[unit.pk])).content.decode()
    names = [part.split('"')[0] for part in body.split('name="was-')[1:]]
    return {f"was-{name}": hidden(body, name) for name in names} | {name: hidden(body, name) for name in names}


def test_a_plate_keeps_what_each_of_two_people_changed(at_work, unit, colleague):
    one = plate(at_work, unit)
    other = dict(one)
    at_work.post(reverse("edit-unit", args=[unit.pk]), one | {"compressor_rla_a": "11.5"})
    at_work.force_login(colleague)
    answer = at_work.post(reverse("edit-unit", args=[unit.pk]), other | {"nameplate_v": "460"})
    assert answer.status_code == 302
    unit.refresh_from_db()
    assert (unit.compressor_rla_a, unit.nameplate_v) == (11.5, 460.0)


def test_a_field_that_both_changed_is_shown_before_either_is_lost(at_work, unit, colleague):
    one = plate(at_work, unit)
    at_work.post(reverse("edit-unit", args=[unit.pk]), one | {"compressor_rla_a": "11.5"})
    at_work.force_login(colleague)
    told = at_work.post(reverse("edit-unit", args=[unit.pk]), one | {"compressor_rla_a": "12"}).content.decode()
    assert "changed meanwhile to “11.5”" in told and 'value="12"' in told
    unit.refresh_from_db()
    assert unit.compressor_rla_a == 11.5
    again = one | {"compressor_rla_a": "12", "was-compressor_rla_a": hidden(told, "compressor_rla_a")}
    assert at_work.post(reverse("edit-unit", args=[unit.pk]), again).status_code == 302
    unit.refresh_from_db()
    assert unit.compressor_rla_a == 12


def test_words_of_the_hand_over_are_not_blanked_by_anothers_save(at_work, user, call, colleague):
    address = reverse("stop", args=[call.number, "hand-over"])
    opened = {f"was-{name}": "" for name in ("found", "done", "advice", "declined")}
    blank = {name.removeprefix("was-"): "" for name in opened}
    at_work.post(address, opened | blank | {"found": "Drain frozen"})
    at_work.force_login(colleague)
    at_work.post(address, opened | blank | {"done": "Thawed it"})
    call.refresh_from_db()
    assert (call.found, call.done) == ("Drain frozen", "Thawed it")
    told = at_work.post(address, opened | blank | {"found": "Door open"}).content.decode()
    assert "Ansel changed this meanwhile to “Drain frozen”" in told and "Door open" in told
    call.refresh_from_db()
    assert call.found == "Drain frozen"


def test_the_complaint_on_arrive_tells_what_another_wrote(at_work, call):
    address = reverse("words", args=[call.number])
    at_work.post(address, {"complaint": "Warm since Monday", "was-complaint": call.complaint})
    told = at_work.post(address, {"complaint": "Warm", "was-complaint": call.complaint}).content.decode()
    assert "meanwhile to “Warm since Monday”" in told and ">Warm</textarea>" in told
    call.refresh_from_db()
    assert call.complaint == "Warm since Monday"


def test_a_band_that_another_changed_meanwhile_is_shown_first(at_work, unit):
    address = reverse("unit-bands", args=[unit.pk])
    sent = {"quantity": "td_f", "low": "9", "high": "18", "why": "measured here", "was": ""}
    assert at_work.post(address, sent).status_code == 302
    told = at_work.post(address, sent | {"high": "30"}).content.decode()
    assert "changed this band meanwhile" in told
    unit.refresh_from_db()
    assert unit.bands["td_f"] == [9.0, 18.0]


def test_undo_takes_back_ones_own_last_entry_and_anothers_by_its_own_button(at_work, user, call, colleague):
    record_reading(user, call, "box_temp_f", "41")
    record_reading(colleague, call, "ambient_f", "77")
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "Undo Birch’s air on condenser" in page
    at_work.post(reverse("undo", args=[call.number]), {"stop": "read"})
    assert Reading.objects.get(key="box_temp_f").undone_by == user
    theirs = Reading.objects.get(key="ambient_f")
    at_work.post(reverse("undo", args=[call.number]), {"stop": "read", "reading": theirs.pk})
    assert Reading.objects.get(key="ambient_f").undone_at is None, "not without the button that names whose it is"
    at_work.post(reverse("undo", args=[call.number]), {"stop": "read", "reading": theirs.pk, "theirs": "yes"})
    assert Reading.objects.get(key="ambient_f").undone_by == user


def test_a_page_says_whose_drafts_a_browser_keeps(at_work, user, call, colleague):
    address = reverse("stop", args=[call.number, "read"])
    own = at_work.get(address).content.decode()
    assert f'data-drafts="{installation_key()}:{user.pk}"' in own and f'data-call="{call.pk}"' in own
    at_work.force_login(colleague)
    assert f'data-drafts="{installation_key()}:{colleague.pk}"' in at_work.get(address).content.decode()


def test_a_page_of_one_person_enters_nothing_for_another(at_work, user, call, colleague):
    sent, headers = {"box_temp_f": "4", "stop": "read"}, {"HX-Request": "true", "X-Person": str(user.pk)}
    address = reverse("enter", args=[call.number, "box_temp_f"])
    assert at_work.post(address, sent, headers=headers).status_code == 200
    at_work.force_login(colleague)
    refused = at_work.post(address, sent, headers=headers)
    assert refused.status_code == 401 and "login" in refused.headers["HX-Redirect"]
    assert [reading.by for reading in Reading.objects.filter(key="box_temp_f")] == [user]
