"""What the power bench adds to the round: the stop Power."""

from web.benches.power.views import power_context
from web.round.registry import register

register("power", power_context, page="power/power.html")
