"""Refrigerant accounted for: cylinders, and every ounce that moves; a line is never edited, only countered."""

import csv
import io
from codecs import BOM_UTF8
from collections import Counter
from datetime import date

from django.utils import timezone

from kettle.benches.refrigerant.cylinders import TARE_LB, WATER_LB, may_go_in
from kettle.benches.refrigerant.ledger import KINDS
from kettle.knowledge import refrigerants
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import OZ_PER_LB
from web import work_time
from web.accounts.access import require_same_shop, shop_of, shown_to
from web.logbook import many_rows
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call, outside
from web.logbook.models import Cylinder, GasMove

LONGEST_NUMBER, LONGEST_REASON = 40, 200
MOST_OZ = 16000.0
EARLIEST_YEAR = 1990
# A CSV that is read in: its columns, bytes and rows at the most.
CSV_COLUMNS = ("day", "kind", "ounces", "cylinder", "reason")
LARGEST_CSV, MOST_ROWS = 2_000_000, 5000
# What a person enters on the ledger itself; the rest comes from what was done on a call.
BY_HAND = ("bought", "returned", "disposed", "lost", "recovered", "added")
# Acts on the charge and what they are in the ledger.
OF_ACT = {"added": "added", "weighed_in": "added", "recovered": "recovered"}


@action
def keep_cylinder(user, typed):
    """Store a cylinder of the person's shop; FieldErrors by field, and nothing is stored then."""
    shop, shown, wrong, weights = shop_of(user), shown_to(user), {}, {}
    number = typed.get("number", "").strip()
    if not 1 <= len(number) <= LONGEST_NUMBER:
        wrong["number"] = f"Number: 1 to {LONGEST_NUMBER} letters"
    elif shop.cylinders.filter(number=number).exists():
        wrong["number"] = f"Number: {number} is there already"
    try:
        refrigerant = refrigerants.meant(typed.get("refrigerant", "")).name
    except InputError as error:
        refrigerant, wrong["refrigerant"] = "", str(error)
    for name, label, (low, high) in (("tare_lb", "Tare", TARE_LB), ("water_lb", "Water capacity", WATER_LB)):
        text = typed.get(name, "").strip()
        try:
            weights[name] = shown.parse(text, "lb") if text else None
        except InputError as error:
            wrong[name] = f"{label}: {error}"
            continue
        if weights[name] is not None and not low <= weights[name] <= high:
            wrong[name] = f"{label}: {shown.text(weights[name], 'lb')} is outside {shown.span(low, high, 'lb')}"
    if wrong:
        raise FieldErrors(wrong)
    made = Cylinder.objects.create(shop=shop, number=number, refrigerant=refrigerant, recovery=typed.get("recovery") == "yes", **weights)
    log.write(user, "keep_cylinder", shop=shop, cylinder=made.number, refrigerant=refrigerant)
    return made


@action
def keep_move(user, typed):
    """Store a line of the ledger as a person typed it; FieldErrors by field, and nothing is stored then."""
    shop = shop_of(user)
    named = shop.cylinders.filter(number=typed.get("cylinder", "").strip(), gone_at=None)
    return _line(user, shop, **_checked(typed, shown_to(user), {one.number: one for one in named}))


def _checked(typed, shown, cylinders):
    """What a line of the ledger holds, by what was typed and the cylinders of the shop by their numbers; FieldErrors by field."""
    wrong, kind, reason = {}, typed.get("kind", ""), typed.get("reason", "").strip()
    if kind not in BY_HAND:
        wrong["kind"] = "What happened: choose one"
    cylinder = cylinders.get(typed.get("cylinder", "").strip())
    if cylinder is None:
        wrong["cylinder"] = "Cylinder: choose one of the shop's"
    amount = None
    try:
        amount = shown.parse(typed.get("amount", ""), "lb") * OZ_PER_LB
        if not 0.0 < amount <= MOST_OZ:
            wrong["amount"] = f"How much: {shown.text(amount / OZ_PER_LB, 'lb')} is outside 0 to {shown.text(MOST_OZ / OZ_PER_LB, 'lb')}"
    except InputError as error:
        wrong["amount"] = f"How much: {error}"
    day = timezone.localdate(work_time.now())
    try:
        day = date.fromisoformat(typed["day"].strip()) if typed.get("day", "").strip() else day
    except ValueError:
        wrong["day"] = f"Day: “{typed['day'][:20]}” is not a date like {day}"
    if day > timezone.localdate(work_time.now()) or day.year < EARLIEST_YEAR:
        wrong["day"] = f"Day: {day} is outside {EARLIEST_YEAR}-01-01 to {timezone.localdate(work_time.now())}"
    if len(reason) > LONGEST_REASON:
        wrong["reason"] = f"Reason: at most {LONGEST_REASON} letters"
    if kind == "recovered" and cylinder is not None and (why := may_go_in(cylinder.refrigerant, cylinder.refrigerant, cylinder.recovery)):
        wrong["cylinder"] = f"Cylinder: {why}"
    if wrong:
        raise FieldErrors(wrong)
    return {"kind": kind, "oz": amount, "refrigerant": cylinder.refrigerant, "day": day, "cylinder": cylinder, "reason": reason}


