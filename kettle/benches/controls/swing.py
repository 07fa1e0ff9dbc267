"""A thermostat swung against one's own thermometer: what it really does, and what to set for what is wanted."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number

AIR_F: Final = (-60.0, 90.0)
# Off by less than this is as good as a thermometer; a differential below the first short-cycles, above the second swings.
OFF_FROM_F: Final = 1.5
NARROW_F, WIDE_F = 1.5, 8.0
LABELS: Final = {
    "cut_in_f": "Cut-in seen", "cut_out_f": "Cut-out seen", "dial_f": "Dial", "wanted_f": "Wanted",
}  # fmt: skip


# Air at a sensor that lies so far from the middle of the box, °F, is another air: on the wall, in the supply, by the door.
ELSEWHERE_F: Final = 3.0
# More starts an hour than this wear a compressor and its contacts.
MOST_STARTS: Final = 8.0


@dataclass(frozen=True)
class Swung:
    """What a thermostat does: the middle it holds, its differential, how far it lies from its dial, and what to set; °F."""

    holds_f: float
    differential_f: float
    off_f: float
    new_dial_f: float
    says: tuple[str, ...]


def swung(cut_in_f: float, cut_out_f: float, dial_f: float, wanted_f: float, dial_is: str = "middle") -> Swung:
    """Return what a thermostat does by the air at which it was seen to close and to open, against its dial and what is wanted, °F.

    `dial_is` says what its dial shows: the middle it holds, its cut_in or its cut_out. Raises FieldErrors by field.
    """
    wrong = {
        name: f"{LABELS[name]}: {format_number(value)} °F is outside {format_number(AIR_F[0], 0)} to {format_number(AIR_F[1], 0)} °F"
        for name, value in (("cut_in_f", cut_in_f), ("cut_out_f", cut_out_f), ("dial_f", dial_f), ("wanted_f", wanted_f))
        if not AIR_F[0] <= value <= AIR_F[1]
    }
    if not wrong and cut_in_f <= cut_out_f:
        wrong["cut_in_f"] = f"Cut-in seen: {format_number(cut_in_f)} °F is not above the cut-out, {format_number(cut_out_f)} °F"
    if wrong:
        raise FieldErrors(wrong)
    seen = {"middle": (cut_in_f + cut_out_f) / 2.0, "cut_in": cut_in_f, "cut_out": cut_out_f}
    if dial_is not in seen:
        raise FieldErrors({"dial_is": f"Dial: “{dial_is[:20]}” is none of {', '.join(seen)}"})
    holds, differential, off = seen["middle"], cut_in_f - cut_out_f, seen[dial_is] - dial_f
    new = dial_f + (wanted_f - holds)
    says = []
    if abs(off) >= OFF_FROM_F:
        says.append(
            f"It lies {format_number(abs(off))} °F {'above' if off > 0 else 'below'} its dial: its bulb or its place first, then the dial"
        )
    else:
        says.append("It does what its dial says")
    if abs(new - dial_f) >= 0.5:
        says.append(f"Set the dial to {format_number(new)} °F to hold {format_number(wanted_f)} °F, and swing it again")
    if differential < NARROW_F:
        says.append(f"{format_number(differential)} °F of differential is too little: it starts and stops all the time")
    elif differential > WIDE_F:
        says.append(f"{format_number(differential)} °F of differential is wide: the sensor is slow or out of the air, or it is set so")
    return Swung(holds, differential, off, new, tuple(says))


def place(swing: Swung, box_f: float | None) -> str:
    """Return what the middle of the box (°F, over the same swing) says of the sensor's place; empty where it is right or not known."""
    if box_f is None or abs(box_f - swing.holds_f) < ELSEWHERE_F:
        return ""
    apart = format_number(abs(box_f - swing.holds_f))
    if box_f > swing.holds_f:
        return f"The sensor has {apart} °F colder air than the box: in the supply, on the coil or its metal. Move it into the return air"
    return f"The sensor has {apart} °F warmer air than the box: by the door, a light or a warm wall. Move it into the return air"


def often(starts_an_hour: float) -> str:
    """Return what the starts an hour say of a differential; empty where they are fine."""
    if starts_an_hour <= MOST_STARTS:
        return ""
    most = format_number(MOST_STARTS, 0)
    return f"{format_number(starts_an_hour)} starts an hour are too many, {most} is the most that lasts: a wider differential"
