"""Taking the ice off: the heat it needs, what each method gives, what must come first and what is refused.

Heat balance: melting m lb of ice at T °F takes m · (0.5 · (32 − T) + 144) Btu (specific heat of ice 0.5, heat of fusion
144 Btu/lb). Water at W °F gives 1 · (W − 32) Btu/lb down to 32 °F; part of it runs off warm.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.judging.facts import Facts
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number

FUSION_BTU_LB: Final = 144.0
ICE_BTU_LB_F: Final = 0.5
LB_PER_GALLON: Final = 8.34
PAN_GALLONS: Final = 2.0
# Heaters with less of their rating than this leave part of the coil.
SOUND_HEATERS_PCT: Final = 85.0
POUR_GPM: Final = (0.05, 10.0)
SUPPLIES: Final = {"none": "no water", "warm": "warm water", "hot": "hot water"}
COIL_PLACES: Final = {"open": "open, drain below", "over_stock": "over stock that stays", "in_cabinet": "inside a cabinet"}
# What a drain carries, gal/min, by the word observed; not looked at counts as slow.
_DRAIN_GPM: Final = {"running": 3.0, "slow": 0.3, "blocked": 0.0, "frozen": 0.0}


@dataclass(frozen=True)
class Method:
    """A way to melt. Water at `water_f` poured at `gpm`, or heat at `btu_min`; `useful` is the share that melts, low and high.

    `hands_off`: nobody reaches into the coil, and it runs: no lock-out.
    """

    code: str
    label: str
    useful: tuple[float, float]
    water_f: float = 0.0
    gpm: float = 0.0
    btu_min: float = 0.0
    supply: tuple[str, ...] = ()
    hands_off: bool = False
    open_flame_or_hot_air: bool = False
    cautions: tuple[str, ...] = ()


# fmt: off
# The useful shares put water at 120 °F at 2 to 4 lb per lb of ice, as practice has it. Pour rates are those of a pump
# sprayer and of a can refilled at the tap; an iced coil lets the fans move little of their air.
METHODS: Final[dict[str, Method]] = {m.code: m for m in (
    Method("warm_water", "Warm water, low-pressure spray", (0.45, 0.85), water_f=105, gpm=0.5, supply=("warm", "hot"),
           cautions=("lock_out", "wet", "drips")),
    Method("hot_water", "Hot water, poured", (0.40, 0.80), water_f=140, gpm=0.6, supply=("hot",),
           cautions=("lock_out", "wet", "scald", "drips")),
    Method("hose", "Hose, gentle stream", (0.08, 0.16), water_f=105, gpm=4.0, supply=("warm", "hot"),
           cautions=("lock_out", "wet", "drips")),
    Method("own_heaters", "Its own defrosts, power on", (0.30, 0.55), btu_min=170, hands_off=True, cautions=("inside", "wet")),
    Method("fans_only", "Fans only, box held open", (0.05, 0.2), hands_off=True, cautions=("inside",)),
    Method("heat_gun", "Heat gun", (0.25, 0.5), btu_min=85, open_flame_or_hot_air=True, cautions=("fins_hot", "inside")),
    Method("flame", "Flame, steel parts only", (0.15, 0.35), btu_min=330, open_flame_or_hot_air=True,
           cautions=("fire", "fins_hot", "full_coil")),
)}
# fmt: on
_AIR_BTU_MIN_PER_F_FT2: Final = 1.08 * 250 / 60


@dataclass(frozen=True)
class Plan:
    """What a method would take: minutes and gallons, low and high; refusals forbid it, warnings and cautions go with it."""

    method: Method
    minutes: tuple[float, float] | None
    water_gal: tuple[float, float] | None
    refusals: tuple[str, ...]
    warnings: tuple[str, ...]
    cautions: tuple[str, ...]


def heat_btu(ice_lb: float, ice_f: float) -> float:
    """Return the heat to warm and melt ice, Btu, from its mass in lb and its temperature in °F (at most 32).

    m · (0.5 · (32 − T) + 144).
    """
    return ice_lb * (ICE_BTU_LB_F * (32.0 - min(ice_f, 32.0)) + FUSION_BTU_LB)


def water_lb(ice_lb: float, ice_f: float, water_f: float, useful: float) -> float:
    """Return the water needed, lb, at a temperature in °F of which a share (0 to 1) of the heat above 32 °F melts.

    Raises InputError for water at or below 32 °F.
    """
    if water_f <= 32:
        raise InputError(f"Water: {water_f:g} °F melts nothing; it must be above 32 °F")
    return heat_btu(ice_lb, ice_f) / ((water_f - 32.0) * useful)


def overflow_minutes(poured_gpm: float, drain: str | None) -> float | None:
    """Return the minutes until the pan runs over at a pour rate in gal/min, None where the drain keeps up."""
    excess = poured_gpm - _DRAIN_GPM.get(drain or "slow", 0.0)
    return PAN_GALLONS / excess if excess > 0 else None


def heater_btu_min(facts: Facts) -> float:
    """Return what the coil's own heaters give, Btu/min: the rating where it was read, else what is usual (3.412 Btu/h a W)."""
    rated = facts.number("heater_rated_w")
    return METHODS["own_heaters"].btu_min if rated is None else rated * 3.412 / 60.0


