"""The round's own parts of its stops."""

from kettle.knowledge.cautions import words
from web.round.registry import register
from web.round.views import judge, site

register("arrive", site.arrive_context)
register("judge", judge.judge_context)
register("correct", lambda request, standing: {"cautions": words("lock_out", "pressure", "licensed")})
