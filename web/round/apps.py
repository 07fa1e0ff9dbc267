"""The round: when the application starts, every bench adds its parts to the stops."""

from django.apps import AppConfig
from django.utils.module_loading import autodiscover_modules


class RoundConfig(AppConfig):
    """Looks for a module `parts` in every application."""

    name = "web.round"

    def ready(self):
        autodiscover_modules("on_stops")
