"""What shows that a repair holds: each kind of event fills proofs, and each proof that the work asks for is told by what was filled since.

A later word against it overturns a proof: hard ice after a bare map. What was only tapped fills its proof where nothing speaks against it.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Final

from kettle.benches.ice.map import ICED_FORMS
from kettle.benches.prove import proofs
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.hears import drawn, figure, ice_read, stood, whole_cycle
from kettle.judging.readings import implied_by, told_with
from kettle.knowledge import observations
from kettle.knowledge.bands import default_band

# What has to be read anew for a quantity to be one of now.
READ_FOR: Final = {
    "superheat_evap_f": ("suction_line_evap_f", "coil_outlet_feel"), "td_f": ("suction_psig",), "split_f": ("discharge_psig",),
    "approach_f": ("discharge_psig",), "amps_pct": ("compressor_amps",),
}  # fmt: skip
TRUSTED: Final = ("good", "weak")
# Superheat is read for good within this of set, °F.
NEAR_SET_F: Final = 5.0
BY_FEEL: Final = "coil_outlet_feel"
# A test of pressure is of the repair, not of what was charged after it.
ASKED_BY_ITSELF: Final = {"held": "leak", "water": "drain"}
# Proofs that are of a coil, where a unit has several.
OF_A_COIL: Final = ("superheat", "td", "coil", "water", "air")
# Asked on every call, whatever was done.
AT_SET: Final = "at_set"
# A box this far past its limits is outside them, °F.
CYCLE_WIDE_F: Final = 1.0


@dataclass
class Gathered:
    """What events filled since an act: observations, legs whose amps were read, cycles and starts, the last word on pressure, defrost and
    coil, and proofs that were tapped."""

    seen: dict[str, Any] = field(default_factory=dict)
    legs: set[str] = field(default_factory=set)
    cycles: int = 0
    cycles_wide: int = 0
    starts: int = 0
    held: bool | None = None
    ended_by: str = ""
    coil_bare: bool | None = None
    tapped: set[str] = field(default_factory=set)


Fills = Callable[[Call, Event, Gathered], None]


def reading(call: Call, event: Event, into: Gathered) -> None:
    """An observation; one of ice overturns a coil that was bare."""
    key, value = event.data["key"], event.data["value"]
    into.seen[key] = value
    if told_with(key):
        checked = {k: observations.get(k).check(tuple(v) if isinstance(v, list) else v) for k, v in into.seen.items()}
        into.seen |= implied_by(key, checked)
    if key == "ice_form":
        if value in ICED_FORMS:
            into.coil_bare = False
    elif key == "coil_after_defrost":
        into.coil_bare = value == "clear"
    elif key == "defrost_ended_by" and value != "unknown":
        into.ended_by = value
    elif key == "leak_test" and value in ("found", "none_found"):
        into.held = value == "none_found"


def measured(call: Call, event: Event, into: Gathered) -> None:
    """Amps of a leg of the compressor."""
    one = event.data["one"]
    if event.data["what"] == "amps" and one.startswith("lead_") and figure(event) > 0:
        into.legs.add(one)


def ice(call: Call, event: Event, into: Gathered) -> None:
    """A bare map, back and corners not iced, proves the coil; any ice that counts overturns it."""
    painted = drawn(event)
    form, _ = ice_read(call.record, event)
    if painted is not None:
        into.coil_bare = form == "none" and not painted.iced
    elif form in ICED_FORMS:
        into.coil_bare = False


def melt(call: Call, event: Event, into: Gathered) -> None:
    """All clear proves the coil."""
    if event.get("all_clear") is not None:
        into.coil_bare = bool(event.data["all_clear"])


def watched(call: Call, event: Event, into: Gathered) -> None:
    """How a defrost ended, and what the coil looked like."""
    if event.data["ended_by"] in ("termination", "time"):
        into.ended_by = event.data["ended_by"]
    if event.get("coil_after"):
        into.coil_bare = event.data["coil_after"] == "clear"


def cycle(call: Call, event: Event, into: Gathered) -> None:
    """A whole cycle, inside the box's limits or not."""
    if not whole_cycle(event):
        return
    band = default_band(call.record.unit_now, "box_temp_f")
    ends = [event.data[name] for name in ("box_low_f", "box_high_f") if event.get(name) is not None]
    wide = band is not None and any(not band[0] - CYCLE_WIDE_F <= one <= band[1] + CYCLE_WIDE_F for one in ends)
    into.cycles += 1
    into.cycles_wide += wide
    into.starts += 1


