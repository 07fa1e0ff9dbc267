"""The parts of a unit on a call: what is known of each, what was done to it, and everything taken, by stage."""

from dataclasses import dataclass

from kettle.judging import running
from kettle.knowledge import acts, anatomy, observations
from web.logbook.actions.record_reading import SETTING, WORKED_OUT
from web.logbook.courses import acts_of, stage_at
from web.logbook.judging import value_of
from web.round.picture import parts_behind

AS_FOUND = "As found"


@dataclass
class Sheet:
    """One part: its entry fields, what can be done to it, and what was done."""

    part: anatomy.Part
    tags: list
    acts: tuple
    done: list

    shown: object = None

    @property
    def steps(self):
        """What was done to it with its words."""
        return [(step, step.words(self.shown)) for step in self.done]

    @property
    def cautions(self):
        """The cautions of everything that can be done to it, each once."""
        return tuple(dict.fromkeys(text for act in self.acts for text in act.caution))

    @property
    def known(self):
        """What is known of it in a few words."""
        return " · ".join(f"{tag.entry.label}: {tag.shown}" for tag in self.tags if tag.taken)


def sheet_of(standing, part):
    """The sheet of one part."""
    facts = standing.judgement.facts
    entries = [e for e in part.observed_on(standing.unit) if e.key in standing.readings or running.can_be_asked(e, facts)]
    done = [step for step in acts_of(standing.call) if step.part == part.code]
    return Sheet(part, [standing.tag(entry.key) for entry in entries], part.acts_on(standing.unit), done, standing.shown)


def sheets_of(standing, code):
    """The sheets of everything that is drawn together with a part, that part's own first."""
    behind = {code, *parts_behind(code)}
    parts = [part for part in anatomy.on(standing.unit) if part.code in behind]
    return [sheet_of(standing, part) for part in sorted(parts, key=lambda part: part.code != code)]


def areas_of(standing):
    """Every part with something to see or do, by area in the order of a walk."""
    sheets = [sheet_of(standing, part) for part in anatomy.on(standing.unit)]
    return [(title, [sheet for sheet in sheets if sheet.part.area == area]) for area, title in anatomy.AREAS.items()]


def against(suspect, unit):
    """The acts of a suspect's causes that can be done on a unit by their part's sheet, the surest first."""
    found = {}
    for act in acts.ACTS.values():
        share = max((act.removes.get(code, 0.0) for code in suspect.codes), default=0.0)
        if share and not act.bench and act.exists_on(unit) and anatomy.get(act.part).exists_on(unit):
            found[act.code] = (share, act)
    return [act for _, act in sorted(found.values(), key=lambda pair: -pair[0])]


def taken_on_call(standing):
    """Everything taken on the call: stages in order, each with its title and rows (reading, entry, part, whether a later one stands)."""
    call, shown = standing.call, standing.shown
    steps = acts_of(call)
    titles = [AS_FOUND, *(f"After: {step.words(shown).lower()}" for step in steps)]
    stages = [{"title": title, "step": step, "rows": []} for title, step in zip(titles, [None, *steps], strict=True)]
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
    return stages