@outside
def import_moves(user, upload):
    """Store the lines of a CSV file with the columns of `CSV_COLUMNS`; InputError names the first row that cannot be; nothing is stored.

    A cylinder has to be the shop's; what went into units comes from calls alone and is left out of an import. What stands in the ledger
    already, word for word, is not booked again, so that a file may be sent a month later with more below it; where all of it stands, the
    file is refused. Everything is read and checked before anything waits for it. Returns how many were booked, and how many stood.
    """
    content = _content(upload)
    shop, shown = shop_of(user), shown_to(user)
    cylinders = {one.number: one for one in shop.cylinders.filter(gone_at=None)}
    lines = []
    for number, row in enumerate(_rows(content), start=2):
        typed = {name.strip(): (value or "").strip() for name, value in row.items() if name and not isinstance(value, list)}
        if typed["kind"] not in BY_HAND or typed["kind"] in OF_ACT.values():
            raise InputError(f"Row {number}: “{typed['kind'][:20]}” is none of bought, returned, disposed, lost")
        try:
            lines.append(_checked(typed | {"amount": f"{typed['ounces']} oz"}, shown, cylinders))
        except FieldErrors as error:
            raise InputError(f"Row {number}: {next(iter(error.by_field.values()))}") from None
    statement, values = many_rows.made_ready([GasMove(shop=shop, by=user, **line) for line in lines])
    return _keep_all(user, shop, [(_same(line), row) for line, row in zip(lines, values, strict=True)], statement)


def _same(line):
    """What two lines have alike that are one."""
    return line["day"], line["kind"], round(line["oz"], 3), line["cylinder"].pk, line["reason"]


def _content(upload):
    """The bytes of a CSV file, however its lines end."""
    if upload is None or upload.size > LARGEST_CSV:
        raise InputError(f"File: choose a CSV of at most {LARGEST_CSV // 1000} kB")
    content = upload.read()
    if b"\0" in content:
        raise InputError("File: this is no CSV in UTF-8")
    return content.removeprefix(BOM_UTF8).replace(b"\r\n", b"\n").strip()


def _rows(content):
    try:
        rows = list(csv.DictReader(io.StringIO(content.decode("utf-8"))))
    except (UnicodeDecodeError, csv.Error):
        raise InputError("File: this is no CSV in UTF-8") from None
    if not rows or not set(CSV_COLUMNS) <= {name.strip() for name in rows[0] if name}:
        raise InputError(f"File: its first row has to name {', '.join(CSV_COLUMNS)}")
    if len(rows) > MOST_ROWS:
        raise InputError(f"File: {len(rows)} rows are more than {MOST_ROWS}")
    return rows


@action
def _keep_all(user, shop, lines, statement):
    days, used = [day for (day, *_), _ in lines], {cylinder for (*_, cylinder, _), _ in lines}
    gone = shop.cylinders.filter(pk__in=used, gone_at__isnull=False).first()
    if gone is not None:
        raise InputError(f"File: cylinder {gone} is gone")
    stands = shop.gas_moves.filter(cylinder__in=used, day__range=(min(days), max(days)), counters=None, countered_by=None)
    left = Counter(
        (day, kind, round(oz, 3), cylinder, reason)
        for day, kind, oz, cylinder, reason in stands.values_list("day", "kind", "oz", "cylinder", "reason")
    )
    new = []
    for same, row in lines:
        if left[same]:
            left[same] -= 1
        else:
            new.append(row)
    if not new:
        raise InputError(f"File: all its {len(lines)} lines stand in the ledger already; nothing is booked twice")
    many_rows.keep(statement, new)
    log.write(user, "import_moves", shop=shop, rows=len(new), stood=len(lines) - len(new))
    return len(new), len(lines) - len(new)


@action
def counter_move(user, move, reason):
    """Take a line back by another; InputError without a reason, or for one that is countered or counters itself."""
    require_same_shop(user, move)
    if not 3 <= len(reason.strip()) <= LONGEST_REASON:
        raise InputError(f"Counter-entry: say why in 3 to {LONGEST_REASON} letters")
    return _counter(user, move, reason.strip())


def _counter(user, move, reason):
    if move.counters_id or GasMove.objects.filter(counters=move).exists():
        raise InputError("That line is countered already")
    return _line(user, move.shop, move.kind, -move.oz, move.refrigerant, cylinder=move.cylinder, unit=move.unit, call=move.call,
                 act=move.act, reason=reason, counters=move)  # fmt: skip


@on_call
def move_of_act(user, call, act, cylinder_number=""):
    """Put gas that an act moved on the ledger; nothing for one that moves none. FieldErrors for a cylinder it cannot be."""
    kind = OF_ACT.get(act.did) if act.part == "charge" else None
    if kind is None or not act.value:
        return None
    refrigerant = call.unit.resolved().refrigerant.name
    cylinder = call.shop.cylinders.filter(number=cylinder_number.strip()).first() if cylinder_number.strip() else None
    if cylinder is not None:
        if kind == "recovered" and (why := may_go_in(cylinder.refrigerant, refrigerant, cylinder.recovery)):
            raise FieldErrors({"cylinder": f"Cylinder: {why}"})
        if kind == "added" and cylinder.refrigerant != refrigerant:
            raise FieldErrors({"cylinder": f"Cylinder: {cylinder} holds {cylinder.refrigerant}, the unit takes {refrigerant}"})
    day = timezone.localdate(act.at)
    return _line(user, call.shop, kind, act.value, refrigerant, cylinder=cylinder, unit=call.unit, call=call, act=act, day=day,
                 reason="an estimate: no scale" if act.by_eye else "")  # fmt: skip


@action
def counter_act(user, act):
    """Counter what an act that was taken back had put on the ledger."""
    require_same_shop(user, act)
    for move in GasMove.objects.filter(act=act, counters=None, countered_by=None):
        _counter(user, move, "taken back on the call")


def _line(user, shop, kind, oz, refrigerant, day=None, **more):
    assert kind in KINDS
    made = GasMove.objects.create(
        shop=shop, by=user, kind=kind, oz=oz, refrigerant=refrigerant, day=day or timezone.localdate(work_time.now()), **more
    )
    log.write(user, "gas_move", shop=shop, move=made.pk, kind=kind, oz=round(oz, 2))
    return made
