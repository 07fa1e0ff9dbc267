"""What the ice bench adds to the round: the stop Melt."""

from web.benches.ice.views import melt_context
from web.round.registry import register

register("melt", melt_context, page="ice/melt.html")
