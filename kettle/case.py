"""The case file: one unit and what was observed on it, as an open, versioned JSON format.

`read` takes text or bytes and answers with a `Case` or one `InputError`; nothing is half-read. The JSON Schema is
generated from the same models by `schema`.
"""

import difflib
import json
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Annotated, Any, Final, Literal

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, ValidationError, field_validator, model_validator

from kettle.judging.course import Course, Done
from kettle.judging.suspects import Suspect, remedies
from kettle.knowledge import acts, observations, refrigerants
from kettle.knowledge.bands import banded, check_band
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.knowledge.quantities import QUANTITIES
from kettle.knowledge.unit import CHOICES, LIMITS, Unit, UnitSpec, check_choice, check_figure, resolve

FORMAT: Final = "orange-kettle/case"
VERSION: Final = 1
LARGEST_BYTES: Final = 2_000_000
# More than a visit has by hand and by probe; a page of a call stays quick with so many.
MOST_OBSERVATIONS: Final = 2_000
LONGEST_NAME: Final = 80
MOST_ACTS: Final = 200
LARGEST_VALUE: Final = 1e5
# Times a case can be of.
FIRST_YEAR, LAST_YEAR = 1990, 2100


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, frozen=True)


def _limited(name: str) -> Any:
    low, high, unit, label = LIMITS[name]
    return Field(default=None, ge=low, le=high, title=label, description=f"{unit or 'count'}")


class CaseUnit(_Strict):
    """The unit of a case file: only kind and refrigerant are required."""

    name: str = Field(default="", max_length=LONGEST_NAME)
    kind: str = Field(json_schema_extra={"enum": list(CHOICES["kind"])})
    refrigerant: str = Field(json_schema_extra={"enum": list(refrigerants.catalogue())})
    metering: str | None = Field(default=None, json_schema_extra={"enum": [*CHOICES["metering"], None]})
    condensing: str | None = Field(default=None, json_schema_extra={"enum": [*CHOICES["condensing"], None]})
    receiver: bool | None = None
    head_control: str | None = Field(default=None, json_schema_extra={"enum": [*CHOICES["head_control"], None]})
    defrost: str | None = Field(default=None, json_schema_extra={"enum": [*CHOICES["defrost"], None]})
    box_control: str | None = Field(default=None, json_schema_extra={"enum": [*CHOICES["box_control"], None]})
    set_f: float | None = _limited("set_f")
    differential_f: float | None = _limited("differential_f")
    critical_charge_oz: float | None = _limited("critical_charge_oz")
    compressor_rla_a: float | None = _limited("compressor_rla_a")
    nameplate_v: float | None = _limited("nameplate_v")
    phases: Literal[1, 3] | None = None
    altitude_ft: float | None = _limited("altitude_ft")
    evaporators: int | None = _limited("evaporators")
    bands: dict[str, Annotated[list[float], Field(min_length=2, max_length=2)]] = Field(default_factory=dict)

    @field_validator("kind", "metering", "condensing", "head_control", "defrost", "box_control")
    @classmethod
    def _known_word(cls, value: str | None, info: Any) -> str | None:
        return value if value is None else check_choice(info.field_name, value)

    @field_validator(*(name for name in LIMITS if name != "phases"))
    @classmethod
    def _inside_limits(cls, value: float | None, info: Any) -> float | None:
        return value if value is None else check_figure(info.field_name, value)

    @field_validator("refrigerant")
    @classmethod
    def _known_refrigerant(cls, value: str) -> str:
        return refrigerants.get(value).name

    @field_validator("bands")
    @classmethod
    def _sound_bands(cls, value: dict[str, list[float]]) -> dict[str, list[float]]:
        for quantity, (low, high) in value.items():
            known = sorted(banded())
            if quantity not in known:
                near = difflib.get_close_matches(quantity, known, n=1, cutoff=0.0)[0]
                raise ValueError(f"“{quantity[:40]}” has no band; the nearest that has is “{near}”")
            if not low < high:
                raise ValueError(f"{quantity}: the low end {low:g} must be below the high end {high:g}")
            try:
                check_band(quantity, low, high)
            except InputError as error:
                raise ValueError(f"{quantity}: {error}") from None
        return value

    def spec(self) -> UnitSpec:
        """Return the unit as the core takes it."""
        data = self.model_dump()
        data["bands"] = {quantity: (low, high) for quantity, (low, high) in self.bands.items()}
        return UnitSpec(**data)


