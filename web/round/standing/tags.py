"""Entry fields: an observation, what stands, and what is wrong with what was just typed."""

from dataclasses import dataclass, field

from kettle.judging.readings import RUNNING_ON
from kettle.knowledge import observations, plausible
from kettle.knowledge.measures import TRADE, ShownUnits, format_number, vacuum_inhg
from web.logbook.calls.judging import value_of
from web.round.drawing import Place
from web.round.standing.fans import fans_of

# Kinds whose air is felt at each of their doors.
CASES_WITH_DOORS = ("display", "bottle", "reach_in", "prep_rail")
# The mark of a reading taken longer ago than it stays fresh.
OLD = "◷"
# The mark of a reading taken from a probe.
PROBE = "⌁"
# The mark of a value that a stand-in said: no measurement.
SIMULATED = "∿"


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
    simulated: bool = False
    kept_as_typed: str = ""
    held: str = ""
    was: str = ""
    was_shown: str = ""
    by_act: bool = False
    has_doors: bool = True
    fans: int = 0

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
    def printed(self):
        """What stands, or in brackets what was read before an act made it past, as a printed drawing has it."""
        return self.figure if self.taken else f"({self.was})" if self.was else "–"

    @property
    def printed_unit(self):
        """The unit beside a printed figure; one in brackets has no room for it."""
        return self.unit if self.entry.is_number and self.taken else ""

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
        if self.was:
            words.insert(0, f"Was {self.was} before what was done since: {'so it stands by that' if self.by_act else 'read it again'}.")
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
    def is_yes_no(self):
        """Whether it is only done or not: one tick says it."""
        return [code for code, _ in self.entry.choices] in (["yes", "no"], ["no", "yes"])

    @property
    def choices(self):
        """The words there are on this unit: only a case with doors has its air felt at each, and no more fans than are drawn."""
        kept = self.selected if self.taken else ()
        return [(code, words) for code, words in self.entry.choices if code in kept or self._is_there(code)]

    def _is_there(self, code):
        if code.startswith("fan_") and self.fans:
            return int(code.removeprefix("fan_")) <= self.fans
        return self.has_doors or not code.startswith("door_")

    @property
    def selected(self):
        """The words that stand, for ticking choices."""
        return self.value if isinstance(self.value, (list, tuple)) else [self.value]


def _stands(reading, key, facts):
    """What stands of an observation: its value now, what was read before an act made it past, and whether an act set it."""
    seen = facts.seen.get(key)
    if reading is None:
        return None, None, False
    if key in RUNNING_ON or seen == value_of(reading):
        return reading.value, None, False
    if seen is None or isinstance(seen, float):
        return None, reading.value, False
    return list(seen) if isinstance(seen, tuple) else seen, reading.value, True


def tag_of(standing, key, place=None, number=0):
    """The entry field of an observation; the standing's `wrong` maps a key to what was typed and what is wrong with it."""
    reading = standing.readings.get(key)
    typed, error = standing.wrong.get(key, ("", ""))
    error = error.removeprefix(f"{observations.get(key).label}: ")
    problem = next((p.text for p in standing.judgement.problems if key in p.keys), "")
    entry, facts = observations.get(key).on(standing.unit), standing.judgement.facts
    value, was, by_act = _stands(reading, key, facts)
    tag = Tag(entry, value, typed, error, problem, place, number, shown_in=standing.shown)
    tag.has_doors = key != "air_weak_at" or standing.unit.kind.code.startswith(CASES_WITH_DOORS)
    # One more than is drawn: a coil may have it.
    still = [int(word.removeprefix("fan_")) for word in value or () if word != "none"] if key == "fans_still" else []
    tag.fans = max([fans_of(standing.unit), *still]) + 1 if key == "fans_still" else 0
    tag.by_act, tag.was = by_act, entry.show(was, with_unit=False, shown=standing.shown) if was is not None else ""
    tag.was_shown = entry.show(was, shown=standing.shown) if was is not None else ""
    span = plausible.usual_range(entry, standing.unit)
    tag.usual = standing.shown.span(*span, entry.unit) if span else ""
    if reading and value is not None and facts.is_old(key):
        tag.old = f"{facts.ages_min[key]:.0f} min old"
    if value is not None and span and not span[0] <= value <= span[1]:
        tag.unusual = "unusual"
    tag.held = next((hold.text for hold in standing.judgement.holds if hold.code in entry.holds), "")
    tag.kept_as_typed = reading.typed if reading and entry.is_number and standing.shown.in_other_unit(reading.typed, entry.unit) else ""
    tag.source = reading.source if reading and reading.source.startswith(("probe ", "controller")) else ""
    tag.simulated = bool(reading) and reading.is_simulated
    tag.beside = tag.vacuum or ("?" if tag.unusual else OLD if tag.old else SIMULATED if tag.simulated else PROBE if tag.source else "")
    if key == "display_temp_f" and "sensor_error_f" in standing.readings:
        tag.beside = f"{standing.shown.figure(standing.readings['sensor_error_f'].value, '°F diff')} off"
    return tag
