"""A call's readings and logs as CSV, figures in the core's units with their unit named."""

from datetime import UTC, datetime

import numpy as np

from kettle.knowledge import observations
from kettle.trends.roles import ROLES
from web.logbook.csv_lines import lines
from web.logbook.trends import trend_of

HEADER = ("at", "key", "label", "value", "unit", "source", "coil", "by")


def readings_csv(call):
    """Every reading of a call that stands, in order."""
    rows = [HEADER]
    for one in call.readings.select_related("by").order_by("at", "pk"):
        if one.undone_at is None:
            entry = observations.get(one.key)
            value = " ".join(one.value) if isinstance(one.value, list) else one.value
            by = one.by.get_full_name() or one.by.username
            rows.append((one.at.isoformat(), one.key, entry.label, value, entry.unit, one.source, one.evaporator, by))
    return "".join(lines(rows))


def log_csv(log):
    """A log as it is kept, times in UTC."""
    trend = trend_of(log)
    roles = sorted(trend.values)
    rows = [["at", *(f"{ROLES[role].label} {ROLES[role].unit}".strip() for role in roles)]]
    for n, at in enumerate(trend.at_s):
        told = ["" if np.isnan(trend.values[role][n]) else f"{trend.values[role][n]:.2f}" for role in roles]
        rows.append([datetime.fromtimestamp(float(at), UTC).isoformat(timespec="seconds"), *told])
    return "".join(lines(rows))
