"""What was done on a call, step by step, each with the row it is kept as."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db.models import Exists, OuterRef

from kettle.benches.valve.adjust import EFFECT_OF
from kettle.call import kinds
from kettle.call.stages import Staged
from kettle.call.turns import turn_words
from kettle.knowledge import acts
from kettle.knowledge.measures import TRADE
from web.logbook.calls.record import record_of
from web.logbook.models import Act, DefrostProgram, Melt, Placed, SettingChange, ValveTurn

INSTANT = timedelta(milliseconds=1)
_STANDS = {"call": OuterRef("pk"), "undone_at": None}
# For a query of calls: whether anything was done, so that a call without acts costs nothing.
HAS_ACTS = {
    f"has_{name}": Exists(model.objects.filter(**_STANDS, **more))
    for name, model, more in (
        ("acts", Act, {}), ("melts", Melt, {}), ("turns", ValveTurn, {}), ("settings", SettingChange, {}), ("placed", Placed, {}),
        ("left", DefrostProgram, {"side": "left"}),
    )
}  # fmt: skip
# What rows are taken back as, by their reference.
KEPT_AS = {"act": "act", "valveturn": "turn", "setting": "setting"}


@dataclass(frozen=True)
class Step:
    """One act of a call: the core's step, and the row it is kept as."""

    step: object
    entry: object = None

    @property
    def at(self) -> datetime:
        """When it was done."""
        return self.step.at

    @property
    def part(self):
        """The part."""
        return self.step.did.part

    @property
    def did(self):
        """What was done to it."""
        return self.step.did.did

    @property
    def value(self):
        """How much of it."""
        return self.step.did.value

    @property
    def coil(self):
        """The coil; None for the whole unit."""
        return self.step.did.on

    @property
    def kept_as(self):
        """What it is taken back as; empty for what its own bench takes back."""
        return KEPT_AS.get(self.step.event.ref.partition(":")[0], "")

    @property
    def act(self):
        """The act in the core's table."""
        return acts.get(self.part, self.did)

    @property
    def settled_at(self):
        """When its clock has run out; None for one that starts none by itself."""
        return self.step.settled_at

    @property
    def aside(self):
        """What was said about it: words, or why against advice."""
        if self.kept_as == "turn":
            why = f". Done against advice ({' '.join(self.entry.objections)}) because: {self.entry.reason}" if self.entry.reason else ""
            return f"To {EFFECT_OF[self.entry.direction]} superheat{why}"
        if self.kept_as != "act":
            return ""
        weighing = getattr(self.entry, "weighing", None)
        return ". ".join(text for text in (self.entry.note, f"By the scale: {weighing}" if weighing else "") if text)

    def words(self, shown):
        """What was done, with how much of it, in words."""
        if self.value is None:
            return self.act.label
        amount = turn_words(self.value) if self.act.unit == "turns" else shown.plain(self.value, self.act.unit)
        return f"{self.act.label}, {amount}"


def acts_of(call, told=None):
    """What was done on a call, in order; `told` is what the core told of it, where somebody asked already."""
    if told is None and not any(getattr(call, name, True) for name in HAS_ACTS):
        return []
    staged = told.call.staged if told is not None else _staged(call)
    refs = [(step, (step.events[-1] if step.events else step.event).ref) for step in staged.steps]
    rows = _rows(call, {ref.partition(":")[0] for _, ref in refs})
    return [Step(step, rows.get(ref)) for step, ref in refs]


def _staged(call):
    record = record_of(call, TRADE, beside=((), {}))
    return Staged(record, kinds.heard(record))


# The rows that acts are kept as, by what they are referred to as.
KEPT_IN = {"act": "acts", "valveturn": "valveturns", "setting": "settingchanges", "melt": "melts", "defrostprogram": "defrostprograms",
           "placed": "left_there"}  # fmt: skip


def _rows(call, kinds_of):
    return {f"{kind}:{row.pk}": row for kind, name in KEPT_IN.items() if kind in kinds_of for row in getattr(call, name).all()}


def stage_at(steps, moment):
    """The stage something was seen in: how many acts were done before."""
    return sum(1 for step in steps if step.at <= moment)
