"""Take a log's file in: kept until it is matched and read; stopped, taken back."""

import hashlib
import secrets
from dataclasses import asdict
from zoneinfo import available_timezones

from django.core.files.storage import default_storage
from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from kettle.knowledge.errors import FieldErrors, InputError
from kettle.trends import layout
from kettle.trends.clock import CLOCKS
from kettle.trends.roles import ROLES, UNITS
from web import work_time
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action, outside, require_open
from web.logbook.models import TrendLog, TrendMatch

LARGEST_BYTES = 64 * 1024 * 1024
MOST_OF_UNIT = 200
TAIL_BYTES = 4000
LONGEST_NAME = 120


def looked_at(upload, otherwise):
    """How an uploaded file is laid out; InputError for one that is too large, or no log."""
    if upload is None:
        raise InputError("Log: choose a file first")
    if upload.size > LARGEST_BYTES:
        raise InputError(f"Log: {upload.size / 1e6:.0f} MB is more than {LARGEST_BYTES // 1024 // 1024} MB")
    upload.seek(0)
    head = upload.read(layout.HEAD_BYTES)
    tail = b""
    if upload.size > len(head) + TAIL_BYTES:
        upload.seek(upload.size - TAIL_BYTES)
        tail = upload.read()
    upload.seek(0)
    return layout.look(head, tail, otherwise)


def signature(columns):
    """A name for a file's headers, the same for every file that has them."""
    return hashlib.sha256("\x1f".join(columns).encode()).hexdigest()


@outside
def take_in(user, unit, upload, call=None):
    """Store a log's file for a unit, from a call where it was dropped on one; InputError for what is no log, and nothing is stored.

    The file is looked at and written before anything waits for it.
    """
    if call is not None:
        require_open(call)
    _require_room(user, unit, call)
    laid = looked_at(upload, shown_to(user).label("°F"))
    name = default_storage.save(f"incoming/{secrets.token_hex(8)}.log", upload)
    try:
        return _keep(user, unit, call, laid, name, upload)
    except BaseException:
        default_storage.delete(name)
        raise


def _require_room(user, unit, call):
    require_same_shop(user, unit)
    if call is not None:
        require_same_shop(user, call)
        require_open(call)
        if call.unit_id != unit.pk:
            raise InputError("Log: the call is on another unit")
    if unit.trend_logs.filter(Q(undone_at=None) | ~Q(file="")).count() >= MOST_OF_UNIT:
        raise InputError(f"{unit} holds {MOST_OF_UNIT} logs, which is all it can: take some back first")


@action
def _keep(user, unit, call, laid, name, upload):
    _require_room(user, unit, call)
    kept = TrendMatch.objects.filter(shop=unit.shop_id, headers=signature(laid.columns)).first()
    match = kept.match if kept else {str(n): list(pair) for n, pair in laid.guess.items()}
    made = TrendLog.objects.create(
        shop_id=unit.shop_id, unit=unit, call=call, by=user, name=upload.name[-LONGEST_NAME:] or "log", size=upload.size, file=name,
        layout=asdict(laid) | {"guess": {}}, match=match, zone=timezone.get_current_timezone_name(),
        clock=kept.clock if kept else "wall", swapped=kept.swapped if kept else False,
    )  # fmt: skip
    log.write(user, "take_in_log", call, shop=unit.shop, log=made.pk, unit=unit.pk, bytes=upload.size)
    return made


@action
def match_columns(user, trend_log, typed):
    """Store what the columns of a log's file are and how its clock is kept, for it and for the next of its kind; FieldErrors by field."""
    require_same_shop(user, trend_log)
    if trend_log.state not in ("asked", "failed", "stopped") or not trend_log.file:
        raise InputError("This log is read already")
    match, wrong, columns = {}, {}, trend_log.layout["columns"]
    for n, name in enumerate(columns):
        role = typed.get(f"role-{n}", "")
        if not role:
            continue
        unit = typed.get(f"unit-{n}", "")
        unit = unit if unit in UNITS and role in ROLES and UNITS[unit][0] == ROLES[role].unit else ROLES[role].unit if role in ROLES else ""
        if role not in ROLES:
            wrong[f"role-{n}"] = f"{name}: “{role[:20]}” is nothing a column can be"
        elif role in {kept for kept, _ in match.values()}:
            wrong[f"role-{n}"] = f"{name}: {ROLES[role].label.lower()} is said of another column already"
        else:
            match[str(n)] = [role, unit]
    clock, zone = typed.get("clock", "wall"), typed.get("zone", "") or trend_log.zone
    if clock not in CLOCKS:
        wrong["clock"] = f"Clock: choose one of {', '.join(CLOCKS.values())}"
    if zone not in available_timezones():
        wrong["zone"] = f"Time zone: “{zone[:40]}” is none, as in America/Denver"
    if not match and not wrong:
        wrong["match"] = "Say of at least one column what it is"
    if wrong:
        raise FieldErrors(wrong)
    trend_log.match, trend_log.clock, trend_log.zone, trend_log.swapped = match, clock, zone, bool(typed.get("swapped"))
    trend_log.state, trend_log.read_rows, trend_log.complaint, trend_log.touched_at = "reading", 0, "", work_time.now()
    trend_log.save()
    headers = signature(columns)
    TrendMatch.objects.update_or_create(
        shop_id=trend_log.shop_id, headers=headers, defaults={"match": match, "clock": clock, "swapped": trend_log.swapped}
    )
    log.write(user, "read_log", trend_log.call, shop=trend_log.shop, log=trend_log.pk)
    return trend_log


@action
def stop_reading(user, trend_log):
    """Stop a log that is being read; nothing of it is kept but its file."""
    require_same_shop(user, trend_log)
    if TrendLog.objects.filter(pk=trend_log.pk, state="reading").update(state="stopped"):
        log.write(user, "stop_log", trend_log.call, shop=trend_log.shop, log=trend_log.pk)


@action
def take_log_back(user, trend_log):
    """Take a log back: it stays on record as taken back and is shown nowhere."""
    require_same_shop(user, trend_log)
    if trend_log.undone_at is None:
        trend_log.undone_at, trend_log.undone_by = work_time.now(), user
        if trend_log.state == "reading":
            trend_log.state = "stopped"
        name, trend_log.file = trend_log.file.name, ""
        trend_log.save(update_fields=["undone_at", "undone_by", "state", "file"])
        if name:
            # It is shown nowhere any more, and nothing brings it back.
            transaction.on_commit(lambda: default_storage.delete(name))
        log.write(user, "take_log_back", trend_log.call, shop=trend_log.shop, log=trend_log.pk)
