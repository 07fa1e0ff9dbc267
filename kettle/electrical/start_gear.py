"""The wires of a single-phase compressor's start gear: as they should be by function, and what a difference does.

By function, as the trade notes them before anything is pulled off (potential relay): start capacitor to the contact (1), start winding to
coil and contact's other side (2), common to the coil (5). Wires are compared by what they join, not by which ends they lie on.
"""

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError

Wire = tuple[str, str]


@dataclass(frozen=True)
class Terminal:
    """A terminal on the drawing: its key, what it is called, and where it lies there."""

    key: str
    label: str
    x: float
    y: float


@dataclass(frozen=True)
class Box:
    """What terminals belong to, as drawn round them: its title, its terminals."""

    title: str
    terminals: tuple[Terminal, ...]


# fmt: off
_CONTACTOR: Final = Box("contactor", (Terminal("T1", "contactor T1", 70, 70), Terminal("T2", "contactor T2", 70, 230)))
_COMPRESSOR: Final = Box("compressor", (
    Terminal("C", "compressor C", 660, 70), Terminal("S", "compressor S", 610, 160), Terminal("R", "compressor R", 710, 160)))
_RUN: Final = Box("run capacitor", (
    Terminal("RC1", "run capacitor, one side", 430, 240), Terminal("RC2", "run capacitor, other side", 510, 240)))
_START: Final = Box("start capacitor", (
    Terminal("SC1", "start capacitor, one side", 220, 240), Terminal("SC2", "start capacitor, other side", 300, 240)))
_RELAY: Final = Box("relay", (Terminal("1", "relay 1", 250, 130), Terminal("2", "relay 2", 330, 130), Terminal("5", "relay 5", 330, 60)))
_CURRENT: Final = Box("relay", (
    Terminal("L", "relay L, line", 250, 60), Terminal("M", "relay M, to run", 330, 60), Terminal("S1", "relay S, to start", 290, 130)))
_PTC: Final = Box("PTC", (Terminal("P1", "PTC, one side", 250, 90), Terminal("P2", "PTC, other side", 330, 90)))
# fmt: on
BOXES: Final[dict[str, tuple[Box, ...]]] = {
    "potential": (_CONTACTOR, _COMPRESSOR, _RELAY, _START, _RUN),
    "current": (_CONTACTOR, _COMPRESSOR, _CURRENT, _START),
    "ptc": (_CONTACTOR, _COMPRESSOR, _PTC, _RUN),
    "none": (_CONTACTOR, _COMPRESSOR, _RUN),
}
TERMINALS: Final = {gear: tuple(one for box in boxes for one in box.terminals) for gear, boxes in BOXES.items()}
# Room round the terminals of a box, as drawn.
ROOM: Final = 30.0
# What has to be joined, by function; in words, the group's job.
JOINED: Final[dict[str, tuple[tuple[str, tuple[str, ...]], ...]]] = {
    "potential": (
        ("line to common and the relay's coil", ("T1", "C", "5")),
        ("line to run and one side of both capacitors", ("T2", "R", "SC1", "RC1")),
        ("start winding to coil and contact, and the run capacitor", ("S", "2", "RC2")),
        ("start capacitor to the relay's contact", ("1", "SC2")),
    ),
    "current": (
        ("line to common", ("T1", "C")), ("line to the relay", ("T2", "L")), ("relay to run", ("M", "R")),
        ("start capacitor to the relay's contact", ("S1", "SC1")), ("start capacitor to the start winding", ("SC2", "S")),
    ),
    "ptc": (
        ("line to common", ("T1", "C")), ("line to run, PTC and run capacitor", ("T2", "R", "P1", "RC1")),
        ("PTC and run capacitor to the start winding", ("S", "P2", "RC2")),
    ),
    "none": (("line to common", ("T1", "C")), ("line to run and run capacitor", ("T2", "R", "RC1")),
             ("run capacitor to the start winding", ("S", "RC2"))),
}  # fmt: skip
# Ends that are alike: the other way round is as right.
SWAPS: Final[dict[str, tuple[Wire, ...]]] = {
    "potential": (("SC1", "SC2"), ("RC1", "RC2")), "current": (("SC1", "SC2"),), "ptc": (("P1", "P2"), ("RC1", "RC2")),
    "none": (("RC1", "RC2"),),
}  # fmt: skip
# Joined though they must not be: what it does, the first that fits.
WRONGLY: Final[tuple[tuple[frozenset[str], str], ...]] = (
    (frozenset(("T1", "T2")), "a dead short across the line"),
    (frozenset(("SC1", "SC2")), "the start capacitor is bridged: the start winding lies straight on the line"),
    (frozenset(("RC1", "RC2")), "the run capacitor is bridged: the start winding lies straight on the line"),
    (frozenset(("1", "2")), "the contact is bridged: the start winding is left in and burns"),
    (frozenset(("SC2", "S")), "the start capacitor goes round the relay's contact: the start winding is left in and burns"),
    (frozenset(("SC2", "T1")), "the start capacitor lies across the line and bursts"),
    (frozenset(("RC2", "T1")), "the run capacitor lies across the line"),
    (frozenset(("5", "T2")), "the coil lies on the wrong side: the relay does not let the start winding go at its volts"),
    (frozenset(("5", "S")), "the coil has both ends on the start winding and never pulls: the start winding is left in"),
    (frozenset(("2", "T2")), "the coil lies across the line and pulls at once: no start"),
    (frozenset(("C", "T2")), "common and run are exchanged: it hums, or turns weakly"),
    (frozenset(("S", "T1")), "common and start are exchanged: it hums"),
    (frozenset(("S", "T2")), "the start winding lies straight on the line: it burns"),
    (frozenset(("R", "S")), "run and start are joined: it hums"),
)


