"""Make a backup, also while the server runs."""

from django.core.management.base import BaseCommand, CommandError

from web.running import backups


class Command(BaseCommand):
    """`manage.py backup`; ./ok backup calls it."""

    help = "Make a backup of the database and the photos, proved by restoring it"

    def handle(self, *args, **options):
        try:
            made = backups.make()
        except (backups.BackupError, OSError) as error:
            raise CommandError(f"No backup was made: {error}") from None
        self.stdout.write(f"{made} ({made.stat().st_size / 1e6:.1f} MB), proved by restoring it")
