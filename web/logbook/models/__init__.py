"""Sites, units, calls, and everything recorded on a call with time and person."""

from web.logbook.models.calls import Call, Entry
from web.logbook.models.controls import SwitchMoment
from web.logbook.models.defrosts import ControllerTalk, DefrostPlan, DefrostProgram, DefrostWatch
from web.logbook.models.devices import Device
from web.logbook.models.electrical import Measurement, Placed, StartWiring
from web.logbook.models.gas import ChangeStep, Cylinder, FirstStartReading, GasMove, LeakLook, StandingTest, VacuumReading
from web.logbook.models.happened import Happened
from web.logbook.models.headlines import Headline
from web.logbook.models.ice import IceDrawing, Melt
from web.logbook.models.links import CustomerLink, Sticker
from web.logbook.models.log import LogEntry
from web.logbook.models.places import BandChange, OfShop, Site, Unit
from web.logbook.models.prove import BoxWatch, FollowUp, Outcome, ProofSeen
from web.logbook.models.quotes import Quote, QuoteLine, QuoteSigned
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
from web.logbook.models.sent import SentOnce
from web.logbook.models.times import TimeMark
from web.logbook.models.trends import TrendData, TrendLog, TrendMatch
from web.logbook.models.van import PartUsed, VanPart
from web.logbook.models.wording import Leaving, Wording

__all__ = [
    "Act",
    "BandChange",
    "BoxWatch",
    "Call",
    "ChangeStep",
    "ControllerTalk",
    "CustomerLink",
    "Cylinder",
    "DefrostPlan",
    "DefrostProgram",
    "DefrostWatch",
    "Device",
    "Entry",
    "Finding",
    "FirstStartReading",
    "FollowUp",
    "GasMove",
    "Happened",
    "Headline",
    "IceDrawing",
    "LeakLook",
    "Leaving",
    "LogEntry",
    "Measurement",
    "Melt",
    "OfShop",
    "Outcome",
    "Override",
    "PartUsed",
    "Photo",
    "Placed",
    "ProofSeen",
    "Quote",
    "QuoteLine",
    "QuoteSigned",
    "Reading",
    "ReadingSet",
    "SentOnce",
    "SettingChange",
    "SiblingState",
    "Site",
    "StandingTest",
    "StartWiring",
    "Sticker",
    "SwitchMoment",
    "TimeMark",
    "TrendData",
    "TrendLog",
    "TrendMatch",
    "Unit",
    "VacuumReading",
    "ValveTurn",
    "Weighing",
    "VanPart",
    "Wording",
]
