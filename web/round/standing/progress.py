"""The stops of the round with how far each is."""

from kettle.knowledge import observations
from web.round.stops import STOPS


def round_of(standing, here):
    """The stops with their state: here, done, part, held or open."""
    return [(stop, "here" if stop.slug == here else _state_of(standing, stop)) for stop in STOPS]


def _state_of(standing, stop):
    if stop.slug == "arrive":
        entries = [observations.get(key) for key in standing.readings]
        return "part" if any(entry.stop == "arrive" for entry in entries) else "open"
    if stop.slug == "read":
        count = sum(tag.taken for tag in standing.tags)
        return "done" if count == len(standing.tags) else "part" if count else "open"
    if stop.slug == "melt":
        last = standing.call.melts.filter(undone_at=None).last()
        if last is None:
            return "held" if standing.melt_first else "open"
        return "done" if last.clear else "part"
    if stop.slug == "programs":
        sides = {event.data["side"] for event in standing.told.record.all_of("program")}
        return "done" if "left" in sides else "part" if sides else "open"
    if stop.slug == "judge":
        return "part" if standing.judgement.has_evidence else "open"
    if stop.slug == "correct":
        return "part" if standing.steps or standing.told.record.all_of("setting") else "open"
    if stop.slug == "prove":
        return _proved(standing)
    return "done" if not standing.call.is_open else "part" if standing.call.found or standing.call.done else "open"


def _proved(standing):
    """Whether what was done is proved: in part as long as something is missing."""
    if not standing.steps:
        return "part" if standing.call.box_watches.filter(undone_at=None).exists() else "open"
    return "part" if standing.told.unproved else "done"
