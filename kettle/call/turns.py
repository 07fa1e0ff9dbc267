"""The turns of a stem, what each brought, and what an answer or none says of the valve.

A sound valve answers its stem: one that was read and did not move is stuck, or nothing comes to it (trade practice).
"""

from dataclasses import dataclass
from math import log
from typing import Final

from kettle.call.events import Event
from kettle.call.stages import Staged
from kettle.judging.testimony import Testimony

# Superheat or line that moved less did not answer, °F.
ANSWERS_F: Final = 1.5
# After so many turns without an answer there is no further one.
NO_MORE_TURNS: Final = 2
# How often a turn brings nothing, by what is wrong; of everything else the valve is sound. Judgement of the trade.
_NO_ANSWER: Final = {
    "turned_in": {"txv_overfeeding": 0.5, "bulb_fault": 0.4},
    "turned_out": {
        # What keeps the liquid away keeps it away from a wider seat too; a valve that is stuck does not answer, one set too far in does.
        "txv_underfeeding": 0.5, "liquid_solenoid_closed": 0.9, "suction_regulator_shut": 0.5, "liquid_restriction": 0.6,
        "undercharge": 0.4, "winter_charge_short": 0.4, "cap_tube_restricted": 0.6,
    },
}  # fmt: skip
_SOUND_NO_ANSWER: Final = 0.12


@dataclass(frozen=True)
class Turn:
    """A turn of the stem with what it brought: superheat or line before and after, °F, and whether it answered (None: not read yet)."""

    event: Event
    did: str
    turns: float
    before_f: float | None
    after_f: float | None

    @property
    def answered(self) -> bool | None:
        """Whether it moved the way it should; None where nobody read."""
        if self.before_f is None or self.after_f is None:
            return None
        moved = self.after_f - self.before_f
        return abs(moved) >= ANSWERS_F and (moved > 0) == (self.did == "turned_in")


def turns(staged: Staged, coil: int = 1) -> list[Turn]:
    """Return the turns of a coil's stem in order, each with the superheat (else the line's temperature) before and after it."""
    found = []
    for step in staged.steps:
        if step.did.part == "valve" and step.did.did in ("turned_in", "turned_out") and step.did.on in (None, coil):
            before = next((told for place in range(step.stage - 1, -1, -1) if (told := _read_in(staged, place, coil))), {})
            after = _read_in(staged, step.stage, coil)
            found.append(Turn(step.event, step.did.did, step.did.value or 0.0, *_alike(before, after)))
    return found


def _alike(before: dict[str, float], after: dict[str, float]) -> tuple[float | None, float | None]:
    for key in ("superheat_evap_f", "suction_line_evap_f"):
        if key in before and key in after:
            return before[key], after[key]
    return None, None


def _read_in(staged: Staged, stage: int, coil: int) -> dict[str, float]:
    """Superheat and line of a coil as they were read in a stage; empty where the line was not."""
    if "suction_line_evap_f" not in staged.seen_in(stage, coil):
        return {}
    facts = staged.facts_at(stage, coil)
    line, superheat = facts.number("suction_line_evap_f"), facts.derived.get("superheat_evap_f")
    found = {} if line is None else {"suction_line_evap_f": line}
    return found if superheat is None else {**found, "superheat_evap_f": superheat}


def without_answer(staged: Staged, coil: int = 1) -> int:
    """Return how many turns of a stem in a row, the last ones, were read and brought nothing; nothing counts from before the valve was
    run through, opened or changed."""
    steps = staged.steps
    last = max((step.stage for step in steps if step.did.part == "valve" and not step.did.did.startswith("turned")), default=0)
    stages = {step.event.number: step.stage for step in steps}
    count = 0
    for turn in reversed(turns(staged, coil)):
        if stages[turn.event.number] < last or turn.answered:
            break
        count += turn.answered is False
    return count


def testimony(turn: Turn) -> Testimony | None:
    """Return what a turn says of the valve by its answer; None where nobody read."""
    if turn.answered is None:
        return None
    words = "in" if turn.did == "turned_in" else "out"
    none = {code: share if not turn.answered else 1.0 - share for code, share in _NO_ANSWER[turn.did].items()}
    rest = _SOUND_NO_ANSWER if not turn.answered else 1.0 - _SOUND_NO_ANSWER
    told = {code: log(share) for code, share in none.items()}
    says = f"Turned {words} {turn_words(turn.turns)}: {'it answered' if turn.answered else 'no answer'}"
    return Testimony(f"turn.{turn.event.number}", says, told, log(rest), log(rest))


FRACTIONS: Final = {0.125: "⅛", 0.25: "¼", 0.375: "⅜", 0.5: "½", 0.625: "⅝", 0.75: "¾", 0.875: "⅞"}


def turn_words(turns_of_it: float) -> str:
    """Return turns of a stem as they are said: ¼ turn, ½ turn, 1 turn, 1½ turns."""
    whole, part = divmod(turns_of_it, 1.0)
    fraction = FRACTIONS.get(round(part, 3))
    if part and fraction is None:
        return f"{turns_of_it:g} turn{'s' if turns_of_it > 1 else ''}"
    figure = f"{whole:.0f}" if whole else ""
    return f"{figure}{fraction or ''} turn{'s' if turns_of_it > 1 else ''}"
