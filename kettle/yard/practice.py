"""Work on a drawn unit: everything can be asked of it, nothing is given; each thing takes its minutes, and time runs with the work."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Final

import numpy as np

from kettle.benches.ice import melt
from kettle.electrical.measure import Reading, checked, expected
from kettle.judging import stopped
from kettle.judging.course import Course, Done, judge_course
from kettle.judging.facts import Facts
from kettle.judging.holds import action_of, blocking
from kettle.judging.readings import implied_by
from kettle.knowledge import acts, causes, observations, parameters
from kettle.knowledge.cautions import words
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant import faults
from kettle.plant.observer import Rig
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.observer.settings import set_to
from kettle.plant.sizing import sized
from kettle.yard.drawn import Draw, standing_as_drawn
from kettle.yard.put_there import ON_A_PART, part_of, way_of

ASKED, PUT, DID, WAITED, STOPPED, NAMED = "asked", "put", "did", "waited", "stopped", "named"
# A setting; a melt; the thermostat turned down to read it, and back.
SET, DOWN, BACK = "set", "thermostat down", "thermostat back"
BEGUN, RESTED, MELTED = "melt begun", "melt rests", "melted"
# Another fault, put in by who watches.
WORSE: Final = "worse"
METERED: Final = "metered"
# Put on a part of the circuit for now, and taken away again.
PLACED, GONE = "placed", "gone"
METER_SHARE: Final = 0.01
METER_UNITS: Final = {"volts": "V", "ohms": "Ω", "amps": "A"}
# Done by oneself in so many minutes; an act with parts, one without, and what comes before a melt. Judgement of the trade.
PUT_MIN, WITH_PARTS_MIN, WITHOUT_PARTS_MIN, BEFORE_MELT_MIN, SET_MIN, BACK_MIN, MEASURED_MIN = 3.0, 45.0, 10.0, 6.0, 4.0, 1.0, 2.0
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
    melting: str = ""

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
        value, why = self.looked(key)
        # What runs only now and then is read in the minute it runs; the minutes pass after the look.
        self._let_pass(entry.minutes)
        self._see(key, value)
        return self._kept(ASKED, key, value, entry.minutes, why)

    def _see(self, key: str, value: Value | None) -> None:
        """Put down what was seen, and what it says beside itself."""
        if value is None:
            return
        stage = self.stages[-1]
        stage[key] = value
        for implied, said in implied_by(key, stage).items():
            stage.setdefault(implied, said)

    def looked(self, key: str) -> tuple[Value | None, str]:
        """Return what is seen now, and why nothing is; nothing is kept, and no time passes."""
        if self.draw.laid_open:
            stage = self.draw.laid_open[min(len(self.done), len(self.draw.laid_open) - 1)]
            return (stage[key], "") if key in stage else (None, "It was not taken on that call")
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
        self._put(key, value, PUT_MIN)
        return self._kept(PUT, key, value, PUT_MIN)

    def _put(self, key: str, value: Value, minutes: float) -> None:
        self.rig.own[key] = value
        self.rig.rebuild()
        self._take_power()
        self._let_pass(minutes)
        self.stages[-1][key] = value

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
        if refused is None and self.hurts(act):
            refused = self._kept(STOPPED, act.code, None, 0.0, f"{' '.join(sorted(_LOCK_OUT))}: put power_locked_out yes")
        if refused is not None:
            return refused
        minutes = self._melt_min() if act.code == "coil.melted" else minutes_of(act)
        self._do(part, did, amount, minutes)
        return self._kept(DID, act.code, amount, minutes, act.label)

    def hurts(self, act: acts.Act) -> bool:
        """Whether an act asks for power that is off, and it is on."""
        return set(act.caution) >= _LOCK_OUT and self.rig.own.get("power_locked_out") != "yes"

    def _do(self, part: str, did: str, amount: float | None, minutes: float) -> None:
        self.rig.do(part, did, amount)
        self._take_power()
        self.rig.wait(minutes)
        self._next_stage(Done(part, did, amount))

    def _next_stage(self, done: Done) -> None:
        self.done.append(done)
        self.stages.append({key: value for key, value in self.stages[-1].items() if key in OWN_DOING})

    def metered(self, what: str, one: str, other: str, lifted: bool = False) -> float:
        """Return what a meter shows now: volts or ohms between two points, amps round a part; InputError for what cannot be measured.

        Ohms want the power locked out.
        """
        rig = self.rig
        reading = checked(rig.wired.circuit, Reading(what, one, other if what != "amps" else "", 0.0, rig.circuit_state, lifted))
        running = what == "amps" and rig.running and one.startswith("lead_")
        shown = float(rig.flows.amps) if running else float(expected(rig.wired.circuit, reading, (rig.wired.fault,))[0])
        return shown * (1.0 + rig.chance(f"meter {what} {one} {other} {rig.state.hours:.2f}").gauss(0.0, METER_SHARE))

    def measure(self, what: str, one: str, other: str = "") -> Step:
        """Put a meter on two points, or round a part, and read it; stopped where a hold forbids it."""
        self._still_open()
        shows = self.metered(what, one, other)
        refused = self._refused(f"{what} {one} {other}", "resistance_test" if what == "ohms" else None)
        if refused is not None:
            return refused
        self._let_pass(MEASURED_MIN)
        return self._kept(METERED, f"{what} {one} {other}".strip(), shows, MEASURED_MIN, f"{shows:.4g} {METER_UNITS[what]}")

    def place(self, what: str, where: str) -> Step:
        """Put a jumper over a part of the circuit, or lift its lead; stopped where it would take a protection away, or the power is on.

        Raises InputError where the words name no part, or another thing is put there.
        """
        self._still_open()
        if what not in ON_A_PART:
            raise InputError(f"“{what[:20]}” is none of {', '.join(ON_A_PART)}")
        part = part_of(self.rig.wired.circuit, what, where)
        if not part:
            raise InputError(f"“{where[:40]}” names no part of the circuit (points lists them)")
        try:
            way = way_of(self.rig, what, part)
        except InputError as refused:
            return self._kept(STOPPED, part, None, 0.0, str(refused))
        if self.rig.own.get("power_locked_out") != "yes":
            return self._kept(STOPPED, part, None, 0.0, f"{' '.join(sorted(_LOCK_OUT))}: put power_locked_out yes")
        self._put_on(part, way, MEASURED_MIN)
        return self._kept(PLACED, part, way, MEASURED_MIN, self.rig.wired.circuit.part(part).label)

    def take_away(self, part: str) -> Step:
        """Take away what was put on a part; InputError where nothing is."""
        self._still_open()
        if part not in self.rig.put:
            raise InputError(f"“{part[:40]}”: nothing was put there")
        self._put_on(part, None, MEASURED_MIN)
        return self._kept(GONE, part, None, MEASURED_MIN, self.rig.wired.circuit.part(part).label)

    def _put_on(self, part: str, way: str | None, minutes: float) -> None:
        self.rig.put_on(part, way)
        self._take_power()
        self._let_pass(minutes)

    def set(self, code: str, value: float) -> Step:
        """Set a parameter of the controls, in its unit; InputError for one that is not known or a value outside its range."""
        self._still_open()
        parameter = parameters.get(code)
        if not parameter.low <= value <= parameter.high:
            raise InputError(f"{parameter.label} {value:g} is outside {parameter.low:g} to {parameter.high:g} {parameter.unit}")
        self._set(code, value, SET_MIN)
        return self._kept(SET, code, value, SET_MIN, parameter.label)

    def _set(self, code: str, value: float, minutes: float) -> None:
        set_to(self.rig, code, value)
        part, did = parameters.get(code).act
        if part and acts.get(part, did).exists_on(self.rig.unit):
            self.rig.do(part, did)
            self._next_stage(Done(part, did, None))
        self._take_power()
        self.rig.wait(minutes)

    def melt(self, method: str) -> Step:
        """Begin to melt by a method: it goes on with the minutes that pass, until `end_melt`; InputError for a method that is none."""
        self._still_open()
        if method not in melt.METHODS:
            raise InputError(f"Method: “{method[:20]}” is none of {', '.join(melt.METHODS)}")
        self.melting = method
        return self._kept(BEGUN, method, None, 0.0, melt.METHODS[method].label)

    def rest(self) -> None:
        """Let the melt stand, if one goes on."""
        self.melting = ""

    def end_melt(self) -> Step:
        """Melt no more: what is left lies where it lay."""
        self._still_open()
        method, self.melting = self.melting, ""
        self._next_stage(Done("coil", "melted", None))
        return self._kept(MELTED, method, None, 0.0, f"{self.ice_lb:.1f} lb left")

    def _melt_for(self, minutes: float) -> None:
        needs = self.melts_in_min(self.melting)
        if needs is not None:
            self.rig.melt_off(1.0 if needs <= minutes else minutes / needs)

    def melts_in_min(self, method: str) -> float | None:
        """Return how long a method takes for the ice there is, min; None where it melts nothing."""
        ice_lb = self.ice_lb
        way = melt.plan(melt.METHODS[method], self.facts, (ice_lb, ice_lb), FACE_FT2, "hot", self._coil_place)
        return sum(way.minutes) / 2.0 if way.minutes else None

    @property
    def ice_lb(self) -> float:
        """What lies on the coil, lb."""
        return float(self.rig.state.frost_lb.sum() + self.rig.state.ice_lb.sum())

    @property
    def sound_charge_lb(self) -> float:
        """What is in it when it is sound, lb."""
        return float(sized(self.rig.unit).parts.charge_lb[0])

    @property
    def _coil_place(self) -> str:
        return "open" if self.rig.unit.walk_in else "in_cabinet"

    def _worsen(self, code: str, severity: float) -> None:
        """Put another fault in, as it may come on while somebody works."""
        self.draw = replace(self.draw, wrong=(*(one for one in self.draw.wrong if one[0] != code), (code, severity)))
        self.rig.wrong = {**self.rig.wrong, code: severity}
        at_start = faults.get(code).at_start
        if at_start is not None:
            at_start(self.rig.course.state, self.rig.plant, np.array([severity]))
        self.rig.rebuild()

    def again(self, step: Step, undone: bool = False) -> None:
        """Do over a step as it was done: nothing is asked anew, held or judged; of one that was taken back the minutes alone."""
        if undone:
            self._let_pass(step.minutes) if step.minutes else None
        elif step.what == ASKED:
            self._let_pass(step.minutes)
            self._see(step.of, step.value)
        elif step.what == PUT and step.value is not None:
            self._put(step.of, step.value, step.minutes)
        elif step.what == DID:
            part, _, did = step.of.partition(".")
            self._do(part, did, step.value if isinstance(step.value, float) else None, step.minutes)
        elif step.what == SET and isinstance(step.value, float):
            self._set(step.of, step.value, step.minutes)
        elif step.what == BEGUN:
            self.melting = step.of
        elif step.what == RESTED:
            self.melting = ""
        elif step.what == MELTED:
            self.melting = ""
            self._next_stage(Done("coil", "melted", None))
        elif step.what in (PLACED, GONE):
            self._put_on(step.of, step.value if isinstance(step.value, str) else None, step.minutes)
        elif step.what == WORSE and isinstance(step.value, float):
            self._worsen(step.of, step.value)
        elif step.of in (DOWN, BACK):
            self._turn(step.of)
        elif step.minutes:
            self._let_pass(step.minutes)
        self.steps.append(step)
        self.__dict__.pop("course", None)

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
        minutes = self._turn(DOWN)
        return self._kept(WAITED, DOWN, None, minutes, "It runs" if self.rig.running else "It does not run")

    def back(self) -> Step:
        """Turn the thermostat back to where it stood."""
        self._still_open()
        return self._kept(WAITED, BACK, None, self._turn(BACK), "The thermostat is back where it stood")

    def _turn(self, which: str) -> float:
        """Turn the thermostat down, or back; the minutes it took."""
        was, minutes = self.rig.running, BACK_MIN
        if which == DOWN:
            minutes = self.rig.called()
        else:
            self.rig.own.pop("stat_turned_down", None)
            self.rig.rebuild()
            self._take_power()
            self.rig.wait(minutes)
        self._hear(was)
        return minutes

    def name(self, codes: Sequence[str]) -> Step:
        """Say what it is, which ends the work; InputError for a cause that is not known."""
        self._still_open()
        self.named = tuple(causes.get(code).code for code in codes)
        return self._kept(NAMED, "+".join(self.named), None, 0.0)

    def _let_pass(self, minutes: float) -> None:
        """Let the unit run on, min, and hear it start or stop."""
        was = self.rig.running
        if self.melting:
            self._melt_for(minutes)
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
        if stage.get("compressor") == "short_cycling" and not self.rig.running:
            # That it stops again is what was seen of it: a fan that stood while it ran is not seen anew.
            return
        for key in GOES_WITH_IT:
            if key in stage and (now := self.rig.look(key)) is not None:
                stage[key] = now

    def _still_open(self) -> None:
        if self.named is not None:
            raise InputError("this practice call is over: begin another")

    def _melt_min(self) -> float:
        """Minutes of the quickest melt that the ice bench does not refuse, with what comes before it."""
        ways = melt.plans(self.facts, (self.ice_lb, self.ice_lb), FACE_FT2, "hot", self._coil_place)
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


def minutes_of(act: acts.Act) -> float:
    """Return how long an act takes, min: longer where it takes parts."""
    return WITH_PARTS_MIN if act.spares else WITHOUT_PARTS_MIN


def opens_stage(step: Step, unit: Unit) -> bool:
    """Return whether a step changed a unit, so that what is seen after it stands for itself."""
    if step.what == SET:
        part, did = parameters.get(step.of).act
        return bool(part) and acts.get(part, did).exists_on(unit)
    return step.what in (DID, MELTED)


def begin(draw: Draw) -> Practice:
    """Return a practice call at its beginning: what the customer says is known, nothing else."""
    practice = Practice(draw, standing_as_drawn(draw))
    practice.stages[0]["complaint"] = draw.told["complaint"]
    return practice
