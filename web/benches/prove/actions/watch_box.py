"""Watch a box down: begin, read, be reminded; and proofs that are seen and no reading."""

from datetime import timedelta

from kettle.benches.prove.proofs import KINDS
from kettle.benches.prove.stock import STOCK
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import whole
from web import work_time
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call, require_open
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import BoxWatch, ProofSeen

FIELDS = (("from_f", "Box at the start", "box_temp_f"), ("ambient_f", "Air at the condenser", "ambient_f"))
REMIND_MIN = (5, 24 * 60)


@action
def watch_box(user, call, typed, **when):
    """Begin to watch the box from what it reads now, with the air outside and the stock; FieldErrors by field. `when` may give `at`."""
    from kettle.benches.prove.pull_down import AIR_F, AMBIENT_F

    require_same_shop(user, call)
    require_open(call)
    shown, wrong, values = shown_to(user), {}, {}
    for (name, label, _), (low, high) in zip(FIELDS, (AIR_F, AMBIENT_F), strict=True):
        try:
            values[name] = shown.parse(typed.get(name, ""), "°F")
        except InputError as error:
            wrong[name] = f"{label}: {error}"
            continue
        if not low <= values[name] <= high:
            wrong[name] = f"{label}: {shown.text(values[name], '°F')} is outside {shown.span(low, high, '°F')}"
    stock = typed.get("stock", "")
    if stock not in STOCK:
        wrong["stock"] = f"Stock: choose one of {', '.join(STOCK.values())}"
    if wrong:
        raise FieldErrors(wrong)
    call.box_watches.filter(undone_at=None).update(undone_at=work_time.now(), undone_by=user)
    made = BoxWatch.objects.create(call=call, by=user, stock=stock, **values, **when)
    for name, _, key in FIELDS:
        record_reading(user, call, key, float(values[name]), **when)
    log.write(user, "watch_box", call, **values, stock=stock)
    return made


@on_call
def remind(user, call, minutes_text):
    """Ask to be reminded of the box in so many minutes; InputError for what is no time."""
    low, high = REMIND_MIN
    minutes = whole(minutes_text, low, high)
    if minutes is None:
        raise InputError(f"Remind me: “{minutes_text[:10]}” is outside {low} to {high} minutes")
    watch = call.box_watches.filter(undone_at=None).last()
    if watch is None:
        raise InputError("Begin to watch the box first")
    watch.remind_at, watch.reminded_at = work_time.now() + timedelta(minutes=minutes), None
    watch.save(update_fields=["remind_at", "reminded_at"])
    log.write(user, "remind", call, minutes=minutes)
    return watch


@action
def reminded(user, watch):
    """Take a reminder as heard."""
    require_same_shop(user, watch)
    if watch.reminded_at is None:
        watch.reminded_at = work_time.now()
        watch.save(update_fields=["reminded_at"])
    return watch


@on_call
def see_proof(user, call, code):
    """Say by one tap that a proof was seen; said again it is taken back. It is a word about the repair, no observation of its own."""
    if code not in KINDS:
        raise InputError("That is no proof")
    standing = call.proofs_seen.filter(code=code, undone_at=None).last()
    if standing is not None:
        standing.undone_at, standing.undone_by = work_time.now(), user
        standing.save(update_fields=["undone_at", "undone_by"])
    else:
        standing = ProofSeen.objects.create(call=call, by=user, code=code)
    log.write(user, "see_proof", call, code=code)
    return standing
