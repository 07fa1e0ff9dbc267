"""Quote a call: lines proposed, added, priced, dropped; answered line by line by the customer, with name and signature."""

import re
from dataclasses import asdict

from kettle.benches.quote.price import KINDS, parse_money, parse_quantity, quantity_words
from kettle.benches.quote.propose import OPTIONS
from kettle.benches.quote.van import price_of
from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.calls.quoted import quoted
from web.logbook.models import Quote, QuoteLine, QuoteSigned

MOST_LINES = 120
LONGEST, LONGEST_NAME = 120, 80
MOST_PHOTOS = 12
# A signature: strokes of moves and lines in whole points, nothing else.
SIGNATURE = re.compile(r"(?:[ML]\d{1,4} \d{1,4} ?){2,4000}")


def _quote(user, call):
    quote, _ = Quote.objects.get_or_create(call=call, defaults={"by": user})
    return quote


@on_call
def take_lines(user, call, options):
    """Add the lines of some options (`Proposed` of the core) that the quote does not hold yet, priced as one's van has them; returns how
    many."""
    quote = _quote(user, call)
    carried = [one.as_carried() for one in user.van_parts.filter(shop=user.member.shop_id)]
    have, made = {(line.option, line.what) for line in quote.lines.all()}, 0
    for one in options:
        for line in one.lines:
            if (one.option, line.what) not in have and quote.lines.count() < MOST_LINES:
                cents = price_of(carried, line.what) if line.kind == "part" else None
                QuoteLine.objects.create(
                    quote=quote, option=one.option, kind=line.kind, what=line.what[:LONGEST], quantity=line.quantity, cents=cents
                )
                have.add((one.option, line.what))
                made += 1
    if made:
        log.write(user, "take_lines", call, lines=made)
    return made


def _checked(typed):
    wrong, values = {}, {"what": " ".join(typed.get("what", "").split())}
    if not 2 <= len(values["what"]) <= LONGEST:
        wrong["what"] = f"What: 2 to {LONGEST} letters"
    for name, label, parse in (("quantity", "How many", parse_quantity), ("price", "Price of one", parse_money)):
        try:
            values[name] = parse(typed.get(name, ""))
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    for name, label, known in (("option", "Option", OPTIONS), ("kind", "Kind", KINDS)):
        if typed.get(name) not in known:
            wrong[name] = f"{label}: choose one of {', '.join(known.values())}"
    if wrong:
        raise FieldErrors(wrong)
    return {
        "what": values["what"],
        "quantity": values["quantity"],
        "cents": values["price"],
        "option": typed["option"],
        "kind": typed["kind"],
    }


@on_call
def keep_line(user, call, typed, line=None):
    """Add a line, or change one; FieldErrors by field. What was answered is asked again.

    Where `typed` says what a form showed (`was_quantity`, `was_price`), only what was typed over it is changed; InputError where a
    colleague changed the same meanwhile.
    """
    if line is not None:
        line.refresh_from_db()
        typed = {**typed, **_over(line, typed)}
    values = _checked(typed)
    if line is None:
        quote = _quote(user, call)
        if quote.lines.count() >= MOST_LINES:
            raise InputError(f"The quote holds {MOST_LINES} lines, which is all it can")
        line = QuoteLine(quote=quote)
    elif line.quote.call_id != call.pk:
        raise InputError("That line is of another quote")
    if line.pk and all(getattr(line, name) == value for name, value in values.items()):
        return line
    for name, value in values.items():
        setattr(line, name, value)
    line.answer = ""
    line.save()
    log.write(user, "keep_line", call, line=line.pk, what=line.what, cents=line.cents)
    return line


def _over(line, typed):
    """What a line is to hold of what a form showed and what was typed over it."""
    found = {}
    for name, stands in (("quantity", quantity_words(line.quantity)), ("price", line.price_words)):
        was, now = typed.get(f"was_{name}"), typed.get(name, "").strip()
        if was is None or was == stands:
            continue
        if now not in (was, stands):
            raise InputError(f"{line.what}: a colleague changed it to {stands or 'no price'} meanwhile; look at it again")
        found[name] = stands
    return found


@on_call
def drop_line(user, call, line):
    """Take a line out of a quote; what was answered stays on record in the log."""
    if line.quote.call_id != call.pk:
        raise InputError("That line is of another quote")
    log.write(user, "drop_line", call, what=line.what, answer=line.answer)
    line.delete()


@on_call
def show_photos(user, call, keys):
    """Choose which photos of a call its quote shows."""
    quote = _quote(user, call)
    quote.photos.set(call.photos.filter(undone_at=None, pk__in=keys)[:MOST_PHOTOS])
    log.write(user, "show_photos", call, photos=quote.photos.count())
    return quote


@on_call
def answer_quote(user, call, answers, name, signature, shown):
    """Store what the customer answered to each line (pk -> accepted or declined), with name and signature; FieldErrors by field.

    `shown` names what the customer was shown (`quoted.seen`); where the quote is another by now, nothing is answered. Each answer is kept
    with what was shown, and none is written over.
    """
    quote, name, wrong = _quote(user, call), " ".join(name.split()), {}
    call.quote = quote
    now = quoted(call)
    lines = {str(line.pk): line for line in quote.lines.all()}
    if not 2 <= len(name) <= LONGEST_NAME:
        wrong["name"] = f"Name: 2 to {LONGEST_NAME} letters, of whoever decides"
    if not SIGNATURE.fullmatch(signature.strip()):
        wrong["signature"] = "Signature: sign with a finger in the field"
    answered = {key: word for key, word in answers.items() if key in lines and word in ("accepted", "declined")}
    if not lines or set(answered) != set(lines):
        wrong["lines"] = f"{len(lines) - len(answered)} lines have no answer yet: accept or decline each"
    elif shown != now["seen"]:
        wrong["lines"] = "The quote was changed since it was shown: look at it again, then answer"
    if wrong:
        raise FieldErrors(wrong)
    for key, word in answered.items():
        lines[key].answer = word
        lines[key].save(update_fields=["answer"])
    quote.terms, quote.answered_at, quote.answered_name, quote.signature = (
        asdict(now["terms"]),
        work_time.now(),
        name,
        signature.strip(),
    )
    quote.save()
    told = quoted(call)
    QuoteSigned.objects.create(quote=quote, by=user, at=quote.answered_at, name=name, signature=quote.signature, terms=quote.terms,
                               seen=shown, options=told["shown"], accepted=told["accepted"])  # fmt: skip
    log.write(user, "answer_quote", call, name=name, accepted=sum(word == "accepted" for word in answered.values()), of=len(answered))
    return quote
