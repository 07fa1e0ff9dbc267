"""What Prove shows."""

from web.benches.prove.views.stop import prove_context
from web.round.registry import register

register("prove", prove_context, page="prove/prove.html")
