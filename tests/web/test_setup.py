"""The application as it is installed: its data folder, its secret, its database."""

import os
import re
import sqlite3
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[2]


def manage(data, *arguments, **environment):
    done = subprocess.run(
        [sys.executable, "manage.py", *arguments],
        cwd=ROOT,
        env={**os.environ, "KETTLE_DATA": str(data), **environment},
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr
    return done.stdout


def count(data):
    with sqlite3.connect(data / "kettle.sqlite3") as database:
        assert database.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
        return database.execute("SELECT count(*) FROM logbook_logentry").fetchone()[0]


def test_the_demo_is_made_anew_with_fresh_and_kept_at_a_second_start(tmp_path):
    manage(tmp_path, "migrate", "-v", "0")
    secret = tmp_path / "secret"
    assert secret.stat().st_mode & 0o077 == 0
    kept = secret.read_text()
    with sqlite3.connect(tmp_path / "kettle.sqlite3") as database:
        database.execute("INSERT INTO accounts_installation (key, made_at) VALUES ('of before', '2026-01-01')")
    manage(tmp_path, "demo", "--no-serve", "--fresh")
    assert count(tmp_path) > 100
    with sqlite3.connect(tmp_path / "kettle.sqlite3") as database:
        assert ("of before",) not in database.execute("SELECT key FROM accounts_installation").fetchall()
        database.execute("DELETE FROM logbook_logentry")
    manage(tmp_path, "demo", "--no-serve")
    assert count(tmp_path) == 0
    assert secret.read_text() == kept


def test_settings_come_from_the_environment(tmp_path):
    code = "from django.conf import settings as s; print(s.DEBUG, s.ALLOWED_HOSTS, s.SECRET_KEY, s.SESSION_COOKIE_SECURE)"
    out = manage(tmp_path, "shell", "-v", "0", "-c", code, KETTLE_DEBUG="1", KETTLE_HOSTS="a,b", KETTLE_SECRET="x" * 50, KETTLE_HTTPS="1")
    assert out.strip() == f"True ['a', 'b'] {'x' * 50} True"
    assert not (tmp_path / "secret").exists()


def test_nothing_names_a_place_to_download_from():
    foreign = re.compile(r"https?://(?!127\.0\.0\.1|www\.w3\.org)")
    own = ["requirements/*.txt", "requirements/hashed/*"]
    own += ["web/**/*.html", "web/**/*.svg", "web/static/css/*", "web/static/js/*", "tools/*.py", "ok"]
    for path in (path for pattern in own for path in ROOT.glob(pattern)):
        assert not foreign.search(path.read_text()), path
    pins = [line for file in ROOT.glob("requirements/*.txt") for line in file.read_text().splitlines()]
    assert all("==" in line for line in pins if line and not line.startswith(("#", "-r")))


def test_what_is_installed_by_its_hash_is_what_is_pinned():
    for name in ("app", "test"):
        plain = {line for line in [*_lines("app.txt"), *_lines(f"{name}.txt")] if not line.startswith("-r")}
        for path in (ROOT / "requirements/hashed").glob(f"{name}-*.txt"):
            rows = dict(line.split(" --hash=sha256:") for line in path.read_text().splitlines() if not line.startswith("#"))
            assert set(rows) == plain, f"{path}: python tools/hash_requirements.py"
            assert all(re.fullmatch("[0-9a-f]{64}", told) for told in rows.values())


def _lines(name):
    lines = (ROOT / "requirements" / name).read_text().splitlines()
    return [line.strip() for line in lines if line.strip() and not line.startswith("#")]


def test_everything_shipped_has_its_licence_and_so_has_the_application():
    assert "Redistribution and use" in (ROOT / "LICENSE").read_text()
    for line in (ROOT / "web/static/vendor/README.md").read_text().splitlines()[6:]:
        files = [ROOT / file.strip() for file in line.split("|")[4].split(",")]
        assert all(file.is_file() for file in files) and any(file.name.endswith(".LICENSE") for file in files), line


def test_every_shipped_file_is_listed_with_version_and_licence():
    listed = (ROOT / "web/static/vendor/README.md").read_text()
    for path in (ROOT / "web/static/vendor").rglob("*"):
        if path.is_file() and path.name != "README.md":
            assert str(path.relative_to(ROOT)) in listed, path
