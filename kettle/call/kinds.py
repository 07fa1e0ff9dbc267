"""The table of kinds of event: each is one entry, and answers whoever asks.

**hears**: what the judgement gets from it. **says**: its sentences in the write-up. **proves**: which proofs it fills or overturns.
**asks**: which closing questions it opens or ends. **customer**: which part of the customer's page tells of it. **draws**: where it stands
on the drawings. Where a kind is silent the table says so with a reason.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Final

from kettle.call import carries, hears, proves, says
from kettle.call.call import Call
from kettle.call.events import Event, Heard
from kettle.call.proves import Fills
from kettle.call.record import Record
from kettle.call.says import Sentence
from kettle.knowledge import anatomy

Hears = Callable[[Record, Event], Iterable[Heard]]
Says = Callable[[Call, Event], Iterable[Sentence]]
# Drawings an event can stand on.
PICTURE, WIRING, FACE, DIAL, TIMELINE = "picture", "wiring", "coil face", "dial", "timeline"
# Parts of the customer's page.
CUSTOMER: Final = ("found", "done", "now", "you", "we")


@dataclass(frozen=True)
class Silent:
    """A kind that says nothing to a question, and why."""

    reason: str


@dataclass(frozen=True)
class Asks:
    """The codes of leaving that a kind can open, and those it can end."""

    opens: tuple[str, ...] = ()
    ends: tuple[str, ...] = ()


@dataclass(frozen=True)
class Tells:
    """The parts of the customer's page that tell of a kind."""

    parts: tuple[str, ...]


@dataclass(frozen=True)
class Draws:
    """Where a kind stands: the drawing, and the part of the unit there (empty: it has a place of its own by what it carries)."""

    on: str
    part: str = ""

    def place(self, event: Event) -> str:
        """Return the part of the unit that an event stands on."""
        if self.part:
            return self.part
        if event.kind == "reading":
            return anatomy.part_of(event.data["key"]).code
        return str(event.get("part") or event.get("one") or "")


@dataclass(frozen=True)
class Kind:
    """One kind of event: its code, what it is called, what it carries, and its answers."""

    code: str
    label: str
    carries: type[carries.Carried]
    hears: Hears | Silent
    says: Says | Silent
    proves: Fills | Silent
    asks: Asks | Silent
    customer: Tells | Silent
    draws: Draws | Silent


_NO_PROOF: Final = Silent("shows nothing of how the repair holds")
_NOTHING_LEFT: Final = Silent("leaves nothing that somebody has to answer for")
_NOT_THEIRS: Final = Silent("means nothing to whoever pays")
_FOUND_THERE: Final = Tells(("found",))

