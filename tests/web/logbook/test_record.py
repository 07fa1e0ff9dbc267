"""The record of a call: every row of the log is an event or is said to be none, and a call handed on tells the same elsewhere."""

import json
from datetime import timedelta

import pytest
from django.apps import apps
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kettle import case
from kettle.call import tell
from kettle.call.kinds import KINDS
from web.logbook.actions.import_case import import_case
from web.logbook.actions.place import place
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls import record as record_module
from web.logbook.calls.case_files import case_text
from web.logbook.calls.record import NO_EVENT, ROWS, record_of
from web.logbook.models import Call, Happened
from web.logbook.models.calls import Entry


def told(call, now):
    """What a call tells at a moment, without what only its own shop knows it by."""
    return json.loads(json.dumps(case.answer_of(tell(record_of(call, now=now)))))


def test_every_row_of_the_log_is_an_event_or_is_said_to_be_none():
    models = [model for model in apps.get_app_config("logbook").get_models() if issubclass(model, Entry)]
    relations = {model.__name__: model._meta.get_field("call").related_query_name() for model in models}
    accessors = {model.__name__: model._meta.get_field("call").remote_field.get_accessor_name() for model in models}
    assert len(models) > 20
    missing = [name for name in relations if accessors[name] not in ROWS and name not in NO_EVENT]
    assert missing == []
    assert [name for name in NO_EVENT if name not in accessors] == []


def test_every_call_of_a_shop_handed_on_tells_the_same_to_the_word(loaded, stranger):
    now, differ = timezone.now(), []
    kinds = set()
    for call in Call.objects.order_by("number"):
        handed = import_case(stranger, case_text(call))
        one, other = told(call, now), told(handed, now)
        kinds |= {event.kind for event in record_of(handed).events}
        differ += [(call.number, key, one[key], other[key]) for key in one if one[key] != other[key]]
    assert differ == []
    assert len(kinds) >= 20, kinds


# One event of a kind that has no table of its own, with the least that it carries.
WITHOUT_A_TABLE = [
    ("retrofit", {"to": "R-449A"}), ("visit", {"why": "the gasket came"}),
    ("looked", {"part": "contactor", "state": "pitted"}),
]  # fmt: skip


@pytest.mark.parametrize(("kind", "data"), [pair for pair in WITHOUT_A_TABLE if pair[0] in KINDS])
def test_what_has_no_table_of_its_own_is_kept_as_it_came(user, call, kind, data):
    Happened.objects.create(call=call, by=user, kind=kind, data=data)
    kept = [event for event in case.read_call(case_text(call)).events if event.kind == kind]
    assert [dict(event.data) for event in kept] == [data]


def test_what_an_earlier_call_left_there_is_on_the_next_record_with_where_it_is_from(user, call, unit, at_work):
    place(user, call, "jumper", "K3 to K4")
    Call.objects.filter(pk=call.pk).update(closed_at=timezone.now(), opened_at=timezone.now() - timedelta(hours=3))
    later = Call.objects.create(shop=call.shop, unit=unit, number=900, opened_by=user)
    [event] = record_of(later).all_of("placed")
    assert event.data["since"] == str(call) and event.data["where"] == "K3 to K4"
    assert [doubt.of for doubt in tell(record_of(later)).leave if doubt.code == "left_there"] == ["jumper"]


def test_only_tables_with_rows_of_the_call_are_asked(user, call, django_assert_max_num_queries):
    record_reading(user, call, "suction_psig", "12")
    fresh = Call.objects.select_related("unit__shop", "shop").get(pk=call.pk)
    with django_assert_max_num_queries(6):
        rows = record_module.Rows(fresh)
        assert [len(getattr(rows, name)) for name in ROWS if getattr(rows, name)] == [1]


def test_rows_of_a_call_are_fetched_alone(call):
    record_reading(call.opened_by, call, "box_temp_f", "41")
    with CaptureQueriesContext(connection) as asked:
        record_of(Call.objects.get(pk=call.pk))
    rows = [one["sql"] for one in asked.captured_queries if 'FROM "logbook_reading"' in one["sql"] and "EXISTS" not in one["sql"]]
    assert len(rows) == 1 and "JOIN" not in rows[0]
