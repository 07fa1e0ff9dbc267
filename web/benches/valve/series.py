"""Superheat over time on a call: from what was read, and from what its probes told since."""

from dataclasses import dataclass

from kettle.benches.valve import adjust
from kettle.benches.valve.course import Turned, points_of, settling
from kettle.benches.valve.learn import answers, learned, next_turn, without_answer
from kettle.judging.facts import Facts
from kettle.knowledge.bands import default_band
from web import work_time
from web.links.probes import link
from web.logbook.calls.courses import acts_of
from web.logbook.calls.judging import value_of
from web.logbook.models import Call, ValveTurn

# Earlier calls are looked through for the last turn so far back.
EARLIER_CALLS = 10
# Of what probes told one reading in so many minutes is drawn.
PROBES_EVERY_MIN = 0.25


@dataclass
class Series:
    """Superheat of one coil over the minutes of a call with its turns, and what the core says of it."""

    unit: object
    shown: object
    now_min: float
    points: list
    turns: list
    others_min: list

    @property
    def band(self):
        """The wanted band, °F."""
        return default_band(self.unit, "superheat_evap_f")

    @property
    def settling(self):
        """How settled it is now."""
        return settling(self.points, self.turns, self.now_min, self.shown)

    @property
    def answers(self):
        """What each turn brought."""
        return answers(self.points, self.turns, self.others_min)

    @property
    def learned(self):
        """What a turn does on this valve."""
        return learned(self.answers)

    @property
    def without_answer(self):
        """Whether two turns moved nothing."""
        return without_answer(self.answers)

    @property
    def next(self):
        """The next turn, where superheat may be judged; None while it moves or nothing was read."""
        if not self.points or not self.settling.done:
            return None
        return next_turn(self.points[-1].superheat_f, *self.band, self.learned, self.shown)


def series_of(call, unit, shown, coil=1):
    """The series of a call's coil, until now or until it was closed."""
    began, ends = call.opened_at, call.closed_at or work_time.now()

    def minutes(moment):
        return (moment - began).total_seconds() / 60.0

    def read(key, of_coil=False):
        rows = [r for r in call.readings.all() if r.key == key and r.undone_at is None and isinstance(r.value, int | float)]
        return [(minutes(r.at), float(r.value)) for r in rows if not of_coil or (r.evaporator or 1) == coil]

    lines, suctions, boxes = read("suction_line_evap_f", True), read("suction_psig"), read("box_temp_f") + read("return_air_f")
    points = points_of(unit.refrigerant, unit.altitude_ft, lines, suctions, boxes)
    if call.is_open and coil == 1 and call.unit.probes:
        points = sorted(points + _told_by_probes(link(call.unit.probes), unit, began), key=lambda one: one.at_min)
    turns = [Turned(minutes(t.at), t.turns if t.direction == "out" else -t.turns) for t in turns_of(call, coil)]
    others = [minutes(step.at) for step in acts_of(call) if step.kept_as != "turn" and not step.act.still]
    return Series(unit, shown, minutes(ends), points, turns, others)


def seen_of_valve(call, standing, until=None, response_from=None):
    """What was seen of the valve and its supply: a turn of the stem makes none of it untrue. `until` leaves out what came later,
    `response_from` an answer to the bulb from before."""
    seen = {}
    for row in call.readings.all():
        late = until is not None and row.at > until
        early = response_from is not None and row.key == "valve_response" and row.at <= response_from
        if row.undone_at is None and not late and not early and (row.evaporator or 1) == standing.coil:
            seen[row.key] = value_of(row)
    return Facts(standing.unit, seen, shown=standing.shown)


def turns_of(call, coil):
    """The turns of one coil's stem that stand, in their order."""
    return [turn for turn in call.valveturns.filter(undone_at=None) if (turn.evaporator or 1) == coil]


def _told_by_probes(probes, unit, began):
    lines, kept, last = probes.since("suction_line_evap_f", began), [], -PROBES_EVERY_MIN
    for at, value in lines:
        if at - last >= PROBES_EVERY_MIN:
            kept.append((at, value))
            last = at
    return points_of(unit.refrigerant, unit.altitude_ft, kept, probes.since("suction_psig", began), probes.since("return_air_f", began))


def drift_of(call, series, coil=1):
    """What it means that the valve was set on an earlier call and reads otherwise now: words and that call; None where it does not."""
    untouched = [one for one in series.points if not series.turns or one.at_min < series.turns[0].at_min]
    if not untouched:
        return None
    turned = (
        ValveTurn.objects.filter(call__unit=call.unit_id, undone_at=None).exclude(call=call.pk).filter(call__opened_at__lt=call.opened_at)
    )
    numbers = list(turned.order_by("-at").values_list("call", flat=True)[:EARLIER_CALLS])
    if not numbers:
        return None
    before = Call.objects.select_related("unit__site").get(pk=numbers[0])
    earlier = series_of(before, series.unit, series.shown, coil)
    after = [one for one in earlier.points if earlier.turns and one.at_min > earlier.turns[-1].at_min]
    if not after:
        return None
    words = adjust.drifted(after[-1].superheat_f, untouched[0].superheat_f, *series.band, series.shown)
    return (words, before) if words else None
