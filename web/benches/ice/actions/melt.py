"""Start a melt, and end it: proved clear, or with ice left and a reason."""

from kettle.benches.ice import map as ice
from kettle.benches.ice import melt as core
from kettle.knowledge.errors import InputError
from web import work_time
from web.logbook.actions import log, stopped
from web.logbook.actions.acting import on_call
from web.logbook.actions.reasons import LETTERS, is_said
from web.logbook.models import Melt, Override

# What a look from the front misses; all clear needs these looked at too.
MUST_BE_LOOKED_AT = ("coil_back", "inside_corners")


@on_call
def start_melt(user, call, facts, plan, way_out=""):
    """Record that a melt began with a method; InputError while something must come first or the method is refused.

    Where the inside release fails, `way_out` says how nobody can be shut in all the same; it goes into the report.
    """
    missing = core.must_come_first(facts, plan.method)
    if missing:
        words = f"Melting waits for: {'; '.join(missing)}"
        stopped.tell(call, words)
        raise InputError(words)
    if plan.refusals:
        raise InputError(f"{plan.method.label}: {'; '.join(plan.refusals)}")
    running = call.melts.filter(ended_at=None, undone_at=None).first()
    if running is not None:
        return running
    way_out = way_out.strip()
    if facts.unit.walk_in and facts.is_("inside_release", "fails"):
        if not is_said(way_out):
            raise InputError(f"The release fails: say who stands outside and how the door is blocked, in {LETTERS}")
        text = "The inside release fails"
        Override.objects.create(call=call, by=user, action="lone_working", holds=["lone_working"], texts=[text], reason=way_out)
    melt = Melt.objects.create(call=call, by=user, method=plan.method.code)
    log.write(user, "start_melt", call, method=plan.method.code)
    return melt


@on_call
def pause_melt(user, call):
    """Stop the clock of the melt under way; InputError where none runs."""
    melt = _under_way(call)
    if melt.paused_at is None:
        melt.paused_at = work_time.now()
        melt.save(update_fields=["paused_at"])
        log.write(user, "pause_melt", call)
    return melt


@on_call
def resume_melt(user, call):
    """Let the clock of the melt run on; InputError where none is under way."""
    melt = _under_way(call)
    if melt.paused_at is not None:
        melt.paused_min += (work_time.now() - melt.paused_at).total_seconds() / 60.0
        melt.paused_at = None
        melt.save(update_fields=["paused_at", "paused_min"])
        log.write(user, "resume_melt", call)
    return melt


def _under_way(call):
    melt = call.melts.filter(ended_at=None, undone_at=None).first()
    if melt is None:
        raise InputError("No melt is under way")
    return melt


def not_clear(call):
    """What still speaks against "all clear", in words, coil by coil; empty when every coil is proved bare."""
    latest = {}
    for drawing in call.icedrawings.filter(undone_at=None, stage="after"):
        latest[drawing.evaporator] = drawing
    missing = []
    for number in range(1, call.unit.resolved().evaporators + 1):
        name = f"Coil {number}: " if call.unit.resolved().evaporators > 1 else ""
        drawing = latest.get(number)
        if drawing is None:
            missing.append(f"{name}no after-map yet")
            continue
        drawn = ice.parse(drawing.rows, drawing.places)
        if drawn.form != "none":
            missing.append(f"{name}ice is still drawn on the face")
        missing += [f"{name}{ice.PLACES[code].label.lower()} still iced" for code in drawn.iced_places]
        missing += [f"{name}{ice.PLACES[code].label.lower()} not looked at" for code in MUST_BE_LOOKED_AT if code in drawn.not_looked]
    return missing


@on_call
def end_melt(user, call, reason=""):
    """End the melt: clear where every coil is proved bare, else with ice left and a reason."""
    missing = not_clear(call)
    reason = reason.strip()
    if missing and not is_said(reason):
        raise InputError(f"Not all clear: {'; '.join(missing)}. To leave it so, give the reason in {LETTERS}")
    melt = call.melts.filter(undone_at=None, ended_at=None).last() or Melt(call=call, by=user, method="")
    melt.paused_at = None
    melt.ended_at, melt.clear, melt.reason = work_time.now(), not missing, reason if missing else ""
    melt.save()
    log.write(user, "end_melt", call, clear=melt.clear, reason=melt.reason)
    return melt
