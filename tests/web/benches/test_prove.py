"""Prove: the box watched down, proofs filled from the record, leaving with and without them, promises, and the shop's record."""

import re
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone
from icalendar import Calendar

from web.accounts.models import Member
from web.benches.prove.actions.watch_box import watch_box
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import judge_call, told_of
from web.logbook.models import BoxWatch, Call, FollowUp, Outcome

SOON = timedelta(minutes=30)


def page(client, call):
    return client.get(reverse("stop", args=[call.number, "prove"])).content.decode()


def post(client, name, *args, **typed):
    return client.post(reverse(name, args=args), typed, follow=True).content.decode()


def act(user, call, code, at=None, **more):
    return do_act(user, call, judge_call(fresh(call)), code, reason="as it was", **({"at": at} if at else {}), **more)


def fresh(call):
    return Call.objects.get(pk=call.pk)


def states(call):
    return {one.code: one.state for one in told_of(fresh(call)).prove}


def ago(call, minutes):
    Call.objects.filter(pk=call.pk).update(opened_at=timezone.now() - timedelta(minutes=minutes))


def test_a_box_is_watched_from_what_it_reads_and_says_when_it_is_there(at_work, call, user):
    ago(call, 120)
    body = post(at_work, "watch-box", call.number, from_f="30", ambient_f="75", stock="half")
    assert "The box, watched down" in body and "expected with its doubt" in body
    assert {one.key: one.value for one in call.readings.all()} == {"box_temp_f": 30.0, "ambient_f": 75.0}
    BoxWatch.objects.update(at=timezone.now() - timedelta(minutes=70))
    call.readings.update(at=timezone.now() - timedelta(minutes=70))
    for minutes, value in ((40, 17.0), (25, 16.8), (5, 16.9)):
        record_reading(user, call, "box_temp_f", value, at=timezone.now() - timedelta(minutes=minutes))
    body = page(at_work, call)
    assert "Stalled for 35 min" in body and "it stands still" in body and "nobody can say when" in body
    body = post(at_work, "read-box", call.number, box_now="-6")
    assert "At set: −6.0 °F" in body
    assert "is not a number" in post(at_work, "read-box", call.number, box_now="cold")
    earlier = timezone.localtime() - timedelta(minutes=50)
    post(at_work, "read-box", call.number, box_now="18", box_at=f"{earlier:%H:%M}")
    assert call.readings.filter(value=18.0).get().at.minute == earlier.minute
    assert "is not a time like" in post(at_work, "read-box", call.number, box_now="18", box_at="noonish")
    before = timezone.localtime() - timedelta(minutes=300)
    assert "is before the visit" in post(at_work, "read-box", call.number, box_now="18", box_at=f"{before:%H:%M}")


@pytest.mark.parametrize(("typed", "field"), [
    ({"from_f": "warm", "ambient_f": "75", "stock": "half"}, "from_f"), ({"from_f": "400", "ambient_f": "75", "stock": "half"}, "from_f"),
    ({"from_f": "40", "ambient_f": "", "stock": "half"}, "ambient_f"), ({"from_f": "40", "ambient_f": "75", "stock": "heaps"}, "stock"),
])  # fmt: skip
def test_what_cannot_be_is_said_beside_its_field_and_nothing_is_stored(at_work, call, typed, field):
    body = post(at_work, "watch-box", call.number, **typed)
    assert 'role="alert"' in body and (f'id="{field}-error"' in body or "Stock: choose one of" in body)
    assert not BoxWatch.objects.exists() and not call.readings.exists()


def test_a_reminder_is_on_every_page_and_board_until_it_is_heard(at_work, call, user, stranger, client):
    assert "Begin to watch the box first" in post(at_work, "remind", call.number, minutes="15")
    watch_box(user, call, {"from_f": "30", "ambient_f": "75", "stock": "half"})
    assert "outside 5 to 1440 minutes" in post(at_work, "remind", call.number, minutes="1")
    assert "You will be reminded" in post(at_work, "remind", call.number, minutes="15")
    assert "Boxes to look at" in at_work.get(reverse("board")).content.decode()
    assert at_work.get(reverse("reminders")).content.strip() == b""
    watch = BoxWatch.objects.get()
    BoxWatch.objects.update(remind_at=timezone.now() - timedelta(minutes=1))
    answer = at_work.get(reverse("reminders"))
    assert "look at the box" in answer.content.decode() and "reminder" in answer["HX-Trigger"]
    post(at_work, "reminded", call.number, watch.pk)
    assert at_work.get(reverse("reminders")).content.strip() == b""


