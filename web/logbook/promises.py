"""What is promised: on a unit, in the days to come, and what the core proposes for a visit."""

from datetime import timedelta

from django.utils import timezone

from kettle.benches.ice import map as ice
from kettle.benches.prove import promised
from web.logbook.courses import acts_of
from web.logbook.judging import standing_readings
from web.logbook.left_behind import still_there
from web.logbook.models import FollowUp, QuoteLine

MOST_DECLINED = 12


def due_before(user, day):
    """What is promised up to a day, soonest first."""
    return FollowUp.objects.for_user(user).filter(done_at=None, due__lte=day).select_related("unit__site", "call")


def open_on(unit, apart_from=None):
    """What is still promised on a unit, by any call but one."""
    found = FollowUp.objects.filter(unit=unit.pk, done_at=None).select_related("call", "by")
    return list(found.exclude(call=apart_from.pk) if apart_from is not None else found)


def left_of(call, proved=True):
    """How a call leaves its unit, as the core takes it."""
    melts = call.melts.filter(undone_at=None, ended_at__isnull=False)
    last = melts.last()
    drawn = call.icedrawings.filter(undone_at=None).order_by("at", "pk").last()
    iced = drawn is not None and ice.read(ice.parse(drawn.rows, drawn.places), drawn.face_ft2).ice_form in ice.ICED_FORMS
    return promised.Left(
        call.unit.resolved(), tuple(step.act.code for step in acts_of(call)), {k: r.value for k, r in standing_readings(call).items()},
        melted=last is not None or any(step.act.code == "coil.melted" for step in acts_of(call)),
        ice_left=(last is not None and not last.clear) or (last is None and iced),
        temporary=tuple(str(one) for one in still_there(call) if one.what in ("jumper", "lifted_lead", "output_moved")),
        quote_waits=quote_waits(call), proved=proved,
    )  # fmt: skip


def quote_waits(call):
    """Whether a call's quote has lines that nobody answered."""
    return QuoteLine.objects.filter(quote__call=call, answer="").exists()


def declined_on(unit):
    """What was quoted on a unit and declined, latest first: (what, option, call, name)."""
    found = (
        QuoteLine.objects.filter(quote__call__unit=unit.pk, answer="declined").select_related("quote__call").order_by("-quote__answered_at")
    )
    return list(found[:MOST_DECLINED])


def proposed_for(call, proved=True):
    """What the core proposes to come back for and nobody promised yet: (proposal, day it proposes)."""
    have, today = set(call.follow_ups.values_list("code", flat=True)), timezone.localdate()
    return [(one, today + timedelta(days=one.days[0])) for one in promised.proposed(left_of(call, proved)) if one.code not in have]
