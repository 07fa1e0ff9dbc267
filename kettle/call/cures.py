"""What waits to be put right: what was seen to be there, and what is settled well enough to be done rather than asked about."""

from typing import Final

from kettle.call.judged import Judged
from kettle.call.turns import NO_MORE_TURNS, without_answer
from kettle.judging.checks import SETTLED
from kettle.judging.suspects import Suspect
from kettle.knowledge import causes
from kettle.knowledge.causes.model import Cause

# A cause that was seen waits to be put right as long as it is likelier there than not.
STILL_THERE: Final = 0.5
# What a valve without an answer is tried by before it is changed, in order, and the act each is (field practice).
STUCK: Final = (
    ("valve.exercised", "Run it to both stops without force and back: an answer now means dirt, wax or ice inside, and a new valve soon"),
    ("valve.strainer_cleaned", "Its strainer"),
    ("valve.element_replaced", "Its power element"),
)
# What the stem of a valve would answer to.
STEM: Final = ("txv_underfeeding", "txv_overfeeding")


def seen_there(judged: Judged, coil: int = 1) -> tuple[Cause, ...]:
    """Return what was seen to be there on a coil and was not put right since, in the order of the catalogue."""
    left = judged.left_by_cause(coil)
    given = judged.course(coil).now.given
    return tuple(cause for code, cause in causes.CATALOGUE.items() if code in given and left.get(code, 0.0) >= STILL_THERE)


def settled(judged: Judged, coil: int = 1) -> Suspect | None:
    """Return what is left of a coil where it is settled and nothing was done against it yet; None where more is to be asked or proved."""
    course = judged.course(coil)
    left = course.left
    if any(not check.gain_bits for check in course.now.next_checks):
        # Something has to be known before anything is put right: the weather, or which of several remedies it wants.
        return None
    if not left or not left[0].codes or left[0].probability < SETTLED or left[0].to_prove:
        return None
    return left[0].suspect


def stuck(judged: Judged, coil: int = 1) -> tuple[Cause, ...]:
    """Return the valve as what is to be put right where its stem was turned twice without an answer and it leads what is left.

    Then looking and listening tell no more: it is run through its stops, its element or itself is changed (field practice).
    """
    left = judged.course(coil).left
    if not left or len(left[0].codes) != 1 or left[0].codes[0] not in STEM or left[0].probability < STILL_THERE:
        return ()
    return left[0].suspect.causes if without_answer(judged.staged, coil) >= NO_MORE_TURNS else ()


def stuck_steps(judged: Judged, coil: int = 1) -> tuple[str, ...]:
    """Return what is done to a valve that answers to nothing, in order; none where it is not one."""
    if not stuck(judged, coil):
        return ()
    done = {step.did.code for step in judged.staged.steps if step.did.on in (None, coil)}
    left = tuple(text for code, text in STUCK if code not in done)
    return (*left, "Still no answer: the valve, with a new drier and an evacuation")


def due(judged: Judged, coil: int = 1) -> tuple[Cause, ...]:
    """Return what is to be put right before anything else is done: what was seen, else what is settled, else a valve that answers to
    nothing; none where there is more to ask."""
    found = settled(judged, coil)
    return seen_there(judged, coil) or (found.causes if found is not None else stuck(judged, coil))
