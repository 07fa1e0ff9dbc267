"""Logs of a unit: packed as they are stored, unpacked as the core takes them, and what of a unit's life is marked on them."""

import json
import struct
import zlib
from collections import OrderedDict
from datetime import UTC, datetime
from threading import Lock

import numpy as np

from kettle.trends.series import Trend, joined
from web.logbook.calls.courses import acts_of
from web.logbook.models import Reading, TrendData, TrendLog

_HEAD = struct.Struct("<I")
FAST = 1
KEPT = 6
MOST_BY_HAND = 400
_kept: OrderedDict[int, Trend] = OrderedDict()
_lock = Lock()


def packed(trend):
    """A log as bytes: a head with its roles, moments in tenths of a second from the first, figures as they are."""
    head = json.dumps({"first": float(trend.at_s[0]), "rows": trend.count, "roles": sorted(trend.values)}).encode()
    moments = np.round((trend.at_s - trend.at_s[0]) * 10.0).astype("<i8")
    body = np.diff(moments, prepend=0).astype("<i8").tobytes() + b"".join(
        np.asarray(trend.values[role], dtype="<f4").tobytes() for role in sorted(trend.values)
    )
    return _HEAD.pack(len(head)) + head + zlib.compress(body, FAST)


def unpacked(raw):
    """The log that bytes hold."""
    raw = bytes(raw)
    (size,) = _HEAD.unpack(raw[: _HEAD.size])
    head = json.loads(raw[_HEAD.size : _HEAD.size + size])
    body, rows = zlib.decompress(raw[_HEAD.size + size :]), head["rows"]
    at_s = head["first"] + np.cumsum(np.frombuffer(body, "<i8", rows)) / 10.0
    values = {role: np.frombuffer(body, "<f4", rows, 8 * rows + 4 * rows * n) for n, role in enumerate(head["roles"])}
    return Trend(at_s, values)


def trend_of(log):
    """What a log holds, kept in this process for a while; nothing for one that is not read."""
    if not log.is_ready:
        return Trend(np.array([]), {})
    if log.source != "file":
        # It grows while its call is open.
        found = TrendData.objects.filter(log=log).first()
        return unpacked(found.packed) if found else Trend(np.array([]), {})
    with _lock:
        if log.pk in _kept:
            _kept.move_to_end(log.pk)
            return _kept[log.pk]
    found = unpacked(log.data.packed)
    with _lock:
        _kept[log.pk] = found
        while len(_kept) > KEPT:
            _kept.popitem(last=False)
    return found


def logs_of(unit):
    """The logs of a unit that stand, in the order they begin."""
    return list(TrendLog.objects.filter(unit=unit, state="ready", undone_at=None).order_by("begins", "pk"))


def of_unit(unit, from_s, to_s, logs=None):
    """What all logs of a unit tell of a stretch (seconds of the epoch), as one."""
    found = []
    for log in logs_of(unit) if logs is None else logs:
        if log.begins.timestamp() <= to_s and log.ends.timestamp() >= from_s:
            cut = trend_of(log).between(from_s, to_s)
            if cut.count:
                found.append(cut)
    return joined(found)


def read_by_hand(unit, from_s, to_s):
    """The box of a unit as it was read on its calls in a stretch: (seconds of the epoch, °F)."""
    begins, ends = (datetime.fromtimestamp(moment, UTC) for moment in (from_s, to_s))
    rows = Reading.objects.filter(call__unit=unit.pk, key="box_temp_f", undone_at=None, at__gte=begins, at__lte=ends).order_by("at")
    return [(one.at.timestamp(), float(one.value)) for one in rows[:MOST_BY_HAND]]


def life_marks(unit, from_s, to_s, told=None):
    """What happened on a unit in a stretch: (from, to, code, words) in seconds; visits, what was done, settings.

    `told` is what the core told of some of its calls, by their keys, where somebody asked already.
    """
    begins, ends = (datetime.fromtimestamp(moment, UTC) for moment in (from_s, to_s))
    marks = []
    for call in unit.calls.filter(opened_at__lte=ends).exclude(closed_at__lt=begins).prefetch_related("readings"):
        closed = call.closed_at.timestamp() if call.closed_at else to_s
        marks.append((call.opened_at.timestamp(), min(closed, to_s), "visit", str(call)))
        for step in acts_of(call, (told or {}).get(call.pk)):
            at = step.at.timestamp()
            if from_s <= at <= to_s:
                code = "turn" if step.kept_as == "turn" else "setting" if step.kept_as == "setting" else "done"
                marks.append((at, at, code, step.act.label))
    return marks
