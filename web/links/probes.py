"""The link to a set of probes: a thread that listens, keeps each probe's last reading, and connects again when it is lost."""

import socket
import threading
from contextlib import suppress
from dataclasses import dataclass, field

from django.utils import timezone

from kettle.benches.probes.hearing import Hearing
from kettle.benches.probes.protocol import Live

RETRY_S = 2.0
SILENCE_S = 15.0
CHUNK = 4096


@dataclass
class ProbeLink:
    """What was last heard of each probe at an address; `listen` starts the thread once."""

    address: tuple[str, int]
    hearing: Hearing = field(default_factory=Hearing)
    connected: bool = False
    started: bool = False
    lock: threading.Lock = field(default_factory=threading.Lock)
    stop: threading.Event = field(default_factory=threading.Event)

    @property
    def complaint(self):
        """What is wrong with what was heard."""
        return self.hearing.complaint

    def listen(self):
        """Start listening, unless it is."""
        with self.lock:
            if not self.started:
                self.started = True
                threading.Thread(target=self._run, daemon=True, name="probes").start()

    def latest(self) -> list[Live]:
        """The last reading of every probe, in the order of their names."""
        with self.lock:
            return [self.hearing.heard[name] for name in sorted(self.hearing.heard)]

    def since(self, key, moment):
        """What was heard of an observation from a moment on: (minutes since then, value)."""
        with self.lock:
            return self.hearing.since(key, moment)

    def _run(self):
        while not self.stop.is_set():
            with suppress(OSError):
                self._stay()
            self.connected = False
            self.stop.wait(RETRY_S)

    def _stay(self):
        """Listen on one connection until it ends; what was heard before stays, and grows old."""
        with socket.create_connection(self.address, timeout=SILENCE_S) as link:
            with self.lock:
                self.hearing = Hearing(heard=dict(self.hearing.heard), past=self.hearing.past)
            self.connected = True
            while not self.stop.is_set():
                chunk = link.recv(CHUNK)
                if not chunk:
                    return
                with self.lock:
                    if not self.hearing.take(chunk, timezone.now()):
                        return


_links: dict[tuple[int, str], ProbeLink] = {}
_making = threading.Lock()


def link(device):
    """The link to a set of probes of a shop, listening; None for none."""
    if device is None:
        return None
    key = (device.pk, device.address)
    with _making:
        if key not in _links:
            host, _, port = device.address.rpartition(":")
            _links[key] = ProbeLink((host, int(port)))
    _links[key].listen()
    return _links[key]
