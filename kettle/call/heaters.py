"""A heater that lay to ground: its new one has no volts before its own ohms to ground were read clear."""

from kettle.call.events import Event
from kettle.call.hears import HEATER_GROUND, figure, observes
from kettle.call.record import Record
from kettle.judging.stopped import GROUNDED_OHM


def unproved(record: Record) -> str:
    """Return why a renewed heater may not have volts yet; empty where none lay to ground, none was renewed, or the new one was read."""
    lay = renewed = False
    for event in record.standing:
        ohms = _to_ground(record, event)
        if ohms is not None:
            lay, renewed = (True, False) if ohms < GROUNDED_OHM else (lay and not renewed, False)
        elif event.kind == "act" and (event.data["part"], event.data["did"]) == ("heater", "replaced"):
            renewed = lay
    return "The new element's ohms to ground were not read yet: it has no volts before they are" if lay and renewed else ""


def _to_ground(record: Record, event: Event) -> float | None:
    """The ohms from a heater to ground that an event is, by a reading or on the circuit."""
    if event.kind == "reading" and event.data["key"] == HEATER_GROUND:
        return float(event.data["value"])
    measured = event.kind == "measured" and event.data["what"] == "ohms" and observes(record, event) == HEATER_GROUND
    return figure(event) if measured else None
