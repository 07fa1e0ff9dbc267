"""What is known of a unit's circuit beside its plate, as a person says it and as it is kept with the unit."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number, whole

SHAPES: Final = {"": "as the phases", "single": "one leg to the other", "delta": "delta", "wye": "wye"}
START_GEAR: Final = {
    "potential": "potential relay, start and run capacitor",
    "current": "current relay and start capacitor",
    "ptc": "PTC and run capacitor",
    "none": "run capacitor alone",
}
CONTROLS: Final = {"line": "line volts", "transformer": "24 V by transformer"}
HEATERS_BY: Final = {"relay": "a relay of their own", "direct": "the clock or controller itself"}
FANS_BY: Final = {"call": "the clock or controller", "line": "the line, always on"}
ENDS_BY: Final = {"temperature": "temperature, by its release", "time": "its minutes alone"}
HERTZ: Final = {"60": "60 Hz", "50": "50 Hz"}
POLES: Final = {"0": "as the phases", "1": "1", "2": "2", "3": "3"}
MOST_ELEMENTS, MOST_FANS = 24, 12
LEAST_ELEMENT_W, MOST_ELEMENT_W = 20.0, 6000.0
MOST_WITHOUT: Final = 60
MOST_WIRES: Final = 20
JOINT: Final = "-"


@dataclass(frozen=True)
class Bank:
    """A bank of heaters: how many elements, watts of each, and how they are put together (a key of `SHAPES`)."""

    elements: int = 3
    element_w: float = 1100.0
    shape: str = ""

    @property
    def rated_w(self) -> float:
        """Watts of all elements together."""
        return self.elements * self.element_w

    def shape_on(self, phases: int) -> str:
        """How they are put together on so many phases; one alone has no star."""
        if self.shape == "wye" and self.elements < 2:
            return "single"
        return self.shape or ("delta" if phases == 3 else "single")


@dataclass(frozen=True)
class Wiring:
    """What is known of a unit's circuit beside its plate; each field left as it is takes what is usual.

    `start_gear` of a single-phase compressor is a key of `START_GEAR`, `control` one of `CONTROLS`; `poles` those of the contactor (as
    the phases: 0); `heaters_by`, `fans_by`, `ends_by` say what switches heaters and coil fans and what ends a clock's defrost (keys of
    `HEATERS_BY`, `FANS_BY`, `ENDS_BY`); `relay` a relay of its own between the call and the contactor; `without` keys of parts that are
    not there; `wires` pairs of points that a wire was found between.
    """

    bank: Bank = Bank()
    fans: int = 2
    start_gear: str = "potential"
    control: str = "line"
    poles: int = 0
    relay: bool = False
    hz: int = 60
    without: frozenset[str] = frozenset()
    wires: frozenset[tuple[str, str]] = frozenset()
    heaters_by: str = "relay"
    fans_by: str = "call"
    ends_by: str = "temperature"

    def as_data(self) -> dict[str, Any]:
        """Return it as plain data to be kept; `from_data` reads it back."""
        return {
            "elements": self.bank.elements, "element_w": self.bank.element_w, "shape": self.bank.shape, "fans": self.fans,
            "start_gear": self.start_gear, "control": self.control, "poles": self.poles, "relay": self.relay,
            "hz": self.hz, "heaters_by": self.heaters_by, "fans_by": self.fans_by, "ends_by": self.ends_by,
            "without": sorted(self.without),
            "wires": sorted(f"{one}{JOINT}{other}" for one, other in self.wires),
        }  # fmt: skip


USUAL: Final = Wiring()


def from_data(kept: Mapping[str, Any]) -> Wiring:
    """Return what was kept by `Wiring.as_data`; what is missing is as usual."""
    bank = Bank(kept.get("elements", USUAL.bank.elements), kept.get("element_w", USUAL.bank.element_w), kept.get("shape", ""))
    return Wiring(
        bank, kept.get("fans", USUAL.fans), kept.get("start_gear", USUAL.start_gear), kept.get("control", USUAL.control),
        kept.get("poles", 0), kept.get("relay", False), kept.get("hz", 60), frozenset(kept.get("without", ())),
        frozenset(wire_of(one) for one in kept.get("wires", ())),
        kept.get("heaters_by", USUAL.heaters_by), kept.get("fans_by", USUAL.fans_by), kept.get("ends_by", USUAL.ends_by),
    )  # fmt: skip


def wire_of(kept: str) -> tuple[str, str]:
    """Return the two points of a wire as it is kept ("K1-E1"), the one that comes first first."""
    one, _, other = kept.partition(JOINT)
    return (one, other) if one <= other else (other, one)


def from_words(said: Mapping[str, str], standing: Wiring = USUAL) -> Wiring:
    """Return what was typed and chosen by field (as `Wiring.as_data` names them); a field that is not there stays as it stood.

    Raises FieldErrors with one line a field: what it is, its range and unit.
    """
    wrong: dict[str, str] = {}

    def count(name: str, label: str, now: int, most: int) -> int:
        text = said.get(name, str(now)).strip()
        if not whole(text, 1, most):
            wrong[name] = f"{label}: “{text[:20]}” is not a whole number from 1 to {most}"
            return now
        return int(text)

    def choice(name: str, label: str, now: str, words: Mapping[str, str]) -> str:
        chosen = said.get(name, now)
        if chosen not in words:
            wrong[name] = f"{label}: “{chosen[:20]}” is none of {', '.join(words.values())}"
            return now
        return chosen

    element_w = standing.bank.element_w
    if "element_w" in said:
        try:
            element_w = float(said["element_w"].strip().replace(",", "."))
        except ValueError:
            element_w = -1.0
        if not LEAST_ELEMENT_W <= element_w <= MOST_ELEMENT_W:
            span = f"{format_number(LEAST_ELEMENT_W, 0)} to {format_number(MOST_ELEMENT_W, 0)} W"
            wrong["element_w"] = f"Watts of one element: “{said['element_w'][:20]}” is outside {span}"
    made = Wiring(
        Bank(count("elements", "Elements", standing.bank.elements, MOST_ELEMENTS), element_w,
             choice("shape", "Put together", standing.bank.shape, SHAPES)),
        count("fans", "Coil fans", standing.fans, MOST_FANS),
        choice("start_gear", "Started by", standing.start_gear, START_GEAR),
        choice("control", "Control", standing.control, CONTROLS),
        int(choice("poles", "Contactor poles", str(standing.poles), POLES)),
        said["relay"] == "yes" if "relay" in said else standing.relay,
        int(choice("hz", "Frequency", str(standing.hz), HERTZ)),
        standing.without,
        standing.wires,
        choice("heaters_by", "Heaters switched by", standing.heaters_by, HEATERS_BY),
        choice("fans_by", "Coil fans fed by", standing.fans_by, FANS_BY),
        choice("ends_by", "The clock ends a defrost by", standing.ends_by, ENDS_BY),
    )  # fmt: skip
    if wrong:
        raise FieldErrors(wrong)
    return made
