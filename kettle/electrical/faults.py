"""Each way a part can fail, as what it does to impedances: never as what a meter then shows."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import combinations
from typing import Final

from kettle.electrical.circuit import CLOSED_OHM, OPEN_OHM, Circuit, Part

# A short leaves so much of a part's impedance; a winding to ground lies so far along.
SHORTED_SHARE: Final = 0.02
# A worn contact has so many Ω, the worst of them burnt nearly through: under a motor that stands each drops other volts.
WORN_OHM: Final = {"worn": 0.5} | {f"worn_{n}": round(0.5 * 2.0 ** (n / 2.0), 2) for n in range(1, 11)}
GROUND_OHM: Final = 40.0
WEAK_SHARE: Final = 3.0


@dataclass(frozen=True)
class Way:
    """A way to fail: its word, how it is said, how common it is among such parts, and what becomes of the part's impedance."""

    code: str
    label: str
    weight: float
    conducts: str = ""

    @property
    def sort(self) -> str:
        """The way it is one of: worn is worn, however much."""
        return self.code.partition("_")[0]


_WORN: Final = tuple(Way(code, "pole worn, drops volts", 0.3 if code == "worn" else 0.04, code) for code in WORN_OHM)
# kind of part -> ways it fails. `conducts`: open, closed, worn, shorted, weak, grounded, or stalled (draws, does not turn).
WAYS: Final[dict[str, tuple[Way, ...]]] = {
    "wire": (Way("open", "burnt or loose", 0.15, "open"),),
    "fuse": (Way("open", "blown", 1.0, "open"),),
    "disconnect": (Way("open", "not made", 0.3, "open"),),
    "pole": (Way("open", "pole does not make", 1.0, "open"), *_WORN,
             Way("welded", "pole welded", 0.4, "closed")),
    "contact": (Way("open", "contact does not make", 0.8, "open"), Way("welded", "contact welded", 0.6, "closed")),
    "output": (Way("open", "output dead", 0.8, "open"), Way("welded", "output stuck on", 0.4, "closed")),
    "coil": (Way("open", "coil open", 1.0, "open"), Way("stuck", "does not pull in", 0.5, "stuck")),
    "switch": (Way("open", "open", 1.0, "open"), Way("closed", "stuck closed", 0.25, "closed")),
    "overload": (Way("open", "open: hot, or failed", 1.0, "open"),),
    "winding": (Way("open", "winding open", 0.7, "open"), Way("grounded", "winding to ground", 0.7, "grounded")),
    "motor": (Way("open", "motor dead", 1.0, "open"), Way("stalled", "seized", 0.5, "stalled")),
    "heater": (Way("open", "element open", 1.0, "open"), Way("grounded", "element to ground", 0.2, "grounded")),
    "capacitor": (Way("open", "capacitor open", 0.8, "open"), Way("weak", "capacitor weak", 0.6, "weak")),
    "ptc": (Way("open", "PTC open", 1.0, "open"),),
    "transformer": (Way("open", "transformer dead", 0.8, "open"),),
    "clock": (Way("open", "timer motor dead", 0.8, "open"),),
}  # fmt: skip


@dataclass(frozen=True)
class Fault:
    """One part in one way of failing, and what failed `also`; the whole circuit sound where it has neither."""

    part: str = ""
    way: str = ""
    also: "Fault | None" = None

    @property
    def each(self) -> tuple["Fault", ...]:
        """What failed, one by one; nothing in a sound circuit."""
        return ((self,) if self.part else ()) + (self.also.each if self.also else ())

    @property
    def key(self) -> str:
        """Part and way together, one after the other; “sound” for none."""
        return "+".join(f"{one.part}:{one.way}" for one in self.each) or "sound"


SOUND: Final = Fault()


def together(faults: Iterable[Fault]) -> Fault:
    """Return one fault of several that are there at once; none of them twice, a sound circuit for none."""
    found: Fault | None = None
    for one in reversed(list(dict.fromkeys((single.part, single.way) for fault in faults for single in fault.each))):
        found = Fault(*one, found)
    return found or SOUND


def from_key(key: str) -> Fault:
    """Return the fault of a `Fault.key`."""
    if key == "sound":
        return SOUND
    return together(Fault(part, way) for part, _, way in (one.partition(":") for one in key.split("+")))


def way_of(part: Part, code: str) -> Way:
    """Return a way a part fails."""
    return next(way for way in WAYS[part.kind] if way.code == code)


def single_faults(circuit: Circuit) -> list[Fault]:
    """Return the sound circuit and every single fault of its parts, in their order."""
    return [SOUND, *(Fault(part.key, way.code) for part in circuit.parts for way in WAYS[part.kind])]


