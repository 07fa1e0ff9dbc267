"""A log's file read by the queue: told how far it is, stopped where its row says so, kept whole or not at all."""

import threading
from datetime import UTC, datetime, timedelta

from django.db import connection, transaction

from kettle.benches.trends.read import Program, read
from kettle.knowledge.errors import InputError, Stopped
from kettle.knowledge.measures import MARKED
from kettle.trends.cycles import runs
from kettle.trends.layout import Layout
from web import work_time
from web.logbook.models import DefrostProgram, TrendData, TrendLog
from web.logbook.trends import of_unit, packed
from web.long_work import LATER, again_after_a_restart, queue

CUT_OFF = timedelta(seconds=60)
# Logs of siblings are held against it over this long at most, days.
BESIDE_DAYS = 31
# Of each kind the latest are kept.
MOST_MARKS = 3000
# What a box may come to over its set before it counts as too warm, where the unit has no limit of its own, °F.
OVER_SET_F = {False: 5.0, True: 10.0}


def cut_off(log):
    """Whether a log that says it is being read is not; one of which nothing is read yet stands in the queue."""
    return log.state == "reading" and log.read_rows > 0 and work_time.now() - log.touched_at > CUT_OFF


@queue.task(priority=LATER)
def work(pk):
    """Read a log and keep what it holds and shows; a complaint in one line where it cannot be read."""
    try:
        log = TrendLog.objects.select_related("unit__site").get(pk=pk)
        if _go_on(log, 0):
            keep(log, _read(log))
    except Stopped:
        pass
    except InputError as error:
        TrendLog.objects.filter(pk=pk, state="reading").update(state="failed", complaint=str(error)[:300])
    except FileNotFoundError:
        TrendLog.objects.filter(pk=pk, state="reading").update(state="failed", complaint="Its file is not there any more: bring it again")
    except Exception as error:
        TrendLog.objects.filter(pk=pk, state="reading").update(state="failed", complaint=f"It could not be read ({type(error).__name__})")
        raise
    finally:
        if threading.current_thread() is not threading.main_thread():
            connection.close()


again_after_a_restart(work, lambda: TrendLog.objects.filter(state="reading", undone_at=None).values_list("pk", flat=True))


def _go_on(log, rows):
    """Whether a log is still to be read; says that somebody is at it, and how far."""
    return bool(TrendLog.objects.filter(pk=log.pk, state="reading").update(read_rows=rows, touched_at=work_time.now()))


def _read(log):
    kept = dict(log.layout)
    kept["columns"], kept["time"], kept["rows"] = tuple(kept["columns"]), tuple(kept["time"]), ()
    match = {int(n): (role, unit) for n, (role, unit) in log.match.items()}
    # pandas takes a second to load: only where a file is read.
    from kettle.trends import table

    with log.file.open("rb") as file:
        return table.read(file, Layout(**kept), match, log.zone, log.clock, log.swapped, lambda rows: _go_on(log, rows))


def keep(log, trend):
    """Store what a log holds and what the core reads in it, whole or not at all; its file is not needed any more."""
    told = judged(log.unit, trend)
    with transaction.atomic():
        standing = TrendLog.objects.filter(pk=log.pk, undone_at=None).exclude(state="stopped")
        begins, ends = (datetime.fromtimestamp(float(trend.at_s[n]), UTC) for n in (0, -1))
        found = standing.update(
            state="ready", rows=trend.count, begins=begins, ends=ends, notes=list(trend.notes), findings=told["findings"],
            marks=told["marks"], touched_at=work_time.now(), complaint="",
        )  # fmt: skip
        if not found:
            raise Stopped
        TrendData.objects.update_or_create(log=log, defaults={"packed": packed(trend)})
    if log.file:
        log.file.delete(save=False)
        TrendLog.objects.filter(pk=log.pk).update(file="")


def judged(unit, trend):
    """What the core reads in a log of a unit, as it is stored: findings, and what is marked in the picture."""
    resolved = unit.resolved()
    told = read(trend, resolved, limit_of(resolved), program_of(unit), _siblings(unit, trend), MARKED)
    findings = [
        {"code": one.code, "says": one.says, "from": one.begins_s, "to": one.ends_s, "sure": one.sure, "keys": dict(one.keys)}
        for one in told.findings
    ]
    marks = [[one.begins_s, one.ends_s, "defrost"] for one in told.defrosts] + [[one.begins_s, one.ends_s, "door"] for one in told.doors]
    for one in told.defrosts:
        if one.back_min is not None:
            marks.append([one.ends_s, one.ends_s + 60.0 * one.back_min, "recovery"])
    marks += [[one.begins_s, one.ends_s, "pull_down"] for one in told.pull_downs]
    ran = [[one.begins_s, one.ends_s, "run"] for one in runs(trend)[1]]
    return {"findings": findings, "marks": sorted([*marks[-MOST_MARKS:], *ran[-MOST_MARKS:]])}


def limit_of(unit):
    """What the box of a unit may come to, °F."""
    return unit.set_f + OVER_SET_F[unit.kind.freezer]


def program_of(unit):
    """What is known of how a unit's defrosts are set, from the last program kept on any call."""
    last = DefrostProgram.objects.filter(call__unit=unit, undone_at=None).order_by("at").last()
    if last is None:
        return Program()
    figures = last.figures or {}
    return Program(float(len(last.starts)) if last.starts else None, figures.get("fail_safe_min"), figures.get("termination_f"))


def _siblings(unit, trend):
    """Logs of the other boxes on the same plant over the last weeks of this one."""
    if not unit.plant:
        return {}
    to_s = float(trend.at_s[-1])
    from_s = max(float(trend.at_s[0]), to_s - BESIDE_DAYS * 86_400.0)
    found = {other.name: of_unit(other, from_s, to_s) for other in unit.siblings}
    return {name: log for name, log in found.items() if log.count > 1}
