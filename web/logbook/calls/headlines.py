"""The headline of every call in progress: judged once, kept, and judged again when something on the call changed."""

import hashlib
from datetime import timedelta
from functools import cache
from pathlib import Path

from django.db import transaction
from django.db.models import prefetch_related_objects

import kettle
from kettle.knowledge import observations
from web import work_time
from web.logbook.calls.judging import settling_until, standing_readings, told_of
from web.logbook.calls.record import RELATED
from web.logbook.models import Headline

LONGEST_LEADER = 200


@cache
def code():
    """A name for the code and tables that judge; another release judges anew."""
    sources = sorted(path for path in Path(kettle.__file__).parent.rglob("*") if path.suffix in {".py", ".json"})
    return hashlib.sha256(b"".join(path.read_bytes() for path in sources)).hexdigest()[:16]


def headlines(calls):
    """Each of some calls with its headline; what does not stand any more is judged anew and kept."""
    calls = list(calls)
    kept = {line.call_id: line for line in Headline.objects.filter(call__in=calls)}
    stale = [call for call in calls if call.pk not in kept or not kept[call.pk].stands(call, code())]
    if stale:
        prefetch_related_objects(stale, *RELATED)
        made = [_made(call) for call in stale]
        with transaction.atomic():
            Headline.objects.filter(call__in=stale).delete()
            Headline.objects.bulk_create(made)
        kept |= {line.call_id: line for line in made}
    return [(call, kept[call.pk]) for call in calls]


def headline_of(course):
    """What the Board says of a course, and how likely it is: what it is, and once hands were on it what is left."""
    if not course.now.has_evidence:
        return "", 0.0
    leader = course.was[0]
    if course.now.something_else > leader.probability:
        return "None of the known causes fits", course.now.something_else
    if not course.done:
        return leader.label, leader.probability
    left = course.left[0]
    return f"Left: {left.suspect.label.lower()}" if left.codes else f"Was {leader.label.lower()}, nothing left of it", left.probability


def _made(call):
    told = told_of(call)
    course, settling = told.course(1), settling_until(told)
    judged = course.now
    words, probability = headline_of(course)
    return Headline(
        call=call,
        revision=call.revision,
        code=code(),
        until=_until(call, settling),
        leader=words[:LONGEST_LEADER],
        probability=probability,
        holds=len(judged.holds),
        settling=settling,
    )


def _until(call, settling):
    """When the first reading grows old or the settling clock runs out; None where nothing will change by itself."""
    now, times = work_time.now(), [settling] if settling else []
    for key, reading in standing_readings(call).items():
        fresh = observations.get(key).stays_fresh_min
        if fresh < float("inf"):
            times.append(reading.at + timedelta(minutes=fresh))
    return min((at for at in times if at > now), default=None)
