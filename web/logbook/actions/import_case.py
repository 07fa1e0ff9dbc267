"""Open a call from a case file: all of it or nothing."""

from django.utils import timezone

from kettle import case
from kettle.knowledge.errors import InputError
from web.accounts.access import shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.actions.open_call import open_call
from web.logbook.models import Reading, Unit

SOURCE = "case file"
ACTS = "it holds acts, which a call cannot keep yet: python -m kettle judge works out its course"


@action
def import_case(user, content):
    """Read a case file and open a call on a unit without a site; InputError where the file is not sound."""
    read = case.read(content)
    if read.acts:
        raise InputError(ACTS)
    data = read.unit.model_dump(exclude_none=True)
    name = data.pop("name", "") or "From a case file"
    unit = Unit.objects.create(shop=shop_of(user), name=name, **data)
    call = open_call(user, unit)
    now = timezone.now()
    Reading.objects.bulk_create(
        Reading(
            call=call,
            by=user,
            key=entry.key,
            value=list(entry.checked) if isinstance(entry.checked, tuple) else entry.checked,
            at=min(entry.at or now, now),
            source=entry.source or SOURCE,
            evaporator=entry.on,
        )
        for entry in read.in_order()
    )
    log.write(user, "import_case", call, observations=len(read.observations))
    return call
