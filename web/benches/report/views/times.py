"""Times of a visit, and the office's sheet of a call."""

from datetime import datetime, timedelta

from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.quote.price import money, quantity_words
from kettle.benches.quote.van import proposed
from kettle.benches.report.times import FOLLOWS, MARKS, SPENT, Day, spent
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number
from web import work_time
from web.benches.report.actions.mark_time import mark_time
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.calls.courses import acts_of
from web.logbook.csv_lines import lines
from web.logbook.refusals import refusals_said
from web.round.views.pages import call_of

HOUR = 60.0


def spent_on(call):
    """How long a visit took by its marks and its shop's day."""
    shop = call.shop
    day = None if shop.day_begins_min is None or shop.day_ends_min is None else Day(shop.day_begins_min, shop.day_ends_min)
    marks = [(timezone.localtime(one.at), one.what) for one in call.timemarks.filter(undone_at=None)]
    return spent(marks, timezone.localtime(call.closed_at or work_time.now()), day)


def times_context(request, standing):
    """Marks of the visit, what can follow, and what it comes to."""
    call = standing.call
    marks = list(call.timemarks.filter(undone_at=None))
    told = spent_on(call)
    words = [f"{format_number(told.minutes[kind] / HOUR)} h {label}" for kind, label in SPENT.items() if told.minutes[kind]]
    if told.overtime:
        words.append(f"{format_number(told.overtime / HOUR)} h of it overtime")
    return {
        "time_marks": marks,
        "time_next": [(what, MARKS[what]) for what in FOLLOWS[marks[-1].what if marks else ""]],
        "time_words": words,
    }


@require_POST
def mark(request, number, what):
    """Mark a moment, now or at a time of today."""
    call, typed = call_of(request, number), request.POST.get("mark_at", "").strip()
    with refusals_said(request):
        mark_time(request.user, call, what, **({"at": _moment(typed)} if typed else {}))
    return _back(number)


def _moment(text):
    now = timezone.localtime(work_time.now())
    try:
        told = datetime.strptime(text.replace(".", ":"), "%H:%M")
    except ValueError:
        raise InputError(f"At: “{text[:12]}” is not a time like {now:%H:%M}") from None
    at = now.replace(hour=told.hour, minute=told.minute, second=0, microsecond=0)
    return at - timedelta(days=1) if at > now else at


@require_POST
def take_back(request, number, pk):
    """Take a mark back."""
    call = call_of(request, number)
    undo_entry(request.user, get_object_or_404(call.timemarks, pk=pk))
    return _back(number)


def _back(number):
    answer = redirect("stop", number=number, stop="hand-over")
    answer["Location"] += "#times"
    return answer


@require_safe
def office_sheet(request, number):
    """The office's sheet of a call as CSV: times, parts, refrigerant, what was accepted."""
    call = call_of(request, number)
    told, rows = spent_on(call), [("call", "date", "unit", "what", "detail", "quantity", "unit of it")]
    head = (call.number, timezone.localtime(call.opened_at).date().isoformat(), str(call.unit))
    for kind, label in SPENT.items():
        rows.append((*head, "time", label, f"{told.minutes[kind] / HOUR:.2f}", "h"))
    rows.append((*head, "time", "overtime", f"{told.overtime / HOUR:.2f}", "h"))
    used = call.partuseds.filter(undone_at=None)
    for one in used:
        cost = f", {money(one.cents)} each" if one.cents is not None else ""
        rows.append((*head, "part", f"{one.what}{cost}", quantity_words(one.quantity), "piece"))
    taken = [part for step in acts_of(call) for part in step.act.spares]
    for part in proposed(taken, [one.what for one in used]):
        rows.append((*head, "part, not noted", part, 1, "piece"))
    for move in call.gas_moves.select_related("cylinder"):
        rows.append(
            (*head, "refrigerant", f"{move.get_kind_display()} {move.refrigerant} {move.cylinder or ''}".strip(), f"{move.oz:.1f}", "oz")
        )
    quote = getattr(call, "quote", None)
    for line in quote.lines.exclude(answer="") if quote else ():
        rows.append((*head, f"quote {line.answer}", line.what, line.quantity, line.get_kind_display()))
    answer = HttpResponse("".join(lines(rows)), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="call-{number}-office.csv"'
    return answer
