"""The programs of a call as dials on paper: as found, and as left."""

from kettle.benches.defrost import dial
from web.benches.defrost import planning

TITLES = {"found": "Program as found", "left": "Program as left"}


def dials_of(call):
    """What each dial draws, one a side that is kept."""
    kept, hours = planning.kept_programs(call), planning.hours_of(call)
    return [_dial(title, planning.program_of(kept[side]), hours) for side, title in TITLES.items() if side in kept]


def _dial(title, program, hours):
    return {
        "title": title,
        "marks": dial.marks(None, None, hours),
        "arcs": dial.arcs(program),
        "ticks": dial.ticks(),
        "dial_size": dial.SIZE,
        "a_day": f"{len(program.starts_min)} a day",
        "side_words": "",
    }
