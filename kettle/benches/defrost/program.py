"""A defrost program by its roles, whatever a controller calls them, and what is wrong with it."""

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.observations import Value

DAY_MIN: Final = 24 * 60
MOST_STARTS: Final = 24
HEATED: Final = ("electric", "hot_gas")
AIR: Final = ("off_cycle", "timed_air")
# A fail-safe sits this much over the time a coil was seen to need, and is called long beyond the last (field practice).
FAIL_SAFE_OVER: Final = (1.15, 1.25)
FAR_TOO_LONG: Final = 1.6
TERMINATES_F: Final = (40.0, 75.0)
CLOSEST_MIN: Final = 90
FREEZING_F: Final = 32.0
# Programs of a call itself, beside those of the schools: code -> label, what they are.
FOUND, LEFT = "found", "left"
OWN: Final = {FOUND: ("As found", "what the controller did when you came"), LEFT: ("As left", "what you set")}


@dataclass(frozen=True)
class Role:
    """One value of a program: code, label, stored unit, range, what it does, the parameter it is recorded as."""

    code: str
    label: str
    unit: str
    low: float
    high: float
    does: str
    parameter: str = ""
    only: tuple[str, ...] = ()

    def exists_on(self, unit: Unit) -> bool:
        """Whether a unit's kind of defrost has it."""
        return not self.only or unit.defrost in self.only

    def parse(self, typed: str, shown: ShownUnits = TRADE) -> float | None:
        """Return a typed value in its unit of storage (`unit`), None where it is left empty; InputError names value, range and unit."""
        if not typed.strip():
            return None
        allowed = shown.span(self.low, self.high, self.unit)
        try:
            value = shown.parse(typed, self.unit)
        except InputError as error:
            raise InputError(f"{self.label}: {error}; allowed {allowed}") from None
        if not self.low <= value <= self.high:
            raise InputError(f"{self.label}: {shown.text(value, self.unit)} is outside {allowed}")
        return value


# fmt: off
ROLES: Final[dict[str, Role]] = {r.code: r for r in (
    Role("fail_safe_min", "Fail-safe", "min", 1, 240, "ends it when nothing else has", "fail_safe"),
    Role("termination_f", "Ends at", "°F", 33, 120, "ends it when the coil is clear", "termination"),
    Role("drip_min", "Drip", "min", 0, 30, "lets water leave before anything moves", "drip", HEATED),
    Role("fan_delay_f", "Fans back at", "°F", -40, 60, "keeps fans off until the coil holds its water", "fan_delay", HEATED),
    Role("pump_down_min", "Pump-down", "min", 0, 20, "empties the coil of liquid first", "", HEATED),
    Role("demand_pct", "On demand", "%", 0, 100, "starts one when TD has grown by so much", "demand"),
    Role("alarm_delay_min", "Alarm delay", "min", 0, 240, "keeps the alarm quiet through it", "alarm_delay"),
)}
# fmt: on
_COUNT = re.compile(r"^(\d{1,2})\s*(?:x|a day|per day|/day|/d)?$", re.IGNORECASE)
_CLOCK = re.compile(r"^(\d{1,2})(?::|\.|h)?(\d{2})?$")


@dataclass(frozen=True)
class Program:
    """Starts in minutes after midnight, and each role's value in its stored unit where it is known."""

    starts_min: tuple[int, ...]
    values: Mapping[str, float]

    @property
    def ends_after_min(self) -> float:
        """How long one may last with its drip, minutes."""
        return self.values.get("fail_safe_min", 0.0) + self.values.get("drip_min", 0.0)


@dataclass(frozen=True)
class Hours:
    """When a place is busy, minutes after midnight: open from and to (None where it never opens), and deliveries."""

    opens_min: int | None = None
    closes_min: int | None = None
    deliveries_min: tuple[int, ...] = ()


@dataclass(frozen=True)
class Concern:
    """What is wrong with a program: the role it lies in ("starts" for the times), and why."""

    role: str
    text: str


