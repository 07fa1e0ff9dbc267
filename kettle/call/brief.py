"""An event of a call in one line, as a list of everything taken shows it: by itself, not as the write-up tells several together."""

from collections.abc import Callable, Mapping
from typing import Final

from kettle.benches.prove.leaving import ANSWERS
from kettle.benches.prove.proofs import KINDS as PROOFS
from kettle.benches.refrigerant.change import step_of
from kettle.benches.report.times import MARKS
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.says.meter import looked_words, measured_words, spot_words
from kettle.call.words import lower, plain
from kettle.judging.holds import ACTIONS
from kettle.knowledge import anatomy, causes
from kettle.knowledge.measures import long_words

# What is drawn, long, or only of use elsewhere is not told in a line.
NOT_IN_A_LINE: Final = ("map", "wires", "starts", "marks", "texts", "holds", "face_ft2", "file", "typed", "code", "of", "side", "which")


def _step(call: Call, event: Event) -> str:
    known = step_of(event.data["of"], event.data["step"])
    return lower(known.does) if known else str(event.data["step"])


def _left_so(call: Call, event: Event) -> str:
    what = str(event.data["what"]).replace(":", ", ").replace("_", " ")
    answer = ANSWERS[event.data["answer"]].label if event.get("answer") else event.get("reason", "")
    return f"{what} – {lower(str(answer))}"


def _override(call: Call, event: Event) -> str:
    what = ACTIONS.get(event.get("action", ""), "left so" if event.get("action") == "close" else "went on")
    return f"{lower(what)}, because {lower(str(event.data['reason']))}"


def _melt(call: Call, event: Event) -> str:
    minutes = f", {long_words(float(event.data['minutes']))}" if event.get("minutes") else ""
    clear = {True: ", all clear", False: ", ice left"}.get(event.get("all_clear"), "")
    return f"{str(event.get('method', 'melted')).replace('_', ' ')}{minutes}{clear}"


def _sibling(call: Call, event: Event) -> str:
    return f"{event.data['name']} {'fine' if event.data['state'] == 'ok' else 'bad too'}"


def _ice(call: Call, event: Event) -> str:
    return {"before": "drawn as found", "after": "drawn after the melt"}.get(str(event.get("side")), "drawn")


def _note(call: Call, event: Event) -> str:
    part = f"{anatomy.get(event.data['part']).label}: " if event.get("part") else ""
    return f"{part}{event.data['text']}"


LINES: Final[Mapping[str, Callable[[Call, Event], str]]] = {
    "measured": measured_words, "looked": looked_words, "spot": spot_words, "note": _note,
    "step": _step, "left_so": _left_so, "override": _override, "melt": _melt, "sibling": _sibling, "ice": _ice,
    "time": lambda call, event: MARKS.get(event.data["what"], str(event.data["what"])),
    "seen": lambda call, event: PROOFS[event.data["proof"]].label,
    "found": lambda call, event: ", ".join(causes.get(code).label for code in event.data["causes"]),
    "program": lambda call, event: f"as {event.data['side']}, {len(event.get('starts', ()))} a day",
    "wires": lambda call, event: f"{len(event.get('wires', ()))} wires as {'found' if event.data['which'] == 'found' else 'run'}",
}  # fmt: skip


def brief(call: Call, event: Event) -> str:
    """Return an event's own figures and words in one line."""
    if event.kind in LINES:
        return LINES[event.kind](call, event)
    return ", ".join(filter(None, (_value(name, value) for name, value in event.data.items() if name not in NOT_IN_A_LINE)))


def _value(name: str, value: object) -> str:
    if isinstance(value, bool):
        return name.replace("_", " ") if value else ""
    if isinstance(value, int | float):
        label, _, unit = name.rpartition("_")
        return f"{label.replace('_', ' ')} {plain(float(value))} {unit}".strip() if label else f"{name} {plain(float(value))}"
    return value.replace("_", " ") if isinstance(value, str) else ""
