"""Work on a drawn unit: everything can be asked of it, nothing is given; each thing takes its minutes, and time runs with the work."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Final

from kettle.benches.ice import melt
from kettle.judging import stopped
from kettle.judging.course import Course, Done, judge_course
from kettle.judging.facts import Facts
from kettle.judging.holds import action_of, blocking
from kettle.judging.readings import implied_by
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.cautions import words
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant.observer import Rig
from kettle.plant.observer.rig import OWN_DOING
from kettle.yard.drawn import Draw, standing_as_drawn

ASKED, PUT, DID, WAITED, STOPPED, NAMED = "asked", "put", "did", "waited", "stopped", "named"
# Done by oneself in so many minutes; an act with parts, one without, and what comes before a melt. Judgement of the trade.
PUT_MIN, WITH_PARTS_MIN, WITHOUT_PARTS_MIN, BEFORE_MELT_MIN = 3.0, 45.0, 10.0, 6.0
LONGEST_WAIT_MIN: Final = 7.0 * 24.0 * 60.0
FACE_FT2: Final = 4.0
# What shows nothing while the power is locked out.
NEEDS_POWER: Final = (
    *(key for key in acts.RUNNING if key != "compressor_shell"), *stopped.FLOW, "compressor", "evap_fans", "condenser_fans", "contactor",
    "control_call",
)  # fmt: skip
# What starts and stops with the compressor, and is heard or seen from where one stands.
GOES_WITH_IT: Final = ("compressor", "condenser_fans", "control_call", "contactor")
_LOCK_OUT: Final = set(words("lock_out"))


@dataclass(frozen=True)
class Step:
    """One thing asked, put, done, waited for, stopped or named: `of` what, what came of it, its minutes, and the minute it began at."""

    what: str
    of: str
    value: Value | None
    minutes: float
    at_min: float
    says: str = ""


@dataclass
class Practice:
    """A practice call at work. What was seen stands in `stages`, what was done between them in `done`, everything in `steps`."""

    draw: Draw
    rig: Rig
    steps: list[Step] = field(default_factory=list)
    stages: list[dict[str, Value]] = field(default_factory=lambda: [{}])
    done: list[Done] = field(default_factory=list)
    named: tuple[str, ...] | None = None

    @property
    def minutes(self) -> float:
        """How long ago somebody came, min."""
        return sum(step.minutes for step in self.steps)

    @cached_property
    def course(self) -> Course:
        """What Judge makes of everything asked and done until now."""
        return judge_course(self.rig.unit, self.stages, self.done)

    @property
    def facts(self) -> Facts:
        """What is known by now."""
        return self.course.now.facts

    def ask(self, key: str) -> Step:
        """Take one observation; its value is None where it cannot be had now, and the step `stopped` where a hold forbids it.

        Raises InputError for what is not known or this unit has not.
        """
        self._still_open()
        entry = observations.get(key).on(self.rig.unit)
        if not entry.exists_on(self.rig.unit):
            raise InputError(f"{entry.label}: a {self.rig.unit.build} has none")
        if key in OWN_DOING:
            raise InputError(f"{entry.label} is yours to do: put {key} yes")
        refused = self._refused(key, action_of(entry))
        if refused is not None:
            return refused
        value, why = self._looked(key)
        # What runs only now and then is read in the minute it runs; the minutes pass after the look.
        self._let_pass(entry.minutes)
        if value is None:
            return self._kept(ASKED, key, None, entry.minutes, why)
        stage = self.stages[-1]
        stage[key] = value
        for implied, said in implied_by(key, stage).items():
            stage.setdefault(implied, said)
        return self._kept(ASKED, key, value, entry.minutes)

    def _looked(self, key: str) -> tuple[Value | None, str]:
        """What is seen now, and why nothing is."""
        if key in self.draw.told:
            return self.draw.told[key], ""
        if self.rig.own.get("power_locked_out") == "yes" and key in NEEDS_POWER:
            return None, "The power is locked out"
        stands = not self.rig.running and key in (*acts.RUNNING, *stopped.FLOW)
        # Of one that was seen to run it would be taken for that of a unit that runs.
        value = None if stands and self._seen_running else self.rig.look(key)
        return value, "It cannot be had while the compressor stands" if stands else "It cannot be had now"

    @property
    def _seen_running(self) -> bool:
        return self.stages[-1].get("compressor") in ("running", "short_cycling")

    def put(self, key: str, word: str) -> Step:
        """Do what a technician does himself before hands go on (lock out, block the latch), or undo it; InputError for anything else."""
        self._still_open()
        entry = observations.get(key)
        if key not in OWN_DOING or not entry.exists_on(self.rig.unit):
            raise InputError(f"{entry.label} is not yours to put: ask {key}")
        value = entry.check(word)
        refused = self._refused(key, "power_on") if (key, value) == ("power_locked_out", "no") else None
        if refused is not None:
            return refused
        self.rig.own[key] = value
        self.rig.rebuild()
        self._take_power()
        self._let_pass(PUT_MIN)
        self.stages[-1][key] = value
        return self._kept(PUT, key, value, PUT_MIN)

    def do(self, part: str, did: str, amount: float | None = None) -> Step:
        """Do something to a part, oz or turns where the act has an amount; stopped where a hold forbids it or the power should be off.

        Raises InputError for what is not known or cannot be done on this unit.
        """
        self._still_open()
        act = acts.get(part, did)
        if not act.exists_on(self.rig.unit):
            raise InputError(f"{act.label}: cannot be done on a {self.rig.unit.build}")
        amount = act.check(amount)
        if act.unit and amount is None:
            raise InputError(f"{act.label}: say how much, {act.unit}")
        refused = self._refused(act.code, act.held_as or None)
        if refused is None and set(act.caution) >= _LOCK_OUT and self.rig.own.get("power_locked_out") != "yes":
            refused = self._kept(STOPPED, act.code, None, 0.0, f"{' '.join(sorted(_LOCK_OUT))}: put power_locked_out yes")
        if refused is not None:
            return refused
        minutes = self._melt_min() if act.code == "coil.melted" else WITH_PARTS_MIN if act.spares else WITHOUT_PARTS_MIN
        self.rig.do(part, did, amount)
        self._take_power()
        self.rig.wait(minutes)
        self.done.append(Done(part, did, amount))
        self.stages.append({key: value for key, value in self.stages[-1].items() if key in OWN_DOING})
        return self._kept(DID, act.code, None, minutes, act.label)

    def wait(self, minutes: float) -> Step:
        """Let the unit run on, up to a week, min; InputError outside 0 to that."""
        self._still_open()
        if not 0.0 < minutes <= LONGEST_WAIT_MIN:
            raise InputError(f"wait {minutes:g} is outside 0 to {LONGEST_WAIT_MIN:g} min")
        self._let_pass(minutes)
        return self._kept(WAITED, "", None, minutes)

    def run(self) -> Step:
        """Turn the thermostat down and wait until the circuit can be read, at most two hours."""
        self._still_open()
        was, minutes = self.rig.running, self.rig.called()
        self._hear(was)
        return self._kept(WAITED, "thermostat down", None, minutes, "It runs" if self.rig.running else "It does not run")

    def name(self, codes: Sequence[str]) -> Step:
        """Say what it is, which ends the work; InputError for a cause that is not known."""
        self._still_open()
        self.named = tuple(causes.get(code).code for code in codes)
        return self._kept(NAMED, "+".join(self.named), None, 0.0)

    def _let_pass(self, minutes: float) -> None:
        """Let the unit run on, min, and hear it start or stop."""
        was = self.rig.running
        self.rig.wait(minutes)
        self._hear(was)

    def _take_power(self) -> None:
        """Locked out it stands, and its box warms while one is slow."""
        if self.rig.own.get("power_locked_out") == "yes":
            self.rig.plant.parts.can_run[:] = 0.0

    def _hear(self, was_running: bool) -> None:
        """Where the compressor started or stopped meanwhile, what was seen of what goes with it is seen as it is now."""
        if was_running == self.rig.running or self.rig.own.get("power_locked_out") == "yes":
            return
        stage = self.stages[-1]
        for key in GOES_WITH_IT:
            if key in stage and (now := self.rig.look(key)) is not None:
                stage[key] = now

    def _still_open(self) -> None:
        if self.named is not None:
            raise InputError("this practice call is over: begin another")

    def _melt_min(self) -> float:
        """Minutes of the quickest melt that the ice bench does not refuse, with what comes before it."""
        ice_lb = float(self.rig.state.frost_lb.sum() + self.rig.state.ice_lb.sum())
        ways = melt.plans(self.facts, (ice_lb, ice_lb), FACE_FT2, "hot", "open" if self.rig.unit.walk_in else "in_cabinet")
        spans = [way.minutes for way in ways if way.minutes]
        return BEFORE_MELT_MIN + (sum(spans[0]) / 2.0 if spans else 0.0)

    def _refused(self, of: str, action: str | None) -> Step | None:
        """The step that was stopped, where a hold forbids what was about to be done."""
        holds = blocking(list(self.course.now.holds), action) if action else []
        if not holds:
            return None
        return self._kept(STOPPED, of, None, 0.0, f"{holds[0].title}: {holds[0].text}. Not until {holds[0].until}")

    def _kept(self, what: str, of: str, value: Value | None, minutes: float, says: str = "") -> Step:
        step = Step(what, of, value, minutes, self.minutes, says)
        self.steps.append(step)
        self.__dict__.pop("course", None)
        return step


def begin(draw: Draw) -> Practice:
    """Return a practice call at its beginning: what the customer says is known, nothing else."""
    practice = Practice(draw, standing_as_drawn(draw))
    practice.stages[0]["complaint"] = draw.told["complaint"]
    return practice
