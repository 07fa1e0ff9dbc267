"""A controller's alarms by their role, whatever it calls them: what to look at in which order, what they are mistaken for, and which
settings bring them up by themselves."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.units import format_number


@dataclass(frozen=True)
class Alarm:
    """A role of an alarm: what it is called, what it usually reads like, the short way, and what it is taken for."""

    code: str
    label: str
    reads_like: str
    short_way: tuple[str, ...]
    taken_for: str


ALARMS: Final[tuple[Alarm, ...]] = (
    Alarm("sensor_air", "Box sensor", "probe 1, P1, air sensor fault",
          ("Wire and plug at the controller", "Ohms against a thermometer, here under Sensors", "Is it set to this sensor's curve?"),
          "a warm box: without its sensor a controller runs by a fixed clock"),
    Alarm("sensor_coil", "Coil sensor", "probe 2, P2, evaporator or defrost sensor fault",
          ("Ice pulled on its wire?", "Ohms in ice water", "Without it a defrost ends by time alone"), "a heater that is dead"),
    Alarm("low_superheat", "Low superheat", "low SH, LoSH, MOP beside it",
          ("Bulb or suction probe clamped and insulated", "Pressure probe against a gauge", "Refrigerant set in the controller",
           "An outdoor start delay that lets liquid stand"), "overcharge: nobody takes gas out for it"),
    Alarm("high_box", "High box temperature", "high temp, HI",
          ("Defrost just over? The delay should outlast it", "Door and stock", "Then as any warm box: ice, airflow, circuit"),
          "a fault, where a defrost or a delivery explains it"),
    Alarm("low_box", "Low box temperature", "low temp, LO",
          ("Sensor in the supply air or on metal?", "Contactor or relay that sticks", "Set point and its limits"), "a valve"),
    Alarm("open_interlock", "Open control circuit", "interlock, external, digital input, DI",
          ("Is an interlock wired at all? Set it to none where it is not", "High-pressure switch, door, fan proving",
           "Volts at the input, on Power"), "a compressor that will not start"),
    Alarm("communication", "Communication", "comm, network, offline",
          ("Plugs and the end resistor", "Two with the same address", "Power of the other end"), "a controller that is dead"),
    Alarm("by_time", "Defrost ended by time", "dEF time, maximum defrost time",
          ("Heater amps in a defrost, on Power", "Termination sensor on the coil's last ice", "Fail-safe against the minutes it needs"),
          "a defrost that is too short: it may be one that heats too little"),
)  # fmt: skip
BY_CODE: Final[Mapping[str, Alarm]] = {one.code: one for one in ALARMS}


def provoked(
    alarm_delay_min: float | None, defrost_min: float | None, drip_min: float | None, offset_f: float | None, differential_f: float | None,
) -> list[str]:  # fmt: skip
    """Return what among settings brings up a high-temperature alarm by itself; a figure that is not known is left out (None)."""
    found = []
    if alarm_delay_min is not None and defrost_min is not None and alarm_delay_min < defrost_min + (drip_min or 0.0):
        whole, delay = format_number(defrost_min + (drip_min or 0.0), 0), format_number(alarm_delay_min, 0)
        found.append(f"The alarm waits {delay} min, a defrost with its drip takes {whole}: every defrost alarms")
    if offset_f is not None and differential_f is not None and offset_f <= differential_f:
        offset, differential = format_number(offset_f, 1), format_number(differential_f, 1)
        found.append(f"The alarm stands {offset} °F off, the differential is {differential} °F: it alarms at every cut-in")
    return found
