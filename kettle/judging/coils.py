"""Several evaporators on one circuit: each coil is judged with the others as its siblings."""

from collections.abc import Mapping, Sequence
from typing import Final

from kettle.judging import readings, verdicts
from kettle.judging.facts import Facts
from kettle.judging.judge import Judgement, judge
from kettle.judging.siblings import together
from kettle.judging.testimony import Testimony
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.observations import Value

# What tells whether a coil does its work.
TELLING: Final = ("superheat_evap_f", "td_f")
Ages = Mapping[str, float]


def state_of(facts: Facts) -> str | None:
    """Return whether a coil is found "ok" or "bad", None where too little is known of it."""
    if verdicts.coil_iced(facts) or facts.is_("evap_fans", *verdicts.FANS_NOT_RUNNING):
        return "bad"
    told = [v for v in verdicts.on(facts) if v.quantity in TELLING and v.trust != "none"]
    if any(v.state != "ok" for v in told):
        return "bad"
    return "ok" if told else None


def judge_coil(
    unit: Unit,
    seen_by_coil: Sequence[Mapping[str, Value]],
    number: int = 1,
    ages_by_coil: Sequence[Ages] | None = None,
    shown: ShownUnits = TRADE,
    history: tuple[str, ...] = (),
    overridden: frozenset[str] = frozenset(),
    answers: bool = True,
    heard: Sequence[Testimony] = (),
) -> Judgement:
    """Judge one coil of a unit (1 is the first) from what stands on each, in the order of the coils.

    `history`, `overridden`, `answers` and `heard` as in `judge`. Where nobody said how other boxes do, the other coils on the same circuit
    are its siblings.
    """
    ages = ages_by_coil[number - 1] if ages_by_coil is not None else None
    seen = dict(seen_by_coil[number - 1])
    if len(seen_by_coil) > 1 and "siblings" not in seen:
        others = [other for place, other in enumerate(seen_by_coil, start=1) if place != number]
        found = together([state_of(readings.work_out(unit, other)) for other in others]).observation
        if found is not None:
            seen["siblings"] = found
    return judge(unit, seen, ages, shown, history, overridden, answers, heard)