def parse_starts(typed: str) -> tuple[int, ...]:
    """Return the starts of "06:00 14:00 22:00" or of "4 a day" (evenly from midnight), minutes after midnight.

    Raises InputError with what would be understood.
    """
    cleaned = typed.strip()
    if not cleaned:
        return ()
    count = _COUNT.match(cleaned)
    if count and (int(count.group(1)) <= MOST_STARTS):
        number = int(count.group(1))
        return tuple(round(DAY_MIN / number * place) for place in range(number)) if number else ()
    starts = [parse_clock(word) for word in re.split(r"[\s,;]+", cleaned)]
    if len(starts) > MOST_STARTS:
        raise InputError(f"Starts: {len(starts)} is more than {MOST_STARTS} a day")
    return tuple(sorted(set(starts)))


def parse_clock(typed: str) -> int:
    """Return minutes after midnight of "6:30", "06.30", "0630" or "6"; InputError for what is no time of day."""
    found = _CLOCK.match(typed.strip())
    hour, minute = (int(found.group(1)), int(found.group(2) or 0)) if found else (99, 99)
    if hour > 23 or minute > 59:
        raise InputError(f"Time: “{typed.strip()[:12]}” is no time of day; write 06:30, or how many a day")
    return hour * 60 + minute


def clock(minutes: float) -> str:
    """Return minutes after midnight as a time of day."""
    return f"{int(minutes) // 60 % 24:02d}:{int(minutes) % 60:02d}"


def times(starts_min: Sequence[int]) -> str:
    """Return starts as they are read and typed, one way however many: 02:00 10:30."""
    return " ".join(clock(start) for start in starts_min)


def read_program(typed: Mapping[str, str], unit: Unit, shown: ShownUnits = TRADE) -> tuple[Program, dict[str, str]]:
    """Return the program of typed fields ("starts" and roles of the unit), without what is wrong, and what is wrong by field."""
    starts: tuple[int, ...] = ()
    values: dict[str, float] = {}
    errors: dict[str, str] = {}
    try:
        starts = parse_starts(typed.get("starts", ""))
    except InputError as error:
        errors["starts"] = str(error)
    for code, role in ROLES.items():
        try:
            value = role.parse(typed.get(code, ""), shown) if role.exists_on(unit) else None
        except InputError as error:
            errors[code] = str(error)
        else:
            if value is not None:
                values[code] = value
    return Program(starts, values), errors


def _needed_min(unit: Unit, seen: Mapping[str, Value]) -> float | None:
    """Minutes the coil was seen to need: the last defrost's length where it ended by temperature with a clear coil.

    By air nothing but the clock may end it: there the minutes after which the coil was clear are enough.
    """
    ran = seen.get("defrost_ran_min")
    told = unit.defrost in AIR or seen.get("defrost_ended_by") == "termination"
    return ran if isinstance(ran, float) and told and seen.get("coil_after_defrost") == "clear" else None


