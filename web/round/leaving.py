"""What Hand over asks before the call is closed: each thing left with its answer, and where it can be put right."""

from django.urls import reverse

from kettle.benches.prove.leaving import ANSWERS, unanswered
from web.logbook.leaving import answered, doubts

# Where each kind of thing left is put right: an address of the call, or a stop.
PLACES = {"service": "controller", "unconfirmed": "controller", "ice": "ice", "quote": "quote", "unasked": "quote"}
WAYS = {"proof": "Prove it", "quote": "To the quote", "unasked": "To the quote"}
STOPS = {"proof": "prove", "for_now": "correct", "said": "melt", "placed": "power"}


def leaving_context(request, standing):
    """The doubts of a call with their answers; none where it is closed."""
    call = standing.call
    if not call.is_open:
        return {}
    found, given = doubts(call, standing.judgement.verdicts), answered(call)
    rows = [(one, ANSWERS.get(given.get(one.key, "")), _place(call, one.kind), WAYS.get(one.kind, "Put it right")) for one in found]
    return {"doubts": rows, "unanswered": unanswered(found, given)}


def _place(call, kind):
    return reverse(PLACES[kind], args=[call.number]) if kind in PLACES else reverse("stop", args=[call.number, STOPS[kind]])
