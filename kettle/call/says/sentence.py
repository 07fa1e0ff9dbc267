"""One sentence of the write-up, and how it is made."""

from collections.abc import Iterable
from dataclasses import dataclass

from kettle.call.events import Event


@dataclass(frozen=True)
class Sentence:
    """One sentence of the write-up: its section, its text, the events it was written from, and what kind of thing it tells.

    `follows` names what it follows from where it is of no event by itself.
    """

    section: str
    text: str
    events: tuple[Event, ...]
    kind: str = ""
    follows: tuple[str, ...] = ()

    @property
    def refs(self) -> tuple[str, ...]:
        """The references of the records it was written from."""
        return tuple(dict.fromkeys((*(event.ref or f"event:{event.number}" for event in self.events), *self.follows)))


def sentence(section: str, text: str, events: Iterable[Event], kind: str = "") -> Sentence:
    """Return a sentence of a section from its words: begun with a capital, ended with a full stop."""
    text = text.strip().rstrip(".")
    return Sentence(section, f"{text[:1].upper()}{text[1:]}.", tuple(events), kind)
