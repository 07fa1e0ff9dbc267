"""What waits to be put right: what was seen to be there, and what is settled well enough to be done rather than asked about."""

from dataclasses import dataclass
from typing import Final

from kettle.call.judged import Judged
from kettle.judging.suspects import Suspect, remedies
from kettle.knowledge import causes
from kettle.knowledge.causes.model import Cause

# Settled so far nothing more is asked of it: it is put right, and its proof is the next look.
SETTLED: Final = 0.9
# A cause that was seen waits to be put right as long as it is likelier there than not.
STILL_THERE: Final = 0.5


@dataclass(frozen=True)
class Cure:
    """A cause that was seen, and how it is put right, the first step first."""

    cause: Cause
    steps: tuple[str, ...]


def seen_there(judged: Judged, coil: int = 1) -> tuple[Cure, ...]:
    """Return what was seen to be there on a coil and was not put right since, in the order of the catalogue."""
    course = judged.course(coil)
    left = judged.left_by_cause(coil)
    there = [code for code in causes.CATALOGUE if code in course.now.given and left.get(code, 0.0) >= STILL_THERE]
    return tuple(_cure(judged, coil, code) for code in there)


def settled(judged: Judged, coil: int = 1) -> Suspect | None:
    """Return what is left of a coil where it is settled and nothing was done against it yet; None where more is to be asked or proved."""
    first = judged.course(coil).left[0] if judged.course(coil).left else None
    if first is None or not first.codes or first.probability < SETTLED or first.to_prove:
        return None
    return first.suspect


def _cure(judged: Judged, coil: int, code: str) -> Cure:
    cause = causes.get(code)
    return Cure(cause, remedies(Suspect((cause,), 1.0, (), ()), judged.now(coil).facts.seen))
