"""Speed of the ledger of refrigerant with 50,000 lines of several shops, as shares of the 200 ms a page may take.

Run with the test requirements installed: python -m benchmarks.ledger
"""

import os
import tempfile

os.environ["DJANGO_SETTINGS_MODULE"] = "web.settings"
os.environ["KETTLE_DATA"] = tempfile.mkdtemp()

import django

django.setup()

import random
from datetime import timedelta

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.test import Client
from django.utils import timezone

from benchmarks.timing import median
from web.accounts.models import Shop
from web.logbook.models import Cylinder, GasMove, Unit

LINES, SHOPS, CYLINDERS = 50_000, 3, 40
PAGE_S = 0.200


def fill(user):
    """Put the lines in: two thirds of them of the person's own shop."""
    chance, today = random.Random(4), timezone.localdate()
    own = user.member.shop
    shops = [own, own, *(Shop.objects.create(name=f"Shop {n}") for n in range(SHOPS - 1))]
    units = list(Unit.objects.filter(shop=own))
    held = {
        shop.pk: [Cylinder.objects.create(shop=shop, number=f"B-{n}", refrigerant="R-404A") for n in range(CYLINDERS)]
        for shop in set(shops)
    }
    lines = []
    for _ in range(LINES):
        shop, kind = chance.choice(shops), chance.choice(("bought", "added", "added", "recovered"))
        unit = chance.choice(units) if shop is own and kind != "bought" else None
        day = today - timedelta(days=chance.randrange(1500))
        lines.append(GasMove(shop=shop, day=day, kind=kind, oz=chance.uniform(1, 90), refrigerant="R-404A", by=user, unit=unit,
                             cylinder=chance.choice(held[shop.pk])))  # fmt: skip
    GasMove.objects.bulk_create(lines, batch_size=2000)
    own.leak_limit_pct = 20.0
    own.save()


def main():
    """Print each page's median and its share of what is wanted."""
    call_command("demo", "--no-serve")
    settings.ALLOWED_HOSTS = ["testserver"]
    user = get_user_model().objects.get(username="wren")
    fill(user)
    client = Client()
    client.force_login(user)
    for page in ("/refrigerant/", "/refrigerant/?page=300", "/refrigerant/sites/1/", "/", "/units/1/"):
        seconds = median(lambda page=page: client.get(page))
        print(f"{page:24} {seconds * 1e3:6.1f} ms  {seconds / PAGE_S:.2f} of what is wanted")


if __name__ == "__main__":
    main()
