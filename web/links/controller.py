"""The link to a case controller: Modbus TCP, the register map of the core, every failure said in one line."""

import logging
import threading

from pymodbus.client import ModbusTcpClient
from pymodbus.exceptions import ModbusException

from kettle.benches.controls.registers import (
    FIRST_LIVE,
    FIRST_SETTING,
    LIVE_COUNT,
    REGISTERS,
    SETTINGS_COUNT,
    START_DEFROST,
    live_of,
    settings_of,
)
from kettle.knowledge.errors import InputError

# What goes wrong is said on the screen; the library would print every byte of it besides.
logging.getLogger("pymodbus.logging").setLevel(logging.CRITICAL)

DEVICE = 1
PATIENCE_S = 2.0
REFUSALS = {
    1: "it does not know this request",
    2: "it does not know this register",
    3: "it refuses: outside its range, or not in service mode",
}


class Controller:
    """A controller at an address; every request connects anew. `lost` tells that the last one did not get through."""

    def __init__(self, address, simulated=False):
        host, _, port = address.rpartition(":")
        self.address, self.host, self.port, self.lost, self.simulated = address, host.strip("[]"), int(port), False, simulated

    def _ask(self, request):
        """One request on a fresh connection; InputError where it is lost or refused."""
        self.lost = False
        line = _line_to(self.address)
        if not line.acquire(timeout=PATIENCE_S):
            raise InputError("The controller is being spoken to by somebody else: try again in a moment")
        try:
            return self._answer(request)
        finally:
            line.release()

    def _answer(self, request):
        client = ModbusTcpClient(self.host, port=self.port, timeout=PATIENCE_S, retries=0)
        try:
            if not client.connect():
                raise ModbusException("no answer")
            answer = request(client)
        except (ModbusException, OSError, UnicodeError):
            self.lost = True
            raise InputError("The controller does not answer: look at its cable and power, then read it again") from None
        finally:
            client.close()
        if answer.isError():
            code = getattr(answer, "exception_code", 0)
            raise InputError(REFUSALS.get(code, f"it refuses, code {code}"))
        return answer

    def settings(self):
        """All settings by role."""
        return settings_of(self._ask(lambda c: c.read_holding_registers(FIRST_SETTING, count=SETTINGS_COUNT, device_id=DEVICE)).registers)

    def live(self):
        """What it tells of the moment, by role."""
        return live_of(self._ask(lambda c: c.read_input_registers(FIRST_LIVE, count=LIVE_COUNT, device_id=DEVICE)).registers)

    def write(self, role, value):
        """Write one setting; nothing is known of it until it is read back."""
        register = REGISTERS[role]
        raw = register.raw(value)
        self._ask(lambda c: c.write_register(register.address, raw, device_id=DEVICE))

    def start_defrost(self):
        """Start a defrost now."""
        self._ask(lambda c: c.write_register(START_DEFROST, 1, device_id=DEVICE))


_busy: dict[str, threading.Lock] = {}
_making = threading.Lock()


def link(device):
    """The controller of a unit, or None."""
    return Controller(device.address, device.simulated) if device is not None else None


def _line_to(address):
    """One request at a time on a controller's line."""
    with _making:
        return _busy.setdefault(address, threading.Lock())
