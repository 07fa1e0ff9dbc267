"""A step of a practice call that is none of a real call's screens: time that passes, a look, what was said, asked and answered."""

from kettle.knowledge.errors import InputError
from kettle.yard import practice as core
from web.logbook.actions.acting import action
from web.yard.rigs import rig_of

MOST = 2000


@action
def step(user, work, what, of="", value=None, minutes=0.0, says=""):
    """Put down a step and let its minutes pass; InputError where the call is over, or time is held."""
    practice = work.practice
    practice.refresh_from_db()
    if practice.is_over:
        raise InputError("This practice call is over: it was named. Begin another")
    takes_time = bool(minutes) or of in (core.DOWN, core.BACK)
    if practice.frozen and (takes_time or user.pk != practice.learner_id):
        raise InputError("Time is held by who teaches: wait until it goes on")
    if practice.steps.count() >= MOST:
        raise InputError(f"{practice} has {MOST} steps, which is all it can have")
    if of in (core.DOWN, core.BACK):
        # How long that takes only the unit knows.
        before = rig_of(practice)
        hours = float(before.rig.state.hours)
        row = work.keep(what, of, value, 0.0, says)
        took = (float(rig_of(practice).rig.state.hours) - hours) * 60.0
        row.minutes = took
        row.save(update_fields=["minutes"])
        work.pass_on(took)
        return row
    return work.keep(what, of, value, minutes, says)
