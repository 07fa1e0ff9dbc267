"""An installation that is not the demo: started, watched, backed up while it runs, restored, killed; behind TLS; and clear refusals."""

import gzip
import hashlib
import io
import json
import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import time
import urllib.error
import urllib.request
import zipfile
from datetime import UTC, datetime, timedelta
from http.cookiejar import CookieJar
from pathlib import Path
from types import SimpleNamespace
from urllib.parse import urlencode

import pytest
from django.conf import settings
from django.core.management import call_command
from django.core.management.base import CommandError

from benchmarks.load import multipart
from web.accounts.models import Shop
from web.logbook import kept_files
from web.running import backups
from web.running.serving import check_environment

PASSWORD = "a-long-pass-phrase"


def environment(data, **more):
    clean = {name: value for name, value in os.environ.items() if not name.startswith("KETTLE_")}
    return {**clean, "KETTLE_DATA": str(data), "DJANGO_SETTINGS_MODULE": "web.settings", **more}


def manage(data, *command, given="", **more):
    return subprocess.run(
        [sys.executable, "manage.py", *command],
        cwd=settings.ROOT,
        env=environment(data, **more),
        capture_output=True,
        text=True,
        input=given,
    )


class Server:
    """A server in a process of its own on a folder of data."""

    def __init__(self, data, *command, **more):
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        command = [sys.executable, "manage.py", *(command or ("serve",)), "--port", str(self.port)]
        self.process = subprocess.Popen(
            command, cwd=settings.ROOT, env=environment(data, **more), stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL
        )
        self.browser = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.until_up(**{"X-Forwarded-Proto": "https"} if more.get("KETTLE_HTTPS") else {})

    def get(self, path, **headers):
        return self.browser.open(urllib.request.Request(f"http://127.0.0.1:{self.port}{path}", headers=headers), timeout=20)

    def until_up(self, **headers):
        while self.process.poll() is None:
            try:
                return self.get("/health", **headers)
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the server ended")

    def _cookies(self):
        return next(handler.cookiejar for handler in self.browser.handlers if isinstance(handler, urllib.request.HTTPCookieProcessor))

    def token(self):
        return next(cookie.value for cookie in self._cookies() if cookie.name == "csrftoken")

    def log_in(self, name, password=PASSWORD):
        self.get("/login/").read()
        data = urlencode({"username": name, "password": password, "csrfmiddlewaretoken": self.token()}).encode()
        return self.browser.open(f"http://127.0.0.1:{self.port}/login/", data, timeout=20)

    def enter(self, call, key, value):
        data = urlencode({key: value, "stop": "read", "csrfmiddlewaretoken": self.token()}).encode()
        return self.browser.open(f"http://127.0.0.1:{self.port}/calls/{call}/entry/{key}/", data, timeout=20)

    def post(self, path, **typed):
        data = urlencode({**typed, "csrfmiddlewaretoken": self.token()}).encode()
        return self.browser.open(f"http://127.0.0.1:{self.port}{path}", data, timeout=20)

    def send(self, path, name, content):
        asked = urllib.request.Request(
            f"http://127.0.0.1:{self.port}{path}", *multipart({"csrfmiddlewaretoken": self.token()}, name, content)
        )
        return self.browser.open(asked, timeout=20)

    def end(self, how=signal.SIGTERM):
        self.process.send_signal(how)
        self.process.wait()


@pytest.fixture(scope="session")
def empty_once(tmp_path_factory):
    """A folder of data with all its tables and nothing in them: making them takes longest of all."""
    data = tmp_path_factory.mktemp("empty")
    assert manage(data, "migrate", "-v", "0").returncode == 0
    return data


@pytest.fixture
def empty(empty_once, tmp_path):
    """A folder of data of its own, without a shop."""
    return Path(shutil.copytree(empty_once, tmp_path / "data"))


