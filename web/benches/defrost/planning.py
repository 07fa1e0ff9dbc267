"""Planning defrosts for a call: what the core is asked, the work in the background, and its answer as it is kept.

The plant model is compiled code that takes a second to load: it is imported where it is used (web/wsgi.py does so early).
"""

import threading
from dataclasses import replace
from datetime import timedelta
from functools import lru_cache

from django.db import connection, transaction
from huey.exceptions import RetryTask

from kettle.benches.defrost.program import Hours, Program, no_stronger
from kettle.benches.ice.map import ICED_FORMS
from kettle.knowledge.errors import Stopped
from web import work_time
from web.accounts.access import shown_to
from web.benches.defrost.actions.plan_defrosts import CUT_OFF, has_room
from web.logbook.calls.courses import acts_of
from web.logbook.calls.judging import judge_call
from web.logbook.models import DefrostPlan, DefrostWatch
from web.logbook.models.defrosts import AT_WORK
from web.long_work import SOON, again_after_a_restart, queue

FIGURES = (
    "starts_a_day", "frost_lb", "blocked", "clear_min", "margin_min", "runs_on_min", "box_peak_f", "over_limit_min", "heat_kwh",
    "power_kwh", "ceiling_lb", "left_lb",
)  # fmt: skip
WATCHED_DAYS = 120
ENDED_BY_TIME = "time"
# One that may not begin yet asks again after so long, s.
WAITS_S = 1
DOOR_KEYS = ("door", "door_traffic", "strip_curtain", "door_open_h")


def program_of(entry):
    """A kept program as the core takes it."""
    return Program(tuple(entry.starts), entry.figures)


def kept_programs(call):
    """The programs of a call that stand, by side."""
    return {entry.side: entry for entry in call.defrostprograms.filter(undone_at=None)}


def hours_of(call):
    """The hours of a call's site as the core takes them."""
    site = call.unit.site
    return Hours(site.opens_min, site.closes_min, tuple(site.deliveries_min)) if site else Hours()


def watched_on(unit, now=None):
    """The defrosts watched on a unit of late, each with the program it ran by, starts and figures."""
    since = (now or work_time.now()) - timedelta(days=WATCHED_DAYS)
    return DefrostWatch.objects.filter(call__unit=unit, undone_at=None, at__gte=since).exclude(ended_by="").order_by("at")


def situation_of(call, facts):
    """What a plan of this call starts from; InputError where the unit has no defrost to plan.

    What the site has shown is held against the model under the doors and heaters it was shown under; what was mended since changes
    what is planned for, and proves nothing against a program any more.
    """
    from kettle.benches.defrost.situation import situation

    hours = hours_of(call)
    asked = situation(facts.unit, facts.seen, facts.derived, hours)
    watches, found = list(watched_on(call.unit)), kept_programs(call).get("found")
    iced, box_f, seen = _as_found(call, facts)
    if not watches and (found is None or iced is None):
        return asked
    then = situation(facts.unit, seen, facts.derived, hours)
    last = watches[-1].program if watches else {}
    watched = tuple((w.marks.get("ended"), w.ended_by == ENDED_BY_TIME, w.marks.get("clear"), w.coil_after) for w in watches)
    key = _Key(
        then, Program(tuple(last.get("starts", ())), last.get("figures", {})), watched, program_of(found) if found else None, iced, box_f
    )
    fitted = _calibrated(key)
    mended = any(step.part in MENDED for step in acts_of(call))
    return replace(
        asked, moisture=asked.moisture * fitted.moisture / then.moisture, moisture_spread=fitted.moisture_spread, watched=fitted.watched,
        fit=fitted.fit, unexplained=fitted.unexplained, disproved=() if mended else _disproved(found, iced, watches),
    )  # fmt: skip


# What was done to one of these changes what a coil gets to melt, or what melts it.
MENDED = ("door", "heater", "evap_fan", "termination", "relay", "stock")


def _as_found(call, facts):
    """Whether the coil was iced and how warm the box was when found (None where nobody looked), and what was seen, the doors as found."""
    first = {}
    for reading in call.readings.all():
        if reading.undone_at is None:
            first.setdefault(reading.key, reading.value)
    iced = None if "ice_form" not in first else first["ice_form"] in ICED_FORMS
    return iced, first.get("box_temp_f"), facts.seen | {key: first[key] for key in DOOR_KEYS if key in first}


