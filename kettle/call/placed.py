"""What can be put on a unit for the time being, and what it is called."""

from typing import Final

WHAT: Final = {
    "jumper": "Jumper",
    "lifted_lead": "Lead lifted",
    "output_moved": "Temporary: output moved",
    "gauges": "Gauges connected",
    "cylinder": "Cylinder connected",
    "king_valve": "King valve front-seated",
    "probe": "Probe in the box",
    "cover": "Condenser covered",
    "heater": "Heater",
    "other": "Left there",
}
# How some of it is said in a sentence.
SAID: Final = {
    "output_moved": "output moved for now", "jumper": "jumper for now", "lifted_lead": "lead lifted for now",
    "cover": "condenser covered for now",
    "heater": "heater put there for now", "other": "something",
}  # fmt: skip
# What no longer happens by itself, or may not stay: it is come back for.
FOR_NOW: Final = ("jumper", "lifted_lead", "output_moved", "cover", "heater")