def _iso_time(value: Any) -> Any:
    if not isinstance(value, (str, datetime)):
        raise ValueError("a time is text in ISO 8601, for example 2026-03-02T06:14:00Z")
    return value


def _in_utc(value: datetime) -> datetime:
    if not FIRST_YEAR <= value.year <= LAST_YEAR:
        raise ValueError(f"the year {value.year} is outside {FIRST_YEAR} to {LAST_YEAR}")
    return value.replace(tzinfo=UTC) if value.tzinfo is None else value


# A time of a case file, in UTC where it names no zone.
Moment = Annotated[datetime, Field(strict=False), BeforeValidator(_iso_time), AfterValidator(_in_utc)]


class CaseObservation(_Strict):
    """One observation of a case file."""

    key: str = Field(json_schema_extra={"enum": list(observations.REGISTRY)})
    value: float | str | list[str]
    at: Moment | None = None
    source: str | None = Field(default=None, max_length=40)
    on: int | None = Field(default=None, ge=1, le=int(LIMITS["evaporators"][1]))
    stage: int | None = Field(default=None, ge=0, le=MOST_ACTS)

    @field_validator("key")
    @classmethod
    def _known_key(cls, value: str) -> str:
        return observations.get(value).key

    @model_validator(mode="after")
    def _sound_value(self) -> "CaseObservation":
        entry = observations.get(self.key)
        try:
            entry.check(self.value)
        except InputError as error:
            raise ValueError(f"{self.key}: {error}") from None
        if self.on is not None and not entry.per_evaporator:
            raise ValueError(f"{self.key} belongs to the whole unit: leave out “on”")
        return self

    def belongs_to(self, evaporator: int) -> bool:
        """Whether it is seen from an evaporator: of the whole unit, or of that coil; left out, it is the first."""
        return not observations.get(self.key).per_evaporator or (self.on or 1) == evaporator

    @property
    def checked(self) -> Value:
        """The value in its stored form."""
        return observations.get(self.key).check(self.value)


class CaseAct(_Strict):
    """Something done to a part; it opens the next stage."""

    part: str = Field(json_schema_extra={"enum": list(acts.PARTS)})
    did: str = Field(json_schema_extra={"enum": [*sorted({act.did for act in acts.ACTS.values()})]})
    value: float | None = None
    on: int | None = Field(default=None, ge=1, le=int(LIMITS["evaporators"][1]))
    at: Moment | None = None

    @model_validator(mode="after")
    def _known_act(self) -> "CaseAct":
        try:
            acts.get(self.part, self.did)
        except InputError as error:
            raise ValueError(str(error)) from None
        if self.value is not None and not 0 <= self.value <= LARGEST_VALUE:
            raise ValueError(f"{self.part} {self.did}: the value {self.value:g} is outside 0 to {LARGEST_VALUE:g}")
        return self


