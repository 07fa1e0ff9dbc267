"""How a circuit is drawn: the power path on top, everything else as rungs of a ladder from its first leg to the common below."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from kettle.electrical.circuit import IN_PLACE, Circuit, Part

WIDE: Final = 800.0
LEFT, RIGHT, STEP = 34.0, 766.0, 104.0
TOP, LEG, RUNG = 24.0, 43.0, 40.0
# Columns of the power path by the first letter of a point; the star lies at the end.
_COLUMNS: Final[Mapping[str, float]] = {"S": 34.0, "D": 134.0, "L": 234.0, "T": 374.0, "C": 494.0, "Y": 640.0}
# Inside a single-phase compressor, beside the run of its leg.
_INSIDE: Final[Mapping[str, tuple[float, float]]] = {
    "O": (464.0, 0.0), "C": (540.0, 0.0), "S": (610.0, 48.0), "P1": (680.0, 92.0), "R": (680.0, 0.0),
}  # fmt: skip
# Where its windings and capacitors come back to: a bus at the right, with neutral at its foot where a second pole breaks that.
BUS_FOOT: Final = 126.0
# Loads of the ladder, wherever their ends lie.
ON_RUNGS: Final = ("heater", "motor", "coil", "clock", "transformer")
# A winding's symbol sits at its own end, not where all three meet.
WINDING_AT: Final = 46.0
# Short names for where there is little room.
SHORT: Final[Mapping[str, str]] = {
    "lp_switch": "LP", "hp_switch": "HP", "stat": "call", "control_fuse": "fuse", "door_switch": "door", "fan_delay": "fan delay",
    "contactor_coil": "contactor coil", "solenoid": "solenoid", "defrost_coil": "defrost relay coil", "defrost_pole": "relay contact",
    "heater_limit": "limit", "fan_output": "fan output", "defrost_output": "defrost output", "timer_cool": "timer, cool",
    "timer_heat": "timer, heat", "overload": "overload", "winding_run": "run", "winding_start": "start", "run_capacitor": "run cap.",
    "start_relay": "relay", "start_capacitor": "start cap.", "relay_coil": "relay coil", "start_ptc": "PTC", "transformer": "24 V",
    "comp_relay_coil": "compressor relay", "comp_relay": "relay contact", "condenser_lead": "lead", "fan_cycling": "fan cycling",
    "lead_1": "lead", "heater_feed": "lead", "hot_gas_coil": "hot-gas valve", "liquid_output": "liquid output",
}  # fmt: skip
# The same of parts that are counted.
NUMBERED: Final[Mapping[str, str]] = {
    "disconnect": "disc.", "fuse": "fuse", "pole": "pole {}", "lead": "lead", "winding": "winding {}", "fan_lead": "lead",
    "defrost_pole": "contact {}",
    "element_lead": "lead", "fan": "coil fan {}", "element": "element {}",
}  # fmt: skip


@dataclass(frozen=True)
class Dot:
    """A point as drawn."""

    key: str
    x: float
    y: float


@dataclass(frozen=True)
class Line:
    """A part as drawn: from where to where, where its symbol sits, and its short name; `bend` is where it leaves another rung."""

    part: Part
    x1: float
    y1: float
    x2: float
    y2: float
    at_x: float
    at_y: float
    name: str
    bend: bool = False


@dataclass(frozen=True)
class End:
    """The end of a rung that lies on another point than the rail: its key stands there."""

    key: str
    x: float
    y: float


@dataclass(frozen=True)
class Drawn:
    """A circuit as drawn: its size, dots and lines, the height at which the ladder's right rail begins and ends, and what else rungs end
    on."""

    wide: float
    high: float
    dots: tuple[Dot, ...]
    lines: tuple[Line, ...]
    rail: tuple[float, float]
    ends: tuple[End, ...] = ()


def short_name(part: Part) -> str:
    """Return what a part is called in the drawing."""
    if part.label.startswith(IN_PLACE):
        return ""
    if part.key in SHORT:
        return SHORT[part.key]
    stem, _, number = part.key.rpartition("_")
    return NUMBERED[stem].format(number) if stem in NUMBERED else part.label.lower()


def drawn(circuit: Circuit) -> Drawn:
    """Return a circuit's drawing, in units of its own width (`WIDE`)."""
    places = _power_places(circuit)
    low = max(y for _, y in places.values())
    straight = [part for part in circuit.parts if part.a in places and part.b in places and part.kind not in ON_RUNGS]
    lines = [line for part in straight for line in _straight(part, places, circuit.phases == 1)]
    common = circuit.common
    first = row = low + RUNG + 10.0
    known = {line.part.key for line in lines}
    ends: list[End] = []
    for root in ("L1", "T1", "L2", "L3", "V"):
        for part in [p for p in circuit.parts if p.a == root and p.key not in known]:
            if root == "V":
                # The other side of a transformer has no rails of its own: its two points begin and end its first rung.
                places.setdefault("V", (LEFT, row))
                places.setdefault("0", (RIGHT, row))
            elif root != "L1":
                ends.append(End(root, LEFT, row))
            row = _branch(circuit, part, LEFT, row, 0, places, lines, common, known, from_rung=False) + RUNG
    for part in [p for p in circuit.parts if p.key not in known and {p.a, p.b} <= set(places)]:
        # A wire somebody drew lies where it lies, across the rungs.
        (x1, y1), (x2, y2) = places[part.a], places[part.b]
        lines.append(Line(part, x1, y1, x2, y2, (x1 + x2) / 2, (y1 + y2) / 2, "wire"))
    rail = (first - 16.0, row - RUNG + 16.0)
    dots = [Dot(point.key, *places[point.key]) for point in circuit.points if point.key in places and point.key != "Y"]
    ends += [
        End(line.part.b, RIGHT, line.y2) for line in lines if line.x2 == RIGHT and line.y2 >= first and line.part.b not in (common, "0")
    ]
    return Drawn(WIDE, row - RUNG + 28.0, tuple(dots), tuple(lines), rail, tuple(ends))


