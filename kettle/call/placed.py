"""What can be put on a unit for the time being, and what it is called."""

from typing import Final

WHAT: Final = {
    "jumper": "Jumper",
    "lifted_lead": "Lead lifted",
    "output_moved": "Output moved",
    "gauges": "Gauges connected",
    "cylinder": "Cylinder connected",
    "king_valve": "King valve front-seated",
    "probe": "Probe in the box",
    "cover": "Condenser covered",
    "heater": "Heater",
    "other": "Something",
}
# What no longer happens by itself, or may not stay: told as for now.
FOR_NOW: Final = ("jumper", "lifted_lead", "output_moved", "cover", "heater")