class Case(_Strict):
    """A whole case file."""

    format: Literal["orange-kettle/case"]
    version: Literal[1]
    unit: CaseUnit
    acts: Annotated[list[CaseAct], Field(max_length=MOST_ACTS)] = Field(default_factory=list)
    observations: Annotated[list[CaseObservation], Field(max_length=MOST_OBSERVATIONS)] = Field(default_factory=list)

    @field_validator("observations", mode="before")
    @classmethod
    def _from_plain_object(cls, value: Any) -> Any:
        return [{"key": k, "value": v} for k, v in value.items()] if isinstance(value, Mapping) else value

    @model_validator(mode="after")
    def _on_existing_evaporator(self) -> "Case":
        count = self.unit.evaporators or 1
        for entry in self.observations:
            if entry.on is not None and entry.on > count:
                raise ValueError(f"{entry.key}: “on” is {entry.on}, but the unit has {count} evaporator(s)")
            if entry.stage is not None and entry.stage > len(self.acts):
                raise ValueError(f"{entry.key}: “stage” is {entry.stage}, but the file has {len(self.acts)} act(s)")
        for act in self.acts:
            if act.on is not None and act.on > count:
                raise ValueError(f"{act.part} {act.did}: “on” is {act.on}, but the unit has {count} evaporator(s)")
        return self

    def resolved(self) -> Unit:
        """Return the unit with its gaps filled."""
        return resolve(self.unit.spec())

    def in_order(self) -> list[CaseObservation]:
        """Return the observations in time order; one without a time keeps its place behind the one before it."""
        moments: list[tuple[datetime, int]] = []
        moment = datetime.min.replace(tzinfo=UTC)
        for index, entry in enumerate(self.observations):
            moment = entry.at or moment
            moments.append((moment, index))
        return [self.observations[index] for _, index in sorted(moments)]

    def standing(self, evaporator: int = 1) -> dict[str, Value]:
        """Return what stands, key -> value, the latest of each key, as seen from one evaporator (1 is the first)."""
        return {entry.key: entry.checked for entry in self.in_order() if entry.belongs_to(evaporator)}

    def stage_of(self, entry: CaseObservation) -> int:
        """Return the stage an observation was taken in: the one it names, else by its time; 0, as found, without either."""
        if entry.stage is not None:
            return entry.stage
        if entry.at is None:
            return 0
        return max((place for place, act in enumerate(self.acts, start=1) if act.at is not None and act.at <= entry.at), default=0)

    def stages(self, evaporator: int = 1) -> list[dict[str, Value]]:
        """Return what was seen in each stage, key -> value, as seen from one evaporator; one stage more than there are acts."""
        stages: list[dict[str, Value]] = [{} for _ in range(len(self.acts) + 1)]
        for entry in self.in_order():
            if entry.belongs_to(evaporator):
                stages[self.stage_of(entry)][entry.key] = entry.checked
        return stages

    def done(self, evaporator: int = 1) -> list[Done]:
        """Return what was done, as it concerns one evaporator."""
        return [Done(act.part, act.did, act.value, act.on is not None and act.on != evaporator) for act in self.acts]

    def coils(self) -> list[dict[str, Value]]:
        """Return what stands on each evaporator, in their order."""
        return [self.standing(number) for number in range(1, (self.unit.evaporators or 1) + 1)]

    def coil_ages_min(self) -> list[dict[str, float]]:
        """Return how old each standing observation was when the last one was taken, minutes, where times are given."""
        latest = max((entry.at for entry in self.observations if entry.at is not None), default=None)
        return [
            {
                entry.key: (latest - entry.at).total_seconds() / 60.0
                for entry in self.in_order()
                if latest is not None and entry.at is not None and entry.belongs_to(number)
            }
            for number in range(1, (self.unit.evaporators or 1) + 1)
        ]


def read(source: str | bytes) -> Case:
    """Return the case of a JSON text.

    Raises InputError with one line that says what is wrong, and where, for anything that is not a sound case file.
    """
    if len(source) > LARGEST_BYTES:
        raise InputError(f"the case file is larger than {LARGEST_BYTES // 1_000_000} MB")
    try:
        text = source.decode("utf-8-sig") if isinstance(source, bytes) else source
        data = json.loads(text, parse_constant=_refuse_constant, object_pairs_hook=_refuse_repeats)
    except UnicodeDecodeError:
        raise InputError("the case file is not text in UTF-8") from None
    except RecursionError:
        raise InputError("the case file is nested too deep") from None
    except InputError:
        raise
    except ValueError as error:
        raise InputError(f"the case file is not JSON: {_one_line(str(error))}") from None
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise InputError(f"this is not a case file: “format” must be “{FORMAT}”")
    if data.get("version") != VERSION:
        raise InputError(f"version {json.dumps(data.get('version'))[:20]} of the case format is not known; known is {VERSION}")
    try:
        return Case.model_validate(data)
    except ValidationError as error:
        raise InputError(_first_line(error)) from None


def write(case: Case) -> str:
    """Return the case as JSON text, without the fields nobody gave."""
    return json.dumps(case.model_dump(mode="json", exclude_none=True), indent=2, ensure_ascii=False) + "\n"


def schema() -> dict[str, Any]:
    """Return the JSON Schema of the case file."""
    made = Case.model_json_schema()
    listed = made["properties"]["observations"]
    plain = {
        entry.key: {"type": "number", "minimum": entry.low, "maximum": entry.high}
        if entry.is_number
        else {"type": "array", "items": {"enum": [code for code, _ in entry.choices]}}
        if entry.many
        else {"enum": [code for code, _ in entry.choices]}
        for entry in observations.REGISTRY.values()
    }
    made["properties"]["observations"] = {"anyOf": [listed, {"type": "object", "properties": plain, "additionalProperties": False}]}
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "$id": f"{FORMAT}/{VERSION}", **made}


