"""Backups: the database as it stood at one moment, with every file it names, proved by being restored, kept by age."""

import hashlib
import json
import os
import shutil
import sqlite3
import tempfile
import uuid
import zipfile
import zlib
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path, PurePosixPath

from django.conf import settings

import kettle
from web.logbook import kept_files
from web.running import schema

DATABASE, MANIFEST = "kettle.sqlite3", "manifest.json"
STAMP = "%Y%m%d-%H%M%S"
# Of each day for a week, of each week for a month, of each month for a year; the last few whatever their age.
LAST, DAYS, WEEKS, MONTHS = 5, 7, 5, 12


# What a file that is no backup, or a broken one, makes of being read.
BROKEN = (zipfile.BadZipFile, zlib.error, sqlite3.Error, KeyError, ValueError, TypeError, OSError, EOFError, RuntimeError, RecursionError)


class BackupError(Exception):
    """Why there is no backup, or why it cannot be restored."""


def folder():
    """Where backups are kept."""
    found = settings.DATA / "backups"
    found.mkdir(mode=0o700, exist_ok=True)
    return found


def make(why="by hand", now=None):
    """Make a backup of what stands now, also while the server runs, prove it by restoring it, and return its path."""
    now = now or datetime.now(UTC)
    made = folder() / f"{now.strftime(STAMP)}-{why.replace(' ', '-')}.zip"
    with tempfile.TemporaryDirectory(dir=folder()) as scratch:
        copy = Path(scratch) / DATABASE
        _copy_database(Path(settings.DATABASES["default"]["NAME"]), copy)
        files = [path for path in _files(copy) if (settings.MEDIA_ROOT / path).is_file()]
        hashes = {DATABASE: _hash(copy)} | {f"media/{path}": _hash(settings.MEDIA_ROOT / path) for path in files}
        told = {"version": kettle.__version__, "at": now.isoformat(), "why": why, "files": hashes}
        draft = Path(scratch) / "backup.zip"
        with zipfile.ZipFile(draft, "w", zipfile.ZIP_STORED) as archive:
            archive.writestr(MANIFEST, json.dumps(told, indent=1))
            archive.write(copy, DATABASE, zipfile.ZIP_DEFLATED)
            for path in files:
                archive.write(settings.MEDIA_ROOT / path, f"media/{path}")
        with tempfile.TemporaryDirectory(dir=scratch) as proof:
            unpack(draft, Path(proof))
        os.chmod(draft, 0o600)
        os.replace(draft, made)
    thin_out(now)
    return made


def unpack(archive, target):
    """Unpack a backup into an empty folder and hold every file against its manifest; BackupError where it does not stand."""
    try:
        with zipfile.ZipFile(archive) as opened:
            told = _told(opened)
            for name, told_hash in told["files"].items():
                path = target / name
                path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
                with opened.open(name) as source, open(path, "wb", opener=_own) as out:
                    shutil.copyfileobj(source, out)
                if _hash(path) != told_hash:
                    raise BackupError(f"The backup is broken: {name} is not what was kept")
        with closing(sqlite3.connect(target / DATABASE)) as database:
            if database.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                raise BackupError("The backup is broken: its database does not hold together")
            _require_known(database)
    except BROKEN as error:
        raise BackupError(f"{Path(archive).name} is no backup, or is broken ({type(error).__name__})") from None
    return told


def _told(opened):
    """What a backup says it holds; BackupError where that cannot be restored."""
    told = json.loads(opened.read(MANIFEST))
    files = told.get("files") if isinstance(told, dict) else None
    if not isinstance(files, dict) or not isinstance(told.get("at"), str):
        raise BackupError("The backup is broken: it does not say what it holds")
    if DATABASE not in files:
        raise BackupError("The backup holds no database")
    for name in files:
        parts = PurePosixPath(name).parts
        if name != DATABASE and (len(parts) != 3 or parts[0] != "media" or ".." in parts):
            raise BackupError(f"The backup names a file outside its folder: {name[:80]}")
    size, room = sum(opened.getinfo(name).file_size for name in files), shutil.disk_usage(settings.DATA).free
    if size > room:
        raise BackupError(f"The backup holds {size / 1e6:,.0f} MB, and {room / 1e6:,.0f} MB are free")
    return told


