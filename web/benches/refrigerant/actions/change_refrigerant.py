"""Put it on record that a unit runs on another refrigerant from now on: the call knows both, what was before keeps the old one."""

from django.db import transaction

from kettle.benches.refrigerant import retrofit
from kettle.knowledge import refrigerants
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import Happened, Unit


@on_call
def change_refrigerant(user, call, to):
    """Store the change; InputError where the core refuses it, or one is on record already."""
    if to not in refrigerants.catalogue():
        raise InputError(f"Refrigerant: “{to[:20]}” is not one of the list")
    if call.happeneds.filter(kind="retrofit", undone_at=None).exists():
        raise InputError("It was changed on this call already: take that back under Taken first")
    unit = Unit.objects.get(pk=call.unit_id)
    other, old = refrigerants.get(to), unit.refrigerant
    told = retrofit.retrofit(unit.resolved(), other)
    if told.refused:
        raise InputError(told.refused)
    with transaction.atomic():
        # Calls before this one, and what came before it on this one, were on the old refrigerant.
        for one in unit.calls.all():
            if "refrigerant" not in one.told_with:
                one.told_with = {**one.told_with, "refrigerant": old}
                one.save(update_fields=["told_with"])
        kept = Happened.objects.create(call=call, by=user, kind="retrofit", data={"to": other.name, "oil": retrofit.oil(other)})
        unit.refrigerant = other.name
        unit.save(update_fields=["refrigerant"])
    call.refresh_from_db()
    log.write(user, "change_refrigerant", call, was=old, to=other.name)
    return kept
