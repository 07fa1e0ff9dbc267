"""What the probes add to the round: their live values on Read."""

from web.benches.probes.views import read_context
from web.round.registry import register

register("read", read_context)
