"""What a column of a log can be: its unit, the words it goes by, what is possible; and how a file's units become the stored ones."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Final


@dataclass(frozen=True)
class Role:
    """What a column stands for: label, stored unit (°F, psig, A, or none for what is on or off), words of headers, what is possible.

    `key` is the observation a value of it stands for, where there is one.
    """

    code: str
    label: str
    unit: str
    words: tuple[str, ...]
    span: tuple[float, float]
    key: str = ""

    @property
    def is_state(self) -> bool:
        """Whether it is on or off rather than a figure."""
        return not self.unit


# fmt: off
ROLES: Final[Mapping[str, Role]] = {role.code: role for role in (
    Role("box_f", "Box air", "°F", ("box", "room", "case", "space"), (-80.0, 150.0), "box_temp_f"),
    Role("return_f", "Return air", "°F", ("return", "air on", "inlet"), (-80.0, 150.0), "return_air_f"),
    Role("supply_f", "Supply air", "°F", ("supply", "discharge air", "air off", "outlet"), (-80.0, 150.0), "supply_air_f"),
    Role("product_f", "Product", "°F", ("product", "stock", "core"), (-80.0, 150.0), "product_temp_f"),
    Role("coil_f", "Coil sensor", "°F", ("coil", "evap", "evaporator", "defrost temp", "termination", "fin"), (-80.0, 250.0)),
    Role("ambient_f", "Air outside", "°F", ("ambient", "outside", "outdoor", "condenser air"), (-60.0, 150.0), "ambient_f"),
    Role("suction_psig", "Suction", "psig", ("suction", "low side", "evaporating pressure"), (-14.7, 600.0), "suction_psig"),
    Role("discharge_psig", "Discharge", "psig", ("discharge", "head", "high side", "condensing"), (-14.7, 1500.0), "discharge_psig"),
    Role("superheat_f", "Superheat", "°F diff", ("superheat", "sh"), (-60.0, 120.0)),
    Role("amps", "Compressor amps", "A", ("amps", "current", "amp"), (0.0, 500.0), "compressor_amps"),
    Role("compressor", "Compressor on", "", ("compressor", "comp", "cooling", "refrigeration", "relay"), (0.0, 1.0)),
    Role("defrost", "Defrost on", "", ("defrost", "def", "dfr", "heater"), (0.0, 1.0)),
    Role("door", "Door open", "", ("door",), (0.0, 1.0)),
)}
# fmt: on
# A file's unit -> the stored unit it becomes, and how.
UNITS: Final[Mapping[str, tuple[str, Callable[[Any], Any]]]] = {
    "°F": ("°F", lambda v: v),
    "°C": ("°F", lambda v: 1.8 * v + 32.0),
    "°F diff": ("°F diff", lambda v: v),
    "K": ("°F diff", lambda v: 1.8 * v),
    "psig": ("psig", lambda v: v),
    "bar": ("psig", lambda v: 14.50377 * v),
    "kPa": ("psig", lambda v: 0.1450377 * v),
    "A": ("A", lambda v: v),
    "": ("", lambda v: v),
}
# Words that say no more than that it is the air somebody wanted to know of.
_ANY_AIR: Final = ("temp", "temperature", "air", "probe", "control")
_CELSIUS = re.compile(r"(°|deg\.?|\b|_|\()\s*c(elsius)?\b", re.I)
_FAHRENHEIT = re.compile(r"(°|deg\.?|\b|_|\()\s*f(ahrenheit)?\b", re.I)
_SPACED = re.compile(r"[^a-z0-9]+")


def guess_role(header: str, taken: tuple[str, ...] = ()) -> str:
    """Return the role a header most likely stands for, by its words; empty for none, or one that is taken already."""
    words = f" {_SPACED.sub(' ', header.lower()).strip()} "
    best, most = "", 0
    for role in ROLES.values():
        found = max((len(word) for word in role.words if f" {word} " in words or (len(word) > 4 and word in words)), default=0)
        if found > most and role.code not in taken:
            best, most = role.code, found
    if not best and "box_f" not in taken and any(f" {word} " in words for word in _ANY_AIR):
        return "box_f"
    return best


def guess_unit(header: str, role: str, otherwise: str = "°F") -> str:
    """Return the unit a header names for a role, or what the stored unit is; temperatures nobody named are in `otherwise` (°F or °C)."""
    stored = ROLES[role].unit
    if stored in ("°F", "°F diff"):
        celsius = bool(_CELSIUS.search(header)) and not _FAHRENHEIT.search(header)
        if stored == "°F diff":
            return "K" if celsius or (otherwise == "°C" and not _FAHRENHEIT.search(header)) else "°F diff"
        return "°C" if celsius else "°F" if _FAHRENHEIT.search(header) else otherwise
    if stored == "psig":
        return next((unit for unit in ("bar", "kPa") if unit.lower() in header.lower()), "psig")
    return stored


def units_for(role: str) -> tuple[str, ...]:
    """Return the units a column of a role may be written in."""
    return tuple(unit for unit, (stored, _) in UNITS.items() if stored == ROLES[role].unit)