def answer(course: Course) -> dict[str, Any]:
    """Return a judged call as the object that `judge --json` prints."""
    judgement = course.now
    ranking = [_told(suspect, course) for suspect in course.was]
    return {
        "derived": {key: round(value, QUANTITIES[key].decimals) for key, value in judgement.facts.derived.items()},
        "verdicts": [
            {
                "quantity": v.quantity,
                "value": round(v.value, 1),
                "low": v.low,
                "high": v.high,
                "state": v.state,
                "trust": v.trust,
                "why": v.why,
            }
            for v in judgement.verdicts
        ],
        "problems": [{"code": p.code, "text": p.text} for p in judgement.problems],
        "holds": [{"code": h.code, "blocks": list(h.blocks), "text": h.text, "until": h.until} for h in judgement.holds],
        "ranking": ranking,
        "was": ranking,
        "left": [_told(left.suspect, course) | ({"to_prove": list(left.to_prove)} if left.to_prove else {}) for left in course.left],
        "next_checks": [
            {"key": c.key, "text": f"{c.how}. {c.meaning}", "gain_bits": round(c.gain_bits, 2), "minutes": c.minutes}
            for c in judgement.next_checks
        ],
        "assumed": list(judgement.assumed),
    }


def _told(suspect: Suspect, course: Course) -> dict[str, Any]:
    return {
        "causes": list(suspect.codes),
        "probability": round(suspect.probability, 4),
        "for": [{"key": e.key, "text": course.words_of(e), "weight": round(e.weight, 2)} for e in suspect.speaks_for],
        "against": [{"key": e.key, "text": course.words_of(e), "weight": round(e.weight, 2)} for e in suspect.speaks_against],
        "confirm": list(suspect.confirm),
        "correct": list(remedies(suspect, course.now.facts.seen)),
        "caution": list(suspect.caution),
    }


def _refuse_constant(name: str) -> float:
    raise InputError(f"the case file holds {name}, which is not a number")


def _refuse_repeats(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = dict(pairs)
    if len(made) != len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise InputError(f"the case file gives “{twice[:40]}” twice in one object")
    return made


def _one_line(text: str) -> str:
    return " ".join(text.split())[:300]


def _first_line(error: ValidationError) -> str:
    """One line for the first thing wrong; an unknown key is named with the nearest known one."""
    # An unknown key explains more than the follow-on faults it causes.
    first = sorted(error.errors(), key=lambda e: e["type"] != "extra_forbidden")[0]
    place = [str(part) for part in first["loc"]]
    where = ".".join(place)
    if first["type"] == "extra_forbidden":
        models: dict[str, type[BaseModel]] = {"unit": CaseUnit, "acts": CaseAct, "observations": CaseObservation}
        owner = models.get(place[0], Case) if len(place) > 1 else Case
        near = difflib.get_close_matches(place[-1], owner.model_fields, n=1, cutoff=0.0)
        return f"{where[:80]}: unknown key “{place[-1][:40]}”; the nearest known key is “{near[0]}”"
    if first["type"] == "missing":
        return f"{where}: required, and missing"
    limits = LIMITS.get(place[-1]) if place else None
    if limits is not None and first["type"] in ("greater_than_equal", "less_than_equal"):
        return f"{where}: {first['input']} is outside {limits[0]:g} to {limits[1]:g} {limits[2]}".strip()
    message = first["msg"].removeprefix("Value error, ")
    return _one_line(f"{where}: {message}" if where else message)


def simulated(unit: Unit, observations: Mapping[str, Value], name: str) -> Case:
    """Return a case file of what was read on a simulated plant of a unit."""
    described = CaseUnit(
        name=name, kind=unit.kind.code, refrigerant=unit.refrigerant.name, metering=unit.metering, condensing=unit.condensing,
        receiver=unit.receiver, head_control=unit.head_control, defrost=unit.defrost, box_control=unit.box_control, set_f=unit.set_f,
        differential_f=unit.differential_f, compressor_rla_a=unit.compressor_rla_a, phases=3 if unit.phases == 3 else 1,
    )  # fmt: skip
    rows = [
        CaseObservation(key=key, value=list(value) if isinstance(value, tuple) else value, source="simulated")
        for key, value in observations.items()
    ]
    return Case(format=FORMAT, version=VERSION, unit=described, observations=rows)
