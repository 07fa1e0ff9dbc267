"""What Correct shows of the quote, and Hand over of parts."""

from web.benches.quote.views.quote import quote_first
from web.benches.quote.views.van import used_context
from web.round.registry import register

register("correct", quote_first, panel="quote/_first.html", leads=True)
register("hand-over", used_context, panel="quote/_parts_used.html")
