"""What each stop shows beyond its frame: every bench registers its part when the application starts (its `on_stops.py`)."""

from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass


@dataclass(frozen=True)
class Part:
    """A part of a stop: what it needs to be drawn (a function of request and standing), and its template.

    `page` is a template that draws the whole stop, `panel` one of several drawn side by side; one that `leads` stands before the others.
    """

    context: Callable
    page: str = ""
    panel: str = ""
    leads: bool = False


_PARTS: dict[str, list[Part]] = defaultdict(list)


def register(stop, context, page="", panel="", leads=False):
    """Add a part to a stop of the round."""
    _PARTS[stop].append(Part(context, page, panel, leads))


def page_of(stop):
    """The template that draws a stop."""
    return next((part.page for part in _PARTS[stop] if part.page), f"round/{stop.replace('-', '_')}.html")


def context_of(stop, request, standing):
    """What all parts of a stop need together, and its panels in the order they were registered, those that lead before the others."""
    found = sorted(_PARTS[stop], key=lambda part: not part.leads)
    context = {"panels": [part.panel for part in found if part.panel]}
    for part in found:
        more = part.context(request, standing)
        if both := context.keys() & more.keys():
            raise LookupError(f"two parts of {stop} both call something {', '.join(sorted(both))}")
        context |= more
    return context
