"""A simulated set of wireless probes: streams newline-delimited JSON over TCP, as docs/probes.md describes.

Run by itself: python -m devices.probes --port 9471. ./ok demo starts it.
"""

import argparse
import json
import math
import random
import socketserver
import threading
import time
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from devices.parent import end_with_parent
from kettle.knowledge import refrigerants

PROTOCOL, VERSION = "orange-kettle/probes", 1
DEFAULT_PORT = 9471
EVERY_S = 1.0
# The demo's valley: gauges read against the local atmosphere.
ALTITUDE_FT = 4200.0


@dataclass(frozen=True)
class Probe:
    """One probe: what it is called, what it measures, its noise (one standard deviation) and its battery at the start."""

    name: str
    label: str
    key: str
    unit: str
    noise: float
    battery_pct: float


PROBES = (
    Probe("P1", "Suction gauge", "suction_psig", "psig", 0.08, 86),
    Probe("P2", "Discharge gauge", "discharge_psig", "psig", 0.6, 82),
    Probe("T1", "Clamp at the bulb", "suction_line_evap_f", "°F", 0.15, 64),
    Probe("T2", "Clamp at the compressor", "suction_line_comp_f", "°F", 0.15, 71),
    Probe("T3", "Clamp on the liquid line", "liquid_line_f", "°F", 0.15, 12),
    Probe("A1", "Return air", "return_air_f", "°F", 0.1, 58),
    Probe("A2", "Supply air", "supply_air_f", "°F", 0.1, 55),
)


# A gauge at the system for an evacuation, not among what hangs on a running unit: asked for with --vacuum.
VACUUM = Probe("V1", "Vacuum gauge", "vacuum_micron", "micron", 0.0, 77)
PULLS_S, RESTS_S = 900.0, 900.0


def vacuum_at(seconds: float) -> float:
    """Return microns at a time: pulled down for a quarter of an hour, then shut off and rising as a wet system does, and again."""
    into = seconds % (PULLS_S + RESTS_S)
    if into < PULLS_S:
        return 380.0 + 759_000.0 * math.exp(-into / 85.0)
    return 420.0 + 3600.0 * (1.0 - math.exp(-(into - PULLS_S) / 200.0))


def circuit_at(seconds: float, refrigerant_name: str = "R-404A", altitude_ft: float = ALTITUDE_FT) -> dict[str, float]:
    """Return what each probe would read without noise, by observation key.

    A freezer's circuit that breathes a little with its valve; pressures come from the refrigerant's own saturation.
    """
    refrigerant = refrigerants.get(refrigerant_name)
    sway = math.sin(seconds / 45.0)
    air, sst, sct = 2.5 + 0.3 * math.sin(seconds / 300.0), -31.0 + 0.8 * sway, 92.5 + 0.5 * sway
    return {
        "suction_psig": refrigerant.dew_psig(sst, altitude_ft),
        "discharge_psig": refrigerant.bubble_psig(sct, altitude_ft),
        "suction_line_evap_f": sst + 29.0 - 1.5 * sway,
        "suction_line_comp_f": sst + 38.0 - 1.2 * sway,
        "liquid_line_f": sct - 6.0,
        "return_air_f": air,
        "supply_air_f": air - 5.0,
    }


class ProbeServer(socketserver.ThreadingTCPServer):
    """Serves the probes to any number of listeners; a probe in `silent` sends nothing, as if it were out of reach."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int = DEFAULT_PORT, seed: int = 1, every_s: float = EVERY_S, vacuum: bool = False) -> None:
        super().__init__(("127.0.0.1", port), _Listener)
        self.started, self.seed, self.every_s = time.monotonic(), seed, every_s
        self.silent: set[str] = set()
        self.probes = (*PROBES, VACUUM) if vacuum else PROBES
        self.ended = threading.Event()

    def stop(self) -> None:
        """End every connection and the server."""
        self.ended.set()
        self.shutdown()
        self.server_close()

    def messages(self) -> Iterator[dict[str, Any]]:
        """Yield the greeting, then one reading of each probe that is in reach, again and again."""
        chance = random.Random(self.seed)
        yield {"type": "hello", "protocol": PROTOCOL, "version": VERSION}
        while not self.ended.is_set():
            seconds = time.monotonic() - self.started
            true = circuit_at(seconds) | {VACUUM.key: vacuum_at(seconds)}
            for probe in self.probes:
                if probe.name not in self.silent:
                    yield {
                        "type": "reading",
                        "probe": probe.name,
                        "label": probe.label,
                        "key": probe.key,
                        "value": round(true[probe.key] + chance.gauss(0, probe.noise), 1),
                        "unit": probe.unit,
                        "at": datetime.now(UTC).isoformat(timespec="milliseconds"),
                        "battery_pct": max(0, round(probe.battery_pct - seconds / 3600)),
                    }
            self.ended.wait(self.every_s)


class _Listener(socketserver.StreamRequestHandler):
    server: ProbeServer

    def handle(self) -> None:
        with suppress(OSError):
            for message in self.server.messages():
                self.wfile.write(json.dumps(message, ensure_ascii=False).encode() + b"\n")
                self.wfile.flush()


def serve_in_background(port: int, **options: Any) -> ProbeServer:
    """Start the probes in a thread of this process and return their server; `stop` ends it."""
    server = ProbeServer(port, **options)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    return server


def main() -> None:
    """Serve until interrupted."""
    parser = argparse.ArgumentParser(prog="python -m devices.probes", description=__doc__)
    parser.add_argument("--port", type=int, default=DEFAULT_PORT)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--vacuum", action="store_true", help="with a vacuum gauge on a system that is being evacuated")
    parser.add_argument("--with-parent", action="store_true", help="end when standard input ends")
    arguments = parser.parse_args()
    if arguments.with_parent:
        end_with_parent()
    with ProbeServer(arguments.port, arguments.seed, vacuum=arguments.vacuum) as server, suppress(KeyboardInterrupt):
        server.serve_forever()


if __name__ == "__main__":
    main()
