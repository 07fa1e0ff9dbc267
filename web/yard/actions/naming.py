"""Name what a practice call was: that ends it."""

from django.utils import timezone

from kettle.knowledge import causes
from kettle.knowledge.errors import InputError
from kettle.yard import practice as core
from web.logbook.actions.acting import action

MOST = 3


@action
def name_it(user, work, codes):
    """Store what it was named as, and end the call; InputError for a cause that is none, or more than three."""
    practice = work.practice
    practice.refresh_from_db()
    if practice.is_over:
        raise InputError("It was named already")
    if user.pk != practice.learner_id and not practice.joined.filter(user=user, role="partner").exists():
        raise InputError("Who works on it names it")
    named = list(dict.fromkeys(causes.get(code).code for code in codes))
    if len(named) > MOST:
        raise InputError(f"Name at most {MOST}")
    work.keep(core.NAMED, "+".join(named))
    practice.named, practice.ended_at = named, timezone.now()
    practice.save(update_fields=["named", "ended_at"])
    return practice
