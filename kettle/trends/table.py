"""A log's file read in pieces: times and figures of the columns that were matched; one line says which row is wrong and why."""

import re
from collections.abc import Callable, Mapping
from datetime import UTC, datetime
from typing import Any, BinaryIO, Final

import numpy as np
import pandas as pd

from kettle.knowledge.errors import InputError, Stopped
from kettle.knowledge.measures import format_number
from kettle.trends.clock import to_epoch
from kettle.trends.layout import EPOCH, EPOCH_MS, GAP_WORDS, LONGEST_TIME, OFF_WORDS, ON_WORDS, SWAPPED, Layout
from kettle.trends.narrow import Narrow
from kettle.trends.roles import ROLES, UNITS
from kettle.trends.series import Trend

# Of a wide file fewer rows at once: so many cells lie in memory as words.
CELLS_AT_ONCE: Final = 150_000
MOST_ROWS: Final = 4_000_000
LEAST_ROWS: Final = 2
DAY_S: Final = 86_400.0
# A log that goes back by more than clocks are changed by is out of order.
BACK_S: Final = 3600.0
# Up to this share of a column may lie outside what is possible: a sensor that stood open.
OUTSIDE_SHARE: Final = 0.2
_MARK: Final = r"\s*(?:°\s*[FC]|[FC]|psig?|bar|kPa|A|K)$"


def read(
    file: BinaryIO,
    layout: Layout,
    match: Mapping[int, tuple[str, str]],
    zone: str = "UTC",
    clock: str = "wall",
    swapped: bool = False,
    told: Callable[[int], bool] | None = None,
) -> Trend:
    """Return what a file holds of the columns matched (column -> role, unit in the file), its times by a zone and how its clock is kept.

    `swapped` reads day and month the other way round. `told` hears how many rows are read and answers whether to go on: Stopped where
    not. InputError in one line that names the row for a file that cannot be read; nothing of it is returned then.
    """
    _checked(layout, match)
    form = SWAPPED.get(layout.time_format[:8], layout.time_format[:8]) + layout.time_format[8:] if swapped else layout.time_format
    moments: list[Any] = []
    numbers: list[Any] = []
    columns: dict[int, list[Any]] = {n: [] for n in match}
    count = 0
    try:
        for chunk in _chunks(file, layout, match):
            count += len(chunk)
            if count > MOST_ROWS:
                raise InputError(f"The file has over {MOST_ROWS:,} rows, more than one log can hold")
            stamps = chunk[layout.time[0]] if len(layout.time) == 1 else chunk[layout.time[0]] + " " + chunk[layout.time[1]]
            said = stamps.notna()
            row = (chunk.index + layout.header + 1).to_numpy(dtype=np.int32)[said]
            chunk, stamps = chunk[said], stamps[said]
            moments.append(_moments(stamps, form, row))
            numbers.append(row)
            for n, (role, unit) in match.items():
                columns[n].append(_figures(chunk[n], role, unit, layout.columns[n], row))
            if told is not None and not told(count):
                raise Stopped
    except pd.errors.ParserError as error:
        raise InputError(_broken(str(error))) from None
    except (pd.errors.EmptyDataError, UnicodeError):
        raise InputError("The file holds no rows that can be read") from None
    local, rows = _joined(moments), _joined(numbers)
    if len(local) < LEAST_ROWS:
        raise InputError(f"The file holds {len(local)} rows with a time, two are the least")
    figures = {match[n][0]: _joined(parts) for n, parts in columns.items()}
    return _trend(local, rows, figures, "utc" if form in (EPOCH, EPOCH_MS) or form.endswith("%z") else clock, zone)


def _joined(parts: list[Any]) -> Any:
    """The parts as one; they are let go."""
    whole = np.concatenate(parts) if parts else np.array([])
    parts.clear()
    return whole


def _checked(layout: Layout, match: Mapping[int, tuple[str, str]]) -> None:
    if not match:
        raise InputError("Say of at least one column what it is")
    roles = [role for role, _ in match.values()]
    for n, (role, unit) in match.items():
        if n in layout.time or not 0 <= n < len(layout.columns):
            raise InputError(f"Column {n + 1} cannot be {role}")
        if role not in ROLES or unit not in UNITS or UNITS[unit][0] != ROLES[role].unit:
            raise InputError(f"{layout.columns[n]}: “{role[:20]}” in “{unit[:10]}” is nothing a column can be")
        if roles.count(role) > 1:
            raise InputError(f"{ROLES[role].label} is said of two columns: one of them only")


def _chunks(file: BinaryIO, layout: Layout, match: Mapping[int, tuple[str, str]]) -> Any:
    return pd.read_csv(
        Narrow(file), sep=layout.delimiter, decimal=layout.decimal, header=None, skiprows=layout.header,
        names=list(range(len(layout.columns))),
        usecols=sorted({*layout.time, *match}), index_col=False, encoding=layout.encoding, encoding_errors="replace",
        chunksize=CELLS_AT_ONCE // (len(layout.time) + len(match)), skip_blank_lines=False, na_values=[word for word in GAP_WORDS if word],
        dtype=dict.fromkeys(layout.time, "str"), skipinitialspace=True, engine="c", low_memory=False,
    )  # fmt: skip


