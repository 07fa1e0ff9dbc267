"""What every screen of a call needs: the call itself, and the frame around the stop."""

from django.db.models import Exists, OuterRef
from django.shortcuts import get_object_or_404, render

from kettle.call import cures
from kettle.electrical.finds import leads_of
from kettle.judging.schools import steps
from kettle.judging.suspects import Suspect
from kettle.knowledge import observations
from kettle.knowledge.measures import whole
from web.logbook.actions.undo_entry import last_reading
from web.logbook.calls.controller_talks import in_service
from web.logbook.calls.courses import HAS_ACTS
from web.logbook.models import Call, ControllerTalk
from web.round import registry
from web.round.standing import Standing
from web.round.standing.sheets import against
from web.round.stops import BY_SLUG


def call_of(request, number):
    """A call the person may reach, with its readings; 404 for any other."""
    calls = Call.objects.for_user(request.user).select_related("unit__site", "unit__probes", "unit__controller", "opened_by")
    calls = calls.annotate(has_talks=Exists(ControllerTalk.objects.filter(call=OuterRef("pk"), undone_at=None)), **HAS_ACTS)
    return get_object_or_404(calls.prefetch_related("readings"), number=number)


def standing_of(request, call, wrong=None):
    """The standing of a call as this person sees it: own units, by feel or by numbers, the coil chosen."""
    member = request.user.member
    asked = request.POST.get("coil") or request.GET.get("coil") or ""
    coil = whole(asked, 1, call.unit.resolved().evaporators) or 1
    # On a practice call it may be covered until one's own answer was given.
    practice = getattr(request, "practice", None)
    return Standing(call, wrong or {}, member.shown, coil, member.by_feel, covered=practice is not None and practice.covers)


def frame(request, call, stop, standing):
    """The context of the frame: round, standing, next check, what an undo would take back."""
    own, last = last_reading(call, request.user), last_reading(call)
    return {
        "call": call,
        "stop": BY_SLUG[stop],
        "standing": standing,
        "round": standing.round(stop),
        "next_tag": standing.next_tag(stop),
        "next_leads": next_leads(standing) if stop != "power" else None,
        "to_do": to_do(request, standing),
        "service": call.has_talks and in_service(call),
        "undo_own": (own, observations.get(own.key)) if own else None,
        "undo_theirs": (last, observations.get(last.key)) if last and last.by_id != request.user.pk else None,
    }


def to_do(request, standing):
    """What is to be put right now: each cause with its steps in the order of the school, and the acts that do it."""
    seen, schools = standing.judgement.facts.seen, request.user.member.schools
    alone = [Suspect((cause,), 1.0, (), ()) for cause in standing.due]
    return [
        (one.causes[0], _stuck(one, standing) or steps(one, schools, seen), against(one, standing.unit))
        for one in alone
    ]  # fmt: skip


def _stuck(one, standing):
    """The steps of a valve that answers to nothing, where it is what is due."""
    return standing.stuck_steps if one.codes[0] in cures.STEM and not standing.due_was_seen else ()


def next_leads(standing):
    """The two points of the wiring at which the next check is measured; None where it is none of its volts."""
    check = standing.next_check
    if check is None or observations.get(check.key).unit != "V":
        return None
    return leads_of(standing.call.unit.circuit(), check.key)


def show(request, call, stop, standing=None, **extra):
    """Render a stop in its frame with all its parts; `extra` stands for what they would say themselves."""
    standing = standing or standing_of(request, call)
    context = frame(request, call, stop, standing) | registry.context_of(stop, request, standing) | extra
    return render(request, registry.page_of(stop), context)
