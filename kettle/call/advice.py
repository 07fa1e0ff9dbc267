"""May gas go in, may the stem be turned: one answer each, in words, with what comes first."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from kettle.benches.charge import additions, critical, may_add, missing
from kettle.benches.charge.expected import expected
from kettle.benches.charge.may_add import BUBBLES
from kettle.benches.valve.adjust import FAR_OUT_F, FAR_OUT_STEP_TURNS, FLOODS_F, USUAL_STEP_TURNS
from kettle.call.events import Event
from kettle.call.judged import Judged
from kettle.call.opened import FULL_SHARE, Opened
from kettle.call.opened import opened as opened_of
from kettle.call.turns import NO_MORE_TURNS, turn_words, without_answer
from kettle.judging import holds, stopped
from kettle.judging.facts import Facts
from kettle.judging.holds import Hold
from kettle.judging.judge import Judgement
from kettle.judging.verdicts import Verdict
from kettle.knowledge.acts import Act
from kettle.knowledge.bands import default_band

# Without a plate a circuit that was emptied is being filled up to this share of what such units hold.
FILLED_SHARE: Final = 0.75
# The share a receiver is left at, warm or covered, where a mixing valve floods the condenser; over its band's end it is too full.
WINTER_LEVEL_PCT: Final = 80.0
# Suction and line that lie further apart than this, minutes, are not of one moment.
APART_MIN: Final = 15.0
WARM_F: Final = 70.0
# A shortage this likely asks for gas.
SHORT_FROM: Final = 0.25
SHORT: Final = ("undercharge", "winter_charge_short")
EXERCISED: Final = "valve.exercised"


@dataclass(frozen=True)
class Charge:
    """May gas go in: yes, no, first (something first) or stop (it is enough, or too much), in words, and why."""

    may: str
    text: str
    why: tuple[str, ...] = ()


@dataclass(frozen=True)
class Valve:
    """May the stem be turned to set superheat: yes, no or wait, in words; the turn ("turned_in" or "turned_out", turns) and the coil.

    `no_answer`: it was turned without an answer, and no further turn helps.
    """

    may: str
    text: str
    turn: tuple[str, float] | None = None
    on: int | None = None
    no_answer: bool = False


def charge(judged: Judged, opened: Opened) -> Charge:
    """Return whether gas may go in now."""
    facts = judged.course(1).now.facts
    if opened.empty or (opened.open and _gas_in(judged) is None):
        return _opened(judged, opened, facts)
    gas = _gas_in(judged)
    if gas is not None:
        return _gone_in(judged, facts, gas)
    why = _signs(judged, facts)
    if facts.unit.receiver and facts.is_("sight_glass", "clear") and not facts.is_("leak_test", "found"):
        level = facts.number("receiver_level_pct")
        if level is None or not _low_level(facts, level):
            return Charge("no", "The glass is clear: nothing asks for gas")
    if not why:
        return Charge("no", "Nothing asks for gas")
    if holds.gas_escapes(facts) and not any(step.did.part == "leak" for step in judged.staged.steps):
        where = "it was found" if facts.is_("leak_test", "found") else "gas was seen to get out: find it"
        return Charge("first", f"First the leak: {where}, repair it, or the customer decides in writing", why)
    told = may_add.may_add(facts, leak_decided(judged), filling(judged))
    if told.may:
        return Charge("yes", f"{told.says}: {why[0]}", why)
    second = next((line for line in told.lines if line.code == "second"), None)
    if second is not None and second.state == "first" and told.says.startswith("No, it"):
        return Charge("no", told.says, why)
    return Charge("first", told.says, why)


def leak_decided(judged: Judged) -> bool:
    """Whether the customer left a leak open, in writing."""
    return any(step.did.code == "leak.given_up" for step in judged.staged.steps)


def filling(judged: Judged) -> bool:
    """Whether a circuit was emptied on this call and holds less than it should again: by its plate, else by what such units hold."""
    gas = _gas_in(judged)
    if not opened_of(judged.staged).emptied or gas is None or gas.oz is None:
        return False
    label = judged.staged.record.label_charge
    return gas.oz < (FULL_SHARE * label if label is not None else FILLED_SHARE * missing.usual_charge_oz(judged.staged.record.unit))


def _opened(judged: Judged, opened: Opened, facts: Facts) -> Charge:
    """An emptied or opened circuit: test, vacuum, then the plate's charge."""
    label = judged.staged.record.label_charge
    usual = facts.shown.text(missing.usual_charge_oz(facts.unit), "oz", 0)
    weigh = (
        f"the plate's {facts.shown.text(label, 'oz', 1)}" if label is not None
        else f"the charge by its plate; without one about {usual}, as such units hold, the last of it by the glass and the readings"
    )  # fmt: skip
    if stopped.is_grounded(facts) and not any(step.did.code == "compressor.replaced" for step in opened.by):
        return Charge(
            "first", "First the compressor: a winding lies to ground. The circuit is empty, and is not filled before it is closed"
        )
    if opened.missing:
        return Charge("first", f"First {opened.missing[0]}: the circuit was opened", tuple(f"Missing: {one}" for one in opened.missing))
    if not opened.emptied:
        return Charge("no", "Held and dry: let the gas back, and look at the glass once it runs")
    return Charge("yes", f"Held and dry: weigh in {weigh}", ("the circuit was emptied, tested and evacuated",))


