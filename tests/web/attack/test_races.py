"""Two at once: each race is run many times, and never ends with two where there is one, or with something lost without a word."""

import threading

import pytest
from django.db import IntegrityError, connection
from django.utils import timezone

from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import FieldErrors, InputError
from tests.web.conftest import make_person
from web.benches.defrost.actions.plan_defrosts import ask_plan
from web.benches.defrost.actions.watch_defrost import end_watch, mark_watch, start_watch
from web.benches.ice.actions.melt import start_melt
from web.logbook.actions.change_band import change_band
from web.logbook.actions.hand_over import close_call, write_hand_over
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Call, DefrostPlan, DefrostWatch, LogEntry, Melt, Reading, Site, Unit

pytestmark = pytest.mark.django_db(transaction=True)
TIMES = 40


@pytest.fixture
def two():
    return make_person("Larch Hollow Cooling", "ansel"), make_person("Larch Hollow Cooling", "birch")


@pytest.fixture
def room(two):
    site = Site.objects.create(shop=two[0].member.shop, name="Test barn")
    return Unit.objects.create(shop=site.shop, site=site, name="Room", kind="walk_in_freezer", refrigerant="R-404A")


def at_once(*acts):
    """Do several things at the same moment, each on a connection of its own; returns what each came to."""
    gate, came = threading.Barrier(len(acts)), [None] * len(acts)

    def run(place, act):
        try:
            gate.wait()
            came[place] = act()
        except (InputError, IntegrityError) as error:
            came[place] = error
        finally:
            connection.close()

    threads = [threading.Thread(target=run, args=(place, act)) for place, act in enumerate(acts)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return came


class _Plan:
    class method:
        code, label = "warm_water", "Warm water"

    refusals = ()


class _Dry:
    """Facts under which a melt may start."""

    unit = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-290"))


@pytest.fixture
def melting_allowed(monkeypatch):
    monkeypatch.setattr("web.benches.ice.actions.melt.core.must_come_first", lambda facts, method=None: [])


def fresh(call):
    return Call.objects.get(pk=call.pk)


@pytest.mark.parametrize("what", ["watch", "melt", "plan"])
def test_a_double_start_finds_the_first(two, room, melting_allowed, what):
    starts = {
        "watch": (lambda user, call: start_watch(user, call, None, {}), DefrostWatch, {"ended_by": "", "undone_at": None}),
        "melt": (lambda user, call: start_melt(user, call, _Dry(), _Plan()), Melt, {"ended_at": None, "undone_at": None}),
        "plan": (lambda user, call: ask_plan(user, call, {}), DefrostPlan, {"state__in": ["waiting", "working"]}),
    }
    start, model, running = starts[what]
    for _ in range(TIMES):
        call = open_call(two[0], room)
        came = at_once(*(lambda user=user: start(user, fresh(call)) for user in (*two, *two)))
        assert not [error for error in came if isinstance(error, Exception)], came
        assert model.objects.filter(call=call, **running).count() == 1
    if what == "watch":
        watch = DefrostWatch.objects.get(call=call, ended_by="")
        mark_watch(two[0], watch, "clear")
        assert end_watch(two[0], watch, "time", "clear", {}).is_over
        connection.close()


def test_a_call_that_is_closed_takes_no_entry_any_more(two, room):
    for _ in range(TIMES):
        call = open_call(two[0], room)
        readings = [lambda: record_reading(two[1], fresh(call), "box_temp_f", "4.2") for _ in range(3)]
        at_once(lambda: close_call(two[0], fresh(call), "nobody there"), *readings)
        closed = fresh(call).closed_at
        assert closed is not None
        order = list(LogEntry.objects.filter(call=call).order_by("pk").values_list("action", flat=True))
        assert order[-1] == "close_call", order
        assert Reading.objects.filter(call=call).count() == order.count("record_reading")


def test_no_change_of_a_band_is_lost(two, room):
    quantities = ["superheat_evap_f", "td_f", "split_f"]
    for turn in range(TIMES):
        low = str(5 + turn % 3)
        acts = [lambda q=q: change_band(two[0], Unit.objects.get(pk=room.pk), q, low, "30", "measured here") for q in quantities]
        came = at_once(*acts)
        assert not [error for error in came if isinstance(error, Exception)], came
        room.refresh_from_db()
        assert {q: room.bands[q] for q in quantities} == {q: [float(low), 30.0] for q in quantities}


def test_words_of_two_people_are_both_kept_or_the_second_is_told(two, room):
    call = open_call(two[0], room)
    shown = {"found": "", "done": "", "advice": ""}
    for turn in range(TIMES):
        was = {name: getattr(fresh(call), name) for name in shown}
        one, other = {**was, "found": f"ice {turn}"}, {**was, "done": f"melted {turn}"}
        came = at_once(lambda: write_hand_over(two[0], fresh(call), one, was), lambda: write_hand_over(two[1], fresh(call), other, was))
        assert came == [None, None]
        now = fresh(call)
        assert (now.found, now.done) == (f"ice {turn}", f"melted {turn}")
    was = {"found": fresh(call).found}
    came = at_once(
        lambda: write_hand_over(two[0], fresh(call), {"found": "by one"}, was),
        lambda: write_hand_over(two[1], fresh(call), {"found": "by the other"}, was),
    )
    told = [error for error in came if isinstance(error, FieldErrors)]
    assert len(told) == 1 and "changed this meanwhile to “by " in told[0].by_field["found"]


def test_a_shop_works_out_two_plans_and_a_person_one_and_the_rest_wait_in_order(two, room):
    units = [
        Unit.objects.create(shop=room.shop, site=room.site, name=f"R{n}", kind="walk_in_freezer", refrigerant="R-404A") for n in range(4)
    ]
    third = make_person("Larch Hollow Cooling", "cedar")
    states = [ask_plan(user, open_call(user, unit), {}).state for user, unit in zip((two[0], two[0], two[1], third), units, strict=True)]
    assert states == ["working", "waiting", "working", "waiting"]
    DefrostPlan.objects.filter(state="working").update(touched_at=timezone.now() - timezone.timedelta(minutes=5))
    assert ask_plan(third, open_call(third, room), {}).state == "working", "a plan that was cut off holds up nobody"
