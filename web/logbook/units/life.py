"""A unit's life on one line of time: its calls with what was done, gas, logs, quotes, what was left there, what was promised."""

from dataclasses import dataclass, field
from datetime import datetime, time

from django.urls import reverse
from django.utils import timezone

from kettle.knowledge import causes
from kettle.knowledge.measures import worded
from kettle.knowledge.parameters import PARAMETERS
from web.logbook.calls.courses import HAS_ACTS, acts_of
from web.logbook.models import FollowUp, GasMove, Placed, Quote, TrendLog

ENTRIES_A_PAGE = 60
FINDINGS_SAID = 3
LONGEST_WORDS = 160


@dataclass
class Moment:
    """One entry: when, a mark, what, further words, where it leads, and its tone."""

    at: datetime
    mark: str
    title: str
    words: list = field(default_factory=list)
    address: str = ""
    tone: str = ""
    by: str = ""


def life_of(unit, shown):
    """Every moment of a unit's life, newest first."""
    found = [*_calls(unit, shown), *_gas(unit, shown), *_logs(unit, shown), *_quotes(unit), *_placed(unit), *_promised(unit)]
    return sorted(found, key=lambda moment: moment.at, reverse=True)


def _calls(unit, shown):
    rows = unit.calls.select_related("opened_by", "unit").prefetch_related("settingchanges", "readings", "findings").annotate(**HAS_ACTS)
    for call in rows:
        said = (call.found or call.complaint or "").strip()
        words = [said[:LONGEST_WORDS] + ("…" if len(said) > LONGEST_WORDS else "")] if said else []
        named = [code for finding in call.findings.all() if finding.undone_at is None for code in finding.causes]
        words += [f"The cause: {causes.get(code).label.lower()}" for code in dict.fromkeys(named) if code in causes.CATALOGUE]
        words += [
            f"{PARAMETERS[change.parameter].label}: {change.as_found} → {change.as_left}"
            for change in call.settingchanges.all()
            if change.undone_at is None
        ]
        words += [step.words(shown) for step in acts_of(call) if step.kept_as != "setting"]
        address = reverse("call" if call.is_open else "report", args=[call.number])
        title = f"{call}{', open' if call.is_open else ''}"
        yield Moment(call.opened_at, "◆", title, words, address, "", call.opened_by.get_full_name())


def _gas(unit, shown):
    for move in GasMove.objects.filter(unit=unit, call=None).select_related("by"):
        at = timezone.make_aware(datetime.combine(move.day, time(12)))
        title = f"{move.get_kind_display()} {shown.text(move.oz, 'oz', 1)} {move.refrigerant}"
        yield Moment(at, "◍", title, [move.reason] if move.reason else [], reverse("ledger"), "", move.by.get_full_name())


def _logs(unit, shown):
    for log in TrendLog.objects.filter(unit=unit, state="ready", undone_at=None):
        told = [worded(one["says"], shown) for one in log.findings[:FINDINGS_SAID]]
        yield Moment(log.ends, "∿", f"Log: {log}", told, reverse("unit-trends", args=[unit.pk]))


def _quotes(unit):
    for quote in Quote.objects.filter(call__unit=unit, answered_at__isnull=False).select_related("call").prefetch_related("lines"):
        declined = [line.what for line in quote.lines.all() if line.answer == "declined"]
        words = [f"Declined: {', '.join(declined)}"[:LONGEST_WORDS]] if declined else ["All accepted"]
        yield Moment(quote.answered_at, "▤", f"Quote answered by {quote.answered_name}", words, reverse("quote", args=[quote.call.number]))


def _placed(unit):
    for one in Placed.objects.filter(call__unit=unit, undone_at=None).select_related("call"):
        yield Moment(one.at, "◐", f"{one}", [f"Gone {timezone.localtime(one.gone_at):%-d %b %Y}"] if one.gone_at else ["Still there"], "",
                     "" if one.gone_at else "watch")  # fmt: skip


def _promised(unit):
    for one in FollowUp.objects.filter(unit=unit, done_at__isnull=False).select_related("done_by"):
        words = [f"Let go: {one.let_go}" if one.let_go else "Looked at"]
        yield Moment(one.done_at, "✓", one.what, words, "", "", one.done_by.get_full_name() if one.done_by else "")
