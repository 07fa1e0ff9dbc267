"""Make the first shop and its owner by a command."""

import getpass
import sys

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from kettle.knowledge.errors import FieldErrors
from web.running.first import first_shop
from web.running.serving import make_ready


class Command(BaseCommand):
    """`manage.py first --shop NAME --login NAME --name NAME`; the password is asked for, or read from standard input."""

    help = "Make a shop and its owner"

    def add_arguments(self, parser):
        parser.add_argument("--shop", required=True)
        parser.add_argument("--login", required=True)
        parser.add_argument("--name", required=True)
        parser.add_argument("--time-zone", default=settings.TIME_ZONE)

    def handle(self, *args, shop, login, name, time_zone, **options):
        make_ready()
        password = getpass.getpass("A password: ") if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
        try:
            first_shop(shop, time_zone, login, name, password)
        except FieldErrors as error:
            raise CommandError(str(error)) from None
        self.stdout.write(f"{shop} is there; {login} owns it.")
