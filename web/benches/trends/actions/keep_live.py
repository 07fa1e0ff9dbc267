"""Keep what probes or a controller told, as a log of the call it was told on."""

from datetime import UTC, datetime

from kettle.trends.series import joined
from web import work_time
from web.accounts.access import require_same_shop
from web.benches.trends.reading import judged
from web.logbook.actions import log
from web.logbook.actions.acting import action, outside, require_open
from web.logbook.models import TrendData, TrendLog
from web.logbook.trends import packed, unpacked

MOST_ROWS = 20_000


@outside
def keep_live(user, call, source, trend):
    """Add what a source told to the call's log of it; the log is made at the first of it. Returns it."""
    require_same_shop(user, call)
    require_open(call)
    found = call.trend_logs.filter(source=source, undone_at=None).select_related("data").first()
    if found is not None and found.rows >= MOST_ROWS:
        return found
    if found is not None:
        trend = joined([unpacked(found.data.packed), trend])
    told = judged(call.unit, trend) if trend.count > 1 else {"findings": [], "marks": []}
    return _keep(user, call, source, found, trend, told)


@action
def _keep(user, call, source, found, trend, told):
    require_open(call)
    begins, ends = (datetime.fromtimestamp(float(trend.at_s[n]), UTC) for n in (0, -1))
    now = {"begins": begins, "ends": ends, "rows": trend.count, "touched_at": work_time.now(), **told}
    if found is None:
        found = TrendLog.objects.create(
            shop_id=call.shop_id, unit_id=call.unit_id, call=call, by=user, source=source, state="ready",
            name=f"{getattr(call.unit, source)}, {call}"[:120], **now,
        )  # fmt: skip
        log.write(user, "keep_live_log", call, log=found.pk, source=source)
    elif not TrendLog.objects.filter(pk=found.pk, undone_at=None).update(**now):
        # Taken back meanwhile.
        return found
    TrendData.objects.update_or_create(log=found, defaults={"packed": packed(trend)})
    return found
