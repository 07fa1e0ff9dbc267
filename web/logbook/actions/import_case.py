"""Open a call from a case file: all of it or nothing."""

from datetime import timedelta

from django.utils import timezone

from kettle import case
from web.accounts.access import shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.actions.open_call import open_call
from web.logbook.models import Act, Reading, Unit

SOURCE = "case file"


@action
def import_case(user, content):
    """Read a case file and open a call on a unit without a site; InputError where the file is not sound."""
    read = case.read(content)
    data = read.unit.model_dump(exclude_none=True)
    name = data.pop("name", "") or "From a case file"
    unit = Unit.objects.create(shop=shop_of(user), name=name, **data)
    call = open_call(user, unit)
    seen_at, done_at = _times(read, timezone.now())
    Act.objects.bulk_create(
        Act(call=call, by=user, part=act.part, did=act.did, value=act.value, evaporator=act.on, at=at)
        for act, at in zip(read.acts, done_at, strict=True)
    )
    Reading.objects.bulk_create(
        Reading(
            call=call,
            by=user,
            key=entry.key,
            value=list(entry.checked) if isinstance(entry.checked, tuple) else entry.checked,
            at=at,
            source=entry.source or SOURCE,
            evaporator=entry.on,
        )
        for entry, at in seen_at
    )
    log.write(user, "import_case", call, observations=len(read.observations), acts=len(read.acts))
    return call


def _times(read, now):
    """When each observation was taken and each act done, so that every observation lies in its stage.

    The file's own times where they say the same; where some are missing or say otherwise, the stages follow one another minute by minute.
    """
    rows, moments = read.in_order(), [act.at for act in read.acts]
    own = all(moment is not None for moment in moments) and moments == sorted(moments)
    timed = [min(entry.at or now, now) if not moments or entry.at else None for entry in rows]
    if own and all(timed) and all(read.stage_of(entry) == sum(m <= entry.at for m in moments) for entry in rows if entry.at):
        return list(zip(rows, timed, strict=True)), [min(moment, now) for moment in moments]
    start = now - timedelta(minutes=len(moments) + 1)
    done = [start + timedelta(minutes=place + 1) for place in range(len(moments))]
    return [(entry, start + timedelta(minutes=read.stage_of(entry), seconds=1)) for entry in rows], done
