"""The parts of a unit on a call: what is known of each, and what was done to it."""

from dataclasses import dataclass

from kettle.judging import stopped
from kettle.knowledge import acts, anatomy, looks
from kettle.yard.how import of_part
from web.logbook.calls.courses import acts_of
from web.round.picture import parts_behind


@dataclass
class Sheet:
    """One part: its entry fields, what can be done to it, and what was done."""

    part: anatomy.Part
    tags: list
    acts: tuple
    done: list

    shown: object = None
    looks: tuple = ()
    words: tuple = ()

    @property
    def steps(self):
        """What was done to it with its words."""
        return [(step, step.words(self.shown)) for step in self.done]

    @property
    def cautions(self):
        """The cautions of everything that can be done to it, each once."""
        return tuple(dict.fromkeys(text for act in self.acts for text in act.caution))

    @property
    def how(self):
        """The page that shows how it works, where there is one."""
        return of_part(self.part.code)

    @property
    def known(self):
        """What is known of it in a few words."""
        return " · ".join(f"{tag.entry.label}: {tag.shown}" for tag in self.tags if tag.taken)


def sheet_of(standing, part):
    """The sheet of one part."""
    facts = standing.judgement.facts
    entries = [e for e in part.observed_on(standing.unit) if e.key in standing.readings or stopped.can_be_asked(e, facts)]
    done = [step for step in acts_of(standing.call, standing.told) if step.part == part.code]
    tags = [standing.tag(entry.key) for entry in entries]
    return Sheet(part, tags, part.acts_on(standing.unit), done, standing.shown, _looks(standing, part), _words(standing, part))


def _looks(standing, part):
    """How a part can look beside what has an entry of its own, and whether it was seen so."""
    seen = {event.data["state"] for event in _kept(standing, part, "looked")}
    found = [looks.get(part.code, state) for state in looks.PARTS.get(part.code, ())]
    return tuple((look, look.state in seen) for look in found if look.says_more and look.exists_on(standing.unit))


def _words(standing, part):
    """What was noted of a part in words, how warm it was, and how it looked, in order; each with what takes it back."""
    events = [event for kind in ("looked", "spot", "note") for event in _kept(standing, part, kind)]
    events.sort(key=lambda event: (event.at, event.number))
    return tuple((standing.told.brief(event), event, event.ref.rpartition(":")[2]) for event in events)


def _kept(standing, part, kind):
    on = standing.coil if part.per_coil and standing.unit.evaporators > 1 else None
    return [
        event for event in standing.told.record.standing
        if event.kind == kind and event.get("part") == part.code and (on is None or event.on in (None, on))
    ]  # fmt: skip


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