def checked(gear: str, wires: Iterable[Sequence[str]]) -> list[Wire]:
    """Return wires that can be, each once; InputError for a gear or a terminal that is not known, or a wire from an end to itself."""
    if gear not in TERMINALS:
        raise InputError(f"Started by: “{gear[:20]}” is none of {', '.join(TERMINALS)}")
    known = {one.key for one in TERMINALS[gear]}
    found: list[Wire] = []
    for wire in wires:
        if len(wire) != 2:
            raise InputError(f"A wire has two ends: {'-'.join(wire)[:40]} has {len(wire)}")
        one, other = wire
        for end in (one, other):
            if end not in known:
                raise InputError(f"Terminal “{end[:20]}” is not on this start gear; there are {', '.join(sorted(known))}")
        if one == other:
            raise InputError(f"Both ends of the wire are on {one}")
        if (one, other) not in found and (other, one) not in found:
            found.append((one, other))
    return found


def usual(gear: str) -> list[Wire]:
    """Return the wires as they should be by function, each group as a chain from its first terminal on."""
    return [(group[0], end) for _, group in JOINED[gear] for end in group[1:]]


def joined(gear: str, wires: Collection[Wire]) -> list[frozenset[str]]:
    """Return the terminals that wires join, as groups; one that no wire is on stands alone."""
    groups = [{one.key} for one in TERMINALS[gear]]
    for one, other in wires:
        first = next(group for group in groups if one in group)
        second = next(group for group in groups if other in group)
        if first is not second:
            first |= second
            groups.remove(second)
    return [frozenset(group) for group in groups]


def differences(gear: str, wires: Collection[Wire]) -> list[str]:
    """Return every difference between wires and how they should join by function, in words with what it does; none where all is right."""
    best: list[str] | None = None
    for swapped in _ways_round(gear):
        told = _told(gear, joined(gear, [(swapped.get(a, a), swapped.get(b, b)) for a, b in wires]))
        if best is None or len(told) < len(best):
            best = told
    return best or []


def _ways_round(gear: str) -> list[dict[str, str]]:
    """Each way alike ends can lie: terminal -> the one it stands for."""
    ways: list[dict[str, str]] = [{}]
    for one, other in SWAPS[gear]:
        ways += [way | {one: other, other: one} for way in ways]
    return ways


def _told(gear: str, groups: Sequence[frozenset[str]]) -> list[str]:
    labels = {one.key: one.label for one in TERMINALS[gear]}
    told = []
    for job, group in JOINED[gear]:
        main = max(groups, key=lambda found, group=group: len(found & set(group)))  # type: ignore[misc]
        apart = ", ".join(labels[end] for end in group if end not in main)
        if apart:
            told.append(f"{apart} should be on {labels[next(end for end in group if end in main)]} ({job})")
    right = {end: place for place, (_, group) in enumerate(JOINED[gear]) for end in group}
    for found in groups:
        if len({right[end] for end in found if end in right}) > 1:
            does = next((what for pair, what in WRONGLY if pair <= found), "joined though they must not be")
            told.append(f"{', '.join(labels[end] for end in sorted(found))}: {does}")
    return told


def outline(box: Box) -> tuple[str, float, float, float, float]:
    """Return a box as drawn: its title, and left, top, width and height in units of the drawing."""
    xs, ys = [one.x for one in box.terminals], [one.y for one in box.terminals]
    left, top = min(xs) - ROOM, min(ys) - ROOM
    return box.title, left, top, max(xs) + ROOM - left, max(ys) + ROOM - top
