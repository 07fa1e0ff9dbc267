"""How each thing that is still there or open when a visit ends can be answered with one tap, and what is promised by it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from kettle.benches.prove.promised import (
    CONTROLLER,
    DEFROSTING,
    ICE_LEFT,
    LEAK_OPEN,
    NOT_PROVED,
    OPENED,
    QUOTE,
    RELEASE,
    TEMPORARY,
    Proposal,
)


@dataclass(frozen=True)
class Answer:
    """An answer: what its button says, and whether it promises to come back."""

    code: str
    label: str
    again: bool = False


AGAIN: Final = Answer("again", "I come back for it", again=True)
ANSWERS: Final[Mapping[str, Answer]] = {one.code: one for one in (
    AGAIN,
    Answer("knows", "The customer knows and agrees"),
    Answer("watches", "The customer watches it and calls"),
    Answer("no_wait", "The customer would not wait for it"),
    Answer("purpose", "Left so on purpose"),
    Answer("display", "Read right on its own display"),
    Answer("needed", "Needed until it is put right"),
    Answer("word", "Agreed by word of mouth"),
    Answer("later", "They answer later, I ask again", again=True),
)}  # fmt: skip


@dataclass(frozen=True)
class Kind:
    """A kind of thing left: the answers it can have, and what is promised where somebody comes back for it."""

    answers: tuple[str, ...]
    promises: Proposal


KINDS: Final[Mapping[str, Kind]] = {
    "inside_release": Kind(("knows", "again"), RELEASE),
    "service_mode": Kind(("again", "knows"), CONTROLLER),
    "unconfirmed": Kind(("display", "again"), CONTROLLER),
    "still_defrosting": Kind(("watches", "again", "purpose"), DEFROSTING),
    "ice_left": Kind(("again", "purpose", "watches"), ICE_LEFT),
    "opened_circuit": Kind(("again", "knows"), OPENED),
    "leak_open": Kind(("knows", "again"), LEAK_OPEN),
    "left_there": Kind(("needed", "again", "knows", "purpose"), TEMPORARY),
    "box_not_read": Kind(("again", "watches", "no_wait"), NOT_PROVED),
    "not_proved": Kind(("again", "watches", "no_wait"), NOT_PROVED),
    "quote": Kind(("later", "knows"), QUOTE),
    "unasked": Kind(("word", "knows"), QUOTE),
}
