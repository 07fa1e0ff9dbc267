"""Whether the pressures fit another refrigerant much better than the one on the plate.

At rest a circuit stands at saturation for the temperature around it. Running, a wrong table moves both sides the same
way: evaporating and condensing temperatures come out wrong together, and with them TD, superheat, split and
subcooling. One refrigerant that puts all of them right at once is a suspicion worth saying; a single one out is a fault.
"""

from dataclasses import dataclass, replace
from typing import Final

from kettle.judging import readings
from kettle.judging.facts import Facts
from kettle.judging.verdicts import FANS_NOT_RUNNING, coil_iced
from kettle.knowledge import refrigerants
from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.refrigerants import Refrigerant

LOW_SIDE: Final = ("td_f", "superheat_evap_f", "superheat_comp_f")
HIGH_SIDE: Final = ("split_f", "approach_f", "subcooling_f")
# How far out of band each side must read by the plate, and how far out another refrigerant may, °F.
OUT_F: Final = 4.0
FITS_F: Final = 1.0
FEWEST_QUANTITIES: Final = 4
# At rest: the plate's table misses the temperature by this much, another meets it within that, °F.
RESTING_MISS_F: Final = 10.0
RESTING_FIT_F: Final = 2.0
NAMES_SHOWN: Final = 3


@dataclass(frozen=True)
class Suspicion:
    """Refrigerants that fit better than the plate's, best first, from pressures at "rest" or "running", and the keys."""

    names: tuple[str, ...]
    by: str
    keys: tuple[str, ...]


def suspicion(facts: Facts) -> Suspicion | None:
    """Return which other refrigerants the pressures fit much better, None where there is no such suspicion."""
    return _at_rest(facts) or _running(facts)


def _at_rest(facts: Facts) -> Suspicion | None:
    resting, ambient = facts.number("resting_psig"), facts.number("ambient_f")
    if resting is None or ambient is None or _resting_miss_f(facts.unit.refrigerant, facts, resting, ambient) < RESTING_MISS_F:
        return None
    others = refrigerants.catalogue().values()
    fitting = [r for r in others if _resting_miss_f(r, facts, resting, ambient) <= RESTING_FIT_F]
    # Most of what rests is liquid, which stands at bubble: who fits that best comes first.
    fitting.sort(key=lambda r: abs(r.bubble_f(resting, facts.unit.altitude_ft) - ambient))
    return Suspicion(tuple(r.name for r in fitting[:NAMES_SHOWN]), "rest", ("resting_psig",)) if fitting else None


def _resting_miss_f(refrigerant: Refrigerant, facts: Facts, resting_psig: float, ambient_f: float) -> float:
    """How far a temperature lies outside bubble and dew at a resting pressure, °F; large outside the table."""
    try:
        bubble, dew = (look_up(resting_psig, facts.unit.altitude_ft) for look_up in (refrigerant.bubble_f, refrigerant.dew_f))
    except InputError:
        return 1000.0
    return max(bubble - ambient_f, ambient_f - dew, 0.0)


def _running(facts: Facts) -> Suspicion | None:
    airflow_bad = coil_iced(facts) or facts.is_("evap_fans", *FANS_NOT_RUNNING)
    condensing_bad = facts.is_("condenser_coil", "blocked") or facts.is_("condenser_fans", "stopped", "slow", "reversed")
    stopped = facts.is_("compressor", "off", "humming", "tripping")
    if airflow_bad or condensing_bad or stopped or facts.moment == "just_started":
        return None
    by_plate = _misses(facts.unit, facts)
    if not all(max((by_plate[key] for key in side if key in by_plate), default=0.0) > OUT_F for side in (LOW_SIDE, HIGH_SIDE)):
        return None
    if len(by_plate) < FEWEST_QUANTITIES:
        return None
    totals = {}
    for other in refrigerants.catalogue().values():
        misses = _misses(replace(facts.unit, refrigerant=other), facts)
        if len(misses) == len(by_plate) and max(misses.values()) <= FITS_F:
            totals[other.name] = sum(misses.values())
    names = sorted(totals, key=totals.__getitem__)[:NAMES_SHOWN]
    return Suspicion(tuple(names), "running", ("suction_psig", "discharge_psig")) if names else None


def _misses(unit: Unit, facts: Facts) -> dict[str, float]:
    """How far each quantity lies outside its band when the pressures are read for a unit's refrigerant, °F."""
    derived = readings.derive(unit, facts.seen)
    found: dict[str, float] = {}
    for key in (*LOW_SIDE, *HIGH_SIDE):
        band = default_band(unit, key)
        if key in derived and band is not None:
            found[key] = max(band[0] - derived[key], derived[key] - band[1], 0.0)
    return found
