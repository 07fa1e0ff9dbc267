"""Leak rates of a shop's units by its ledger, by the method and against the limit the shop chose."""

from datetime import timedelta

from django.db.models import Sum
from django.utils import timezone

from kettle.benches.charge.missing import usual_charge_oz
from kettle.benches.refrigerant.ledger import Move, leak_rate
from web import work_time
from web.logbook.models import GasMove, Unit

LOOKED_BACK_DAYS = 760


def leak_of(unit, moves=None):
    """The leak rate of a unit in words and whether it is over the shop's limit: (rate, over); None where nothing was added."""
    if moves is None:
        moves = _added(unit.gas_moves)
    shop = unit.shop
    rate = leak_rate(moves, str(unit.pk), usual_charge_oz(unit.resolved()), timezone.localdate(work_time.now()), shop.leak_method)
    return None if rate is None else (rate, shop.leak_limit_pct is not None and rate.pct > shop.leak_limit_pct)


def _added(rows):
    """What went into each unit on each day, as the core takes it."""
    since = timezone.localdate(work_time.now()) - timedelta(days=LOOKED_BACK_DAYS)
    told = rows.filter(kind="added", day__gte=since).order_by().values_list("unit", "day").annotate(Sum("oz"))
    return [Move(day, "added", oz, "", unit=str(unit)) for unit, day, oz in told]


def over_limit(shop):
    """The units of a shop whose leak rate is over its limit, each with its rate; none where no limit is set."""
    if shop.leak_limit_pct is None:
        return []
    moves = _added(GasMove.objects.filter(shop=shop, unit__isnull=False))
    by_unit = {}
    for one in moves:
        by_unit.setdefault(one.unit, []).append(one)
    units = Unit.objects.filter(pk__in=[int(pk) for pk in by_unit]).select_related("site", "shop")
    found = [(unit, leak_of(unit, by_unit[str(unit.pk)])) for unit in units]
    return [(unit, leak[0]) for unit, leak in found if leak is not None and leak[1]]
