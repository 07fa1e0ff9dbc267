"""The link to the probes: a thread that listens, keeps each probe's last reading, and connects again when it is lost."""

import socket
import threading
from dataclasses import dataclass, field
from datetime import datetime

from django.conf import settings
from django.utils import timezone

from kettle.benches.probes.protocol import LONGEST_LINE, Live, read_message
from kettle.knowledge.errors import InputError

RETRY_S = 2.0
SILENCE_S = 15.0


@dataclass
class ProbeLink:
    """What was last heard of each probe at an address; `listen` starts the thread once."""

    address: tuple[str, int]
    heard: dict[str, Live] = field(default_factory=dict)
    connected: bool = False
    complaint: str = ""
    started: bool = False
    lock: threading.Lock = field(default_factory=threading.Lock)
    stop: threading.Event = field(default_factory=threading.Event)

    def listen(self):
        """Start listening, unless it is."""
        with self.lock:
            if not self.started:
                self.started = True
                threading.Thread(target=self._run, daemon=True, name="probes").start()

    def latest(self) -> list[Live]:
        """The last reading of every probe, in the order of their names."""
        with self.lock:
            return [self.heard[name] for name in sorted(self.heard)]

    def _run(self):
        while not self.stop.is_set():
            try:
                with socket.create_connection(self.address, timeout=SILENCE_S) as link:
                    self.connected, self.complaint = True, ""
                    for line in link.makefile("rb"):
                        self._hear(line, timezone.now())
            except OSError:
                pass
            self.connected = False
            self.stop.wait(RETRY_S)

    def _hear(self, line: bytes, now: datetime):
        try:
            reading = read_message(line[:LONGEST_LINE], now)
        except InputError as error:
            self.complaint = str(error)
            return
        if reading is not None:
            with self.lock:
                self.heard[reading.probe] = reading


_links: dict[str, ProbeLink] = {}
_making = threading.Lock()


def link():
    """The link to the probes of this installation, listening; None where none are set up."""
    address = settings.PROBES
    if not address:
        return None
    with _making:
        if address not in _links:
            host, _, port = address.rpartition(":")
            _links[address] = ProbeLink((host, int(port)))
    _links[address].listen()
    return _links[address]
