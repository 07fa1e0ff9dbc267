"""Sums of the charge bench that keep nothing: the winter charge, and what a receiver holds."""

from kettle.benches.charge import receiver, winter
from kettle.benches.charge.missing import usual_charge_oz
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import OZ_PER_LB

USUAL_HELD_F, USUAL_SPLIT_F, USUAL_COLD_F = 80.0, 20.0, 0.0
WISHES = ("rest_psig", "pipe_f", "volume_ft3", "tube_ft", "bore_in", "summer_lb", "split_f", "held_f", "ambient_f", "summer_level",
          "length_in", "diameter_in", "lies", "liquid_f")  # fmt: skip


def winter_context(asked, standing):
    """The winter charge of a flooded condenser, and how condenser and receiver fill over the year."""
    unit, shown, site = standing.unit, standing.shown, standing.call.unit.site
    if "mixing_valve" not in unit.head_control:
        return {"winter": None, "winter_fields": []}
    summer = asked.figure("summer_lb", "Summer charge", "lb", usual_charge_oz(unit) / OZ_PER_LB)
    split = asked.figure("split_f", "Design split", "°F diff", USUAL_SPLIT_F)
    held = asked.figure("held_f", "Held at", "°F", USUAL_HELD_F)
    known_cold = site.coldest_f if site and site.coldest_f is not None else USUAL_COLD_F
    cold = asked.figure("ambient_f", "Lowest outdoor air", "°F", known_cold)
    feet, bore = asked.figure("tube_ft", "Tube", "ft"), asked.figure("bore_in", "Inside", "in")
    level = asked.figure("summer_level", "Level in summer", "%")
    volume, from_what = asked.figure("volume_ft3", "Condenser", "ft³"), "as typed"
    found, over, receiver_ft3 = None, [], None
    try:
        if volume is None and feet is not None and bore is not None:
            volume, from_what = winter.volume_of_tube_ft3(feet, bore), "by its tube"
        elif volume is None:
            volume, from_what = winter.usual_volume_ft3(unit, summer), "usual for the summer charge"
        found = winter.winter(unit.refrigerant, volume, split, held, cold, summer)
        receiver_ft3 = _receiver_ft3(asked) or found.receiver_ft3
        if level is None:
            level = winter.usual_summer_level_pct(unit.refrigerant, summer, receiver_ft3)
        over = winter.over_the_year(unit.refrigerant, volume, split, held, winter.days_f(cold), receiver_ft3, level, found.add_lb)
    except FieldErrors as error:
        asked.wrong.update(error.by_field)
    fields = asked.fields((
        ("summer_lb", "Summer charge", "lb", summer), ("split_f", "Design split", "°F diff", split), ("held_f", "Held at", "°F", held),
        ("ambient_f", "Lowest outdoor air", "°F", cold), ("tube_ft", "Condenser tube", "ft", feet), ("bore_in", "Its inside", "in", bore),
        ("volume_ft3", "or its volume", "ft³", asked.figure("volume_ft3", "Condenser", "ft³")),
        ("summer_level", "Receiver in summer", "%", level),
    ))  # fmt: skip
    if found is None:
        return {"winter": None, "winter_fields": fields}
    return {
        "winter": found, "winter_fields": fields, "volume_words": f"{volume:.3g} ft³, {from_what}",
        "flooded_pct": f"{found.flooded_pct:.0f} %", "add_words": shown.text(found.add_lb, "lb", 1),
        "receiver_words": f"{found.receiver_ft3:.2g} ft³",
        "thumb_words": shown.span(*found.thumb_lb, "lb", 1),
        "filling": [
            (shown.text(one.ambient_f, "°F", 0), f"{one.condenser_pct:.0f}", f"{one.drawn_pct:.0f}",
             f"{one.receiver_pct:.0f}", one.over, one.empty)
            for one in over
        ],
    }  # fmt: skip


def _receiver_ft3(asked):
    length, diameter = asked.figure("length_in", "Length", "in"), asked.figure("diameter_in", "Diameter", "in")
    if length is None or diameter is None:
        return None
    return receiver.volume_ft3(length, diameter)


def receiver_context(asked, standing):
    """What the receiver holds by its level, drawn in its own shape."""
    unit, facts, shown = standing.unit, standing.judgement.facts, standing.shown
    if not unit.receiver:
        return {"receiver_fields": []}
    length, diameter = asked.figure("length_in", "Length", "in"), asked.figure("diameter_in", "Diameter", "in")
    liquid = asked.figure("liquid_f", "Liquid", "°F", facts.number("liquid_line_f") or facts.derived.get("sct_f") or 90.0)
    lies = asked.typed.get("lies", "")
    lies = lies if lies in receiver.LIES else "standing"
    level, held = facts.number("receiver_level_pct"), ""
    if length is not None and diameter is not None and level is not None:
        try:
            whole = receiver.volume_ft3(length, diameter)
            held = shown.text(receiver.held_lb(unit.refrigerant, whole, level, lies, liquid), "lb", 1)
        except FieldErrors as error:
            asked.wrong.update(error.by_field)
    return {
        "receiver_fields": asked.fields((("length_in", "Length", "in", length), ("diameter_in", "Diameter", "in", diameter),
                                         ("liquid_f", "Liquid", "°F", liquid))),
        "receiver_lies": receiver.LIES.items(), "lies": lies, "level": level, "level_held": held,
        "level_words": "" if level is None else f"{level:.0f} %",
        "level_drawn": None if level is None else [f"{end:.0f}" for end in receiver.drawn(level)],
    }  # fmt: skip