@pytest.fixture(scope="session")
def made_once(tmp_path_factory):
    """A folder of data with a shop and its owner, made as one makes it; each test takes a copy."""
    data = tmp_path_factory.mktemp("installed")
    first = ("first", "--shop", "Alder Cold", "--login", "ivo", "--name", "Ivo Brandt", "--time-zone", "America/Denver")
    made = manage(data, *first, given=f"{PASSWORD}\n")
    assert made.returncode == 0, made.stderr[-500:]
    return data


@pytest.fixture
def installed(made_once, tmp_path):
    """A folder of data of its own, with a shop and its owner."""
    return Path(shutil.copytree(made_once, tmp_path / "data"))


@pytest.fixture
def running(installed):
    server = Server(installed)
    yield server
    server.end()


def quick_look(server):
    """Open a call as a technician would; returns its number."""
    data = urlencode({"kind": "walk_in_freezer", "refrigerant": "R-404A", "csrfmiddlewaretoken": server.token()}).encode()
    return server.browser.open(f"http://127.0.0.1:{server.port}/quick-look/", data, timeout=20).url.split("/calls/")[1].split("/")[0]


def ids(data, query):
    with sqlite3.connect(data / "kettle.sqlite3") as opened:
        return [one for (one,) in opened.execute(query).fetchall()]


def readings(data):
    with sqlite3.connect(data / "kettle.sqlite3") as opened:
        return opened.execute("SELECT value FROM logbook_reading WHERE key = 'box_temp_f'").fetchall()


def test_an_installation_of_its_own_is_served_backed_up_while_it_runs_and_restored(installed, running, tmp_path_factory):
    told = json.loads(running.get("/health").read())
    assert told["status"] == "ok" and told["version"]
    assert "Board" in running.log_in("ivo").read().decode()
    call = quick_look(running)
    for value in range(10):
        running.enter(call, "box_temp_f", value)
    made = manage(installed, "backup")
    assert made.returncode == 0 and "proved by restoring it" in made.stdout, made.stderr[-400:]
    archive = next((installed / "backups").glob("*.zip"))
    elsewhere = tmp_path_factory.mktemp("elsewhere")
    restored = manage(elsewhere, "restore", str(archive))
    assert restored.returncode == 0, restored.stderr[-400:]
    assert len(readings(elsewhere)) == len(readings(installed)) == 10
    with sqlite3.connect(elsewhere / "kettle.sqlite3") as one, sqlite3.connect(installed / "kettle.sqlite3") as other:
        keys = [opened.execute("SELECT key FROM accounts_installation").fetchone() for opened in (one, other)]
    assert keys[0] != keys[1], "drafts of one installation are not taken for the other's"
    assert "stop it first" in manage(installed, "restore", str(archive), "--replace").stderr
    assert "already" in manage(elsewhere, "restore", str(archive)).stderr
    for path in installed.iterdir():
        assert path.stat().st_mode & 0o077 == 0, path


def test_a_second_server_and_a_fresh_demo_are_refused_while_one_runs(installed, running):
    assert "stop it first" in manage(installed, "demo", "--fresh", "--no-serve").stderr
    assert "stop it first" in manage(installed, "serve", "--port", "9").stderr
    assert json.loads(running.get("/health").read())["status"] == "ok"


def test_what_was_acknowledged_is_there_after_a_kill(installed):
    _kills(installed, 2)


@pytest.mark.attack
def test_two_hundred_kills(installed):
    _kills(installed, 200)


# What is written, and where it has to be afterwards: readings, lines of the ledger, lines of a quote, logs.
WRITTEN = {
    "logbook_reading": "record_reading", "logbook_gasmove": "gas_move", "logbook_quoteline": "keep_line", "logbook_trendlog": "take_in_log",
}  # fmt: skip


