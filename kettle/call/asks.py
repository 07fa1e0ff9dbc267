"""What should not be left so when a visit ends: one table of doubts, each with what opens it, what closes it, and what was answered."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.controls.registers import REGISTERS
from kettle.benches.ice.map import ICED_FORMS
from kettle.benches.prove import proofs
from kettle.benches.prove.leaving import ANSWERS, KINDS, Answer
from kettle.benches.prove.promised import Proposal
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.hears import drawn, ice_read, places_found
from kettle.call.placed import SAID, WHAT
from kettle.call.proves import Proved
from kettle.call.words import lower

SERVICE: Final = "service_mode"
ON: Final = ("on", "yes", "1", "true", "in service")


@dataclass(frozen=True)
class Doubt:
    """Something left so: its code, the proof or thing it is of, the coil, whole words, whether it was answered, and how.

    `opened_by` is the event that opened it: an answer given before says nothing of it.
    """

    code: str
    of: str
    on: int | None
    text: str
    opened_by: Event | None = None
    answer: Event | None = None

    @property
    def key(self) -> str:
        """What no other of the visit is called: code, and proof or thing where there is one; with the coil."""
        coil = f"@{self.on}" if self.on is not None else ""
        return f"{self.code}:{self.of}{coil}" if self.of else f"{self.code}{coil}"

    @property
    def answered(self) -> bool:
        """Whether somebody answered it."""
        return self.answer is not None

    @property
    def answers(self) -> tuple[Answer, ...]:
        """What can be answered to it with a tap."""
        return tuple(ANSWERS[code] for code in KINDS[self.code].answers)

    @property
    def given(self) -> Answer | None:
        """What was answered to it with a tap; None where nothing was, or in words alone."""
        return ANSWERS.get(str(self.answer.get("answer", ""))) if self.answer is not None else None

    def takes(self, answer: str) -> bool:
        """Whether an answer is one of its own."""
        return answer in KINDS[self.code].answers


def doubts(call: Call, proved: Iterable[Proved]) -> tuple[Doubt, ...]:
    """Return what should not be left so, most pressing first, each with its answer where it has one."""
    found = [
        *_release(call), *_service(call), *_defrosting(call), *_ice(call), *_opened(call), *_leak(call), *_there(call), *_box(call),
        *_unproved(call, proved), *_quoted(call),
    ]  # fmt: skip
    return tuple(_answered(call, one) for one in found)


def _release(call: Call) -> list[Doubt]:
    event = call.staged.last_seen("inside_release")
    if event is None or not call.judged.now(1).facts.is_("inside_release", "fails"):
        return []
    return [Doubt("inside_release", "", None, "The inside release fails: nobody may be shut in", event)]


def _service(call: Call) -> list[Doubt]:
    """The controller was left in service mode, or may be: a connection was lost while it was written to; and what it did not confirm."""
    last: Event | None = None
    wanted: dict[str, tuple[object, Event]] = {}
    held: dict[str, object] = {}
    for event in call.record.all_of("setting", "talked"):
        if event.kind == "setting":
            if event.data["parameter"] == SERVICE:
                last = event if str(event.get("left", "")).strip().lower() in ON else None
            continue
        settings, wrote = event.get("settings", {}), event.get("wrote", {})
        if settings:
            last = event if settings.get(SERVICE) else None
        elif wrote.get(SERVICE):
            last = event
        wanted |= {role: (value, event) for role, value in wrote.items()}
        # Where the connection was lost nothing is known of what was written then.
        held = settings or {role: value for role, value in held.items() if role not in wrote}
    words = "The controller is in service mode: nobody can take it out from here afterwards"
    found = [Doubt("service_mode", "", None, words, last)] if last is not None else []
    for role, (value, event) in wanted.items():
        if role != SERVICE and held.get(role) != value:
            label = lower(REGISTERS[role].label) if role in REGISTERS else role.replace("_", " ")
            found.append(
                Doubt("unconfirmed", role, None, f"Not confirmed: {label} was written to the controller and did not come back so", event)
            )
    return found


def _defrosting(call: Call) -> list[Doubt]:
    """The last word is a defrost, not seen to end, nor to cool again."""
    begun: Event | None = None
    for event in call.record.standing:
        if event.kind == "reading" and event.data["key"] == "control_call":
            begun = event if event.data["value"] == "in_defrost" else None
        elif (event.kind == "watched" and event.get("ended_by")) or (
            event.kind == "reading" and event.data["key"] == "compressor" and event.data["value"] == "running"
        ):
            begun = None
    words = "A defrost was running, and nobody saw it end or the box cool again"
    return [Doubt("still_defrosting", "", None, words, begun)] if begun is not None else []


def _ice(call: Call) -> list[Doubt]:
    """A coil seen with ice that counts, or melted and not all clear, and not seen bare since."""
    found = []
    for coil in call.coils:
        iced: Event | None = None
        for event in call.record.standing:
            if event.on not in (None, coil):
                continue
            iced = _iced_by(call, event, iced)
        if iced is not None:
            on = coil if call.record.several else None
            words = (
                f"Ice is left on the coil{call.record.on_words(on).replace(' on coil', '')}, and nothing says that it was seen bare since"
            )
            found.append(Doubt("ice_left", "", on, words, iced))
    return found


def _iced_by(call: Call, event: Event, before: Event | None) -> Event | None:
    """Which event leaves a coil iced after one more event; None where it is bare."""
    if event.kind == "ice":
        painted = drawn(event)
        form, _ = ice_read(call.record, event)
        if form in ICED_FORMS or (painted is not None and painted.iced):
            return event
        return None if painted is not None or form == "none" else before
    if event.kind == "reading" and event.data["key"] == "ice_form":
        return event if event.data["value"] in ICED_FORMS else None
    if event.kind == "melt" and event.get("all_clear") is not None:
        return None if event.data["all_clear"] else event
    if event.kind == "act" and (event.data["part"], event.data["did"]) == ("coil", "melted"):
        return None
    clear = (event.kind == "watched" and event.get("coil_after") == "clear") or (
        event.kind == "reading" and event.data["key"] == "coil_after_defrost" and event.data["value"] == "clear"
    )
    return None if clear else before


def _opened(call: Call) -> list[Doubt]:
    if not call.opened.open:
        return []
    return [Doubt("opened_circuit", "", None, f"The circuit was opened. Missing: {'; '.join(call.opened.missing)}", call.opened.last)]


def _leak(call: Call) -> list[Doubt]:
    """A place was named, or gas went in for a shortage and stays, and no leak is repaired or given up by name."""
    named: Event | None = None
    gas: Event | None = None
    done = {(step.event.number): done for step, done in zip(call.staged.openings, call.staged.done(1), strict=True)}
    for event in call.record.standing:
        if event.kind == "leak_look" and places_found(call.record, event):
            named = event
        elif event.kind == "reading" and event.data["key"] == "leak_test":
            named = event if event.data["value"] == "found" else None
        one = done.get(event.number)
        if one is None:
            continue
        if one.part == "leak":
            named = gas = None
        elif one.part == "charge" and one.did in ("added", "weighed_in") and not one.first_fill:
            gas = event
        elif one.part == "charge" and one.did == "recovered":
            gas = None
    if named is not None:
        return [Doubt("leak_open", "", None, "A leak was found, and is neither repaired nor left open by name", named)]
    if gas is not None and _was_short(call):
        return [Doubt("leak_open", "", None, "Gas went in for a shortage, and no leak is repaired or left open by name", gas)]
    return []


def _was_short(call: Call) -> bool:
    repaired = any(step.did.part == "leak" for step in call.staged.steps)
    return not repaired and not ("winter_charge_short" in call.causes_were and "undercharge" not in call.causes_were)


def _there(call: Call) -> list[Doubt]:
    """What was placed and is not gone, a condenser blocked on purpose, a fan delay bridged, a lock or a latch block that stays."""
    found = []
    for event, name in zip(still_there(call), names_of(still_there(call)), strict=True):
        found.append(Doubt("left_there", name, None, f"Still there: {placed_words(event)}", event))
    acts = [(step.did.code, step.event) for step in call.staged.steps if step.event.kind == "act"]
    for begun, ended, words in FOR_THE_VISIT:
        mine = [(code, event) for code, event in acts if code in (begun, *ended)]
        if mine and mine[-1][0] == begun:
            found.append(Doubt("left_there", begun, None, words, mine[-1][1]))
    facts = call.judged.now(1).facts
    for key, words in (("power_locked_out", "The power is still locked out"), ("latch_blocked", "The latch is still blocked")):
        # A latch stays blocked while its release fails.
        needed = key == "latch_blocked" and facts.is_("inside_release", "fails")
        if facts.is_(key, "yes") and not needed and call.record.last("reading", lambda e, key=key: e.data["key"] == key) is not None:  # type: ignore[misc]
            found.append(Doubt("left_there", key, None, words, call.staged.last_seen(key)))
    return found


def names_of(placed: Sequence[Event]) -> list[str]:
    """Return what placed things are called among those of one unit: by what they are, a second one by its number too."""
    names: list[str] = []
    for event in placed:
        what = str(event.data["what"])
        again = sum(one.partition(".")[0] == what for one in names)
        names.append(f"{what}.{again + 1}" if again else what)
    return names


# What is done for the visit only, what ends it, and how it is said.
FOR_THE_VISIT: Final = (
    ("evap_fan.delay_bridged", ("evap_fan.delay_set",), "The fan delay is bridged"),
    ("condenser.blocked_on_purpose", ("condenser.unblocked",), "The condenser is still blocked on purpose"),
)


def still_there(call: Call) -> list[Event]:
    """Return what was put on the unit and is not gone: events of kind `placed`, in order."""
    there: list[Event] = []
    for event in call.record.all_of("placed", "gone"):
        if event.kind == "placed":
            there.append(event)
            continue
        mine = [one for one in there if one.data["what"] == event.data["what"]]
        same = [one for one in mine if one.get("where") == event.get("where")] or mine
        if same:
            there.remove(same[-1])
    return there


def placed_words(event: Event) -> str:
    """Return what stands there in words: what, where, what no longer happens by itself, since when where an earlier call left it."""
    name = SAID.get(event.data["what"], WHAT[event.data["what"]])
    if event.data["what"] == "other" and event.get("where"):
        words = str(event.data["where"])
    else:
        words = f"{name}: {event.data['where']}" if event.get("where") else name
    since = f"since {event.data['since']}: {words[:1].lower()}{words[1:]}" if event.get("since") else words
    return f"{since}; {event.data['does_not']}" if event.get("does_not") else since


def _box(call: Call) -> list[Doubt]:
    read = any(event.kind == "reading" and event.data["key"] in ("box_temp_f", "return_air_f") for event in call.record.standing)
    return [] if read else [Doubt("box_not_read", "", None, "The box was not read with an own thermometer")]


def _unproved(call: Call, proved: Iterable[Proved]) -> list[Doubt]:
    found = []
    for one in proved:
        if one.state != proofs.PROVED:
            words = one.proof.words
            text = f"Not proved{call.record.on_words(one.on)}: {words[:1].lower()}{words[1:]}"
            found.append(Doubt("not_proved", one.code, one.on, text, one.asked_by))
    return found


def _quoted(call: Call) -> list[Doubt]:
    """What was done with parts where a quote comes first and none was accepted nor inside what may be spent; a quote that waits."""
    last = call.record.last("quote")
    found = []
    done = [step for step in call.staged.steps if step.did.act.spares]
    if call.record.quotes_first and done and not (last is not None and (last.get("accepted") or last.get("within_limit"))):
        labels = ", ".join(dict.fromkeys(step.did.act.label.lower() for step in done))
        found.append(Doubt("unasked", "", None, f"Done before a quote was accepted: {labels}", done[-1].event))
    if last is not None and last.get("waits"):
        found.append(Doubt("quote", "", None, "The quote waits for an answer", last))
    return found


def _answered(call: Call, doubt: Doubt) -> Doubt:
    """The doubt with the last answer that is of it, given since it was opened."""
    place = call.record.place
    since = place[doubt.opened_by.number] if doubt.opened_by is not None else -1
    for event in reversed(call.record.all_of("left_so", "override")):
        if place[event.number] > since and (event.get("action") == "close" if event.kind == "override" else _is_of(event, doubt)):
            return Doubt(doubt.code, doubt.of, doubt.on, doubt.text, doubt.opened_by, event)
    return doubt


def unanswered(doubts: Sequence[Doubt]) -> tuple[Doubt, ...]:
    """Return the doubts that nobody answered."""
    return tuple(one for one in doubts if not one.answered)


def reasons(doubts: Sequence[Doubt], rest: str) -> dict[str, tuple[Doubt, ...]]:
    """Return why things are left, each reason with the doubts it answers; those without an answer go by the one given."""
    found: dict[str, list[Doubt]] = {}
    for one in doubts:
        said = one.given.label if one.given is not None else str(one.answer.get("reason", rest)) if one.answer is not None else rest
        found.setdefault(said, []).append(one)
    return {why: tuple(ones) for why, ones in found.items()}


def promised(doubts: Sequence[Doubt]) -> tuple[Proposal, ...]:
    """Return what somebody comes back for by the answers, each once: only who says that he comes again has promised it."""
    return tuple(dict.fromkeys(KINDS[one.code].promises for one in doubts if one.given is not None and one.given.again))


def _is_of(event: Event, doubt: Doubt) -> bool:
    code, _, of = str(event.data["what"]).partition(":")
    if code != doubt.code:
        return False
    of, _, coil = of.partition("@")
    mine = event.on if event.on is not None else int(coil) if coil.isdigit() else None
    return of in ("", doubt.of) and (mine is None or mine == doubt.on)
