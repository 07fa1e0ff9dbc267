"""What of a call is written up: each kind of event has its sentence, in its section, before and after the repair apart.

Records that are one thing to a reader are one sentence: lots of gas, turns of a stem, the steps of a change, an evacuation. Readings are
told by what they show: as they were found where they were wrong or decided, and as they were left.
"""

from kettle.benches.report.worded import SECTIONS
from kettle.call.says.acts import act
from kettle.call.says.controls import cycle, program, set_words, setting, talked, watched
from kettle.call.says.gas import first_start, leak_look, nitrogen, retrofit, step, vacuum, weighed, wires
from kettle.call.says.ice import ice, melt
from kettle.call.says.meter import looked, measured, spot
from kettle.call.says.people import (
    came_back,
    cause_label,
    decided,
    found,
    kept,
    left_so,
    note,
    override,
    placed,
    promise,
    sibling,
    used,
    visit,
)
from kettle.call.says.readings import AS_LEFT, WORDS_LEFT, reading
from kettle.call.says.sentence import Sentence

__all__ = [
    "AS_LEFT", "SECTIONS", "Sentence", "WORDS_LEFT", "act", "came_back", "cause_label", "cycle", "decided", "first_start", "found", "ice",
    "kept", "leak_look", "left_so", "looked", "measured", "melt", "nitrogen", "note", "override", "placed", "program", "promise",
    "reading", "retrofit", "set_words", "setting", "sibling", "spot",
    "step", "talked", "used", "vacuum", "visit", "watched", "weighed", "wires",
]  # fmt: skip
