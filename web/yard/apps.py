"""The yard: what a hold or a rule stops on a practice call is counted there."""

from django.apps import AppConfig

from web.logbook.actions.stopped import stopped


class YardConfig(AppConfig):
    """Connects the count."""

    name = "web.yard"

    def ready(self):
        from web.yard.work import note_stopped

        stopped.connect(note_stopped, dispatch_uid="yard")
