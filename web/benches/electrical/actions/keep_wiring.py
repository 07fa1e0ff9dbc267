"""Keep what is known of a unit's circuit with the unit."""

from kettle.electrical.wiring import JOINT, MOST_WIRES, MOST_WITHOUT, from_data, from_words, wire_of
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import Unit


@on_call
def keep_wiring(user, call, said):
    """Store what was said of the circuit; FieldErrors by field, and nothing is stored then."""
    unit = _unit(call)
    return _keep(user, call, unit, from_words(said, from_data(unit.wiring)).as_data())


@on_call
def drop_part(user, call, key):
    """Say that a part is not on this unit; InputError for one that its circuit has not."""
    unit = _unit(call)
    unit.circuit().part(key)
    kept = from_data(unit.wiring).as_data()
    if len(kept["without"]) >= MOST_WITHOUT:
        raise InputError(f"{MOST_WITHOUT} parts are left out already, which is all there can be")
    return _keep(user, call, unit, kept | {"without": sorted({*kept["without"], key})})


@on_call
def put_back(user, call, key):
    """Say that a part is on this unit after all; nothing where nobody said otherwise."""
    unit = _unit(call)
    kept = from_data(unit.wiring).as_data()
    return _keep(user, call, unit, kept | {"without": [one for one in kept["without"] if one != key]})


@on_call
def draw_wire(user, call, one, other):
    """Say that a wire was found between two points of the circuit; InputError for points it has not."""
    unit = _unit(call)
    circuit = unit.circuit()
    for point in (one, other):
        circuit.point(point)
    if one == other:
        raise InputError("A wire joins two points: choose two different ones")
    if any({part.a, part.b} == {one, other} and part.kind == "wire" for part in circuit.parts):
        raise InputError(f"{one} and {other} are joined by a wire already")
    kept = from_data(unit.wiring).as_data()
    if len(kept["wires"]) >= MOST_WIRES:
        raise InputError(f"{MOST_WIRES} wires were drawn already, which is all there can be")
    wire = JOINT.join(wire_of(f"{one}{JOINT}{other}"))
    return _keep(user, call, unit, kept | {"wires": sorted({*kept["wires"], wire})})


@on_call
def take_wire(user, call, wire):
    """Take away a wire that was drawn; nothing where there is none."""
    unit = _unit(call)
    kept = from_data(unit.wiring).as_data()
    return _keep(user, call, unit, kept | {"wires": [one for one in kept["wires"] if one != wire]})


def _unit(call):
    """The unit as it stands now, inside the action."""
    return Unit.objects.select_related("site").get(pk=call.unit_id)


def _keep(user, call, unit, wiring):
    before, unit.wiring = unit.wiring, wiring
    unit.save(update_fields=["wiring"])
    log.write(user, "keep_wiring", call, unit=unit.pk, before=before, now=wiring)
    return unit