@dataclass(frozen=True)
class _Gas:
    """Gas that went in on this call: the last time, ounces in all where they are known, and what was seen since."""

    last: Event
    oz: float | None
    weighed_in: bool
    since: Mapping[str, object] = field(default_factory=dict)


def _gas_in(judged: Judged) -> _Gas | None:
    record, steps = judged.staged.record, judged.staged.steps
    moves = [step for step in steps if step.did.part == "charge"]
    for place in range(len(moves) - 1, -1, -1):
        if moves[place].did.did == "recovered" and judged.staged.empties(moves[place]):
            moves = moves[place + 1 :]
            break
    added = [step for step in moves if step.did.did != "recovered"]
    if not added:
        return None
    known = all(step.did.value is not None for step in moves)
    whole = sum((step.did.value or 0.0) * (-1.0 if step.did.did == "recovered" else 1.0) for step in moves)
    last = added[-1].event
    since = {
        one.observed.key: one.observed.value
        for one in judged.staged.sightings
        if record.place[one.event.number] > record.place[last.number]
    }
    return _Gas(last, whole if known else None, any(step.did.did == "weighed_in" for step in added), since)


def _low_level(facts: Facts, level: float) -> bool:
    band = default_band(facts.unit, "receiver_level_pct")
    return band is not None and level < band[0]