def _require_known(database):
    """Refuse a database that a newer version wrote, before anything is put in the place of what stands."""
    if not database.execute("SELECT 1 FROM sqlite_master WHERE name = 'django_migrations'").fetchone():
        raise BackupError("The backup's database is none of Orange Kettle")
    strange = schema.unknown_of(set(database.execute("SELECT app, name FROM django_migrations")))
    if strange:
        raise BackupError(f"The backup is of a newer version: this one does not know {strange[0]}. Nothing was changed")


def restore(archive, replace=False):
    """Put a backup in the place of the data. What stands there is moved aside, never thrown away; BackupError where it is in the way."""
    database = Path(settings.DATABASES["default"]["NAME"])
    standing = [path for path in (database, *(Path(f"{database}{end}") for end in ("-wal", "-shm")), settings.MEDIA_ROOT) if path.exists()]
    if standing and not replace:
        raise BackupError(f"There is data in {settings.DATA} already; --replace moves it aside")
    with tempfile.TemporaryDirectory(dir=settings.DATA) as scratch:
        told = unpack(archive, Path(scratch))
        # What browsers kept for the calls of before must not be taken for these.
        with closing(sqlite3.connect(Path(scratch) / DATABASE)) as opened, opened:
            if opened.execute("SELECT 1 FROM sqlite_master WHERE name = 'accounts_installation'").fetchone():
                opened.execute("UPDATE accounts_installation SET key = ?", (uuid.uuid4().hex,))
        if standing:
            aside = settings.DATA / f"before-restore-{datetime.now(UTC).strftime(STAMP)}"
            aside.mkdir(mode=0o700)
            for path in standing:
                os.replace(path, aside / path.name)
        os.replace(Path(scratch) / DATABASE, database)
        if (Path(scratch) / "media").exists():
            os.replace(Path(scratch) / "media", settings.MEDIA_ROOT)
    return told


def thin_out(now):
    """Throw away backups that are neither among the last nor the newest of a day, week or month that is still kept."""
    kept, seen = set(), set()
    found = sorted(folder().glob("*.zip"), reverse=True)
    kept.update(found[:LAST])
    for path in found:
        try:
            at = datetime.strptime(path.name[:15], STAMP).replace(tzinfo=UTC)
        except ValueError:
            kept.add(path)
            continue
        spans = (
            (f"{at:%Y-%j}", timedelta(days=DAYS)),
            (f"{at:%G-w%V}", timedelta(weeks=WEEKS)),
            (f"{at:%Y-%m}", timedelta(days=31 * MONTHS)),
        )
        for name, span in spans:
            if now - at <= span and name not in seen:
                kept.add(path)
            seen.add(name)
    for path in set(found) - kept:
        path.unlink()


def _copy_database(source, target):
    with closing(sqlite3.connect(f"file:{source}?mode=ro", uri=True)) as standing, closing(sqlite3.connect(target)) as copy:
        standing.backup(copy)
    os.chmod(target, 0o600)


def _files(database):
    """The files that a database names, whatever its version."""
    found = set()
    with closing(sqlite3.connect(database)) as opened:
        for table, column in kept_files.columns():
            if column in {row[1] for row in opened.execute(f"PRAGMA table_info({table})")}:
                found.update(name for (name,) in opened.execute(f"SELECT {column} FROM {table}") if name)
    return sorted(found)


def _hash(path):
    return hashlib.sha256(Path(path).read_bytes()).hexdigest()


def _own(path, flags):
    return os.open(path, flags, 0o600)