def check_pour_rate(gpm: float) -> float:
    """Return a pour rate in gal/min if water can be poured so; InputError names value, range and unit."""
    low, high = POUR_GPM
    if not low <= gpm <= high:
        raise InputError(f"Pour rate: {gpm:g} gal/min is outside {low:g} to {high:g} gal/min")
    return gpm


def must_come_first(facts: Facts, method: Method | None = None) -> tuple[str, ...]:
    """Return what is still missing before melting may start, in words; before any method at all, where none is named."""
    missing = []
    hands_on = method is None or not method.hands_off
    if hands_on and not facts.is_("power_locked_out", "yes"):
        missing.append("Power locked out and proved dead")
    if hands_on and not facts.is_("parts_protected", "yes"):
        missing.append("Boards, sensors and fan motors covered")
    # Its own heaters work with the door shut and nobody inside; fans alone want it held open by somebody who goes in.
    goes_in = method is None or method.code != "own_heaters"
    if facts.unit.walk_in and goes_in:
        if not facts.is_("inside_release", "works", "fails"):
            missing.append("Inside release tried")
        if not facts.is_("latch_blocked", "yes"):
            missing.append("Latch blocked so that the door cannot shut")
        if facts.is_("inside_release", "fails") and not facts.is_("someone_outside", "yes"):
            missing.append("The release fails: door blocked open, and somebody outside who knows")
    return tuple(missing)


def first_step(facts: Facts) -> str:
    """Return where to start, in words: the way out for the water comes before the water."""
    if facts.is_("drain", "blocked"):
        return "Start at the drain: clear it from outside, or every gallon goes on the floor"
    if facts.is_("drain", "frozen"):
        return "Start at the drain: open it with the same water, from outside and from the pan"
    if facts.is_("drain", "running", "slow"):
        return "Start over the drain, so that the water can leave; then work outwards"
    return "Start at the drain: pour a cup into the pan, and see it leave outside"


def melted_min(begun_min_ago: float, paused_min: float) -> float:
    """Return how long melting has gone on, min, from when it began, min ago, and how long it rested since, min."""
    return max(0.0, begun_min_ago - paused_min)


