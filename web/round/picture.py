"""The pictures of units: which there are for each kind, what is drawn where, and which parts stand behind it.

A picture has two panes: the box with its coil, and the unit that cools it, cover off. Coordinates are those of a pane's own canvas;
screen and printed report use the same ones. What a part looks like in each state is drawn in `templates/round/picture/<symbol>.svg`.
"""

from dataclasses import dataclass, field, replace

from kettle.knowledge import anatomy
from kettle.knowledge.equipment import build_for

WIDTH, HEIGHT = 420, 520
# The least a part takes on a canvas: 44 px at the width a pane has on the screens it is made for.
LEAST = 53
FLAG_HEIGHT = 23


@dataclass(frozen=True)
class Flag:
    """Where what was said of a part stands: left end (or right end, where it ends there), top, and the room for it."""

    x: int
    y: int
    room: int
    ends: bool = False
    lines: int = 1


@dataclass(frozen=True)
class Spot:
    """Something drawn that a tap opens: its parts (the first gives its name), its frame, its flag,
    its symbol where that is not the part's own, and the name that stands by it until something is said (none for what anyone knows)."""

    parts: tuple[str, ...]
    x: int
    y: int
    width: int
    height: int
    flag: Flag
    symbol: str = ""
    name: str = ""

    @property
    def code(self):
        """The part that gives it its name."""
        return self.parts[0]

    @property
    def template(self):
        """How it is drawn."""
        return f"round/picture/{self.symbol or self.code}.svg"

    def parts_on(self, unit):
        """Those of its parts that a unit has and that have a sheet, in order."""
        parts = [anatomy.get(code) for code in self.parts]
        return [part for part in parts if part.exists_on(unit) and (part.observed_on(unit) or part.acts_on(unit))]


@dataclass(frozen=True)
class Picture:
    """How one build of unit is drawn: its shell, and the spots that stand elsewhere or look otherwise than in the usual box;
    `room` for one that a person stands in."""

    shell: str
    moved: dict[str, Spot] = field(default_factory=dict)
    room: bool = False


def _spot(code, x, y, width, height, flag, name="", also=()):
    return Spot((code, *also), x, y, width, height, flag, name=name)


