"""Version 2 of the case file: a whole call, everything that happened on it in order, as one record."""

import difflib
from collections.abc import Mapping
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Annotated, Any, Final, Literal

from pydantic import Field, ValidationError, field_validator, model_validator

from kettle.call.carries import Carried
from kettle.call.events import Event
from kettle.call.kinds import KINDS
from kettle.call.record import Record
from kettle.case.shared import FORMAT, LONGEST_NAME, CaseUnit, Strict, first_line, in_utc, one_line
from kettle.electrical.wiring import JOINT, USUAL, Wiring, from_words, wire_of
from kettle.knowledge import causes, observations
from kettle.knowledge.equipment import LIMITS, resolve
from kettle.knowledge.errors import FieldErrors, InputError

VERSION: Final = 2
MOST_EVENTS: Final = 4_000
# Events follow each other by so much where a file gives no times.
STEP: Final = timedelta(minutes=1)
UNDATED: Final = datetime(2000, 1, 1, tzinfo=UTC)
MOST_COILS: Final = int(LIMITS["evaporators"][1])
# What every event may have beside what its kind carries.
EVERY: Final = ("kind", "at", "on", "undone")
Name = Annotated[str, Field(max_length=LONGEST_NAME)]


class CallUnit(CaseUnit):
    """The unit of a whole call: that of version 1, with its coils by name, what is known of its circuit, and its plate's charge."""

    coils: Annotated[list[Name], Field(min_length=1, max_length=MOST_COILS)] | None = None
    circuit: dict[str, Any] = Field(default_factory=dict)
    program: dict[str, Any] = Field(default_factory=dict)
    settings: dict[str, Any] = Field(default_factory=dict)
    label_charge_oz: Annotated[float, Field(gt=0, le=100_000)] | None = None
    beside: Annotated[list[Name], Field(max_length=60)] = Field(default_factory=list)
    found_before: Annotated[list[str], Field(max_length=60)] = Field(default_factory=list)
    quotes_first: bool = False

    @field_validator("circuit")
    @classmethod
    def _sound_circuit(cls, value: dict[str, Any]) -> dict[str, Any]:
        wiring_of(value)
        return value

    @field_validator("found_before")
    @classmethod
    def _known_causes(cls, value: list[str]) -> list[str]:
        for code in value:
            try:
                causes.get(code)
            except InputError as error:
                raise ValueError(str(error)) from None
        return value

    @model_validator(mode="after")
    def _coils_agree(self) -> "CallUnit":
        if self.coils is not None and self.evaporators not in (None, len(self.coils)):
            raise ValueError(f"coils: {len(self.coils)} are named, but evaporators says {self.evaporators}")
        named = [name for name in self.coils or () if name]
        if len(set(named)) < len(named):
            raise ValueError("coils: two have one name")
        return self


class CallFile(Strict):
    """A whole call file; its events are checked one by one, by their kinds."""

    format: Literal["orange-kettle/case"]
    version: Literal[2]
    unit: CallUnit
    events: Annotated[list[dict[str, Any]], Field(max_length=MOST_EVENTS)] = Field(default_factory=list)


def wiring_of(said: Mapping[str, Any]) -> Wiring:
    """Return what a file says of a unit's circuit; ValueError names what is not known or out of range."""
    known = list(USUAL.as_data())
    for name in said:
        if name not in known:
            near = difflib.get_close_matches(str(name), known, n=1, cutoff=0.0)[0]
            raise ValueError(f"“{str(name)[:40]}” is not known; the nearest known is “{near}”")
    words = {name: "yes" if value is True else "no" if value is False else f"{value:g}" if isinstance(value, float) else str(value)
             for name, value in said.items() if name not in ("without", "wires")}  # fmt: skip
    without = said.get("without", [])
    if not isinstance(without, list) or not all(isinstance(one, str) for one in without):
        raise ValueError("without: a list of parts")
    wires = said.get("wires", [])
    if not isinstance(wires, list) or not all(isinstance(one, str) and one.count(JOINT) == 1 for one in wires):
        raise ValueError("wires: a list of pairs of points, each as “K1-E1”")
    try:
        return replace(from_words(words), without=frozenset(without), wires=frozenset(wire_of(one) for one in wires))
    except FieldErrors as error:
        raise ValueError("; ".join(error.by_field.values())) from None


def record_of(data: Mapping[str, Any]) -> Record:
    """Return the record of a file's object; InputError in one line that names event, key, range and unit for what is not sound."""
    try:
        file = CallFile.model_validate(data)
    except ValidationError as error:
        raise InputError(first_line(error, {"unit": CallUnit}, CallFile)) from None
    unit = resolve(replace(file.unit.spec(), evaporators=len(file.unit.coils) if file.unit.coils else file.unit.evaporators))
    coils = tuple(file.unit.coils or ("",) * unit.evaporators)
    record = Record(
        unit, (), coils, wiring_of(file.unit.circuit), file.unit.label_charge_oz, file.unit.program, file.unit.settings,
        tuple(file.unit.beside), tuple(file.unit.found_before), quotes_first=file.unit.quotes_first,
    )  # fmt: skip
    events: list[Event] = []
    times = _times(file.events)
    for number, raw in enumerate(file.events, start=1):
        events.append(_event(record, number, raw, times[number - 1]))
    return replace(record, events=tuple(events))


