"""Where a leak is searched, in which order for a unit and its signs, and what signals at neighbouring places name."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Final

from kettle.judging.facts import Facts
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import format_number

# What can be tapped at a place: its word, and how much it weighs towards a leak there.
HEARD: Final[dict[str, str]] = {"no": "no", "signal": "signal", "twice": "signal twice", "bubbles": "bubbles"}
# A place whose reading is no more than so many times what the air itself reads has told nothing yet.
OVER_BACKGROUND: Final = 2.0
BACKGROUND: Final = "background"
# What a detector shows, whatever its unit.
READING: Final = (0.0, 100_000.0)


@dataclass(frozen=True)
class Place:
    """A place worth searching: its name, how it is gone over, its neighbours, and which part of the circuit it belongs to.

    `weight` says how often leaks are found there, judgement of the trade; `signs` which observations bring it forward.
    """

    code: str
    label: str
    how: str
    belongs: str
    weight: float
    neighbours: tuple[str, ...] = ()
    signs: tuple[tuple[str, str], ...] = ()
    only: tuple[str, tuple[object, ...]] | None = None

    def is_on(self, unit: Unit) -> bool:
        """Whether a unit built like this has the place (`only`: field of the unit, values that have it)."""
        return self.only is None or getattr(unit, self.only[0]) in self.only[1]


# fmt: off
PLACES: Final[tuple[Place, ...]] = (
    Place("caps", "Stem caps and seals", "Cap off, over the stem; cap on again with its seal", "valves", 3.0, ("cores",),
          (("oil_trace", "at_valve_stem"),)),
    Place("cores", "Valve cores and taps", "Over each core, then bubbles; caps back on", "valves", 3.0, ("caps",)),
    Place("flares", "Flares and unions", "All round each nut, from below too", "lines", 2.5, ("lines", "drier"),
          (("oil_trace", "at_fitting"),)),
    Place("coil_joints", "Coil: joints and U-bends", "Each bend and header, both ends", "coil", 2.5,
          ("coil_left", "coil_right", "valve", "tube"),
          (("oil_trace", "at_coil"), ("melt_water", "cloudy_foaming"))),
    Place("coil_left", "Coil: left half", "Fan off; along the fins, both faces, slowly", "coil", 1.6, ("coil_joints", "coil_right"),
          (("melt_water", "cloudy_foaming"),)),
    Place("coil_right", "Coil: right half", "Fan off; along the fins, both faces, slowly", "coil", 1.6, ("coil_joints", "coil_left"),
          (("melt_water", "cloudy_foaming"),)),
    Place("valve", "Expansion valve and distributor", "Body, equalizer line, each distributor tube", "coil", 1.2, ("coil_joints", "lines"),
          only=("metering", ("txv", "eev"))),
    Place("tube", "Capillary tube: both ends", "Where it leaves the drier and where it enters the coil, along the line it is soldered to",
          "coil", 1.6, ("coil_joints", "drier"), only=("metering", ("cap_tube",))),
    Place("rubs", "Where tubes rub", "Capillary, equalizer, discharge line against frame and each other", "lines", 1.8,
          ("lines", "compressor")),
    Place("lines", "Lines and brazed joints", "Each joint; then along the run, through walls", "lines", 1.0, ("flares", "rubs", "valve")),
    Place("drier", "Drier, glass, solenoid", "Both ends of each, the glass round its rim", "lines", 1.2, ("flares", "receiver", "tube")),
    Place("receiver", "Receiver and its valves", "Seams, fusible plug, service valves", "unit", 1.0, ("drier", "condenser"),
          only=("receiver", (True,))),
    Place("condenser", "Condenser: bends and tube sheets", "Fan off; bends at both ends, where it sits on its frame", "unit", 1.5,
          ("compressor", "receiver")),
    Place("compressor", "Compressor: joints, terminals, relief", "Stubs, terminal box with power locked out, gaskets", "unit", 1.2,
          ("condenser", "rubs")),
)
# fmt: on
BY_CODE: Final[Mapping[str, Place]] = {place.code: place for place in PLACES}
# A sign brings its places forward by so much.
SIGN: Final = 4.0
# Of several coils each has its own places: the code of one and the coil's number, joined so.
OF_COIL: Final = "@"


def code_of(code: str, coil: int | None = None) -> str:
    """Return the code of a place, of one coil of several where it belongs to the coil (`coil`, 1 the first)."""
    return f"{code}{OF_COIL}{coil}" if coil is not None and BY_CODE[code].belongs == "coil" else code


def coil_of(code: str) -> int | None:
    """Return the coil that a place is of; None for one of the whole circuit."""
    _, _, coil = code.partition(OF_COIL)
    return int(coil) if coil else None


def place(code: str) -> Place:
    """Return a place by its code; one of a coil of several names it."""
    base, _, coil = code.partition(OF_COIL)
    return replace(BY_CODE[base], code=code, label=f"{BY_CODE[base].label}, coil {coil}") if coil else BY_CODE[base]


def places_on(unit: Unit) -> list[Place]:
    """Return the places a unit has, those of the coil once for each of its coils."""
    coils = range(1, unit.evaporators + 1) if unit.evaporators > 1 else (None,)
    found = []
    for one in (one for one in PLACES if one.is_on(unit)):
        found += [place(code_of(one.code, coil)) for coil in (coils if one.belongs == "coil" else (None,))]
    return found


def near(code: str, unit: Unit) -> tuple[str, ...]:
    """Return the codes of a place's neighbours that a unit has: on its own coil, and for a place of the circuit on every coil."""
    base, _, coil = code.partition(OF_COIL)
    there = [one.code for one in places_on(unit)]
    return tuple(
        other for other in there
        if other.partition(OF_COIL)[0] in BY_CODE[base].neighbours and (not coil or coil_of(other) in (None, int(coil)))
    )  # fmt: skip


