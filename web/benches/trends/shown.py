"""What a unit's logs say and how they are drawn, for the pages that show them."""

from datetime import UTC, datetime

from django.urls import reverse
from django.utils import timezone

from kettle.benches.trends.tiles import drawn, tile
from kettle.knowledge.measures import format_percent, worded
from kettle.trends.roles import ROLES
from web import work_time
from web.logbook.trends import life_marks, logs_of, of_unit, read_by_hand

DAY_S = 86_400.0
# How long a stretch is shown at first, days; and the most that life is marked on.
FIRST_DAYS = 3
MARKED_DAYS = 62
MARK_WORDS = {"defrost": "defrost", "door": "door", "recovery": "recovery", "pull_down": "pull-down", "visit": "visit",
              "turn": "valve turned", "setting": "setting changed", "done": "done", "run": "compressor ran"}  # fmt: skip
MOST_FINDINGS = 24
MOST_MARKS = 1500


def findings_of(logs, shown):
    """What the core read in logs, newest log first: words, how sure, when, where in the picture; with the log's number and place."""
    rows = []
    for log in reversed(logs):
        for place, one in enumerate(log.findings):
            begins, ends = (datetime.fromtimestamp(one[end], UTC) for end in ("from", "to"))
            told = {"log": log, "place": place, "code": one["code"], "says": worded(one["says"], shown), "keys": one.get("keys", {})}
            rows.append(told | {"begins": begins, "ends": ends, "sure": format_percent(one["sure"]), "from": one["from"], "to": one["to"]})
    return rows[:MOST_FINDINGS]


def chart_of(unit, shown, logs, around=None):
    """What the chart of a unit begins with: its address, from, to, and all there is; None where there is nothing to draw."""
    if not logs:
        return None
    begins, ends = min(log.begins for log in logs).timestamp(), max(log.ends for log in logs).timestamp()
    from_s, to_s = around or (max(begins, ends - FIRST_DAYS * DAY_S), ends)
    margin = 0.05 * max(to_s - from_s, 600.0) if around else 0.0
    return {"url": reverse("trend-tile", args=[unit.pk]), "from": from_s - margin, "to": to_s + margin, "begins": begins, "ends": ends}


def tile_of(unit, shown, from_s, to_s, pixels):
    """A stretch of all of a unit's logs for the chart, in the person's units: moments, columns (label, unit, least, mean, most), marks."""
    logs = logs_of(unit)
    margin = 0.02 * (to_s - from_s)
    cut = tile(of_unit(unit, from_s - margin, to_s + margin, logs), from_s, to_s, pixels)
    columns = []
    for code, role in ROLES.items():
        if code not in cut.bands or all(value is None for value in cut.bands[code][1]):
            continue
        measure = shown.measure(role.unit) if role.unit else None
        bands = [[value if value is None or measure is None else round(measure.to_shown(value), 2) for value in band]
                 for band in cut.bands[code]]  # fmt: skip
        unit_words = shown.label(role.unit) if role.unit else ""
        columns.append({"code": code, "label": role.label, "unit": unit_words, "state": role.is_state, "bands": bands})
    marks = [[begin, end, code, MARK_WORDS[code]] for log in logs for begin, end, code in log.marks if end >= from_s and begin <= to_s]
    if to_s - from_s <= MARKED_DAYS * DAY_S:
        marks += [[begin, end, code, words] for begin, end, code, words in life_marks(unit, from_s, to_s)]
    offset = timezone.localtime(datetime.fromtimestamp(to_s, UTC)).utcoffset().total_seconds()
    measure = shown.measure("°F")
    hand = [[at, round(measure.to_shown(value), 1)] for at, value in read_by_hand(unit, from_s, to_s)]
    return {
        "at": cut.at_s,
        "columns": columns,
        "marks": marks[:MOST_MARKS],
        "hand": hand,
        "offset": offset,
        "zone": timezone.get_current_timezone_name(),
    }


# What is printed of a unit's logs with a call: so many hours before it, and what of them.
BEFORE_H = 48.0
PRINTED = ("box_f", "return_f", "supply_f", "product_f", "coil_f")
PRINTED_COLOURS = ("#2463A8", "#0F7664", "#8A5A00", "#1F2A44", "#A63D1E")
PRINTED_MARKS = {"defrost": "#A63D1E", "recovery": "#8A5A00", "door": "#A11C2B", "visit": "#2463A8", "pull_down": "#0F7664"}
MOST_PRINTED_MARKS = 200


def printed_of(call, told):
    """The logs of a call's unit about the call, as they are printed; None where there are none."""
    shown = told.record.shown
    to_s = (call.closed_at or work_time.now()).timestamp()
    from_s = call.opened_at.timestamp() - 3600.0 * BEFORE_H
    logs = logs_of(call.unit)
    trend = of_unit(call.unit, from_s, to_s, logs)
    if trend.count < 2:
        return None
    marks = [(begin, end, code) for log in logs for begin, end, code in log.marks if end >= from_s and begin <= to_s]
    marks = [mark for mark in marks if mark[2] != "run"]
    marks += [(begin, end, code) for begin, end, code, _ in life_marks(call.unit, from_s, to_s, {call.pk: told})]
    picture = drawn(trend, PRINTED, from_s, to_s, marks[:MOST_PRINTED_MARKS], timezone.get_current_timezone_name())
    return {
        "picture": picture,
        "lines": [(label, area, line, colour) for (label, area, line), colour in zip(picture.lines, PRINTED_COLOURS, strict=False)],
        "rungs": [(y, shown.figure(value, "°F", 0)) for y, value in picture.rungs],
        "marks": [(x, width, PRINTED_MARKS.get(code, "#D9580D")) for x, width, code in picture.marks],
        "unit": shown.label("°F"),
    }