# fmt: off
_ALL: Final = (
    Kind("reading", "Reading", carries.Reading, hears.reading, says.reading, proves.reading,
         Asks(("inside_release", "still_defrosting", "ice_left", "leak_open", "left_there"),
              ("still_defrosting", "ice_left", "box_not_read", "leak_open", "left_there", "inside_release")),
         Tells(("found", "now", "you")), Draws(PICTURE)),
    Kind("measured", "Measurement", carries.Measured, hears.measured, says.measured, proves.measured,
         Silent("a measurement leaves nothing on the unit; what was clipped on is placed"), _FOUND_THERE, Draws(WIRING)),
    Kind("looked", "Seen", carries.Looked, hears.looked, says.looked, _NO_PROOF, _NOTHING_LEFT, _FOUND_THERE, Draws(PICTURE)),
    Kind("ice", "Ice", carries.Ice, hears.ice_drawn, says.ice, proves.ice, Asks(("ice_left",), ("ice_left",)), Tells(("found", "now")),
         Draws(FACE, "coil")),
    Kind("melt", "Melt", carries.Melt, hears.melt, says.melt, proves.melt, Asks(("ice_left",), ("ice_left",)), Tells(("done", "now")),
         Draws(PICTURE, "coil")),
    Kind("act", "Done", carries.Act, hears.act, says.act,
         Silent("asks for proofs and is none itself"),
         Asks(("opened_circuit", "leak_open", "left_there", "not_proved"), ("leak_open", "left_there")), Tells(("done",)), Draws(PICTURE)),
    Kind("program", "Defrost program", carries.Program, hears.program, says.program, Silent("asks for a defrost watched and is none"),
         Asks(("not_proved",)), Tells(("done",)), Draws(DIAL, "program")),
    Kind("setting", "Setting", carries.Setting, hears.setting, says.setting, Silent("asks for cycles watched and is none"),
         Asks(("not_proved", "service_mode"), ("service_mode",)), Tells(("done",)), Draws(PICTURE, "parameters")),
    Kind("watched", "Defrost watched", carries.Watched, hears.watched, says.watched, proves.watched,
         Asks((), ("still_defrosting", "ice_left")), Silent("that a defrost was watched shows in how it is now"),
         Draws(TIMELINE, "program")),
    Kind("cycle", "Cycle watched", carries.Cycle, hears.cycle, says.cycle, proves.cycle, _NOTHING_LEFT,
         Silent("that cycles were watched shows in how it is now"), Draws(TIMELINE, "pressure_control")),
    Kind("leak_look", "Leak search", carries.LeakLook, hears.leak_look, says.leak_look, proves.leak_look, Asks(("leak_open",)),
         Tells(("now", "you")), Draws(PICTURE, "leak")),
    Kind("nitrogen", "Nitrogen", carries.Nitrogen, hears.nitrogen_test, says.nitrogen, proves.nitrogen, Asks((), ("opened_circuit",)),
         Silent("a test of the trade; a leak it shows is told by the cause"), Draws(TIMELINE, "leak")),
    Kind("vacuum", "Vacuum", carries.Vacuum, hears.vacuum, says.vacuum,
         Silent("it closes an opened circuit; how the unit runs then is proved by running it"), Asks((), ("opened_circuit",)), _NOT_THEIRS,
         Draws(TIMELINE, "charge")),
    Kind("weighed", "Gas by the scale", carries.Weighed, hears.weighed, says.weighed, Silent("asks for glass and superheat and is none"),
         Asks(("opened_circuit", "leak_open", "not_proved")), Tells(("done",)), Draws(PICTURE, "charge")),
    Kind("step", "Step of a change", carries.Step, Silent("how a change was made; the part changed is an act of its own"), says.step,
         _NO_PROOF, _NOTHING_LEFT, Silent("the work behind what is told as done"), Draws(TIMELINE)),
    Kind("first_start", "First start", carries.FirstStart, hears.first_start, says.first_start, proves.first_start, _NOTHING_LEFT,
         Silent("that it runs shows in how it is now"), Draws(TIMELINE, "compressor")),
    Kind("wires", "Wires of the start gear", carries.Wires, Silent("where wires lay is no sign of what failed"), says.wires, _NO_PROOF,
         _NOTHING_LEFT, _NOT_THEIRS, Draws(WIRING, "start_parts")),
    Kind("retrofit", "Another refrigerant", carries.Retrofit,
         Silent("it changes the unit every figure is worked out for, and removes no cause"), says.retrofit,
         _NO_PROOF, _NOTHING_LEFT, Tells(("done",)), Draws(PICTURE, "charge")),
    Kind("placed", "Placed", carries.Placed, hears.placed, says.placed, _NO_PROOF, Asks(("left_there", "not_proved")),
         Tells(("now", "done")), Draws(PICTURE, "wiring")),
    Kind("gone", "Taken away", carries.Gone, hears.gone, Silent("told with what was placed"), _NO_PROOF, Asks((), ("left_there",)),
         Silent("told with what was placed"), Draws(PICTURE, "wiring")),
    Kind("found", "What it is", carries.Found, hears.found, says.found, _NO_PROOF, _NOTHING_LEFT, _FOUND_THERE, Draws(TIMELINE)),
    Kind("override", "Against a hold", carries.Override, Silent("a decision; it lifts what a hold blocks and is no sign"), says.override,
         _NO_PROOF, _NOTHING_LEFT, _NOT_THEIRS, Draws(TIMELINE)),
    Kind("seen", "Proof tapped", carries.Seen, Silent("a word about the repair, not an observation of its own"),
         Silent("told with its proof"), proves.seen, Asks((), ("not_proved",)), Silent("shows in how it is now"), Draws(TIMELINE)),
    Kind("sibling", "Another box", carries.Sibling, hears.sibling, says.sibling, _NO_PROOF, _NOTHING_LEFT,
         Silent("another box has a call of its own"), Draws(PICTURE, "box")),
    Kind("decided", "Decided", carries.Decided, Silent("a decision of the customer is no sign"), says.decided, _NO_PROOF, _NOTHING_LEFT,
         Tells(("you",)), Draws(TIMELINE)),
    Kind("left_so", "Left so", carries.LeftSo, Silent("an answer about leaving is no sign"), says.left_so, _NO_PROOF,
         Asks((), ("inside_release", "ice_left", "still_defrosting", "box_not_read", "left_there", "opened_circuit", "leak_open",
                   "service_mode", "not_proved", "quote", "unasked", "unconfirmed")),
         Silent("what stays open is told, not what was answered to it"), Draws(TIMELINE)),
    Kind("visit", "Later visit", carries.Visit, Silent("a day's change is no sign"), says.visit, _NO_PROOF, _NOTHING_LEFT, _NOT_THEIRS,
         Draws(TIMELINE)),
    Kind("kept", "Promise kept", carries.Kept, Silent("told as it was found; what shows there is read anew"), says.kept, _NO_PROOF,
         _NOTHING_LEFT, Tells(("we",)), Draws(TIMELINE)),
    Kind("promise", "Promise", carries.Promise, Silent("what is to come is no sign"), says.promise, _NO_PROOF, _NOTHING_LEFT,
         Tells(("we",)), Draws(TIMELINE)),
    Kind("used", "Part used", carries.Used, Silent("what it was used for is an act of its own"), says.used, _NO_PROOF, _NOTHING_LEFT,
         Silent("stands on the quote and the bill"), Draws(TIMELINE)),
    Kind("note", "Note", carries.Note, Silent("words that nothing else takes are kept, and never judged"), says.note, _NO_PROOF,
         _NOTHING_LEFT, Silent("written for the next technician"), Draws(PICTURE)),
    Kind("spot", "Temperature of a part", carries.Spot,
         Silent("how warm a part is has no band of its own; what it says of the part is looked at or measured"), says.spot, _NO_PROOF,
         _NOTHING_LEFT, _NOT_THEIRS, Draws(PICTURE)),
    Kind("photo", "Photo", carries.Photo, Silent("nobody reads pictures here"), Silent("stands in the report as a picture"), _NO_PROOF,
         _NOTHING_LEFT, Silent("stands on the page as a picture"), Draws(PICTURE)),
    Kind("trend", "Log over time", carries.Trend, Silent("what it shows is taken over as readings by whoever looks at it"),
         Silent("stands in the report as a chart"), _NO_PROOF, _NOTHING_LEFT, _NOT_THEIRS, Draws(TIMELINE)),
    Kind("time", "Time", carries.Time, Silent("when somebody came is no sign"), Silent("stands in the table of times"), _NO_PROOF,
         _NOTHING_LEFT, Silent("stands on the bill"), Draws(TIMELINE)),
    Kind("quote", "Quote", carries.Quote, Silent("what is offered is no sign"), Silent("stands in the report as a table"), _NO_PROOF,
         Asks(("quote", "unasked"), ("quote",)), Silent("stands on the page as a table"), Draws(TIMELINE)),
    Kind("talked", "Controller", carries.Talked, Silent("what is set is told as settings and program; what it shows as readings"),
         says.talked, _NO_PROOF,
         Asks(("service_mode", "unconfirmed"), ("service_mode", "unconfirmed")), _NOT_THEIRS,
         Draws(TIMELINE, "control")),
)
# fmt: on
KINDS: Final[dict[str, Kind]] = {kind.code: kind for kind in _ALL}


def heard(record: Record) -> tuple[tuple[Event, tuple[Heard, ...]], ...]:
    """Return what the judgement hears of each standing event, in order."""
    found = []
    for event in record.standing:
        ears = KINDS[event.kind].hears
        found.append((event, () if isinstance(ears, Silent) else tuple(ears(record, event))))
    return tuple(found)


def said(call: Call, event: Event) -> Iterable[Sentence]:
    """Return the sentences of an event."""
    words = KINDS[event.kind].says
    return () if isinstance(words, Silent) else words(call, event)


def fills(event: Event) -> Fills | None:
    """Return how an event fills proofs; None where it fills none."""
    found = KINDS[event.kind].proves
    return None if isinstance(found, Silent) else found
