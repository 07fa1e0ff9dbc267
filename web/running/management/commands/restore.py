"""Restore a backup."""

from pathlib import Path

from django.core.management.base import BaseCommand, CommandError
from django.db import connection

from web.running import backups
from web.running.lock import InUse, data_lock
from web.running.serving import make_ready


class Command(BaseCommand):
    """`manage.py restore BACKUP [--replace]`; ./ok restore calls it."""

    help = "Restore a backup into an empty folder of data, or with --replace in the place of what is there"

    def add_arguments(self, parser):
        parser.add_argument("backup", type=Path)
        parser.add_argument("--replace", action="store_true", help="move what is there aside")

    def handle(self, *args, backup, replace, **options):
        connection.close()
        try:
            with data_lock():
                told = backups.restore(backup, replace)
        except (backups.BackupError, InUse) as error:
            raise CommandError(str(error)) from None
        make_ready()
        self.stdout.write(f"Restored: the data of {told['at']}, {len(told['files'])} files")
