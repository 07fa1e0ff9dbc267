"""Promise to come back for something, keep the promise on a later visit, or let it go with a reason."""

from datetime import date, timedelta

from django.utils import timezone

from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call, require_open
from web.logbook.models import FollowUp

FURTHEST_DAYS = 730
LONGEST = 200
SHORTEST_REASON = 4
MOST = 40


def day_of(text, label="Day"):
    """Return a day from today on; InputError names what is wrong with it."""
    today = timezone.localdate(work_time.now())
    last = today + timedelta(days=FURTHEST_DAYS)
    try:
        day = date.fromisoformat(text.strip())
    except ValueError:
        raise InputError(f"{label}: “{text.strip()[:20]}” is not a date like {today}") from None
    if not today <= day <= last:
        raise InputError(f"{label}: {day} is outside {today} to {last}")
    return day


@on_call
def promise(user, call, what, due, why="", code="", **when):
    """Store what to come back for and by when (a date, or text of one); FieldErrors by field. One of a code stands on a call once."""
    what, why, wrong = what.strip(), why.strip(), {}
    if not SHORTEST_REASON <= len(what) <= LONGEST:
        wrong["what"] = f"What to look at: {SHORTEST_REASON} to {LONGEST} letters"
    if len(why) > LONGEST:
        wrong["why"] = f"Why: {len(why)} letters are more than {LONGEST}"
    try:
        day = due if isinstance(due, date) else day_of(due)
    except InputError as error:
        wrong["due"] = str(error)
    if wrong:
        raise FieldErrors(wrong)
    standing = call.follow_ups.filter(done_at=None)
    if standing.count() >= MOST:
        raise InputError(f"{call} holds {MOST} follow-ups, which is all it can")
    same = standing.filter(code=code).first() if code else None
    if same is not None:
        same.due, same.what, same.why = day, what, why
        same.save(update_fields=["due", "what", "why"])
        made = same
    else:
        made = FollowUp.objects.create(
            shop_id=call.shop_id, unit_id=call.unit_id, call=call, by=user, what=what, why=why, due=day, code=code, **when
        )
    log.write(user, "promise", call, follow_up=made.pk, due=day.isoformat(), what=what)
    return made


@action
def keep_promise(user, follow_up, call=None):
    """Store that it was looked at, on a visit where it was one; once is enough."""
    require_same_shop(user, follow_up)
    if call is not None:
        require_same_shop(user, call)
        require_open(call)
        if call.unit_id != follow_up.unit_id:
            raise InputError("That was promised on another unit")
    return _end(user, follow_up, call, "")


@action
def let_go(user, follow_up, reason):
    """Store that nobody comes back for it, and why."""
    require_same_shop(user, follow_up)
    reason = reason.strip()
    if not SHORTEST_REASON <= len(reason) <= LONGEST:
        raise FieldErrors({"reason": f"Why not: {SHORTEST_REASON} to {LONGEST} letters"})
    return _end(user, follow_up, None, reason)


def _end(user, follow_up, call, reason):
    follow_up.refresh_from_db()
    if follow_up.is_open:
        follow_up.done_at, follow_up.done_by, follow_up.done_on, follow_up.let_go = work_time.now(), user, call, reason
        follow_up.save(update_fields=["done_at", "done_by", "done_on", "let_go"])
        log.write(user, "end_promise", follow_up.call, follow_up=follow_up.pk, reason=reason)
    return follow_up