def _times(raw: list[dict[str, Any]]) -> list[datetime]:
    """When each event was: as it says, else a minute after the one before."""
    said = [_time(number, one["at"]) if one.get("at") is not None else None for number, one in enumerate(raw, start=1)]
    first = next(((place, at) for place, at in enumerate(said) if at is not None), None)
    moment = first[1] - STEP * (first[0] + 1) if first is not None else UNDATED - STEP
    found = []
    for at in said:
        moment = at if at is not None else moment + STEP
        found.append(moment)
    return found


def _time(number: int, said: Any) -> datetime:
    if not isinstance(said, str):
        raise InputError(f"event {number}: at: a time is text in ISO 8601, for example 2026-03-02T06:14:00Z")
    try:
        return in_utc(datetime.fromisoformat(said))
    except ValueError as error:
        raise InputError(f"event {number}: at: {one_line(str(error))}") from None


def _event(record: Record, number: int, raw: Mapping[str, Any], at: datetime) -> Event:
    kind = raw.get("kind")
    if not isinstance(kind, str):
        raise InputError(f"event {number}: kind: required, and missing")
    if kind not in KINDS:
        near = difflib.get_close_matches(kind, KINDS, n=1, cutoff=0.0)[0]
        raise InputError(f"event {number}: kind “{kind[:40]}” is not known; the nearest known is “{near}”")
    undone = raw.get("undone", False)
    if not isinstance(undone, bool):
        raise InputError(f"event {number}: undone: true or false")
    model = KINDS[kind].carries
    try:
        carried: Carried = model.model_validate({key: value for key, value in raw.items() if key not in EVERY})
    except ValidationError as error:
        said = first_line(error, {}, model).replace("unknown key", f"unknown key of {kind}", 1)
        raise InputError(f"event {number} ({kind}): {said}") from None
    on = _coil(record, number, kind, raw.get("on"))
    carries = carried.model_dump(exclude_none=True)
    if kind == "measured":
        carries |= {end: record.circuit.renamed(carries[end]) for end in ("one", "other") if end in carries}
    made = Event(number, kind, carries, at, on, "", undone)
    _fits(record, made)
    return made


def _coil(record: Record, number: int, kind: str, said: Any) -> int | None:
    if said is None:
        return None
    if isinstance(said, str) and said in record.coils:
        return record.coils.index(said) + 1
    if isinstance(said, int) and not isinstance(said, bool) and 1 <= said <= len(record.coils):
        return said
    names = ", ".join(name for name in record.coils if name) or f"1 to {len(record.coils)}"
    raise InputError(f"event {number} ({kind}): on: “{str(said)[:40]}” is no coil of this unit; its coils are {names}")


def _fits(record: Record, event: Event) -> None:
    """Whether what an event carries is of this unit; InputError names event and what is not."""
    where = f"event {event.number} ({event.kind})"
    try:
        if event.kind == "reading" and event.on is not None and not observations.get(event.data["key"]).per_evaporator:
            raise InputError(f"{event.data['key']} belongs to the whole unit: leave out “on”")
        if event.kind == "measured" and event.data["what"] in ("amps", "microfarads"):
            record.circuit.part(event.data["one"])
        elif event.kind == "measured":
            for key in (event.data["one"], event.data.get("other", "")):
                record.circuit.point(key)
            if event.data["one"] == event.data.get("other"):
                raise InputError("both leads are on one point")
    except InputError as error:
        raise InputError(f"{where}: {error}") from None


def data_of(record: Record, unit: Mapping[str, Any]) -> dict[str, Any]:
    """Return a record as the object of a file; `unit` is the unit as version 1 writes it."""
    described = {name: value for name, value in unit.items() if value is not None}
    if record.several or any(record.coils):
        described["coils"] = list(record.coils)
        described.pop("evaporators", None)
    more = {
        "circuit": {name: value for name, value in record.wiring.as_data().items() if value != USUAL.as_data()[name]},
        "program": dict(record.program), "settings": dict(record.settings), "label_charge_oz": record.label_charge_oz,
        "beside": list(record.beside), "found_before": list(record.found_before), "quotes_first": record.quotes_first,
    }  # fmt: skip
    described |= {name: value for name, value in more.items() if value}
    return {"format": FORMAT, "version": VERSION, "unit": described, "events": [_written(record, event) for event in record.events]}


def _written(record: Record, event: Event) -> dict[str, Any]:
    made: dict[str, Any] = {"at": event.at.astimezone(UTC).isoformat().replace("+00:00", "Z")} if event.at is not None else {}
    made["kind"] = event.kind
    made |= {name: list(value) if isinstance(value, tuple) else value for name, value in event.data.items() if value is not None}
    if event.on is not None:
        made["on"] = record.coils[event.on - 1] or event.on
    if event.undone:
        made["undone"] = True
    return made
