"""The ice map: a drawn coil face and the places beyond it, read as a technician reads them.

The face is a grid seen from the air-off side, the valve (distributor) end at the left, top row first.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import InputError

ROWS: Final = 5
COLUMNS: Final = 10
# One letter a cell, as the map is stored.
FORMS: Final = {".": "none", "l": "light_frost", "h": "heavy_frost", "i": "hard_ice", "s": "snow"}
LETTERS: Final = {form: letter for letter, form in FORMS.items()}
FORM_WORDS: Final = {"none": "bare", "light_frost": "light frost", "heavy_frost": "heavy frost", "hard_ice": "hard ice", "snow": "snow"}


@dataclass(frozen=True)
class Place:
    """A place beyond the coil face: what ice there usually means. `observed` is false where `ice_places` has no word for it."""

    code: str
    label: str
    usually: str
    observed: bool = True


# fmt: off
PLACES: Final[dict[str, Place]] = {p.code: p for p in (
    Place("valve_outlet", "Valve outlet", "little liquid arrives: charge, drier or valve, or no air over the coil"),
    Place("distributor_tubes", "Distributor", "little liquid arrives: charge, drier or valve, or no air over the coil"),
    Place("fan_guards", "Fan guards", "fans start before the water has dripped off, or defrosts run too long"),
    Place("ceiling", "Ceiling", "defrosts too long or too often, fans back too early, or warm air through the door"),
    Place("drain_pan", "Drain pan", "the drain or its heater"),
    Place("suction_line", "Suction line", "may be normal where superheat is right; with little superheat it is flooding"),
    Place("door_frame", "Door frame", "gasket or frame heater"),
    Place("floor", "Floor", "water has run off: drain, or too much of it in a defrost"),
    Place("coil_back", "Back of the coil", "ice that a look from the front misses", observed=False),
    Place("inside_corners", "Inside corners", "ice that comes back within days if it is left", observed=False),
)}
# What a square foot of iced face carries: thickness of a solid layer spread over the fins, in, and its density, lb/ft³.
# Frost densities after the range usual for coils in service (about 5 to 25 lb/ft³); solid ice is 57.
_LAYERS: Final[dict[str, tuple[tuple[float, float], float]]] = {
    "light_frost": ((0.08, 0.20), 12.0), "heavy_frost": ((0.30, 0.80), 20.0),
    "hard_ice": ((0.35, 0.90), 55.0), "snow": ((0.30, 1.00), 10.0),
}
# How far hard ice reaches: its layer, in, on the face and in the room between the fins. A sheet lies on the face; into the fins is the
# usual call; solid is a coil bridged through, some 7 in deep with 0.85 of it room.
DEPTHS: Final[dict[str, tuple[str, tuple[float, float]]]] = {
    "sheet": ("a sheet on the face", (0.35, 0.90)),
    "fins": ("into the fins", (1.1, 2.7)),
    "solid": ("bridged solid, front to back", (3.0, 5.95)),
}
USUAL_DEPTH: Final = "fins"
# fmt: on
# Where ice stays unseen from the front.
HIDDEN: Final = ("coil_back", "inside_corners")
WHOLE: Final = 0.85
MOST: Final = 0.60
LITTLE: Final = 0.25
ANY: Final = 0.04
ICED_FORMS: Final = ("heavy_frost", "hard_ice", "snow")


@dataclass(frozen=True)
class IceMap:
    """A drawn map: rows of letters (see FORMS), and form by place; a place that is absent was not looked at."""

    rows: tuple[str, ...]
    places: Mapping[str, str]

    def share(self, rows: slice = slice(None), columns: slice = slice(None), forms: Sequence[str] = ()) -> float:
        """Return the share of cells in a part of the face that carry ice (of the forms given, else of any), 0 to 1."""
        cells = [cell for row in self.rows[rows] for cell in row[columns]]
        wanted = [LETTERS[form] for form in forms] or [letter for letter in FORMS if letter != "."]
        return sum(cell in wanted for cell in cells) / len(cells)

    @property
    def form(self) -> str:
        """The form that covers most of the iced cells; the harder one where two cover as much."""
        shares = {form: self.share(forms=(form,)) for form in ("hard_ice", "heavy_frost", "snow", "light_frost")}
        best = max(shares, key=lambda form: shares[form])
        return best if shares[best] > 0 else "none"

    @property
    def iced_places(self) -> tuple[str, ...]:
        """The places beyond the face that carry ice."""
        return tuple(code for code in PLACES if self.places.get(code, "none") != "none")

    @property
    def iced(self) -> bool:
        """Whether ice that counts is drawn anywhere: heavy frost, hard ice or snow; light frost is a coil at work."""
        return self.form in ICED_FORMS or any(self.places[code] in ICED_FORMS for code in self.iced_places)

    @property
    def bare(self) -> bool:
        """Whether no ice is drawn anywhere."""
        return self.form == "none" and not self.iced_places

    @property
    def not_looked(self) -> tuple[str, ...]:
        """The places nobody looked at."""
        return tuple(code for code in PLACES if code not in self.places)


@dataclass(frozen=True)
class Pattern:
    """A way ice sits on a coil: where it counts as ice (`ice_places`), what it usually means, what it does not prove."""

    code: str
    title: str
    where: str
    usually: str
    not_proved: str
    fits: Callable[[IceMap], bool]


def _first_passes(m: IceMap) -> bool:
    return m.share(columns=slice(0, 3)) >= MOST and m.share(columns=slice(5, None)) <= LITTLE / 2


def _far_end(m: IceMap) -> bool:
    return m.share(columns=slice(7, None)) >= MOST and m.share(columns=slice(0, 5)) <= LITTLE / 2


def _bottom(m: IceMap) -> bool:
    return m.share(rows=slice(3, None)) >= MOST and m.share(rows=slice(0, 2)) <= LITTLE


def _top(m: IceMap) -> bool:
    return m.share(rows=slice(0, 2)) >= MOST and m.share(rows=slice(3, None)) <= LITTLE


def _whole(*forms: str) -> Callable[[IceMap], bool]:
    return lambda m: m.share() >= WHOLE and m.form in forms


# fmt: off
# The first that fits is the reading; the order goes from the most telling to the least.
PATTERNS: Final = (
    Pattern("bare", "Bare coil", "", "No ice on the face.", "Ice may still sit at the back.",
            lambda m: m.share() < ANY),
    Pattern("first_passes", "Ice on the first passes, bare behind", "coil_inlet_passes",
            "The coil is starved: little liquid arrives, or no air crosses it.",
            "It does not tell charge from drier from valve. Watch the melt water for suds at the valve end.", _first_passes),
    Pattern("snow", "Snow over the coil", "coil_whole", "Warm wet air comes in: a door, a gap, a missing curtain.",
            "It does not say which opening: look along the frame.", _whole("snow")),
    Pattern("whole_hard", "Hard, slick ice over everything", "coil_whole",
            "Weeks of part-defrosts and refreezing: too little defrost for the load, or the door.",
            "It does not tell the program from the door: watch one defrost to its end.", _whole("hard_ice")),
    Pattern("whole_soft", "Soft heavy frost, evenly", "coil_whole", "A defrost was missed, or one is just due.",
            "It does not prove a fault: ask when the last defrost was.", _whole("heavy_frost")),
    Pattern("light_even", "Light frost, evenly", "coil_whole", "A coil at work below freezing.",
            "Nothing is wrong by this alone.", _whole("light_frost")),
    Pattern("bottom", "Ice growing from the bottom", "coil_bottom", "Defrosts end too early, or the drain holds water back.",
            "It does not tell the fail-safe from the drain: pour a cup of water.", _bottom),
    Pattern("top", "Ice along the top", "coil_part", "Warm air enters above, or the upper heater does not work.",
            "It does not prove a heater: measure amps per element.", _top),
    Pattern("far_end", "Ice at the far end, bare at the valve", "coil_part",
            "One part is not defrosted or not swept by air: an element, a fan, stock.",
            "It does not tell heater from fan: look at each.", _far_end),
    Pattern("most", "Ice over most of the coil", "coil_part", "Defrosts leave ice behind, or the load is more than they carry.",
            "It does not tell the program from the door: watch one defrost.", lambda m: m.share() >= MOST),
    Pattern("patchy", "Patches of ice", "coil_part", "Part of the coil stays iced: an element, a fan, stock against it, or an oil spot.",
            "Patches alone prove nothing: mark them and see whether they come back.", lambda m: True),
)
# fmt: on


@dataclass(frozen=True)
class Reading:
    """What a map says: share covered in %, mass in lb, the two observations it stands for, and the pattern in words."""

    covered_pct: float
    mass_lb: tuple[float, float]
    ice_form: str
    ice_places: tuple[str, ...]
    pattern: Pattern
    beyond: tuple[str, ...]


def parse(rows: Sequence[str], places: Mapping[str, str]) -> IceMap:
    """Return a map from its stored form.

    Raises InputError for a grid of another size, a letter or a place that does not exist.
    """
    if len(rows) != ROWS or any(not isinstance(row, str) or len(row) != COLUMNS for row in rows):
        raise InputError(f"Ice map: it has {ROWS} rows of {COLUMNS} cells")
    strange = {cell for row in rows for cell in row} - set(FORMS)
    if strange:
        raise InputError(f"Ice map: “{sorted(strange)[0]}” is not one of {' '.join(FORMS)}")
    for code, form in places.items():
        if code not in PLACES:
            raise InputError(f"Ice map: place “{code[:30]}” is not one of {', '.join(PLACES)}")
        if form not in LETTERS:
            raise InputError(f"Ice map: “{str(form)[:30]}” is not one of {', '.join(LETTERS)}")
    return IceMap(tuple(rows), dict(places))


def mass_lb(drawn: IceMap, coil_face_ft2: float, deep: str = "sheet") -> tuple[float, float]:
    """Return the least and most mass of ice on a coil, lb; `deep` (of DEPTHS) says how far hard ice reaches.

    Mass = Σ over forms of face × share × layer thickness × density; thickness is the uncertain part.
    InputError for a depth that is none.
    """
    low = high = 0.0
    if deep not in DEPTHS:
        raise InputError(f"Ice: how deep is one of {', '.join(words for words, _ in DEPTHS.values())}")
    for form, (layer, density) in _LAYERS.items():
        thin_in, thick_in = DEPTHS[deep][1] if form == "hard_ice" else layer
        per_inch = coil_face_ft2 * drawn.share(forms=(form,)) * density / 12.0
        low, high = low + per_inch * thin_in, high + per_inch * thick_in
    return low, high


def total_mass_lb(maps: Sequence[tuple[IceMap, float]], deep: str = "sheet") -> tuple[float, float] | None:
    """Return the least and most mass of ice on several coils, lb, from (map, face in ft²); None without a map."""
    if not maps:
        return None
    masses = [mass_lb(drawn, coil_face_ft2, deep) for drawn, coil_face_ft2 in maps]
    return sum(low for low, _ in masses), sum(high for _, high in masses)


def read(drawn: IceMap, coil_face_ft2: float) -> Reading:
    """Read a map: share covered, mass, what it stands for as observations, the pattern and the places beyond the coil."""
    pattern = next(pattern for pattern in PATTERNS if pattern.fits(drawn))
    beyond = drawn.iced_places
    observed = tuple(code for code in beyond if PLACES[code].observed)
    form, where = ("none" if pattern.code == "bare" else drawn.form), pattern.where
    hidden = [drawn.places[code] for code in HIDDEN if drawn.places.get(code, "none") != "none"]
    if form not in ICED_FORMS and hidden:
        # A back or an inside corner still iced is an iced coil, however bare its face.
        form, where = max(hidden, key=lambda one: one in ICED_FORMS), "coil_part"
    return Reading(
        covered_pct=100.0 * drawn.share(),
        mass_lb=mass_lb(drawn, coil_face_ft2),
        ice_form=form,
        ice_places=((where,) if where else ()) + observed,
        pattern=pattern,
        beyond=tuple(f"{PLACES[code].label}: {PLACES[code].usually}" for code in beyond),
    )
