"""Say what the cause was found to be; it counts at the unit's next visit."""

from kettle.knowledge import causes
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import Finding

# What was seen, and two beside it.
MOST = 5


@on_call
def name_cause(user, call, codes, evaporator=None):
    """Store the causes found on a call, one or several at once; InputError for one that does not exist."""
    if not 1 <= len(codes) <= MOST:
        raise InputError(f"Cause: name one to {MOST}")
    found = Finding.objects.create(call=call, by=user, causes=[causes.get(code).code for code in codes], evaporator=evaporator)
    log.write(user, "name_cause", call, causes=found.causes)
    return found
