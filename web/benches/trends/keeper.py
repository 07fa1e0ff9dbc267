"""What probes and controllers tell while a call is open, kept with the call by itself: a thread of the server asks every minute."""

import logging
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime

import numpy as np
from django.db import connection

from kettle.benches.controls.registers import STATES
from kettle.knowledge.errors import InputError
from kettle.trends.roles import ROLES
from kettle.trends.series import Trend, joined
from web import work_time
from web.benches.trends.actions.keep_live import keep_live
from web.links import controller, probes
from web.logbook.models import Call, Device

EVERY_S = 60.0
# A probe's figures are kept no denser than this, s.
GRID_S = 30.0
RUNS, DEFROSTS = ("cooling", "pumping down"), "defrosting"
BY_KEY = {role.key: role.code for role in ROLES.values() if role.key}
# So many controllers are asked at once; one that keeps silent is asked again after 2, 4, 8 minutes, and at the latest after this, s.
SIDE_BY_SIDE = 8
LONGEST_SILENCE_S = 900.0
_silent: dict[tuple[int, str], tuple[int, float]] = {}
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
    """Keep what the probes and controllers of all open calls tell; one that does not answer is left for a later time, whosever it is."""
    now = now or work_time.now()
    probes.end_unasked(set(Device.objects.filter(kind="probes").values_list("pk", "address")))
    calls = list(Call.objects.filter(closed_at=None).select_related("unit__probes", "unit__controller", "unit__site", "opened_by"))
    lives = _ask({one.pk: one for call in calls if (one := call.unit.controller) is not None})
    for call in calls:
        if call.unit.probes is not None:
            _keep(call, "probes", lambda call=call: told_by_probes(call, call.unit.probes, now))
        if call.unit.controller_id in lives:
            _keep(call, "controller", lambda call=call: told_by_controller(lives[call.unit.controller_id], now))


def _keep(call, source, told):
    try:
        trend = told()
        if trend.count:
            keep_live(call.opened_by, call, source, trend)
    except (InputError, OSError):
        pass
    except Exception:
        # One bad device, or one bad log, is the matter of its shop alone.
        _log.exception("What the %s of call %s told was not kept", source, call.pk)


def _ask(devices):
    """What the controllers tell now, by their keys: asked side by side, one that kept silent more and more seldom."""
    moment = time.monotonic()
    for key in [key for key in _silent if key[0] not in devices]:
        del _silent[key]
    due = [one for one in devices.values() if _silent.get((one.pk, one.address), (0, 0.0))[1] <= moment]
    if not due:
        return {}
    with ThreadPoolExecutor(SIDE_BY_SIDE, "controllers") as pool:
        answers = list(pool.map(_live, due))
    for device, live in zip(due, answers, strict=True):
        key = (device.pk, device.address)
        if live is not None:
            _silent.pop(key, None)
        else:
            times = _silent.get(key, (0, 0.0))[0] + 1
            _silent[key] = (times, moment + min(EVERY_S * 2.0**times, LONGEST_SILENCE_S) - EVERY_S / 2.0)
    return {device.pk: live for device, live in zip(due, answers, strict=True) if live is not None}


def _live(device):
    try:
        return controller.link(device).live()
    except (InputError, OSError):
        return None
    except Exception:
        _log.exception("Controller %s could not be asked", device.pk)
        return None


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


def told_by_controller(live, now):
    """What a controller told of this moment, as a log of one row."""
    state = int(live.get("state", -1))
    word = STATES[state] if 0 <= state < len(STATES) else ""
    values = {role: np.array([live[role]]) for role in ("box_f", "coil_f", "superheat_f") if role in live}
    if word:
        values |= {"compressor": np.array([float(word in RUNS)]), "defrost": np.array([float(word == DEFROSTS)])}
    return Trend(np.array([datetime.timestamp(now.astimezone(UTC))]), values)
