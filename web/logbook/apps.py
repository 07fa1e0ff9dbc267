"""The logbook: before a migration runs, databases of earlier wordings are repaired."""

from django.apps import AppConfig
from django.db.models.signals import pre_migrate

from web.logbook.calls.repair import repair


class LogbookConfig(AppConfig):
    """Connects the repair."""

    name = "web.logbook"

    def ready(self):
        pre_migrate.connect(repair, sender=self, dispatch_uid="repair")
