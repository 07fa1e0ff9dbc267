"""What time it is for the work at hand: the clock of the wall, or that of a practice call, which goes on by the minutes its work takes."""

from contextlib import contextmanager
from contextvars import ContextVar

from django.utils import timezone

_at: ContextVar = ContextVar("work_time", default=None)


def now():
    """This moment, as whoever works has it."""
    return _at.get() or timezone.now()


@contextmanager
def standing_at(moment):
    """Let it be so late for what is done inside."""
    token = _at.set(moment)
    try:
        yield
    finally:
        _at.reset(token)
