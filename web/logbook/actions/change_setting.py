"""Record a change of a setting: as found, as left, why."""

from datetime import timedelta

from django.utils import timezone

from kettle.knowledge import observations, parameters
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import SettingChange
from web.logbook.models.records import SETTING

# What was found was there before it was changed.
BEFORE = timedelta(milliseconds=1)


@action
def change_setting(user, call, code, found_typed, left_typed, why, **when):
    """Store one setting as found and as left; FieldErrors names each field that is wrong, and nothing is stored."""
    require_same_shop(user, call)
    require_open(call)
    parameter = parameters.get(code)
    errors, values = {}, {}
    for field, typed, side in (("as_found", found_typed, "As found"), ("as_left", left_typed, "As left")):
        try:
            values[field] = parameter.parse(typed, side, shown_to(user))
        except InputError as error:
            errors[field] = str(error)
    why = why.strip()
    if not 3 <= len(why) <= 300:
        errors["why"] = "Why: say it in 3 to 300 letters"
    if errors:
        raise FieldErrors(errors)
    at = when.get("at") or timezone.now()
    change = SettingChange.objects.create(call=call, by=user, parameter=code, why=why, at=at, **values)
    if parameter.observed and observations.get(parameter.observed).exists_on(call.unit.resolved()):
        stands = call.readings.filter(key=parameter.observed, undone_at=None, at__lt=at).last()
        found = record_reading(user, call, parameter.observed, found_typed, source=SETTING, at=at - BEFORE)
        if stands is not None and stands.value == found.value:
            found.delete()
        record_reading(user, call, parameter.observed, left_typed, source=SETTING, at=at)
    log.write(user, "change_setting", call, parameter=code, **values)
    return change
