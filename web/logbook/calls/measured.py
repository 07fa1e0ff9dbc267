"""What was measured in the wiring of a unit: as the core takes it, and in words."""

from kettle.call.carries import METER
from kettle.electrical.circuit import STATES
from kettle.electrical.measure import Reading
from kettle.knowledge.measures import format_number, ohms_text

# A meter that shows no way through is kept as so many Ω, the most it can be asked for.
OPEN_OHM = METER["ohms"][0]
UNITS = {"volts": "V", "amps": "A"}


def measured_words(call):
    """Each measurement of a call that is no observation of its own: where, what it showed, in which state."""
    circuit = call.unit.circuit()
    return [(_where(circuit, one), shown(one), STATES[one.state]) for one in call.measurements.filter(undone_at=None)]


def readings_of(circuit, rows):
    """What was measured as the core takes it; what lies on points that the circuit has not any more is left out."""
    return [Reading(one.what, *ends(circuit, one), one.value, one.state, one.lifted) for one in rows if known(circuit, one)]


def is_open(one):
    """Whether a meter found no way through: what it shows then is a reading."""
    return one.what == "ohms" and one.value >= OPEN_OHM


def ends(circuit, one):
    """The points a measurement was taken between, as the circuit calls them now."""
    return circuit.renamed(one.one), circuit.renamed(one.other)


def known(circuit, one):
    """Whether a measurement's points are in the circuit as it is now."""
    keys = {point.key for point in circuit.points} | {part.key for part in circuit.parts}
    return set(ends(circuit, one)) - {""} <= keys


def shown(one):
    """A measurement's figure with its unit."""
    if is_open(one):
        return "OL"
    return ohms_text(one.value) if one.what == "ohms" else f"{format_number(one.value)} {UNITS[one.what]}"


def _where(circuit, one):
    labels = {point.key: point.label for point in circuit.points} | {part.key: part.label for part in circuit.parts}
    said = [f"{key} ({labels[key]})" if key in labels and one.other else labels.get(key, key) for key in ends(circuit, one) if key]
    return " to ".join(said)
