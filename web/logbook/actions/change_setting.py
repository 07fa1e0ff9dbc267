"""Record a change of a setting: as found, as left, why."""

from datetime import timedelta

from kettle.knowledge import observations, parameters
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import TRADE
from web import work_time
from web.accounts.access import shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import SettingChange
from web.logbook.models.records import SETTING

# What was found was there before it was changed.
BEFORE = timedelta(milliseconds=1)


@on_call
def change_setting(user, call, code, found_typed, left_typed, why, **when):
    """Store one setting as found and as left; FieldErrors names each field that is wrong, and nothing is stored."""
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
    at = when.get("at") or work_time.now()
    change = SettingChange.objects.create(call=call, by=user, parameter=code, why=why, at=at, **values)
    if parameter.observed and observations.get(parameter.observed).exists_on(call.unit.resolved()):
        stands = call.readings.filter(key=parameter.observed, undone_at=None, at__lt=at).last()
        found = record_reading(user, call, parameter.observed, found_typed, source=SETTING, at=at - BEFORE)
        if stands is not None and stands.value == found.value:
            found.delete()
        record_reading(user, call, parameter.observed, left_typed, source=SETTING, at=at)
    if parameter.plate:
        set_plate(call, parameter)
    log.write(user, "change_setting", call, parameter=code, **values)
    return change


def set_plate(call, parameter):
    """Put on the unit's plate what its control was left at by the last change of this call that stands, else what stood before it."""
    told_with = call.told_with or {}
    was = told_with.get(parameter.plate, getattr(call.unit.resolved(), parameter.plate))
    last = call.settingchanges.filter(parameter=parameter.code, undone_at=None).order_by("at", "pk").last()
    left = was if last is None else TRADE.parse(last.as_left, parameter.unit)
    for one in call.unit.calls.all():
        # Calls before this one, and what came before it on this one, were at what stood then.
        if parameter.plate not in one.told_with:
            one.told_with = one.told_with | {parameter.plate: was}
            one.save(update_fields=["told_with"])
    type(call.unit).objects.filter(pk=call.unit_id).update(**{parameter.plate: left})
    setattr(call.unit, parameter.plate, left)
    call.refresh_from_db(fields=["told_with"])
