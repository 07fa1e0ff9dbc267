"""What is still there or open when a visit ends, and how each of it can be answered with one tap."""

from collections.abc import Mapping, Sequence
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


@dataclass(frozen=True)
class Doubt:
    """Something that should not be left so: a key no other of the visit has ("not_proved:air"), its kind, and words."""

    key: str
    kind: str
    words: str

    @property
    def answers(self) -> tuple[Answer, ...]:
        """What can be answered to it."""
        return tuple(ANSWERS[code] for code in KINDS[self.kind].answers)

    def takes(self, answer: str) -> bool:
        """Whether an answer is one of its own."""
        return answer in KINDS[self.kind].answers


def unanswered(doubts: Sequence[Doubt], answered: Mapping[str, str]) -> tuple[Doubt, ...]:
    """Return the doubts that have no answer of their own; `answered` maps keys to codes."""
    return tuple(one for one in doubts if not one.takes(answered.get(one.key, "")))


def reasons(doubts: Sequence[Doubt], answered: Mapping[str, str], rest: str) -> dict[str, tuple[Doubt, ...]]:
    """Return why things are left, each reason with the doubts it answers; those without an answer of their own go by the one given."""
    found: dict[str, list[Doubt]] = {}
    open_ones = unanswered(doubts, answered)
    for one in doubts:
        found.setdefault(rest if one in open_ones else ANSWERS[answered[one.key]].label, []).append(one)
    return {why: tuple(ones) for why, ones in found.items()}


def promised(doubts: Sequence[Doubt], answered: Mapping[str, str]) -> tuple[Proposal, ...]:
    """Return what somebody comes back for by the answers, each once; what is not proved is always come back for."""
    open_ones = unanswered(doubts, answered)
    found = [
        KINDS[one.kind].promises
        for one in doubts
        if one.kind == "not_proved" or (one not in open_ones and ANSWERS[answered[one.key]].again)
    ]
    return tuple(dict.fromkeys(found))
