"""The simulated unit of a practice call: made from its draw and its steps, and kept while somebody works on it."""

import threading
from collections import OrderedDict
from dataclasses import asdict

from django.db import connection

from kettle.knowledge.equipment import UnitSpec
from kettle.yard import practice as core
from kettle.yard.drawn import Draw

# So many are kept in a process; one is made again from its steps in a few hundredths of a second.
MOST = 32
_kept = OrderedDict()
_lock = threading.RLock()


def stored(draw):
    """A draw as a practice call keeps it."""
    return asdict(draw)


def draw_of(told):
    """The draw that was stored."""
    spec = {**told["spec"], "bands": {name: tuple(band) for name, band in (told["spec"].get("bands") or {}).items()}}
    pairs = {name: tuple(tuple(one) for one in told[name]) for name in ("wrong", "before")}
    open_ = tuple(
        {key: tuple(value) if isinstance(value, list) else value for key, value in one.items()} for one in told.get("laid_open", ())
    )
    return Draw(**{**told, **pairs, "spec": UnitSpec(**spec), "laid_open": open_, "found": tuple(told.get("found", ()))})


def step_of(row):
    """A stored step as the core has it."""
    value = tuple(row.value) if isinstance(row.value, list) else row.value
    return core.Step(row.what, row.of, value, row.minutes, row.at_min, row.says)


def rig_of(practice):
    """The practice of the core as it stands after all its steps."""
    rows = list(practice.steps.all())
    # The word is one of its own: numbers come again in another installation.
    key = (str(connection.settings_dict["NAME"]), practice.pk, practice.key)
    done = tuple((row.pk, row.undone) for row in rows)
    with _lock:
        kept = _kept.pop(key, None)
        if kept is None or kept[0] != done[: len(kept[0])]:
            kept = ((), core.begin(draw_of(practice.drawn)))
        begun, work = kept
        for row in rows[len(begun) :]:
            work.again(step_of(row), row.undone)
        _kept[key] = (done, work)
        while len(_kept) > MOST:
            _kept.popitem(last=False)
    return work


def made_new(practice, upto=None):
    """The same made once more from its beginning, for itself; `upto` is the key of the last step that counts."""
    work = core.begin(draw_of(practice.drawn))
    for row in practice.steps.all():
        if upto is None or row.pk <= upto:
            work.again(step_of(row), row.undone)
    return work
