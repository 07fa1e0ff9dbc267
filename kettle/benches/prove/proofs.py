"""What shows that a repair holds, by what was done: each proof filled from the record, or one tap; and whether it may be left."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Final

from kettle.knowledge import observations
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits, long_words

# Whole cycles inside their limits that show that a control holds.
CYCLES: Final = 2
STARTS: Final = 2
# A box is at set to within this over half its differential, °F.
AT_SET_F: Final = 1.0
PROVED, AGAINST, OPEN = "proved", "against", "open"
# What says so where a proof was only tapped.
SEEN: Final = "seen"


@dataclass(frozen=True)
class Since:
    """What is on record since the last thing done: observations (key -> value), verdicts that are trusted (quantity -> state), counts.

    `amps_legs` are legs whose amps were read; `held` whether pressure held (None: not tested); `ended_by` what ended the last defrost
    seen, `coil_bare` what the last ice map after it shows, back and corners included; `tapped` proofs said by hand.
    """

    unit: Unit
    seen: Mapping[str, Any] = field(default_factory=dict)
    verdicts: Mapping[str, str] = field(default_factory=dict)
    cycles: int = 0
    cycles_wide: int = 0
    starts: int = 0
    amps_legs: int = 0
    held: bool | None = None
    ended_by: str = ""
    coil_bare: bool | None = None
    tapped: frozenset[str] = frozenset()


Told = tuple[str, str]


@dataclass(frozen=True)
class Kind:
    """A proof: its label, how it is got, about how many minutes it takes, what fills it."""

    code: str
    label: str
    how: str
    minutes: float
    tells: Callable[[Since, ShownUnits], Told]
    only: Callable[[Unit], bool] = lambda unit: True


@dataclass(frozen=True)
class Proof:
    """A proof on a call: its kind, whether it is proved, open or against, what says so, and what of the work asked for it."""

    kind: Kind
    state: str
    says: str
    by: tuple[str, ...]

    @property
    def words(self) -> str:
        """What it is, with what says so."""
        return f"{self.kind.label}: {self.says}" if self.says else self.kind.label


def _at_set(s: Since, shown: ShownUnits) -> Told:
    box = s.seen.get("box_temp_f", s.seen.get("return_air_f"))
    most = s.unit.set_f + s.unit.differential_f / 2.0 + AT_SET_F
    if box is None:
        return OPEN, ""
    words = f"{shown.text(float(box), '°F')}, set {shown.text(s.unit.set_f, '°F')}"
    return (PROVED if float(box) <= most else OPEN), words


def _verdict(*quantities: str) -> Callable[[Since, ShownUnits], Told]:
    def tells(s: Since, shown: ShownUnits) -> Told:
        told = [(quantity, s.verdicts[quantity]) for quantity in quantities if quantity in s.verdicts]
        if not told:
            return OPEN, ""
        bad = [state for _, state in told if state != "ok"]
        return (AGAINST, f"it is {bad[0]}") if bad else (PROVED, "")

    return tells


def _word(key: str, good: Sequence[str], bad: Sequence[str] = ()) -> Callable[[Since, ShownUnits], Told]:
    def tells(s: Since, shown: ShownUnits) -> Told:
        value = s.seen.get(key)
        if value in good:
            return PROVED, str(value).replace("_", " ")
        return (AGAINST, str(value).replace("_", " ")) if value in bad else (OPEN, "")

    return tells


def _display(s: Since, shown: ShownUnits) -> Told:
    error, state = s.seen.get("sensor_error_f"), s.verdicts.get("sensor_error_f")
    if error is None or state is None:
        return OPEN, ""
    return (PROVED if state == "ok" else AGAINST), f"off by {shown.text(float(error), '°F diff')}"


def _cycles(s: Since, shown: ShownUnits) -> Told:
    if s.cycles_wide:
        return AGAINST, f"{s.cycles_wide} outside their limits"
    return (PROVED if s.cycles >= CYCLES else OPEN), f"{s.cycles} of {CYCLES} watched" if s.cycles else ""


def _defrost(s: Since, shown: ShownUnits) -> Told:
    if not s.ended_by:
        return OPEN, ""
    return (PROVED, "ended by temperature") if s.ended_by == "termination" else (AGAINST, "ended by time")


def _coil(s: Since, shown: ShownUnits) -> Told:
    if s.coil_bare is not None:
        return (PROVED, "bare on the map") if s.coil_bare else (AGAINST, "ice is left on the map")
    return _word("coil_after_defrost", ("clear",), ("part_iced", "iced"))(s, shown)


def _amps(s: Since, shown: ShownUnits) -> Told:
    wanted = 3 if s.unit.phases == 3 else 1
    have = max(s.amps_legs, 1 if "compressor_amps" in s.seen and wanted == 1 else 0)
    state = s.verdicts.get("amps_pct")
    if have < wanted:
        return OPEN, f"{have} of {wanted} legs" if have else ""
    return (AGAINST, f"they are {state}") if state in ("low", "high") else (PROVED, f"{have} of {wanted} legs" if wanted > 1 else "read")


def _starts(s: Since, shown: ShownUnits) -> Told:
    return (PROVED if s.starts >= STARTS else OPEN), f"{s.starts} of {STARTS} starts" if s.starts else ""


def _water(s: Since, shown: ShownUnits) -> Told:
    if "drain_fault" in s.seen:
        return AGAINST, f"something is wrong with it: {observations.get('drain_fault').show(s.seen['drain_fault'])}"
    return _word("drain", ("running",), ("slow", "blocked", "frozen"))(s, shown)


def _air(s: Since, shown: ShownUnits) -> Told:
    weak = s.seen.get("air_weak_at")
    if weak is None:
        return OPEN, ""
    at = [place for place in ([weak] if isinstance(weak, str) else weak) if place != "nowhere"]
    return (AGAINST, f"weak at {', '.join(at).replace('_', ' ')}") if at else (PROVED, "felt everywhere")


def _held(s: Since, shown: ShownUnits) -> Told:
    if s.held is None:
        return _word("leak_test", ("none_found",), ("found",))(s, shown)
    return (PROVED, "it held") if s.held else (AGAINST, "it was lost")


# fmt: off
KINDS: Final[Mapping[str, Kind]] = {kind.code: kind for kind in (
    Kind("at_set", "Box at set", "Watch it down; own thermometer, mid-box", 60, _at_set),
    Kind("superheat", "Superheat in band", "Line and suction once it is within 5 °F of set", 15, _verdict("superheat_evap_f"),
         only=lambda unit: unit.metering != "cap_tube"),
    Kind("td", "TD in band", "Suction and the air onto the coil, near set", 10, _verdict("td_f"),
         only=lambda unit: unit.metering == "cap_tube"),
    Kind("glass", "Glass clear", "Torch on the glass after ten minutes running", 2,
         _word("sight_glass", ("clear", "none"), ("flashing", "empty")), lambda unit: unit.receiver),
    Kind("cycles", "Cycles inside their limits", "Tap starts and stops on Controls; two whole ones", 60, _cycles),
    Kind("satisfied", "Satisfied and off by itself", "Let it come to rest by its own control", 40,
         _word("control_call", ("satisfied",))),
    Kind("display", "Display agrees with own thermometer", "Own thermometer at the sensor, read beside the display", 3,
         _display),
    Kind("defrost", "One defrost seen to its end, by temperature", "Start one by hand and watch it on Programs", 40, _defrost,
         lambda unit: unit.defrost in ("electric", "hot_gas")),
    Kind("coil", "Coil clear, back and corners", "Torch behind the coil and into its corners", 3, _coil),
    Kind("water", "Water seen to leave the drain", "Pour a cup, or watch a defrost's water go", 3, _water),
    Kind("amps", "Amps on each leg", "Clamp on each leg while it runs", 3, _amps),
    Kind("starts", "Started twice by itself", "Off and on by its control, twice", 15, _starts),
    Kind("air", "Air felt at every section", "Hand along the coil, at every door of a case", 2, _air),
    Kind("door", "Door shuts and seals", "A sheet of paper all round, let it swing shut", 2,
         _word("door", ("good",), ("left_open", "gasket_gap", "misaligned", "closer_failed"))),
    Kind("split", "Split in band", "Head and the air into the condenser", 5, _verdict("split_f", "approach_f")),
    Kind("held", "Pressure held", "Nitrogen or standing pressure on Refrigerant; bubbles at the repair", 30, _held),
)}
_CIRCUIT = ("at_set", "superheat", "td", "glass")
_ELECTRICAL = ("amps", "starts")
# What each part that was worked on asks for.
BY_PART: Final[Mapping[str, tuple[str, ...]]] = {
    **dict.fromkeys(("valve", "bulb", "charge", "cap_tube", "drier", "liquid_solenoid", "regulator", "air"), _CIRCUIT),
    "head_control": ("split", "glass", "at_set"), "condenser": ("split", "at_set"), "condenser_fan": ("split", "amps", "at_set"),
    "pressure_control": ("cycles", "at_set"), "thermostat": ("cycles", "satisfied"), "control": ("satisfied",),
    "sensor": ("display", "satisfied", "at_set"), "parameters": ("satisfied", "at_set"),
    **dict.fromkeys(("program", "heater", "timer", "termination"), ("defrost", "coil", "water")),
    "coil": ("coil", "water", "air", "at_set"), "drain": ("water",), "drain_heater": ("water",),
    **dict.fromkeys(("contactor", "start_parts", "supply", "wiring", "relay", "compressor"), (*_ELECTRICAL, "at_set")),
    "hot_gas_valve": ("defrost", "coil", "at_set"), "frame_heater": ("door",), "water_valve": ("split", "at_set"),
    "evap_fan": ("air", "at_set"), "door": ("door", "air", "at_set"), "stock": ("air",), "leak": ("held", *_CIRCUIT),
}
# fmt: on
# Acts that ask for others than their part does: what they feed are fans, or what they took out held a start back.
BY_ACT: Final[Mapping[str, tuple[str, ...]]] = {
    "wiring.output_moved": ("air", "at_set"),
    "door.switch_adjusted": ("air", "at_set"),
    "door.switch_replaced": ("air", "at_set"),
    "wiring.delay_removed": ("starts", "at_set"),
}
# Gas added shows in the glass; what only was taken out or looked at asks for nothing.
ASKS_NOTHING: Final = ("charge.recovered", "leak.given_up", "condenser.blocked_on_purpose", "condenser.unblocked", "compressor.rested")


def wanted(unit: Unit, done: Sequence[str]) -> dict[str, tuple[str, ...]]:
    """Return the proofs that what was done (codes of acts) asks for, each with the acts that ask; a box at set where nothing was done."""
    asked: dict[str, list[str]] = {}
    for code in done:
        for proof in () if code in ASKS_NOTHING else BY_ACT.get(code) or BY_PART.get(code.partition(".")[0], ("at_set",)):
            asked.setdefault(proof, []).append(code)
    if not done:
        asked["at_set"] = []
    return {code: tuple(dict.fromkeys(asked[code])) for code, kind in KINDS.items() if code in asked and kind.only(unit)}


def proof_of(code: str, since: Since, by: tuple[str, ...] = (), shown: ShownUnits = TRADE) -> Proof:
    """Return one proof by what is on record since the acts that ask for it; a tap counts where nothing speaks against it."""
    kind = KINDS[code]
    state, says = kind.tells(since, shown)
    if state == OPEN and code in since.tapped:
        state, says = PROVED, SEEN
    return Proof(kind, state, says, by)


# What is judged only when the circuit has settled.
SETTLED: Final = ("superheat", "td", "split")


@dataclass(frozen=True)
class Leaving:
    """Whether it may be left, in words; what is proved, and what is missing with minutes (None where nobody can say)."""

    may: bool
    says: str
    reasons: tuple[str, ...]
    missing: tuple[tuple[str, float | None], ...]


def may_leave(found: Sequence[Proof], pull_down_min: float | None = None, stalled: bool = False, settles_min: float = 0.0) -> Leaving:
    """Return whether a unit may be left by its proofs; `pull_down_min` is how long the box is still about to take.

    Of one that stands still (`stalled`) nobody can say how long. What is read on a running circuit waits for it to settle (`settles_min`).
    """
    reasons = tuple(one.words for one in found if one.state == PROVED)
    missing: list[tuple[str, float | None]] = []
    for one in found:
        if one.state == PROVED:
            continue
        if stalled and one.kind.code == "at_set":
            missing.append((f"{one.words}; it stands still", None))
            continue
        waits = pull_down_min if one.kind.code in ("at_set", "superheat") and pull_down_min is not None else one.kind.minutes
        if one.kind.code in SETTLED:
            waits = max(waits, settles_min)
        missing.append((one.words, None if one.state == AGAINST else float(waits)))
    if not missing:
        return Leaving(True, "May be left", reasons, ())
    times = [minutes for _, minutes in missing if minutes is not None]
    against = any(minutes is None for _, minutes in missing)
    told = "Not yet" if not times else f"Not yet: about {long_words(max(times))} more"
    return Leaving(False, "Not yet: something speaks against it" if against else told, reasons, tuple(missing))