def test_proofs_are_filled_from_what_was_read_after_the_work_and_not_before(at_work, call, user, read_in):
    ago(call, 90)
    read_in(sight_glass="clear", box_temp_f="-5")
    call.readings.update(at=timezone.now() - timedelta(minutes=60))
    act(user, call, "evap_fan.replaced", at=timezone.now() - timedelta(minutes=30))
    assert states(call) == {"at_set": "open", "air": "open"}
    body = post(at_work, "see-proof", call.number, "air")
    # A tap is a word about the repair: it stores that it was seen, no observation.
    assert "Take back" in body and call.proofs_seen.get().code == "air" and not call.readings.filter(key="air_weak_at").exists()
    record_reading(user, call, "box_temp_f", -4.5)
    assert states(call) == {"at_set": "proved", "air": "proved"}
    body = page(at_work, call)
    assert "May be left" in body and "Air felt at every section" in body


def test_a_tap_that_is_no_reading_stands_until_it_is_taken_back(at_work, call, user):
    act(user, call, "contactor.replaced")
    assert states(call)["starts"] == "open"
    post(at_work, "see-proof", call.number, "starts")
    assert states(call)["starts"] == "proved"
    post(at_work, "see-proof", call.number, "starts")
    assert states(call)["starts"] == "open"
    assert "That is no proof" in post(at_work, "see-proof", call.number, "moon")


def test_pressure_that_held_is_of_the_repair_though_gas_went_in_after_it(at_work, call, user):
    ago(call, 200)
    act(user, call, "leak.repaired", at=timezone.now() - timedelta(minutes=120))
    typed = {"start_psig": "150", "start_f": "70", "now_psig": "150", "now_f": "70", "minutes": "30"}
    post(at_work, "nitrogen", call.number, **typed)
    call.standingtests.update(at=timezone.now() - timedelta(minutes=90))
    act(user, call, "charge.weighed_in", at=timezone.now() - timedelta(minutes=60), typed="32 oz")
    assert states(call)["held"] == "proved"
    post(at_work, "nitrogen", call.number, **typed | {"now_psig": "120"})
    assert states(call)["held"] == "against"


def test_what_had_not_settled_when_the_call_was_closed_is_not_proved_by_waiting(at_work, call, user, read_in):
    ago(call, 60)
    act(user, call, "condenser_fan.replaced", at=timezone.now() - timedelta(minutes=4))
    read_in(ambient_f="84", discharge_psig="245", box_temp_f="-5")
    assert states(call)["split"] == "open" and re.search("Settles for 1[01] min more", page(at_work, call)), "the minute may turn meanwhile"
    post(at_work, "close", call.number, reason="shop shuts")
    # The same call as it stands a day after.
    Call.objects.filter(pk=call.pk).update(closed_at=timezone.now() - timedelta(days=1), opened_at=timezone.now() - timedelta(days=1.1))
    for one in (*call.readings.all(), *call.acts.all()):
        type(one).objects.filter(pk=one.pk).update(at=one.at - timedelta(days=1))
    assert states(call)["split"] == "open" and "min before it had settled" in page(at_work, call)
    assert "min before it had settled" in at_work.get(reverse("report", args=[call.number])).content.decode()
    # Read when it had settled, it is proved, and stays so.
    call.acts.update(at=timezone.now() - timedelta(days=1, minutes=40))
    assert states(call)["split"] == "proved" and "min before it had settled" not in page(at_work, call)


def test_leaving_before_it_is_proved_needs_a_reason_and_makes_a_follow_up(at_work, call, user):
    act(user, call, "evap_fan.replaced")
    assert len(told_of(fresh(call)).unproved) == 2
    body = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert "Not proved: box at set" in body
    post(at_work, "close", call.number)
    assert fresh(call).is_open
    post(at_work, "answer-doubt", call.number, key="not_proved:at_set", answer="again")
    post(at_work, "close", call.number, reason="shop shuts, they ring at six")
    assert not fresh(call).is_open
    # Only who says that he comes again has promised it.
    one = FollowUp.objects.get()
    assert one.code == "not_proved" and "I come back for it" in one.why and one.due == timezone.localdate() + timedelta(days=1)
    assert "Prove what could not be seen" in at_work.get(reverse("board")).content.decode()


