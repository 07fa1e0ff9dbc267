"""Serve an installation of one's own: no demo data, no simulators, no published password."""

import getpass
import sys
import zoneinfo

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from kettle.knowledge.errors import FieldErrors
from web.accounts.models import Shop
from web.running.first import first_shop
from web.running.serving import check_port, make_ready, serve


class Command(BaseCommand):
    """`manage.py serve [--host H] [--port N]`; ./ok serve calls it."""

    help = "Serve this installation; at the first start the shop and its owner are asked for"
    requires_system_checks = []

    def add_arguments(self, parser):
        parser.add_argument("--host", default="127.0.0.1", help="0.0.0.0 for every address of this machine")
        parser.add_argument("--port", type=int, default=8000)

    def handle(self, *args, host, port, **options):
        check_port(port)
        make_ready()
        if not Shop.objects.exists():
            self._first()
        serve(host, port, told=lambda: self.stdout.write(f"Orange Kettle is at http://{host}:{port}/, its data in {settings.DATA}"))

    def _first(self):
        if not sys.stdin.isatty():
            raise CommandError("There is no shop yet. Make it first: manage.py first --shop NAME --login NAME --name NAME --time-zone ZONE")
        self.stdout.write("There is no shop yet. Four questions:")
        shop = input("What is the shop called? ")
        zone = input(f"Time zone, as in America/Denver [{settings.TIME_ZONE}]: ").strip() or settings.TIME_ZONE
        if zone not in zoneinfo.available_timezones():
            raise CommandError(f"“{zone}” is no time zone, as in America/Denver")
        name, login = input("Your name? "), input("What do you log in as? ")
        try:
            first_shop(shop, zone, login, name, getpass.getpass("A password, ten letters or more: "))
        except FieldErrors as error:
            raise CommandError(str(error)) from None
