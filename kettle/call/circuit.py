"""What the measurements say of the circuit's parts, and of causes: all of one wiring together, between two acts that changed it.

A cause fits as well as the faults of the circuit that it stands for, each by how common it is; one that is none of the wiring fits as a
sound circuit does. Both ways: how likely a part is at fault follows from how likely its cause is left.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np

from kettle.benches.electrical import bench
from kettle.call.events import Event
from kettle.call.hears import figure
from kettle.call.stages import Staged
from kettle.electrical import finds, measure, supplied
from kettle.electrical.circuit import Circuit
from kettle.electrical.faults import SOUND, Fault, every_fault, weight_of
from kettle.electrical.measure import Lead, Reading, Seen
from kettle.electrical.solve import Figures
from kettle.judging import stopped
from kettle.judging.testimony import Testimony
from kettle.knowledge import causes

# Parts whose acts change the wiring: what was measured before is of another circuit.
WIRED: Final = (
    "contactor", "start_parts", "supply", "wiring", "relay", "timer", "compressor", "heater", "evap_fan", "condenser_fan", "termination",
    "thermostat", "control", "liquid_solenoid", "pressure_control", "drain_heater", "door_switch", "fan_delay",
    "hot_gas_valve", "frame_heater",
)  # fmt: skip
# What of the observations tells the same again.
TELLS_THE_SAME: Final = ("load_loss_v", "pole_drop_v", "evap_fan_supply_v")
# A testimony is never surer than this, as a log-likelihood.
SUREST: Final = 9.0
# A fault is named from this much better a fit than a sound circuit's.
TELLS: Final = 1.5
# As many parts are told as share the doubt.
PARTS_TOLD, PART_FROM = 8, 0.01
# What the rest of the call says moves a part at most so far (log): it may have failed since it was seen to run.
MOST_LEARNED: Final = 1.5
# A cause that is left so surely was seen or measured at its part: the meter has nothing to say against it.
SURE, BEYOND_DOUBT = 0.9, 6.0
# The cause that a supply off the plate's volts is.
LOW_SUPPLY: Final = "voltage_problem"
# No cause is ever less likely than this.
LEAST: Final = 1e-6
# Of one wiring so many measurements are weighed, the last ones.
ONCE: Final = 20


@dataclass(frozen=True)
class Part:
    """A part in a way of failing, how likely, and in words."""

    part: str
    way: str
    probability: float
    label: str
    fault: Fault = SOUND


@dataclass(frozen=True)
class Measured:
    """What was measured in one wiring: readings, and the stage the last of them is of."""

    stage: int
    readings: tuple[Reading, ...]


@dataclass(frozen=True)
class Wired:
    """A record's measurements, by the wirings they were taken in."""

    staged: Staged

    @property
    def circuit(self) -> Circuit:
        """The unit's circuit."""
        return self.staged.record.circuit

    @cached_property
    def wirings(self) -> tuple[Measured, ...]:
        """What was measured in each wiring, in order; the last is the one that stands (empty where nothing was measured in it)."""
        groups: list[tuple[list[int], list[Reading]]] = [([], [])]
        changes = {step.stage for step in self.staged.steps if step.did.part in WIRED}
        events: dict[int, list[Event]] = {}
        for event in self.staged.record.all_of("measured"):
            events.setdefault(self.staged.stage_of(event), []).append(event)
        stages = self.staged.stages(1)
        for stage, seen in enumerate(stages):
            if stage in changes:
                groups.append(([], []))
            own = [one for event in events.get(stage, ()) if (one := reading_of(self.circuit, event)) is not None]
            pairs = {(one.what, frozenset((one.one, one.other)), one.state) for one in own}
            # A file of version 1 has no measurements of its own: its volts are weighed as the observations they are.
            kept = bench.readings_of(self.circuit, seen) if self.staged.record.clocked else []
            more = [
                one for one in kept
                if (one.what, frozenset((one.one, one.other)), one.state) not in pairs
            ]  # fmt: skip
            if own or more:
                groups[-1][0].append(stage)
                groups[-1][1].extend((*own, *more))
        return tuple(Measured(stages[-1] if stages else -1, tuple(readings)) for stages, readings in groups)

    def _fit(self, readings: Sequence[Reading]) -> tuple[list[Fault], Figures]:
        """Every fault, and how well it fits some readings (log)."""
        fed = supplied.as_measured(self.circuit, readings)
        faults = every_fault(fed)
        told: Figures = np.zeros(len(faults))
        for reading in readings[-ONCE:]:
            told = told + measure.log_likelihood(reading, measure.expected(fed, reading, faults))
        return faults, told

    @property
    def fed(self) -> Circuit:
        """The unit's circuit on the supply that was measured in the wiring that stands."""
        return supplied.as_measured(self.circuit, self.wirings[-1].readings)

    @cached_property
    def spoken(self) -> dict[int, list[Testimony]]:
        """What the circuit says of causes, by the stage it was measured in."""
        found: dict[int, list[Testimony]] = {}
        for one in self.wirings:
            if one.readings:
                found.setdefault(one.stage, []).append(self._testimony(one.readings))
        return found

    def _testimony(self, readings: tuple[Reading, ...]) -> Testimony:
        faults, fits = self._fit(readings)
        by_cause: dict[str, list[tuple[float, float]]] = {}
        opened: dict[tuple[str, str], float] = {}
        for fault, fit in zip(faults, fits, strict=True):
            if (fault.part, fault.way) in finds.OPENED:
                opened[finds.OPENED[fault.part, fault.way]] = float(fit)
                continue
            code = finds.cause_of(fault) if fault != SOUND else ""
            by_cause.setdefault(code, []).append((weight_of(self.circuit, fault), float(fit)))
        sound = next(float(fit) for fault, fit in zip(faults, fits, strict=True) if fault == SOUND)
        fits_of = {code: _mean(pairs) for code, pairs in by_cause.items() if code}
        best = max(sound, *fits_of.values(), *opened.values())
        told = {code: max(value - best, -SUREST) for code, value in fits_of.items()}
        if supplied.share_of_plate(self.circuit, readings) != 1.0 and LOW_SUPPLY in told:
            # What comes in is off the plate's volts: the supply fits as well as a circuit in which nothing is wrong.
            told[LOW_SUPPLY] = max(told[LOW_SUPPLY], sound - best)
        likeliest = max(zip(faults, fits, strict=True), key=lambda pair: pair[1] + math.log(weight_of(self.circuit, pair[0])))[0]
        told_of = likeliest if best - sound >= TELLS else SOUND
        text = f"Measured in the circuit: {measure.fault_in_words(self.circuit, told_of).lower()}"
        rest = max(sound - best, -SUREST)
        volts = any(one.what == "volts" for one in readings)
        shown = tuple((key, word, max(fit - best, -SUREST)) for (key, word), fit in opened.items())
        # One that the volts have found open speaks once.
        mutes = (*(TELLS_THE_SAME if volts else ()), *(key for key, _, fit in shown if fit - rest >= TELLS))
        return Testimony("circuit", text, told, rest, rest, shown=shown, mutes=mutes)

    def seen(self, state: str) -> list[Seen]:
        """What was seen to run or stand in the wiring that stands."""
        now = self.staged.facts_at(self.staged.last_stage)
        says = {key: value for key, value in now.seen.items() if not stopped.says_nothing(key, now)}
        return bench.seen_of(self.circuit, says, state)

    def parts_of(self, faults: Sequence[Fault], likely: Figures) -> tuple[Part, ...]:
        """Return the parts that can be at fault, likeliest first, of faults and how likely each is (`standing`)."""
        ranked = [one for one in measure.by_part(self.circuit, faults, likely) if one.fault != SOUND and one.probability >= PART_FROM]
        return tuple(Part(one.fault.part, one.fault.way, one.probability, one.label, one.fault) for one in ranked[:PARTS_TOLD])

    def standing(self, left: Mapping[str, float], state: str) -> tuple[list[Fault], Figures]:
        """Return every fault of the circuit and how likely it is now, by what was measured and seen, and by what Judge leaves.

        Each cause weighs what its faults weigh by the meter, times what Judge learned of it elsewhere (left by itself, against before
        anybody looked, without what the meter said already); among the faults of one cause the meter decides, and what was seen to run or
        stand.
        """
        readings = self.wirings[-1].readings
        faults, fits = self._fit(readings)
        weighed: Figures = fits + np.log([weight_of(self.circuit, fault) for fault in faults])
        by_meter: Figures = np.exp(weighed - weighed.max())
        for one in self.seen(state):
            fits = fits + one.told(self.fed, faults)
        weighed = fits + np.log([weight_of(self.circuit, fault) for fault in faults])
        alone: Figures = np.exp(weighed - weighed.max())
        codes = [finds.cause_of(fault) if fault != SOUND else "" for fault in faults]
        learned = self._learned(left, set(codes) - {""}, readings)
        mixed: Figures = np.zeros(len(faults))
        for code in set(codes) - {""}:
            mine = np.array([n for n, one in enumerate(codes) if one == code])
            share = alone[mine] / alone[mine].sum() if alone[mine].sum() > 0 else np.full(len(mine), 1.0 / len(mine))
            mixed[mine] = by_meter[mine].sum() * learned[code] * share
        rest = np.array([n for n, code in enumerate(codes) if not code])
        mixed[rest] = by_meter[rest].sum() * learned[""] * alone[rest] / alone[rest].sum()
        return faults, mixed / mixed.sum()

    def _learned(self, left: Mapping[str, float], wired: set[str], readings: tuple[Reading, ...]) -> dict[str, float]:
        """How much likelier each cause of the circuit is left than before anybody looked, for all but the meter; "" for all the others."""
        said = self._testimony(readings) if readings else Testimony("circuit", "")
        whole = causes.HEALTHY.prior + sum(cause.prior for cause in causes.CATALOGUE.values())
        before = {code: causes.get(code).prior / whole for code in wired}
        against = {code: max(left.get(code, 0.0), LEAST) / (before[code] * math.exp(said.causes.get(code, said.rest))) for code in wired}
        others = max(sum(share for code, share in left.items() if code not in wired), LEAST)
        against[""] = others / (max(1.0 - sum(before.values()), LEAST) * math.exp(said.rest))
        middle = math.log(sum(against.values()) / len(against))
        most = {code: BEYOND_DOUBT if left.get(code, 0.0) >= SURE else MOST_LEARNED for code in against}
        return {code: math.exp(min(max(math.log(ratio) - middle, -MOST_LEARNED), most[code])) for code, ratio in against.items()}

    def next_leads(self, faults: Sequence[Fault], likely: Figures, state: str) -> list[Lead]:
        """Return where to put the leads next."""
        if state == "locked_out":
            return []
        readings = self.wirings[-1].readings
        done = {frozenset((r.one, r.other)) if r.what != "amps" else frozenset((r.one,)) for r in readings}
        at = {"panel", *(self.circuit.point(key).place for r in readings if r.what != "amps" for key in (r.one, r.other))}
        return measure.next_leads(self.fed, faults, likely, state, at, 1, done | measure.known_dead(self.circuit, self.seen(state)))


def reading_of(circuit: Circuit, event: Event) -> Reading | None:
    """Return a measurement as the circuit takes it; None for one it does not know (a capacitor by itself)."""
    what = event.data["what"]
    if what not in ("volts", "amps", "ohms"):
        return None
    lifted = bool(event.get("lifted")) and what == "ohms"
    return Reading(what, event.data["one"], event.get("other", ""), figure(event), event.get("state", "calling"), lifted)


def _mean(pairs: Sequence[tuple[float, float]]) -> float:
    """The log of a mean likelihood, weighed."""
    total = sum(weight for weight, _ in pairs)
    top = max(fit for _, fit in pairs)
    return top + math.log(sum(weight / total * math.exp(fit - top) for weight, fit in pairs))
