"""What the charge bench adds to the round: whether gas may be added, on Correct."""

from web.benches.charge.views.panel import panel_context
from web.round.registry import register

register("correct", panel_context, panel="charge/_panel.html")
