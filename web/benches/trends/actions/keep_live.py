"""Keep what probes or a controller told, as a log of the call it was told on."""

from datetime import UTC, datetime

from django.utils import timezone

from kettle.trends.series import joined
from web.accounts.access import require_same_shop
from web.benches.trends.reading import judged
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.models import TrendData, TrendLog
from web.logbook.trends import packed, unpacked

MOST_ROWS = 20_000


@action
def keep_live(user, call, source, trend):
    """Add what a source told to the call's log of it; the log is made at the first of it. Returns it."""
    require_same_shop(user, call)
    require_open(call)
    found = call.trend_logs.filter(source=source, undone_at=None).first()
    if found is None:
        device = getattr(call.unit, source)
        found = TrendLog.objects.create(
            shop_id=call.shop_id, unit_id=call.unit_id, call=call, by=user, source=source, state="ready", name=f"{device}, {call}"[:120]
        )
        log.write(user, "keep_live_log", call, log=found.pk, source=source)
    elif found.rows >= MOST_ROWS:
        return found
    else:
        trend = joined([unpacked(found.data.packed), trend])
    found.begins, found.ends = (datetime.fromtimestamp(float(trend.at_s[n]), UTC) for n in (0, -1))
    found.rows, found.touched_at = trend.count, timezone.now()
    if trend.count > 1:
        told = judged(call.unit, trend)
        found.findings, found.marks = told["findings"], told["marks"]
    found.save(update_fields=["begins", "ends", "rows", "touched_at", "findings", "marks"])
    TrendData.objects.update_or_create(log=found, defaults={"packed": packed(trend)})
    return found
