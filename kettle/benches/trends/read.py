"""A log read by rule: what it shows, in words, with when, how sure, and the observations it stands for."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Final

import numpy as np

from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits, format_number
from kettle.trends import air
from kettle.trends.cycles import Cycling, cycling, runs
from kettle.trends.defrosts import Defrost, Spacing, defrosts, spacing
from kettle.trends.series import Trend

# A coil that clogs takes longer to recover from defrost to defrost: by so much over the log, and so surely.
CLOGS_SHARE: Final = 0.4
CLOGS_SURE: Final = 2.5
LEAST_CLOGGING: Final = 6
LEAST_BETWEEN_S: Final = 3600.0
MOST_BETWEEN: Final = 200
# What a log that lasts for less says nothing of.
LEAST_H_FOR_DEFROSTS: Final = 30.0
APART_F: Final = 4.0
HELD_BY_SIBLING: Final = 0.3
# A program's own spacing is kept where it differs by less, hours.
AS_PROGRAMMED_H: Final = 0.6
TEMPERATURES: Final = ("box_f", "return_f", "supply_f", "product_f", "coil_f", "ambient_f")
LEFT_OUT_MARGIN_S: Final = 1800.0


@dataclass(frozen=True)
class Finding:
    """One thing a log shows: what in a word, in a sentence, from when to when (seconds of the epoch), how sure (0 to 1).

    `keys` are the observations it stands for, as values of the registry.
    """

    code: str
    says: str
    begins_s: float
    ends_s: float
    sure: float
    keys: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Read:
    """Everything read from a log."""

    defrosts: tuple[Defrost, ...]
    spacing: Spacing | None
    cycling: Cycling | None
    doors: tuple[air.Span, ...]
    pull_downs: tuple[air.Span, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class Program:
    """What is known of how a unit is set: starts a day, fail-safe (min), termination (°F); None for what is not."""

    per_day: float | None = None
    fail_safe_min: float | None = None
    termination_f: float | None = None


def read(
    trend: Trend,
    unit: Unit,
    limit_f: float,
    program: Program | None = None,
    siblings: Mapping[str, Trend] | None = None,
    shown: ShownUnits = TRADE,
) -> Read:
    """Return what a log of a unit shows; `limit_f` is what its box may come to, `siblings` logs of boxes on one plant by name."""
    program = program or Program()
    heated = unit.defrost in ("electric", "hot_gas")
    found = [] if unit.defrost == "none" else defrosts(trend, heated, program.termination_f, program.fail_safe_min)
    spaced = spacing(found)
    spans = [(one.begins_s, one.ends_s) for one in found]
    doors = air.doors(trend, spans)
    recovery = [(begin, end + LEFT_OUT_MARGIN_S) for begin, end in spans]
    turns = cycling(trend, recovery)
    downs = air.pull_downs(trend)
    findings = [
        *_of_defrosts(trend, unit, found, spaced, program, shown), *_of_cycles(trend, turns, shown), *_of_doors(doors, trend, shown),
        *_of_pull_downs(downs, shown), *_of_air(trend, limit_f, shown), *_of_sensors(trend, shown),
        *_of_siblings(trend, siblings or {}, shown),
    ]  # fmt: skip
    return Read(tuple(found), spaced, turns, tuple(doors), tuple(downs), tuple(findings))


def _span(trend: Trend) -> tuple[float, float]:
    return float(trend.at_s[0]), float(trend.at_s[-1])


def _of_defrosts(
    trend: Trend, unit: Unit, found: list[Defrost], spaced: Spacing | None, program: Program, shown: ShownUnits
) -> list[Finding]:
    begins, ends = _span(trend)
    long = (ends - begins) / 3600.0
    if not found:
        if unit.defrost in ("electric", "hot_gas") and long > LEAST_H_FOR_DEFROSTS and {"defrost", "coil_f"} & set(trend.values):
            says = f"No defrost in {format_number(long, 0)} h"
            return [Finding("no_defrost", says, begins, ends, 0.9, {"defrost_starts": "never"})]
        return []
    last, minutes = found[-1], float(np.median([one.minutes for one in found]))
    keys: dict[str, Any] = {"defrost_ran_min": round(last.minutes, 1)}
    words = [f"{len(found)} defrosts of {format_number(minutes, 0)} min"]
    if spaced is not None:
        keys["defrosts_per_day"] = round(spaced.per_day)
        words.append(f"every {format_number(spaced.hours)} h" if spaced.regular else "at no regular hours")
    ended = [one.ended_by for one in found]
    for word, text in (("time", "by time"), ("termination", "by temperature")):
        if ended.count(word) > 0.7 * len(ended):
            words.append(f"ended {text}")
            keys["defrost_ended_by"] = word
    backs = [one.back_min for one in found if one.back_min is not None]
    if backs:
        words.append(f"the box back after {format_number(float(np.median(backs)), 0)} min")
    peaks = [one.peak_f for one in found if one.peak_f is not None]
    if peaks:
        words.append(f"at most {shown.text(max(peaks), '°F')}")
    # One reading of the defrosts is an observation of the last of them.
    out = [Finding("defrosts", ", ".join(words), found[0].begins_s, last.ends_s, 0.9 if "defrost" in trend.values else 0.75, keys)]
    if spaced is not None and program.per_day and abs(spaced.hours - 24.0 / program.per_day) > AS_PROGRAMMED_H:
        says = f"Defrosts come every {format_number(spaced.hours)} h, {format_number(24.0 / program.per_day)} h are programmed"
        out.append(Finding("not_as_programmed", says, found[0].begins_s, last.ends_s, 0.8))
    return [*out, *_clogging(trend, found)]


def _clogging(trend: Trend, found: list[Defrost]) -> list[Finding]:
    """A coil that clogs: recovery, or else the time it runs, grows from defrost to defrost, by its slope against its standard error."""
    back = [(one.begins_s, one.back_min) for one in found if one.back_min is not None]
    grown = _growing(back, "Recovery grows from {} to {} min: the coil clogs")
    return grown or _growing(_run_shares(trend, found), "Between defrosts it runs {} % of the time, then {} %: the coil clogs")


def _run_shares(trend: Trend, found: list[Defrost]) -> list[tuple[float, float]]:
    """Percent of the time it ran between each defrost and the next."""
    ran = runs(trend)[1]
    shares = []
    for one, later in zip(found, found[1:], strict=False):
        span = later.begins_s - one.ends_s
        inside = sum(min(run.ends_s, later.begins_s) - max(run.begins_s, one.ends_s) for run in ran
                     if run.begins_s < later.begins_s and run.ends_s > one.ends_s)  # fmt: skip
        if span > LEAST_BETWEEN_S and ran:
            shares.append((one.begins_s, 100.0 * inside / span))
    return shares if len(shares) <= MOST_BETWEEN else shares[:: len(shares) // MOST_BETWEEN + 1]


def _growing(known: list[tuple[float, float]], words: str) -> list[Finding]:
    if len(known) < LEAST_CLOGGING:
        return []
    at, back = (np.array(column, dtype=float) for column in zip(*known, strict=True))
    x = at - at.mean()
    slope = float((x * back).sum() / (x * x).sum())
    rest = back - back.mean() - slope * x
    doubt = float(np.sqrt((rest**2).sum() / max(len(x) - 2, 1) / (x * x).sum()))
    first, last = (float(back.mean() + slope * (moment - at.mean())) for moment in (at[0], at[-1]))
    if first <= 0.0 or slope < CLOGS_SURE * doubt or last < (1.0 + CLOGS_SHARE) * first:
        return []
    says = words.format(format_number(first, 0), format_number(last, 0))
    return [Finding("clogs", says, float(at[0]), float(at[-1]), min(0.6 + 0.05 * slope / max(doubt, 1e-12), 0.95),
                    {"coil_after_defrost": "part_iced"})]  # fmt: skip


def _of_cycles(trend: Trend, turns: Cycling | None, shown: ShownUnits) -> list[Finding]:
    if turns is None:
        return []
    begins, ends = turns.runs[0].begins_s, turns.runs[-1].ends_s
    words = [
        f"{format_number(turns.on_min, 0)} min on, {format_number(turns.off_min, 0)} off, {format_number(turns.starts_h)} starts an hour"
    ]
    keys: dict[str, Any] = {}
    if turns.high_f is not None and turns.low_f is not None:
        words.append(f"between {shown.text(turns.low_f, '°F')} and {shown.text(turns.high_f, '°F')}")
        keys |= {"stat_cut_in_f": round(turns.high_f, 1), "stat_cut_out_f": round(turns.low_f, 1)}
    sure = 0.95 if turns.read_from in ("its own state", "amps") else 0.7
    out = [Finding("cycles", f"{', '.join(words)}; by {turns.read_from}", begins, ends, sure, keys)]
    if turns.short:
        says = f"Short cycles: {format_number(turns.starts_h)} starts an hour"
        out.append(Finding("short_cycles", says, begins, ends, sure, {"compressor": "short_cycling"}))
    return out


def _of_doors(doors: list[air.Span], trend: Trend, shown: ShownUnits) -> list[Finding]:
    if not doors:
        return []
    days = max((trend.at_s[-1] - trend.at_s[0]) / air.DAY_S, 0.25)
    longest = max(doors, key=lambda one: one.minutes)
    by = max(one.by_f for one in doors)
    says = (f"Door opened {len(doors)} times, {format_number(len(doors) / days)} a day; the longest "
            f"{format_number(longest.minutes, 0)} min, at most {shown.text(by, '°F diff')} warmer")  # fmt: skip
    sure = 0.95 if "door" in trend.values else 0.6
    traffic = "heavy" if len(doors) / days > 60.0 else "normal" if len(doors) / days > 15.0 else "light"
    return [Finding("doors", says, doors[0].begins_s, doors[-1].ends_s, sure, {"door_traffic": traffic} if "door" in trend.values else {})]


def _of_pull_downs(downs: list[air.Span], shown: ShownUnits) -> list[Finding]:
    return [
        Finding("pull_down", f"Pulled down by {shown.text(one.by_f, '°F diff', 0)} in {format_number(one.minutes / 60.0)} h",
                one.begins_s, one.ends_s, 0.9)
        for one in downs
    ]  # fmt: skip


def _of_air(trend: Trend, limit_f: float, shown: ShownUnits) -> list[Finding]:
    begins, ends = _span(trend)
    out = []
    above, known = air.hours_above(trend, limit_f)
    if above > 0.25:
        says = f"{format_number(above)} h of {format_number(known, 0)} above {shown.text(limit_f, '°F')}"
        out.append(Finding("above", says, begins, ends, 0.95))
    slow = air.drift(trend)
    if slow is not None and slow.sure:
        way = "warmer" if slow.f_per_day > 0 else "colder"
        says = f"{shown.text(abs(slow.f_per_day), '°F diff', 2)} {way} a day over {slow.days} days"
        out.append(Finding("drifts", says, begins, ends, 0.8, {"box_trend": "rising" if slow.f_per_day > 0 else "falling"}))
    return out


def _of_sensors(trend: Trend, shown: ShownUnits) -> list[Finding]:
    out = []
    for role in TEMPERATURES:
        if role not in trend.values:
            continue
        words = role.removesuffix("_f").replace("_", " ")
        out += [
            Finding(
                "stands_still", f"The {words} sensor did not move for {format_number(one.minutes / 60.0)} h", one.begins_s, one.ends_s, 0.7
            )
            for one in air.standing_still(trend, role)[:3]
        ]
        leaps = air.jumps(trend, role) if role != "coil_f" else []
        out += [
            Finding("jumps", f"The {words} sensor jumped by {shown.text(abs(one.by_f), '°F diff', 0)}", one.begins_s, one.ends_s, 0.7)
            for one in leaps[:3]
        ]
    return out


def _of_siblings(trend: Trend, siblings: Mapping[str, Trend], shown: ShownUnits) -> list[Finding]:
    out = []
    for name, other in siblings.items():
        told = air.against_sibling(trend, other)
        if told is None:
            continue
        warmer, shared = told
        begins, ends = _span(trend)
        way = "warmer" if warmer > 0 else "colder"
        words = f"{shown.text(abs(warmer), '°F diff')} {way} than {name}"
        alike = "they go up and down together" if shared > HELD_BY_SIBLING else "it goes its own way"
        out.append(Finding("sibling", f"{words}; {alike}", begins, ends, 0.8))
    return out
