"""A call as its screens show it: tags, quantities, holds, suspects, the next check and the settling clock.

Nothing is worked out here; the core's answer is laid out for the templates.
"""

from dataclasses import dataclass, field, replace
from functools import cached_property
from urllib.parse import urlencode

from kettle.benches.sets import baseline
from kettle.benches.valve import adjust
from kettle.call import cures
from kettle.judging import problems, stopped
from kettle.judging.evidence import quantity_name
from kettle.judging.siblings import together
from kettle.knowledge import causes, observations
from kettle.knowledge.equipment import CHOICES
from kettle.knowledge.measures import TRADE, ShownUnits, format_percent
from kettle.knowledge.parameters import PARAMETERS
from kettle.knowledge.quantities import QUANTITIES
from web.logbook.actions.note_sibling import sibling_states
from web.logbook.calls.baselines import baseline_of
from web.logbook.calls.courses import acts_of
from web.logbook.calls.headlines import headline_of
from web.logbook.calls.judging import minutes_left, settling_until, standing_readings
from web.logbook.calls.told_again import told_again
from web.round.drawing import BY_STOP, CIRCUIT, FELT
from web.round.icemaps import IceMaps
from web.round.standing.cards import cards_of, coils_of
from web.round.standing.picture import picture_of
from web.round.standing.progress import round_of
from web.round.standing.tags import OLD, SIMULATED, tag_of
from web.round.stops import BY_SLUG, SAFETY

# Whether an act moved a quantity the way it should -> mark, tone, words.
EFFECT_MARKS = {
    True: ("●", "good", "{way}, as it should"),
    False: ("✕", "bad", "the wrong way: it should go {way}"),
    None: ("◐", "watch", "no answer: it should go {way}"),
}
# It moved as the act moves it, and was beyond its band on that side already.
FURTHER_OFF = ("✕", "bad", "{way}, further from its band")
SUSPECTS_SHOWN = 3
LEFT_SHOWN = 4
DRIFTS_SHOWN = 3
HOLDS_SHOWN = 3