def _kills(installed, times):
    acknowledged, part = dict.fromkeys(WRITTEN, 0), {"option": "good", "kind": "part", "quantity": "1", "price": "40"}
    for turn in range(times):
        server = Server(installed)
        server.log_in("ivo")
        call = quick_look(server)
        if not turn:
            server.post("/refrigerant/cylinder/", number="404-1", refrigerant="R-404A").read()
        # A unit holds so many logs and no more: each turn has its own.
        server.post("/units/new/", name=f"Hollow {turn}", kind="walk_in_cooler", refrigerant="R-404A", site_name="Hollow").read()
        [unit] = ids(installed, f"SELECT id FROM logbook_unit WHERE name = 'Hollow {turn}'")
        for value in range(3 + turn % 3):
            server.enter(call, "box_temp_f", value).read()
            acknowledged["logbook_reading"] += 1
            server.post("/refrigerant/line/", kind="bought", cylinder="404-1", amount="10", reason=f"{turn} {value}").read()
            acknowledged["logbook_gasmove"] += 1
            server.post(f"/calls/{call}/quote/line/", what=f"Part {value}", **part).read()
            acknowledged["logbook_quoteline"] += 1
            log = b"time,box F\n" + b"".join(b"2026-01-01 %02d:%02d,%d\n" % (turn % 24, n, n) for n in range(60))
            server.send(f"/units/{unit}/trends/add/", "log", log).read()
            acknowledged["logbook_trendlog"] += 1
        server.end(signal.SIGKILL)
    with sqlite3.connect(installed / "kettle.sqlite3") as opened:
        assert opened.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        kept = {table: opened.execute(f"SELECT count(*) FROM {table}").fetchone()[0] for table in WRITTEN}
        told = dict(opened.execute("SELECT action, count(*) FROM logbook_logentry GROUP BY action").fetchall())
        files = [name for (name,) in opened.execute("SELECT file FROM logbook_trendlog").fetchall()]
    assert kept == acknowledged == {table: told[action] for table, action in WRITTEN.items()}
    assert all((installed / "media" / name).stat().st_size > 1000 for name in files), "a log that was taken has its file"


def test_behind_a_tls_proxy_nothing_is_redirected_for_ever(installed):
    server = Server(installed, KETTLE_HTTPS="1", KETTLE_HOSTS="kettle.example,127.0.0.1")
    try:
        answer = server.get("/login/", **{"X-Forwarded-Proto": "https", "X-Forwarded-For": "203.0.113.9"})
        assert answer.status == 200 and answer.url.endswith("/login/")
        assert "Secure" in answer.headers["Set-Cookie"]
    finally:
        server.end()


def test_an_idle_crowd_shuts_nobody_out(installed, running):
    crowd = [socket.create_connection(("127.0.0.1", running.port)) for _ in range(300)]
    for idle in crowd[:150]:
        idle.sendall(b"POST /login/ HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 50\r\n\r\nhalf")
    assert json.loads(running.get("/health").read())["status"] == "ok"
    for idle in crowd:
        idle.close()


def test_nothing_starts_on_data_it_does_not_fit(installed):
    with sqlite3.connect(installed / "kettle.sqlite3") as opened:
        opened.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('logbook', '0999_of_next_year', '2031-01-01')")
    refused = manage(installed, "serve", "--port", "9")
    assert refused.returncode != 0 and "does not know logbook.0999_of_next_year" in refused.stderr
    assert "Traceback" not in refused.stderr


def test_a_first_start_without_a_terminal_says_how(empty):
    refused = manage(empty, "serve", "--port", "9")
    assert "manage.py first" in refused.stderr and "Traceback" not in refused.stderr


@pytest.mark.parametrize(("more", "words"), [(("--login", "x y"), "Log-in"), (("--time-zone", "Mars/North"), "Time zone")])
def test_a_wrong_first_shop_is_said_and_nothing_is_stored(db, monkeypatch, more, words):
    # The tables of a test are there already.
    monkeypatch.setattr("web.running.management.commands.first.make_ready", lambda: None)
    monkeypatch.setattr("sys.stdin", io.StringIO(f"{PASSWORD}\n"))
    asked = {"--shop": "Alder Cold", "--login": "ivo", "--name": "Ivo Brandt", **dict([more])}
    with pytest.raises(CommandError, match=words):
        call_command("first", *[part for pair in asked.items() for part in pair])
    assert not Shop.objects.exists()


