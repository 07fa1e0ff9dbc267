"""Databases kept from every state that landed are brought over, and every page opens on what they hold."""

import gzip
import os
import sqlite3
import subprocess
import sys
from datetime import date
from pathlib import Path

from django.conf import settings

from tests.examples import some_of
from tools import landed

STATES = sorted((Path(__file__).parent / "states").glob("*.sqlite3.gz"))
# The first and the latest each time; of those between some, others each day.
TRIED = [STATES[0], *sorted(some_of(STATES[1:-1], 3, date.today().toordinal())), STATES[-1]]
# Brings kept databases over one after the other, opens every kind of page on what each holds, each call on a tenth of its stops in turn
# (of all but the latest state on a fortieth, of two in three on none) and the last one on all (of those states on a third, another
# each), enters a reading; says how many pages of which. The first named is made new, at the end. In a process of its own.
VISIT = """
import gc, sys
import django; django.setup()
# Models of past states refer to each other all round; looking for the dead among them takes a seventh of the time.
gc.disable()
from django.conf import settings; settings.ALLOWED_HOSTS = ["testserver"]
from django.contrib.auth import get_user_model
from django.contrib.contenttypes.models import ContentType
from django.core.management import call_command
from django.db import connection
from django.db.migrations import Migration
from django.test import Client
from web.logbook.models import Call, Unit

# What the models were before and after each operation is worked out once for all databases: it takes longer than changing their tables.
built = {}
OFTEN, SELDOM, BASE = 10, 40, 9

def apply(migration, state, editor, collect_sql=False):
    key = migration.app_label, migration.name
    if key not in built:
        steps = []
        for operation in migration.operations:
            before = state.clone()
            operation.state_forwards(migration.app_label, state)
            steps.append((operation, before, state.clone()))
        built[key] = steps, state
    steps, after = built[key]
    for operation, before, then in steps:
        operation.database_forwards(migration.app_label, editor, before, then)
    return after.clone()

Migration.apply = apply

def visit(every, place):
    client = Client(raise_request_exception=True); client.force_login(get_user_model().objects.get(username="wren"))
    paths = ["/", "/me/", "/refrigerant/", "/refrigerant/sites/1/", "/units/new/", "/calls/new/", "/ladder/", "/record/"]
    pages = ("", "plate/", "bands/", "settings/", "trends/")
    paths += [f"/units/{u.pk}/{page}" for n, u in enumerate(Unit.objects.all()) for k, page in enumerate(pages) if (n + k) % 3 == 0]
    stops = ["arrive", "read", "melt", "programs", "judge", "correct", "hand-over", "sets", "probes", "watch", "report", "explanation",
             "parts", "parts/coil", "taken", "power", "controls", "valve", "charge", "refrigerant", "prove", "quote", "customer"]
    calls = list(Call.objects.all())
    whole = 1 if every == OFTEN else 3
    turn = lambda n, nth: (nth + place) % whole == 0 if n == len(calls) - 1 else (n + nth) % every == 0
    paths += [f"/calls/{c.number}/{stop}/" for n, c in enumerate(calls) for nth, stop in enumerate(stops) if turn(n, nth)]
    paths += [f"/calls/{c.number}/case.json" for c in calls[::3]]
    # Between the first and the latest, two in three are only looked at from outside.
    visited = paths[:BASE] if every == SELDOM and place % 3 else paths
    for path in visited:
        status = client.get(path).status_code
        assert status in (200, 302), (path, status)
    call = Call.objects.filter(closed_at=None).first()
    assert client.post(f"/calls/{call.number}/entry/box_temp_f/", {"box_temp_f": "4", "stop": "read"}).status_code == 200
    assert call.readings.filter(key="box_temp_f", value=4.0).exists()
    return len(visited)

for place, kept in enumerate(sys.argv[2:]):
    connection.close()
    connection.settings_dict["NAME"] = kept
    ContentType.objects.clear_cache()
    call_command("migrate", verbosity=0)
    print(kept, visit(OFTEN if place == len(sys.argv) - 3 else SELDOM, place), flush=True)

connection.close()
connection.settings_dict["NAME"] = sys.argv[1]
# It goes another way: what stood after a migration on the way of the others stands on none of its own.
built.clear()
call_command("migrate", verbosity=0)
"""


def shape(path):
    """What the tables of a database are: columns, what they refer to, and what is kept once or found by."""
    with sqlite3.connect(path) as opened:
        asked = lambda pragma, of: opened.execute(f"pragma {pragma}('{of}')").fetchall()  # noqa: E731
        tables = [name for (name,) in opened.execute("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'")]
        return {
            name: (
                sorted(row[1:] for row in asked("table_info", name)),
                sorted(row[2:] for row in asked("foreign_key_list", name)),
                sorted((row[2:], [one[2] for one in asked("index_info", row[1])]) for row in asked("index_list", name)),
            )
            for name in tables
        }


def readings(path):
    with sqlite3.connect(path) as opened:
        return opened.execute("select count(*) from logbook_reading").fetchone()[0]


def test_databases_of_every_earlier_state_are_brought_over_and_every_page_opens(tmp_path):
    kept = {}
    for state in TRIED:
        path = tmp_path / state.name.removesuffix(".gz")
        path.write_bytes(gzip.decompress(state.read_bytes()))
        kept[str(path)] = readings(path)
    environment = {**os.environ, "KETTLE_DATA": str(tmp_path), "DJANGO_SETTINGS_MODULE": "web.settings"}
    new = tmp_path / "new.sqlite3"
    visited = subprocess.run(
        [sys.executable, "-c", VISIT, str(new), *kept], cwd=settings.ROOT, env=environment, capture_output=True, text=True
    )
    assert visited.returncode == 0, (visited.stdout[-300:], visited.stderr[-800:])
    pages = dict(line.split() for line in visited.stdout.splitlines())
    assert list(pages) == list(kept) and min(map(int, pages.values())) >= 9 and sum(map(int, pages.values())) > 60 * len(TRIED) / 3
    made_at_once = shape(new)
    for path in kept:
        assert shape(path) == made_at_once, "a database made at once is one that came all the way"
    for path, before in kept.items():
        assert readings(path) == before + 1 > 50, "all there were, and the one entered"
        with sqlite3.connect(path) as opened:
            assert opened.execute("pragma foreign_key_check").fetchall() == [], path


def test_a_landed_migration_is_never_edited():
    now = landed.migrations()
    assert landed.main() == 0
    some = next(iter(now))
    assert landed.complaints(now | {some: "edited"}, now) == [f"{some} has landed and was edited: write a new migration instead"]
    assert landed.complaints({path: told for path, told in now.items() if path != some}, now) == [f"{some} has landed and is gone"]
    assert "is not noted" in landed.complaints(now | {"web/logbook/migrations/0999_new.py": "x"}, now)[0]
