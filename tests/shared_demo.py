"""The demo's data for tests: loaded once for all processes of a run, later copied with all its times moved up to now."""

import os
import sqlite3
import time
from datetime import UTC, datetime

from django.apps import apps
from django.db import connection, models
from django.utils import timezone

from web.demo import load as demo
from web.logbook.calls.headlines import headlines
from web.logbook.models import Call

# The demo as it was first loaded, and when.
_kept = {}
PATIENCE_S = 300.0


def bring(factory):
    """Put the demo into the connected database; `factory` makes the folders of this run."""
    connection.ensure_connection()
    if not _kept:
        shared = _shared(factory)
        if _first(shared):
            _load(shared)
            return
        _wait_for(shared)
        _kept["at"] = datetime.fromtimestamp(shared.stat().st_mtime, UTC)
        _kept["data"] = sqlite3.connect(shared)
    _copy()


def _load(shared):
    demo.load()
    # What the Board says is judged once, not at each visit of each test.
    headlines(Call.objects.filter(closed_at=None))
    half, moment = shared.with_suffix(".half"), timezone.now()
    with sqlite3.connect(half) as data:
        connection.connection.backup(data)
    os.utime(half, (moment.timestamp(), moment.timestamp()))
    half.rename(shared)
    _kept["at"], _kept["data"] = moment, sqlite3.connect(shared)


def _copy():
    _kept["data"].backup(connection.connection)
    since = timezone.now() - _kept["at"]
    for model in apps.get_models():
        for field in model._meta.fields:
            if isinstance(field, models.DateTimeField):
                model._base_manager.filter(**{f"{field.name}__isnull": False}).update(**{field.name: models.F(field.name) + since})


def _shared(factory):
    """Where all processes of a run keep the demo: beside their own folders; a lone process has it to itself."""
    own = factory.getbasetemp()
    return (own.parent if "PYTEST_XDIST_WORKER" in os.environ else own) / "demo.sqlite3"


def _first(shared):
    """Whether this process is the first to come, and so the one that loads."""
    try:
        shared.with_suffix(".lock").touch(exist_ok=False)
    except FileExistsError:
        return False
    return True


def _wait_for(shared):
    until = time.monotonic() + PATIENCE_S
    while not shared.exists():
        if time.monotonic() > until:
            raise TimeoutError("the process that loads the demo did not come to its end")
        time.sleep(0.2)
