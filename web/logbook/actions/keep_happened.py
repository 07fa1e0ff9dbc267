"""Keep what has no table of its own: how a part looked, how warm it was, and words that nothing else takes."""

from pydantic import ValidationError

from kettle.call.kinds import KINDS
from kettle.knowledge import anatomy, looks
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import Happened

KEPT_HERE = ("looked", "spot", "note")
MOST = 500


@on_call
def keep_happened(user, call, kind, data, evaporator=None):
    """Store one event of a kind of `KEPT_HERE` with what it carries; InputError says what is wrong and stores nothing."""
    if kind not in KEPT_HERE:
        raise InputError(f"“{kind[:20]}” is not kept here: {', '.join(KEPT_HERE)}")
    data = {name: value for name, value in data.items() if value not in ("", None)}
    try:
        KINDS[kind].carries.model_validate(data)
    except ValidationError as error:
        raise InputError(f"{KINDS[kind].label}: {error.errors()[0]['msg'].removeprefix('Value error, ')}") from None
    part = anatomy.PARTS.get(data.get("part", ""))
    if part is not None and not part.exists_on(call.unit.resolved()):
        raise InputError(f"{part.label}: this unit has none")
    if kind == "looked" and not looks.get(data["part"], data["state"]).exists_on(call.unit.resolved()):
        raise InputError(f"{looks.get(data['part'], data['state']).label}: this unit is not built so")
    if call.happeneds.count() >= MOST:
        raise InputError(f"{call} holds {MOST} of these, which is all it can: open a new call")
    kept = Happened.objects.create(
        call=call, by=user, kind=kind, data=data, evaporator=evaporator if part is not None and part.per_coil else None
    )
    log.write(user, "keep_happened", call, kind=kind, entry=kept.pk)
    return kept
