"""The register map of the case controller the application speaks to: each role with its address, scale, range and words.

docs/controller.md describes the protocol; both ends read this table. A register is 16 bits, signed; a figure is the register
divided by its scale, in the stored unit of the core.
"""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits

# Words of the registers that hold one of several states, by number.
REFRIGERANTS: Final = ("R-404A", "R-134a", "R-448A", "R-449A", "R-507A", "R-290", "R-22", "R-407F", "R-744")
UNIT_TYPES: Final = ("walk-in cooler", "walk-in freezer", "display cooler", "display freezer", "reach-in")
PROBE_ROLES: Final = ("none", "return air", "coil, end of defrost", "supply air", "suction line")
DEFROST_KINDS: Final = ("off-cycle", "timed air", "electric", "hot gas")
STATES: Final = ("satisfied", "cooling", "pumping down", "defrosting", "dripping", "fans waiting")
ENDED_BY: Final = ("none yet", "temperature", "time")
YES_NO: Final = ("no", "yes")
ALARMS: Final = ("auxiliary probe fault", "low superheat", "open control circuit", "high temperature")
# The same as words of the observation `controller_alarm`, the one that tells most first.
ALARMS_SEEN: Final = {
    "auxiliary probe fault": "sensor_fault", "open control circuit": "open_control_circuit", "low superheat": "low_superheat",
    "high temperature": "high_temperature",
}  # fmt: skip
UNUSED: Final = -1
STARTS: Final = 8
OF_DAY: Final = "of day"


@dataclass(frozen=True)
class Register:
    """One register: role, address, what it is called, unit ("of day" for minutes after midnight), scale, range, words.

    `writes` marks what may be written; `role` is that of the program or of the settings where there is one.
    """

    role: str
    address: int
    label: str
    unit: str = ""
    scale: float = 1.0
    low: float = 0.0
    high: float = 0.0
    words: tuple[str, ...] = ()
    writes: bool = True

    def value(self, raw: int) -> float:
        """Return the figure a register (0 to 65535) stands for, in its unit."""
        return (raw - 0x10000 if raw >= 0x8000 else raw) / self.scale

    def raw(self, value: float) -> int:
        """Return the register for a figure; InputError names value, range and unit where it is outside."""
        if not self.low <= value <= self.high:
            raise InputError(f"{self.label}: {TRADE.plain(value, self.unit)} is outside {TRADE.span(self.low, self.high, self.unit)}")
        return round(value * self.scale) & 0xFFFF

    def text(self, value: float, shown: ShownUnits = TRADE) -> str:
        """Return a figure as a person reads it."""
        if self.words:
            place = int(value)
            return self.words[place] if 0 <= place < len(self.words) else f"unknown ({place})"
        if self.unit == OF_DAY:
            return "unused" if value < 0 else f"{int(value) // 60:02d}:{int(value) % 60:02d}"
        return shown.plain(value, self.unit)


def _word(role: str, address: int, label: str, words: tuple[str, ...], writes: bool = True) -> Register:
    return Register(role, address, label, low=0, high=len(words) - 1, words=words, writes=writes)


# fmt: off
REGISTERS: Final[dict[str, Register]] = {r.role: r for r in (
    Register("set_point", 0, "Set point", "°F", 10, -40, 60),
    Register("differential", 1, "Differential", "°F diff", 10, 1, 20),
    _word("refrigerant", 2, "Refrigerant", REFRIGERANTS),
    Register("target_superheat", 3, "Target superheat", "°F diff", 10, 3, 20),
    _word("unit_type", 4, "Unit type", UNIT_TYPES),
    _word("probe_1", 5, "Probe 1", PROBE_ROLES),
    _word("probe_2", 6, "Probe 2", PROBE_ROLES),
    _word("defrost_kind", 10, "Defrost", DEFROST_KINDS),
    *(Register(f"start_{n}", 11 + n, f"Start {n}", OF_DAY, 1, UNUSED, 1439) for n in range(1, STARTS + 1)),
    Register("fail_safe_min", 20, "Fail-safe", "min", 1, 5, 90),
    Register("termination_f", 21, "Ends at", "°F", 10, 40, 90),
    Register("drip_min", 22, "Drip", "min", 1, 0, 15),
    Register("fan_delay_f", 23, "Fans back at", "°F", 10, -20, 50),
    Register("pump_down_min", 24, "Pump-down", "min", 1, 0, 10),
    Register("demand_pct", 25, "On demand", "%", 1, 0, 100),
    Register("alarm_high", 30, "High alarm, over set", "°F diff", 10, 2, 40),
    Register("alarm_low", 31, "Low alarm, under set", "°F diff", 10, 2, 40),
    Register("alarm_delay_min", 32, "Alarm delay", "min", 1, 0, 180),
    Register("starts_per_hour", 33, "Most starts an hour", "an hour", 1, 2, 20),
    Register("anti_short_cycle", 34, "Anti-short-cycle", "min", 1, 0, 15),
    _word("interlock", 35, "Wired interlock", YES_NO),
    _word("service_mode", 40, "Service mode", YES_NO),
    Register("clock", 41, "Clock", OF_DAY, 1, 0, 1439),
)}
# What it tells of the moment; nothing here is written.
LIVE: Final[dict[str, Register]] = {r.role: r for r in (
    Register("box_f", 100, "Box", "°F", 10, writes=False),
    Register("coil_f", 101, "Coil probe", "°F", 10, writes=False),
    Register("superheat_f", 102, "Superheat", "°F diff", 10, writes=False),
    _word("state", 103, "State", STATES, False),
    Register("state_min", 104, "In it for", "min", 1, writes=False),
    Register("alarms", 105, "Alarms", writes=False),
    Register("last_defrost_min", 106, "Last defrost ran", "min", 1, writes=False),
    _word("last_ended_by", 107, "It ended by", ENDED_BY, False),
)}
# fmt: on
# Written with 1, it starts a defrost; in service mode only.
START_DEFROST: Final = 60
FIRST_SETTING, SETTINGS_COUNT = 0, 42
FIRST_LIVE, LIVE_COUNT = 100, 8
# Roles of a program that stand under the same name in the map.
PROGRAM_ROLES: Final = (
    "fail_safe_min", "termination_f", "drip_min", "fan_delay_f", "pump_down_min", "demand_pct", "alarm_delay_min",
)  # fmt: skip


