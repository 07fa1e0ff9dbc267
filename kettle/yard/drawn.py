"""A practice call drawn by a number: unit, weather, hidden faults, what somebody changed before, and the story it begins with."""

import random
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from itertools import combinations
from typing import Final

from kettle.judging.judge import judge
from kettle.knowledge import acts, causes
from kettle.knowledge.equipment import Unit, UnitSpec, check_choice, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from kettle.knowledge.observations import Value, words_of
from kettle.plant import faults
from kettle.plant.observer import Rig, stand
from kettle.plant.simulate import OUTSIDE_F, PRESETS
from kettle.yard.stories import BEFORE, CALLERS, COMPLAINTS

DIFFICULTIES: Final[dict[str, str]] = {
    "one": "one fault",
    "several": "two or three faults at once",
    "misleading": "one fault that looks like another at first",
    "worked_on": "one fault, and somebody was there before and changed something",
}
WEATHER_F: Final = (40.0, 60.0, 75.0, 85.0, 95.0, 105.0)
# How bad a drawn fault is, of 1; how long it has been so before anybody called.
SEVERITY: Final = (0.7, 0.85, 1.0)
HOURS: Final = 54.0
# How long ago, before that, somebody was there.
BEFORE_MIN: Final = 600.0
# So many draws are looked at for one that somebody would call about.
MOST_TRIES: Final = 200
# What somebody may have done before: part, what, how much: turns, or of gas the share of the charge.
DONE_BEFORE: Final = (("valve", "turned_in", 1.5), ("valve", "turned_out", 1.5), ("charge", "added", 0.15))
OZ_PER_LB: Final = 16.0
# Stock is no fault of a unit.
NOT_DRAWN: Final = ("hot_stock",)
# What is seen without touching anything.
AT_FIRST: Final = (
    "complaint", "box_temp_f", "display_temp_f", "door", "ice_form", "evap_fans", "compressor", "condenser_fans", "condenser_coil",
    "ambient_f", "sight_glass",
)  # fmt: skip


@dataclass(frozen=True)
class Draw:
    """What a number drew: the unit, the air outside (°F), faults (code, severity 0 to 1), what was done before (part, what, how much),
    why they call (a word of `COMPLAINTS`), and the story in words.

    Of a call that really was, `laid_open` has what was seen in each of its stages, and nothing else can be seen; `found` what it was.
    """

    number: int
    spec: UnitSpec
    outside_f: float
    difficulty: str
    wrong: tuple[tuple[str, float], ...]
    before: tuple[tuple[str, str, float], ...]
    symptom: str
    story: str
    laid_open: tuple[Mapping[str, Value], ...] = ()
    found: tuple[str, ...] = ()

    @property
    def unit(self) -> Unit:
        """The unit, every gap filled from its kind."""
        return resolve(self.spec)

    @property
    def told(self) -> dict[str, Value]:
        """What the customer says when asked: why he calls, and what was done before, where anything was."""
        before = tuple(dict.fromkeys(part for part, _, _ in self.before))
        return {"complaint": (self.symptom,), **({"last_touched": before} if before else {})}

    @property
    def codes(self) -> tuple[str, ...]:
        """The causes that are there."""
        return self.found or tuple(code for code, _ in self.wrong)


def symptom_of(rig: Rig) -> str:
    """Return why somebody would call about a unit as it stands: a word of *Called about*; empty where nobody would."""
    [word] = words_of(rig.look("complaint"))
    return word if word in COMPLAINTS else ""


def standing_as_drawn(one: Draw) -> Rig:
    """Return the unit of a draw as it stands when somebody comes; each time the same."""
    rig = stand(one.unit, one.wrong, HOURS, one.outside_f, one.number)
    for part, did, amount in one.before:
        # Of gas that was drawn the amount is a share of the charge; nobody writes less than an ounce.
        share = part == "charge" and amount < 1.0
        given = round(amount * float(rig.parts.charge_lb) * OZ_PER_LB, 1) if share else amount
        rig.do(part, did, given if acts.get(part, did).unit else None)
        rig.wait(BEFORE_MIN)
    return rig


