"""The write-up of a call: the sentences of its events in the order of work, what says one thing together, and what follows from all."""

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import Final

from kettle.benches.prove import proofs
from kettle.benches.prove.promised import COLD_CHARGE, COLD_DAY_F
from kettle.call.asks import Doubt
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.proves import Proved
from kettle.call.says import AS_LEFT, SECTIONS, WORDS_LEFT, Sentence, cause_label
from kettle.call.words import lower

Says = Callable[[Event], Iterable[Sentence]]
# The order of what is found: why they called, box and ice, what was wrong, figures, meter, what was right, the cause.
_FOUND: Final = (
    "told",
    "safety",
    "promise",
    "reading",
    "ice",
    "program",
    "word",
    "leak",
    "verdict",
    "measured",
    "setting",
    "note",
    "right",
    "cause",
)
_LEFT: Final = ("figure", "proof", "proved", "measured", "word", "ice", "not_proved", "left_there", "override", "left_so")
# Done with parts that are due for more: what is advised for it.
_ADVISED: Final = (
    ("valve.exercised", ("valve.replaced", "valve.element_replaced"), "The valve works for now and sticks again: it is due to be replaced"),
    ("evap_fan.delay_bridged", ("evap_fan.delay_set",), "The fan delay is bridged for now: it has to be set or replaced"),
    ("wiring.output_moved", ("wiring.put_right",), "The output was moved for now: the controller has to be put right"),
    ("compressor.rested", ("compressor.replaced",), "Why the compressor ran hot has to be found: it trips again"),
)  # fmt: skip
_BY_CAUSE: Final = {
    "door_infiltration": "Keep the door shut while nobody goes through: as long as it stands open the ice comes back",
    "condenser_dirty": "Have the condenser cleaned twice a year",
}  # fmt: skip
RIGHT: Final = "Found right"
AS_LEFT_WORDS: Final = "As left"


def written(call: Call, says: Says, proved: Iterable[Proved], doubts: Iterable[Doubt]) -> tuple[Sentence, ...]:
    """Return the sentences of a call's write-up, by section, nothing twice."""
    told = [sentence for event in call.record.standing for sentence in says(event)]
    told = [*_together(told), *_cause(call), *_proofs(call, proved), *_advice(call, told)]
    return tuple(sorted(_once(told), key=_order))


def _order(sentence: Sentence) -> tuple[int, int]:
    kinds = {"found": _FOUND, "left": _LEFT}.get(sentence.section, ())
    place = kinds.index(sentence.kind) if sentence.kind in kinds else len(kinds)
    return list(SECTIONS).index(sentence.section), place


def _joined(sentences: list[Sentence], head: str, glue: str = "; ") -> Sentence:
    words = glue.join(lower(one.text.rstrip(".")) for one in sentences)
    events = tuple(dict.fromkeys(event for one in sentences for event in one.events))
    return replace(sentences[0], text=f"{head}: {words}.", events=events)


def _together(told: list[Sentence]) -> list[Sentence]:
    """What was found right is one sentence, and so are the figures as left."""
    right = [one for one in told if one.kind == "right"]
    figures = sorted((one for one in told if one.section == "left" and one.kind == "figure"), key=_figure_order)
    rest = [one for one in told if one not in right and one not in figures]
    made = [_joined(right, RIGHT)] if right else []
    return [*rest, *made, *([_joined(figures, AS_LEFT_WORDS)] if figures else [])]


def _figure_order(sentence: Sentence) -> int:
    key = str(sentence.events[0].get("key", ""))
    order = [*AS_LEFT, *WORDS_LEFT]
    key = {"suction_line_evap_f": "superheat_evap_f", "liquid_line_f": "subcooling_f"}.get(key, key)
    return order.index(key) if key in order else len(order)


def _once(told: list[Sentence]) -> list[Sentence]:
    """Sentences that say the same become one with all their events."""
    kept: dict[tuple[str, str], Sentence] = {}
    for one in told:
        before = kept.get((one.section, one.text))
        kept[one.section, one.text] = one if before is None else replace(before, events=(*before.events, *one.events))
    return list(kept.values())


def _cause(call: Call) -> list[Sentence]:
    """What it comes to, where the technician did not name it himself."""
    if call.named or not call.causes_were or not call.staged.steps:
        return []
    labels = " and ".join(lower(cause_label(call, code)) for code in call.causes_were)
    return [Sentence("found", f"It comes to: {labels}.", (), "cause", ("was",))]


def _proofs(call: Call, proved: Iterable[Proved]) -> list[Sentence]:
    """What was shown to hold, in one sentence, and what was not, each with what stands against it."""
    if not call.staged.steps:
        return []
    every = list(proved)
    good = [one for one in every if one.state == proofs.PROVED]
    found = []
    if good:
        words = [f"{lower(one.proof.kind.label)}{call.record.on_words(one.on)}" for one in good]
        found.append(Sentence("left", f"Proved: {'; '.join(words)}.", (), "proved", tuple(f"proof:{one.code}" for one in good)))
    for one in every:
        if one.state != proofs.PROVED:
            label = f"{lower(one.proof.kind.label)}{call.record.on_words(one.on)}"
            says = f", {one.proof.says}" if one.proof.says else ""
            found.append(Sentence("left", f"Not proved: {label}{says}.", (), "not_proved", (f"proof:{one.code}",)))
    return found


def _advice(call: Call, told: list[Sentence]) -> list[Sentence]:
    """What follows for the days to come, beside what was promised."""
    done = {step.did.code for step in call.staged.steps}
    found = [
        Sentence("advice", f"{words}.", (), "advice", (f"advice:{code}",))
        for code, ended, words in _ADVISED
        if code in done and not done & set(ended)
    ]
    found += [
        Sentence("advice", f"{words}.", (), "advice", (f"advice:{code}",)) for code, words in _BY_CAUSE.items() if code in call.causes_were
    ]
    facts = call.judged.now(1).facts
    if facts.is_("inside_release", "fails"):
        found.append(
            Sentence(
                "advice",
                "The inside release has to be repaired before anybody goes in with the door shut.",
                (),
                "advice",
                ("advice:release",),
            )
        )
    ambient = facts.number("ambient_f")
    gas = done & {"charge.added", "charge.weighed_in"}
    if gas and call.record.unit.receiver and ambient is not None and ambient < COLD_DAY_F:
        warm = call.shown.text(COLD_DAY_F, "°F", 0)
        promised = any("charge" in str(event.data["what"]) for event in call.record.all_of("promise"))
        if not promised:
            found.append(
                Sentence("advice", f"Charged in the cold: {lower(COLD_CHARGE.what)} above {warm}.", (), "advice", ("advice:cold_charge",))
            )
    return found
