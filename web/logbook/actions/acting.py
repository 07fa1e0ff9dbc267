"""What every action is: all of it or nothing, its line in the log included, on a call that is still open."""

import logging
import time
from functools import wraps

from django.db import transaction

from kettle.knowledge.errors import InputError
from web.accounts.access import require_same_shop
from web.logbook import once
from web.logbook.models import Call

# An action that takes longer is noted: everybody's entries wait for it.
LONGEST_S = 1.0
_log = logging.getLogger(__name__)


def action(function):
    """Make a function an action: one transaction, which takes the write lock before the first look at what it changes.

    What a form sent twice is taken once: the first action of a request notes the form's key with what it stores.
    """

    @wraps(function)
    def acted(*given, **named):
        began = time.monotonic()
        with transaction.atomic():
            noted = once.note()
            try:
                return function(*given, **named)
            except BaseException:
                if noted:
                    once.forget()
                raise
            finally:
                if (held := time.monotonic() - began) > LONGEST_S:
                    _log.warning("%s held the data for %.1f s: nobody else could write", function.__qualname__, held)

    acted.is_action = True
    return acted


def on_call(function):
    """Make a function an action on a call: of the shop of whoever acts, and open, both asked inside its transaction."""

    @action
    @wraps(function)
    def acted(user, call, *given, **named):
        require_same_shop(user, call)
        require_open(call)
        return function(user, call, *given, **named)

    acted.asks_open = True
    return acted


def outside(function):
    """Make a function an action that waits for something outside (a device, a picture) and holds no lock meanwhile.

    What it keeps in the end it keeps by an action of its own, which looks again.
    """
    function.is_action = True
    return function


def require_open(call):
    """Refuse to change what a closed call says; asked inside the action's transaction, so that nobody closes it in between."""
    call.closed_at = Call.objects.values_list("closed_at", flat=True).get(pk=call.pk)
    if not call.is_open:
        raise InputError(f"{call} is closed; open a new call to record more")
