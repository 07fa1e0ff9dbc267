"""Devices by a command."""

from django.core.management.base import BaseCommand, CommandError

from kettle.knowledge.errors import InputError
from web.accounts.models import Shop
from web.logbook.actions.devices import check_address
from web.logbook.models import Device


class Command(BaseCommand):
    """`manage.py device add SHOP KIND NAME HOST:PORT`."""

    help = "Add wireless probes or a case controller to a shop"

    def add_arguments(self, parser):
        parser.add_argument("what", choices=["add"])
        parser.add_argument("shop")
        parser.add_argument("kind", choices=[code for code, _ in Device.KINDS])
        parser.add_argument("name")
        parser.add_argument("address")
        parser.add_argument("--simulated", action="store_true", help="what it says is no measurement")

    def handle(self, *args, shop, kind, name, address, simulated, **options):
        found = Shop.objects.filter(name=shop).first()
        if found is None:
            raise CommandError(f"There is no shop called “{shop}”")
        try:
            Device.objects.create(shop=found, kind=kind, name=name[:60], address=check_address(address), simulated=simulated)
        except InputError as error:
            raise CommandError(str(error)) from None
