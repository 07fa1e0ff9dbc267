"""The first shop of an installation and its owner."""

import zoneinfo

from django.conf import settings
from django.db import transaction

from kettle.knowledge.errors import FieldErrors
from web.accounts.models import Shop
from web.logbook.actions.people import make_person

LONGEST = 80


@transaction.atomic
def first_shop(shop_name, time_zone, login, full_name, password):
    """Make a shop and its owner and keep the time zone; FieldErrors names what is wrong, and nothing is stored."""
    shop_name = " ".join(shop_name.split())
    errors = {}
    if not 2 <= len(shop_name) <= LONGEST:
        errors["shop"] = f"Shop: 2 to {LONGEST} letters are needed"
    elif Shop.objects.filter(name=shop_name).exists():
        errors["shop"] = f"Shop: there is one called “{shop_name}” already"
    if time_zone not in zoneinfo.available_timezones():
        errors["time_zone"] = f"Time zone: “{time_zone[:40]}” is none, as in America/Denver"
    if errors:
        raise FieldErrors(errors)
    shop = Shop.objects.create(name=shop_name)
    user, _ = make_person(shop, login, full_name, password, owner=True)
    (settings.DATA / "time-zone").write_text(time_zone)
    return shop, user
