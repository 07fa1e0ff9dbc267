"""The Board of a busy shop: 5,000 units, 2,000 closed calls and 60 in progress, as shares of the 200 ms a page may take.

Run with the test requirements installed: python -m benchmarks.board
"""

import os
import tempfile
from datetime import timedelta

os.environ["DJANGO_SETTINGS_MODULE"] = "web.settings"
os.environ["KETTLE_DATA"] = tempfile.mkdtemp()

import django

django.setup()

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.db import connection, transaction
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from benchmarks.timing import first, median
from web.logbook.models import Call, Reading, Site, Unit

UNITS, CLOSED, OPEN, READINGS = 5000, 2000, 60, 12
PAGE_S = 0.200


@transaction.atomic
def busy(user):
    """Fill the shop of a person with units, closed calls, and calls in progress that are read as the demo's freezer is."""
    shop, now = user.member.shop, timezone.now()
    pattern = list(Reading.objects.filter(call__unit__name="Freezer 1", call__closed_at=None, undone_at=None))[:READINGS]
    sites = Site.objects.bulk_create([Site(shop=shop, name=f"Hollow {n}") for n in range(UNITS // 10)])
    units = Unit.objects.bulk_create(
        [
            Unit(shop=shop, site=sites[n // 10], name=f"Room {n % 10}", kind="walk_in_freezer", refrigerant="R-404A", set_f=-5)
            for n in range(UNITS)
        ]
    )
    calls = Call.objects.bulk_create(
        [
            Call(
                shop=shop,
                unit=units[n],
                number=10000 + n,
                opened_by=user,
                opened_at=now - timedelta(hours=n),
                closed_at=None if n < OPEN else now - timedelta(hours=n - 1),
            )
            for n in range(OPEN + CLOSED)
        ]
    )
    Reading.objects.bulk_create(
        [
            Reading(call=call, by=user, key=read.key, value=read.value, typed=read.typed, at=now - timedelta(minutes=2))
            for call in calls[:OPEN]
            for read in pattern
        ]
    )


def main():
    """Print how long the Board takes the first time and afterwards, and after one entry on one call."""
    call_command("demo", "--no-serve")
    settings.ALLOWED_HOSTS = ["testserver"]
    user = get_user_model().objects.get(username="wren")
    busy(user)
    client = Client()
    client.force_login(user)
    print(f"{UNITS} units, {OPEN + Call.objects.filter(closed_at=None).count() - OPEN} calls in progress")

    def board():
        assert client.get("/").status_code == 200

    def entry_and_board():
        client.post("/calls/10003/entry/suction_psig/", {"suction_psig": "9.4", "stop": "read"}, headers={"HX-Request": "true"})
        board()

    with CaptureQueriesContext(connection) as asked:
        seconds = first(board)
    print(f"{'first time':24} {seconds * 1e3:7.1f} ms  {seconds / PAGE_S:.2f} of what is wanted, {len(asked)} queries")
    for name, act in (("Board", board), ("entry, then Board", entry_and_board)):
        seconds = median(act, 10)
        print(f"{name:24} {seconds * 1e3:7.1f} ms  {seconds / PAGE_S:.2f} of what is wanted")


if __name__ == "__main__":
    main()