def first_start(call: Call, event: Event, into: Gathered) -> None:
    """A start, once."""
    into.starts = max(into.starts, 1)


def nitrogen(call: Call, event: Event, into: Gathered) -> None:
    """Held, or lost."""
    into.held = not stood(call.record, event).leaks


def leak_look(call: Call, event: Event, into: Gathered) -> None:
    """No find at the place of the repair, or a find."""
    if event.data["heard"] in ("bubbles", "twice"):
        into.held = False
    elif event.data["heard"] == "no" and into.held is not False:
        into.held = True


def seen(call: Call, event: Event, into: Gathered) -> None:
    """A tap."""
    into.tapped.add(event.data["proof"])


@dataclass(frozen=True)
class Proved:
    """A proof that the work asks for: what the bench says of it, the coil it is of (None: the unit), and the event that asks for it."""

    proof: proofs.Proof
    on: int | None = None
    asked_by: Event | None = None

    @property
    def code(self) -> str:
        """The proof's code."""
        return self.proof.kind.code

    @property
    def state(self) -> str:
        """proved, open or against."""
        return self.proof.state

    @property
    def tapped(self) -> bool:
        """Whether it is proved by a tap alone."""
        return self.proof.says == proofs.SEEN


def gathered(call: Call, fills: Callable[[Event], Fills | None], since: Event | None, coil: int | None) -> Gathered:
    """Return what was filled since an event (it included; None: on the whole call), as seen from a coil (None: from any)."""
    record, into = call.record, Gathered()
    first = record.place[since.number] if since is not None else 0
    for event in record.standing[first:]:
        fill = fills(event)
        if fill is not None and (coil is None or event.on in (None, coil)):
            fill(call, event, into)
    return into


def proofs_of(call: Call, fills: Callable[[Event], Fills | None]) -> tuple[Proved, ...]:
    """Return the proofs of a call in the order of the bench's table: a box at set on every call, the rest by what was done; where a unit
    has several coils, those of a coil for each one worked on."""
    steps = call.staged.steps
    unit = call.record.unit_now
    asked = proofs.wanted(unit, [step.did.code for step in steps])
    found = []
    for code in proofs.KINDS:
        if code not in asked and code != AT_SET:
            continue
        by = asked.get(code, ())
        own = ASKED_BY_ITSELF.get(code)
        asking = [step for step in steps if step.did.code in by and (own is None or step.did.part == own)]
        asking = asking or [step for step in steps if step.did.code in by]
        coils: list[int | None] = [None]
        if call.record.several and code in OF_A_COIL:
            coils = sorted({step.did.on for step in asking if step.did.on is not None}) or [None]  # type: ignore[assignment]
        for coil in coils:
            mine = [step for step in asking if coil is None or step.did.on in (None, coil)]
            last = mine[-1].event if mine else None
            filled = gathered(call, fills, last, coil)
            proof = proofs.proof_of(code, _since(call, filled, coil, last), tuple(dict.fromkeys(s.did.code for s in mine)), call.shown)
            found.append(Proved(proof, coil, last))
    return tuple(found)


def _since(call: Call, filled: Gathered, coil: int | None, since: Event | None) -> proofs.Since:
    verdicts: dict[str, str] = {}
    for number in [coil] if coil is not None else call.coils:
        now = call.judged.now(number)
        for one in now.verdicts:
            needs = READ_FOR.get(one.quantity)
            if one.trust not in TRUSTED or (needs is not None and not any(key in filled.seen for key in needs)):
                continue
            if one.quantity == "superheat_evap_f" and not _near_set(call, number, filled):
                continue
            verdicts[one.quantity] = one.state if verdicts.get(one.quantity, "ok") == "ok" else verdicts[one.quantity]
    return proofs.Since(
        call.record.unit_now, filled.seen, verdicts, filled.cycles, filled.cycles_wide, filled.starts, len(filled.legs), filled.held,
        filled.ended_by, filled.coil_bare, frozenset(filled.tapped),
    )  # fmt: skip


def _near_set(call: Call, coil: int, filled: Gathered) -> bool:
    """Whether superheat was read with the box near set; by feel it holds at any box."""
    over = call.judged.now(coil).facts.box_over_set_f
    return BY_FEEL in filled.seen or over is None or abs(over) <= NEAR_SET_F
