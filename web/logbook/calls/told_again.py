"""What was told of a call a moment ago, told again as long as nothing on it changed: pages and entries follow each other closely.

A call's revision changes with every line of the log that its judgement hears of (`web/logbook/actions/log.py`).
"""

import threading
import time
from collections import OrderedDict

from django.conf import settings
from django.db import connection

from web.logbook.calls.judging import told_of
from web.logbook.models import Call

# So many are kept in a process.
MOST = 64
_kept = OrderedDict()
_lock = threading.Lock()


def told_again(call, shown):
    """What is told of a call in words of the given units; not older than `settings.TOLD_KEPT_S`, nor than what changed on it last."""
    if not settings.TOLD_KEPT_S:
        return told_of(call, shown)
    revision = Call.objects.filter(pk=call.pk).values_list("revision", "closed_at").get()
    # Numbers say nothing by themselves: the same ones are in every installation.
    key, now = (str(connection.settings_dict["NAME"]), call.pk, shown), time.monotonic()
    with _lock:
        at, told_revision, told = _kept.get(key, (0.0, None, None))
        if told_revision == revision and now - at < settings.TOLD_KEPT_S:
            _kept.move_to_end(key)
            return told
    told = told_of(call, shown)
    with _lock:
        _kept[key] = (now, revision, told)
        _kept.move_to_end(key)
        while len(_kept) > MOST:
            _kept.popitem(last=False)
    return told


def forget():
    """Keep nothing of what was told."""
    with _lock:
        _kept.clear()