# What fails together: start of a part's key and way, the same of the other, how common beside a single fault. Parts that are counted go
# with their neighbour, or with the other's part of their own leg.
TOGETHER: Final[tuple[tuple[str, str, str, str, float], ...]] = (
    ("winding_", "grounded", "fuse_", "open", 0.15),
    ("pole_", "open", "pole_", "open", 0.08), ("pole_", "worn", "pole_", "worn", 0.08), ("pole_", "welded", "pole_", "welded", 0.15),
    ("element_", "open", "element_", "open", 0.15), ("fan_", "open", "fan_", "open", 0.05),
    ("start_relay", "welded", "start_capacitor", "open", 0.1), ("start_capacitor", "open", "overload", "open", 0.1),
    ("winding_start", "open", "overload", "open", 0.03),
)  # fmt: skip


def every_fault(circuit: Circuit) -> list[Fault]:
    """Return the sound circuit, every single fault of its parts, and those that come together."""
    return [*single_faults(circuit), *pair_faults(circuit)]


def pair_faults(circuit: Circuit) -> list[Fault]:
    """Return the faults that come together; all poles welded stand for a contactor that does not drop out."""
    found = []
    for one, way, other, other_way, _ in TOGETHER:
        firsts, seconds = _named(circuit, one), _named(circuit, other)
        if one == other and way == "welded":
            found += [together(Fault(key, way) for key in firsts)] if len(firsts) > 1 else []
        elif one == other:
            found += [Fault(first, way, Fault(second, way)) for first, second in zip(firsts, firsts[1:], strict=False)]
        else:
            found += [
                Fault(first, way, Fault(second, other_way))
                for first in firsts for second in seconds if len(seconds) == 1 or _leg(first) == _leg(second)
            ]  # fmt: skip
    for one, way, other, other_way, _ in ON_ANY_LEG:
        found += [
            Fault(first, way, Fault(second, other_way)) for first in _named(circuit, one) for second in _named(circuit, other)
        ]  # fmt: skip
    found += _protectors(circuit)
    return [fault for fault in found if all(_can(circuit.part(one.part), one.way) for one in fault.each)]


def _protectors(circuit: Circuit) -> list[Fault]:
    """A protector inside that opens every winding, or two, by itself and behind a pole that makes no more."""
    if circuit.phases != 3:
        return []
    windings = [Fault(key, "open") for key in _named(circuit, "winding_")]
    several = [together(some) for size in (2, 3) for some in combinations(windings, size)]
    behind = [together((Fault(pole, "open"), some)) for pole in _named(circuit, "pole_") for some in several]
    return [*several, *behind]


def _can(part: Part, way: str) -> bool:
    """Whether a part fails so: a wire in place of one that is not there only opens."""
    return any(one.code == way for one in WAYS[part.kind])


# What fails together on whatever leg: a pole that makes no more behind which a winding's protector opened.
ON_ANY_LEG: Final[tuple[tuple[str, str, str, str, float], ...]] = (("pole_", "open", "winding_", "open", 0.06),)


# How common it is that a protector inside opens two windings or all three; behind a pole that makes no more so much less.
PROTECTOR: Final = {2: 0.05, 3: 0.4}
BEHIND_POLE: Final = 0.1
# What follows a stem that is counted.
COUNTS: Final = (*(str(n) for n in range(1, 100)), "run", "start")


def _leg(key: str) -> str:
    # A lone phase has its run winding in its one leg.
    return key.rpartition("_")[2].replace("run", "1")


def _named(circuit: Circuit, stem: str) -> list[str]:
    """The parts of a circuit that a stem names: the very part, or those that are counted after it."""
    counted = [part.key for part in circuit.parts if stem.endswith("_") and part.key.startswith(stem)]
    return [part.key for part in circuit.parts if part.key == stem] + [key for key in counted if key[len(stem) :] in COUNTS]


def weight_of(circuit: Circuit, fault: Fault) -> float:
    """How likely a fault is before anything was measured, unnormalised; a sound circuit somebody was called to is rare."""
    if not fault.part:
        return 0.3
    if fault.also is None:
        return way_of(circuit.part(fault.part), fault.way).weight
    windings = sum(one.part.startswith("winding_") for one in fault.each)
    if windings > 1:
        return PROTECTOR[windings] * (1.0 if windings == len(fault.each) else BEHIND_POLE)
    return next(
        share for one, way, other, other_way, share in (*TOGETHER, *ON_ANY_LEG)
        if (way, other_way) == (fault.way, fault.also.way)
        and fault.part in _named(circuit, one) and fault.also.part in _named(circuit, other)
    )  # fmt: skip


def ohm_of(part: Part, way: str, closed: bool) -> complex:
    """Return the impedance of a part in a way of failing (none: sound), Ω, where its contact should be closed or not."""
    conducts = way_of(part, way).conducts if way else ""
    if conducts == "open":
        return OPEN_OHM
    if conducts == "closed":
        return CLOSED_OHM
    if not closed:
        return OPEN_OHM
    if conducts in WORN_OHM:
        return complex(WORN_OHM[conducts])
    if conducts == "shorted":
        return part.ohm * SHORTED_SHARE
    if conducts == "weak":
        return part.ohm * WEAK_SHARE
    if conducts == "stalled":
        return part.ohm / 4.0
    return part.ohm