def _moments(stamps: Any, form: str, row: Any) -> Any:
    """Times as seconds, as if the log's clock were UTC."""
    if form in (EPOCH, EPOCH_MS):
        seconds = pd.to_numeric(stamps, errors="coerce").to_numpy(dtype=float) / (1000.0 if form == EPOCH_MS else 1.0)
        wrong = ~np.isfinite(seconds)
    else:
        quick = _by_parts(stamps, form)
        if quick is not None:
            return quick
        found = pd.to_datetime(stamps, format=form, errors="coerce", utc=form.endswith("%z"))
        wrong = found.isna().to_numpy()
        seconds = found.to_numpy(dtype="datetime64[ms]").astype("int64") / 1000.0
    if wrong.any():
        at = int(np.argmax(wrong))
        hint = "; it may have the day before the month, or the other way" if form[:8] in SWAPPED else ""
        raise InputError(f"Row {row[at]:,}: “{str(stamps.iloc[at])[:30]}” is no time like the first row's{hint}")
    return seconds


def _by_parts(stamps: Any, form: str) -> Any:
    """Times whose day and clock stand at the same places in every row: each day and each time of day is read once. None where not so."""
    day_form, _, clock_form = form.partition(" ")
    text = stamps.to_numpy(dtype=object)
    if stamps.str.len().max() > LONGEST_TIME:
        return None
    width = text[0].find(" ") if len(text) else -1
    if width < 0 or "%z" in form or " " in clock_form or not text[0].isascii():
        return None
    try:
        table = np.array(text, dtype="S")
    except UnicodeEncodeError:
        return None
    letters = table.view("u1").reshape(len(table), -1)
    if (letters[:, width] != ord(" ")).any() or (letters[:, -1] == 0).any() or letters.shape[1] == width + 1:
        return None
    seconds = np.zeros(len(table))
    for part, part_form in ((letters[:, :width], day_form), (letters[:, width + 1 :], clock_form)):
        words, places = np.unique(np.ascontiguousarray(part).view(f"S{part.shape[1]}").ravel(), return_inverse=True)
        found = pd.to_datetime([word.decode() for word in words], format=part_form, errors="coerce")
        if found.isna().any():
            return None
        told = found.to_numpy(dtype="datetime64[ms]").astype("int64") / 1000.0
        seconds += (told % DAY_S if part_form == clock_form else told)[places]
    return seconds


def _figures(column: Any, role: str, unit: str, name: str, row: Any) -> Any:
    """Figures of a column in the stored unit; NaN for a gap, and for what no sensor can tell."""
    if pd.api.types.is_bool_dtype(column) or pd.api.types.is_numeric_dtype(column):
        values = column.to_numpy(dtype=float)
    else:
        values = _from_words(column.astype("str").str.strip().str.lower(), column, role, name, row)
    values = UNITS[unit][1](values)
    low, high = ROLES[role].span
    with np.errstate(invalid="ignore"):
        outside = (values < low) | (values > high)
    known = int((~np.isnan(values)).sum())
    if outside.sum() > OUTSIDE_SHARE * max(known, 1):
        at = int(np.argmax(outside))
        told = f"{format_number(float(values[at]), 1)} {ROLES[role].unit}".strip()
        raise InputError(f"Row {row[at]:,}, {name}: {told} is outside {low:g} to {high:g}; another unit, or another column?")
    return np.where(outside, np.nan, values).astype(np.float32)


def _from_words(words: Any, column: Any, role: str, name: str, row: Any) -> Any:
    """A column that holds more than figures: on and off, units behind figures, words for a gap."""
    values = pd.to_numeric(words.str.replace(",", ".").str.replace("−", "-").str.replace(_MARK, "", regex=True, flags=re.I),
                           errors="coerce").to_numpy(dtype=float)  # fmt: skip
    if ROLES[role].is_state:
        values = np.where(words.isin(ON_WORDS), 1.0, np.where(words.isin(OFF_WORDS), 0.0, values))
        if role == "door":
            values = np.where(words == "open", 1.0, values)
    gap = (column.isna() | words.isin(GAP_WORDS)).to_numpy() & ~(words.eq("open").to_numpy() & (role == "door"))
    wrong = np.isnan(values) & ~gap
    if wrong.any():
        at = int(np.argmax(wrong))
        what = "on or off" if ROLES[role].is_state else "a figure"
        raise InputError(f"Row {row[at]:,}, {name}: “{str(column.iloc[at])[:20]}” is not {what}")
    return np.where(gap, np.nan, values)


def _trend(local: Any, rows: Any, figures: dict[str, Any], clock: str, zone: str) -> Trend:
    if local[0] > local[-1]:
        # Newest first.
        local, rows, figures = local[::-1], rows[::-1], {role: column[::-1] for role, column in figures.items()}
    back = np.flatnonzero(np.diff(local) < -BACK_S - 1.0)
    if len(back):
        at = int(back[0]) + 1
        before, here = (datetime.fromtimestamp(float(local[n]), UTC).strftime("%Y-%m-%d %H:%M") for n in (at - 1, at))
        raise InputError(f"Row {rows[at]:,}: the time goes back from {before} to {here}")
    told = to_epoch(local, zone, clock)
    if (np.diff(told.at_s) > 0).all():
        return Trend(told.at_s, figures, tuple(told.notes))
    order = np.argsort(told.at_s, kind="stable")
    at_s = told.at_s[order]
    last = np.append(np.diff(at_s) > 0, True)
    twice = int((~last).sum())
    notes = (*told.notes, *((f"{twice:,} rows have the time of the next one; the later stands",) if twice else ()))
    return Trend(at_s[last], {role: column[order][last] for role, column in figures.items()}, notes)


def _broken(said: str) -> str:
    """What the reader of columns complains of, in our words."""
    found = re.search(r"Expected (\d+) fields in line (\d+), saw (\d+)", said)
    if found:
        return f"Row {int(found[2]):,}: {found[3]} columns where the others have {found[1]}"
    return "The file's columns cannot be told apart (a quotation mark without its end?)"
