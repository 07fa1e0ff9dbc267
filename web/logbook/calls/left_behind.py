"""What was put on a unit and is still there: on this call, and left by earlier ones."""

from web.logbook.models import Placed


def still_there(call):
    """What was put on the unit during a call and is not gone, by the call's own record."""
    return list(call.left_there.filter(undone_at=None, gone_at=None))


def left_before(call):
    """What earlier calls on the same unit left there, not gone by now; each with the call it is of."""
    kept = Placed.objects.filter(call__unit=call.unit_id, undone_at=None, gone_at=None).exclude(call=call.pk)
    return list(kept.select_related("call", "by"))


def on_unit(unit):
    """Everything that is still there on a unit, by any call."""
    return list(Placed.objects.filter(call__unit=unit.pk, undone_at=None, gone_at=None).select_related("call"))


def mark_temporary(units):
    """Say on each of some units which moved output still stands there, in words (`temporary`)."""
    keys = {unit.pk for unit in units}
    moved = Placed.objects.filter(call__unit__in=keys, what="output_moved", undone_at=None, gone_at=None).select_related("call")
    words = {one.call.unit_id: str(one) for one in moved}
    for unit in units:
        unit.temporary = words.get(unit.pk, "")
