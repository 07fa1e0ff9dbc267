"""What a meter showed, and what parts look like."""

from typing import Final

from kettle.call.call import LEFT, Call
from kettle.call.events import Event
from kettle.call.hears import (
    figure,
)
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.words import listed, plain
from kettle.electrical.circuit import STATES
from kettle.knowledge import anatomy, looks
from kettle.knowledge.measures import format_number, ohms_text

MOST_MEASURED: Final = 16


def measured(call: Call, event: Event) -> list[Sentence]:
    """What a meter showed, by the state it was in; amps of the compressor's legs together."""
    phase = call.phase(event)
    if event.data["what"] == "amps" and event.data["one"].startswith("lead_") and phase == LEFT:
        return _legs(call, event)
    state = event.get("state", "calling")
    run = [
        one
        for one in call.record.all_of("measured")
        if one.get("state", "calling") == state and call.phase(one) == phase and not _is_leg(one)
    ]
    if not run or run[0] is not event:
        return []
    last: dict[tuple[str, frozenset[str]], Event] = {}
    for one in run:
        last.pop((one.data["what"], frozenset((one.data["one"], one.get("other", "")))), None)
        last[one.data["what"], frozenset((one.data["one"], one.get("other", "")))] = one
    shown = list(last.values())[-MOST_MEASURED:]
    words = "; ".join(measured_words(call, one) for one in shown)
    section = "left" if phase == LEFT and call.staged.steps else "found"
    return [sentence(section, f"measured, {STATES[state]}: {words}", run, "measured")]


def _is_leg(event: Event) -> bool:
    return bool(event.data["what"] == "amps" and event.data["one"].startswith("lead_"))


def _legs(call: Call, event: Event) -> list[Sentence]:
    last = {one.data["one"]: one for one in call.record.all_of("measured") if _is_leg(one) and call.phase(one) == LEFT}
    legs = [last[key] for key in sorted(last)]
    if min(legs, key=lambda one: call.record.place[one.number]) is not event:
        return []
    figures = listed([f"{format_number(figure(one))} A" for one in legs])
    return [sentence("left", f"compressor draws {figures}" + (" on its legs" if len(legs) > 1 else ""), legs, "figure")]


UNITS: Final = {"volts": "V", "amps": "A", "microfarads": "µF"}


def measured_figure(event: Event) -> str:
    """Return what a meter showed with its unit: 0.30 Ω is not 0 Ω, and OL is a reading."""
    if event.data["value"] == "OL":
        return "OL"
    value = float(event.data["value"])
    if event.data["what"] == "ohms":
        return ohms_text(value)
    return f"{plain(value)} {UNITS[event.data['what']]}"


def measured_words(call: Call, event: Event) -> str:
    """Return a measurement in words: what, and between which points, by name."""
    circuit, one, other = call.record.circuit, str(event.data["one"]), str(event.get("other", ""))
    labels = {point.key: point.label for point in circuit.points} | {part.key: part.label.lower() for part in circuit.parts}
    value = measured_figure(event)
    if not other:
        label = labels.get(one, one)
        return f"{value} at {'' if label[-1:].isdigit() else 'the '}{label}"
    return f"{value} {one} to {other} ({labels.get(one, one)} to {labels.get(other, other)})"


def looked(call: Call, event: Event) -> list[Sentence]:
    """A part as it was seen."""
    section = "left" if call.phase(event) == LEFT and call.staged.steps else "found"
    return [sentence(section, looked_words(call, event), (event,), "word")]


def looked_words(call: Call, event: Event) -> str:
    """How a part looked, with what was noted of it."""
    note = f" ({event.data['note']})" if event.get("note") else ""
    return f"{looks.get(event.data['part'], event.data['state']).label}{call.record.on_words(event.on)}{note}"


def spot(call: Call, event: Event) -> list[Sentence]:
    """How warm a part was."""
    section = "left" if call.phase(event) == LEFT and call.staged.steps else "found"
    return [sentence(section, f"{spot_words(call, event)}", (event,), "word")]


def spot_words(call: Call, event: Event) -> str:
    """A part's temperature and what it was read with."""
    by = "camera" if event.get("by") == "camera" else "thermometer"
    return f"{anatomy.get(event.data['part']).label} {call.shown.text(event.data['temp_f'], '°F')} by {by}{call.record.on_words(event.on)}"
