"""What probes and controllers tell while a call is open, kept with the call by itself: a thread of the server asks every minute."""

import logging
import threading
from contextlib import suppress
from datetime import UTC, datetime

import numpy as np
from django.db import connection
from django.utils import timezone

from kettle.benches.controls.registers import STATES
from kettle.knowledge.errors import InputError
from kettle.trends.roles import ROLES
from kettle.trends.series import Trend, joined
from web.benches.trends.actions.keep_live import keep_live
from web.links import controller, probes
from web.logbook.models import Call

EVERY_S = 60.0
# A probe's figures are kept no denser than this, s.
GRID_S = 30.0
RUNS, DEFROSTS = ("cooling", "pumping down"), "defrosting"
BY_KEY = {role.key: role.code for role in ROLES.values() if role.key}
_stop = threading.Event()
_log = logging.getLogger(__name__)


def begin():
    """Keep what is told, in the background, until the server ends."""
    threading.Thread(target=_run, daemon=True, name="live logs").start()


def _run():
    while not _stop.wait(EVERY_S):
        try:
            keep_all()
        except Exception:
            # One bad minute must not end the keeping of all that come.
            _log.exception("What probes and controllers told was not kept")
        finally:
            connection.close()


def keep_all(now=None):
    """Keep what the probes and controllers of all open calls tell; one that does not answer is left for the next time."""
    now = now or timezone.now()
    for call in Call.objects.filter(closed_at=None).select_related("unit__probes", "unit__controller", "unit__site", "opened_by"):
        for source, told in (("probes", told_by_probes), ("controller", told_by_controller)):
            device = getattr(call.unit, source)
            if device is None:
                continue
            with suppress(InputError, OSError):
                trend = told(call, device, now)
                if trend.count:
                    keep_live(call.opened_by, call, source, trend)


def told_by_probes(call, device, now):
    """What probes told since the last of theirs that is kept, on a common grid."""
    link, kept = probes.link(device), call.trend_logs.filter(source="probes", undone_at=None).first()
    since = max(kept.ends, call.opened_at) if kept and kept.ends else call.opened_at
    columns = []
    for key, role in BY_KEY.items():
        rows = [(since.timestamp() + 60.0 * minutes, value) for minutes, value in link.since(key, since) if minutes > 0]
        if rows:
            grid = {GRID_S * round(at / GRID_S): value for at, value in rows}
            columns.append(Trend(np.array(sorted(grid)), {role: np.array([grid[at] for at in sorted(grid)])}))
    return joined(columns)


def told_by_controller(call, device, now):
    """What a controller tells of this moment."""
    live = controller.link(device).live()
    state = int(live.get("state", -1))
    word = STATES[state] if 0 <= state < len(STATES) else ""
    values = {role: np.array([live[role]]) for role in ("box_f", "coil_f", "superheat_f") if role in live}
    if word:
        values |= {"compressor": np.array([float(word in RUNS)]), "defrost": np.array([float(word == DEFROSTS)])}
    return Trend(np.array([datetime.timestamp(now.astimezone(UTC))]), values)
