"""A call as its screens show it: tags, quantities, holds, suspects, the next check and the settling clock.

Nothing is worked out here; the core's answer is laid out for the templates.
"""

from dataclasses import dataclass, field
from functools import cached_property
from urllib.parse import urlencode

from kettle.benches.sets import baseline
from kettle.benches.valve import adjust
from kettle.judging import verdicts
from kettle.judging.evidence import quantity_name
from kettle.judging.scale import scale
from kettle.judging.siblings import together
from kettle.knowledge import observations, plausible
from kettle.knowledge.parameters import PARAMETERS
from kettle.knowledge.quantities import QUANTITIES
from kettle.knowledge.unit import CHOICES
from kettle.knowledge.units import TRADE, ShownUnits, format_number, format_percent, vacuum_inhg
from web.logbook.actions.note_sibling import sibling_states
from web.logbook.baselines import baseline_of
from web.logbook.judging import facts_of_coils, judge_call, minutes_left, settling_until, standing_readings
from web.round.drawing import BOX, BY_STOP, CIRCUIT, FELT, Place
from web.round.icemaps import IceMaps
from web.round.stops import AIR, BY_SLUG, SAFETY, SINCE, STOPS

# The quantities under the drawing, in their order.
CARDS = ("superheat_evap_f", "superheat_comp_f", "td_f", "delta_t_f", "split_f", "subcooling_f", "amps_pct", "expected_head_psig")
# A water-cooled unit has approach and rise where an air-cooled one has its split.
WATER_CARDS = {"split_f": "approach_f", "delta_t_f": "rise_f"}
# (state, trust) -> mark, word, tone. A verdict trusted less has the half-filled mark and the watch tone.
MARKS = {
    ("low", "good"): ("▼", "low", "bad"),
    ("ok", "good"): ("●", "ok", "good"),
    ("high", "good"): ("▲", "high", "bad"),
    ("low", "weak"): ("◐", "low", "watch"),
    ("ok", "weak"): ("◐", "ok", "watch"),
    ("high", "weak"): ("◐", "high", "watch"),
    ("low", "none"): ("◌", "waits", "watch"),
    ("ok", "none"): ("◌", "waits", "watch"),
    ("high", "none"): ("◌", "waits", "watch"),
    ("impossible", "none"): ("✕", "cannot be", "bad"),
}
# The mark of a reading taken longer ago than it stays fresh.
OLD = "◷"
# The mark of a reading taken from a probe.
PROBE = "⌁"
SUSPECTS_SHOWN = 3
DRIFTS_SHOWN = 3
HOLDS_SHOWN = 3


@dataclass
class Tag:
    """One entry field: an observation, what stands, and what is wrong with what was just typed."""

    entry: observations.Observation
    value: object = None
    typed: str = ""
    error: str = ""
    problem: str = ""
    place: Place | None = None
    number: int = 0
    css: dict = field(default_factory=dict)
    beside: str = ""
    shown_in: ShownUnits = TRADE
    old: str = ""
    unusual: str = ""
    usual: str = ""
    source: str = ""
    kept_as_typed: str = ""
    held: str = ""

    @property
    def taken(self):
        return self.value is not None

    @property
    def shown(self):
        """What stands, in words and figures with its unit."""
        return self.entry.show(self.value, shown=self.shown_in) if self.taken else ""

    @property
    def figure(self):
        """What stands without its unit."""
        return self.entry.show(self.value, with_unit=False, shown=self.shown_in) if self.taken else ""

    @property
    def field_text(self):
        """What the field holds: the rejected entry while it is wrong, else what stands."""
        if self.error:
            return self.typed
        return self.entry.edit_text(self.value, self.shown_in) if self.taken and self.entry.is_number else ""

    @property
    def vacuum(self):
        """Inches of mercury where a gauge pressure is below zero, whole as a tag has room for."""
        inhg = vacuum_inhg(self.value) if self.taken and self.entry.unit == "psig" else None
        return f"{format_number(inhg, 0)} inHg" if inhg is not None else ""

    @property
    def unit(self):
        """The unit it is read and typed in."""
        return self.shown_in.label(self.entry.unit)

    @property
    def how_words(self):
        """How it is taken, what spoils it, what is usual and how long it stands, for whoever asks."""
        words = [f"{self.entry.how}. Spoiled by {self.entry.spoiled_by}."]
        if self.usual:
            words.append(f"Usual here: {self.usual}.")
        if self.unusual:
            words.insert(0, f"{self.shown} is unusual here: read it again.")
        if self.kept_as_typed:
            words.insert(0, f"Typed as {self.kept_as_typed}, which is {self.shown}.")
        if self.source:
            words.insert(0, f"From {self.source}.")
        if self.held:
            words.insert(0, f"Waits: {self.held}.")
        if self.old:
            words.insert(0, f"{self.old}: read it again.")
        return " ".join(words)

    @property
    def may_be_negative(self):
        return self.entry.is_number and self.entry.low < 0

    @property
    def state(self):
        if self.error or self.problem:
            return "wrong"
        if self.old or self.unusual:
            return "taken doubtful"
        return "taken" if self.taken else "empty"

    @property
    def selected(self):
        """The words that stand, for ticking choices."""
        return self.value if isinstance(self.value, (list, tuple)) else [self.value]