def settings_of(registers: list[int]) -> dict[str, float]:
    """Return every setting by role, in the unit of its role, from the registers read from `FIRST_SETTING` on; InputError for too few."""
    return _of(registers, REGISTERS, FIRST_SETTING, SETTINGS_COUNT)


def live_of(registers: list[int]) -> dict[str, float]:
    """Return what the controller tells of the moment, by role and in its unit, from the registers read from `FIRST_LIVE` on."""
    return _of(registers, LIVE, FIRST_LIVE, LIVE_COUNT)


def _of(registers: list[int], table: dict[str, Register], first: int, count: int) -> dict[str, float]:
    if len(registers) != count:
        raise InputError(f"The controller answered {len(registers)} registers in place of {count}: it is not the kind known here")
    return {role: register.value(registers[register.address - first]) for role, register in table.items()}


def starts_of(settings: dict[str, float]) -> tuple[int, ...]:
    """Return the starts in the settings, minutes after midnight."""
    values = (settings[f"start_{n}"] for n in range(1, STARTS + 1))
    return tuple(sorted({int(value) for value in values if value >= 0}))


def program_settings(starts_min: tuple[int, ...], values: dict[str, float]) -> dict[str, float]:
    """Return a program (starts in minutes after midnight) as settings to write; InputError for more starts than the controller holds."""
    if len(starts_min) > STARTS:
        raise InputError(f"Starts: {len(starts_min)} a day, but the controller holds {STARTS}")
    filled = [*starts_min, *[UNUSED] * (STARTS - len(starts_min))]
    found = {f"start_{n}": float(at) for n, at in enumerate(filled, start=1)}
    return found | {role: values[role] for role in PROGRAM_ROLES if role in values}


def alarms_of(live: dict[str, float]) -> list[str]:
    """Return the alarms that stand, in words."""
    bits = int(live.get("alarms", 0))
    return [name for place, name in enumerate(ALARMS) if bits >> place & 1]


def alarm_seen(live: dict[str, float]) -> str:
    """Return the alarms that stand as the observation `controller_alarm` has them: the one that tells most, or none."""
    standing = alarms_of(live)
    return next((word for name, word in ALARMS_SEEN.items() if name in standing), "none")


def not_this_unit(settings: dict[str, float], refrigerant: str, kind_label: str) -> list[str]:
    """Return why these settings do not look like those of a unit with this plate."""
    found = []
    chosen = REGISTERS["refrigerant"].text(settings["refrigerant"])
    if chosen != refrigerant:
        found.append(f"It is set to {chosen}, the plate says {refrigerant}: every superheat it works with is wrong")
    kind = REGISTERS["unit_type"].text(settings["unit_type"])
    if kind != kind_label and not (kind == "reach-in" and kind_label.startswith("reach-in")):
        found.append(f"It believes it runs a {kind}; this is a {kind_label}")
    return found


def checks(settings: dict[str, float], refrigerant: str, kind_label: str) -> list[str]:
    """Return what goes against sense in the settings themselves, against the unit's plate.

    Rules: field practice; a delay or an offset tighter than what is normal rings for nothing.
    """
    found = not_this_unit(settings, refrigerant, kind_label)
    lasts = settings["fail_safe_min"] + settings["drip_min"]
    if starts_of(settings) and settings["alarm_delay_min"] < lasts:
        found.append(f"Alarm delay {settings['alarm_delay_min']:.0f} min is shorter than a defrost with its drip, {lasts:.0f} min")
    if settings["alarm_high"] < settings["differential"]:
        found.append("The high alarm lies inside the differential: it rings in every cycle")
    if settings["probe_2"] != PROBE_ROLES.index("coil, end of defrost") and settings["defrost_kind"] >= DEFROST_KINDS.index("electric"):
        found.append("No probe is given the coil: a defrost can only end by time")
    if settings["service_mode"]:
        found.append("It is in service mode")
    return found
