"""Everything on the record of a call: by stage, what opened it, then what was seen, then all the rest, each with its take back."""

from dataclasses import dataclass

from django.urls import reverse

from kettle.call.kinds import KINDS
from kettle.knowledge import anatomy, observations
from web.logbook.calls.courses import acts_of, stage_at
from web.logbook.calls.judging import value_of
from web.logbook.calls.record import entries
from web.logbook.models.records import SETTING, WORKED_OUT

AS_FOUND = "As found"
# What its own bench takes back, because more hangs on it; and what cannot be: a controller keeps what was written to it.
BY_THEIR_BENCH = ("partused", "trendlog", "controllertalk")
# Where an entry is entered anew: an address of the call, or a stop.
PAGES = {"valveturn": "valve", "leaklook": "refrigerant", "standingtest": "refrigerant", "vacuumreading": "refrigerant",
         "changestep": "refrigerant", "firststartreading": "refrigerant", "switchmoment": "controls", "controllertalk": "controller",
         "quote": "quote", "quoteline": "quote"}  # fmt: skip
STOPS = {"measured": "power", "placed": "power", "startwiring": "power", "finding": "judge", "override": "judge", "siblingstate": "judge",
         "defrostwatch": "programs", "defrostprogram": "programs", "melt": "melt", "proofseen": "prove", "leaving": "hand-over",
         "timemark": "hand-over", "partused": "hand-over", "photo": "arrive", "followup": "prove", "ice": "arrive", "setting": "correct",
         "act": "correct", "call": "arrive"}  # fmt: skip


@dataclass(frozen=True)
class Line:
    """One entry that is no reading: what kind it is called, its words, the event, what it is taken back as, where it is entered anew."""

    label: str
    words: str
    event: object
    what: str
    pk: str
    place: str


def taken_on_call(standing):
    """The stages of a call in order, each with its title, the entry that opened it, readings, and all the other entries."""
    call, shown = standing.call, standing.shown
    steps = acts_of(call, standing.told)
    opened = {event.ref for step in steps for event in (step.step.events or (step.step.event,))}
    titles = [AS_FOUND, *(f"After: {step.words(shown).lower()}" for step in steps)]
    stages = [{"title": title, "step": step, "rows": [], "lines": []} for title, step in zip(titles, [None, *steps], strict=True)]
    for stage in stages[1:]:
        stage["opened"] = _line(call, standing.told, stage["step"].step.event, stage["step"].words(shown))
    for event in standing.told.record.standing:
        if event.kind != "reading" and event.ref not in opened and event.at is not None:
            stages[stage_at(steps, event.at)]["lines"].append(_line(call, standing.told, event))
    _put_readings(standing, stages, steps)
    return stages


def _line(call, told, event, words=""):
    """An event as a line."""
    what, _, rest = event.ref.partition(":")
    pk = rest.partition(":")[0]
    own = what in entries() and what not in BY_THEIR_BENCH and not rest.endswith(":gone") and not event.get("since")
    return Line(KINDS[event.kind].label, words or told.brief(event), event, what if own else "", pk, _place(call, event, what))


def _place(call, event, what):
    if what == "act" and event.get("part") in anatomy.PARTS:
        return reverse("part", args=[call.number, event.data["part"]])
    if what in PAGES:
        return reverse(PAGES[what], args=[call.number])
    return reverse("stop", args=[call.number, STOPS[what]]) if what in STOPS else ""


def _put_readings(standing, stages, steps):
    call, shown = standing.call, standing.shown
    latest = {(r.key, r.evaporator or 1): r.pk for r in call.readings.all() if r.undone_at is None}
    for reading in call.readings.all():
        if reading.undone_at is None:
            entry = observations.get(reading.key).on(standing.unit)
            stages[stage_at(steps, reading.at)]["rows"].append(
                {
                    "reading": reading,
                    "entry": entry,
                    "part": anatomy.part_of(reading.key),
                    "value": entry.show(value_of(reading), shown=shown),
                    "earlier": latest[(reading.key, reading.evaporator or 1)] != reading.pk,
                    "own": reading.source not in (WORKED_OUT, SETTING),
                }
            )
    order = list(anatomy.PARTS)
    for stage in stages:
        stage["rows"].sort(key=lambda row: (order.index(row["part"].code), row["reading"].at))
