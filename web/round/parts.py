"""The round's own parts of its stops."""

from web.logbook.actions.hand_over import doubts
from web.round.registry import register
from web.round.views import judge, parts, site

register("arrive", site.arrive_context)
register("judge", judge.judge_context)
register("hand-over", lambda request, standing: {"doubts": doubts(standing.call) if standing.call.is_open else ()})
register("correct", parts.correct_context)
