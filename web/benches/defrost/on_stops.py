"""What the defrost bench adds to the round: the stop Programs."""

from web.benches.defrost.views.programs import programs_context
from web.round.registry import register

register("programs", programs_context, page="defrost/programs.html")
