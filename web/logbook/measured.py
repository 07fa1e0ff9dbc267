"""What was measured in the wiring of a unit, in words."""

from kettle.knowledge.units import format_number, ohms_text
from kettle.power.circuit import STATES

UNITS = {"volts": "V", "amps": "A"}


def measured_words(call):
    """Each measurement of a call that is no observation of its own: where, what it showed, in which state."""
    circuit = call.unit.circuit()
    return [
        (
            _where(circuit, one),
            ohms_text(one.value) if one.what == "ohms" else f"{format_number(one.value)} {UNITS[one.what]}",
            STATES[one.state],
        )
        for one in call.measurements.filter(undone_at=None)
    ]


def _where(circuit, one):
    labels = {point.key: point.label for point in circuit.points} | {part.key: part.label for part in circuit.parts}
    ends = [f"{key} ({labels[key]})" if key in labels and one.other else labels.get(key, key) for key in (one.one, one.other) if key]
    return " to ".join(ends)
