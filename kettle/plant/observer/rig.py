"""The unit at a moment: looked at, waited for, worked on."""

import random
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Final

import numpy as np

from kettle.knowledge import acts, observations
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant import faults
from kettle.plant.observer.scatter import scattered
from kettle.plant.observer.wired import Wired
from kettle.plant.parts import Plant
from kettle.plant.rows import Figures
from kettle.plant.run import Course, run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

# An act that puts a cause right in at least this share of cases does it here.
CURES_FROM: Final = 0.5
LB_PER_OZ: Final = 1.0 / 16.0
BTU_H_PER_W: Final = 3.412
# What a technician does himself before hands go on; asked of the unit, it is as he left it.
OWN_DOING: Final = ("power_locked_out", "parts_protected", "latch_blocked", "someone_outside", "condenser_blocking", "charge_weighed")
# So many units have a regulator in their suction line; judgement of the trade.
REGULATED: Final = 0.25
# The circuit has settled this long after its start, and is waited for at most so long.
SETTLES_H: Final = 0.2
LONGEST_WAIT_H: Final = 2.0
PATIENCE_MIN: Final = 20.0
# Starts are counted over so long; from so many an hour a compressor short-cycles, and is read this share of its cycle after a start.
COUNTED_H: Final = 1.0
SHORT_CYCLES_AN_HOUR: Final = 7.0
SHORT_RUN_SHARE: Final = 0.12
LEAST_RUN_H: Final = 0.2 / 60.0
# How far a thermostat is turned down so that a unit runs while it is read, °F.
TURNED_DOWN_F: Final = 15.0
# A fan delay that is bridged lets go at any coil, °F.
NO_DELAY_F: Final = 999.0
# The last stretch that shows which way the box goes.
TREND_H: Final = 0.75
DAY_H: Final = 24.0
# The state of the circuit in which everything is called, its fan, the air that still goes where it stands, and what a shut valve lets by.
CALLED, FAN, STANDS_SHARE, SHUT_SHARE = "calling", "fan_1", 0.03, 0.001


