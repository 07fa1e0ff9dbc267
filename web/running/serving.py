"""Serving an installation: its data made ready, its limits, and one line that says why where it cannot start."""

import os
import sys

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import CommandError
from django.db import connection

from kettle.plant.ready import is_compiled
from web import long_work
from web.benches.trends import keeper
from web.logbook import kept_files
from web.logbook.actions.open_call import end_quick_looks
from web.running import backups, schema
from web.running.lock import InUse, data_lock

# The largest photo, with room for its form.
# A log of a unit is the largest thing that is sent.
LARGEST_REQUEST = 66 * 1024 * 1024
THREADS = 12
# Idle connections are cheap and time out; half a crowd of them must not shut anybody out.
CONNECTIONS, IDLE_S, BACKLOG = 1500, 30, 512
GONE = {"KETTLE_PROBES": "probes", "KETTLE_CONTROLLER": "a controller"}


def check_environment():
    """Refuse settings that are not read any more rather than leave somebody without a device and without a word."""
    for name, what in GONE.items():
        if os.environ.get(name):
            raise CommandError(f"{name} is not read any more: a shop adds {what} under Shop, or with: manage.py device add")


def make_ready():
    """Bring the data to this version, with a backup before anything is changed; CommandError in one line where it cannot be."""
    check_environment()
    known = os.path.exists(settings.DATABASES["default"]["NAME"])
    if known and schema.unknown():
        raise CommandError(schema.difference())
    pending = schema.pending() if known else True
    if known and pending:
        backups.make("before migration")
    if pending:
        call_command("migrate", verbosity=0)
    kept_files.sweep()
    end_quick_looks()
    connection.close()


def serve(host, port, told=None, started=None):
    """Serve until interrupted. `told` is printed once the port is taken; `started` runs then and may return what to end with."""
    from waitress.server import create_server

    from web.wsgi import application, warming

    proxy = {}
    if settings.TLS_PROXY:
        proxy = {"trusted_proxy": settings.TLS_PROXY, "trusted_proxy_headers": "x-forwarded-for x-forwarded-proto x-forwarded-host"}
    try:
        with data_lock():
            try:
                server = create_server(
                    application,
                    listen=f"{host}:{port}",
                    threads=THREADS,
                    ident=None,
                    max_request_body_size=LARGEST_REQUEST,
                    connection_limit=CONNECTIONS,
                    channel_timeout=IDLE_S,
                    cleanup_interval=5,
                    backlog=BACKLOG,
                    asyncore_use_poll=True,
                    clear_untrusted_proxy_headers=True,
                    **proxy,
                )
            except OSError as error:
                raise CommandError(f"Port {port} cannot be used ({error.strerror}); choose another with --port") from None
            if started and not is_compiled():
                # Compiled for the first time this takes some seconds; devices started after it need not do it too.
                warming.join()
            if told:
                told()
                sys.stdout.flush()
            ends = started() if started else []
            keeper.begin()
            long_work.begin_again()
            ends = [*ends, long_work.begin()]
            try:
                server.run()
            finally:
                for end in ends:
                    end()
    except InUse as error:
        raise CommandError(str(error)) from None


def check_port(port):
    """Refuse a port that is none."""
    if not 1 <= port <= 65535:
        raise CommandError(f"Port {port} is outside 1 to 65535")
