"""What the automatic technician does on a call: he looks at what costs nothing, follows holds and next checks, puts right, looks again."""

from math import log2

from kettle.benches.ice import melt
from kettle.judging import stopped
from kettle.judging.course import Done, judge_course
from kettle.judging.holds import blocking
from kettle.judging.readings import implied_by
from kettle.knowledge import acts, observations
from kettle.knowledge.quantities import QUANTITIES
from kettle.plant.observer.rig import OWN_DOING

SURE, MOST_CHECKS = 0.90, 25
# What is looked at on arriving, since it costs nothing; and again after something was put right.
FREE = (
    "complaint", "since_when", "last_touched", "left_ice", "box_temp_f", "display_temp_f", "door", "door_traffic", "strip_curtain",
    "ice_form", "ice_places", "evap_fans", "evap_coil", "drain", "drain_pan", "compressor", "condenser_fans", "condenser_coil",
    "control_call", "controller_alarm", "ambient_f",
)  # fmt: skip
TOLD = ("complaint", "since_when", "last_touched", "left_ice")
AGAIN = (*(key for key in FREE if key not in TOLD), "box_trend", "contactor", "power_locked_out")
# Lock-out, covers and latch before a melt; a lock-out alone; after a repair it is looked at again the next day.
READY_MIN, LOCK_MIN, PROVED_MIN = 6.0, 3.0, 720.0
FACE_FT2 = 4.0
HELD_WITHIN_F = 5.0


def entropy_bits(ranking):
    """How much is still open among ranked answers, bits; what is not named counts as one answer more."""
    shares = [one.probability for one in ranking]
    return -sum(p * log2(p) for p in (*shares, 1.0 - sum(shares)) if p > 1e-9)