@dataclass
class Card:
    """One quantity worked out, with its verdict and scale where it has a band."""

    key: str
    label: str
    unit: str
    meaning: str
    value: str = ""
    mark: tuple = ()
    band: str = ""
    why: str = ""
    note: str = ""
    by_feel: bool = False
    scale: object = None


@dataclass
class Standing:
    """Everything the screens of a call show."""

    call: object
    wrong: dict = field(default_factory=dict)
    shown: ShownUnits = TRADE
    coil: int = 1
    by_feel: bool = False

    @cached_property
    def judgement(self):
        return judge_call(self.call, self.shown, self.coil)

    @property
    def unit(self):
        return self.judgement.facts.unit

    @property
    def set_words(self):
        """The set temperature in words."""
        return self.shown.plain(self.unit.set_f, "°F")

    @property
    def defrost_words(self):
        return CHOICES["defrost"][self.unit.defrost]

    @property
    def metering_words(self):
        return CHOICES["metering"][self.unit.metering]

    @cached_property
    def readings(self):
        return standing_readings(self.call, self.coil)

    def tag(self, key, place=None, number=0):
        """The entry field of an observation; `wrong` maps a key to what was typed and what is wrong with it."""
        reading = self.readings.get(key)
        typed, error = self.wrong.get(key, ("", ""))
        error = error.removeprefix(f"{observations.get(key).label}: ")
        problem = next((p.text for p in self.judgement.problems if key in p.keys), "")
        value = reading.value if reading else None
        entry, facts = observations.get(key), self.judgement.facts
        tag = Tag(entry, value, typed, error, problem, place, number, shown_in=self.shown)
        span = plausible.usual_range(entry, self.unit)
        tag.usual = self.shown.span(*span, entry.unit) if span else ""
        if reading and facts.is_old(key):
            tag.old = f"{facts.ages_min[key]:.0f} min old"
        if value is not None and span and not span[0] <= value <= span[1]:
            tag.unusual = "unusual"
        tag.held = next((hold.text for hold in self.judgement.holds if hold.code in entry.holds), "")
        tag.kept_as_typed = reading.typed if reading and entry.is_number and self.shown.in_other_unit(reading.typed, entry.unit) else ""
        tag.source = reading.source if reading and reading.source.startswith("probe ") else ""
        tag.beside = tag.vacuum or ("?" if tag.unusual else OLD if tag.old else PROBE if tag.source else "")
        if key == "display_temp_f" and "sensor_error_f" in self.readings:
            tag.beside = f"{self.shown.figure(self.readings['sensor_error_f'].value, '°F diff')} off"
        return tag

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

    @cached_property
    def box_tags(self):
        """The tags on the box and the condensing unit."""
        return self.tags_on(BOX)

    @cached_property
    def air_tags(self):
        """Each fan, and where the air was felt weak."""
        return [self.tag(key) for key in AIR]

    @cached_property
    def since_tags(self):
        """How long ago it started, when the last defrost ended, and the pressure at rest."""
        return [self.tag(key) for key in SINCE]

    @cached_property
    def safety_tags(self):
        """The ticks that come before water or hands on the coil."""
        return [self.tag(key) for key in SAFETY if observations.get(key).exists_on(self.unit)]

    @cached_property
    def ice(self):
        """The ice maps of the call."""
        return IceMaps(self.call, self.unit)

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
        return doubts + ([("≈", "pressures of this blend are estimated")] if self.unit.refrigerant.estimated else [])

    @cached_property
    def cards(self):
        verdicts = {verdict.quantity: verdict for verdict in self.judgement.verdicts}
        return [self._card(WATER_CARDS.get(key, key) if self.unit.condensing == "water" else key, verdicts) for key in CARDS]

    def _card(self, key, verdicts):
        quantity, verdict = QUANTITIES[key], verdicts.get(key)
        card = Card(key, quantity.label, self.shown.label(quantity.unit), quantity.meaning)
        facts = self.judgement.facts
        value = facts.derived.get(key)
        felt = facts.felt.get(key) if value is None else None
        if value is None and felt is None:
            return card
        if felt is not None:
            card.value = f"{self.shown.figure(felt.value, quantity.unit, 0)} ± {self.shown.figure(felt.spread, quantity.unit, 0)}"
            card.by_feel = True
        else:
            card.value = self.shown.figure(value, quantity.unit, quantity.decimals)
        if key == "td_f" and "sst_mid_f" in facts.derived:
            # A blend's coil boils from bubble to dew: TD is told from dew, and what it is from the middle is said.
            card.note = f"from mid-point {self.shown.figure(value + facts.derived['sst_f'] - facts.derived['sst_mid_f'], quantity.unit)}"
        ratio = facts.derived.get("ratio")
        if key == "expected_head_psig" and ratio is not None:
            card.note = f"ratio {format_number(ratio)}"
        if verdict is not None:
            card.mark = MARKS[(verdict.state, verdict.trust)]
            card.band = f"{self.shown.figure(verdict.low, quantity.unit, 0)} to {self.shown.figure(verdict.high, quantity.unit, 0)}"
            card.why = verdict.why
            card.scale = scale(verdict)
        return card

    @cached_property
    def other_verdicts(self):
        """Verdicts that have no card, in words."""
        rows = []
        for verdict in self.judgement.verdicts:
            if verdict.quantity not in (*CARDS, *WATER_CARDS.values()):
                label, unit, decimals = quantity_name(verdict.quantity)
                mark = MARKS[(verdict.state, verdict.trust)]
                value = self.shown.text(verdict.value, unit, decimals)
                rows.append((label, value, mark, self.shown.span(verdict.low, verdict.high, unit)))
        return rows

    @cached_property
    def coils(self):
        """Each coil with its superheat, where the unit has several; empty where it has one."""
        if self.unit.evaporators < 2:
            return []
        quantity = QUANTITIES["superheat_evap_f"]
        rows = []
        for number, facts in enumerate(facts_of_coils(self.call, self.shown), start=1):
            verdict = next((v for v in verdicts.on(facts) if v.quantity == quantity.key), None)
            value = f"{self.shown.figure(verdict.value, quantity.unit, 0)}" if verdict else ""
            mark = MARKS[(verdict.state, verdict.trust)] if verdict else ("", "", "")
            word = "iced" if verdicts.coil_iced(facts) else "not read"
            rows.append({"number": number, "value": value, "unit": self.shown.label(quantity.unit), "mark": mark, "word": word})
        return rows

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
        """The ranking with its percentages in words."""
        return [(suspect, format_percent(suspect.probability)) for suspect in self.judgement.ranking]

    @property
    def top_suspects(self):
        return self.suspects[:SUSPECTS_SHOWN]

    @property
    def headline(self):
        """The standing in one line, for the phone's sheet."""
        if self.judgement.problems:
            return "A reading to resolve"
        if not self.judgement.has_evidence:
            return "Nothing judged yet"
        suspect, percent = self.suspects[0]
        return f"{suspect.label} {percent} %"

    @cached_property
    def holds(self):
        """Holds in force, those on the same action under one title."""
        grouped = {}
        for hold in self.judgement.holds:
            grouped.setdefault(hold.title, []).append(hold)
        return list(grouped.items())

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
        checks = self.judgement.next_checks
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
        until = settling_until(self.call)
        return (until, minutes_left(until)) if until else None

    def round(self, here):
        """The stops with their state: here, coming, done, part or open."""
        return [(stop, "here" if stop.slug == here else self._state_of(stop)) for stop in STOPS]

    def _state_of(self, stop):
        if not stop.ready:
            return "coming"
        if stop.slug in ("arrive", "read"):
            tags = self.box_tags if stop.slug == "arrive" else self.tags
            count = sum(tag.taken for tag in tags)
            return "done" if count == len(tags) else "part" if count else "open"
        if stop.slug == "melt":
            last = self.call.melts.filter(undone_at=None).last()
            if last is None:
                return "held" if self.melt_first else "open"
            return "done" if last.clear else "part"
        if stop.slug == "programs":
            sides = {entry.side for entry in self.call.defrostprograms.filter(undone_at=None)}
            return "done" if "left" in sides else "part" if sides else "open"
        if stop.slug == "judge":
            return "part" if self.judgement.has_evidence else "open"
        if stop.slug == "correct":
            return "part" if self.turns or self.changes else "open"
        return "done" if not self.call.is_open else "part" if self.call.found or self.call.done else "open"

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
        return [(turn, adjust.DIRECTIONS[turn.direction], adjust.EFFECT_OF[turn.direction]) for turn in self.turns]

    @property
    def change_words(self):
        """Setting changes with what the setting is called."""
        return [(change, PARAMETERS[change.parameter].label) for change in self.changes]
