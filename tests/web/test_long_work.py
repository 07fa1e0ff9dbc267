"""The queue as it runs in the server: asked for in one place, worked off in another, and begun again after a restart."""

import time

import pytest

from web import long_work
from web.benches.defrost.actions.plan_defrosts import ask_plan
from web.benches.trends import reading
from web.logbook.models import TrendLog


@pytest.fixture
def kept(monkeypatch, tmp_path):
    """The queue in a file, as in use."""
    monkeypatch.setattr(long_work.queue, "immediate", False)
    monkeypatch.setattr(long_work.queue, "storage", long_work.queue.create_storage())
    monkeypatch.setattr(long_work.queue.storage, "filename", str(tmp_path / "queue.sqlite3"))
    long_work.queue.storage.initialize_schema()
    return long_work.queue


def until(row, state):
    """Wait for a row to come to a state, a minute at the most."""
    for _ in range(600):
        row.refresh_from_db()
        if row.state == state:
            return True
        time.sleep(0.1)
    return False


@pytest.mark.django_db(transaction=True)
def test_what_a_restart_cut_off_is_begun_again_and_worked_out(user, call, kept):
    plan = ask_plan(user, call, {})
    log = TrendLog.objects.create(
        shop=call.shop, unit=call.unit, by=user, name="case.csv", state="reading", size=1, layout={"columns": [], "time": []}
    )
    stopped = TrendLog.objects.create(shop=call.shop, unit=call.unit, by=user, name="old.csv", state="stopped", size=1)
    reading.work(stopped.pk)
    long_work.begin_again()
    assert sorted(task.args for task in kept.pending()) == sorted([(plan.pk,), (log.pk,)]), "each once, and nothing else"
    end = long_work.begin()
    try:
        assert until(plan, "done") and plan.result["choices"] and until(log, "failed")
    finally:
        end()
    stopped.refresh_from_db()
    assert stopped.state == "stopped"
