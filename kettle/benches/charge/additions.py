"""Gas added in small steps: how much at a time, what each brought, and when to stop."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.bands import default_band
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.unit import Unit
from kettle.knowledge.units import OZ_PER_LB, TRADE, ShownUnits, format_number
from kettle.plant.sizing import sized

# One addition, as a share of what such a unit holds; rounded to a half ounce and no less than one.
SHARE: Final = 0.04
LEAST_OZ: Final = 1.0
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
    """One addition: ounces by the scale, and what was read after it; None where it was not."""

    oz: float
    glass: str | None = None
    subcooling_f: float | None = None
    amps_pct: float | None = None
    superheat_f: float | None = None


def usual_charge_oz(unit: Unit) -> float:
    """Return about what such a unit holds, oz: its label, else as the plant model sizes it."""
    return unit.critical_charge_oz or float(sized(unit).parts.charge_lb[0]) * OZ_PER_LB


def one_addition_oz(unit: Unit, glass: str | None = None) -> float:
    """Return how much goes in at a time, oz: the more the emptier its sight glass is (a word of `sight_glass`)."""
    share = SHARE * TIMES.get(glass or "", 1.0)
    return max(round(2.0 * share * usual_charge_oz(unit)) / 2.0, LEAST_OZ)


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


def told(unit: Unit, added: Sequence[Addition], shown: ShownUnits = TRADE, glass: str | None = None) -> list[str]:
    """Return what to do after the last of some additions: stop and why, or how much more; the most urgent first. `glass` as found."""
    if not added:
        return [f"About {shown.text(one_addition_oz(unit, glass), 'oz', 1)} at a time"]
    last, whole = added[-1], sum(one.oz for one in added)
    band = default_band(unit, "subcooling_f")
    told_whole = shown.text(whole, "oz", 1)
    if last.amps_pct is not None and last.amps_pct > RATED_PCT:
        return [f"Stop: {format_number(last.amps_pct, 0)} % of rated amps. Wait until they fall"]
    if last.superheat_f is not None and last.superheat_f <= 0.0:
        return [f"Stop: liquid comes back after {told_whole}. Not short: the valve; oil is washed out"]
    if unit.receiver and last.glass == "clear":
        return [f"Stop: the glass is clear after {told_whole}. Then the winter charge, where a mixing valve floods the condenser"]
    if not unit.receiver and band is not None and last.subcooling_f is not None and last.subcooling_f >= band[0]:
        high = " Over its band: take some out" if last.subcooling_f > band[1] else ""
        return [f"Stop: subcooling {shown.text(last.subcooling_f, '°F diff')} after {told_whole}.{high}".rstrip(".")]
    if whole >= WITHOUT_SIGN_SHARE * usual_charge_oz(unit) and not _moved(added):
        return [f"Stop: {told_whole} and nothing moved. It was not short by that: look again at the list above"]
    return [f"{told_whole} in. Ten minutes, then about {shown.text(one_addition_oz(unit, last.glass), 'oz', 1)} more"]


def _moved(added: Sequence[Addition]) -> bool:
    cooled = [one.subcooling_f for one in added if one.subcooling_f is not None]
    glasses = [one.glass for one in added if one.glass]
    order = ("empty", "flashing", "few_bubbles", "clear")
    better = len(glasses) > 1 and glasses[-1] in order and glasses[0] in order and order.index(glasses[-1]) > order.index(glasses[0])
    return better or (len(cooled) > 1 and cooled[-1] - cooled[0] > 1.0)