def plan(
    method: Method,
    facts: Facts,
    ice_lb: tuple[float, float],
    face_ft2: float,
    supply: str,
    coil_place: str,
    pour_gpm: float | None = None,
) -> Plan:
    """Plan one method for a mass of ice (low, high, lb) on a face in ft².

    supply and coil_place are words of SUPPLIES and COIL_PLACES; pour_gpm is the water poured, gal/min, where it is not
    the method's own. Raises InputError for other words and rates.
    """
    gpm = method.gpm if pour_gpm is None else method.gpm and check_pour_rate(pour_gpm)
    if supply not in SUPPLIES or coil_place not in COIL_PLACES:
        raise InputError(f"Melt: supply is one of {', '.join(SUPPLIES)}; coil is one of {', '.join(COIL_PLACES)}")
    box_f = facts.number("box_temp_f")
    box_f = facts.unit.set_f if box_f is None else box_f
    ice_f = min(box_f, 32.0)
    drain = facts.seen.get("drain")
    drain = drain if isinstance(drain, str) else None
    refusals, warnings = list(_refusals(method, facts, supply, coil_place, box_f, drain)), []
    needs = tuple(heat_btu(mass, ice_f) for mass in ice_lb)
    minutes = gallons = None
    if method.gpm:
        per_lb = tuple(water_lb(1.0, ice_f, method.water_f, useful) for useful in reversed(method.useful))
        gallons = (ice_lb[0] * per_lb[0] / LB_PER_GALLON, ice_lb[1] * per_lb[1] / LB_PER_GALLON)
        minutes = (gallons[0] / gpm, gallons[1] / gpm)
        if drain == "frozen":
            warnings.append("The drain is frozen: open it first, with the same water, from the outside and the pan")
        over = overflow_minutes(gpm, drain)
        if over is not None and drain != "frozen":
            looked = "the drain was not looked at" if drain is None else f"the drain is {drain}"
            warnings.append(
                f"Poured at {gpm:g} gal/min the pan runs over after {format_number(over, 0)} min: {looked}. "
                "Clear the ice over the drain first, pour slower or catch the water"
            )
    else:
        air = _AIR_BTU_MIN_PER_F_FT2 * face_ft2 * max(box_f - 32.0, 0.0)
        rate = heater_btu_min(facts) if method.code == "own_heaters" else method.btu_min or air
        if rate > 0:
            minutes = (needs[0] / (rate * method.useful[1]), needs[1] / (rate * method.useful[0]))
    # Nobody is shut in a cabinet.
    cautions = words(*(code for code in method.cautions if code != "inside" or facts.unit.walk_in))
    return Plan(method, minutes, gallons, tuple(refusals), tuple(warnings), cautions)


def plans(
    facts: Facts,
    ice_lb: tuple[float, float],
    face_ft2: float,
    supply: str = "warm",
    coil_place: str = "open",
    pour_gpm: float | None = None,
) -> list[Plan]:
    """Plan every method; those not refused first, the quickest before the slow, flame after all others."""
    made = [plan(method, facts, ice_lb, face_ft2, supply, coil_place, pour_gpm) for method in METHODS.values()]
    return sorted(made, key=lambda p: (bool(p.refusals), p.method.code == "flame", p.minutes[1] if p.minutes else float("inf")))


def _refusals(method: Method, facts: Facts, supply: str, coil_place: str, box_f: float, drain: str | None) -> Sequence[str]:
    found = []
    refrigerant = facts.unit.refrigerant
    if method.open_flame_or_hot_air and refrigerant.flammable:
        found.append(f"Never with {refrigerant.name}: it burns ({refrigerant.safety_class})")
    if method.supply and supply not in method.supply:
        found.append(f"Needs {' or '.join(SUPPLIES[word] for word in method.supply)} at the site")
    if method.code == "own_heaters" and facts.unit.defrost not in ("electric", "hot_gas"):
        found.append("This unit has no defrost heaters")
    if method.code == "own_heaters" and facts.is_("hot_gas_valve", "stays_shut"):
        found.append("The hot-gas valve does not open: it would melt nothing")
    if method.code == "own_heaters" and facts.derived.get("heater_pct", 100.0) < SOUND_HEATERS_PCT:
        found.append("Its heaters do not draw what they should: part of the coil would stay iced")
    if method.hands_off and facts.is_("power_locked_out", "yes"):
        found.append("Power is locked out, and this needs it on")
    if method.gpm and drain == "blocked":
        found.append(f"The drain is {drain}: open it first, or the water goes on the floor")
    if method.gpm and coil_place == "over_stock":
        found.append("Water would run on the stock: move it first")
    if method.code == "hot_water" and coil_place == "in_cabinet":
        found.append("Inside a cabinet hot water reaches liner and wiring: use warm water in small amounts")
    if method.code == "flame" and coil_place == "in_cabinet":
        found.append("Inside a cabinet the liner burns")
    if method.code == "fans_only" and box_f <= 34.0:
        found.append(f"Box air at {format_number(box_f, 0)} °F melts nothing: it must be well above freezing")
    return found
