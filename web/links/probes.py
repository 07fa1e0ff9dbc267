"""The link to a set of probes: a thread that listens, keeps each probe's last reading, and connects again when it is lost."""

import socket
import threading
import time
from contextlib import suppress
from dataclasses import dataclass, field

from django.utils import timezone

from kettle.benches.probes.hearing import Hearing
from kettle.benches.probes.protocol import Live

RETRY_S = 2.0
SILENCE_S = 15.0
CHUNK = 4096
# One that nobody asked for so long is not listened to; so many are at once, those asked for last.
UNASKED_S = 600.0
MOST_LINKS = 200


@dataclass
class ProbeLink:
    """What was last heard of each probe at an address; `listen` starts the thread once."""

    address: tuple[str, int]
    hearing: Hearing = field(default_factory=Hearing)
    connected: bool = False
    started: bool = False
    lock: threading.Lock = field(default_factory=threading.Lock)
    stop: threading.Event = field(default_factory=threading.Event)
    asked_at: float = field(default_factory=time.monotonic)

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
            with suppress(OSError, UnicodeError):
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
            _end(sorted(_links, key=lambda one: _links[one].asked_at)[: max(0, len(_links) + 1 - MOST_LINKS)])
            host, _, port = device.address.rpartition(":")
            _links[key] = ProbeLink((host.strip("[]"), int(port)))
        found = _links[key]
        found.asked_at = time.monotonic()
    found.listen()
    return found


def end_unasked(known):
    """Stop listening to what is no device any more (`known` are the keys and addresses of all there are), and to what nobody asks for."""
    with _making:
        long_ago = time.monotonic() - UNASKED_S
        _end([key for key, one in _links.items() if key not in known or one.asked_at < long_ago])


def _end(keys):
    for key in keys:
        _links.pop(key).stop.set()
