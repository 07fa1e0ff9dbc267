"""Start the application with the demo data: migrate, load, serve, with simulated devices of the demo's shop."""

import shutil
import socket
import subprocess
import sys
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import connection

from web.demo import load as demo
from web.logbook.models import Device
from web.running.lock import InUse, data_lock
from web.running.serving import check_port, make_ready, serve

SIMULATORS = {"probes": "devices.probes", "controller": "devices.controller"}


class Command(BaseCommand):
    """`manage.py demo [--fresh] [--port N]`; ./ok demo calls it."""

    help = "Start the application with the demo data"
    requires_system_checks = []

    def add_arguments(self, parser):
        parser.add_argument("--fresh", action="store_true", help="throw the data away and load the demo anew")
        parser.add_argument("--port", type=int, default=8000)
        parser.add_argument("--no-serve", action="store_true", help="only load the data")

    def handle(self, *args, fresh, port, no_serve, **options):
        check_port(port)
        if fresh:
            self._throw_away()
        make_ready()
        demo.load()
        connection.close()
        if not no_serve:
            serve("127.0.0.1", port, told=lambda: self._tell(port), started=self._simulate)

    def _throw_away(self):
        """Throw database and photos away, unless a server runs on them."""
        connection.close()
        try:
            with data_lock():
                for suffix in ("", "-wal", "-shm"):
                    Path(f"{settings.DATABASES['default']['NAME']}{suffix}").unlink(missing_ok=True)
                shutil.rmtree(settings.MEDIA_ROOT, ignore_errors=True)
        except InUse as error:
            raise CommandError(str(error)) from None

    def _tell(self, port):
        self.stdout.write(f"Orange Kettle is at http://127.0.0.1:{port}/")
        self.stdout.write("Demo logins, all with the password “" + demo.SCENARIO["password"] + "”:")
        for name, full_name in demo.SCENARIO["people"].items():
            self.stdout.write(f"  {name:8} {full_name}")
        self.stdout.flush()

    def _simulate(self):
        """Start a simulator for each simulated device of the demo, and say in its row where it answers."""
        ends = []
        for device in Device.objects.filter(simulated=True):
            with socket.socket() as free:
                free.bind(("127.0.0.1", 0))
                port = free.getsockname()[1]
            Device.objects.filter(pk=device.pk).update(address=f"127.0.0.1:{port}")
            command = [sys.executable, "-m", SIMULATORS[device.kind], "--with-parent", "--port", str(port)]
            started = subprocess.Popen(command, cwd=settings.ROOT, stdin=subprocess.PIPE, stdout=subprocess.DEVNULL)
            ends.append(started.terminate)
        connection.close()
        return ends
