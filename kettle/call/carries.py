"""What each kind of event carries, with its ranges and codes: one model a kind. What a case file holds is checked by them."""

import difflib
from collections.abc import Collection
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Any, Final, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, GetCoreSchemaHandler, GetJsonSchemaHandler, model_validator
from pydantic_core import core_schema

from kettle.benches.defrost.program import MOST_STARTS, ROLES, parse_clock
from kettle.benches.ice import map as ice
from kettle.benches.ice.melt import METHODS
from kettle.benches.prove.leaving import ANSWERS
from kettle.benches.prove.proofs import KINDS as PROOFS
from kettle.benches.refrigerant.change import PARTS as CHANGED
from kettle.benches.refrigerant.change import every_step
from kettle.benches.refrigerant.compressor import OIL
from kettle.benches.refrigerant.leaks import BACKGROUND, BY_CODE, HEARD, READING
from kettle.benches.refrigerant.nitrogen import MINUTES, PSIG, TEMPERATURE_F
from kettle.benches.refrigerant.vacuum import MICRONS
from kettle.call.placed import WHAT as PLACED
from kettle.electrical.circuit import STATES
from kettle.electrical.wiring import START_GEAR
from kettle.judging.holds import ACTIONS
from kettle.judging.holds import BLOCKS as HOLDS
from kettle.knowledge import acts, anatomy, causes, looks, observations, refrigerants
from kettle.knowledge.errors import InputError
from kettle.knowledge.parameters import PARAMETERS

LONGEST: Final = 2000
SHORT: Final = 300
LARGEST_VALUE: Final = 1e5
MOST_MINUTES: Final = 7 * 24 * 60.0
MOST_OZ: Final = 100_000.0
SPOT_F: Final = (-60.0, 900.0)
METER: Final = {"volts": (1000.0, "V"), "amps": (600.0, "A"), "ohms": (1e10, "Ω"), "microfarads": (5000.0, "µF")}


class Carried(BaseModel):
    """The fields of one kind of event."""

    model_config = ConfigDict(extra="forbid", strict=True, frozen=True)


