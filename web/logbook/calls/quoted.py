"""A call's quote as it stands: its options side by side with what they come to, what was answered, what may be done unasked."""

import hashlib
import json
from dataclasses import asdict
from decimal import Decimal

from kettle.benches.quote.price import Line, Terms, line_cents, money, quantity_words, total
from kettle.benches.quote.propose import OPTIONS

MARKS = {"accepted": ("●", "good"), "declined": ("✕", "watch"), "": ("◌", "soft")}


def terms_of(shop):
    """A shop's terms as the core takes them."""
    return Terms(shop.rate_cents, shop.travel_cents, shop.markup_pct, shop.tax_pct, shop.tax_labour)


def quoted(call):
    """A call's quote: options with their lines and totals, the answer, what a site may cost; None where nothing is quoted."""
    quote = getattr(call, "quote", None)
    if quote is None or not quote.lines.exists():
        return None
    rows, options = list(quote.lines.all()), []
    waits = any(not row.answer for row in rows)
    # What was signed stays at the terms it was signed at; what is to be answered is at those of today.
    terms = Terms(**quote.terms) if quote.terms and quote.answered_at and not waits else terms_of(call.shop)
    limit = call.unit.site.not_to_exceed_cents if call.unit.site else None
    for code, label in OPTIONS.items():
        own = [row for row in rows if row.option == code]
        if not own:
            continue
        priced = [(row, _cents(row, terms), MARKS[row.answer]) for row in own]
        told = total([_line(row) for row in own], terms)
        over = limit is not None and told.total > limit
        options.append({"code": code, "label": label, "rows": priced, "net": money(told.net), "tax": money(told.tax),
                        "total": money(told.total), "unpriced": told.unpriced, "over": over})  # fmt: skip
    taken = [_line(row) for row in rows if row.answer == "accepted"]
    return {"quote": quote, "options": options, "limit": money(limit) if limit is not None else "", "terms": terms,
            "accepted": money(total(taken, terms).total) if taken else "", "waits": waits, "shown": _shown(options, not waits),
            "photos": quote.photos.filter(undone_at=None),
            "seen": _seen(quote, rows, terms), "signed": list(quote.signed.all())}  # fmt: skip


def _seen(quote, rows, terms):
    """A name for what a customer is shown to decide on: every line with its amount and price, the terms, the photos."""
    lines = [[row.pk, row.option, row.kind, row.what, str(Decimal(row.quantity).normalize()), row.cents] for row in rows]
    photos = sorted(quote.photos.filter(undone_at=None).values_list("pk", flat=True))
    return hashlib.sha256(json.dumps([lines, asdict(terms), photos]).encode()).hexdigest()


def _shown(options, answered):
    """Options as a customer sees them, in words, to be printed and to be kept with a signature; answers once every line has one."""
    return [
        {
            "label": option["label"], "net": option["net"], "tax": option["tax"], "total": option["total"], "unpriced": option["unpriced"],
            "rows": [{"what": row.what, "many": quantity_words(Decimal(row.quantity)), "kind": row.kind, "price": cents,
                      "answer": row.answer if answered else ""} for row, cents, _ in option["rows"]],
        }
        for option in options
    ]  # fmt: skip


def _line(row):
    return Line(row.what, row.kind, Decimal(row.quantity), row.cents)


def _cents(row, terms):
    cents = line_cents(_line(row), terms)
    return "" if cents is None else money(cents)


def for_the_customer(told):
    """Whether a quote is one to show: every line of it priced, or answered already."""
    return told is not None and (bool(told["signed"]) or not any(option["unpriced"] for option in told["options"]))


def within_limit(told):
    """Whether an option of a quote, all of it priced, stays inside what may be spent without asking."""
    return bool(told["limit"]) and any(not option["over"] and not option["unpriced"] for option in told["options"])
