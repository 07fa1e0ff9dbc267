"""One call, one record: everything that happened on it as events, and everything that is told of it, worked out from them.

`Record` is the events of a call in order; `tell` works out, on being asked, judgement, holds, next check, charge, valve, leads, proofs,
what keeps it from being left, write-up and the customer's page. What each kind of event says to whom is one table (`kinds.KINDS`).
"""

from kettle.call.events import Event
from kettle.call.record import Record
from kettle.call.tell import Told, tell

__all__ = ["Event", "Record", "Told", "tell"]
