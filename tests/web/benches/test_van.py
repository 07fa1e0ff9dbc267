"""One's van: its list, what is used on calls is counted down, what has to be got; nobody else's van."""

from decimal import Decimal

import pytest
from django.urls import reverse

from kettle.knowledge.errors import InputError
from tests.web.conftest import make_person
from web.benches.quote.actions import stock
from web.benches.quote.actions.quoting import take_lines
from web.benches.quote.proposing import proposed_for
from web.logbook.actions.do_act import do_act
from web.logbook.actions.name_cause import name_cause
from web.logbook.calls.judging import judge_call
from web.logbook.models import Call, LogEntry, PartUsed, QuoteLine, VanPart
from web.round.standing import Standing


@pytest.fixture
def motor(user):
    return stock.keep_part(user, {"what": "Fan motor  9 W", "carried": "2", "wanted": "3", "price": "41,50"})


def post(client, name, *args, **typed):
    return client.post(reverse(name, args=args), typed, follow=True).content.decode()


def carried(part):
    return VanPart.objects.get(pk=part.pk).carried


def test_the_list_says_what_is_there_and_what_to_get(at_work, motor, user):
    body = at_work.get(reverse("van")).content.decode()
    assert "Fan motor 9 W" in body and "2 of 3" in body and 'value="41.50"' in body
    post(at_work, "van-part", motor.pk, what="Fan motor 9 W", carried="10", wanted="12", price="")
    # Ten are ten, not 1E+1.
    assert "10 of 12" in at_work.get(reverse("van")).content.decode()
    assert "Filled up: 1 parts." in post(at_work, "fill-van") and carried(motor) == 12
    assert "Nothing was short" in post(at_work, "fill-van")
    post(at_work, "van-part", motor.pk, do="drop")
    assert not VanPart.objects.exists()


def test_what_was_done_proposes_its_part_one_tap_takes_it_out_of_the_van_and_back(at_work, call, user, motor):
    do_act(user, call, judge_call(call), "evap_fan.replaced")
    page = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert "Fan motor 9 W, 2 in the van" in page
    page = post(at_work, "use-part", call.number, part="Fan motor 9 W")
    used = PartUsed.objects.get()
    assert carried(motor) == 1 and used.cents == 4150 and used.van_part == motor
    assert "from the van" in page and "Used: 1 × Fan motor 9 W." in page and "By what was done, one tap each" not in page
    post(at_work, "undo-part", call.number, used.pk)
    post(at_work, "undo-part", call.number, used.pk)
    assert carried(motor) == 2 and not PartUsed.objects.filter(undone_at=None).exists()


def test_a_part_from_nowhere_is_written_down_too_and_the_van_is_never_less_than_empty(at_work, call, motor):
    post(at_work, "use-part", call.number, part="brass  union", many="2")
    post(at_work, "use-part", call.number, part="fan motor 9 w", many="2.5")
    assert [str(one) for one in PartUsed.objects.all()] == ["2 × Brass union", "2.5 × Fan motor 9 W"] and carried(motor) == 0
    assert "Used: 2 × Brass union, 2.5 × Fan motor 9 W." in at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()


@pytest.mark.parametrize(("typed", "says"), [
    ({"part": "x", "many": "1"}, "Part: 2 to 80 letters"), ({"part": "Relay", "many": "none"}, "How many: “none” is no quantity"),
    ({"part": "Relay", "many": "0"}, "outside 0 to 1000"), ({"part": "y" * 81}, "Part: 2 to 80 letters"),
])  # fmt: skip
def test_a_wrong_part_is_said_beside_its_field_and_what_was_typed_stays(at_work, call, typed, says):
    body = post(at_work, "use-part", call.number, **typed)
    assert says in body and f'value="{typed["part"]}"' in body and not PartUsed.objects.exists()


@pytest.mark.parametrize(("typed", "says"), [
    ({"what": "x"}, "What: 2 to 80 letters"), ({"what": "FAN motor 9 W"}, "is in the van already"),
    ({"what": "Relay", "carried": "-1"}, "In the van: “-1” is no quantity"), ({"what": "Relay", "price": "dear"}, "Price of one: “dear”"),
    ({"what": "Relay", "wanted": "2000"}, "Should be: 2000 is outside"),
])  # fmt: skip
def test_a_wrong_line_of_the_list_is_said_and_nothing_is_kept(at_work, motor, typed, says):
    body = post(at_work, "add-van-part", **typed)
    assert says in body and VanPart.objects.count() == 1 and f'value="{typed["what"]}"' in body


def test_a_wrong_change_is_said_at_its_part(at_work, motor):
    body = post(at_work, "van-part", motor.pk, what="Fan motor 9 W", carried="many", wanted="3", price="")
    assert "In the van: “many” is no quantity" in body and carried(motor) == 2


def test_quotes_take_its_price(call, user, motor):
    name_cause(user, call, ["evap_fan_failed"])
    take_lines(user, call, proposed_for(call, Standing(call)))
    assert QuoteLine.objects.get(what__startswith="Fan motor by").cents == 4150


def test_nobody_else_reaches_it_not_even_a_colleague(at_work, motor, client, call):
    colleague = make_person("Larch Hollow Cooling", "brisa")
    client.force_login(colleague)
    assert "Fan motor" not in client.get(reverse("van")).content.decode()
    assert client.post(reverse("van-part", args=[motor.pk]), {"do": "drop"}).status_code == 404
    with pytest.raises(InputError):
        stock.drop_part(colleague, motor)
    # The colleague's van has none: what is used on the same call comes from nowhere.
    stock.use_part(colleague, Call.objects.get(pk=call.pk), "Fan motor 9 W")
    assert carried(motor) == Decimal(2) and PartUsed.objects.get().van_part is None


def test_what_was_not_in_the_van_does_not_come_back_to_it(at_work, call, user, motor):
    """Five used where two are carried: two come back when they were not used after all."""
    used = stock.use_part(user, call, "fan motor 9 w", "5")
    assert carried(motor) == 0 and used.quantity == 5
    stock.take_part_back(user, used)
    assert carried(motor) == 2


def test_taken_back_by_eight_at_once_it_comes_back_once(call, user, motor):
    used = stock.use_part(user, call, "Fan motor 9 W", "1")
    for stale in [PartUsed.objects.get(pk=used.pk) for _ in range(8)]:
        stock.take_part_back(user, stale)
    assert carried(motor) == 2
    assert LogEntry.objects.filter(action="undo_entry").count() == 1


def test_what_was_used_before_it_was_noted_comes_back_whole(call, user, motor):
    used = stock.use_part(user, call, "Fan motor 9 W", "1")
    PartUsed.objects.update(out_of_van=None)
    stock.take_part_back(user, used)
    assert carried(motor) == 2