def test_people_are_looked_after_by_a_command(db, capsys):
    shop = Shop.objects.create(name="Alder Cold")
    call_command("person", "add", "runa", "--name", "Runa Vik")
    password = capsys.readouterr().out.strip().removeprefix("runa logs in with ")
    runa = shop.members.get().user
    assert runa.username == "runa" and runa.check_password(password)
    with pytest.raises(CommandError, match="taken"):
        call_command("person", "add", "runa", "--name", "Runa Vik")
    with pytest.raises(CommandError, match="Nobody"):
        call_command("person", "close", "nemo")
    call_command("person", "close", "runa")
    runa.refresh_from_db()
    assert not runa.is_active


def test_settings_that_are_not_read_any_more_are_said_at_start(monkeypatch):
    monkeypatch.setenv("KETTLE_PROBES", "192.168.8.20")
    with pytest.raises(CommandError, match="KETTLE_PROBES is not read any more"):
        check_environment()


@pytest.fixture
def kept(tmp_path, settings):
    settings.DATA = tmp_path
    settings.MEDIA_ROOT = tmp_path / "media"
    (tmp_path / "media" / "photos").mkdir(parents=True)
    (tmp_path / "media" / "photos" / "a.jpg").write_bytes(b"picture")
    database = tmp_path / "kettle.sqlite3"
    with sqlite3.connect(database) as opened:
        opened.execute("CREATE TABLE logbook_photo (image TEXT, thumbnail TEXT)")
        opened.execute("INSERT INTO logbook_photo VALUES ('photos/a.jpg', 'photos/a.jpg')")
        opened.execute("CREATE TABLE accounts_installation (key TEXT)")
        opened.execute("CREATE TABLE django_migrations (app TEXT, name TEXT)")
    settings.DATABASES["default"]["NAME"], before = database, settings.DATABASES["default"]["NAME"]
    yield tmp_path
    settings.DATABASES["default"]["NAME"] = before


def test_a_backup_holds_the_photos_and_a_broken_one_is_refused(kept, tmp_path_factory):
    made = backups.make()
    with zipfile.ZipFile(made) as archive:
        assert archive.read("media/photos/a.jpg") == b"picture"
        files = {name: archive.read(name) for name in archive.namelist()}
    broken = kept / "broken.zip"
    with zipfile.ZipFile(broken, "w") as archive:
        for name, data in files.items():
            archive.writestr(name, data if not name.endswith("a.jpg") else b"pictura")
    with pytest.raises(backups.BackupError, match="a.jpg is not what was kept"):
        backups.unpack(broken, tmp_path_factory.mktemp("empty"))
    (kept / "not.zip").write_bytes(b"nothing")
    with pytest.raises(backups.BackupError, match="is no backup"):
        backups.unpack(kept / "not.zip", tmp_path_factory.mktemp("empty"))


def test_every_field_that_names_a_file_is_in_a_backup(kept):
    for table, column in kept_files.columns():
        with sqlite3.connect(kept / "kettle.sqlite3") as opened:
            if table != "logbook_photo":
                opened.execute(f"CREATE TABLE IF NOT EXISTS {table} (id INTEGER)")
                opened.execute(f"ALTER TABLE {table} ADD COLUMN {column} TEXT")
            opened.execute(f"INSERT INTO {table} ({column}) VALUES ('photos/{table}-{column}')")
        (kept / "media" / "photos" / f"{table}-{column}").write_bytes(column.encode())
    with zipfile.ZipFile(backups.make()) as archive:
        held = set(archive.namelist())
    assert len(kept_files.columns()) >= 5
    assert {f"media/photos/{table}-{column}" for table, column in kept_files.columns()} <= held


