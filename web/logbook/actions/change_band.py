"""Make a band a unit's own, or give it back to its kind; who, when and why stay on record."""

from kettle.knowledge.bands import check_band, unit_of
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.models import BandChange


def version_of(unit, quantity):
    """What a form shows of a band's state, to see whether another changed it meanwhile."""
    return " ".join(f"{end:g}" for end in unit.bands.get(quantity, ()))


@action
def change_band(user, unit, quantity, low_typed, high_typed, why, was=None):
    """Store a band; both ends empty give it back to the kind. FieldErrors names each field that is wrong."""
    require_same_shop(user, unit)
    unit.refresh_from_db(fields=["bands"])
    shown, errors, ends = shown_to(user), {}, []
    try:
        measure = unit_of(quantity)
    except InputError as error:
        raise FieldErrors({"quantity": str(error)}) from None
    back = not low_typed.strip() and not high_typed.strip()
    for name, label, typed in (("low", "From", low_typed), ("high", "To", high_typed)):
        if back:
            break
        try:
            ends.append(shown.parse(typed, measure))
        except InputError as error:
            errors[name] = f"{label}: {error}"
    why = why.strip()
    if not 3 <= len(why) <= 300:
        errors["why"] = "Why: say it in 3 to 300 letters"
    if not errors and not back:
        try:
            check_band(quantity, *ends, shown)
        except InputError as error:
            errors["low"] = str(error)
    if was is not None and was != version_of(unit, quantity):
        last = unit.bandchanges.filter(quantity=quantity).select_related("by").first()
        by = last.by.get_full_name() if last else "Somebody"
        errors["low"] = f"{by} changed this band meanwhile; look at it above, then keep again to put yours in its place"
    if errors:
        raise FieldErrors(errors)
    low, high = (None, None) if back else ends
    bands = {name: band for name, band in unit.bands.items() if name != quantity}
    unit.bands = bands if back else bands | {quantity: [low, high]}
    unit.save(update_fields=["bands"])
    change = BandChange.objects.create(unit=unit, by=user, quantity=quantity, low=low, high=high, why=why)
    log.of_unit(user, "change_band", unit, quantity=quantity, low=low, high=high, why=why)
    return change
