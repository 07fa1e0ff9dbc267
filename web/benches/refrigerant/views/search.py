"""The leak search: where its places lie on the circuit, what each gave, which is in hand."""

from kettle.benches.refrigerant import leaks
from kettle.benches.refrigerant.drawing import SPOTS
from kettle.knowledge.measures import whole
from web.benches.refrigerant.actions.record import looks_of, readings_of

MARKS = {"": "", "no": "–", "signal": "△", "twice": "▲", "bubbles": "●"}


def leaks_of(request, call, standing, typed, wrong):
    """The search: the place in hand is the one tapped, else the next worth searching."""
    unit, facts = standing.unit, standing.judgement.facts
    looked, readings = looks_of(call), readings_of(call)
    order = leaks.in_order(unit, facts)
    asked = typed.get("at") or request.GET.get("at", "")
    hand = next((place for place in order if place.code == asked), None)
    hand = hand or next((place for place in order if place.code not in looked), order[0])
    coil = leaks.coil_of(hand.code) or (whole(request.GET.get("coil", ""), 1, unit.evaporators) and int(request.GET["coil"])) or 1
    spots = [
        (place, n, *SPOTS[place.code.partition(leaks.OF_COIL)[0]], looked.get(place.code, ""), MARKS[looked.get(place.code, "")],
         place is hand)
        for n, place in enumerate(order, start=1) if leaks.coil_of(place.code) in (None, coil)
    ]  # fmt: skip
    return {
        "spots": spots, "gives": leaks.HEARD.items(), "looked": looked, "in_hand": hand,
        "hand_heard": looked.get(hand.code, ""), "hand_near": leaks.neighbours(hand, unit), "leak_number": order.index(hand) + 1,
        "search_coils": _coils(call, order, looked, coil),
        "looks": [(place, leaks.HEARD[looked[place.code]], readings.get(place.code)) for place in order if place.code in looked],
        "background": readings.get(leaks.BACKGROUND), "has_receiver": unit.receiver,
        "leak_found": leaks.found(unit, facts, looked, readings),
        "reading_field": [("reading", "Detector reads", "", typed.get("reading", ""), wrong.get("reading", ""))],
        "background_field": [
            ("background", "Background in the air", "", typed.get("background", ""), wrong.get("background", ""))
        ],
    }  # fmt: skip


def _coils(call, order, looked, coil):
    """The coils of a unit with several: what each is called, the address of its first place that was not gone over, which is in hand."""
    own = {}
    for place in order:
        if leaks.coil_of(place.code) is not None:
            own.setdefault(leaks.coil_of(place.code), []).append(place.code)
    names = call.unit.coil_names or []
    return [
        (names[n - 1] if n <= len(names) and names[n - 1] else f"Coil {n}", next((code for code in codes if code not in looked), codes[0]),
         n == coil)
        for n, codes in sorted(own.items())
    ]  # fmt: skip
