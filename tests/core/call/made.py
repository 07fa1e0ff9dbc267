"""Records made by hand: a unit and what happened on it, a minute apart."""

import json
from datetime import UTC, datetime

from kettle import case
from kettle.call import tell

COOLER = {"kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": 36}
FREEZER = {"kind": "walk_in_freezer", "refrigerant": "R-404A", "set_f": -5, "compressor_rla_a": 14.0, "nameplate_v": 230, "phases": 3}
REACH_IN = {"kind": "reach_in_cooler", "refrigerant": "R-134a", "set_f": 37}
BEGAN = datetime(2026, 3, 2, 6, 0, tzinfo=UTC)
BARE = {"rows": [".........."] * 5, "places": {"coil_back": "none", "inside_corners": "none"}}


def read(key, value, at=None, **more):
    """A reading; `at` is minutes after the call began."""
    return happened("reading", at, key=key, value=value, **more)


def did(part, what, at=None, **more):
    """An act."""
    return happened("act", at, part=part, did=what, **more)


def happened(kind, at=None, **more):
    """An event of a kind."""
    when = {} if at is None else {"at": (BEGAN.timestamp() + 60 * at)}
    if when:
        when["at"] = datetime.fromtimestamp(when["at"], UTC).isoformat()
    return {**when, "kind": kind, **more}


def text(unit, *events):
    """The text of a call file."""
    return json.dumps({"format": "orange-kettle/case", "version": 2, "unit": unit, "events": list(events)})


def record(unit, *events):
    """The record of a call."""
    return case.read_call(text(unit, *events))


def told(unit, *events):
    """What is told of a call."""
    return tell(record(unit, *events))


def said(call, section=""):
    """The write-up as one text, of one section or of all."""
    return " ".join(one.text for one in call.sentences if section in ("", one.section))
