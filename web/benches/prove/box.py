"""A box watched down on a call: its course as the core expects it, readings on it, what they say, and the drawing of it."""

from dataclasses import dataclass
from datetime import timedelta

from kettle.benches.prove.drawing import drawn
from web import work_time
from web.links.probes import link

PROBES_EVERY_MIN = 2.0
# The reading that began the watch is its start, not one on its course.
JUST_AFTER_MIN = 0.005


@dataclass
class Box:
    """A watched box: the entry, what is expected, readings (minutes, °F), what they say, and the drawing."""

    watch: object
    expected: object
    readings: list
    told: object
    drawing: object
    now_min: float

    @property
    def left_min(self):
        """Minutes until it is at set by the middle of what is expected; None where that is not in sight, 0 where it is there."""
        if self.told.state == "at_set":
            return 0.0
        middle = self.expected.at_set_min[1]
        return None if middle is None else max(middle - self.now_min, 5.0)

    def at(self, minutes):
        """The moment of a minute of the course; None for none."""
        return None if minutes is None else self.watch.at + timedelta(minutes=minutes)

    @property
    def at_set(self):
        """When it is at set: soonest, middle, latest."""
        return [self.at(minutes) for minutes in self.expected.at_set_min]

    @property
    def judged_at(self):
        """When superheat may be judged, by the middle."""
        return self.at(self.expected.judged_min[1])


def box_of(call, standing):
    """The box of a call that is watched; None where none is."""
    watch = call.box_watches.filter(undone_at=None).last()
    if watch is None:
        return None
    # The plant model takes a second to load: only where a box is watched.
    from kettle.benches.prove import pull_down

    unit, shown = standing.unit, standing.shown
    readings = readings_of(call, watch)
    course = pull_down.expected(unit, watch.from_f, watch.ambient_f, watch.stock, readings[1:])
    told = pull_down.watched(unit, course, readings[1:], standing.judgement.facts.seen, shown)
    now_min = ((call.closed_at or work_time.now()) - watch.at).total_seconds() / 60.0
    return Box(watch, course, readings, told, drawn(unit, course, readings, now_min, shown), now_min)


def readings_of(call, watch):
    """The box since it is watched: what was read, and what its probes told; (minutes, °F) in their order."""
    found = [((one.at - watch.at).total_seconds() / 60.0, float(one.value)) for one in call.readings.all()
             if one.key == "box_temp_f" and one.undone_at is None and one.at >= watch.at]  # fmt: skip
    probes = link(call.unit.probes) if call.is_open else None
    if probes is not None:
        last = -PROBES_EVERY_MIN
        for minutes, value in probes.since("box_temp_f", watch.at):
            if minutes - last >= PROBES_EVERY_MIN:
                found.append((minutes, value))
                last = minutes
    return [(0.0, watch.from_f), *sorted(one for one in found if one[0] > JUST_AFTER_MIN)]
