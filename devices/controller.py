"""A simulated walk-in controller on the plant model, speaking Modbus TCP, as docs/controller.md describes.

Run by itself: python -m devices.controller --port 9502. ./ok demo starts it.
"""

import argparse
import asyncio
import threading
import time
from datetime import datetime
from typing import Any, Final

import numpy as np
from pymodbus.constants import ExcCodes
from pymodbus.server import ModbusTcpServer
from pymodbus.simulator import DataType, SimData, SimDevice

from devices.parent import end_with_parent
from kettle.benches.controls.registers import (
    ALARMS,
    DEFROST_KINDS,
    FIRST_LIVE,
    LIVE,
    PROBE_ROLES,
    REFRIGERANTS,
    REGISTERS,
    START_DEFROST,
    STATES,
    UNIT_TYPES,
    program_settings,
    starts_of,
)
from kettle.benches.defrost.program import Program
from kettle.benches.defrost.situation import set_box, set_program
from kettle.knowledge.errors import InputError
from kettle.plant.run import run, set_clock
from kettle.plant.simulate import preset
from kettle.plant.state import at_rest

DEFAULT_PORT: Final = 9502
DEVICE: Final = 1
# It has run by its program for so long when it is first asked.
WARM_H: Final = 30.0
# Less than one step of the model is left for the next tick.
LEAST_STEP_S: Final = 15.0
# Superheat counts as low below this, once the compressor has run for a while.
LOW_SUPERHEAT_F, SETTLED_H = 2.0, 0.2
AS_FOUND: Final = {
    "set_point": -5.0, "differential": 4.0, "refrigerant": REFRIGERANTS.index("R-404A"), "target_superheat": 6.0,
    "unit_type": UNIT_TYPES.index("walk-in freezer"), "probe_1": PROBE_ROLES.index("return air"),
    "probe_2": PROBE_ROLES.index("coil, end of defrost"), "defrost_kind": DEFROST_KINDS.index("electric"),
    "alarm_high": 15.0, "alarm_low": 10.0, "starts_per_hour": 6.0, "anti_short_cycle": 3.0, "interlock": 1.0,
    "service_mode": 0.0, "clock": 0.0,
    **program_settings(tuple(range(0, 1440, 180)), {"fail_safe_min": 45.0, "termination_f": 85.0, "drip_min": 0.0,
                                                    "fan_delay_f": 40.0, "pump_down_min": 0.0, "demand_pct": 0.0,
                                                    "alarm_delay_min": 20.0}),
}  # fmt: skip
WRITE_CODES: Final = (6, 16)
HOUR_MIN: Final = 60