def _rule_air(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    if unit.defrost in AIR and unit.set_f <= FREEZING_F:
        return "Air at or below freezing melts nothing: this box needs heat in its defrost"
    return None


def _rule_short(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    if seen.get("coil_after_defrost") in ("part_iced", "iced") and seen.get("defrost_ended_by") == "time":
        return "The last one ended by time with ice left: it is shorter than the coil needs"
    needed = _needed_min(unit, seen)
    if needed is not None and p.values.get("fail_safe_min", needed) < needed:
        return f"The coil was seen {'clear after' if unit.defrost in AIR else 'to need'} {needed:.0f} min: no shorter one is proved"
    return None


def _rule_long(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    needed, fail_safe = _needed_min(unit, seen), p.values.get("fail_safe_min")
    if needed is None or fail_safe is None or fail_safe <= FAR_TOO_LONG * needed:
        return None
    low, high = (share * needed for share in FAIL_SAFE_OVER)
    rest = "time without cooling" if unit.defrost in AIR else "heat into the box"
    return f"Far over the {needed:.0f} min it takes: {low:.0f} to {high:.0f} min would do, and the rest is {rest}"


def _rule_termination(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    ends = p.values.get("termination_f")
    if ends is None:
        # Nobody wrote it down, and it was seen to end by it: then something ends it.
        by_coil = seen.get("defrost_ended_by") == "termination"
        return "Nothing ends it but the clock" if unit.defrost in HEATED and p.starts_min and not by_coil else None
    if ends < TERMINATES_F[0] and unit.defrost in HEATED:
        return "Ends while the far end may still hold ice"
    return "Ends long after the coil is clear: steam to the ceiling" if ends > TERMINATES_F[1] else None


def _rule_drip(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    return "No drip: the fans blow the water onto guards and ceiling" if p.values.get("drip_min") == 0 else None


def _rule_fans(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    back = p.values.get("fan_delay_f")
    return "Fans come back on a wet coil" if back is not None and back > FREEZING_F else None


def _rule_alarm(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    delay = p.values.get("alarm_delay_min")
    if delay is None or not p.starts_min or delay >= p.ends_after_min:
        return None
    return f"Shorter than a defrost with its drip ({p.ends_after_min:.0f} min): it rings at each one"


def _rule_rush(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    busy = [start for start in p.starts_min if any(_meets(start, p.ends_after_min, at, 30) for at in hours.deliveries_min)]
    if busy:
        return f"Meets a delivery: {', '.join(clock(start) for start in busy)}"
    return None


def _rule_close(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    if len(p.starts_min) < 2:
        return None
    gaps = [(b - a) % DAY_MIN for a, b in zip(p.starts_min, (*p.starts_min[1:], p.starts_min[0]), strict=True)]
    if min(gaps) < CLOSEST_MIN:
        return f"Two starts lie {min(gaps)} min apart"
    return None


def _rule_none(p: Program, unit: Unit, seen: Mapping[str, Value], hours: Hours) -> str | None:
    starts = p.starts_min or p.values.get("demand_pct") or unit.defrost == "off_cycle"
    return None if starts else "No start in the day: the coil packs with frost"


def _meets(start: float, length: float, at: float, around: float) -> bool:
    """Whether something that starts and lasts meets the minutes around a time, over midnight too."""
    return (at - around - start) % DAY_MIN < length or (start - (at - around)) % DAY_MIN < 2 * around


def no_stronger(program: Program, shown: Program) -> bool:
    """Return whether a program defrosts no more often, no longer and no warmer than another; one on demand is not compared."""
    if program.values.get("demand_pct"):
        return False
    longest = [one.values.get("fail_safe_min", 240.0) for one in (program, shown)]
    warmest = [one.values.get("termination_f", 999.0) for one in (program, shown)]
    return len(program.starts_min) <= len(shown.starts_min) and longest[0] <= longest[1] and warmest[0] <= warmest[1]


_RULES: Final[tuple[tuple[str, Callable[[Program, Unit, Mapping[str, Value], Hours], str | None]], ...]] = (
    ("starts", _rule_air),
    ("starts", _rule_none),
    ("starts", _rule_rush),
    ("starts", _rule_close),
    ("fail_safe_min", _rule_short),
    ("fail_safe_min", _rule_long),
    ("termination_f", _rule_termination),
    ("drip_min", _rule_drip),
    ("fan_delay_f", _rule_fans),
    ("alarm_delay_min", _rule_alarm),
)


def concerns(
    program: Program,
    unit: Unit,
    seen: Mapping[str, Value],
    hours: Hours = Hours(),
    against: str = "",
) -> list[Concern]:
    """Return everything about a program that goes against sense, by what was seen of the last defrost and the hours.

    `against`: how the site has shown that it leaves ice on this coil; empty where it has not.
    Rules: field practice, as each says in words.
    """
    found = [Concern("starts", f"{against[:1].upper()}{against[1:]}")] if against else []
    for role, rule in _RULES:
        text = rule(program, unit, seen, hours)
        if text is not None:
            found.append(Concern(role, text))
    return found
