"""A call's readings and logs as CSV, figures in the core's units with their unit named."""

import csv
import io
from datetime import UTC, datetime

import numpy as np

from kettle.knowledge import observations
from kettle.trends.roles import ROLES
from web.logbook.trends import trend_of

HEADER = ("at", "key", "label", "value", "unit", "source", "coil", "by")
# What would be taken for a formula by a spreadsheet.
FORMULA = ("=", "+", "@", "\t", "\r")


def _plain(text):
    return f"'{text}" if text.startswith(FORMULA) else text


def readings_csv(call):
    """Every reading of a call that stands, in order."""
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(HEADER)
    for one in call.readings.select_related("by").order_by("at", "pk"):
        if one.undone_at is None:
            entry = observations.get(one.key)
            value = " ".join(one.value) if isinstance(one.value, list) else one.value
            by = _plain(one.by.get_full_name() or one.by.username)
            rows.writerow([one.at.isoformat(), one.key, entry.label, value, entry.unit, one.source, one.evaporator or "", by])
    return out.getvalue()


def log_csv(log):
    """A log as it is kept, times in UTC."""
    trend = trend_of(log)
    roles = sorted(trend.values)
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(["at", *(f"{ROLES[role].label} {ROLES[role].unit}".strip() for role in roles)])
    for n, at in enumerate(trend.at_s):
        told = ["" if np.isnan(trend.values[role][n]) else f"{trend.values[role][n]:.2f}" for role in roles]
        rows.writerow([datetime.fromtimestamp(float(at), UTC).isoformat(timespec="seconds"), *told])
    return out.getvalue()