class Controller:
    """A freezer and its controller: settings by role, the plant they run, and how far it has been simulated."""

    def __init__(self, speed: float = 1.0, settings: dict[str, float] | None = None, now: datetime | None = None) -> None:
        self.settings = dict(AS_FOUND) | (settings or {})
        self.speed, self.lock = speed, threading.Lock()
        self.plant = preset("walk_in_freezer")
        self.state: Any = at_rest(self.plant)
        now = now or datetime.now()
        self.state.hours = float(now.hour + now.minute / HOUR_MIN)
        self.starts = self._apply()
        self.last: Any = run(self.plant, WARM_H, state=self.state, starts_h=self.starts)
        self.state.hours = float(now.hour + now.minute / HOUR_MIN)
        set_clock(self.state, self.starts)
        self.asked, self.owed_s = time.monotonic(), 0.0

    def _apply(self) -> np.ndarray:
        values = {role: self.settings[role] for role in ("fail_safe_min", "termination_f", "drip_min", "fan_delay_f", "demand_pct")}
        values["pump_down_min"] = self.settings["pump_down_min"]
        if self.settings["probe_2"] != PROBE_ROLES.index("coil, end of defrost"):
            del values["termination_f"]
        starts = set_program(self.plant, Program(starts_of(self.settings), values))
        set_box(self.plant, self.settings["set_point"], self.settings["differential"])
        set_clock(self.state, starts)
        return starts

    def advance(self) -> None:
        """Bring the plant up to now, by the clock times the speed."""
        with self.lock:
            now = time.monotonic()
            self.owed_s += (now - self.asked) * self.speed
            self.asked = now
            if self.owed_s >= LEAST_STEP_S:
                self.last = run(self.plant, self.owed_s / 3600.0, state=self.state, starts_h=self.starts)
                self.owed_s = 0.0

    def write(self, register: int, raw: int) -> int | None:
        """Take a write; return what is kept, or None where it is refused.

        Refused: outside service mode (but for service mode itself), an address nobody writes, a value outside its range.
        Start times are kept on the whole hour, without a word: reading back shows it.
        """
        with self.lock:
            if register == START_DEFROST:
                if not self.settings["service_mode"] or raw != 1:
                    return None
                self.state.next_defrost_h = self.state.hours
                # One step at once, so that it is seen to have started; the clock catches up.
                self.last = run(self.plant, LEAST_STEP_S / 3600.0, state=self.state, starts_h=self.starts)
                self.owed_s -= LEAST_STEP_S
                return 0
            role = next((role for role, entry in REGISTERS.items() if entry.address == register), None)
            if role is None or not (self.settings["service_mode"] or role == "service_mode"):
                return None
            entry = REGISTERS[role]
            value = entry.value(raw)
            try:
                entry.raw(value)
            except InputError:
                return None
            if role.startswith("start_") and value >= 0:
                value = float(int(value) // HOUR_MIN * HOUR_MIN)
            self.settings[role] = value
            self.starts = self._apply()
            return entry.raw(value)

    def registers(self) -> dict[int, int]:
        """Return every register by address as it stands."""
        with self.lock:
            s = self.state[0]
            self.settings["clock"] = float(int(s.hours * HOUR_MIN) % 1440)
            state = self._state(s)
            live = {
                "box_f": float(s.felt_f), "coil_f": float(s.metal_f[2]), "superheat_f": float(self.last.flows.superheat_f[0]),
                "state": float(STATES.index(state)), "state_min": self._in_state_h(s, state) * HOUR_MIN,
                "alarms": float(self._alarms(s)), "last_defrost_min": float(s.last_defrost_min),
                "last_ended_by": 0.0 if s.last_defrost_min == 0 else 2.0 if s.ended_by_time else 1.0,
            }  # fmt: skip
            found = {entry.address: entry.raw(self.settings[role]) for role, entry in REGISTERS.items()}
            return found | {LIVE[role].address: round(value * LIVE[role].scale) & 0xFFFF for role, value in live.items()}

    def _state(self, s: Any) -> str:
        if s.defrosting:
            return "pumping down" if s.emptying_h > 0 else "defrosting"
        if s.dripping_h > 0:
            return "dripping"
        return "fans waiting" if s.fans == 0 else "cooling" if s.running else "satisfied"

    def _in_state_h(self, s: Any, state: str) -> float:
        """How long it has been in its state, h."""
        if state == "pumping down":
            return self.settings["pump_down_min"] / HOUR_MIN - float(s.emptying_h)
        if state in ("dripping", "fans waiting"):
            dripped = 0.0 if state == "dripping" else self.settings["drip_min"] / HOUR_MIN
            return max(float(s.since_defrost_h) - dripped, 0.0)
        return float({"defrosting": s.defrost_h, "cooling": s.since_start_h}.get(state, s.since_stop_h))

    def _alarms(self, s: Any) -> int:
        stands = {
            "auxiliary probe fault": self.settings["probe_2"] != PROBE_ROLES.index("coil, end of defrost"),
            "low superheat": s.running > 0 and s.since_start_h > SETTLED_H and self.last.flows.superheat_f[0] < LOW_SUPERHEAT_F,
            "open control circuit": not self.settings["interlock"],
            "high temperature": s.felt_f > self.settings["set_point"] + self.settings["alarm_high"],
        }
        return sum(1 << place for place, name in enumerate(ALARMS) if stands.get(name))


class ControllerServer:
    """Serves a controller over Modbus TCP; `port` is where it listens once `ready` is set."""

    def __init__(self, port: int = DEFAULT_PORT, controller: Controller | None = None) -> None:
        self.port, self.controller = port, controller or Controller()
        self.ready, self._loop = threading.Event(), asyncio.new_event_loop()
        self._server: ModbusTcpServer | None = None

    async def _act(
        self, function: int, first: int, address: int, count: int, registers: list[int], values: list[int] | None
    ) -> ExcCodes | None:
        """Before a read the registers are brought up to date; a write is taken or refused register by register."""
        if values is None:
            self.controller.advance()
            for place, raw in self.controller.registers().items():
                registers[place - first] = raw
            return None
        if function not in WRITE_CODES:
            return ExcCodes.ILLEGAL_FUNCTION
        for offset, raw in enumerate(list(values)):
            kept = self.controller.write(address + offset, int(raw))
            if kept is None:
                return ExcCodes.ILLEGAL_VALUE
            values[offset] = kept
        return None

    async def _serve(self) -> None:
        last = max(FIRST_LIVE + len(LIVE), START_DEFROST) + 1
        device = SimDevice(DEVICE, [SimData(0, count=last, values=0, datatype=DataType.REGISTERS)], action=self._act)
        self._server = ModbusTcpServer(device, address=("127.0.0.1", self.port))
        await self._server.serve_forever(background=True)
        transport = self._server.transport
        if transport is not None and self.port == 0:
            self.port = transport.sockets[0].getsockname()[1]
        self.ready.set()
        await self._server.serving

    def run(self) -> None:
        """Serve until stopped."""
        asyncio.set_event_loop(self._loop)
        self._loop.run_until_complete(self._serve())

    def stop(self) -> None:
        """End every connection and the server."""
        server, self._server = self._server, None
        if server is not None:
            asyncio.run_coroutine_threadsafe(server.shutdown(), self._loop).result(5)


def serve_in_background(port: int = 0, **options: Any) -> ControllerServer:
    """Start a controller in a thread of this process and return its server; `stop` ends it."""
    server = ControllerServer(port, Controller(**options))
    threading.Thread(target=server.run, daemon=True).start()
    server.ready.wait(10)
    return server


def main() -> None:
    """Serve until interrupted."""
    parser = argparse.ArgumentParser(prog="python -m devices.controller", description=__doc__)
    parser.add_argument("--port", type=int, default=DEFAULT_PORT)
    parser.add_argument("--speed", type=float, default=1.0, help="how many times faster than the clock the freezer lives")
    parser.add_argument("--with-parent", action="store_true", help="end when standard input ends")
    arguments = parser.parse_args()
    if arguments.with_parent:
        end_with_parent()
    server = ControllerServer(arguments.port, Controller(arguments.speed))
    try:
        server.run()
    except KeyboardInterrupt:
        return


if __name__ == "__main__":
    main()