def against_by_site(call, facts, program):
    """How the site has shown that a program leaves ice on the coil; empty where it has not, or what was mended since may have been why."""
    if any(step.part in MENDED for step in acts_of(call)):
        return ""
    iced, _, _ = _as_found(call, facts)
    disproved = _disproved(kept_programs(call).get("found"), iced, list(watched_on(call.unit)))
    return next((why for shown, why in disproved if no_stronger(program, shown)), "")


def _disproved(found, iced, watches):
    """Programs that left ice on this coil, each with why."""
    programs = []
    if found is not None and iced:
        programs.append((program_of(found), "the coil was found iced by it"))
    for watch in watches:
        if watch.ended_by == ENDED_BY_TIME and watch.coil_after in ("part_iced", "iced") and watch.program:
            ran = Program(tuple(watch.program.get("starts", ())), watch.program.get("figures", {}))
            programs.append((ran, f"watched {watch.at:%-d %b}: it left the coil part iced"))
    return tuple(programs)


class _Key:
    """A situation and what the site has shown, told apart by what they say."""

    def __init__(self, *given):
        self.given, self.words = given, repr(given)

    def __hash__(self):
        return hash(self.words)

    def __eq__(self, other):
        return self.words == other.words


@lru_cache(maxsize=64)
def _calibrated(key):
    from kettle.benches.defrost.situation import Watched, calibrated

    asked, program, watched, found, iced, box_f = key.given
    seen = [Watched(ran or 0.0, by_time, clear, {"clear": True, "": None}.get(after, False)) for ran, by_time, clear, after in watched]
    if found is not None and iced is not None:
        asked = calibrated(asked, found, (), iced, box_f)
    return calibrated(asked, program, seen)


@queue.task(priority=SOON)
def work(pk):
    """Work out a plan and keep it, telling how far it is; it ends early when its row says stopped.

    One that may not begin yet waits: another of the same person, or two of the shop, are worked on.
    """
    try:
        plan = DefrostPlan.objects.select_related("call__unit__site", "by__member").filter(pk=pk, state__in=AT_WORK).first()
        if plan is not None and not _has_turn(plan):
            raise RetryTask(delay=WAITS_S)
        if plan is not None:
            _keep(plan)
    finally:
        if threading.current_thread() is not threading.main_thread():
            connection.close()


def _has_turn(plan):
    """Whether a plan is worked on from now; two that wait are not let in at once."""
    with transaction.atomic():
        if plan.state == "waiting" and not has_room(plan.by, plan.call.shop_id):
            return False
        return bool(DefrostPlan.objects.filter(pk=plan.pk, state=plan.state).update(state="working", touched_at=work_time.now()))


def _keep(plan):
    from kettle.benches.defrost import plan as core
    from kettle.benches.defrost.proposals import Limits

    def tell(share):
        if not DefrostPlan.objects.filter(pk=plan.pk, state="working").update(share=share, touched_at=work_time.now()):
            raise Stopped

    try:
        asked = situation_of(plan.call, judge_call(plan.call).facts)
        found, left = (program_of(kept) if kept else None for kept in map(kept_programs(plan.call).get, ("found", "left")))
        made = core.plan(asked, found, Limits(**plan.asked), shown_to(plan.by), tell, left)
        DefrostPlan.objects.filter(pk=plan.pk, state="working").update(state="done", share=1.0, result=as_kept(made, asked))
    except Stopped:
        pass
    except Exception as error:
        DefrostPlan.objects.filter(pk=plan.pk).update(state="failed", complaint=f"{type(error).__name__}: {error}"[:300])
        raise


again_after_a_restart(work, lambda: DefrostPlan.objects.filter(state__in=AT_WORK, undone_at=None).values_list("pk", flat=True))


def as_kept(plan, asked):
    """A plan as it is stored."""
    choices = []
    for choice in plan.choices:
        spans = {name: getattr(choice.outlook, name) for name in FIGURES}
        choices.append(
            {
                "code": choice.code,
                "label": choice.label,
                "says": choice.says,
                "against": list(choice.against),
                "clears": choice.outlook.clears,
                "starts": list(choice.outlook.program.starts_min),
                "values": dict(choice.outlook.program.values),
                "figures": {name: [span.middle, span.low, span.high] for name, span in spans.items()},
            }
        )
    return {
        "choices": choices,
        "take": plan.take,
        "reasons": list(plan.reasons),
        "cures": list(plan.cures),
        "moisture": asked.moisture,
        "watched": asked.watched,
        "fit": list(asked.fit),
        "unexplained": asked.unexplained,
    }


def cut_off(plan):
    """Whether a plan that says it is being worked on is not; one that waits stands in the queue."""
    return plan.state == "working" and work_time.now() - plan.touched_at > CUT_OFF
