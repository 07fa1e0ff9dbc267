"""The planner: each school's program beside the one as found, a week ahead, and which to take and why."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from kettle.benches.defrost.program import FOUND, HEATED, LEFT, OWN, Program
from kettle.benches.defrost.proposals import SCHOOLS, USUAL, Limits, propose
from kettle.benches.defrost.situation import DOUBTS, Situation, cured
from kettle.benches.defrost.week import Outlook, look_ahead
from kettle.knowledge.measures import TRADE, ShownUnits, format_number

CURED_DAYS: Final = 3
MELTS_NOTHING: Final = "Air at or below freezing melts nothing: no program can win here. A heater would, or a box held above freezing"
# Share of the work that finding the programs takes; the rest is their weeks.
FINDING: Final = 0.25
IT_WINS: Final = {FOUND: "Leave it as it was found: it wins already", LEFT: "Leave it as you set it: it wins"}
# A program must do so much better than another, in kWh of heat a day, to be worth a sentence.
WORTH_KWH: Final = 0.3
LONG_OVER_MIN: Final = 20.0
FULL: Final = 0.8
RUNS_ON_MIN: Final = 8.0
FAR_OVER: Final = 1.0
FAR_OVER_MIN: Final = 15.0


@dataclass(frozen=True)
class Choice:
    """A program of the plan: its school's code ("found" for as found), label, what the model says, what is against it, whether the site has
    disproved it."""

    code: str
    label: str
    says: str
    outlook: Outlook
    against: tuple[str, ...]
    disproved: bool = False


@dataclass(frozen=True)
class Plan:
    """The choices, the code of the one to take ("" where none wins), why, and what would let one win."""

    choices: tuple[Choice, ...]
    take: str
    reasons: tuple[str, ...]
    cures: tuple[str, ...]

    def choice(self, code: str) -> Choice | None:
        """Return a choice by its code."""
        return next((choice for choice in self.choices if choice.code == code), None)


def plan(
    asked: Situation,
    found: Program | None,
    limits: Limits = USUAL,
    shown: ShownUnits = TRADE,
    tell: Callable[[float], None] | None = None,
    left: Program | None = None,
) -> Plan:
    """Return the plan for a unit; `found` is its program as found where it is known, `left` as it was set on this call.

    `tell` is called with the share done and may raise `Stopped`. Words are in the units of `shown`. Raises InputError as
    `situation` does.
    """

    def told(begins: float, share: float) -> Callable[[float], None] | None:
        return None if tell is None else lambda done: tell(begins + share * done)

    proposed = propose(asked, limits, told(0.0, FINDING))
    own = {code: one for code, one in ((FOUND, found), (LEFT, left if left != found else None)) if one is not None}
    programs = own | proposed
    if not programs:
        return Plan((), "", (), (MELTS_NOTHING,))
    weeks = look_ahead(asked, list(programs.values()), tell=told(FINDING, 1.0 - FINDING))
    outlooks = dict(zip(programs, weeks, strict=True))
    names, unit_heated = {school.code: school for school in SCHOOLS}, asked.unit.defrost in HEATED
    choices = []
    for code, outlook in outlooks.items():
        school = names.get(code)
        label, says = (school.label, school.says_on(unit_heated)) if school else OWN[code]
        disproved = asked.against(outlook.program)
        spoken = ((disproved,) if disproved else ()) + tuple(against(outlook, code, asked, limits, shown))
        choices.append(Choice(code, label, says, outlook, spoken, bool(disproved)))
    take = _best(choices)
    if not proposed:
        return Plan(tuple(choices), "", (), (MELTS_NOTHING,))
    if take is None:
        return Plan(tuple(choices), "", (), tuple(_cures(asked, choices)))
    return Plan(tuple(choices), take.code, tuple(_reasons(take, choices, shown)), ())


def against(o: Outlook, code: str, asked: Situation, limits: Limits, shown: ShownUnits) -> list[str]:
    """Return what speaks against a program, worst first, in words; `code` is its school."""
    found, heated = [], asked.unit.defrost in HEATED
    if not o.kept[0]:
        found.append(f"{shown.text(o.left_lb.middle, 'lb')} of ice stays on the coil after a week")
    elif not o.kept[1]:
        found.append(f"in bad weeks ice stays on the coil, up to {shown.text(o.left_lb.high, 'lb')}")
    if o.margin_min.middle < 0:
        found.append("the fail-safe cuts it off before the coil is clear")
    if limits.box_limit_f is not None and o.box_peak_f.middle > limits.box_limit_f:
        peak, limit = shown.text(o.box_peak_f.middle, "°F", 0), shown.text(limits.box_limit_f, "°F", 0)
        found.append(f"the box comes to {peak}, over its limit of {limit}")
    elif o.over_limit_min.middle >= LONG_OVER_MIN:
        found.append(f"the box is too warm for {o.over_limit_min.middle:.0f} min a day")
    if o.blocked.middle > FULL:
        found.append("the coil is nearly shut with frost before it starts")
    if heated and o.runs_on_min.middle > RUNS_ON_MIN:
        found.append(f"it heats on for {o.runs_on_min.middle:.0f} min after the coil is clear")
    if heated and o.margin_min.middle > max(FAR_OVER * o.clear_min.middle, FAR_OVER_MIN):
        found.append(f"the fail-safe stands {o.margin_min.middle:.0f} min over what the coil needs")
    if code == "demand" and not limits.can_demand:
        found.append("it needs a controller that starts them by what the coil does")
    return found


def _best(choices: list[Choice]) -> Choice | None:
    """The program to take: of those that win, the one with least against it, then with least heat; as found where it is as good."""
    winners = [choice for choice in choices if choice.outlook.wins and not choice.disproved]
    if not winners:
        return None

    def worth(choice: Choice) -> tuple[float, ...]:
        o = choice.outlook
        heat, filled = round(o.heat_kwh.middle, 1), round(o.blocked.high, 1)
        return not o.kept[1], len(choice.against), heat, choice.code not in OWN, filled, o.starts_a_day.middle

    return min(winners, key=worth)


def _reasons(take: Choice, choices: list[Choice], shown: ShownUnits) -> list[str]:
    """Why this one, in sentences made from the figures."""
    o = take.outlook
    clear = "The coil comes out clear each time"
    reasons = [IT_WINS[take.code]] if take.code in OWN else []
    reasons.append(f"{clear}, with all against it too" if o.kept[1] else f"{clear}, as assumed")
    if o.starts_a_day.middle and o.clear_min.middle >= 1.0:
        reasons.append(f"It needs {o.clear_min.middle:.0f} min at worst, {o.margin_min.middle:.0f} min to spare before the fail-safe")
    found = next((choice for choice in choices if choice.code == FOUND), None)
    if found is not None and found is not take:
        less = found.outlook.heat_kwh.middle - o.heat_kwh.middle
        cooler = found.outlook.box_peak_f.middle - o.box_peak_f.middle
        if found.outlook.left_lb.middle > o.left_lb.middle + 0.1:
            reasons.append(f"As found, {shown.text(found.outlook.left_lb.middle, 'lb')} of ice would stay after a week")
        elif not found.outlook.kept[1] and o.kept[1]:
            reasons.append(f"As found, up to {shown.text(found.outlook.left_lb.high, 'lb')} of ice would stay after a bad week")
        if less > WORTH_KWH:
            reasons.append(f"{format_number(less)} kWh a day less heat into the box than as found")
        if cooler > 1.0:
            reasons.append(f"The box peaks {shown.text(cooler, '°F diff', 0)} lower than as found")
    rivals = [c for c in choices if c.code not in (*OWN, take.code) and c.outlook.wins and not c.disproved]
    more = [c for c in rivals if c.outlook.heat_kwh.middle > o.heat_kwh.middle + WORTH_KWH]
    worse = [c for c in rivals if c not in more and len(c.against) > len(take.against)]
    if more:
        reasons.append(f"More heat: {_names(more)}")
    reasons += [f"{c.label}: {c.against[0]}" for c in worse]
    return reasons


def _names(choices: list[Choice]) -> str:
    return ", ".join(choice.label for choice in choices)


def _cures(asked: Situation, choices: list[Choice]) -> list[str]:
    """Why no program wins, and which repairs let one win, tried in the model."""
    best = min((c for c in choices if c.code not in OWN), key=lambda c: (c.outlook.left_lb.middle, c.outlook.over_limit_min.middle))
    lines = [f"No program wins. Even with {best.label.lower()}, {best.against[0]}"]
    for repair, repaired in cured(asked).items():
        weeks = look_ahead(repaired, [choice.outlook.program for choice in choices if choice.code not in OWN], CURED_DAYS, DOUBTS[:1])
        winners = [week for week in weeks if week.wins]
        first = repair[0].upper() + repair[1:]
        if winners:
            lines.append(f"{first}: then a program wins, and {min(week.clear_min.middle for week in winners):.0f} min clear the coil")
        else:
            lines.append(f"{first}: not enough by itself")
    if len(lines) == 1:
        heater = ", heater" if asked.unit.defrost in HEATED else ", fans"
        lines.append(f"Look at doors{heater} and drain first, and melt what is there; then plan again")
    return lines
