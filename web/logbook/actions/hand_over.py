"""Write the hand-over of a call, and close it."""

from datetime import date, timedelta

from django.utils import timezone

from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open

WORDS = {"complaint": "Complaint", "changed": "What changed", "found": "What was found", "done": "What was done", "advice": "Advice",
         "declined": "Declined by the customer"}  # fmt: skip
LONGEST = 4000
FURTHEST_DAYS = 730


@action
def write_hand_over(user, call, fields):
    """Store the words of the hand-over that are given; FieldErrors by field, and nothing is stored then."""
    require_same_shop(user, call)
    require_open(call)
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
