"""What a quote of a call would hold, by what was found and changed."""

from kettle.benches.quote.propose import Proposed, of_change, proposed
from kettle.benches.refrigerant import change


def proposed_for(call, standing):
    """What the core would quote: by the causes found, or the first suspect, beyond what was done; and a change that is under way."""
    found = [code for finding in call.findings.filter(undone_at=None) for code in finding.causes]
    if not found and standing.judgement.has_evidence:
        found = list(standing.course.was[0].codes)
    changed = list(dict.fromkeys(call.changesteps.filter(undone_at=None, part__in=change.PARTS).values_list("part", flat=True)))
    done = [*(step.act.code for step, _ in standing.steps), *(f"{part}.replaced" for part in changed)]
    options = proposed(standing.unit, found, done, standing.judgement.facts.is_("leak_test", "found"))
    for part in changed:
        lines = of_change(change.PARTS[part], change.takes(part, standing.unit), change.hours(part, standing.unit))
        options.append(Proposed("good", lines))
    return options
