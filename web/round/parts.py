"""The round's own parts of its stops."""

from web.round.registry import register
from web.round.views import judge, parts, site

register("arrive", site.arrive_context)
register("judge", judge.judge_context)
register("correct", parts.correct_context)
