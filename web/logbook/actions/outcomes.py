"""What a call came to when it was closed, and the answer whether it held."""

from kettle.benches.prove.held import ANSWERS
from kettle.knowledge.errors import InputError
from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.calls.judging import told_of
from web.logbook.models import Outcome


def keep_outcome(call):
    """Store what a call came to: first suspect with its probability, the cause named and when, what was done (part of closing it)."""
    told = told_of(call)
    course = told.course(1)
    first = course.was[0] if course.now.has_evidence and course.was else None
    finding = call.findings.filter(undone_at=None).order_by("at").last()
    kept = {
        "suspects": list(first.codes) if first else [],
        "probability": float(first.probability) if first else 0.0,
        "found": list(finding.causes) if finding else [],
        "minutes": (finding.at - call.opened_at).total_seconds() / 60.0 if finding else None,
        "done": [step.did.code for step in told.call.staged.steps],
    }
    return Outcome.objects.update_or_create(call=call, defaults=kept)[0]


@action
def answer_outcome(user, outcome, answer):
    """Store whether what was done on a call held; said again, the later stands."""
    require_same_shop(user, outcome.call)
    if answer not in ANSWERS:
        raise InputError(f"Did it hold? Choose one of {', '.join(ANSWERS.values())}")
    outcome.answer, outcome.answered_at, outcome.answered_by = answer, work_time.now(), user
    outcome.save(update_fields=["answer", "answered_at", "answered_by"])
    log.write(user, "did_it_hold", outcome.call, answer=answer)
    return outcome
