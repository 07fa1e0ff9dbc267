"""Write the hand-over of a call, and close it."""

from datetime import date, timedelta

from django.utils import timezone

from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.merging import changed

WORDS = {"complaint": "Complaint", "changed": "What changed", "found": "What was found", "done": "What was done", "advice": "Advice",
         "declined": "Declined by the customer"}  # fmt: skip
FIELDS = (*WORDS, "next_visit", "next_visit_why")
LONGEST = 4000
FURTHEST_DAYS = 730


@action
def write_hand_over(user, call, fields, was=None):
    """Store the words of the hand-over that were changed; FieldErrors by field, also for one that another changed meanwhile (`was` is
    what the form showed), and nothing is stored then."""
    require_same_shop(user, call)
    require_open(call)
    call.refresh_from_db(fields=[*WORDS, "next_visit", "next_visit_why"])
    fields = changed({name: fields[name] for name in FIELDS if name in fields}, was or {}, standing_words(call), _writer(call, user))
    if not fields:
        return
    errors, values = {}, {}
    for name, label in WORDS.items():
        if name in fields:
            values[name] = fields[name].strip()
            if len(values[name]) > LONGEST:
                errors[name] = f"{label}: {len(values[name])} letters are more than {LONGEST}"
    if "next_visit" in fields:
        try:
            values["next_visit"] = _visit_day(fields["next_visit"])
        except InputError as error:
            errors["next_visit"] = str(error)
    if "next_visit_why" in fields:
        values["next_visit_why"] = fields["next_visit_why"].strip()[:200]
    if errors:
        raise FieldErrors(errors)
    for name, value in values.items():
        setattr(call, name, value)
    call.save(update_fields=list(values))
    log.write(user, "write_hand_over", call, **values)


def standing_words(call):
    """The words of the hand-over as a form shows them."""
    day = call.next_visit.isoformat() if call.next_visit else ""
    return {**{name: getattr(call, name) for name in WORDS}, "next_visit": day, "next_visit_why": call.next_visit_why}


def _writer(call, user):
    """Who wrote on the hand-over last, if that was another."""
    line = call.log.filter(action="write_hand_over").exclude(by=user).select_related("by").first()
    return line.by.get_full_name() or line.by.username if line else None


@action
def close_call(user, call):
    """End the visit."""
    require_same_shop(user, call)
    require_open(call)
    call.closed_at = timezone.now()
    call.save(update_fields=["closed_at"])
    log.write(user, "close_call", call)


def _visit_day(text):
    if not text.strip():
        return None
    today = timezone.localdate()
    last = today + timedelta(days=FURTHEST_DAYS)
    try:
        day = date.fromisoformat(text.strip())
    except ValueError:
        raise InputError(f"Next visit: “{text[:20]}” is not a date like {today}") from None
    if not today <= day <= last:
        raise InputError(f"Next visit: {day} is outside {today} to {last}")
    return day
