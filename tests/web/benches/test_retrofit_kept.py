"""Another refrigerant in a unit, put on record: the call knows both, earlier calls keep the old one, and it is taken back."""

import pytest
from django.urls import reverse

from kettle import case
from web.logbook.actions.import_case import import_case
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.case_files import case_text
from web.logbook.calls.judging import told_of
from web.logbook.models import Call, Happened


def post(client, call, to):
    return client.post(reverse("another-refrigerant", args=[call.number]), {"to": to}, follow=True).content.decode()


def fresh(call):
    return Call.objects.get(pk=call.pk)


def test_from_then_on_it_is_the_new_one_and_before_it_the_old(at_work, user, unit, call):
    earlier = open_call(user, unit, "last year")
    record_reading(user, call, "suction_psig", "12")
    page = at_work.get(reverse("refrigerant", args=[call.number]), {"other": "R-448A"}).content.decode()
    assert "It runs on R-448A now" in page
    assert "On record: it runs on R-448A" in post(at_work, call, "R-448A")
    unit.refresh_from_db()
    assert unit.refrigerant == "R-448A"
    told = told_of(fresh(call))
    assert told.record.unit.refrigerant.name == "R-404A" and told.record.unit_now.refrigerant.name == "R-448A"
    done = " ".join(told.said("done"))
    assert "R-404A" in done and "R-448A" in done and "R-448A" in told.customer.done
    assert told_of(fresh(earlier)).record.unit_now.refrigerant.name == "R-404A"
    later = open_call(user, unit, "after")
    assert told_of(later).record.unit.refrigerant.name == "R-448A"
    text = case_text(fresh(call))
    assert case.read_call(text).unit.refrigerant.name == "R-404A"
    handed = import_case(user, text)
    assert handed.unit.refrigerant == "R-448A" and told_of(handed).record.unit.refrigerant.name == "R-404A"


def test_taken_back_the_unit_is_on_its_own_again(at_work, unit, call):
    post(at_work, call, "R-448A")
    assert "changed on this call already" in post(at_work, call, "R-449A")
    at_work.post(reverse("take-back", args=[call.number, "happened", Happened.objects.get().pk]), {"back": "taken"})
    unit.refresh_from_db()
    assert unit.refrigerant == "R-404A" and told_of(fresh(call)).record.unit_now.refrigerant.name == "R-404A"


@pytest.mark.parametrize(("to", "says"), [("R-290", "burns"), ("R-404A", "refrigerant of its plate"), ("R-999", "not one of the list")])
def test_what_may_not_go_in_is_refused_and_nothing_is_stored(at_work, unit, call, to, says):
    assert says in post(at_work, call, to)
    unit.refresh_from_db()
    assert unit.refrigerant == "R-404A" and not Happened.objects.exists()


def test_another_shop_changes_nothing(client, stranger, call):
    client.force_login(stranger)
    assert client.post(reverse("another-refrigerant", args=[call.number]), {"to": "R-448A"}).status_code == 404
