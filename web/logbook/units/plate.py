"""A unit's plate in words: what is known of it, or what is usual for the kind."""

from kettle.knowledge.equipment import CHOICES, LIMITS

WORDS = (
    ("metering", "Metering"),
    ("condensing", "Condensing"),
    ("head_control", "Head control"),
    ("defrost", "Defrost"),
    ("box_control", "Box control"),
)
FIGURES = ("set_f", "differential_f", "critical_charge_oz", "compressor_rla_a", "nameplate_v", "evaporators")

# What of the plate is said at which part of the picture, in the order of a walk: part, what it is called there, fields.
GROUPS = (
    ("box", "Box", ("set_f", "differential_f")),
    ("coil", "Coil", ("evaporators", "coil_face_ft2")),
    ("valve", "Metering", ("metering",)),
    ("condenser", "Condenser", ("condensing",)),
    ("head_control", "Head control", ("head_control",)),
    ("receiver", "Receiver", ("receiver",)),
    ("compressor", "Compressor", ("compressor_rla_a",)),
    ("charge", "Label charge", ("critical_charge_oz",)),
    ("supply", "Supply", ("nameplate_v", "phases")),
    ("control", "Control", ("box_control",)),
    ("timer", "Defrost", ("defrost",)),
)
# Other parts that lead to one of these.
LEADS_TO = {"cap_tube": "valve", "bulb": "valve", "evap_fan": "coil", "condenser_fan": "head_control", "heater": "timer",
            "termination": "timer", "glass": "receiver", "drier": "receiver", "contactor": "supply"}  # fmt: skip


def plate_words(unit, shown):
    """Label, value in words and whether it was assumed, for every line of a resolved unit's plate."""
    rows = [(label, CHOICES[name][getattr(unit, name)], name in unit.assumed) for name, label in WORDS]
    rows.append(("Receiver", "yes" if unit.receiver else "no", "receiver" in unit.assumed))
    for name in FIGURES:
        value = getattr(unit, name)
        if value is not None:
            _, _, measure, label = LIMITS[name]
            rows.append((label, shown.plain(value, measure), name in unit.assumed))
    return rows
