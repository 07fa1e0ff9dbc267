"""Keep a quick look: on a known unit, or as a new unit of a site."""

from kettle.knowledge.errors import InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.actions.save_unit import save_unit


@action
def keep_on_known_unit(user, call, unit):
    """Move the call to a known unit and drop the scratch unit."""
    require_same_shop(user, call)
    require_same_shop(user, unit)
    _require_quick(call)
    if unit.refrigerant != call.unit.refrigerant:
        raise InputError(f"Unit: {unit} runs on {unit.refrigerant}, the quick look was read as {call.unit.refrigerant}")
    scratch, call.unit = call.unit, unit
    call.save(update_fields=["unit"])
    scratch.delete()
    log.write(user, "keep_call", call, unit=unit.pk)


@action
def keep_as_new_unit(user, call, site_name, unit_name):
    """Give the scratch unit a name and a site, new or known."""
    require_same_shop(user, call)
    _require_quick(call)
    site_name, unit_name = site_name.strip(), unit_name.strip()
    for label, text in (("Site", site_name), ("Unit name", unit_name)):
        if not 1 <= len(text) <= 80:
            raise InputError(f"{label}: 1 to 80 letters are needed")
    call.unit.name = unit_name
    save_unit(user, call.unit, site_name)
    log.write(user, "keep_call", call, unit=call.unit.pk)


def _require_quick(call):
    if call.unit.site is not None:
        raise InputError("This call is already kept on a unit")
