"""Start the application with the demo data: migrate, load, serve."""

import socket
import subprocess
import sys
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import connection

from web.demo import load as demo

# The largest photo, with room for its form.
LARGEST_REQUEST = 16 * 1024 * 1024


class Command(BaseCommand):
    """`manage.py demo [--fresh] [--port N]`; ./ok demo calls it."""

    help = "Start the application with the demo data"
    requires_system_checks = []

    def add_arguments(self, parser):
        parser.add_argument("--fresh", action="store_true", help="throw the data away and load the demo anew")
        parser.add_argument("--port", type=int, default=8000)
        parser.add_argument("--no-serve", action="store_true", help="only load the data")

    def handle(self, *args, fresh, port, no_serve, **options):
        if not 1 <= port <= 65535:
            raise CommandError(f"Port {port} is outside 1 to 65535")
        if fresh:
            connection.close()
            for suffix in ("", "-wal", "-shm"):
                Path(f"{settings.DATABASES['default']['NAME']}{suffix}").unlink(missing_ok=True)
        call_command("migrate", verbosity=0)
        demo.load()
        connection.close()
        if no_serve:
            return
        self.stdout.write(f"Orange Kettle is at http://127.0.0.1:{port}/")
        self.stdout.write("Demo logins, all with the password “" + demo.SCENARIO["password"] + "”:")
        for name, full_name in demo.SCENARIO["people"].items():
            self.stdout.write(f"  {name:8} {full_name}")
        self.stdout.flush()
        from waitress import serve

        from web.wsgi import application, warming

        # Compiled for the first time this takes some seconds; the devices then need not do it too.
        warming.join()
        devices = [self._start("devices.probes", "PROBES"), self._start("devices.controller", "CONTROLLER")]
        try:
            serve(application, listen=f"127.0.0.1:{port}", threads=8, ident=None, max_request_body_size=LARGEST_REQUEST)
        except OSError as error:
            raise CommandError(f"Port {port} cannot be used ({error.strerror}); choose another with --port") from None
        finally:
            for device in devices:
                device.terminate()

    def _start(self, module, setting):
        """Start a simulated device as a process of its own, and say in the settings where it is."""
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            port = free.getsockname()[1]
        setattr(settings, setting, f"127.0.0.1:{port}")
        command = [sys.executable, "-m", module, "--with-parent", "--port", str(port)]
        return subprocess.Popen(command, cwd=settings.ROOT, stdin=subprocess.PIPE, stdout=subprocess.DEVNULL)
