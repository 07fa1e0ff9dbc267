"""What is proved of a call, as the stop and the report say it."""

from kettle.benches.prove.beside import beside
from kettle.benches.prove.proofs import may_leave
from kettle.knowledge.measures import format_number, long_words
from web import work_time
from web.benches.prove.box import box_of
from web.logbook.calls.judging import facts_by_stage, minutes_left, settling_until
from web.logbook.trends import of_unit, read_by_hand

STATE_MARKS = {"before": ("◌", "soft"), "on_track": ("●", "good"), "slow": ("△", "watch"), "stalled": ("✕", "bad"), "at_set": ("●", "good")}
PROOF_MARKS = {"proved": ("●", "good"), "against": ("✕", "bad"), "open": ("◌", "soft")}
ROW_MARKS = {"pass": ("●", "good", "in"), "fail": ("✕", "bad", "out"), "waits": ("◌", "watch", "waits"), "": ("", "", "")}


def told_of(standing):
    """The box, the proofs, whether it may be left, found beside left."""
    call, shown, facts = standing.call, standing.shown, standing.judgement.facts
    box, settled = box_of(call, standing), settling_until(standing.told)
    found = standing.told.prove
    stages = facts_by_stage(standing.told, standing.coil)
    until = call.closed_at or work_time.now()
    done_min = min(((until - step.at).total_seconds() / 60.0 for step, _ in standing.steps), default=None)
    as_found = stages[0][1] if stages else facts
    rows = beside(as_found, facts, standing.judgement.verdicts, standing.course.before, settled is None, shown, done_min)
    settles_min = minutes_left(settled, call.closed_at) if settled else 0
    told = may_leave(
        [one.proof for one in found], box.left_min if box else None, box is not None and box.told.state == "stalled", settles_min
    )
    return {
        "box": box,
        "box_mark": STATE_MARKS[box.told.state] if box else None,
        "proofs": [(one, PROOF_MARKS[one.state]) for one in found],
        "leaving": told,
        "missing": [(words, long_words(minutes) if minutes else "") for words, minutes in told.missing],
        "beside": [(row, ROW_MARKS[row.state]) for row in rows],
        "as_found": bool(stages),
        "air_words": _air_words(standing),
        "settled_in": format_number(settles_min, 0) if settled else "",
    }


def _air_words(standing):
    """Least and most air since the last thing done, by readings and logs, and whether it was satisfied once."""
    call, shown = standing.call, standing.shown
    since = max((step.at for step, _ in standing.steps), default=call.opened_at)
    until = call.closed_at or work_time.now()
    read = [value for _, value in read_by_hand(call.unit, since.timestamp(), until.timestamp())]
    told = of_unit(call.unit, since.timestamp(), until.timestamp()).of("box_f", "return_f")
    air = [*read, *([float(told[1].min()), float(told[1].max())] if told else [])]
    satisfied = any(one.key == "control_call" and one.value == "satisfied" and one.at >= since and one.undone_at is None
                    for one in call.readings.all())  # fmt: skip
    satisfied = satisfied or call.switchmoments.filter(undone_at=None, what="stop", at__gte=since).exists()
    words = [f"Air since: {shown.text(min(air), '°F')} to {shown.text(max(air), '°F')}"] if air else []
    return [*words, "Satisfied once" if satisfied else "Not satisfied yet"]
