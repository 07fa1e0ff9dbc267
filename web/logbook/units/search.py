"""Everything a shop has written, searched: each source of words is one entry, with what it is called and where it leads."""

from collections.abc import Callable
from dataclasses import dataclass

from django.db.models import Q
from django.urls import reverse

from web.logbook.models import (
    Act,
    Call,
    FollowUp,
    Override,
    Photo,
    Placed,
    QuoteLine,
    Reading,
    SettingChange,
    TrendLog,
    Unit,
    ValveTurn,
    Wording,
)

MOST_OF_EACH = 12
SHORTEST = 2
AROUND = 60


@dataclass(frozen=True)
class Source:
    """Where words stand: what they are called, the model, its fields, how it belongs to a shop, and the call or unit it leads to."""

    label: str
    model: type
    fields: tuple[str, ...]
    shop: str
    leads: Callable
    joined: tuple[str, ...] = ()


def _of_call(row):
    return row if isinstance(row, Call) else row.call


SOURCES = (
    Source("Unit", Unit, ("name", "notes", "make", "serial", "site__name"), "shop", lambda unit: unit, ("site",)),
    Source("Call", Call, ("complaint", "changed", "found", "done", "advice", "declined"), "shop", _of_call, ("unit__site",)),
    Source("Write-up", Wording, ("text",), "call__shop", _of_call, ("call__unit__site",)),
    Source("Done", Act, ("note",), "call__shop", _of_call, ("call__unit__site",)),
    Source("Valve turned", ValveTurn, ("reason",), "call__shop", _of_call, ("call__unit__site",)),
    Source("Setting", SettingChange, ("as_found", "as_left", "why"), "call__shop", _of_call, ("call__unit__site",)),
    Source("Taken on", Override, ("reason",), "call__shop", _of_call, ("call__unit__site",)),
    Source("Noted", Reading, ("typed",), "call__shop", _of_call, ("call__unit__site",)),
    Source("Left there", Placed, ("where", "does_not", "left_why"), "call__shop", _of_call, ("call__unit__site",)),
    Source("Photo", Photo, ("caption",), "call__shop", _of_call, ("call__unit__site",)),
    Source("Follow-up", FollowUp, ("what", "why", "let_go"), "shop", _of_call, ("call__unit__site",)),
    Source("Quoted", QuoteLine, ("what",), "quote__call__shop", lambda line: line.quote.call, ("quote__call__unit__site",)),
    Source("Log", TrendLog, ("name",), "shop", lambda log: log.unit, ("unit__site",)),
)


@dataclass(frozen=True)
class Found:
    """One place: what it is, the words about what was looked for, the unit, when, and where it leads."""

    label: str
    words: str
    unit: object
    at: object
    address: str


def search(shop, asked):
    """Every place of a shop where all the words stand, newest first of each source; nothing for fewer than two letters."""
    words = [word for word in asked.split() if len(word) >= SHORTEST]
    found = []
    for source in SOURCES if words else ():
        rows = source.model.objects.filter(**{source.shop: shop}).select_related(*source.joined)
        if hasattr(source.model, "undone_at"):
            rows = rows.filter(undone_at=None)
        for word in words:
            wanted = Q()
            for field in source.fields:
                wanted |= Q(**{f"{field}__icontains": word})
            rows = rows.filter(wanted)
        found += [_found(source, row, words) for row in rows.order_by("-pk")[:MOST_OF_EACH]]
    return found


def _found(source, row, words):
    target = source.leads(row)
    text = next((told for told in (_read(row, field) for field in source.fields) if words[0].lower() in told.lower()), "")
    is_call = isinstance(target, Call)
    unit = target.unit if is_call else target
    where = reverse("report", args=[target.number]) if is_call else reverse("unit", args=[target.pk])
    return Found(source.label, _about(text, words[0]), unit, target.opened_at if is_call else None, where)


def _read(row, field):
    for part in field.split("__"):
        row = getattr(row, part, None)
    return str(row or "")


def _about(text, word):
    """The words about the first place it stands at."""
    at = max(text.lower().find(word.lower()), 0)
    begin, end = max(at - AROUND, 0), at + len(word) + AROUND
    return f"{'…' if begin else ''}{text[begin:end].strip()}{'…' if end < len(text) else ''}"
