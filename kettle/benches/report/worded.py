"""The sentences of a write-up as they stand: drafted from the record, and worded by whoever likes.

What somebody made of a sentence is kept by the records it was written from; it is never overwritten, and marked where they say something
else.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from hashlib import sha256
from typing import Final

SECTIONS: Final = {"found": "What was found", "done": "What was done", "left": "How it was left", "advice": "Advice"}
LONGEST_KEY: Final = 280


@dataclass(frozen=True)
class Clause:
    """One sentence of a section, and the references of the records it was written from."""

    section: str
    text: str
    refs: tuple[str, ...]

    @property
    def key(self) -> str:
        """What it is known by when somebody words it otherwise."""
        told = f"{self.section}:{'+'.join(self.refs)}"
        # One of very many records is known by the first and a sum of all.
        return told if len(told) <= LONGEST_KEY else f"{self.section}:{self.refs[0]}+{sha256(told.encode()).hexdigest()[:16]}"


@dataclass(frozen=True)
class Shown:
    """A sentence as it stands in the write-up: the words, whether somebody worded it, what the record says now where that is otherwise.

    `gone` marks one whose records are not there any more; `left_out` one that somebody took out.
    """

    section: str
    key: str
    text: str
    refs: tuple[str, ...]
    own: bool = False
    now_says: str = ""
    gone: bool = False
    left_out: bool = False


def shown(clauses: Sequence[Clause], worded: Mapping[str, tuple[str, str, str]]) -> list[Shown]:
    """Return sentences as they stand: `worded` maps a sentence's key to (section, what was drafted then, what somebody made of it).

    What somebody worded stands; where the record says something else by now it is marked, never overwritten. No words leave it out.
    """
    found, keys = [], set()
    for clause in clauses:
        keys.add(clause.key)
        if clause.key not in worded:
            found.append(Shown(clause.section, clause.key, clause.text, clause.refs))
            continue
        _, drafted, text = worded[clause.key]
        changed = clause.text if clause.text != drafted else ""
        found.append(Shown(clause.section, clause.key, text or clause.text, clause.refs, True, changed, False, not text))
    for key, (section, _, text) in worded.items():
        if key not in keys and text:
            found.append(Shown(section, key, text, tuple(key.partition(":")[2].split("+")), True, "", True))
    order = list(SECTIONS)
    return sorted(found, key=lambda one: order.index(one.section))


def words_of(sentences: Sequence[Shown], section: str) -> str:
    """Return a section as running text, what was left out not in it."""
    return " ".join(one.text for one in sentences if one.section == section and not one.left_out)