def _power_places(circuit: Circuit) -> dict[str, tuple[float, float]]:
    """Where the points of supply, contactor and compressor lie."""
    found = {}
    single = circuit.phases == 1
    for point in circuit.points:
        letter, number = point.key[:1], point.key[1:]
        if single and point.key in _INSIDE:
            x, down = _INSIDE[point.key]
            found[point.key] = (x, TOP + down)
        elif single and point.key == "N":
            found["N"] = (RIGHT, TOP + BUS_FOOT if circuit.has("pole_2") else TOP)
        elif circuit.two_legs and number == "2" and letter in _COLUMNS:
            # The other hot leg comes along the foot; behind its pole, or itself, it is the bus that the windings come back to.
            back = point.key == ("T2" if any(one.key == "T2" for one in circuit.points) else "L2")
            found[point.key] = (RIGHT if back else _COLUMNS[letter], TOP + BUS_FOOT)
        elif single and point.key == "T2":
            found["T2"] = (RIGHT, TOP)
        elif letter in _COLUMNS and number.isdigit():
            found[point.key] = (_COLUMNS[letter], TOP + LEG * (int(number) - 1))
        elif point.key == "Y":
            found["Y"] = (_COLUMNS["Y"], TOP + LEG)
    # Ground lies where nothing else is: at the right of three legs, below a lone one, between two.
    found["G"] = (_COLUMNS["S"], TOP + (BUS_FOOT / 2 if circuit.two_legs else 2 * LEG)) if single else (RIGHT, TOP)
    return found


def _straight(part: Part, places: Mapping[str, tuple[float, float]], single: bool) -> list[Line]:
    """A part of the power path: one line, or one to the bus at the right and that bus."""
    (x1, y1), (x2, y2) = places[part.a], places[part.b]
    if part.b == "Y":
        share = WINDING_AT / (x2 - x1)
        return [Line(part, x1, y1, x2, y2, x1 + WINDING_AT, y1 + share * (y2 - y1), short_name(part))]
    if single and x2 == RIGHT and y1 != y2 and part.a in ("S", "P1", "C", "R"):
        return [
            Line(part, x1, y1, RIGHT, y1, (x1 + RIGHT) / 2, y1, short_name(part)),
            Line(part, RIGHT, y1, RIGHT, y2, RIGHT, y1, "", True),
        ]
    return [Line(part, x1, y1, x2, y2, (x1 + x2) / 2, (y1 + y2) / 2, short_name(part))]


def _branch(
    circuit: Circuit, part: Part, x: float, y: float, depth: int, places: dict[str, tuple[float, float]], lines: list[Line], common: str,
    known: set[str], from_rung: bool,
) -> float:  # fmt: skip
    """Draw a part and what hangs on it; return the row of the lowest rung it came to."""
    known.add(part.key)
    ends_here = part.kind in ON_RUNGS
    to_x = RIGHT if ends_here else x + STEP
    lines.append(Line(part, x, y, to_x, y, RIGHT - 74.0 if ends_here else x + STEP / 2, y, short_name(part), from_rung))
    if ends_here:
        return y
    places[part.b] = (to_x, y)
    row = y
    for place, child in enumerate([p for p in circuit.parts if p.a == part.b and p.key not in known]):
        row = y if place == 0 else row + RUNG
        if place:
            lines.append(Line(child, to_x, y, to_x, row, to_x, row, "", True))
        row = _branch(circuit, child, to_x, row, depth + 1, places, lines, common, known, place > 0)
    return row