def in_order(unit: Unit, facts: Facts) -> list[Place]:
    """Return the places of a unit in the order in which they are worth searching, by how often they leak and by the signs seen."""
    return sorted(places_on(unit), key=lambda one: -one.weight * (SIGN if any(facts.is_(key, word) for key, word in one.signs) else 1.0))


@dataclass(frozen=True)
class Found:
    """What the search came to: the places named, in words, and what is next."""

    places: tuple[str, ...]
    says: str


def drifting(heard: Mapping[str, str], readings: Mapping[str, float]) -> tuple[str, ...]:
    """Return the places that signalled no higher than the air they stand in: by readings of the detector, background among them."""
    air = readings.get(BACKGROUND)
    if not air:
        return ()
    return tuple(
        code for code, word in heard.items()
        if word in ("signal", "twice") and code in readings and readings[code] <= OVER_BACKGROUND * air
    )  # fmt: skip


def neighbours(one: Place, unit: Unit) -> str:
    """Return the neighbours of a place that a unit has, in words."""
    return _labels(near(one.code, unit))


def named(unit: Unit, heard: Mapping[str, str], readings: Mapping[str, float]) -> tuple[str, ...]:
    """Return the places that a search names: bubbles, or two signals over the air they stand in where everything around gives none."""
    bubbles = tuple(code for code in heard if heard[code] == "bubbles")
    if bubbles:
        return bubbles
    if drifting(heard, readings):
        return ()
    twice = [code for code, word in heard.items() if word == "twice"]
    return tuple(
        code for group in _side_by_side(twice, unit) if all(heard.get(other) == "no" for other in _around(group, unit)) for code in group
    )


def found(unit: Unit, facts: Facts, heard: Mapping[str, str], readings: Mapping[str, float] | None = None) -> Found:
    """Return what was found by what each place gave (code -> word of `HEARD`), and by what the detector read there and in the air.

    Bubbles name a place; two signals there name it where its neighbours give none; a signal at neighbours too is gas that drifts, and so is
    one that stands no higher than the background.
    """
    readings = readings or {}
    drift, there = drifting(heard, readings), named(unit, heard, readings)
    if drift and not there:
        air = format_number(readings[BACKGROUND], 1)
        return Found((), f"{_labels(drift[:1])}: {format_number(readings[drift[0]], 1)} where the air itself reads {air}. "
                         "Air it out, and again")  # fmt: skip
    if there and heard[there[0]] == "bubbles":
        return Found(there, f"{_labels(there)}: bubbles. Found")
    if there:
        parts = {place(code).belongs for code in there}
        tail = ": in the coil, not the lines" if parts == {"coil"} else ""
        where = "between them, nothing around" if len(there) > 1 else "nothing at its neighbours"
        return Found(there, f"{_labels(there)}: signalled twice, {where}{tail}")
    twice = [code for code, word in heard.items() if word == "twice"]
    if twice:
        open_ = [other for code in twice for other in near(code, unit) if heard.get(other) not in ("no", "twice")]
        if open_:
            return Found((), f"Signalled twice at {_labels(tuple(twice))}: now its neighbours, {_labels(tuple(dict.fromkeys(open_)))}")
    once = [code for code, word in heard.items() if word == "signal"]
    if once:
        return Found((), f"One signal at {_labels(tuple(once))}: let it clear, and again from the other side")
    left = [one for one in in_order(unit, facts) if one.code not in heard]
    if left:
        return Found((), f"Next: {left[0].label}. {left[0].how}")
    return Found((), "Nothing found at any place: standing pressure with nitrogen over night, or dye; each tells more and costs a visit")


def _side_by_side(codes: list[str], unit: Unit) -> list[list[str]]:
    """Places grouped by being neighbours: gas that signals at several side by side comes from one leak between them."""
    groups: list[list[str]] = []
    for code in codes:
        touching = [group for group in groups if any(other in near(code, unit) for other in group)]
        merged = [one for group in touching for one in group]
        groups = [group for group in groups if group not in touching] + [[*merged, code]]
    return groups


def _around(group: list[str], unit: Unit) -> set[str]:
    """The neighbours of a group of places that a unit has and that are not in it."""
    return {other for code in group for other in near(code, unit)} - set(group)


def _labels(codes: tuple[str, ...]) -> str:
    return " and ".join(place(code).label for code in codes)
