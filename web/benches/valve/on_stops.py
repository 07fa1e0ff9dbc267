"""What the valve bench adds to the round: the stem, on Correct."""

from web.benches.valve.views.stem import stem_context
from web.round.registry import register

register("correct", stem_context, panel="valve/_stem.html")