@dataclass
class Standing:
    """Everything the screens of a call show."""

    call: object
    wrong: dict = field(default_factory=dict)
    shown: ShownUnits = TRADE
    coil: int = 1
    by_feel: bool = False
    covered: bool = False

    @cached_property
    def told(self):
        """All that the core tells of the call, each part worked out when it is asked for."""
        return told_again(self.call, self.shown)

    def of_coil(self, coil):
        """The same call seen from another coil."""
        other = replace(self, coil=coil)
        other.told = self.told
        return other

    @cached_property
    def course(self):
        """The course of the coil in view: what it was, and what is left after what was done."""
        return self.told.course(min(self.coil, len(self.told.record.coils)))

    @property
    def judgement(self):
        """How it stands now, with what it was."""
        return self.course.now

    @property
    def something_else_percent(self):
        """How likely none of the known causes is there, in words."""
        return format_percent(self.judgement.something_else)

    @property
    def left(self):
        """What is left after what was done, with its percentage and what is still to be proved; empty where nothing was done."""
        if self.covered:
            return []
        return [(one, format_percent(one.probability)) for one in self.course.left[:LEFT_SHOWN]] if self.course.done else []

    @property
    def effects(self):
        """What each act did to what it should move, in words with a mark: (stage title, words, mark, tone)."""
        rows = []
        for one in self.course.effects:
            label, unit, decimals = quantity_name(one.quantity)
            figures = f"{label} {self.shown.figure(one.before, unit, decimals)} → {self.shown.text(one.after, unit, decimals)}"
            mark, tone, word = FURTHER_OFF if one.past and one.came else EFFECT_MARKS[one.came]
            rows.append((self.course.stage_words(one.stage), f"{figures}, {word.format(way=one.way)}", mark, tone))
        return rows

    @property
    def to_prove(self):
        """What has still to be seen before what was put right is proved, each once."""
        if self.covered or not self.course.done:
            return []
        return list(dict.fromkeys(text for one in self.course.left for text in one.to_prove))

    @property
    def done_words(self):
        """What was done so far, in words and order."""
        return [one.act.label for one in self.course.done]

    @property
    def unit(self):
        return self.judgement.facts.unit

    @property
    def set_words(self):
        """The set temperature in words."""
        return self.shown.plain(self.unit.set_f, "°F")

    @property
    def self_contained(self):
        """Whether box and unit are one cabinet, as with a capillary tube."""
        return self.unit.metering == "cap_tube" and not self.unit.walk_in

    @property
    def defrost_words(self):
        return CHOICES["defrost"][self.unit.defrost]

    @property
    def metering_words(self):
        return CHOICES["metering"][self.unit.metering]

    @cached_property
    def readings(self):
        """The row each observation stands by: its last one, unless that shows the lock-out alone and one before it speaks for the unit."""
        rows, of_ref = standing_readings(self.call, self.coil), {f"reading:{row.pk}": row for row in self.call.readings.all()}
        coil = min(self.coil, len(self.told.record.coils))
        spoke = {key: self.told.call.staged.last_seen(key, coil) for key in rows}
        return {key: of_ref.get(spoke[key].ref, row) if spoke[key] else row for key, row in rows.items()}

    def tag(self, key, place=None, number=0):
        """The entry field of an observation."""
        return tag_of(self, key, place, number)

    def tags_on(self, drawing):
        """The tags of a drawing that exist on this unit, in order."""
        tags = []
        for number, place in enumerate(drawing.places_for(self.unit, self.by_feel), start=1):
            tag = self.tag(place.key, place, number)
            tag.css = drawing.css(place)
            tags.append(tag)
        return tags

    @cached_property
    def tags(self):
        """The tags on the circuit."""
        return self.tags_on(CIRCUIT)

    @property
    def spots(self):
        """The parts drawn on the circuit whose sheet a tap opens."""
        return CIRCUIT.spots_for(self.unit)

    def picture(self, opened=""):
        """The unit drawn as it stands."""
        return picture_of(self, opened)

    @cached_property
    def steps(self):
        """Everything done on the call in order, with its words."""
        return [(step, step.words(self.shown)) for step in acts_of(self.call, self.told)]

    @cached_property
    def findings(self):
        """What was found: the entry, its causes, and both in words."""
        rows = []
        for entry in self.call.findings.filter(undone_at=None).select_related("by"):
            named = [causes.get(code) for code in entry.causes]
            coil = f", coil {entry.evaporator}" if entry.evaporator else ""
            rows.append((entry, named, " and ".join(cause.label for cause in named) + coil))
        return rows

    @cached_property
    def safety_tags(self):
        """The ticks that come before water or hands on the coil."""
        facts = self.judgement.facts
        entries = [observations.get(key) for key in SAFETY]
        return [self.tag(one.key) for one in entries if one.exists_on(self.unit) and stopped.can_be_asked(one, facts)]

    @cached_property
    def ice(self):
        """The ice maps of the call."""
        return IceMaps(self.call, self.unit)

    @cached_property
    def simulated(self):
        """What stands that a stand-in said, by its label: it was not measured."""
        return [observations.get(key).label for key, reading in self.readings.items() if reading.is_simulated]

    @property
    def taken_words(self):
        figures = [tag for tag in self.tags if tag.entry.is_number]
        return f"{sum(tag.taken for tag in figures)} of {len(figures)} taken"

    @cached_property
    def sets_kept(self):
        return self.call.readingsets.filter(undone_at=None).count()

    @cached_property
    def drifts(self):
        """How the unit runs against its own past good set, the furthest first."""
        if self.course.done:
            # What is left after what was done stands in its place.
            return []
        now = self.judgement.facts
        found = baseline_of(self.call, now.number("ambient_f"), self.coil, self.shown)
        if found is None:
            return []
        kept, then = found
        # What must wait goes before: the standing stays in sight as a whole.
        room = max(1, DRIFTS_SHOWN - len(self.top_holds))
        return baseline.drifts(now, then, f"on {kept.at:%-d %b %Y}", self.shown)[:room]

    @property
    def doubts(self):
        """How many readings on the drawing are old or unusual, with their marks."""
        counts = ((OLD, sum(bool(tag.old) for tag in self.tags), "old"), ("?", sum(bool(tag.unusual) for tag in self.tags), "unusual"))
        doubts = [(mark, f"{count} {word}") for mark, count, word in counts if count]
        simulated = [(SIMULATED, f"{len(self.simulated)} simulated")] if self.simulated else []
        return doubts + simulated + ([("≈", "pressures of this blend are estimated")] if self.unit.refrigerant.estimated else [])

    @cached_property
    def cards(self):
        """The quantities under the drawing."""
        return cards_of(self)

    @property
    def has_figures(self):
        """Whether anything is worked out, or was before what was done."""
        return any(card.value or card.was for card in self.cards)

    @cached_property
    def coils(self):
        """Each coil with its superheat, where the unit has several."""
        return coils_of(self)

    def round(self, here):
        """The stops with their state: here, done, part, held or open."""
        return round_of(self, here)

    @property
    def ladder_query(self):
        """What the ladder is asked to show this circuit's suction on."""
        asked = {"refrigerant": self.unit.refrigerant.name, "altitude_ft": f"{self.unit.altitude_ft:.0f}"}
        suction = self.readings.get("suction_psig")
        if suction is not None:
            asked |= {"pressure": self.shown.edit(suction.value, "psig"), "moved": "pressure"}
        return urlencode(asked)

    @property
    def pressure_facts(self):
        """SST and SCT in words, and for a blend with glide what lies beside them: the mid-point, dew."""
        derived, out = self.judgement.facts.derived, []
        for key, other, word in (("sst_f", "sst_mid_f", "mid"), ("sct_f", "sct_dew_f", "dew")):
            if key in derived:
                quantity = QUANTITIES[key]
                text = self.shown.text(derived[key], quantity.unit, quantity.decimals)
                beside = f" ({word} {self.shown.figure(derived[other], quantity.unit)})" if other in derived else ""
                out.append((quantity.label, text + beside))
        return out

    @cached_property
    def suspects(self):
        """The ranking with its percentages in words; nothing while it is covered."""
        if self.covered:
            return []
        return [(suspect, format_percent(suspect.probability)) for suspect in self.judgement.ranking]

    @property
    def top_suspects(self):
        return self.suspects[: SUSPECTS_SHOWN - bool(self.course.done)]

    @property
    def headline(self):
        """The standing in one line, for the phone's sheet: what the Board says of it."""
        if self.covered:
            return "Say first what you think"
        if self.to_resolve:
            return "A reading to resolve"
        words, probability = headline_of(self.course)
        return f"{words} {format_percent(probability)} %" if words else "Nothing judged yet"

    @cached_property
    def holds(self):
        """Holds in force, those on the same action under one title."""
        grouped = {}
        for hold in self.judgement.holds:
            grouped.setdefault(hold.title, []).append(hold)
        return list(grouped.items())

    @cached_property
    def due_cautions(self):
        """The cautions of all that is to be put right now, each once."""
        return list(dict.fromkeys(text for cause in self.due for text in cause.caution))

    @cached_property
    def to_resolve(self):
        """Readings that are a question; not those that are the very cause found."""
        return problems.to_resolve(self.judgement.problems, self.judgement.given)

    @cached_property
    def due(self):
        """What is to be put right now, seen or settled: causes; none where there is more to ask, or readings contradict each other."""
        return () if self.to_resolve or self.covered else cures.due(self.told.call.judged, self.coil)

    @cached_property
    def stuck_steps(self):
        """What is done to a valve that answers to nothing; none where it is not one."""
        return cures.stuck_steps(self.told.call.judged, self.coil)

    @property
    def due_title(self):
        """Why something is to be put right now, over what it is."""
        if self.due_was_seen:
            return "Seen: put right"
        return "No answer: put it right" if self.stuck_steps else "Settled: put it right"

    @property
    def due_was_seen(self):
        """Whether what is to be put right was seen with the eyes."""
        return any(cause.code in self.judgement.given for cause in self.due)

    @property
    def top_holds(self):
        return self.holds[:HOLDS_SHOWN]

    @property
    def more_holds(self):
        return len(self.holds[HOLDS_SHOWN:])

    @cached_property
    def melt_first(self):
        """Whether an iced coil must be melted before anything else."""
        return any(hold.code == "iced_coil" for hold in self.judgement.holds)

    @cached_property
    def next_check(self):
        checks = () if self.covered else self.told.next_checks(self.coil)
        return checks[0] if checks else None

    def next_tag(self, stop):
        """The entry field for the next check, where the stop on screen has none of its own for it."""
        if self.next_check is None or (self.melt_first and stop != "melt"):
            return None
        return None if self.has_field(stop, self.next_check.key) else self.tag(self.next_check.key)

    def has_field(self, stop, key):
        """Whether a stop's screen has an entry field of its own for an observation."""
        if stop in BY_STOP and key in {*(place.key for place in BY_STOP[stop].places_for(self.unit, self.by_feel))}:
            return True
        if self.by_feel and key in FELT:
            return False
        return key in BY_SLUG[stop].fields and observations.get(key).exists_on(self.unit)

    @cached_property
    def settling(self):
        """Settling clock: until when and how many minutes, or None."""
        until = settling_until(self.told, min(self.coil, len(self.told.record.coils)))
        return (until, minutes_left(until, self.call.closed_at)) if until else None

    @cached_property
    def siblings(self):
        """Each sibling with its state, and what all of them together say."""
        states = sibling_states(self.call)
        return list(states.items()), together(list(states.values()))

    @cached_property
    def turns(self):
        return [turn for turn in self.call.valveturns.select_related("by") if turn.undone_at is None]

    @cached_property
    def changes(self):
        return [change for change in self.call.settingchanges.select_related("by") if change.undone_at is None]

    @property
    def turn_words(self):
        """Valve turns with their direction and effect in words."""
        words = adjust.directions(self.call.unit.stem_reversed)
        return [(turn, words[turn.direction], adjust.EFFECT_OF[turn.direction]) for turn in self.turns]

    @property
    def change_words(self):
        """Setting changes with what the setting is called."""
        return [(change, PARAMETERS[change.parameter].label) for change in self.changes]
