"""What is told of a call: each answer worked out once, and only when somebody asks for it."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from kettle.benches.prove.proofs import PROVED
from kettle.call import asks, cures, customer, kinds, proves, written
from kettle.call.advice import Charge, Valve
from kettle.call.asks import Doubt
from kettle.call.brief import brief
from kettle.call.call import Call
from kettle.call.customer import ForCustomer
from kettle.call.events import Event
from kettle.call.leads import Leads
from kettle.call.proves import Proved
from kettle.call.record import Record
from kettle.call.runs import Runs
from kettle.call.says import SECTIONS, Sentence
from kettle.electrical.solve import Figures
from kettle.judging.checks import Check
from kettle.judging.course import Course, Left
from kettle.judging.holds import Hold
from kettle.judging.judge import Judgement
from kettle.judging.problems import Problem
from kettle.judging.verdicts import Verdict
from kettle.knowledge import observations
from kettle.knowledge.observations import Value

# What can be asked of a unit whose circuit is open: nothing that runs or needs its power.
ASKED_WHILE_OPEN = ("box", "ice", "air", "safety")


@dataclass(frozen=True)
class Told:
    """A call as it is told; `call` holds what it was worked out of."""

    call: Call

    @property
    def record(self) -> Record:
        """The record it is told of."""
        return self.call.record

    def course(self, coil: int = 1) -> Course:
        """The course of one coil: what it was, and what is left."""
        return self.call.judged.course(coil)

    def now(self, coil: int = 1) -> Judgement:
        """What stands on one coil, with its next checks as they make sense on an opened circuit."""
        return self.course(coil).now

    def holds(self, coil: int = 1) -> tuple[Hold, ...]:
        """What must wait on one coil."""
        return self.now(coil).holds

    def next_checks(self, coil: int = 1) -> tuple[Check, ...]:
        """What would settle most; nothing that needs a running unit while the circuit is open or empty."""
        if cures.stuck(self.call.judged, coil):
            return ()
        checks = self.now(coil).next_checks
        if self.call.opened.runs_again:
            return checks
        return tuple(check for check in checks if observations.get(check.key).group in ASKED_WHILE_OPEN)

    @property
    def problems(self) -> tuple[Problem, ...]:
        """Readings that cannot be, or contradict each other."""
        return self.now(1).problems

    @property
    def verdicts(self) -> tuple[Verdict, ...]:
        """The verdicts of the first coil."""
        return self.now(1).verdicts

    @property
    def derived(self) -> Mapping[str, float]:
        """What is worked out from the readings of the first coil, each by its quantity and in its unit of measure."""
        return self.now(1).facts.derived

    @cached_property
    def left(self) -> tuple[Left, ...]:
        """What is left anywhere: of several coils the one on which something likeliest is."""
        return max((self.course(coil).left for coil in self.call.coils), key=lambda left: left[0].probability if left[0].codes else -1.0)

    @cached_property
    def was(self) -> Course:
        """The course of the coil on which something was likeliest wrong."""
        courses = [self.course(coil) for coil in self.call.coils]
        return max(courses, key=lambda course: course.was[0].probability if course.was[0].codes else -1.0)

    @property
    def runs(self) -> Runs:
        """What runs."""
        return self.call.runs

    @property
    def charge(self) -> Charge:
        """May gas go in."""
        return self.call.charge

    def valve(self, coil: int = 1) -> Valve:
        """May the stem of one coil be turned."""
        return self.call.valve(coil)

    @cached_property
    def valve_now(self) -> Valve:
        """The stem that may be turned first; else what the first one waits for."""
        every = [self.valve(coil) for coil in self.call.coils]
        return next((one for one in every if one.may == "yes"), every[0])

    def likely_faults(self, state: str) -> Figures:
        """How likely each fault of the circuit is (`faults.every_fault`, in order): by what was measured, seen, and judged of the call."""
        return self.call.judged.wired.standing(self.call.judged.left_single(1), state)[1]

    @property
    def leads(self) -> Leads | None:
        """Where to measure next; None where nothing electrical is asked."""
        return self.call.leads

    @cached_property
    def prove(self) -> tuple[Proved, ...]:
        """What the work asks to be shown."""
        return proves.proofs_of(self.call, kinds.fills)

    @property
    def unproved(self) -> tuple[Proved, ...]:
        """What is not shown yet, or speaks against it."""
        return tuple(one for one in self.prove if one.state != PROVED)

    @cached_property
    def leave(self) -> tuple[Doubt, ...]:
        """What should not be left so."""
        return asks.doubts(self.call, self.prove)

    @property
    def may_leave(self) -> bool:
        """Whether every one of them is answered."""
        return all(one.answered for one in self.leave)

    @cached_property
    def sentences(self) -> tuple[Sentence, ...]:
        """The write-up, by section in the order of work."""
        return written.written(self.call, lambda event: kinds.said(self.call, event), self.prove, self.leave)

    def said(self, section: str) -> tuple[str, ...]:
        """Return the sentences of a section (a key of `SECTIONS`)."""
        assert section in SECTIONS
        return tuple(one.text for one in self.sentences if one.section == section)

    def brief(self, event: Event) -> str:
        """Return an event in one line."""
        return brief(self.call, event)

    @cached_property
    def customer(self) -> ForCustomer:
        """The same for the customer."""
        return customer.for_customer(self.call, self.leave)


def tell(record: Record, what_if: Mapping[str, Value] | None = None) -> Told:
    """Return what is told of a call; each part is worked out when it is asked for.

    `what_if` (key -> checked value) stands on the coil in view as if it had been read now.
    """
    return Told(Call(record, kinds.heard(record), tuple((what_if or {}).items())))
