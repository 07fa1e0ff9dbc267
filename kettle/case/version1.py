"""Version 1 of the case file: one unit and what was observed on it, with the acts between."""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Annotated, Any, Final, Literal

from pydantic import Field, ValidationError, field_validator, model_validator

from kettle.call.events import Event
from kettle.call.record import Record
from kettle.case.shared import FORMAT, LARGEST_VALUE, MOST_ACTS, MOST_OBSERVATIONS, CaseUnit, Moment, Strict, first_line
from kettle.judging.course import Done
from kettle.knowledge import acts, observations
from kettle.knowledge.equipment import LIMITS, Unit, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value

VERSION: Final = 1


class CaseObservation(Strict):
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


class CaseAct(Strict):
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


class Case(Strict):
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


def validated(data: Mapping[str, Any]) -> Case:
    """Return the case of a file's object; InputError in one line for what is not sound."""
    try:
        return Case.model_validate(data)
    except ValidationError as error:
        raise InputError(first_line(error, {"unit": CaseUnit, "acts": CaseAct, "observations": CaseObservation}, Case)) from None


def record_of(case: Case) -> Record:
    """Return a case as a record: each observation a reading, each act an act, in the order of its stages.

    What belongs to one evaporator and names none is of the first. Times count as ages where they are given; the file knows no clocks.
    """
    events: list[Event] = []

    def add(kind: str, at: datetime | None, on: int | None, **data: Any) -> None:
        events.append(Event(len(events) + 1, kind, data, at, on))

    ordered = case.in_order()
    for stage in range(len(case.acts) + 1):
        if stage:
            act = case.acts[stage - 1]
            add("act", None, act.on, part=act.part, did=act.did, value=act.value)
        for entry in ordered:
            if case.stage_of(entry) == stage:
                own = (entry.on or 1) if observations.get(entry.key).per_evaporator else None
                add("reading", entry.at, own, key=entry.key, value=entry.value, source=entry.source)
    unit = case.resolved()
    return Record(unit, tuple(events), tuple("" for _ in range(unit.evaporators)), clocked=False)


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