def _gone_in(judged: Judged, facts: Facts, gas: _Gas) -> Charge:
    """Gas went in: enough, too much, or on."""
    label, shown = judged.staged.record.label_charge, facts.shown
    went = f"{shown.text(gas.oz, 'oz', 1)} in" if gas.oz is not None else "gas went in by eye"
    level, glass = gas.since.get("receiver_level_pct"), gas.since.get("sight_glass")
    if label is not None and gas.weighed_in and gas.oz is not None:
        scale = critical.weighed(label, gas.oz, shown)
        if scale.right or scale.off_oz > 0:
            return Charge("stop", f"Stop: {went}, the plate says {shown.text(label, 'oz', 1)}. {scale.says}")
    mixing = "mixing_valve" in facts.unit.head_control
    enough_pct = WINTER_LEVEL_PCT
    if isinstance(level, float) and level >= enough_pct:
        return Charge("stop", f"Stop: the receiver stands at {level:.0f} %. No ounce more, whatever is left in the cylinder")
    if glass == "clear" and facts.unit.receiver:
        if not mixing:
            return Charge("stop", f"Stop: the glass is clear, {went}")
        ambient = facts.number("ambient_f")
        warm = holds.blocked_on_purpose(facts) or (ambient is not None and ambient >= WARM_F)
        if isinstance(level, float) and warm:
            return Charge("yes", f"Glass clear at {level:.0f} %: on to {enough_pct:.0f} % for the winter, the mixing valve floods the "
                                 "condenser", ("the winter's share is still to go in",))  # fmt: skip
        return Charge("first", "Glass clear. First the receiver's level, warm or covered: the winter's share goes by it")
    band, subcooling = default_band(facts.unit, "subcooling_f"), facts.derived.get("subcooling_f")
    if not facts.unit.receiver and band is not None and subcooling is not None and "liquid_line_f" in gas.since and subcooling >= band[0]:
        return Charge("stop", f"Stop: subcooling {shown.text(subcooling, '°F diff')}, {went}")
    if filling(judged) and gas.oz is not None:
        whole = label if label is not None else missing.usual_charge_oz(facts.unit)
        if gas.oz < additions.AT_ONCE * whole:
            about = f"the plate's {shown.text(whole, 'oz', 1)}" if label is not None else f"about {shown.text(whole, 'oz', 0)}"
            return Charge("yes", f"On: {went} of {about}, as liquid on the high side, compressor off", ("the circuit was emptied",))
    if not gas.since.keys() & {"sight_glass", "receiver_level_pct", "liquid_line_f", "suction_psig"}:
        return Charge("first", f"{went[:1].upper()}{went[1:]}: ten minutes, then glass, level and amps, before any more")
    if glass in BUBBLES:
        told = may_add.may_add(facts, leak_decided(judged), filling(judged))
        in_the_way = [line for line in told.lines if line.state == "first" and line.code not in ("second", "leak")]
        if in_the_way:
            return Charge("first", f"First this. {in_the_way[0].label}: {in_the_way[0].says}")
        where = f" at {level:.0f} %" if isinstance(level, float) else ""
        return Charge("yes", f"On, in small additions: the glass still bubbles{where}", ("the glass still bubbles after gas went in",))
    due = _suction_due(facts) if not facts.unit.receiver and "suction_psig" in gas.since else None
    if due is not None and (read := facts.number("suction_psig")) is not None and read < due[0]:
        span = shown.span(*due, "psig")
        return Charge("yes", f"On, in small additions: {went}, suction {shown.text(read, 'psig', 0)} where {span} are due at this box",
                      ("suction stands under what such a unit runs here",))  # fmt: skip
    return Charge("stop", f"Enough: {went}, and nothing asks for more")


def _suction_due(facts: Facts) -> tuple[float, float] | None:
    """The suction a sound unit runs at this box and air, psig from and to; None where either is not known."""
    box, air = facts.number("box_temp_f"), facts.number("ambient_f")
    return None if box is None or air is None else expected(facts.unit, box, air).suction_psig


def _signs(judged: Judged, facts: Facts) -> tuple[str, ...]:
    """What asks for gas."""
    found = []
    if facts.is_("sight_glass", *BUBBLES) and not stopped.says_nothing("sight_glass", facts):
        found.append("the glass bubbles")
    level = facts.number("receiver_level_pct")
    if level is not None and _low_level(facts, level):
        found.append(f"the receiver stands at {level:.0f} %")
    band, subcooling = default_band(facts.unit, "subcooling_f"), facts.derived.get("subcooling_f")
    if not facts.unit.receiver and band is not None and subcooling is not None and subcooling < band[0]:
        found.append(f"subcooling is {facts.shown.text(subcooling, '°F diff')}")
    if facts.is_("leak_test", "found"):
        found.append("a leak was found")
    left = judged.left_by_cause(1)
    if max(left.get(code, 0.0) for code in SHORT) >= SHORT_FROM:
        found.append("it looks short of gas")
    return tuple(found)


def held(now: Judgement, act: Act) -> list[Hold]:
    """Return the holds in force on an act. Running a valve in, out and back is held no more than closing it: not where it floods."""
    if not act.held_as or (act.code == EXERCISED and _floods_past_its_bulb(now)):
        return []
    return holds.blocking(list(now.holds), act.held_as)


def _floods_past_its_bulb(now: Judgement) -> bool:
    """Whether superheat at the coil is next to nothing with the bulb found right: closing the valve is never held then."""
    verdict = next((one for one in now.verdicts if one.quantity == "superheat_evap_f"), None)
    low = verdict is not None and verdict.state in ("low", "impossible") and verdict.value <= FLOODS_F
    return low and now.facts.is_("bulb", "tight_insulated")


