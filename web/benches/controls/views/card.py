"""One unit, everything it is set to: a sheet, and a card to stick inside the panel."""

from django.shortcuts import get_object_or_404, render
from django.views.decorators.http import require_safe

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from kettle.knowledge.parameters import PARAMETERS
from web.accounts.access import shown_to
from web.logbook.models import Unit
from web.logbook.units.labels import settings_left


@require_safe
def settings_card(request, pk):
    """Every setting of a unit as it was left last, by whom and why, with the temperature beside every pressure."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site"), pk=pk)
    resolved, shown = unit.resolved(), shown_to(request.user)
    left = settings_left(unit).items()
    rows = [(PARAMETERS[code], change, _beside(resolved, code, change.as_left, shown)) for code, change in left]
    return render(request, "controls/settings_card.html", {"unit": unit, "rows": rows})


def _beside(unit, code, as_left, shown):
    """The saturation of a kept pressure; empty for anything else, and beyond its table."""
    if PARAMETERS[code].unit != "psig":
        return ""
    try:
        return shown.text(unit.refrigerant.dew_f(TRADE.parse(as_left, "psig"), unit.altitude_ft), "°F", 0)
    except InputError:
        return ""