MALFORMED = {
    "no manifest": {"kettle.sqlite3": b""},
    "manifest is no JSON": {"manifest.json": b"{"},
    "manifest is a list": {"manifest.json": b"[]"},
    "files is a list": {"manifest.json": b'{"at": "now", "files": ["a"]}'},
    "no database": {"manifest.json": b'{"at": "now", "files": {}}'},
    "deep": {"manifest.json": b"[" * 100_000},
    "a file of somewhere else": {"manifest.json": b'{"at": "now", "files": {"kettle.sqlite3": "0", "../a": "0"}}', "kettle.sqlite3": b""},
    "a hash that is none": {"manifest.json": b'{"at": "now", "files": {"kettle.sqlite3": 7}}', "kettle.sqlite3": b"x"},
    "no SQLite": {"manifest.json": json.dumps({"at": "now", "files": {"kettle.sqlite3": hashlib.sha256(b"x" * 4096).hexdigest()}}).encode(),
                  "kettle.sqlite3": b"x" * 4096},
}  # fmt: skip


@pytest.mark.parametrize("how", MALFORMED)
def test_a_malformed_backup_is_refused_in_one_line_and_nothing_is_moved(kept, how):
    with zipfile.ZipFile(kept / "odd.zip", "w") as archive:
        for name, data in MALFORMED[how].items():
            archive.writestr(name, data)
    with pytest.raises(backups.BackupError) as said:
        backups.restore(kept / "odd.zip", replace=True)
    assert len(str(said.value)) < 160
    assert (kept / "media" / "photos" / "a.jpg").read_bytes() == b"picture" and not list(kept.glob("before-restore-*"))


def test_a_backup_of_a_newer_version_is_refused_before_anything_is_put_in_its_place(kept, monkeypatch):
    with sqlite3.connect(kept / "kettle.sqlite3") as opened:
        opened.execute("INSERT INTO django_migrations VALUES ('logbook', '9999_later')")
    monkeypatch.setattr(backups, "_require_known", lambda database: None)
    made = backups.make()
    monkeypatch.undo()
    monkeypatch.setattr(backups.schema, "MigrationLoader", lambda connection: SimpleNamespace(
        disk_migrations={("logbook", "0001_initial"): None}, graph=SimpleNamespace(nodes={("logbook", "0001_initial")})))  # fmt: skip
    with pytest.raises(backups.BackupError, match="newer version.*logbook.9999_later"):
        backups.restore(made, replace=True)
    assert not list(kept.glob("before-restore-*"))


def test_old_data_is_kept_before_it_is_migrated_and_can_be_had_again(tmp_path):
    old = settings.ROOT / "tests" / "web" / "states" / "0026-leaving.sqlite3.gz"
    (tmp_path / "kettle.sqlite3").write_bytes(gzip.decompress(old.read_bytes()))
    assert manage(tmp_path, "demo", "--no-serve").returncode == 0
    [kept] = (tmp_path / "backups").glob("*-before-migration.zip")
    restored = manage(tmp_path, "restore", str(kept), "--replace")
    assert restored.returncode == 0, restored.stderr[-400:]
    with sqlite3.connect(tmp_path / "kettle.sqlite3") as opened:
        assert opened.execute("SELECT count(*) FROM logbook_reading").fetchone()[0] > 50
    assert list(tmp_path.glob("before-restore-*/kettle.sqlite3"))


def test_backups_are_kept_by_age(kept):
    now = datetime(2026, 11, 25, 12, tzinfo=UTC)
    for hours in range(0, 24 * 500, 6):
        (backups.folder() / f"{(now - timedelta(hours=hours)).strftime(backups.STAMP)}-by-hand.zip").touch()
    backups.thin_out(now)
    ages = sorted(
        (now - datetime.strptime(path.name[:15], backups.STAMP).replace(tzinfo=UTC)).days for path in backups.folder().glob("*.zip")
    )
    assert 15 <= len(ages) <= backups.LAST + backups.DAYS + backups.WEEKS + backups.MONTHS + 4
    assert ages[0] == 0 and 330 <= ages[-1] <= 31 * backups.MONTHS
    assert Path(backups.folder()).stat().st_mode & 0o077 == 0