@dataclass(frozen=True, eq=False)
class OneOf:
    """A text that is one of some codes; another is an error that names the nearest."""

    what: str
    table: Collection[str]

    @property
    def codes(self) -> tuple[str, ...]:
        """The codes of the table as it stands."""
        return tuple(self.table)

    def check(self, value: str) -> str:
        """Return the code; ValueError names the nearest known one."""
        if value not in self.codes:
            near = difflib.get_close_matches(value, self.codes, n=1, cutoff=0.0)
            raise ValueError(f"{self.what} “{value[:40]}” is not known; the nearest known is “{near[0]}”")
        return value

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> core_schema.CoreSchema:
        return core_schema.no_info_after_validator_function(self.check, handler(source))

    def __get_pydantic_json_schema__(self, schema: core_schema.CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return {**handler(schema), "enum": list(self.codes)}


@dataclass(frozen=True)
class Between:
    """A figure inside a range, with its unit."""

    low: float
    high: float
    unit: str

    def check(self, value: float) -> float:
        """Return the figure, in its field's unit of measure; ValueError names value, range and unit."""
        if not self.low <= value <= self.high:
            raise ValueError(f"{value:g} {self.unit} is outside {self.low:g} to {self.high:g} {self.unit}")
        return value

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> core_schema.CoreSchema:
        return core_schema.no_info_after_validator_function(self.check, handler(source))

    def __get_pydantic_json_schema__(self, schema: core_schema.CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        return {**handler(schema), "minimum": self.low, "maximum": self.high, "description": self.unit}


def _refrigerant(value: str) -> str:
    try:
        return refrigerants.get(value).name
    except InputError as error:
        raise ValueError(str(error)) from None


Words = Annotated[str, Field(max_length=LONGEST)]
Short = Annotated[str, Field(max_length=SHORT)]
Refrigerant = Annotated[str, AfterValidator(_refrigerant), Field(json_schema_extra={"enum": [*refrigerants.catalogue()]})]
Minutes = Annotated[float, Between(0, MOST_MINUTES, "min")]
Psig = Annotated[float, Between(-14.7, 1200, "psig")]
Box = Annotated[float, Between(-60, 150, "°F")]
IceForm = Annotated[str, OneOf("form", ice.LETTERS)]
_ICE_PLACES: Final = [*dict.fromkeys([*(code for code, _ in observations.get("ice_places").choices), *ice.PLACES])]


class Reading(Carried):
    """An observation; `typed` is what a person typed, `source` where it is from."""

    key: str = Field(json_schema_extra=lambda made: made.update(enum=list(observations.REGISTRY)))
    value: float | str | list[str]
    source: Short | None = None
    typed: Short | None = None

    @model_validator(mode="after")
    def _sound(self) -> "Reading":
        try:
            observations.get(self.key)
        except InputError as error:
            raise ValueError(str(error)) from None
        try:
            observations.get(self.key).check(self.value)
        except InputError as error:
            raise ValueError(f"{self.key}: {error}") from None
        return self


class Measured(Carried):
    """Volts or ohms between two points of the circuit, amps round the lead of a part (`one`), µF of one; *OL* is a reading."""

    what: Annotated[str, OneOf("what", METER)]
    one: Annotated[str, Field(min_length=1, max_length=20)]
    other: Annotated[str, Field(max_length=20)] = ""
    value: float | Literal["OL"]
    state: Annotated[str, OneOf("state", STATES)] = "calling"
    lifted: bool | None = None

    @model_validator(mode="after")
    def _in_range(self) -> "Measured":
        most, unit = METER[self.what]
        if self.value == "OL":
            if self.what != "ohms":
                raise ValueError(f"OL is a reading of ohms, not of {self.what}")
        elif not 0 <= self.value <= most:
            raise ValueError(f"{self.value:g} {unit} is outside 0 to {most:g} {unit}")
        return self


class Looked(Carried):
    """What a part looks or does."""

    part: str
    state: str
    note: Words | None = None

    @model_validator(mode="after")
    def _known(self) -> "Looked":
        try:
            looks.get(self.part, self.state)
        except InputError as error:
            raise ValueError(str(error)) from None
        return self


class IceMap(Carried):
    """A painted coil face: rows of letters, form by place, cells with oil."""

    rows: list[str]
    places: dict[str, str] = Field(default_factory=dict)
    oil: list[list[int]] | None = None

    @model_validator(mode="after")
    def _sound(self) -> "IceMap":
        try:
            ice.parse(self.rows, self.places)
        except InputError as error:
            raise ValueError(str(error)) from None
        return self


class Ice(Carried):
    """A drawing of a coil face, before or after: a map, or what was said of it."""

    form: IceForm | None = None
    covers_pct: Annotated[float, Between(0, 100, "%")] | None = None
    places: list[Annotated[str, OneOf("place", _ICE_PLACES)]] | None = None
    map: IceMap | None = None
    face_ft2: Annotated[float, Between(0.1, 200, "ft²")] | None = None
    side: Annotated[str, OneOf("side", ("before", "after"))] | None = None

    @model_validator(mode="after")
    def _something(self) -> "Ice":
        if self.form is None and self.map is None:
            raise ValueError("form: required where there is no map")
        return self


class Melt(Carried):
    """A coil melted: how, how long, whether nothing is left, and why where something is."""

    method: Annotated[str, OneOf("method", METHODS)] | None = None
    minutes: Minutes | None = None
    places: list[Short] | None = None
    all_clear: bool | None = None
    left_why: Words | None = None


class Act(Carried):
    """An act on a part; `value` in turns or ounces, `by_eye` where gas went in without a scale."""

    part: str = Field(json_schema_extra={"enum": list(acts.PARTS)})
    did: str = Field(json_schema_extra={"enum": [*sorted({act.did for act in acts.ACTS.values()})]})
    value: float | None = None
    note: Words | None = None
    by_eye: bool | None = None
    against: Words | None = None
    reason: Words | None = None

    @model_validator(mode="after")
    def _known(self) -> "Act":
        try:
            acts.get(self.part, self.did)
        except InputError as error:
            raise ValueError(str(error)) from None
        if self.value is not None and not 0 <= self.value <= LARGEST_VALUE:
            raise ValueError(f"{self.part} {self.did}: the value {self.value:g} is outside 0 to {LARGEST_VALUE:g}")
        return self


def _clock(value: str) -> str:
    try:
        parse_clock(value)
    except InputError as error:
        raise ValueError(str(error)) from None
    return value


class Program(Carried):
    """A defrost program as found or as left."""

    side: Annotated[str, OneOf("side", ("found", "left"))]
    starts: Annotated[list[Annotated[str, AfterValidator(_clock)]], Field(max_length=MOST_STARTS)] = Field(default_factory=list)
    figures: dict[str, float | None] = Field(default_factory=dict)
    why: Words | None = None

    @model_validator(mode="after")
    def _sound(self) -> "Program":
        for role, value in self.figures.items():
            if role not in ROLES:
                near = difflib.get_close_matches(role, ROLES, n=1, cutoff=0.0)[0]
                raise ValueError(f"figures: “{role[:40]}” is not known; the nearest known is “{near}”")
            kind = ROLES[role]
            if value is not None and not kind.low <= value <= kind.high:
                raise ValueError(f"{role}: {value:g} is outside {kind.low:g} to {kind.high:g} {kind.unit}")
        return self


class Setting(Carried):
    """A setting as found and as left; the same twice: read and right."""

    parameter: Annotated[str, OneOf("parameter", PARAMETERS)]
    found: float | Short | None = None
    left: float | Short | None = None
    why: Words | None = None

    @model_validator(mode="after")
    def _in_range(self) -> "Setting":
        one = PARAMETERS[self.parameter]
        for side, value in (("found", self.found), ("left", self.left)):
            if isinstance(value, float) and not one.text and not one.low <= value <= one.high:
                raise ValueError(f"{side}: {value:g} is outside {one.low:g} to {one.high:g} {one.unit}")
        return self


class Watched(Carried):
    """One defrost seen to its end."""

    ended_by: Annotated[str, OneOf("ended_by", ("termination", "time", "hand", "unknown"))]
    minutes: Minutes | None = None
    coil_after: Annotated[str, OneOf("coil_after", ("clear", "part_iced", "iced"))] | None = None
    fans: Annotated[str, OneOf("fans", ("off", "running"))] | None = None
    marks: dict[str, float] | None = None


class Cycle(Carried):
    """One cycle of the compressor by its control."""

    on_min: Minutes | None = None
    off_min: Minutes | None = None
    cut_in_psig: Psig | None = None
    cut_out_psig: Psig | None = None
    box_low_f: Box | None = None
    box_high_f: Box | None = None
    source: Short | None = None


class LeakLook(Carried):
    """What a place gave in the search for a leak."""

    place: Annotated[str, OneOf("place", [*BY_CODE, BACKGROUND])]
    heard: Annotated[str, OneOf("heard", HEARD)]
    reading: Annotated[float, Between(*READING, "as the detector shows it")] | None = None


class Nitrogen(Carried):
    """A standing test with dry nitrogen."""

    start_psig: Annotated[float, Between(*PSIG, "psig")]
    start_f: Annotated[float, Between(*TEMPERATURE_F, "°F")]
    now_psig: Annotated[float, Between(0, PSIG[1], "psig")]
    now_f: Annotated[float, Between(*TEMPERATURE_F, "°F")]
    minutes: Annotated[float, Between(*MINUTES, "min")]


class Vacuum(Carried):
    """Microns at a moment of an evacuation, the pump running or shut off."""

    microns: Annotated[float, Between(*MICRONS, "microns")]
    pump: bool = True


class Weighed(Carried):
    """Gas in or out by a cylinder's two weights."""

    did: Annotated[str, OneOf("did", ("added", "recovered", "weighed_in"))]
    refrigerant: Refrigerant | None = None
    before_oz: Annotated[float, Between(0, MOST_OZ, "oz")]
    after_oz: Annotated[float, Between(0, MOST_OZ, "oz")]
    lost_oz: Annotated[float, Between(0, MOST_OZ, "oz")] | None = None
    cylinder: Annotated[str, Field(max_length=40)] | None = None
    form: Annotated[str, OneOf("form", ("liquid", "vapour"))] | None = None
    note: Words | None = None


class Step(Carried):
    """A step of a change of a part, or of a triple evacuation."""

    of: Annotated[str, OneOf("of", [*CHANGED, "triple"])]
    step: Annotated[str, OneOf("step", every_step())]
    note: Words | None = None


class FirstStart(Carried):
    """What was read of a new compressor at a minute after its first start."""

    minute: Annotated[float, Between(0, 24 * 60, "min")]
    amps: Annotated[float, Between(0, 600, "A")]
    suction_psig: Psig
    discharge_psig: Psig
    oil: Annotated[str, OneOf("oil", OIL)]


class Wires(Carried):
    """The wires of start gear, each from a terminal to another."""

    which: Annotated[str, OneOf("which", ("found", "new"))]
    gear: Annotated[str, OneOf("gear", START_GEAR)]
    wires: Annotated[list[list[Annotated[str, Field(max_length=20)]]], Field(max_length=60)]


class Retrofit(Carried):
    """From now on the unit's refrigerant is another."""

    to: Refrigerant
    oil: Short | None = None


class Placed(Carried):
    """Something temporary, where, and what no longer happens by itself."""

    what: Annotated[str, OneOf("what", PLACED)]
    where: Short | None = None
    does_not: Short | None = None
    since: Short | None = None


class Gone(Carried):
    """Something temporary taken away."""

    what: Annotated[str, OneOf("what", PLACED)]
    where: Short | None = None


class Found(Carried):
    """What the technician says it is."""

    causes: Annotated[list[Annotated[str, OneOf("cause", causes.CATALOGUE)]], Field(max_length=8)]


class Override(Carried):
    """What was done against a hold, and why."""

    holds: Annotated[list[Short], Field(max_length=40)] = Field(default_factory=list)
    action: Annotated[str, OneOf("action", [*ACTIONS, "close", "lone_working"])] | None = None
    texts: Annotated[list[Words], Field(max_length=40)] | None = None
    reason: Words

    @model_validator(mode="after")
    def _known(self) -> "Override":
        for code in self.holds:
            if self.action != "close" and code not in HOLDS:
                near = difflib.get_close_matches(code, HOLDS, n=1, cutoff=0.0)[0]
                raise ValueError(f"hold “{code[:40]}” is not known; the nearest known is “{near}”")
        return self


class Seen(Carried):
    """A proof that was tapped."""

    proof: Annotated[str, OneOf("proof", PROOFS)]


class Sibling(Carried):
    """Another box on the same plant."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    state: Annotated[str, OneOf("state", ("ok", "bad"))]
    words: Words | None = None


class Decided(Carried):
    """What the customer decided."""

    what: Short
    by: Short | None = None
    reason: Words | None = None


class LeftSo(Carried):
    """The answer to something left: `what` is a code of leaving, with `:` and the proof or thing where there are several."""

    what: Annotated[str, Field(min_length=1, max_length=80)]
    answer: Annotated[str, OneOf("answer", ANSWERS)] | None = None
    reason: Words | None = None


class Visit(Carried):
    """From here on a later visit."""

    why: Words | None = None


class Kept(Carried):
    """A promise kept, and whether the repair held."""

    what: Words
    held: bool | None = None


def _day(value: str) -> str:
    try:
        date.fromisoformat(value)
    except ValueError:
        raise ValueError(f"“{value[:20]}” is no day; a day is written 2026-03-04") from None
    return value


class Promise(Carried):
    """What is promised, and by when."""

    due: Annotated[str, AfterValidator(_day)]
    what: Words
    why: Words | None = None
    code: Short | None = None


class Used(Carried):
    """A part or stuff used."""

    what: Short
    amount: float | Short | None = None


class Note(Carried):
    """Words that nothing else takes; `about` marks what was told when the call was opened."""

    text: Words
    about: Annotated[str, OneOf("about", ("complaint", "changed"))] | None = None
    part: Annotated[str, OneOf("part", anatomy.PARTS)] | None = None


class Spot(Carried):
    """How warm a part was, by a thermometer or a camera."""

    part: Annotated[str, OneOf("part", anatomy.PARTS)]
    temp_f: Annotated[float, Field(ge=SPOT_F[0], le=SPOT_F[1])]
    by: Annotated[str, OneOf("by", ("thermometer", "camera"))] = "thermometer"


class Photo(Carried):
    """A photo, named as it lies beside the file."""

    file: Short
    stop: Short | None = None
    place: Short | None = None
    caption: Short | None = None


class Trend(Carried):
    """A log of readings, named as it lies beside the file."""

    file: Short
    name: Short | None = None
    says: Words | None = None


class Time(Carried):
    """A mark of the clock: on site, off site, on the way."""

    what: Short
    minutes: Minutes | None = None


class Quote(Carried):
    """A quote as it was stored: its lines and what was answered to each."""

    lines: Annotated[list[dict[str, Any]], Field(max_length=200)] = Field(default_factory=list)
    number: Short | None = None
    answered_by: Short | None = None
    waits: bool | None = None
    accepted: bool | None = None
    within_limit: bool | None = None


class Talked(Carried):
    """What passed between a call and its controller: what it is set to, what was written and read back, what it refused."""

    settings: dict[str, Any] = Field(default_factory=dict)
    wrote: dict[str, Any] | None = None
    refused: dict[str, Any] | None = None
    complaint: Words | None = None
    reason: Words | None = None
    simulated: bool | None = None
