"""Whether gas may be added, as Correct and the bench show it."""

from kettle.benches.charge.may_add import floods_and_flashes, may_add
from kettle.call.advice import filling, leak_decided
from kettle.knowledge import anatomy, observations

ANSWERS = {"yes": ("●", "good"), "no": ("◌", "soft"), "first": ("◐", "watch"), "stop": ("✕", "bad")}
MARKS = {"ok": ("●", "good"), "first": ("✕", "bad"), "unknown": ("◌", "watch")}


def panel_context(request, standing):
    """The answer of the whole call; while gas is not enough each line to clear with its mark; the case of the flooding valve."""
    facts, answer = standing.judgement.facts, standing.told.charge
    judged = standing.told.call.judged
    cleared = may_add(facts, leak_decided(judged), filling(judged))
    lines = [(line, *MARKS[line.state], _tag(standing, line.asks)) for line in cleared.lines] if answer.may != "stop" else []
    mark, tone = ANSWERS[answer.may]
    before = cleared.says if answer.may in ("no", "first") and cleared.says != answer.text else ""
    return {
        "gas": answer, "gas_mark": mark, "gas_tone": tone, "gas_before": before, "gas_lines": lines,
        "gas_how": cleared.how if answer.may == "yes" else (), "floods": floods_and_flashes(facts),
    }  # fmt: skip


def _tag(standing, key):
    """The part at whose sheet an observation is answered, with its field; None for none on this unit."""
    if not key or not observations.get(key).exists_on(standing.unit):
        return None
    return anatomy.part_of(key).code, standing.tag(key)
