"""What Hand over shows of the write-up."""

from web.benches.report.views.draft import draft_context
from web.benches.report.views.times import times_context
from web.round.registry import register

register("hand-over", draft_context, panel="report/_written.html")
register("hand-over", times_context, panel="report/_times.html")
