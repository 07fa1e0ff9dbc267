"""People by a command: for the shop whose owner cannot log in any more."""

from django.core.management.base import BaseCommand, CommandError

from kettle.knowledge.errors import InputError
from web.accounts.models import Member, Shop
from web.logbook.actions.people import make_password_for, make_person


class Command(BaseCommand):
    """`manage.py person add|close|open|password LOGIN …`."""

    help = "Add a person, close or open a log-in, give a new password"

    def add_arguments(self, parser):
        parser.add_argument("what", choices=["add", "close", "open", "password"])
        parser.add_argument("login")
        parser.add_argument("--name", default="", help="for add")
        parser.add_argument("--shop", default="", help="for add; the only shop where there is one")
        parser.add_argument("--owner", action="store_true", help="for add")

    def handle(self, *args, what, login, name, shop, owner, **options):
        try:
            if what == "add":
                _, password = make_person(self._shop(shop), login, name, owner=owner)
                self.stdout.write(f"{login} logs in with {password}")
                return
            member = Member.objects.filter(user__username=login).select_related("user").first()
            if member is None:
                raise CommandError(f"Nobody logs in as “{login}”")
            if what == "password":
                self.stdout.write(f"{login} logs in with {make_password_for(member.user)}")
            else:
                member.user.is_active = what == "open"
                member.user.save(update_fields=["is_active"])
        except InputError as error:
            raise CommandError(str(error)) from None

    def _shop(self, name):
        found = Shop.objects.filter(name=name) if name else Shop.objects.all()
        if found.count() != 1:
            raise CommandError("Shop: name one with --shop" if not name else f"There is no shop called “{name}”")
        return found.get()