# The box: what stands along its left side on the pipes that come in, then coil, water and door.
_BOX = (
    _spot("told", 6, 4, 54, 54, Flag(66, 10, 340, lines=2), "what was told"),
    _spot("box", 12, 340, 54, 60, Flag(68, 348, 94, lines=2)),
    _spot("sensor", 12, 404, 54, 52, Flag(68, 420, 94), "sensor"),
    _spot("stock", 176, 438, 116, 70, Flag(176, 416, 116)),
    _spot("door", 300, 346, 106, 162, Flag(408, 324, 180, ends=True), also=("frame_heater",)),
    _spot("coil", 168, 100, 236, 64, Flag(168, 78, 236)),
    _spot("evap_fan", 168, 166, 236, 58, Flag(168, 226, 236)),
    _spot("drain", 168, 250, 178, 52, Flag(176, 303, 140)),
    _spot("drain_heater", 168, 326, 54, 52, Flag(226, 352, 70)),
    _spot("heater", 350, 250, 54, 52, Flag(408, 303, 92, ends=True)),
    _spot("hot_gas_valve", 350, 250, 54, 52, Flag(408, 303, 92, ends=True)),
    _spot("valve", 12, 100, 54, 54, Flag(68, 116, 94)),
    _spot("cap_tube", 12, 100, 54, 54, Flag(68, 116, 94)),
    _spot("liquid_solenoid", 12, 160, 54, 54, Flag(68, 176, 94), "solenoid"),
    _spot("bulb", 12, 220, 54, 54, Flag(68, 236, 94)),
    _spot("regulator", 12, 280, 54, 54, Flag(68, 296, 94), "regulator"),
)
# The unit, cover off, and the box of its electrics under it.
_UNIT = (
    _spot("condenser", 14, 32, 152, 78, Flag(14, 9, 152)),
    _spot("condenser_fan", 172, 32, 78, 78, Flag(172, 9, 112)),
    _spot("water_valve", 172, 44, 56, 56, Flag(172, 9, 84), "water valve"),
    _spot("head_control", 258, 44, 56, 56, Flag(404, 9, 116, ends=True), "head control"),
    _spot("leak", 348, 44, 56, 56, Flag(404, 103, 130, ends=True), "leaks"),
    _spot("receiver", 14, 138, 96, 54, Flag(14, 194, 96)),
    _spot("drier", 116, 138, 62, 54, Flag(116, 194, 62)),
    _spot("glass", 184, 138, 56, 54, Flag(184, 194, 104)),
    _spot("compressor", 296, 132, 108, 110, Flag(404, 244, 170, ends=True)),
    _spot("charge", 14, 222, 84, 62, Flag(102, 226, 122, lines=2), "charge", ("air",)),
    _spot("pressure_control", 232, 222, 56, 56, Flag(102, 272, 176), "pressure switches"),
    _spot("supply", 14, 308, 92, 60, Flag(14, 371, 94), "supply"),
    _spot("contactor", 112, 308, 92, 60, Flag(112, 371, 94), "contactor"),
    _spot("start_parts", 210, 308, 92, 60, Flag(210, 371, 94), "start parts"),
    _spot("relay", 308, 308, 98, 60, Flag(308, 371, 98), "relays"),
    _spot("control", 14, 406, 92, 60, Flag(14, 469, 94, lines=2), "control", ("thermostat", "parameters")),
    _spot("timer", 112, 406, 92, 60, Flag(112, 469, 94, lines=2), "timer", ("program",)),
    _spot("termination", 210, 406, 92, 60, Flag(210, 469, 94, lines=2), "termination"),
    _spot("wiring", 308, 406, 98, 60, Flag(308, 469, 98), "wiring"),
)


def _at(code, symbol="", **moved):
    """A spot of the usual box moved or drawn otherwise: x, y, width, height, flag."""
    usual = next(spot for spot in _BOX if spot.code == code)
    return code, replace(usual, symbol=symbol or usual.symbol, **moved)


