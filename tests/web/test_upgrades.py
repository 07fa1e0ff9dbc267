"""Databases kept from every state that landed are brought over, and every page opens on what they hold."""

import gzip
import os
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest
from django.conf import settings

from tools import landed

STATES = sorted((Path(__file__).parent / "states").glob("*.sqlite3.gz"))
# Brings a kept database over, opens every kind of page on what it holds, each call on an eighth of its stops in turn and the last one
# on all, and enters a reading; run in a process of its own.
VISIT = """
import django; django.setup()
from django.core.management import call_command; call_command("migrate", verbosity=0)
from django.conf import settings; settings.ALLOWED_HOSTS = ["testserver"]
from django.contrib.auth import get_user_model
from django.test import Client
from web.logbook.models import Call, Unit
client = Client(raise_request_exception=True); client.force_login(get_user_model().objects.get(username="wren"))
paths = ["/", "/me/", "/units/new/", "/calls/new/", "/ladder/"]
paths += [f"/units/{u.pk}/{page}" for u in Unit.objects.all() for page in ("", "plate/", "bands/")]
stops = ["arrive", "read", "melt", "programs", "judge", "correct", "hand-over", "sets", "probes", "watch", "report", "explanation",
         "parts", "parts/coil", "taken", "power"]
calls = list(Call.objects.all())
turn = lambda n, place: n == len(calls) - 1 or (n + place) % 8 == 0
paths += [f"/calls/{c.number}/{stop}/" for n, c in enumerate(calls) for place, stop in enumerate(stops) if turn(n, place)]
paths += [f"/calls/{c.number}/case.json" for c in calls]
for path in paths:
    status = client.get(path).status_code
    assert status in (200, 302), (path, status)
call = Call.objects.filter(closed_at=None).first()
assert client.post(f"/calls/{call.number}/entry/box_temp_f/", {"box_temp_f": "4", "stop": "read"}).status_code == 200
assert call.readings.filter(key="box_temp_f", value=4.0).exists()
print(len(paths))
"""


def run(data, *command):
    environment = {**os.environ, "KETTLE_DATA": str(data), "DJANGO_SETTINGS_MODULE": "web.settings"}
    return subprocess.run([sys.executable, *command], cwd=settings.ROOT, env=environment, capture_output=True, text=True)


@pytest.mark.parametrize("state", STATES, ids=lambda path: path.name.split(".")[0])
def test_a_database_of_an_earlier_state_is_brought_over_and_every_page_opens(state, tmp_path):
    kept = tmp_path / "kettle.sqlite3"
    kept.write_bytes(gzip.decompress(state.read_bytes()))
    before = sqlite3.connect(kept).execute("select count(*) from logbook_reading").fetchone()[0]
    visited = run(tmp_path, "-c", VISIT)
    assert visited.returncode == 0, visited.stderr[-800:]
    assert sqlite3.connect(kept).execute("select count(*) from logbook_reading").fetchone()[0] == before + 1 > 50, (
        "the one entered, and all there were"
    )
    assert sqlite3.connect(kept).execute("pragma foreign_key_check").fetchall() == []
    assert int(visited.stdout) > 25


def test_a_landed_migration_is_never_edited():
    now = landed.migrations()
    assert landed.main() == 0
    some = next(iter(now))
    assert landed.complaints(now | {some: "edited"}, now) == [f"{some} has landed and was edited: write a new migration instead"]
    assert landed.complaints({path: told for path, told in now.items() if path != some}, now) == [f"{some} has landed and is gone"]
    assert "is not noted" in landed.complaints(now | {"web/logbook/migrations/0999_new.py": "x"}, now)[0]
