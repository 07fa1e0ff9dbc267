"""Ice as it was found, how it was melted, and a coil seen bare."""

from kettle.benches.ice import map as ice_map
from kettle.benches.ice.melt import METHODS
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.hears import (
    drawn,
    ice_read,
)
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.words import day, listed, lower
from kettle.knowledge import observations
from kettle.knowledge.measures import format_number


def ice(call: Call, event: Event) -> list[Sentence]:
    """Ice as it was found, and a coil seen bare."""
    form, places = ice_read(call.record, event)
    painted = drawn(event)
    on = call.record.on_words(event.on)
    melted = any(
        step.did.code == "coil.melted"
        and step.did.on in (None, event.on)
        and call.record.place[step.event.number] < call.record.place[event.number]
        for step in call.staged.steps
    )
    if form == "none" and not (painted and painted.iced_places):
        later = [
            one
            for one in call.record.all_of("ice")
            if one.on in (None, event.on) and call.record.place[one.number] > call.record.place[event.number]
        ]
        earlier = call.record.all_of("ice")[: call.record.all_of("ice").index(event)]
        gone = any(one.on in (None, event.on) and ice_read(call.record, one)[0] not in ("none", None) for one in earlier)
        if gone and not melted and not later:
            return [sentence("left", f"Coil seen bare{on}", (event,), "proof")]
        if not melted:
            return (
                []
                if painted is None and event.get("covers_pct") is None
                else [sentence("found", f"Coil bare of ice{on}", (event,), "right")]
            )
        behind = ", back and corners too" if painted is not None and all(painted.places.get(p) == "none" for p in ice_map.HIDDEN) else ""
        when = f" on {day(event.at)}" if event.at is not None and _another_day(call, event) else ""
        return [] if later else [sentence("left", f"Coil seen bare{on}{when}{behind}", (event,), "proof")]
    words = ice_map.FORM_WORDS.get(form, form)
    covered = event.get("covers_pct")
    if painted is not None:
        covered = ice_map.read(painted, event.get("face_ft2", 1.0)).covered_pct
        labels = [lower(ice_map.PLACES[code].label) for code in painted.iced_places]
    else:
        known = dict(observations.get("ice_places").choices) | {code: place.label for code, place in ice_map.PLACES.items()}
        labels = [lower(known[code]) for code in event.get("places", ()) if code != "coil_whole"]
    share = f" over {format_number(float(covered), 0)} % of the coil" if covered is not None else ""
    at = f", at {listed(labels)}" if labels else ", over the whole coil" if "coil_whole" in places and not share else ""
    section = "left" if melted else "found"
    name = call.record.coil_name(event.on)
    where = f" on coil {name}" if name else ""
    if name:
        share = share.replace(" of the coil", " of it")
    return [sentence(section, f"{words}{where}{share}{at}", (event,), "ice")]


def _another_day(call: Call, event: Event) -> bool:
    first = next((one.at for one in call.record.standing if one.at is not None), None)
    return first is not None and event.at is not None and event.at.date() != first.date()


def melt(call: Call, event: Event) -> list[Sentence]:
    """How the ice was taken off, and whether all of it."""
    code = event.get("method", "")
    how = f", {_how(code, METHODS[code].label)}" if code else ""
    minutes = f" in {format_number(float(event.data['minutes']), 0)} min" if event.get("minutes") is not None else ""
    clear = {True: ", all clear", False: ", ice left"}.get(event.get("all_clear"), "")
    why = f" ({lower(str(event.data['left_why']))})" if event.get("left_why") else ""
    name = call.record.coil_name(event.on)
    coil = f"Coil {name}" if name else "Coil"
    return [sentence("done", f"{coil} melted{minutes}{how}{clear}{why}", (event,), "act")]


def _how(code: str, label: str) -> str:
    return {
        "own_heaters": "by its own heaters, power on", "fans_only": "by its fans alone, box held open", "flame": "with a flame",
        "heat_gun": "with a heat gun", "hose": "with a hose",
    }.get(code, f"with {lower(label.partition(',')[0])}")  # fmt: skip
