"""Gas added in small steps: how much at a time, what each brought, and when to stop."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.charge.missing import Missing, usual_charge_oz
from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import OZ_PER_LB, TRADE, ShownUnits, format_number

# One addition, as a share of what such a unit holds; rounded to a half ounce and no less than one.
SHARE: Final = 0.04
LEAST_OZ: Final = 1.0
# Of what is missing at the least so much goes in at a time: towards several pounds it is no dozen rounds, and the last are small ones.
OF_MISSING: Final = 0.25
# What a unit of a kind holds lies within this share of what such units hold.
EMPTY_DOUBT: Final = 0.25
# Into an emptied circuit so much of its charge goes at once, as liquid on the high side with the compressor off.
AT_ONCE: Final = 0.5
# An empty glass is pounds away, a flashing one less: several pounds are no dozen rounds. Judgement of the trade.
TIMES: Final = {"empty": 3.0, "flashing": 2.0}
# More than this share of the whole without any sign: it was not short.
WITHOUT_SIGN_SHARE: Final = 0.25
RATED_PCT: Final = 100.0
CYLINDER_OZ: Final = (0.0, 4000.0)
# What was taken cannot be more than this in one go, oz, nor less than what a scale tells.
ONE_GO_OZ: Final = 1600.0
SCALE_OZ: Final = 0.05


@dataclass(frozen=True)
class Addition:
    """One addition: ounces by the scale (None by eye), and what was read after it; None where it was not."""

    oz: float | None
    glass: str | None = None
    subcooling_f: float | None = None
    amps_pct: float | None = None
    superheat_f: float | None = None


def one_addition_oz(unit: Unit, glass: str | None = None, least_missing_oz: float = 0.0) -> float:
    """Return how much goes in at a time, oz: the more the emptier its sight glass is (a word of `sight_glass`), or the more is missing."""
    share = SHARE * TIMES.get(glass or "", 1.0)
    return max(round(2.0 * max(share * usual_charge_oz(unit), OF_MISSING * least_missing_oz)) / 2.0, LEAST_OZ)


@dataclass(frozen=True)
class ToGo:
    """About how much is still to go in, oz: the figure, the span it lies in, what tells it; `empty` where the circuit holds none."""

    oz: float
    low_oz: float
    high_oz: float
    by: str
    empty: bool = False

    def told(self, shown: ShownUnits = TRADE) -> str:
        """Return it in words, marked as the estimate it is."""
        # What is only estimated is told in pounds where it is pounds.
        unit, each, places = ("lb", 1.0 / OZ_PER_LB, 1) if self.high_oz > OZ_PER_LB else ("oz", 1.0, 0)
        low, about, high = (shown.text(one * each, unit, places) for one in (self.low_oz, self.oz, self.high_oz))
        return f"About {about} to go, {low} to {high}: an estimate by {self.by}"


def to_go(unit: Unit, told: Missing | None, empty_in_oz: float | None = None) -> ToGo | None:
    """Return about how much is still to go in: by what such a unit holds where its circuit was emptied and so much is in again
    (`empty_in_oz`, oz; None where it was not), else by what is missing of it; None where nothing tells."""
    if empty_in_oz is not None:
        whole, left = usual_charge_oz(unit), max(usual_charge_oz(unit) - empty_in_oz, 0.0)
        room = EMPTY_DOUBT * whole
        return ToGo(left, max(left - room, 0.0), left + room, "what such units hold", empty=empty_in_oz <= 0.0)
    if told is None:
        return None
    return ToGo(told.oz, told.low_oz, told.high_oz, " and ".join(told.by))


def by_scale(before_oz: float, after_oz: float, lost_oz: float = 0.0) -> float:
    """Return the ounces that went into a unit, by its cylinder's weight before and after and what stayed in hoses; FieldErrors by field."""
    wrong = {}
    for name, label, value in (("before", "Cylinder before", before_oz), ("after", "Cylinder now", after_oz)):
        if not CYLINDER_OZ[0] < value <= CYLINDER_OZ[1]:
            wrong[name] = f"{label}: {format_number(value, 1)} oz is outside 0 to {CYLINDER_OZ[1]:g} oz"
    if not 0.0 <= lost_oz <= 16.0:
        wrong["lost"] = f"Hose and tap: {format_number(lost_oz, 1)} oz is outside 0 to 16 oz"
    if not wrong:
        went = before_oz - after_oz - lost_oz
        if went < SCALE_OZ:
            wrong["after"] = f"Cylinder now: {format_number(after_oz, 1)} oz, nothing has left it but the hose's"
        elif went > ONE_GO_OZ:
            wrong["after"] = f"Cylinder now: {format_number(went, 1)} oz in one go is more than {ONE_GO_OZ:g} oz"
    if wrong:
        raise FieldErrors(wrong)
    return before_oz - after_oz - lost_oz


def additions_say(
    unit: Unit,
    added: Sequence[Addition],
    shown: ShownUnits = TRADE,
    glass: str | None = None,
    to_go: ToGo | None = None,
) -> list[str]:
    """Return what to do after the last of some additions: stop and why, or how much more; the most urgent first. `glass` as found."""
    going = [to_go.told(shown)] if to_go is not None and to_go.oz > 0 else []
    least = to_go.low_oz if to_go is not None else 0.0
    if not added:
        if to_go is not None and to_go.empty:
            at_once = shown.text(AT_ONCE * to_go.oz, "oz", 0)
            return [*going, f"First {at_once} as liquid on the high side, compressor off; then run it, the rest in small additions"]
        return [*going, f"About {shown.text(one_addition_oz(unit, glass, least), 'oz', 1)} at a time"]
    last, whole = added[-1], sum(one.oz or 0.0 for one in added)
    band = default_band(unit, "subcooling_f")
    told_whole = shown.text(whole, "oz", 1) if all(one.oz is not None for one in added) else "gas by eye"
    if last.amps_pct is not None and last.amps_pct > RATED_PCT:
        return [f"Stop: {format_number(last.amps_pct, 0)} % of rated amps. Wait until they fall"]
    if last.superheat_f is not None and last.superheat_f <= 0.0:
        return [f"Stop: liquid comes back after {told_whole}. Not short: the valve; oil is washed out"]
    if unit.receiver and last.glass == "clear":
        return [f"Stop: the glass is clear after {told_whole}. Then the winter charge, where a mixing valve floods the condenser"]
    if not unit.receiver and band is not None and last.subcooling_f is not None and last.subcooling_f >= band[0]:
        high = " Over its band: take some out" if last.subcooling_f > band[1] else ""
        return [f"Stop: subcooling {shown.text(last.subcooling_f, '°F diff')} after {told_whole}.{high}".rstrip(".")]
    if least <= 0.0 and whole >= WITHOUT_SIGN_SHARE * usual_charge_oz(unit) and not _moved(added):
        return [f"Stop: {told_whole} and nothing moved. It was not short by that: look again at the list above"]
    more = shown.text(one_addition_oz(unit, last.glass, least), "oz", 1)
    return [f"{told_whole[:1].upper()}{told_whole[1:]} in. Ten minutes, then about {more} more", *going]


def _moved(added: Sequence[Addition]) -> bool:
    cooled = [one.subcooling_f for one in added if one.subcooling_f is not None]
    glasses = [one.glass for one in added if one.glass]
    order = ("empty", "flashing", "few_bubbles", "clear")
    better = len(glasses) > 1 and glasses[-1] in order and glasses[0] in order and order.index(glasses[-1]) > order.index(glasses[0])
    return better or (len(cooled) > 1 and cooled[-1] - cooled[0] > 1.0)
