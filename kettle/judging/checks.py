"""The next best checks: what would settle most, by bits a minute and the safety order of tools."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kettle.judging import stopped
from kettle.judging.electrics import THIRD_LEG
from kettle.judging.evidence import echo_share, state_words
from kettle.judging.facts import Facts
from kettle.judging.holds import Hold
from kettle.judging.network import Figures, Network
from kettle.judging.verdicts import legs_to_read
from kettle.knowledge import bands, causes, observations
from kettle.knowledge.causes.model import Cause
from kettle.knowledge.equipment import Unit
from kettle.knowledge.observations import Observation
from kettle.knowledge.quantities import QUANTITIES

WORTH_CHECKING_BITS: Final = 0.03
# An answer that moves what would be done by less than this changes no remedy.
CHANGES_REMEDY_BITS: Final = 0.01
CHECKS_SHOWN: Final = 5
# What is seen once is seen again that often, while the same is wrong.
PERSISTS: Final = 0.88
# What every check takes besides itself: to go there, and to come back to the plan.
WALK_MIN: Final = 1.0
# A cause this likely is asked which of its remedies it wants.
SPLIT_FROM: Final = 0.4
# What stands at the same place on the way of the current as the first of its kind.
LIKE_THE_FIRST: Final = {
    "line_v_23": "line_v_12", "line_v_31": "line_v_12", "load_v_23": "load_v_12", "load_v_31": "load_v_12",
    "pole_drop_v_2": "pole_drop_v_1", "pole_drop_v_3": "pole_drop_v_1",
}  # fmt: skip
# With the power off ohms are read first, unless they tell less than this share of the live reading it would go on for.
OFF_NOW_SHARE: Final = 0.25
# Settled so far nothing more is asked of it but what has to come before the next try: it is put right, and its proof is the next look.
SETTLED: Final = 0.9
TO_GROUND: Final = observations.get("winding_ground_ohm")
# Ohms wait for it: proposed in their place where they would tell the most.
LOCK_OUT: Final = observations.get("power_locked_out")
# Look and feel before probe, probe before meter, meter before gauges, gauges before tests that open or stop something.
TIER: Final = {"record": 1.0, "ask": 1.0, "look": 1.0, "feel": 1.0, "controller": 0.9, "probe": 0.8, "meter": 0.6, "gauge": 0.45,
               "test": 0.35}  # fmt: skip


@dataclass(frozen=True)
class Check:
    """A check not yet made: the observation to take, how, what its answers mean, bits gained and minutes."""

    key: str
    label: str
    how: str
    meaning: str
    gain_bits: float
    minutes: float


def next_checks(
    facts: Facts, network: Network, posterior: Figures, in_force: tuple[Hold, ...], overridden: frozenset[str],
    before: Mapping[str, str] | None = None,
) -> list[Check]:  # fmt: skip
    """Return the checks not yet made that would settle most per minute of effort, at most CHECKS_SHOWN.

    The hypotheses are those the ranking names: a second fault that nothing shows is not hunted for. Gain is the mutual
    information of hypothesis and answer, in bits (Shannon 1948), a minute with the way there (`WALK_MIN`), weighed by the safety
    order of tools (`TIER`); what a hold blocks is left out. `before` is how parts were seen before an act that brought nothing: they are
    mostly seen so again, so that a second look tells little.
    """
    blocked = {action for hold in in_force for action in hold.blocks} - overridden
    likely = np.flatnonzero(posterior > 1e-5)
    weights, table = posterior[likely] / posterior[likely].sum(), network.table[likely]
    by_remedy = network.remedies[:, likely] * weights
    by_remedy = by_remedy[by_remedy.sum(axis=1) > 0]
    remedy_weights = by_remedy.sum(axis=1)
    by_remedy = by_remedy / remedy_weights[:, None]
    checks: dict[str, tuple[float, Check]] = {}
    locked: tuple[float, Check] | None = None
    for feature, columns in network.columns.items():
        needs = QUANTITIES[feature].needs if feature in QUANTITIES else (feature,)
        missing = [observations.get(key) for key in needs if key not in facts.seen]
        legs = [] if missing else [observations.get(key) for key in legs_to_read(facts, feature)]
        missing = missing or [leg for leg in legs if stopped.can_be_asked(leg, facts)]
        if not missing or ("superheat_judge" in blocked and (feature in bands.COIL_QUANTITIES or feature in bands.COIL_FELT)):
            continue
        if not stopped.quantity_can_be_asked(feature, facts):
            continue
        if any(_not_for_asking(entry, facts.unit) for entry in missing) or _band_missing(facts.unit, feature):
            continue
        if "gauges" in blocked and any(entry.tool == "gauge" for entry in missing):
            continue
        shape = table[:, columns.place]
        if before and before.get(feature) in columns.states:
            shape = (1.0 - PERSISTS) * shape
            shape[:, columns.states.index(before[feature])] += PERSISTS
        gain = _gain_bits(weights, shape) * echo_share(feature, facts)
        if gain < WORTH_CHECKING_BITS or _gain_bits(remedy_weights, by_remedy @ shape) < CHANGES_REMEDY_BITS:
            continue
        minutes = sum(entry.minutes for entry in missing)
        first = missing[0].on(facts.unit)
        behind_lock = "resistance_test" in blocked and any("lock_out" in entry.holds for entry in missing)
        if behind_lock:
            minutes += LOCK_OUT.minutes
        score = gain / (minutes + WALK_MIN) * min(TIER[entry.tool] for entry in missing)
        if behind_lock:
            if locked is None or score > locked[0]:
                meaning = f"For ohms: {first.label.lower()} tells most now. Live readings first, they go with the power"
                locked = (score, Check(LOCK_OUT.key, LOCK_OUT.label, LOCK_OUT.how, meaning, gain, minutes))
            continue
        if first.key not in checks or score > checks[first.key][0]:
            meaning = _meaning(feature, columns.states, weights, shape, [network.members[row] for row in likely])
            checks[first.key] = (score, Check(first.key, first.label, first.how, meaning, gain, minutes))
    if locked is not None and stopped.state(facts) in ("dead", "still") and not any(_live_first(key, facts) for key in checks):
        checks[LOCK_OUT.key] = locked
    ordered = sorted(checks.values(), key=lambda scored: -scored[0])
    if stopped.state(facts) == "dead":
        ordered.sort(key=lambda scored: _along_the_current(scored[1].key))
    found = [check for _, check in ordered[:CHECKS_SHOWN]]
    asked = [check for check in _first_of_all(facts, network, posterior) if check.key not in {one.key for one in found}]
    again = _power_on_again(facts, network, posterior, in_force, overridden, before)
    place = next((place for place, one in enumerate(found) if again and _waits_for_power(one, again)), len(found))
    found = [*found[:place], *([again] if again else []), *found[place:]]
    shown = [*found[:1], *asked, *found[1:]][:CHECKS_SHOWN]
    if stopped.ground_unread(facts) and float(posterior.max()) >= SETTLED:
        # Nothing is in question any more, and the next try waits for it alone.
        shown.sort(key=lambda check: check.key != TO_GROUND.key)
    return shown


def _power_on_again(
    facts: Facts, network: Network, posterior: Figures, in_force: tuple[Hold, ...], overridden: frozenset[str],
    before: Mapping[str, str] | None,
) -> Check | None:  # fmt: skip
    """The power, where it is locked out and a live reading would tell the most once it is on; None on a compressor to ground."""
    if not facts.is_("power_locked_out", "yes") or stopped.is_grounded(facts):
        return None
    live = replace(facts, seen={key: value for key, value in facts.seen.items() if key != LOCK_OUT.key})
    asked = next_checks(live, network, posterior, in_force, overridden, before)
    first = max((check for check in asked if check.key.startswith(stopped.POWERED)), key=lambda check: check.gain_bits, default=None)
    if first is None:
        return None
    how = f"Locked out now: once the ohms are read, covers on and everyone clear, for {first.label.lower()}"
    return Check(LOCK_OUT.key, "Power on again", how, first.meaning, first.gain_bits, first.minutes + LOCK_OUT.minutes)


def _waits_for_power(check: Check, again: Check) -> bool:
    """Whether a check can wait until the power is on: it tells less, and one that wants the power off much less, since it is off now."""
    wants_it_off = "lock_out" in observations.get(check.key).holds
    return check.gain_bits < again.gain_bits * (OFF_NOW_SHARE if wants_it_off else 1.0)


def _first_of_all(facts: Facts, network: Network, posterior: Figures) -> list[Check]:
    """What has to be known before a likely cause is put right, whatever else is asked: a winding to ground before the power goes on again,
    the weather, and which remedy it wants."""
    return [*_to_ground(facts), *_weather(facts, network, posterior), *_which_remedy(facts, network, posterior)]


def _to_ground(facts: Facts) -> list[Check]:
    """The windings of a locked-out compressor that trips or hums: no try before they were read to ground."""
    if not stopped.ground_unread(facts):
        return []
    words = "A winding to ground is found before the power goes on again, not by it"
    return [Check(TO_GROUND.key, TO_GROUND.label, TO_GROUND.how, words, 0.0, TO_GROUND.minutes)]


def _weather(facts: Facts, network: Network, posterior: Figures) -> list[Check]:
    """The air on the condenser, where nobody read it and a cause that shows in the cold alone looks like what is likely."""
    entry = observations.get("ambient_f")
    if entry.key in facts.seen or not entry.exists_on(facts.unit):
        return []
    of_weather = {cause.code: cause for members in network.members for cause in members if cause.by_weather}
    alike = {code for code in of_weather for code in (name for name, _ in of_weather[code].mimics)} - set(of_weather)
    likely = sum(float(posterior[row]) for row in np.flatnonzero(posterior > 1e-5) if alike & {c.code for c in network.members[row]})
    if likely < SPLIT_FROM:
        return []
    words = " or ".join(cause.label.lower() for cause in of_weather.values())
    return [Check(entry.key, entry.label, entry.how, f"In the cold it may be {words} instead", 0.0, entry.minutes)]


def _which_remedy(facts: Facts, network: Network, posterior: Figures) -> list[Check]:
    """What to look at to know which of several remedies a likely cause wants; it tells causes apart no further, so it gains no bits."""
    shares: dict[str, tuple[Cause, float]] = {}
    for row in np.flatnonzero(posterior > 1e-5):
        for cause in network.members[row]:
            if cause.splits:
                shares[cause.code] = (cause, shares.get(cause.code, (cause, 0.0))[1] + float(posterior[row]))
    found = []
    for cause, likely in shares.values():
        key, remedies = cause.splits or ("", {})
        entry = observations.get(key)
        if likely >= SPLIT_FROM and key not in facts.seen and not _not_for_asking(entry, facts.unit):
            words = "; ".join(f"{state_words(key, word)}: {how[0][:1].lower()}{how[0][1:]}" for word, how in remedies.items())
            found.append(Check(key, entry.label, entry.how, f"What puts it right differs: {words}", 0.0, entry.minutes))
    return found


def _along_the_current(key: str) -> int:
    """The place of a check on the way of the current; what does not lie on it comes after, as it was ordered."""
    along = LIKE_THE_FIRST.get(key, key)
    return stopped.CURRENT.index(along) if along in stopped.CURRENT else len(stopped.CURRENT)


def _live_first(key: str, facts: Facts) -> bool:
    """Whether a check wants the power on and comes before the lock-out; on a compressor that trips amps do not: it is spared the try."""
    trips = facts.is_("compressor", "tripping")
    return key.startswith(stopped.POWERED) and (not trips or _along_the_current(key) < len(stopped.CURRENT))


def _not_for_asking(entry: Observation, unit: Unit) -> bool:
    """Whether nobody is sent to look: lists, records, what customers tell, and what the unit has not."""
    if entry.key in THIRD_LEG and unit.phases == 1 and "phases" not in unit.assumed:
        return True
    return entry.many or entry.tool == "record" or entry.group == "told" or not entry.exists_on(unit)


def _gain_bits(weights: Figures, shape: Figures) -> float:
    """Mutual information of hypothesis and state, bits; `shape` is hypotheses × states."""
    total = weights @ shape
    return float((weights[:, None] * shape * (np.log2(shape) - np.log2(total))).sum())


def _meaning(feature: str, states: Sequence[str], weights: Figures, shape: Figures, members: Sequence[tuple[Cause, ...]]) -> str:
    """What each answer would point at: the hypothesis it lifts most; of a quantity, by its own name, since that is what is low or high."""
    head = f"{QUANTITIES[feature].label} " if feature in QUANTITIES else ""
    lifted = (shape - weights @ shape) * weights[:, None]
    leaders: dict[str, list[str]] = {}
    for place, state in enumerate(states):
        leader = members[int(np.argmax(lifted[:, place]))]
        label = " and ".join(cause.label for cause in leader) or causes.HEALTHY.label
        leaders.setdefault(label, []).append(state_words(feature, state))
    meaning = "; ".join(f"{head}{' or '.join(words)} points at {label.lower()}" for label, words in leaders.items())
    return meaning[:1].upper() + meaning[1:]


def _band_missing(unit: Unit, feature: str) -> bool:
    """Whether a figure has no band on this unit, or what it is measured against is not on the plate."""
    entry = observations.REGISTRY.get(feature)
    if entry is not None and not entry.is_number:
        return False
    if feature == "amps_pct" and not unit.compressor_rla_a:
        return True
    return bands.default_band(unit, feature) is None