def valve(judged: Judged, opened: Opened, coil: int = 1) -> Valve:
    """Return whether the stem of a coil's valve may be turned to set superheat."""
    record = judged.staged.record
    on = coil if record.several else None
    now = judged.course(coil).now
    facts = now.facts
    if facts.unit.metering != "txv":
        return Valve("no", "It has no stem to set", None, on)
    if opened.empty or opened.open:
        return Valve("no", "The circuit is open: nothing is set before it runs", None, on)
    if without_answer(judged.staged, coil) >= NO_MORE_TURNS:
        return Valve("no", "Two turns without an answer: no third. Bulb, strainer, element, then the valve", None, on, True)
    verdict = next((one for one in now.verdicts if one.quantity == "superheat_evap_f"), None)
    if judged.staged.clock_on(coil) is not None:
        return Valve("wait", f"Wait: {judged.staged.settles_on(coil):.0f} min until it has settled", None, on)
    if verdict is None:
        waits = [hold for hold in now.holds if "txv_adjust" in hold.blocks and hold.code != "bulb_first"]
        return Valve("wait", f"{waits[0].title}: {waits[0].text}", None, on) if waits else Valve("no", "Superheat is not known", None, on)
    return _by_superheat(judged, verdict, facts, coil, on)


def _stem_at_end(judged: Judged, coil: int) -> str:
    """The stop that the stem of a coil stands at, as it was seen; empty where nobody saw one, or it was turned since."""
    record, end = judged.staged.record, ""
    for event in record.standing:
        if event.on not in (None, coil) or event.get("part") != "valve":
            continue
        if event.kind == "looked" and event.data["state"] in ("at_end_in", "at_end_out"):
            end = event.data["state"]
        elif event.kind == "act" and event.data["did"] in ("turned_in", "turned_out", "exercised", "replaced"):
            end = ""
    return end


def _read_apart_min(facts: Facts) -> float | None:
    """How far apart suction and line were read, where that is too far for one superheat; a probe set reads both at once."""
    ages = [facts.ages_min.get(key) for key in ("suction_psig", "suction_line_evap_f")]
    if "superheat_read_f" in facts.seen or ages[0] is None or ages[1] is None:
        return None
    apart = abs(ages[0] - ages[1])
    return apart if apart >= APART_MIN else None


def _by_superheat(judged: Judged, verdict: Verdict, facts: Facts, coil: int, on: int | None) -> Valve:
    told = facts.shown.text(verdict.value, "°F diff")
    if verdict.state == "impossible":
        return Valve("no", f"Superheat {told} cannot be: read line and suction again first", None, on)
    if verdict.state == "ok" or (verdict.trust == "none" and verdict.state != "low"):
        return Valve("no", f"Superheat {told} is in its band" if verdict.state == "ok" else f"Superheat {told} counts for nothing yet: "
                     f"{verdict.why}", None, on)  # fmt: skip
    closes = verdict.state == "low"
    now = judged.course(coil).now
    end = _stem_at_end(judged, coil)
    if end == ("at_end_in" if closes else "at_end_out"):
        stop = "inner" if closes else "outer"
        return Valve("no", f"Superheat {told}, and the stem stands at its {stop} stop: bulb, strainer, element, then the valve", None, on)
    apart = _read_apart_min(facts)
    if apart is not None:
        older = "Suction" if facts.ages_min["suction_psig"] > facts.ages_min["suction_line_evap_f"] else "The line"
        return Valve("wait", f"{older} was read {apart:.0f} min before the other: read both before a turn", None, on)
    waits = [] if closes and _floods_past_its_bulb(now) else holds.blocking(list(now.holds), "txv_adjust")
    if waits:
        return Valve("wait", f"{waits[0].title} first: {waits[0].text}", None, on)
    if not closes and facts.is_("sight_glass", *BUBBLES):
        return Valve("no", "Gas stands before the valve: the supply first, not the stem", None, on)
    far = max(verdict.low - verdict.value, verdict.value - verdict.high) >= FAR_OUT_F
    step = FAR_OUT_STEP_TURNS if far else USUAL_STEP_TURNS
    did = "turned_in" if closes else "turned_out"
    words = "in, which closes it" if closes else "out, which opens it"
    return Valve("yes", f"Superheat {told}, {verdict.state}: turn {words}, up to {turn_words(step)}", (did, step), on)
