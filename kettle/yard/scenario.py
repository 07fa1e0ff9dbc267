"""A practice call somebody wrote: an open file (JSON), checked on the way in with one clear line, and written back."""

import json
from typing import Annotated, Any, Final, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from kettle.knowledge import acts, causes, observations
from kettle.knowledge.equipment import CHOICES, Unit, UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant import faults
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.simulate import OUTSIDE_F
from kettle.yard.drawn import Draw, standing_as_drawn, symptom_of

FORMAT: Final = "orange-kettle-scenario"
MOST_FAULTS, MOST_BEFORE, MOST_STAGES, MOST_BYTES = 3, 5, 40, 200_000
# The number of a scenario's draw: by it readings scatter the same each time.
NUMBER: Final = 2_000_000


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Fault(_Part):
    """A cause that is there, and how bad it is."""

    cause: str
    severity: Annotated[float, Field(gt=0, le=1)] = 1.0


class Before(_Part):
    """What somebody did before: an act with its amount in turns or oz."""

    part: str
    did: str
    amount: float | None = None


class Plate(_Part):
    """The unit: kind and refrigerant, and what of its plate is not usual."""

    kind: str
    refrigerant: str
    metering: str | None = None
    condensing: str | None = None
    head_control: str | None = None
    defrost: str | None = None
    box_control: str | None = None
    receiver: bool | None = None
    set_f: float | None = None
    differential_f: float | None = None
    critical_charge_oz: float | None = None
    compressor_rla_a: float | None = None
    nameplate_v: float | None = None
    phases: int | None = None
    altitude_ft: float | None = None


class Scenario(_Part):
    """A scenario file, version 1.

    With `stages` it is a call that really was: what was seen in each of its stages (observations by key), and nothing else is answered;
    `found` is then what it was. Without, a unit is simulated with `faults`.
    """

    format: Literal["orange-kettle-scenario"]
    version: Literal[1]
    title: Annotated[str, Field(min_length=2, max_length=80)]
    story: Annotated[str, Field(min_length=2, max_length=600)]
    aim: Annotated[str, Field(max_length=600)] = ""
    unit: Plate
    outside_f: Annotated[float, Field(ge=OUTSIDE_F[0], le=OUTSIDE_F[1])] = 85.0
    faults: Annotated[list[Fault], Field(max_length=MOST_FAULTS)] = Field(default_factory=list)
    before: Annotated[list[Before], Field(max_length=MOST_BEFORE)] = Field(default_factory=list)
    help: Literal["all", "covered", "none"] = "all"
    stages: Annotated[list[dict[str, float | str | list[str]]], Field(max_length=MOST_STAGES)] = Field(default_factory=list)
    found: Annotated[list[str], Field(max_length=MOST_FAULTS)] = Field(default_factory=list)


def read(text: str | bytes) -> Scenario:
    """Return a scenario from the text of its file; InputError with one line that says what is wrong, and where."""
    if len(text) > MOST_BYTES:
        raise InputError(f"A scenario is at most {MOST_BYTES // 1000} kB")
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise InputError("That is no scenario: it is not JSON") from None
    return checked(data)


def checked(data: Any) -> Scenario:
    """Return a scenario from its data; InputError with one line that says what is wrong, and where."""
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise InputError(f"That is no scenario: “format” is not “{FORMAT}”")
    try:
        found = Scenario.model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(one) for one in first["loc"]) or "the file"
        raise InputError(f"{where}: {first['msg'][:1].lower()}{first['msg'][1:]}") from None
    _sound(found)
    return found


