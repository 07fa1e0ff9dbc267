"""What somebody who teaches does on another's practice call: asks at a part, hints, holds time, puts a second fault in, marks a step."""

from kettle.knowledge import anatomy
from kettle.knowledge.errors import InputError
from kettle.plant import faults
from kettle.yard import practice as core
from web.logbook.actions.acting import action
from web.yard.models import Practice
from web.yard.work import HINT, MARK, QUESTION

LONGEST = 300
MARKS = {"good": "well done", "look": "look again"}


def require_teacher(user, practice):
    """Refuse whoever does not teach on a practice call."""
    if not practice.joined.filter(user=user, role="instructor").exists():
        raise InputError("That is for who teaches on this practice call")
    if practice.is_over:
        raise InputError("This practice call is over: it was named")


def _words(text):
    words = " ".join(text.split())
    if not 2 <= len(words) <= LONGEST:
        raise InputError(f"Words: 2 to {LONGEST} letters")
    return words


@action
def ask_at(user, work, part, words):
    """Ask the learner something, at a part of the unit where one is named."""
    require_teacher(user, work.practice)
    if part and part not in anatomy.PARTS:
        raise InputError("Choose a part, or none")
    return work.keep(QUESTION, anatomy.get(part).label.lower() if part else "", None, 0.0, _words(words))


@action
def give_hint(user, work, words):
    """Give a hint in one's own words."""
    require_teacher(user, work.practice)
    return work.keep(HINT, "", 1.0, 0.0, _words(words))


@action
def hold_time(user, work, held):
    """Hold the time of a practice call, or let it go on."""
    require_teacher(user, work.practice)
    Practice.objects.filter(pk=work.practice.pk).update(frozen=held)
    work.practice.frozen = held


@action
def put_in(user, work, code):
    """Put another fault in, as bad as it comes; InputError for one that cannot be on this unit."""
    require_teacher(user, work.practice)
    if not faults.possible(faults.get(code).code, work.rig.unit):
        raise InputError("That cannot be on this unit")
    if code in work.core.draw.codes:
        raise InputError("That is wrong with it already")
    if work.core.draw.laid_open:
        raise InputError("This one is a call that really was: nothing can be put in")
    return work.keep(core.WORSE, code, 1.0)


@action
def mark(user, work, pk, how):
    """Mark a step of the learner."""
    require_teacher(user, work.practice)
    step = work.practice.steps.filter(pk=pk).first()
    if step is None or how not in MARKS:
        raise InputError("Choose a step, and how it was")
    return work.keep(MARK, str(step.pk), None, 0.0, MARKS[how])
