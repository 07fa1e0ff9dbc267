"""Load the demo scenario through the same actions a person uses; what is there already is kept."""

from datetime import timedelta

from django.contrib.auth import get_user_model
from django.db import transaction
from django.utils import timezone

from kettle import refrigerants
from web.accounts.models import Member, Shop
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.turn_valve import turn_valve
from web.logbook.demo_data import PASSWORD, PEOPLE, SHOP, SITES, UNITS
from web.logbook.judging import judge_call
from web.logbook.models import Site, Unit

MINUTES_BETWEEN_READINGS = 1
VISIT_MINUTES = 100
OPEN_SINCE_MINUTES = 45
TURNED_MINUTES_AGO = 4

__all__ = ["PASSWORD", "PEOPLE", "load"]


@transaction.atomic
def load(now=None):
    """Load the scenario unless its shop is there; times run back from `now`."""
    if Shop.objects.filter(name=SHOP).exists():
        return
    now = now or timezone.now()
    shop = Shop.objects.create(name=SHOP)
    people = {name: _person(shop, name, full_name) for name, full_name in PEOPLE}
    sites = {name: Site.objects.create(shop=shop, name=name, altitude_ft=altitude) for name, altitude in SITES.items()}
    visits = []
    for entry in UNITS:
        unit = Unit.objects.create(shop=shop, site=sites[entry.site], name=entry.name, notes=entry.notes, **entry.plate)
        visits += [(call.days_ago, call.hour, unit, call) for call in entry.calls]
    for _, _, unit, entry in sorted(visits, key=lambda visit: (-visit[0], visit[1])):
        _visit(people[entry.by], unit, entry, now)


def _person(shop, name, full_name):
    first, _, last = full_name.partition(" ")
    user = get_user_model().objects.create_user(name, password=PASSWORD, first_name=first, last_name=last)
    Member.objects.create(user=user, shop=shop)
    return user


def _visit(user, unit, entry, now):
    start = now - timedelta(minutes=OPEN_SINCE_MINUTES)
    if not entry.open:
        start = (now - timedelta(days=entry.days_ago)).replace(hour=entry.hour, minute=10, second=0, microsecond=0)
    call = open_call(user, unit, entry.complaint, opened_at=start)
    seen = {**entry.seen, **(_readings(unit, entry) if entry.circuit else {})}
    for count, (key, value) in enumerate(seen.items(), start=1):
        typed = value if isinstance(value, (str, list)) else f"{value:g}"
        record_reading(user, call, key, typed, at=start + timedelta(minutes=count * MINUTES_BETWEEN_READINGS))
    for direction, turns, goal, reason in entry.turns:
        turn_valve(user, call, judge_call(call), direction, turns, goal, reason, at=now - timedelta(minutes=TURNED_MINUTES_AGO))
    for code, found, left, why in entry.settings:
        change_setting(user, call, code, found, left, why, at=start + timedelta(minutes=VISIT_MINUTES // 2))
    for name, text in entry.words.items():
        setattr(call, name, text)
    if entry.next_in_days is not None:
        call.next_visit = timezone.localdate(now) + timedelta(days=entry.next_in_days)
        call.next_visit_why = entry.next_why
    if not entry.open:
        call.closed_at = start + timedelta(minutes=VISIT_MINUTES)
    call.save()


def _readings(unit, entry):
    """The circuit of a visit as gauges and clamps show it, rounded as a technician reads them."""
    circuit, altitude = entry.circuit, unit.site.altitude_ft
    refrigerant = refrigerants.get(unit.refrigerant)
    return {
        "suction_psig": round(refrigerant.dew_psig(circuit.sst, altitude), 1),
        "discharge_psig": round(refrigerant.bubble_psig(circuit.sct, altitude), 0),
        "suction_line_evap_f": round(circuit.sst + circuit.superheat, 1),
        "suction_line_comp_f": round(circuit.sst + circuit.superheat + circuit.gain, 1),
        "liquid_line_f": round(circuit.sct - circuit.subcooling, 1),
        "discharge_line_f": round(circuit.sct + circuit.discharge_above_sct, 0),
    }
