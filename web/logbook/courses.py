"""The course of a call from what is recorded on it: acts, melts, turns of the stem, settings and programs open its stages."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db.models import Exists, OuterRef

from kettle.benches.valve.adjust import EFFECT_OF
from kettle.judging.course import Done
from kettle.knowledge import acts, anatomy
from kettle.knowledge.parameters import PARAMETERS
from web.logbook.models import Act, DefrostProgram, Melt, SettingChange, ValveTurn

INSTANT = timedelta(milliseconds=1)
AT_ONE_GO = timedelta(minutes=10)
TURNED = {"in": "turned_in", "out": "turned_out"}
_STANDS = {"call": OuterRef("pk"), "undone_at": None}
# For a query of calls: whether there is anything to look for, so that a call without acts costs nothing.
HAS_ACTS = {
    "has_acts": Exists(Act.objects.filter(**_STANDS)),
    "has_melts": Exists(Melt.objects.filter(**_STANDS)),
    "has_turns": Exists(ValveTurn.objects.filter(**_STANDS)),
    "has_settings": Exists(SettingChange.objects.filter(**_STANDS)),
    "has_left": Exists(DefrostProgram.objects.filter(side="left", **_STANDS)),
}


@dataclass(frozen=True)
class Step:
    """One act of a call: when, what, how much, on which coil (None: the whole unit), and what it is kept as."""

    at: datetime
    part: str
    did: str
    value: float | None = None
    coil: int | None = None
    entry: object = None

    @property
    def kept_as(self):
        """What it is taken back as; empty for what its own bench takes back."""
        return {"Act": "act", "ValveTurn": "turn", "SettingChange": "setting"}.get(type(self.entry).__name__, "")

    @property
    def act(self):
        """The act in the core's table."""
        return acts.get(self.part, self.did)

    @property
    def settled_at(self):
        """When its clock has run out; None for one that starts none by itself."""
        if self.act.still or self.part in ("coil", "program") or not self.act.settles_min:
            return None
        return self.at + timedelta(minutes=self.act.settles_min)

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

    def on_coil(self, coil):
        """The act as it concerns one coil."""
        return Done(self.part, self.did, self.value, self.coil is not None and self.coil != coil)

    def words(self, shown):
        """What was done, with how much of it, in words."""
        return self.act.label if self.value is None else f"{self.act.label}, {shown.plain(self.value, self.act.unit)}"


def acts_of(call):
    """What was done on a call, in order."""
    sources = {"has_acts": _acts, "has_melts": _melts, "has_turns": _turns, "has_settings": _settings, "has_left": _programs}
    steps = [step for known, found in sources.items() if getattr(call, known, True) for step in found(call)]
    programs = {step.at for step in steps if step.part == "program"}
    # A program left writes its settings down one by one: that was one thing done.
    steps = [step for step in steps if step.kept_as != "setting" or step.at not in programs]
    return _at_one_go(sorted(steps, key=lambda step: step.at))


def _at_one_go(steps):
    """Settings of one device changed one after another are one act: the last of them opens the stage."""
    kept = []
    for step in steps:
        before = kept[-1] if kept else None
        same = before is not None and before.kept_as == step.kept_as == "setting" and (before.part, before.did) == (step.part, step.did)
        if same and step.at - before.at < AT_ONE_GO:
            kept.pop()
        kept.append(step)
    return kept


def _acts(call):
    for act in call.acts.select_related("weighing"):
        if act.undone_at is None:
            yield Step(act.at, act.part, act.did, act.value, act.evaporator, act)


def _melts(call):
    """A melt changes the coil from its start, or from the first look after it where nobody said when it began."""
    after = [drawing.at for drawing in call.icedrawings.all() if drawing.stage == "after" and drawing.undone_at is None]
    for melt in call.melts.all():
        if melt.undone_at is None and melt.ended_at is not None:
            began = min([melt.at, *(at for at in after if at <= melt.ended_at)])
            yield Step(began - INSTANT, "coil", "melted", entry=melt)


def _turns(call):
    for turn in call.valveturns.all():
        if turn.undone_at is None:
            yield Step(turn.at, "valve", TURNED[turn.direction], turn.turns, turn.evaporator, turn)


def _settings(call):
    """A setting that was changed is an act on what it belongs to, as the unit is built."""
    unit = call.unit.resolved()
    for change in call.settingchanges.all():
        part, did = PARAMETERS[change.parameter].act
        if change.undone_at is None and part and change.as_found != change.as_left:
            part, did = (part, did) if anatomy.get(part).exists_on(unit) else ("parameters", "changed")
            yield Step(change.at, part, did, entry=change)


def _programs(call):
    """A program left otherwise than it was found."""
    kept = {}
    for program in DefrostProgram.objects.filter(call=call, undone_at=None).order_by("at", "pk"):
        kept[program.side] = program
    found, left = kept.get("found"), kept.get("left")
    if found and left and (found.starts, found.figures) != (left.starts, left.figures):
        yield Step(left.at, "program", "changed", entry=left)


def stage_at(steps, moment):
    """The stage something was seen in: how many acts were done before."""
    return sum(1 for step in steps if step.at <= moment)


def taken_while_settling(steps, key, moment, now):
    """Whether a figure of the running circuit was taken inside a clock that has run out since: it never was one of a settled unit."""
    if key not in acts.RUNNING:
        return False
    return any(step.settled_at is not None and step.at <= moment < step.settled_at <= now for step in steps)
