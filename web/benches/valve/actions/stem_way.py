"""Keep which way a unit's valve turns: clockwise closes nearly all, and opens a few."""

from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action


@action
def stem_way(user, unit, other_way):
    """Store that the valve of a unit opens clockwise, or as usual closes."""
    require_same_shop(user, unit)
    if unit.stem_reversed != other_way:
        unit.stem_reversed = other_way
        unit.save(update_fields=["stem_reversed"])
        log.of_unit(user, "stem_way", unit, other_way=other_way)
    return unit
