"""Whether gas may be added, as Correct and the bench show it."""

from kettle.benches.charge.may_add import floods_and_flashes, may_add
from kettle.knowledge import anatomy, observations

MARKS = {"ok": ("●", "good"), "first": ("✕", "bad"), "unknown": ("◌", "watch")}


def panel_context(request, standing):
    """The answer, each line with its mark, and the case of the flooding valve."""
    facts = standing.judgement.facts
    answer = may_add(facts)
    lines = [(line, *MARKS[line.state], _tag(standing, line.asks)) for line in answer.lines]
    return {"gas": answer, "gas_lines": lines, "floods": floods_and_flashes(facts)}


def _tag(standing, key):
    """The part at whose sheet an observation is answered, with its field; None for none on this unit."""
    if not key or not observations.get(key).exists_on(standing.unit):
        return None
    return anatomy.part_of(key).code, standing.tag(key)
