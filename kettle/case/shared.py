"""What both versions of the case file share: the unit, times, and how what is wrong is told in one line."""

import difflib
import json
from collections.abc import Mapping
from dataclasses import fields
from datetime import UTC, datetime
from typing import Annotated, Any, Final, Literal

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, ValidationError, field_validator

from kettle.knowledge import refrigerants
from kettle.knowledge.bands import banded, check_band
from kettle.knowledge.equipment import CHOICES, LIMITS, UnitSpec, check_choice, check_figure
from kettle.knowledge.errors import InputError

FORMAT: Final = "orange-kettle/case"
LARGEST_BYTES: Final = 2_000_000
# More than a visit has by hand and by probe; a page of a call stays quick with so many.
MOST_OBSERVATIONS: Final = 2_000
LONGEST_NAME: Final = 80
MOST_ACTS: Final = 200
LARGEST_VALUE: Final = 1e5
# Times a case can be of.
FIRST_YEAR, LAST_YEAR = 1990, 2100


class Strict(BaseModel):
    """What a file holds: no key but the known ones, no value of another sort."""

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True)


def _limited(name: str) -> Any:
    low, high, unit, label = LIMITS[name]
    return Field(default=None, ge=low, le=high, title=label, description=f"{unit or 'count'}")


class CaseUnit(Strict):
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
        data = {entry.name: getattr(self, entry.name) for entry in fields(UnitSpec)}
        data["bands"] = {quantity: (low, high) for quantity, (low, high) in self.bands.items()}
        return UnitSpec(**data)


def _iso_time(value: Any) -> Any:
    if not isinstance(value, (str, datetime)):
        raise ValueError("a time is text in ISO 8601, for example 2026-03-02T06:14:00Z")
    return value


def in_utc(value: datetime) -> datetime:
    """Return a time in UTC, where it names no zone as that; ValueError for a year no case is of."""
    if not FIRST_YEAR <= value.year <= LAST_YEAR:
        raise ValueError(f"the year {value.year} is outside {FIRST_YEAR} to {LAST_YEAR}")
    return value.replace(tzinfo=UTC) if value.tzinfo is None else value


# A time of a case file, in UTC where it names no zone.
Moment = Annotated[datetime, Field(strict=False), BeforeValidator(_iso_time), AfterValidator(in_utc)]


def loads(source: str | bytes) -> dict[str, Any]:
    """Return the object of a JSON text; InputError in one line for what is none, repeats a key or is no case file."""
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
        raise InputError(f"the case file is not JSON: {one_line(str(error))}") from None
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise InputError(f"this is not a case file: “format” must be “{FORMAT}”")
    return data


def _refuse_constant(name: str) -> float:
    raise InputError(f"the case file holds {name}, which is not a number")


def _refuse_repeats(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = dict(pairs)
    if len(made) != len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise InputError(f"the case file gives “{twice[:40]}” twice in one object")
    return made


def one_line(text: str) -> str:
    """Return a text in one line, cut where it is very long."""
    return " ".join(text.split())[:300]


def first_line(error: ValidationError, models: Mapping[str, type[BaseModel]], whole: type[BaseModel]) -> str:
    """Return one line for the first thing wrong; an unknown key is named with the nearest known one."""
    # An unknown key explains more than the follow-on faults it causes.
    first = sorted(error.errors(), key=lambda e: e["type"] != "extra_forbidden")[0]
    place = [str(part) for part in first["loc"]]
    where = ".".join(place)
    if first["type"] == "extra_forbidden":
        owner = models.get(place[0], whole) if len(place) > 1 else whole
        near = difflib.get_close_matches(place[-1], owner.model_fields, n=1, cutoff=0.0)
        return f"{where[:80]}: unknown key “{place[-1][:40]}”; the nearest known key is “{near[0]}”"
    if first["type"] == "missing":
        return f"{where}: required, and missing"
    limits = LIMITS.get(place[-1]) if place else None
    if limits is not None and first["type"] in ("greater_than_equal", "less_than_equal"):
        return f"{where}: {str(first['input'])[:40]} is outside {limits[0]:g} to {limits[1]:g} {limits[2]}".strip()
    message = first["msg"].removeprefix("Value error, ")
    return one_line(f"{where}: {message}" if where else message)
