"""A unit's life on one line of time: everything of it once, newest first, and it reads well with two hundred calls."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from kettle.knowledge.measures import TRADE
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.promise import keep_promise, promise
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call, GasMove
from web.logbook.units.life import ENTRIES_A_PAGE, life_of


def test_what_happened_stands_once_in_its_order(at_work, user, unit, call):
    name_cause(user, call, ["evap_fan_failed"])
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    change_setting(user, call, "set_point", "-3 °F", "-5 °F", "too warm")
    one = promise(user, call, "Look at the coil", timezone.localdate())
    keep_promise(user, one)
    told = life_of(unit, TRADE)
    assert [moment.title for moment in told] == ["Look at the coil", "Call 201, open"]
    assert told[1].words == ["Too warm.", "The cause: coil fan failed", "Set point: −3 °F → −5 °F", "Fan replaced"]
    body = at_work.get(reverse("unit", args=[unit.pk])).content.decode()
    assert "Its life" in body and "Set point: −3 °F → −5 °F" in body and f">{timezone.localdate().year}</h3>" in body


def test_two_hundred_calls_are_read_page_by_page_in_few_questions(at_work, user, unit, call, django_assert_max_num_queries):
    now = timezone.now()
    rows = [Call(shop=unit.shop, unit=unit, number=300 + n, opened_by=user, complaint=f"Visit {n}", opened_at=now - timedelta(days=9 * n),
                 closed_at=now - timedelta(days=9 * n - 1)) for n in range(1, 201)]  # fmt: skip
    Call.objects.bulk_create(rows)
    with django_assert_max_num_queries(70):
        body = at_work.get(reverse("unit", args=[unit.pk])).content.decode()
    assert body.count("<li>") >= ENTRIES_A_PAGE and "1 of 4" in body and "Visit 120" not in body
    last = at_work.get(reverse("unit", args=[unit.pk]), {"page": "4"}).content.decode()
    assert "Visit 200" in last and "4 of 4" in last
    assert "4 of 4" in at_work.get(reverse("unit", args=[unit.pk]), {"page": "9999"}).content.decode()
    assert at_work.get(reverse("unit", args=[unit.pk]), {"page": "moon"}).status_code == 200


def test_gas_that_was_moved_without_a_call_is_in_it(user, unit):
    GasMove.objects.create(shop=unit.shop, day=timezone.localdate(), kind="added", oz=12.0, refrigerant="R-404A", unit=unit, by=user)
    [moment] = life_of(unit, TRADE)
    assert moment.mark == "◍" and "12.0 oz" in moment.title and moment.address == reverse("ledger")
