"""A controller's alarms by their role, whatever it calls them: what to look at in which order, what they are mistaken for, and which
settings bring them up by themselves."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.measures import format_number

# A start delay that is longer lets the coil fill before the compressor runs, min.
LONGEST_START_DELAY_MIN: Final = 4.0


@dataclass(frozen=True)
class Alarm:
    """A role of an alarm: what it is called, what it usually reads like, the short way, and what it is taken for.

    `named` is what the controller on the line calls it (`registers.ALARMS`).
    """

    code: str
    label: str
    reads_like: str
    short_way: tuple[str, ...]
    taken_for: str
    named: str = ""

    @property
    def words(self) -> frozenset[str]:
        """Every word it goes by, small, without what joins them."""
        text = f"{self.label} {self.reads_like} {self.named}".replace(",", " ")
        return frozenset(word.lower() for word in text.split()) - {"or", "beside", "it", "fault", "sensor", "box"}


ALARMS: Final[tuple[Alarm, ...]] = (
    Alarm("sensor_air", "Box sensor", "probe 1, P1, air sensor fault",
          ("Wire and plug at the controller", "Ohms against a thermometer, here under Sensors", "Is it set to this sensor's curve?"),
          "a warm box: without its sensor a controller runs by a fixed clock"),
    Alarm("sensor_coil", "Coil sensor", "probe 2, P2, evaporator or defrost sensor fault",
          ("Ice pulled on its wire?", "Ohms in ice water", "Without it a defrost ends by time alone"), "a heater that is dead",
          named="auxiliary probe fault"),
    Alarm("low_superheat", "Low superheat", "low SH, LoSH, MOP beside it",
          ("Bulb or suction probe clamped and insulated", "Pressure probe against a gauge", "Refrigerant set in the controller",
           "An outdoor start delay that lets liquid stand"), "overcharge: nobody takes gas out for it", named="low superheat"),
    Alarm("high_box", "High box temperature", "high temp, HI",
          ("Defrost just over? The delay should outlast it", "Door and stock", "Then as any warm box: ice, airflow, circuit"),
          "a fault, where a defrost or a delivery explains it", named="high temperature"),
    Alarm("low_box", "Low box temperature", "low temp, LO",
          ("Sensor in the supply air or on metal?", "Contactor or relay that sticks", "Set point and its limits"), "a valve"),
    Alarm("open_interlock", "Open control circuit", "interlock, external, digital input, DI",
          ("Is an interlock wired at all? Set it to none where it is not", "High-pressure switch, door, fan proving",
           "Volts at the input, on Power"), "a compressor that will not start", named="open control circuit"),
    Alarm("communication", "Communication", "comm, network, offline",
          ("Plugs and the end resistor", "Two with the same address", "Power of the other end"), "a controller that is dead"),
    Alarm("by_time", "Defrost ended by time", "dEF time, maximum defrost time",
          ("Heater amps in a defrost, on Power", "Termination sensor on the coil's last ice", "Fail-safe against the minutes it needs"),
          "a defrost that is too short: it may be one that heats too little"),
)  # fmt: skip
BY_CODE: Final[Mapping[str, Alarm]] = {one.code: one for one in ALARMS}


def of_controller(names: Iterable[str]) -> list[Alarm]:
    """Return the roles of what a controller on the line says stands, in the table's order."""
    standing = set(names)
    return [one for one in ALARMS if one.named and one.named in standing]


def translated(shows: str) -> list[Alarm]:
    """Return the roles that what a display shows may stand for, the likeliest first; none where nothing of it is known."""
    said = frozenset(re.findall(r"[a-z0-9]+", shows.lower()))
    hits = [(len(said & one.words), one) for one in ALARMS]
    most = max(count for count, _ in hits)
    return [one for count, one in hits if count == most > 0]


@dataclass(frozen=True)
class Settings:
    """What of a controller's settings has to do with its alarms; None where it is not known. Minutes and °F."""

    alarm_delay_min: float | None = None
    defrost_min: float | None = None
    drip_min: float | None = None
    offset_f: float | None = None
    differential_f: float | None = None
    start_delay_min: float | None = None
    interlock: bool | None = None


# What a setting of an interlock is called that asks for none.
NO_INTERLOCK: Final = ("none", "no", "off", "0", "not used", "disabled")


def expects_interlock(setting: str) -> bool:
    """Return whether a controller set so expects a wired interlock, by what its setting was written down as."""
    return setting.strip().lower() not in NO_INTERLOCK


def provoked(has: Settings) -> list[str]:
    """Return what among settings brings up alarms by itself."""
    found = []
    if has.alarm_delay_min is not None and has.defrost_min is not None and has.alarm_delay_min < has.defrost_min + (has.drip_min or 0.0):
        whole, delay = format_number(has.defrost_min + (has.drip_min or 0.0), 0), format_number(has.alarm_delay_min, 0)
        found.append(f"The alarm waits {delay} min, a defrost with its drip takes {whole}: every defrost alarms")
    if has.offset_f is not None and has.differential_f is not None and has.offset_f <= has.differential_f:
        offset, differential = format_number(has.offset_f, 1), format_number(has.differential_f, 1)
        found.append(f"The alarm stands {offset} °F off, the differential is {differential} °F: it alarms at every cut-in")
    if has.start_delay_min is not None and has.start_delay_min > LONGEST_START_DELAY_MIN:
        delay = format_number(has.start_delay_min, 0)
        found.append(f"The compressor waits {delay} min with the valve open: liquid stands in the coil, and it alarms for low superheat")
    if has.interlock:
        found.append("It expects a wired interlock: where none is wired it stands open and alarms. Set it to none, or wire it")
    return found
