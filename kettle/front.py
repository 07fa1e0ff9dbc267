"""The front door of the core: a case judged, a call told, saturation and a simulated unit, in a few lines each and checked on the way in.

Everything here is handed on by `import kettle`; what stands behind it is `kettle.case`, `kettle.call`, `kettle.judging` and `kettle.plant`.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from kettle.call import Told
from kettle.call import tell as _tell
from kettle.call.record import Record
from kettle.case import Case
from kettle.case import read as _read_case
from kettle.case import read_call as _read_call
from kettle.judging.judge import Judgement
from kettle.judging.judge import judge as _judge
from kettle.knowledge import observations as registry
from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import LIMITS, Unit, UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value

if TYPE_CHECKING:
    from kettle.plant.simulate import Simulated

ALTITUDE_FT = LIMITS["altitude_ft"][:2]


@dataclass(frozen=True)
class Saturation:
    """Dew and bubble point of a refrigerant, at a pressure (`f` are temperatures, °F) or at a temperature (`psig` are gauge pressures)."""

    refrigerant: str
    dew_f: float
    bubble_f: float
    dew_psig: float
    bubble_psig: float


def unit(kind: str, refrigerant: str, **plate: Any) -> Unit:
    """Return a unit with every gap filled from its kind.

    Parameters
    ----------
    kind, refrigerant
        A word of the case file ("walk_in_freezer"), and the number of a refrigerant ("R-404A").
    plate
        What is known besides, as the fields of `kettle.knowledge.equipment.UnitSpec` name it: `set_f` °F, `altitude_ft` ft, `metering`, ...

    Returns
    -------
    Unit
        As everything else of the core takes it; figures in °F, A, V, ft, oz.

    Raises
    ------
    InputError
        For a word, a field or a figure that cannot be, with the nearest known word or the allowed range and unit.

    Examples
    --------
    >>> unit("reach_in_cooler", "R-134a", set_f=37).build
    'reach-in cooler, capillary tube'

    """
    known = UnitSpec.__dataclass_fields__
    wrong = [name for name in plate if name not in known]
    if wrong:
        raise InputError(f"unit: “{wrong[0][:40]}” is not a field; known are {', '.join(known)}")
    return resolve(UnitSpec(kind, refrigerant, **plate))


def judge(on: Unit, observations: Mapping[str, Any]) -> Judgement:
    """Work out and judge a unit from what was observed of it.

    Parameters
    ----------
    on
        The unit (`unit`).
    observations
        Key -> value, as docs/case.schema.json has them: figures in °F, psig, A, V, Ω, words as listed, lists of words.

    Returns
    -------
    Judgement
        What was worked out (`facts.derived`), `verdicts`, `holds`, `ranking` (suspects, likeliest first, with their probabilities) and
        `next_checks`.

    Raises
    ------
    InputError
        For a key that is not known, a value that cannot be (a figure in quotes too), or something this unit has not; nothing is ignored.

    Examples
    --------
    >>> found = judge(unit("walk_in_cooler", "R-448A"), {"box_temp_f": 46, "evap_fans": "stopped", "evap_fan_supply_v": 230})
    >>> found.ranking[0].codes
    ('evap_fan_failed',)
    >>> judge(unit("walk_in_cooler", "R-448A"), {"suction_psia": 40})
    Traceback (most recent call last):
        ...
    kettle.knowledge.errors.InputError: observation “suction_psia” is not known; the nearest known key is “suction_psig”

    """
    return _judge(on, {key: _checked(on, key, value) for key, value in observations.items()})


def _checked(on: Unit, key: str, value: Any) -> Value:
    entry = registry.get(key)
    if not entry.exists_on(on):
        raise InputError(f"{entry.label} ({key}): a {on.build} has none")
    return entry.check(value)


def read_case(source: str | bytes) -> Case:
    """Return the case of a JSON text of version 1.

    Parameters
    ----------
    source
        The text of the file, JSON in UTF-8 (docs/case.schema.json).

    Returns
    -------
    Case
        Its `unit`, what was observed (`observations`: °F, psig, A, V, Ω, words) and what was done.

    Raises
    ------
    InputError
        One line: what is not sound, and where.

    Examples
    --------
    >>> text = '{"format": "orange-kettle/case", "version": 1, "unit": {"kind": "prep_rail", "refrigerant": "R-290"}}'
    >>> read_case(text).unit.kind
    'prep_rail'

    """
    return _read_case(source)


def read_call(source: str | bytes) -> Record:
    """Return the record of a JSON text of either version.

    Parameters
    ----------
    source
        The text of the file, JSON in UTF-8 (docs/call.md).

    Returns
    -------
    Record
        Its `unit` and its `events` in order, as `tell` takes it.

    Raises
    ------
    InputError
        One line: what is not sound, and where.

    Examples
    --------
    >>> text = '{"format": "orange-kettle/case", "version": 2, "unit": {"kind": "prep_rail", "refrigerant": "R-290"}, "events": []}'
    >>> len(read_call(text).events)
    0

    """
    return _read_call(source)


def tell(record: Record) -> Told:
    """Return all that is told of a call.

    Parameters
    ----------
    record
        The events of a call on a unit (`read_call`).

    Returns
    -------
    Told
        Judgement, holds, next checks, gas, stem, proofs, write-up, each worked out when it is asked for.

    Examples
    --------
    >>> text = '{"format": "orange-kettle/case", "version": 2, "unit": {"kind": "prep_rail", "refrigerant": "R-290"}, "events": []}'
    >>> tell(read_call(text)).may_leave
    False

    """
    return _tell(record)


def saturation(
    refrigerant: str, *, psig: float | None = None, at_f: float | None = None, altitude_ft: float = 0.0,
) -> Saturation:  # fmt: skip
    """Return dew and bubble of a refrigerant at a gauge pressure, psig, or at a temperature, °F; one of the two is given.

    Parameters
    ----------
    refrigerant
        Its number ("R-404A").
    psig, at_f
        A gauge pressure, psig, or a temperature, °F.
    altitude_ft
        Of the site the gauge is read at, ft, -1,500 to 20,000.

    Returns
    -------
    Saturation
        Dew and bubble, °F and psig.

    Raises
    ------
    InputError
        For a refrigerant that is not known, both or neither given, or outside the table or -1,500 to 20,000 ft.

    References
    ----------
    Tables from CoolProp (Bell et al. 2014, doi:10.1021/ie4033999), see `kettle.knowledge.refrigerants`.

    Examples
    --------
    >>> at = saturation("R-404A", psig=40.0)
    >>> round(at.dew_f, 1), round(at.bubble_f, 1)
    (7.2, 6.1)

    """
    if (psig is None) == (at_f is None):
        raise InputError("saturation: give a pressure, psig, or a temperature, °F, and not both")
    if not ALTITUDE_FT[0] <= altitude_ft <= ALTITUDE_FT[1]:
        raise InputError(f"altitude {altitude_ft:g} ft is outside {ALTITUDE_FT[0]:g} to {ALTITUDE_FT[1]:g} ft")
    found = refrigerants.get(refrigerant)
    if psig is not None:
        return Saturation(found.name, found.dew_f(psig, altitude_ft), found.bubble_f(psig, altitude_ft), psig, psig)
    assert at_f is not None
    return Saturation(found.name, at_f, at_f, found.dew_psig(at_f, altitude_ft), found.bubble_psig(at_f, altitude_ft))


def simulate(
    kind: str, faults: Sequence[tuple[str, float]] = (), hours: float = 24.0, outside_f: float = 85.0, seed: int = 1,
) -> "Simulated":  # fmt: skip
    """Run the plant model of a kind of unit, sound or with faults, and read it.

    Parameters
    ----------
    kind
        A word of the case file ("walk_in_freezer").
    faults
        Pairs of a cause's code and its severity, 0 to 1.
    hours, outside_f
        How long it runs, h, and the air at the condenser, °F.
    seed
        Of the scatter of its instruments; the same reads the same.

    Returns
    -------
    Simulated
        The `plant`, its `course` over the hours, and the `observations` of one round of reading.

    Raises
    ------
    InputError
        For a kind or fault that is not known or cannot be on it, or hours and air outside their range.

    Examples
    --------
    >>> warm = simulate("reach_in_cooler", [("condenser_dirty", 0.9)], hours=6.0)
    >>> judge(warm.plant.unit, warm.observations).ranking[0].codes
    ('condenser_dirty',)

    """
    # Compiled code that takes a second to load: only who simulates waits for it.
    from kettle.plant.simulate import simulate as run

    return run(kind, list(faults), hours, outside_f, seed)