# fmt: off
_CABINET = dict((
    _at("coil", y=112, x=180, width=212, height=58, flag=Flag(168, 90, 236)),
    _at("evap_fan", y=172, x=180, width=212, height=54, flag=Flag(168, 227, 236)),
    _at("drain", x=180, y=249, width=158, height=51),
    _at("heater", x=342, y=249, height=51),
    _at("hot_gas_valve", x=342, y=249, height=51),
    _at("stock", "stock", x=176, y=330, width=120, height=110, flag=Flag(176, 442, 116)),
    _at("door", "door_cabinet", x=300, y=326, width=104, height=136, flag=Flag(408, 464, 180, ends=True)),
    _at("drain_heater", x=176, y=464, flag=Flag(234, 490, 60)),
))
_LOW = dict((
    _at("coil", x=180, y=250, width=212, height=54, flag=Flag(168, 228, 236)),
    _at("evap_fan", x=180, y=306, width=212, height=52, flag=Flag(168, 359, 236)),
    _at("drain", x=180, y=382, width=150, height=51, flag=Flag(180, 434, 140)),
    _at("heater", x=338, y=382, height=51, flag=Flag(408, 434, 92, ends=True)),
    _at("hot_gas_valve", x=338, y=382, height=51, flag=Flag(408, 434, 92, ends=True)),
    _at("drain_heater", x=180, y=458, flag=Flag(238, 474, 70)),
    _at("stock", x=180, y=146, width=100, height=78, flag=Flag(180, 123, 110)),
    _at("door", "door_low", x=292, y=146, width=112, height=78, flag=Flag(408, 123, 110, ends=True)),
))
_GLASS = dict((
    _at("coil", y=344, x=180, width=212, height=56, flag=Flag(168, 326, 236)),
    _at("evap_fan", y=402, x=180, width=212, height=52, flag=Flag(408, 302, 120, ends=True)),
    _at("drain", x=180, y=458, width=104, height=51, flag=Flag(180, 302, 100)),
    _at("heater", x=288, y=458, height=51, flag=Flag(344, 486, 62)),
    _at("hot_gas_valve", x=288, y=458, height=51, flag=Flag(344, 486, 62)),
    _at("drain_heater", x=346, y=458, width=58, flag=Flag(344, 464, 62)),
    _at("stock", "stock", x=180, y=128, width=104, height=150, flag=Flag(180, 280, 104)),
    _at("door", "door_glass", x=292, y=112, width=112, height=166, flag=Flag(408, 280, 116, ends=True)),
))
_OPEN = {**_GLASS, **dict((
    _at("stock", "stock_shelves", x=176, y=128, width=150, height=150, flag=Flag(180, 280, 104)),
    _at("door", "air_curtain", x=332, y=112, width=72, height=166, flag=Flag(408, 280, 116, ends=True)),
))}
_CHEST = dict((
    _at("door", "door_lid", x=180, y=128, width=212, height=54, flag=Flag(408, 106, 180, ends=True)),
    _at("stock", "stock_bottles", x=180, y=186, width=212, height=74, flag=Flag(180, 262, 200)),
    _at("coil", x=180, y=306, width=212, height=54, flag=Flag(168, 284, 236)),
    _at("evap_fan", x=180, y=362, width=212, height=52, flag=Flag(168, 415, 236)),
    _at("drain", x=180, y=438, width=100, height=51, flag=Flag(176, 491, 104)),
    _at("heater", x=284, y=438, height=51, flag=Flag(284, 491, 60)),
    _at("hot_gas_valve", x=284, y=438, height=51, flag=Flag(284, 491, 60)),
    _at("drain_heater", x=342, y=438, flag=Flag(408, 491, 66, ends=True)),
))
_WELL = {**_CHEST, **dict((
    _at("door", "door_cover", x=180, y=128, width=212, height=54, flag=Flag(408, 106, 180, ends=True)),
    _at("stock", "stock_pans", x=180, y=186, width=212, height=74, flag=Flag(180, 262, 200)),
))}
_RAIL = {**_LOW, **dict((_at("stock", "stock_pans", x=180, y=146, width=100, height=78, flag=Flag(180, 123, 110)),))}
_SHIP = dict((_at("door", "door_bulkhead"), _at("told", flag=Flag(66, 10, 220, lines=2))))

# By build.
PICTURES = {
    "walk_in": Picture("shell_walk_in", room=True),
    "reach_in": Picture("shell_cabinet", _CABINET),
    "under_counter": Picture("shell_counter", _LOW),
    "prep_rail": Picture("shell_rail", _RAIL),
    "cold_well": Picture("shell_well", _WELL),
    "glass_doors": Picture("shell_case", _GLASS),
    "open_case": Picture("shell_open", _OPEN),
    "bottle_cooler": Picture("shell_chest", _CHEST),
    "provision_room": Picture("shell_ship", _SHIP, room=True),
}
# fmt: on


def picture_for(kind, build=""):
    """How a unit of a kind is drawn: as the build chosen for it, else the usual one."""
    return PICTURES[build_for(kind, build).code]


def spots_of(picture, unit):
    """What is drawn of a unit, pane by pane, each in the order of a walk: the spot, and its parts that the unit has."""
    panes = [[picture.moved.get(spot.code, spot) for spot in _BOX], list(_UNIT)]
    return [[(spot, parts) for spot in pane if (parts := spot.parts_on(unit))] for pane in panes]


def parts_behind(code):
    """The parts that are drawn as one with a part."""
    return next((spot.parts for spot in (*_BOX, *_UNIT) if code in spot.parts), (code,))
