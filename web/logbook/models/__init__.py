"""Sites, units, calls, and everything recorded on a call with time and person."""

from web.logbook.models.calls import Call, Entry
from web.logbook.models.controls import SwitchMoment
from web.logbook.models.defrosts import ControllerTalk, DefrostPlan, DefrostProgram, DefrostWatch
from web.logbook.models.devices import Device
from web.logbook.models.gas import ChangeStep, Cylinder, GasMove, LeakLook, StandingTest, VacuumReading
from web.logbook.models.headlines import Headline
from web.logbook.models.ice import IceDrawing, Melt
from web.logbook.models.log import LogEntry
from web.logbook.models.places import BandChange, OfShop, Site, Unit
from web.logbook.models.power import Measurement, Placed, StartWiring
from web.logbook.models.records import (
    Act,
    Finding,
    Override,
    Photo,
    Reading,
    ReadingSet,
    SettingChange,
    SiblingState,
    ValveTurn,
    Weighing,
)

__all__ = [
    "Act",
    "BandChange",
    "Call",
    "ChangeStep",
    "ControllerTalk",
    "Cylinder",
    "DefrostPlan",
    "DefrostProgram",
    "DefrostWatch",
    "Device",
    "Entry",
    "Finding",
    "GasMove",
    "Headline",
    "IceDrawing",
    "LeakLook",
    "LogEntry",
    "Measurement",
    "Melt",
    "OfShop",
    "Override",
    "Placed",
    "Photo",
    "Reading",
    "ReadingSet",
    "SettingChange",
    "SiblingState",
    "Site",
    "StandingTest",
    "StartWiring",
    "SwitchMoment",
    "Unit",
    "VacuumReading",
    "ValveTurn",
    "Weighing",
]
