"""What to come back for, promised on a visit."""

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from kettle.benches.prove.promised import PROPOSALS
from kettle.knowledge.errors import FieldErrors, InputError
from web.logbook.actions.promise import promise
from web.round.views.pages import call_of, show


@require_POST
def add(request, number):
    """Promise to come back: one the core proposes by its code, or in own words."""
    call, typed = call_of(request, number), request.POST
    one = PROPOSALS.get(typed.get("code", ""))
    what, why = (one.what, one.why) if one else (typed.get("what", ""), typed.get("why", ""))
    stop = typed.get("stop") if typed.get("stop") in ("prove", "hand-over") else "hand-over"
    try:
        promise(request.user, call, what, typed.get("due", ""), why, one.code if one else "")
    except FieldErrors as error:
        return show(request, call, stop, promise_typed=typed, promise_wrong=error.by_field)
    except InputError as error:
        messages.error(request, str(error))
    else:
        messages.success(request, "Promised: it is on Board from now on.")
    return redirect("stop", number=number, stop=stop)
