"""What is left so at the end of a visit: each thing answered with one tap, the rest by one reason, all of it on record."""

import pytest
from django.urls import reverse

from kettle.knowledge.errors import InputError
from web.benches.quote.actions.quoting import take_lines
from web.benches.quote.proposing import proposed_for
from web.logbook.actions.do_act import do_act
from web.logbook.actions.hand_over import answer_doubt, close_call
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.place import place
from web.logbook.calls.judging import judge_call
from web.logbook.calls.leaving import doubts
from web.logbook.models import Call, FollowUp, Leaving, Override, QuoteLine
from web.round.standing import Standing


def answered(call):
    """What was answered, by key."""
    return {one.key: one.given.code for one in doubts(call) if one.given}


def hand_over(client, call):
    return client.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()


def tap(client, call, key, answer):
    return client.post(reverse("answer-doubt", args=[call.number]), {"key": key, "answer": answer}, follow=True).content.decode()


@pytest.fixture
def left(call, user):
    """A visit with a fan replaced and nothing proved, and gauges still on."""
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    placed = place(user, call, "gauges", "suction")
    return Call.objects.get(pk=call.pk), placed


def test_each_is_answered_with_a_tap_and_the_call_closes_without_a_word_typed(at_work, left):
    call, placed = left
    keys = [one.key for one in doubts(call)]
    assert keys == ["left_there:gauges", "box_not_read", "not_proved:at_set", "not_proved:air"]
    page = hand_over(at_work, call)
    assert "Before you leave" in page and page.count("I come back for it") == 4 and "Or one reason" in page
    assert "Answer each, or say why" in at_work.post(reverse("close", args=[call.number]), follow=True).content.decode()
    assert Call.objects.get(pk=call.pk).is_open
    for key, answer in zip(keys, ("needed", "no_wait", "watches", "no_wait"), strict=True):
        page = tap(at_work, call, key, answer)
    assert "Or one reason" not in page and "The customer watches it and calls" in page
    at_work.post(reverse("close", args=[call.number]))
    call.refresh_from_db()
    placed.refresh_from_db()
    assert not call.is_open and placed.left_why == "Needed until it is put right"
    assert {one.reason: len(one.texts) for one in Override.objects.all()} == {
        "The customer watches it and calls": 1, "The customer would not wait for it": 2, "Needed until it is put right": 1,
    }  # fmt: skip
    # Nobody said that he comes back for any of it: nothing is promised.
    assert not FollowUp.objects.exists()
    unread = "the box was not read with an own thermometer; not proved: air felt at every section"
    assert f"Left so ({unread}): the customer would not wait for it." in hand_over(at_work, call)


def test_what_has_no_answer_goes_by_one_reason_and_an_answer_can_be_asked_again(at_work, left):
    call, placed = left
    tap(at_work, call, "not_proved:air", "again")
    tap(at_work, call, "not_proved:air", "no_wait")
    assert answered(call) == {"not_proved:air": "no_wait"} and Leaving.objects.filter(undone_at=None).count() == 1
    tap(at_work, call, "not_proved:air", "")
    assert answered(call) == {}
    tap(at_work, call, "not_proved:air", "again")
    at_work.post(reverse("close", args=[call.number]), {"reason": "the kitchen opens"})
    assert {one.reason: len(one.texts) for one in Override.objects.all()} == {"I come back for it": 1, "the kitchen opens": 3}
    assert list(FollowUp.objects.values_list("code", flat=True)) == ["not_proved"]


@pytest.mark.parametrize(("key", "answer", "says"), [
    ("not_proved:air", "display", "choose one of the answers"), ("not_proved:nothing", "again", "settled by now"),
    ("", "", "settled by now"),
    ("quote", "later", "settled by now"),
])  # fmt: skip
def test_a_wrong_answer_is_said_and_nothing_is_kept(at_work, left, key, answer, says):
    assert says in tap(at_work, left[0], key, answer) and not Leaving.objects.exists()


def test_another_shop_answers_nothing(left, stranger):
    with pytest.raises(Exception, match="shop"):
        answer_doubt(stranger, left[0], "not_proved:air", "again")


def test_a_shop_that_quotes_first_is_asked_who_agreed(at_work, call, user):
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    assert "unasked" not in [one.key for one in doubts(call)]
    shop = call.shop
    shop.work_school = "quote"
    shop.save()
    call = Call.objects.get(pk=call.pk)
    correct = at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()
    assert "Quote first" in correct and "Not quoted yet" in correct and "Done before a quote was accepted: fan replaced" in correct
    assert ("unasked", "Done before a quote was accepted: fan replaced") in [(one.key, one.text) for one in doubts(call)]
    tap(at_work, call, "unasked", "word")
    assert answered(call)["unasked"] == "word"
    name_cause(user, call, ["undercharge"])
    call = Call.objects.get(pk=call.pk)
    take_lines(user, call, proposed_for(call, Standing(call)))
    assert "Quoted, not answered yet" in at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()
    QuoteLine.objects.update(cents=1000)
    # A quote inside what the site may spend needs no answer before the work.
    call.unit.site.not_to_exceed_cents = 10_000_000
    call.unit.site.save()
    call = Call.objects.get(pk=call.pk)
    assert "unasked" not in [one.key for one in doubts(call)]
    assert "Inside the" in at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()
    QuoteLine.objects.filter(option="good").update(answer="accepted")
    assert "● Accepted by" in at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()


def test_a_closed_call_takes_no_answer(left, user):
    call, _ = left
    close_call(user, call, "all of it tomorrow")
    with pytest.raises(InputError, match="is closed"):
        answer_doubt(user, call, "not_proved:air", "again")