class Visit:
    """A technician before a unit; he never sees what is wrong with it. What came of it stands in `told`."""

    def __init__(self, rig, told):
        self.rig, self.told = rig, told
        self.stages, self.done, self.tried, self.given_up = [{}], [], set(), False

    def take(self, key, again=False):
        """Take one observation, where it can be had now, with what it says together with others; `again` after an act."""
        rig, stage = self.rig, self.stages[-1]
        self.tried.add(key)
        if not observations.get(key).exists_on(rig.unit):
            return
        if key in OWN_DOING and not again:
            rig.own[key] = "yes"
        if stage.get("compressor") in ("running", "short_cycling") and not rig.running and key in (*acts.RUNNING, *stopped.FLOW):
            return
        value = rig.look(key)
        if value is not None:
            stage[key] = value
            for implied, said in implied_by(key, stage).items():
                stage.setdefault(implied, said)

    def look_again(self, part, did, keys):
        """Begin a stage after an act and look at what costs nothing."""
        self.rig.settle()
        self.done.append(Done(part, did))
        self.stages.append({})
        voided = acts.voided(acts.get(part, did))
        self.tried -= voided
        for key in keys:
            self.take(key, again=True)

    def melt(self, facts):
        """Melt the coil as the ice bench plans it for the ice there is, the quickest way that is not refused."""
        ice_lb = float(self.rig.state.frost_lb.sum() + self.rig.state.ice_lb.sum())
        ways = melt.plans(facts, (ice_lb, ice_lb), FACE_FT2, "hot", "open" if self.rig.unit.walk_in else "in_cabinet")
        low, high = next(way.minutes for way in ways if way.minutes and not [r for r in way.refusals if "drain" not in r])
        self.told.spent["melt"] += READY_MIN + (low + high) / 2
        self.rig.do("coil", "melted")
        self.rig.wait(45.0)
        self.look_again("coil", "melted", AGAIN)

    def lock_out(self):
        """Lock out and prove dead."""
        self.take("power_locked_out")
        self.told.spent["checks"] += LOCK_MIN

    def stands_clear(self, answers, facts):
        """Whether the first answer stands clear; that nothing is left only where the box came to its set temperature too. A compressor
        that trips is read to ground first, once it is locked out."""
        if not answers or answers[0].probability < SURE or stopped.ground_unread(facts):
            return False
        box_f = self.stages[-1].get("box_temp_f")
        return bool(answers[0].codes) or len(self.stages) == 1 or box_f is None or abs(box_f - self.rig.unit.set_f) <= HELD_WITHIN_F

    def follow(self, ranked, most):
        """Follow holds and checks until an answer of `ranked(course)` stands clear or `most` checks are spent; return the last course."""
        melted = False
        while True:
            course = judge_course(self.rig.unit, self.stages, self.done)
            answers = ranked(course)
            if self.stands_clear(answers, course.now.facts) or self.told.checks >= most:
                return course
            holds = list(course.now.holds)
            if any(hold.code == "iced_coil" for hold in holds) and not melted:
                melted = True
                self.melt(course.now.facts)
                continue
            check = next((one for one in course.now.next_checks if one.key not in self.tried), None)
            locked = bool(blocking(holds, "resistance_test"))
            if check is None and locked and "power_locked_out" not in self.tried:
                # Ohms wait for the lock-out: it comes when nothing live is left to measure.
                self.lock_out()
                continue
            if check is None:
                return course
            if "lock_out" in observations.get(check.key).holds and locked:
                self.lock_out()
            self.told.checks += 1
            self.told.spent["checks"] += observations.get(check.key).minutes
            if course.now.facts.is_("compressor", "running", "short_cycling") and not self.rig.readable and not self.given_up:
                # What was found running is read while it runs: he turns the thermostat down and lets it settle.
                self.told.spent["waiting"] += self.rig.called()
                self.given_up = not self.rig.readable
            self.take(check.key)
            after = judge_course(self.rig.unit, self.stages, self.done)
            self.told.paid.append(
                (check.key, check.gain_bits, entropy_bits(course.was) - entropy_bits(after.was), observations.get(check.key).minutes)
            )

    def find(self):
        """Find what is wrong: the first answer."""
        self.rig.settle()
        for key in FREE:
            if key not in OWN_DOING:
                self.take(key)
        course = self.follow(lambda course: course.was, MOST_CHECKS)
        self.told.ranking = [(s.codes, s.probability) for s in course.was[:5]]
        self.told.said = {**self.stages[0], **({f"{k}'": v for k, v in self.stages[-1].items()} if self.done else {})}
        if self.told.ranking:
            self.told.answers.append(self.told.ranking[0][0])

    def prove(self, act):
        """Look at what the application wants to see after an act, as far as it can be had."""
        wanted = {need for key in act.proof for need in (QUANTITIES[key].needs if key in QUANTITIES else (key,))}
        for key in sorted(wanted - self.stages[-1].keys()):
            entry = observations.get(key)
            if stopped.can_be_asked(entry, judge_course(self.rig.unit, self.stages, self.done).now.facts):
                self.told.spent["checks"] += entry.minutes
                self.take(key)

    def do(self, act):
        """Do something to the unit, let it run until the next day, and look again."""
        for undone in OWN_DOING:
            self.rig.own.pop(undone, None)
        self.rig.do(act.part, act.did)
        self.rig.wait(PROVED_MIN)
        # What could not be had before may be had now.
        self.tried = {key for key in self.tried if any(key in stage for stage in self.stages)} - {"power_locked_out"}
        self.look_again(act.part, act.did, AGAIN)
        self.prove(act)

    def put_right_and_find(self):
        """Put the last answer right by the acts' table, let it run, and find what is left: the next answer."""
        unit = self.rig.unit
        put_right = False
        for code in self.told.answers[-1] if self.told.answers else ():
            able = [act for act in acts.ACTS.values() if act.exists_on(unit) and act.removes.get(code, 0.0) >= 0.5]
            if not able:
                continue
            # What only carries the unit over is not what puts it right.
            act = max(able, key=lambda act: (code not in act.leaves, act.code == acts.SUREST[code], act.removes[code]))
            self.do(act)
            if code in act.leaves:
                self.do(next(one for one in acts.ACTS.values() if code in one.closes and not one.bench))
            put_right = True
        if put_right:
            course = self.follow(lambda course: course.left, self.told.checks + MOST_CHECKS)
            self.told.answers.append(course.left[0].codes if course.left else ())
