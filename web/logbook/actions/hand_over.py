"""Write the hand-over of a call, answer what is left so, and close it."""

from datetime import timedelta

from django.utils import timezone

from kettle.benches.prove.leaving import KINDS
from kettle.call import asks
from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.outcomes import keep_outcome
from web.logbook.actions.promise import LONGEST as LONGEST_WHY
from web.logbook.actions.promise import promise
from web.logbook.actions.reasons import LETTERS, is_said
from web.logbook.calls.judging import told_of
from web.logbook.calls.leaving import doubts
from web.logbook.calls.left_behind import left_before, still_there
from web.logbook.merging import changed
from web.logbook.models import Leaving, Override

WORDS = {"complaint": "Complaint", "changed": "What changed", "found": "What was found", "done": "What was done", "advice": "Advice",
         "declined": "Declined by the customer"}  # fmt: skip
LONGEST, LONGEST_WORDS = 4000, 300


@on_call
def write_hand_over(user, call, fields, was=None):
    """Store the words of the hand-over that were changed; FieldErrors by field, also for one that another changed meanwhile (`was` is
    what the form showed), and nothing is stored then."""
    call.refresh_from_db(fields=list(WORDS))
    fields = changed({name: fields[name] for name in WORDS if name in fields}, was or {}, standing_words(call), _writer(call, user))
    if not fields:
        return
    errors, values = {}, {}
    for name, label in WORDS.items():
        if name in fields:
            values[name] = fields[name].strip()
            if len(values[name]) > LONGEST:
                errors[name] = f"{label}: {len(values[name])} letters are more than {LONGEST}"
    if errors:
        raise FieldErrors(errors)
    for name, value in values.items():
        setattr(call, name, value)
    call.save(update_fields=list(values))
    log.write(user, "write_hand_over", call, **values)


def standing_words(call):
    """The words of the hand-over as a form shows them."""
    return {name: getattr(call, name) for name in WORDS}


def _writer(call, user):
    """Who wrote on the hand-over last, if that was another."""
    line = call.log.filter(action="write_hand_over").exclude(by=user).select_related("by").first()
    return line.by.get_full_name() or line.by.username if line else None


@on_call
def answer_doubt(user, call, key, answer):
    """Answer one thing that is left so; no answer asks it again. InputError where there is no such thing, or no such answer to it."""
    doubt = next((one for one in doubts(call) if one.key == key), None)
    if doubt is None:
        raise InputError("That is settled by now, or was never open")
    if answer and not doubt.takes(answer):
        raise InputError(f"{doubt.text}: choose one of the answers")
    call.leavings.filter(key=key, undone_at=None).update(undone_at=work_time.now(), undone_by=user)
    if answer:
        Leaving.objects.create(call=call, by=user, key=key, words=doubt.text[:LONGEST_WORDS], answer=answer)
    log.write(user, "answer_doubt", call, key=key, answer=answer)


def _promises(doubt, proposal):
    return doubt.given is not None and doubt.given.again and KINDS[doubt.code].promises == proposal


@on_call
def close_call(user, call, reason=""):
    """End the visit; InputError where something should not be left so, has no answer of its own, and no reason says why it is."""
    told, reason = told_of(call), reason.strip()
    found = told.leave
    open_ones = asks.unanswered(found)
    if open_ones and not is_said(reason):
        words = ". ".join(one.text for one in open_ones)
        raise InputError(f"{words}. Answer each, or say why it is left so in {LETTERS}")
    why = asks.reasons(found, reason)
    for words, ones in why.items():
        texts = [one.text for one in ones]
        Override.objects.create(call=call, by=user, action="close", holds=["left_so"], texts=texts, reason=words)
    left_why = {one.opened_by.ref: words for words, ones in why.items() for one in ones if one.code == "left_there" and one.opened_by}
    for one in (*still_there(call), *left_before(call)):
        one.left_why = left_why[f"placed:{one.pk}"]
        one.save(update_fields=["left_why"])
    for one in asks.promised(found):
        words = next(words for words, ones in why.items() if any(_promises(each, one) for each in ones))
        due = timezone.localdate(work_time.now()) + timedelta(days=one.days[0])
        if not call.follow_ups.filter(code=one.code).exists():
            promise(user, call, one.what, due, f"{one.why}: {words}"[:LONGEST_WHY], one.code)
    call.closed_at = work_time.now()
    call.save(update_fields=["closed_at"])
    keep_outcome(call)
    log.write(user, "close_call", call, left_so=[one.text for one in found], reason=" · ".join(why))
