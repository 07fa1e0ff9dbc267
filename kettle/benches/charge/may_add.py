"""May gas be added at all? Every reason that lies nearer is ticked or struck from what is known; bubbles alone never do."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

from kettle.judging import holds
from kettle.judging.facts import COLD_OUTSIDE_F, PULL_DOWN_F, Facts
from kettle.judging.holds import blocked_on_purpose
from kettle.judging.verdicts import FANS_NOT_RUNNING, coil_iced
from kettle.knowledge.bands import default_band
from kettle.knowledge.measures import format_number

State = Literal["ok", "first", "unknown"]
BUBBLES: Final = ("few_bubbles", "flashing", "empty")
FLOODS_F: Final = 3.0
# Superheat from which a coil is starved whatever its box is, °F.
STARVED_F: Final = 30.0


@dataclass(frozen=True)
class Line:
    """One thing to clear before gas goes in: what it is, where it stands, why in words, and which observation settles it."""

    code: str
    label: str
    state: State
    says: str
    asks: str = ""


@dataclass(frozen=True)
class Answer:
    """The answer: whether gas may go in, in words, every line with where it stands, and how it is done where it may."""

    may: bool
    says: str
    lines: tuple[Line, ...]
    how: tuple[str, ...]


@dataclass(frozen=True)
class _Rule:
    code: str
    label: str
    asks: str
    there: Callable[[Facts], bool]
    stands: Callable[[Facts], tuple[State, str]]


def _ice(f: Facts) -> tuple[State, str]:
    if coil_iced(f):
        return "first", "melt it all, then read"
    if f.is_("complaint", "first_start") and "ice_form" not in f.seen:
        return "ok", "it has not run yet"
    return ("ok", "clear") if "ice_form" in f.seen else ("unknown", "nobody looked")


def _fans(f: Facts) -> tuple[State, str]:
    if f.is_("evap_fans", *FANS_NOT_RUNNING):
        if any(hold.code == "fans_not_running" and "charge_add" not in hold.blocks for hold in holds.standing(f)):
            return "ok", "they wait for a cold coil that only gas can give"
        return "first", "not all running: airflow first"
    if f.is_("evap_coil", "dirty", "blocked_by_stock"):
        return "first", "the coil gets no air: clean it, stock away"
    return ("ok", "air over the whole coil") if "evap_fans" in f.seen else ("unknown", "nobody looked")


def _condenser(f: Facts) -> tuple[State, str]:
    if blocked_on_purpose(f):
        return "ok", "blocked by you, to raise the head"
    if f.is_("condenser_coil", "blocked"):
        return "first", "blocked: clean it"
    if f.is_("condenser_fans", "stopped", "reversed", "slow"):
        return "first", "its fan does not move the air"
    seen = "condenser_coil" in f.seen and "condenser_fans" in f.seen
    return ("ok", "clean, its fan turns") if seen else ("unknown", "nobody looked")


def _ambient(f: Facts) -> tuple[State, str]:
    ambient = f.number("ambient_f")
    if blocked_on_purpose(f):
        return "ok", "the condenser is blocked to mimic a warm day"
    if ambient is None:
        return "unknown", "not read"
    told = f.shown.text(ambient, "°F", 0)
    if ambient < COLD_OUTSIDE_F:
        return "first", f"{told}: bubbles come of the cold. Block the condenser, or come back above 70 °F"
    return "ok", told


def _mixing(f: Facts) -> tuple[State, str]:
    if f.is_("head_control", "bypassing_when_warm"):
        return "first", "it sends hot gas past the condenser: that makes the bubbles"
    if f.is_("head_control", "not_holding_when_cold"):
        return "first", "it does not hold the head: that first, then the winter charge"
    return ("ok", "closed to the bypass when warm") if "head_control" in f.seen else ("unknown", "feel its three ports")


def _load(f: Facts) -> tuple[State, str]:
    over = f.box_over_set_f
    if over is None:
        return "unknown", "box not read"
    told = f.shown.text(abs(over), "°F diff", 0)
    superheat = f.derived.get("superheat_evap_f")
    if over > 2.0 * PULL_DOWN_F and _plainly_short(f) and superheat is not None and superheat > STARVED_F:
        return "ok", f"box {told} over set, and starved: it does not come down without gas. Some now, the rest near set"
    if over > 2.0 * PULL_DOWN_F and f.unit.receiver:
        return "first", f"box {told} over set: a coil this warm makes bubbles. Pull down first, or judge by the level"
    if over > 2.0 * PULL_DOWN_F:
        return "first", f"box {told} over set: suction and superheat are not what they will be. Pull down first"
    return "ok", f"box {told} {'over' if over >= 0 else 'under'} set"


def _blend(f: Facts) -> tuple[State, str]:
    glide = format_number(f.unit.refrigerant.glide_f)
    return "ok", f"glides {glide} °F: a few bubbles may stay with the right charge, and it goes in as liquid"


def _valve(f: Facts) -> tuple[State, str]:
    if floods_and_flashes(f):
        return "first", "liquid comes back while the glass flashes: not short, the valve"
    superheat = f.derived.get("superheat_evap_f")
    if superheat is None:
        return "unknown", "superheat not known"
    if superheat <= FLOODS_F:
        return "first", f"superheat {f.shown.text(superheat, '°F diff')}: liquid comes back, the valve first"
    return "ok", f"superheat {f.shown.text(superheat, '°F diff')}"


def _second_sign(f: Facts) -> tuple[State, str]:
    level, subcooling = f.number("receiver_level_pct"), f.derived.get("subcooling_f")
    low_subcooling = default_band(f.unit, "subcooling_f")
    if level is not None and _plainly_short(f) and not holds.gas_escapes(f):
        return "ok", f"receiver at {format_number(level, 0)} %: low"
    if holds.gas_escapes(f):
        return "ok", "gas was seen to get out"
    if subcooling is not None and low_subcooling is not None:
        told = f.shown.text(subcooling, "°F diff")
        if subcooling < low_subcooling[0]:
            return "ok", f"subcooling {told}: low"
        return "first", f"subcooling {told} is not low"
    if level is not None:
        return "first", f"receiver at {format_number(level, 0)} %, not low"
    return "unknown", "subcooling or receiver level, besides the glass" if f.unit.receiver else "subcooling"


def _plainly_short(f: Facts) -> bool:
    """Whether a sign says that it is short which no valve can bring about: a low receiver, or gas seen to get out."""
    level, low = f.number("receiver_level_pct"), default_band(f.unit, "receiver_level_pct")
    return holds.gas_escapes(f) or (level is not None and low is not None and level < low[0])


def _leak(f: Facts) -> tuple[State, str]:
    if f.is_("leak_test", "found"):
        return "first", "found: repair it, or the customer decides in writing"
    return ("ok", "none found") if f.is_("leak_test", "none_found") else ("unknown", "no test stands yet: gas alone is a call-back")


_ANY: Final = lambda f: True  # noqa: E731
_RULES: Final = (
    _Rule("ice", "Ice", "ice_form", _ANY, _ice),
    _Rule("airflow", "Airflow over the coil", "evap_fans", _ANY, _fans),
    _Rule("condenser", "Condenser and its fan", "condenser_coil", lambda f: f.unit.condensing == "air", _condenser),
    _Rule("ambient", "Air on the condenser", "ambient_f", lambda f: f.unit.condensing == "air", _ambient),
    _Rule("mixing", "Mixing valve", "head_control", lambda f: "mixing_valve" in f.unit.head_control, _mixing),
    _Rule("load", "Load", "box_temp_f", _ANY, _load),
    _Rule("blend", "Blend", "", lambda f: f.unit.refrigerant.glides, _blend),
    _Rule("valve", "Valve", "suction_line_evap_f", lambda f: f.unit.metering != "cap_tube", _valve),
    _Rule("second", "A second sign", "receiver_level_pct", _ANY, _second_sign),
    _Rule("leak", "Leak", "leak_test", _ANY, _leak),
)
# Not known yet, these alone do not hold gas back: the leak is looked for before or after, a blend is what it is.
_MAY_WAIT: Final = ("leak", "blend", "mixing")


def floods_and_flashes(f: Facts) -> bool:
    """Whether it is the flooding valve: a flashing glass with superheat near zero and little subcooling behind a receiver. A few ounces
    clear the glass and the flooding stays."""
    superheat, subcooling = f.derived.get("superheat_evap_f"), f.derived.get("subcooling_f")
    band = default_band(f.unit, "subcooling_f")
    little = subcooling is None or band is None or subcooling <= band[0] + 2.0
    return f.unit.receiver and f.is_("sight_glass", *BUBBLES) and superheat is not None and superheat <= FLOODS_F and little


# What a circuit that is being filled again cannot be asked: it has not the gas to show it.
_WHILE_FILLED: Final = ("load", "valve", "second", "ambient")


def may_add(f: Facts, leak_decided: bool = False, filling: bool = False) -> Answer:
    """Return whether gas may be added to a unit by what is known of it: *no, first this* or *yes, and how*.

    `leak_decided`: the customer left the leak open, in writing; it does not come first any more. `filling`: the circuit was emptied and is
    being filled again: its box is warm for want of gas, and what only a running charge shows is not asked.
    """
    lines = []
    for rule in _RULES:
        if rule.there(f):
            state, says = rule.stands(f)
            if rule.code == "leak" and leak_decided and state == "first":
                state, says = "ok", "found, and left open as the customer decided"
            if filling and rule.code in _WHILE_FILLED and state != "ok":
                state, says = "ok", "it was emptied: by weight, level and glass"
            lines.append(Line(rule.code, rule.label, state, says, rule.asks))
    if f.unit.critical_charge_oz is not None and not f.unit.receiver:
        label = f.shown.text(f.unit.critical_charge_oz, "oz", 1)
        return Answer(False, f"No gas by gauge or glass: critically charged. Recover, evacuate, weigh in {label}", tuple(lines), ())
    first = next((line for line in lines if line.state == "first"), None)
    waits = (*_MAY_WAIT, "valve") if _plainly_short(f) else _MAY_WAIT
    open_ = next((line for line in lines if line.state == "unknown" and line.code not in waits), None)
    if first is not None and first.code == "second":
        return Answer(False, f"No, it does not look short: {first.says}", tuple(lines), ())
    if first is not None:
        return Answer(False, f"No, first this. {first.label}: {first.says}", tuple(lines), ())
    if open_ is not None:
        return Answer(False, f"Not yet. {open_.label}: {open_.says}", tuple(lines), ())
    return Answer(True, "Yes, in small additions", tuple(lines), how(f))


def how(f: Facts) -> tuple[str, ...]:
    """Return how gas goes into a unit, in words."""
    state = "As liquid, cylinder turned so that liquid leaves it" if f.unit.refrigerant.is_mixture else "As vapour, or as liquid"
    said = [
        f"{state}, metered into the suction: never a slug",
        "Amps watched all the while: over rated, stop and wait",
        "Cylinder weighed before and after each addition",
        "Ten minutes between two additions: glass, level, subcooling and amps after each",
    ]
    if f.unit.receiver:
        said.append("Stop when the glass is clear; then the winter charge, if a mixing valve floods the condenser")
    else:
        said.append("Stop when subcooling is in its band")
    return tuple(said)
