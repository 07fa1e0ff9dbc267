"""Accounts: a session knows from its log-in when it was last used."""

import time

from django.apps import AppConfig
from django.contrib.auth.signals import user_logged_in


def note_seen(sender, request, user, **_):
    """Note when somebody logged in."""
    if request is not None:
        request.session["seen"] = int(time.time())


class AccountsConfig(AppConfig):
    """Connects the note."""

    name = "web.accounts"

    def ready(self):
        user_logged_in.connect(note_seen, dispatch_uid="seen")
