"""Logs of the demo's units: lived by the plant model, written as a logger writes them, and taken in as a person would."""

from datetime import timedelta

import numpy as np
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from web.benches.trends import reading
from web.benches.trends.actions.take_in import match_columns, take_in
from web.logbook.models import TrendLog

HEADERS = {"box_f": "Box air F", "coil_f": "Evap F", "amps": "Comp amps", "defrost": "Defrost on", "compressor": "Compressor on"}
SETTLED_H = 12.0


def keep_log(user, unit, entry, now):
    """Keep one log of a unit: so many days up to so many hours ago, with faults from a day on, in steps of minutes."""
    text = _csv(unit, entry, timezone.localtime(now - timedelta(hours=entry.get("hours_ago", 1))))
    log = take_in(user, unit, SimpleUploadedFile(entry["name"], text.encode()))
    match_columns(user, log, {f"role-{n}": role for n, role in enumerate(entry["columns"], start=1)} | {"clock": "wall"})
    reading.work(log.pk)
    return TrendLog.objects.get(pk=log.pk)


def _csv(unit, entry, ends):
    from kettle.plant import faults
    from kettle.plant.run import run
    from kettle.plant.sizing import sized
    from kettle.plant.state import at_rest

    plant, outside = sized(unit.resolved()), entry.get("outside_f", 78.0)
    every, hours = 60.0 * entry["step_min"], 24.0 * entry["days"]
    plant.parts.defrosts_per_day[:] = entry.get("defrosts_per_day", plant.parts.defrosts_per_day[0])
    state = at_rest(plant, outside_f=outside)
    run(plant, SETTLED_H, outside, state)
    sound = 24.0 * entry.get("sound_days", entry["days"])
    course = run(plant, min(sound, hours), outside, state, every_s=every)
    if sound < hours:
        for code, severity in entry["faults"]:
            faults.apply(plant, state, code, severity)
        course = course.followed_by(run(plant, hours - sound, outside, state, every_s=every))
    chance = np.random.default_rng(len(entry["name"]))
    series = {name: values[:, 0] for name, values in course.series.items()}
    columns = {
        "box_f": series["air_f"] + chance.normal(0.0, 0.1, len(course.hours)) + _doors(course.hours, entry.get("doors_a_day", 0), chance),
        "coil_f": series["coil_f"], "amps": series["amps"], "defrost": series["defrosting"], "compressor": series["running"],
    }  # fmt: skip
    begins = ends - timedelta(hours=float(course.hours[-1] - course.hours[0]))
    rows = [",".join(["Time", *(HEADERS[role] for role in entry["columns"])])]
    told = [columns[role] for role in entry["columns"]]
    for n, hour in enumerate(course.hours - course.hours[0]):
        at = begins + timedelta(hours=float(hour))
        rows.append(",".join([f"{at:%Y-%m-%d %H:%M:%S}", *(f"{column[n]:.1f}" for column in told)]))
    return "\n".join(rows) + "\n"


def _doors(hours, a_day, chance):
    """Air that leaps as a door stands open some minutes and comes back: so many times a day, in working hours."""
    warm = np.zeros(len(hours))
    for day in range(int(hours[-1] - hours[0]) // 24 if a_day else 0):
        for opened in chance.uniform(7.0, 18.0, a_day):
            since = (hours - hours[0] - 24.0 * day - opened) * 60.0
            long, high = chance.uniform(3.0, 7.0), chance.uniform(4.0, 7.0)
            warm += np.where(since > 0, high * np.minimum(since / long, 1.0) * np.exp(-np.maximum(since - long, 0.0) / 8.0), 0.0)
    return warm