def test_what_to_come_back_for_is_proposed_by_what_was_done(at_work, call, user):
    act(user, call, "valve.exercised")
    body = page(at_work, call)
    assert "The valve was freed, not replaced" in body
    due = timezone.localdate() + timedelta(days=7)
    post(at_work, "promise", call.number, code="valve_freed", due=due.isoformat(), stop="prove")
    one = FollowUp.objects.get()
    assert one.why == "The valve was freed, not replaced" and one.due == due
    ics = Calendar.from_ical(at_work.get(reverse("promise-calendar", args=[one.pk])).content)
    [event] = [part for part in ics.walk() if part.name == "VEVENT"]
    assert str(event["summary"]).startswith("Freezer 9") and event["dtstart"].dt == due and len(list(event.walk("VALARM"))) == 1
    assert "Why not: 4 to 200 letters" in post(at_work, "promise-let-go", one.pk, reason="")
    post(at_work, "promise-let-go", one.pk, reason="customer scraps it")
    one.refresh_from_db()
    assert not one.is_open and one.let_go == "customer scraps it"


def test_whether_it_held_is_asked_a_week_after_and_at_the_next_visit(at_work, call, user, unit):
    name_cause(user, call, ["evap_fan_failed"])
    act(user, call, "evap_fan.replaced")
    post(at_work, "close", call.number, reason="shop shuts, they ring")
    outcome = Outcome.objects.get()
    assert outcome.found == ["evap_fan_failed"] and outcome.done == ["evap_fan.replaced"] and outcome.minutes >= 0
    assert "Did it hold?" not in at_work.get(reverse("board")).content.decode()
    Call.objects.update(closed_at=timezone.now() - timedelta(days=8), opened_at=timezone.now() - timedelta(days=8, hours=2))
    assert "Did it hold?" in at_work.get(reverse("board")).content.decode()
    visit = open_call(user, unit, "Again.")
    assert "Did it hold?" not in at_work.get(reverse("board")).content.decode()
    assert "Did it hold?" in at_work.get(reverse("stop", args=[visit.number, "arrive"])).content.decode()
    assert "choose one of" in post(at_work, "held", call.number, "perhaps").lower()
    post(at_work, "held", call.number, "came_back")
    assert Outcome.objects.get(call=call).answer == "came_back"
    body = at_work.get(reverse("record")).content.decode()
    assert "1 of 1</b> answered calls came back" in body and "Coil fan failed" in body


def test_the_record_of_a_person_is_for_that_person_and_the_owner(client, at_work, call, user, django_user_model):
    other = django_user_model.objects.create_user("mate", password="a-long-pass-phrase")
    Member.objects.create(user=other, shop=user.member.shop)
    assert at_work.get(reverse("record"), {"who": other.pk}).status_code == 404
    assert at_work.get(reverse("record"), {"who": user.pk}).status_code == 200
    user.member.owner = True
    user.member.save()
    assert at_work.get(reverse("record"), {"who": other.pk}).status_code == 200
    client.force_login(other)
    assert "Ansel" not in client.get(reverse("record")).content.decode()


def test_what_is_proved_and_promised_is_out_of_reach_of_another_shop(client, stranger, call, user):
    act(user, call, "evap_fan.replaced")
    watch = watch_box(user, call, {"from_f": "30", "ambient_f": "75", "stock": "half"})
    one = FollowUp.objects.create(shop=call.shop, unit=call.unit, call=call, by=user, what="Look", due=timezone.localdate())
    client.force_login(stranger)
    reached = {"watch-box": [], "read-box": [], "remind": [], "reminded": [watch.pk], "see-proof": ["air"], "promise": [], "held": ["held"]}
    for name, args in [*((name, [call.number, *more]) for name, more in reached.items()), ("promise-done", [one.pk]),
                       ("promise-let-go", [one.pk])]:  # fmt: skip
        assert client.post(reverse(name, args=args)).status_code == 404, name
    assert client.get(reverse("promise-calendar", args=[one.pk])).status_code == 404
    assert b"Look" not in client.get(reverse("board")).content