def _sound(one: Scenario) -> None:
    """Refuse what the tables do not know, or what cannot be on this unit."""
    unit = unit_of(one)
    for place, fault in enumerate(one.faults):
        where = f"faults.{place}.cause"
        if fault.cause not in faults.FAULTS:
            raise InputError(f"{where}: “{fault.cause[:40]}” is not known; known are {', '.join(faults.FAULTS)}")
        if not faults.possible(fault.cause, unit):
            raise InputError(f"{where}: {fault.cause} cannot be on a {unit.build}")
    for place, did in enumerate(one.before):
        try:
            act = acts.get(did.part, did.did)
            act.check(did.amount)
        except InputError as error:
            raise InputError(f"before.{place}: {error}") from None
        if not act.exists_on(unit):
            raise InputError(f"before.{place}: {act.label} cannot be done on a {unit.build}")
        if act.unit and did.amount is None:
            raise InputError(f"before.{place}.amount: say how much, {act.unit}")
    for place, stage in enumerate(one.stages):
        for key, value in stage.items():
            try:
                observations.get(key).check(tuple(value) if isinstance(value, list) else value)
            except InputError as error:
                raise InputError(f"stages.{place}.{key}: {error}") from None
    for place, code in enumerate(one.found):
        try:
            causes.get(code)
        except InputError as error:
            raise InputError(f"found.{place}: {error}") from None
    if one.stages and not one.found:
        raise InputError("found: say what it was; a call that really was has no faults of its own")
    if not one.stages and not one.faults:
        raise InputError("faults: put at least one in")


def unit_of(one: Scenario) -> Unit:
    """Return the unit of a scenario; InputError for a plate that cannot be."""
    for name in ("kind", "metering", "condensing", "head_control", "defrost", "box_control"):
        value = getattr(one.unit, name)
        if value is not None and value not in CHOICES[name]:
            raise InputError(f"unit.{name}: “{value[:30]}” is none of {', '.join(CHOICES[name])}")
    try:
        return resolve(UnitSpec(**one.unit.model_dump()))
    except InputError as error:
        raise InputError(f"unit: {error}") from None


def draw_of(one: Scenario) -> Draw:
    """Return the practice call a scenario is."""
    spec = UnitSpec(**one.unit.model_dump())
    wrong = tuple((fault.cause, fault.severity) for fault in one.faults)
    before = tuple((did.part, did.did, float(did.amount or 0.0)) for did in one.before)
    difficulty = "worked_on" if before else "several" if len(wrong or one.found) > 1 else "one"
    stages = tuple(
        {key: tuple(value) if isinstance(value, list) else value for key, value in stage.items() if key not in OWN_DOING}
        for stage in one.stages
    )
    bare = Draw(NUMBER, spec, one.outside_f, difficulty, wrong, before, "", one.story, stages, tuple(one.found))
    symptom = "" if stages else symptom_of(standing_as_drawn(bare))
    told = stages[0].get("complaint") if stages else None
    word = str(told[0]) if isinstance(told, tuple) and told else symptom or "warm"
    return Draw(NUMBER, spec, one.outside_f, difficulty, wrong, before, word, one.story, stages, tuple(one.found))


def write(one: Scenario) -> str:
    """Return the text of a scenario's file; read again it is the same."""
    return json.dumps(one.model_dump(exclude_none=True), indent=2, ensure_ascii=False) + "\n"


def schema() -> dict[str, Any]:
    """Return the JSON Schema of scenario files."""
    return Scenario.model_json_schema()


def laid_open(title: str, story: str, unit: Plate, stages: list[dict[str, Value]], found: list[str]) -> Scenario:
    """Return a closed call as a scenario: what was seen in each of its stages, and what it was; InputError where it says too little."""
    rows = [
        {key: list(value) if isinstance(value, tuple) else value for key, value in stage.items() if key not in OWN_DOING}
        for stage in stages
    ]
    kept = [row for place, row in enumerate(rows) if row or place == 0]
    if not found:
        raise InputError("Nothing was named as what it was: a call without an answer is no exercise")
    if not kept or len(kept[0]) < 3:
        raise InputError("Fewer than three things were taken before anything was done: that is no exercise")
    return checked({
        "format": FORMAT, "version": 1, "title": title, "story": story, "unit": unit.model_dump(exclude_none=True), "stages": kept,
        "found": found, "help": "all",
    })  # fmt: skip
