"""The course of a call from what is recorded on it: melts, turns of the stem and programs changed open its stages by themselves."""

from datetime import timedelta

from django.db.models import Exists, OuterRef

from kettle.judging.course import Done
from web.logbook.models import DefrostProgram, Melt, ValveTurn

INSTANT = timedelta(milliseconds=1)
TURNED = {"in": "turned_in", "out": "turned_out"}


# For a query of calls: whether there is anything to look for, so that a call without acts costs nothing.
HAS_ACTS = {
    "has_melts": Exists(Melt.objects.filter(call=OuterRef("pk"), undone_at=None)),
    "has_turns": Exists(ValveTurn.objects.filter(call=OuterRef("pk"), undone_at=None)),
    "has_left": Exists(DefrostProgram.objects.filter(call=OuterRef("pk"), undone_at=None, side="left")),
}


def acts_of(call):
    """What was done on a call, in order: (when, what)."""
    sources = {"has_melts": _melts, "has_turns": _turns, "has_left": _programs}
    done = [pair for known, acts in sources.items() if getattr(call, known, True) for pair in acts(call)]
    return sorted(done, key=lambda pair: pair[0])


def _melts(call):
    """A melt changes the coil from its start, or from the first look after it where nobody said when it began."""
    after = [drawing.at for drawing in call.icedrawings.all() if drawing.stage == "after" and drawing.undone_at is None]
    for melt in call.melts.all():
        if melt.undone_at is None and melt.ended_at is not None:
            began = min([melt.at, *(at for at in after if at <= melt.ended_at)])
            yield began - INSTANT, Done("coil", "melted")


def _turns(call):
    for turn in call.valveturns.all():
        if turn.undone_at is None:
            yield turn.at, Done("valve", TURNED[turn.direction], turn.turns)


def _programs(call):
    """A program left otherwise than it was found."""
    kept = {}
    for program in DefrostProgram.objects.filter(call=call, undone_at=None).order_by("at", "pk"):
        kept[program.side] = program
    found, left = kept.get("found"), kept.get("left")
    if found and left and (found.starts, found.figures) != (left.starts, left.figures):
        yield left.at, Done("program", "changed")


def stage_at(acts, moment):
    """The stage something was seen in: how many acts were done before."""
    return sum(1 for at, _ in acts if at <= moment)
