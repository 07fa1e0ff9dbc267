"""The round's own parts of its stops."""

from web.round.doubts import leaving_context
from web.round.promised import promised_before, promised_here
from web.round.registry import register
from web.round.views import judge, parts, site

register("arrive", site.arrive_context)
register("judge", judge.judge_context)
register("hand-over", leaving_context)
register("hand-over", promised_here)
register("prove", promised_here)
register("arrive", promised_before)
register("correct", parts.correct_context)
