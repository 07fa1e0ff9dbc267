"""What the power bench adds to the round: the stop Power, and what is still there on Arrive and Hand over."""

from web.benches.electrical.views.page import power_context
from web.benches.electrical.views.panels import placed_context
from web.logbook.calls.left_behind import left_before
from web.round.registry import register

register("power", power_context, page="electrical/power.html")
register("hand-over", lambda request, standing: placed_context(standing.call))
register("arrive", lambda request, standing: {"left_before": left_before(standing.call)})
