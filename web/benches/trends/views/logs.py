"""A log's file: taken in, matched, read, stopped, taken back."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number
from kettle.trends.clock import CLOCKS
from kettle.trends.roles import ROLES, units_for
from web.benches.trends import reading
from web.benches.trends.actions import take_in
from web.logbook.models import TrendLog, Unit
from web.logbook.sent import call_of

UNIT_WORDS = {"": "on or off", "°F diff": "°F", "K": "°C"}


def _log(request, pk):
    return get_object_or_404(TrendLog.objects.for_user(request.user).select_related("unit__site", "call", "shop"), pk=pk)


def _home(log):
    return (
        redirect("stop", number=log.call.number, stop="prove") if log.call and log.call.is_open else redirect("unit-trends", pk=log.unit_id)
    )


@require_POST
def add(request, pk):
    """A file dropped on a unit or on a call."""
    unit = get_object_or_404(Unit.objects.for_user(request.user), pk=pk)
    call = call_of(request)
    try:
        log = take_in.take_in(request.user, unit, request.FILES.get("log"), call)
    except InputError as error:
        messages.error(request, str(error))
        return redirect("stop", number=call.number, stop="prove") if call else redirect("unit-trends", pk=unit.pk)
    return redirect("trend-log", pk=log.pk)


@require_safe
def log(request, pk):
    """A log's file: what its columns are, or how far it is read."""
    return show_log(request, _log(request, pk))


def show_log(request, found, typed=None, wrong=None):
    """The page of a log that is not read yet."""
    if found.is_ready:
        if request.htmx:
            answer = render(request, "trends/_reading.html", {"log": found})
            answer["HX-Redirect"] = _home(found).url
            return answer
        return _home(found)
    context = {
        "log": found, "unit": found.unit, "wrong": wrong or {}, "cut_off": reading.cut_off(found),
        "rows_words": format_number(found.read_rows, 0), "percent": percent(found),
    }  # fmt: skip
    if request.htmx and found.state == "reading":
        return render(request, "trends/_reading.html", context)
    if request.htmx:
        answer = render(request, "trends/_reading.html", context)
        answer["HX-Refresh"] = "true"
        return answer
    laid, typed = found.layout, typed or {}
    match = {int(n): pair for n, pair in found.match.items()}
    columns = []
    for n, name in enumerate(laid.get("columns", ())):
        role, unit = match.get(n, ("", ""))
        role, unit = typed.get(f"role-{n}", role), typed.get(f"unit-{n}", unit)
        units = [(one, UNIT_WORDS.get(one, one)) for one in dict.fromkeys(unit for code in ROLES for unit in units_for(code))]
        cells = [row[n] for row in laid.get("rows", ()) if n < len(row)]
        columns.append((n, name, n in laid["time"], role, unit, units, cells, (wrong or {}).get(f"role-{n}", "")))
    context |= {"columns": columns, "roles": [(role.code, role.label) for role in ROLES.values()], "clocks": CLOCKS.items(),
                "either": laid.get("either"), "zone": typed.get("zone") or found.zone,
                "clock": typed.get("clock") or found.clock}  # fmt: skip
    return render(request, "trends/log.html", context)


def percent(log):
    """How far a log is read, by the size of its file: about 16 letters a column and row."""
    columns = max(len(log.layout.get("columns", ())), 1)
    rows = log.layout.get("rows") or [[]]
    letters = max(sum(len(cell) + 1 for cell in rows[0]), 4 * columns)
    return min(round(100.0 * log.read_rows * letters / max(log.size, 1)), 99)


@require_POST
def read(request, pk):
    """Keep what the columns are, and read it."""
    found = _log(request, pk)
    try:
        take_in.match_columns(request.user, found, request.POST)
    except InputError as error:
        wrong = error.beside("match")
        return show_log(request, found, request.POST, wrong)
    reading.work(found.pk)
    return redirect("trend-log", pk=found.pk)


@require_POST
def stop(request, pk):
    """Stop reading it."""
    take_in.stop_reading(request.user, _log(request, pk))
    return redirect("trend-log", pk=pk)


@require_POST
def take_back(request, pk):
    """Take a log back."""
    found = _log(request, pk)
    take_in.take_log_back(request.user, found)
    messages.success(request, f"{found} is taken back.")
    return redirect("unit-trends", pk=found.unit_id)