@dataclass
class Rig:
    """A unit with faults (code -> severity), run to a moment; `own` is what the technician did to it himself.

    `left` are figures of its parts that somebody set, `found` those that stay as they were found beside them. `put` is what was put on the
    parts of its circuit for now: part -> way it then is in.
    """

    unit: Unit
    outside_f: float
    wrong: dict[str, float]
    seed: int
    plant: Plant
    course: Course
    own: dict[str, Value] = field(default_factory=dict)
    left: dict[str, float] = field(default_factory=dict)
    found: dict[str, float] = field(default_factory=dict)
    put: dict[str, str] = field(default_factory=dict)
    added_lb: float = 0.0
    turns: float = 0.0
    starts: list[tuple[float, float]] = field(default_factory=list)
    takes_any_run: bool = False
    has_regulator: bool = field(init=False)

    def __post_init__(self) -> None:
        """A regulator sits in the suction line where one shuts too far, and of some other units."""
        self.has_regulator = "suction_regulator_shut" in self.wrong or self.chance("suction_regulator").random() < REGULATED

    @property
    def state(self) -> Any:
        """The one row of the plant's state."""
        return self.course.state[0]

    @property
    def flows(self) -> Any:
        """The one row of what the circuit does."""
        return self.course.flows[0]

    @property
    def parts(self) -> Any:
        """The one row of its parts."""
        return self.plant.parts[0]

    @property
    def running(self) -> bool:
        """Whether the compressor runs."""
        return bool(self.state.running > 0)

    @property
    def dial_f(self) -> float:
        """Where its thermostat is set, °F, also while it is turned down to be read."""
        return self.left.get("set_f", self.unit.set_f)

    @property
    def contactor_in(self) -> bool:
        """Whether its contactor is pulled in, as it is on a compressor that is called and does not run."""
        if self.own.get("power_locked_out") == "yes":
            return False
        if self.parts.can_run > 0:
            return self.running
        return self.wired.works("contactor_coil", self.circuit_state)

    @cached_property
    def wired(self) -> Wired:
        """Its circuit with what is wrong in it."""
        return Wired(self.unit, self.wrong, float(self.parts.heater_rated_btu_h) / BTU_H_PER_W, self.put)

    @property
    def circuit_state(self) -> str:
        """The state its circuit is in: what the control does with it now."""
        if self.own.get("power_locked_out") == "yes":
            return "locked_out"
        if self.state.defrosting > 0:
            return "defrosting"
        if self.state.dripping_h > 0:
            return "dripping"
        if self.running:
            return "calling" if self.state.liquid_call > 0 else "pumping_down"
        # One that cannot run stands there called; where the call does not come through, its pump-down left it off.
        called = self.parts.can_run <= 0 and self.wired.called
        return "calling" if called else "off"

    @property
    def defrosting(self) -> bool:
        """Whether a defrost is on, with its drip."""
        return bool(self.state.defrosting > 0 or self.state.dripping_h > 0)

    def marks(self, key: str) -> Value | None:
        """What the faults show at the very part, None where none of them shows there."""
        shown = next((faults.FAULTS[code].seen[key] for code in self.wrong if key in faults.FAULTS[code].seen), None)
        # One that is not called neither hums nor trips, whatever ails it.
        return "off" if key == "compressor" and shown is not None and not self.contactor_in else shown

    def chance(self, key: str) -> random.Random:
        """Chance that belongs to one observation of this unit: the same each time it is looked at."""
        return random.Random(f"{self.seed} {key}")

    def look(self, key: str) -> Value | None:
        """Return an observation as it stands now with its scatter; None where it cannot be had now.

        Raises InputError for a key that is not known, or of something the unit has not.
        """
        # The answers know the rig.
        from kettle.plant.observer import answers

        entry = observations.get(key)
        if not entry.exists_on(self.unit):
            raise InputError(f"{entry.label}: a {self.unit.build} has none")
        if key in OWN_DOING:
            return self.own.get(key, "none" if key == "condenser_blocking" else "no")
        marked = self.marks(key)
        value = marked if marked is not None else answers.ANSWERS[key](self)
        return None if value is None else entry.check(scattered(key, value, self.chance(f"{key} {self.state.hours:.2f}")))

    def wait(self, minutes: float) -> None:
        """Let the unit run on, min."""
        more = run(self.plant, minutes / 60.0, self.outside_f, self.course.state)
        self.course = self.course.followed_by(more)
        self.starts.append((float(self.state.hours), float(self.state.starts)))

    @property
    def starts_an_hour(self) -> float:
        """How often the compressor started of late, by the hour."""
        now = (float(self.state.hours), float(self.state.starts))
        since = next((mark for mark in reversed(self.starts) if mark[0] <= now[0] - COUNTED_H + 1e-6), now)
        return (now[1] - since[1]) / (now[0] - since[0]) if now[0] > since[0] else 0.0

    @property
    def short_cycles(self) -> bool:
        """Whether it starts and stops more often than a compressor may."""
        return self.starts_an_hour >= SHORT_CYCLES_AN_HOUR

    def settle(self) -> float:
        """Wait until the circuit can be read, at most two hours; return the minutes it took.

        One that starts and stops all the time is read while it runs.
        """
        waited = 0.0
        while waited < LONGEST_WAIT_H * 60.0 and self.parts.can_run > 0 and not self.readable:
            step = 0.25 if self.short_cycles else 2.0
            self.wait(step)
            waited += step
            # It never runs long enough: then it is read in the seconds it runs.
            self.takes_any_run = self.takes_any_run or (self.short_cycles and waited >= PATIENCE_MIN)
        return waited

    def called(self) -> float:
        """Turn the thermostat down so that it runs on, and wait until it can be read; return the minutes it took."""
        self.own["stat_turned_down"] = "yes"
        self.rebuild()
        return self.settle()

    @property
    def readable(self) -> bool:
        """Whether the circuit runs long enough to be read."""
        s = self.state
        settles = LEAST_RUN_H if self.takes_any_run else min(SETTLES_H, max(SHORT_RUN_SHARE / max(self.starts_an_hour, 1e-6), LEAST_RUN_H))
        return bool(s.running > 0 and s.since_start_h >= settles and s.liquid_call > 0)

    def do(self, part: str, did: str, value: float | None = None) -> None:
        """Do something to a part; InputError for what is not known or cannot be done on this unit.

        What the acts' table calls a cure of at least half the cases takes the fault away; gas and turns change the plant by their amount.
        """
        act = acts.get(part, did)
        if not act.exists_on(self.unit):
            raise InputError(f"{act.label}: cannot be done on a {self.unit.build}")
        act.check(value)
        amount = value or 0.0
        if (part, did) == ("coil", "melted"):
            self.melt_off(1.0)
        elif part == "charge" and did in ("added", "recovered"):
            self.added_lb += amount * LB_PER_OZ * (1.0 if did == "added" else -1.0)
        elif (part, did) == ("evap_fan", "delay_bridged"):
            self.own["fan_delay_bridged"] = "yes"
        elif part == "charge" and did == "weighed_in":
            self.added_lb = 0.0
            self.wrong = {code: grade for code, grade in self.wrong.items() if "charge_lb" not in faults.changes(code)}
        elif did in ("turned_in", "turned_out"):
            self.turns += amount * (1.0 if did == "turned_in" else -1.0)
        # Gas by weight changes the charge and not what lost it; ice that was there goes by melting alone.
        by_weight = part == "charge" and did in ("added", "recovered")
        kept = {code for code in self.wrong if by_weight and "charge_lb" in faults.changes(code)} | {"residual_ice"}
        cured = {code for code in self.wrong if act.removes.get(code, 0.0) >= CURES_FROM} - kept
        self.wrong = {code: grade for code, grade in self.wrong.items() if code not in cured}
        self.rebuild()

    def put_on(self, part: str, way: str | None) -> None:
        """Put a jumper over a part of the circuit, lift its lead ("open"), or take either away again (None)."""
        self.put = {key: value for key, value in self.put.items() if key != part} | ({} if way is None else {part: way})
        self.rebuild()

    def melt_off(self, share: float) -> None:
        """Take a share of the ice off the coil, 0 to 1; what is left lies where it lay."""
        for name in ("frost_lb", "frost_ft3", "ice_lb", "wet_lb"):
            self.state[name][:] *= 1.0 - min(max(share, 0.0), 1.0)

    def rebuild(self) -> None:
        """Make the parts anew from what is still wrong and what was done."""
        self.__dict__.pop("wired", None)
        plant = sized(self.unit)
        for part, value in self.left.items():
            plant.parts[part] = value
        for code, grade in self.wrong.items():
            change = faults.get(code).change
            if change is not None and not (self.put and self.wired.carried_past(code, grade)):
                change(plant, np.array([grade]))
        for part, value in self.found.items():
            plant.parts[part] = value
        self._let_through(plant)
        plant.parts.charge_lb = np.maximum(plant.parts.charge_lb + self.added_lb, 0.05 * sized(self.unit).parts.charge_lb)
        plant.parts.stem_turns += self.turns
        if self.own.get("stat_turned_down") == "yes":
            plant.parts.set_f -= TURNED_DOWN_F
        if self.own.get("fan_delay_bridged") == "yes":
            plant.parts.fan_delay_f = NO_DELAY_F
        self.plant.parts[:] = plant.parts
        if self.parts.defrosts_per_day > 0 and self.parts.demand_share <= 0 and np.isinf(self.state.next_defrost_h):
            # A clock that was put right comes to its next time.
            self.course.state.next_defrost_h[:] = self.state.hours + DAY_H / 2.0 / self.parts.defrosts_per_day

    def _let_through(self, plant: Plant) -> None:
        """Where leads are lifted, what hangs on them stands."""
        if "open" not in self.put.values():
            return
        works, has = self.wired.works, self.wired.circuit.has
        if not (works("contactor_coil", CALLED) and works("compressor", CALLED)):
            plant.parts.can_run[:] = 0.0
        if has("solenoid") and not works("solenoid", CALLED):
            plant.parts.solenoid_open[:] = SHUT_SHARE
        if has(FAN) and not works(FAN, CALLED):
            plant.parts.fan_flow *= STANDS_SHARE

    def series(self, name: str, hours: float) -> Figures:
        """A recorded figure over the last hours."""
        since = self.course.hours[-1] - hours
        return np.asarray(self.course.series[name][self.course.hours >= since, 0])


def stand(
    unit: Unit, wrong: Sequence[tuple[str, float]], hours: float = 54.0, outside_f: float = 85.0, seed: int = 1,
) -> Rig:  # fmt: skip
    """Return a unit with faults (code, severity 0 to 1) as it stands after some hours; deterministic for a seed.

    Raises InputError for a fault that is not known or cannot be on this unit.
    """
    plant = sized(unit)
    state = at_rest(plant, outside_f=outside_f)
    for code, severity in wrong:
        faults.apply(plant, state, code, severity)
    course = run(plant, hours - COUNTED_H, outside_f, state)
    rig = Rig(unit, outside_f, dict(wrong), seed, plant, course)
    rig.starts.append((float(rig.state.hours), float(rig.state.starts)))
    rig.wait(COUNTED_H * 60.0)
    return rig