def draw(number: int, kind: str = "", refrigerant: str = "", difficulty: str = "", outside_f: float | None = None) -> Draw:
    """Return the practice call of a number; what is not chosen is drawn too, and the same choices draw the same.

    Raises InputError for a kind, a refrigerant, a difficulty or weather (°F) that cannot be, and where nothing of it would make
    anybody call.
    """
    if kind:
        check_choice("kind", kind)
    if difficulty and difficulty not in DIFFICULTIES:
        raise InputError(f"difficulty “{difficulty[:20]}” is none of {', '.join(DIFFICULTIES)}")
    if outside_f is not None and not OUTSIDE_F[0] <= outside_f <= OUTSIDE_F[1]:
        raise InputError(f"air outside {outside_f:g} is outside {OUTSIDE_F[0]:g} to {OUTSIDE_F[1]:g} °F")
    chance = random.Random(f"yard {number} {kind} {refrigerant} {difficulty} {outside_f}")
    how = difficulty or chance.choice(list(DIFFICULTIES))
    for _ in range(MOST_TRIES):
        spec = _spec(kind or chance.choice(list(PRESETS)), refrigerant)
        weather_f = chance.choice(WEATHER_F) if outside_f is None else outside_f
        found = _tried(number, spec, weather_f, how, chance)
        if found is not None:
            return found
    raise InputError(f"number {number}: nothing like that makes anybody call; choose another number, or leave more open")


def _tried(number: int, spec: UnitSpec, outside_f: float, how: str, chance: random.Random) -> Draw | None:
    """One try: None where nobody would call, or it is not as hard as was asked."""
    unit = resolve(spec)
    at_once = chance.choice((2, 2, 3)) if how == "several" else 1
    codes = tuple(chance.sample([code for code in faults.FAULTS if code not in NOT_DRAWN and faults.possible(code, unit)], at_once))
    if not all(causes.plausible_pair(causes.get(a), causes.get(b)) for a, b in combinations(codes, 2)):
        return None
    wrong = tuple((code, chance.choice(SEVERITY)) for code in codes)
    able = [act for act in DONE_BEFORE if act[0] != "valve" or unit.metering == "txv"]
    before = (chance.choice(able),) if how == "worked_on" else ()
    one = Draw(number, spec, outside_f, how, wrong, before, "", "")
    rig = standing_as_drawn(one)
    symptom = symptom_of(rig)
    if not symptom or (at_once > 1 and not all(_alone(spec.kind, spec.refrigerant, code, outside_f) for code in codes)):
        return None
    if how == "misleading" and not _misleads(rig, codes):
        return None
    return Draw(number, spec, outside_f, how, wrong, before, symptom, _story(spec.kind, unit, symptom, before, chance))


@cache
def _alone(kind: str, refrigerant: str, code: str, outside_f: float) -> bool:
    """Whether somebody would call about a fault by itself: of several, none is there for nothing."""
    return bool(symptom_of(stand(resolve(_spec(kind, refrigerant)), [(code, 1.0)], HOURS, outside_f)))


def _spec(kind: str, refrigerant: str) -> UnitSpec:
    """A kind's preset, with another refrigerant where one is named."""
    return replace(PRESETS[kind], refrigerant=refrigerant) if refrigerant else PRESETS[kind]


def _misleads(rig: Rig, codes: tuple[str, ...]) -> bool:
    """Whether the first look has another cause on top than the one that is there."""
    seen = {key: value for key in AT_FIRST if (value := _seen(rig, key)) is not None}
    ranking = judge(rig.unit, seen).ranking
    return bool(ranking) and bool(ranking[0].codes) and not set(codes) & set(ranking[0].codes)


def _seen(rig: Rig, key: str) -> Value | None:
    try:
        return rig.look(key)
    except InputError:
        return None


def _story(kind: str, unit: Unit, symptom: str, before: tuple[tuple[str, str, float], ...], chance: random.Random) -> str:
    callers = next(words for begins, words in CALLERS.items() if kind.startswith(begins))
    says = chance.choice(COMPLAINTS[symptom]).format(set=TRADE.text(unit.set_f, "°F", 0))
    more = [BEFORE[part] for part, _, _ in before]
    return " ".join([f"{chance.choice(callers)}: {says}", *more])
