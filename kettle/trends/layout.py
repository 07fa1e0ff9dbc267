"""What a log's file looks like: its encoding, delimiter, decimal, times, and what its columns most likely are."""

import csv
import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cache, lru_cache
from typing import Final

from kettle.knowledge.errors import InputError
from kettle.trends.roles import guess_role, guess_unit

HEAD_BYTES: Final = 64_000
MOST_COLUMNS: Final = 60
LONGEST_HEADER: Final = 60
SAMPLE_ROWS: Final = 40
SHOWN_ROWS: Final = 5
DELIMITERS: Final = (";", "\t", "|", ",")
# Words that loggers write where they have no figure.
GAP_WORDS: Final = ("", "-", "--", "---", "----", "n/a", "na", "nan", "null", "none", "err", "error", "open", "short", "ol", "offline",
                    "fault", "no data", "nodata", "#n/a", "inf", "-inf", "invalid", "sensor", "?")  # fmt: skip
ON_WORDS: Final = ("on", "true", "yes", "1", "1.0", "opened", "active", "def", "defrost", "running", "run", "closed contact")
OFF_WORDS: Final = ("off", "false", "no", "0", "0.0", "closed", "inactive", "idle", "stopped", "normal")
EPOCH: Final = "epoch"
EPOCH_MS: Final = "epoch ms"
_DATES: Final = ("%Y-%m-%d", "%m/%d/%Y", "%d/%m/%Y", "%m/%d/%y", "%d/%m/%y", "%d.%m.%Y", "%d.%m.%y", "%d-%m-%Y", "%m-%d-%Y", "%Y/%m/%d",
                 "%d-%b-%Y", "%d %b %Y", "%b %d, %Y", "%d-%b-%y", "%Y%m%d")  # fmt: skip
_CLOCKS: Final = ("%H:%M:%S", "%H:%M", "%H:%M:%S.%f", "%I:%M:%S %p", "%I:%M %p", "%H.%M.%S", "%H.%M")
# Day and month may be meant either way by these: the figures over twelve decide.
SWAPPED: Final = {"%m/%d/%Y": "%d/%m/%Y", "%d/%m/%Y": "%m/%d/%Y", "%m/%d/%y": "%d/%m/%y", "%d/%m/%y": "%m/%d/%y", "%d-%m-%Y": "%m-%d-%Y",
                  "%m-%d-%Y": "%d-%m-%Y"}  # fmt: skip
_PIECES: Final = {"Y": r"\d{4}", "y": r"\d{2}", "b": "[A-Za-z]{3,4}", "f": r"\d{1,6}", "p": "[AaPp][Mm]",
                  **dict.fromkeys("mdHIMS", r"\d{1,2}")}  # fmt: skip
LONGEST_TIME: Final = 48
# What every time has somewhere: hours and minutes.
_CLOCK = re.compile(r"\d[:.]\d\d")
# So many words that look like a time and are none: it is no log.
MOST_TRIED: Final = 300
_NUMBER = re.compile(r"^[+\-−]?(\d+([.,]\d+)?|[.,]\d+)(e[+\-]?\d+)?(\s*°?\s*[a-z]{1,4})?$", re.I)
_OFFSET = re.compile(r"(Z|[+\-]\d\d:?\d\d)$")


@dataclass(frozen=True)
class Layout:
    """How a file is to be read: `header` is the row its names stand in (0 for none), `time` the columns of date and clock.

    `guess` is what each other column most likely is (column -> role and unit). `either` says that day and month could be the other way.
    """

    encoding: str
    delimiter: str
    decimal: str
    header: int
    columns: tuple[str, ...]
    time: tuple[int, ...]
    time_format: str
    either: bool
    guess: dict[int, tuple[str, str]]
    rows: tuple[tuple[str, ...], ...]


def look(head: bytes, tail: bytes = b"", otherwise: str = "°F") -> Layout:
    """Return how a file is laid out, by its first bytes and its last; InputError in one line for what is no log.

    `otherwise` is what temperatures are in where no header says (°F or °C).
    """
    encoding = _encoding(head)
    lines = _lines(head, encoding)
    delimiter = _delimiter(lines)
    rows = [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter=delimiter)]
    widest = max((len(row) for row in rows), default=0)
    if widest > MOST_COLUMNS:
        raise InputError(f"The file has {widest} columns, {MOST_COLUMNS} are the most")
    first, time, forms = _first_row(rows)
    decimal = _decimal(rows[first:], delimiter, time)
    header = first if first and len(rows[first - 1]) >= len(rows[first]) - 1 else 0
    width = len(rows[first])
    names = rows[header - 1] if header else []
    columns = tuple((names[n] if n < len(names) and names[n] else f"Column {n + 1}")[:LONGEST_HEADER] for n in range(width))
    ends = [[cell.strip() for cell in row] for row in csv.reader(_lines(tail, encoding)[1:], delimiter=delimiter)] if tail else []
    sample = [row for row in [*rows[first:], *ends] if len(row) > max(time)]
    form, either = _settled(forms, [_stamp(row, time) for row in sample])
    guess: dict[int, tuple[str, str]] = {}
    for n, name in enumerate(columns):
        if n in time:
            continue
        role = guess_role(name, tuple(role for role, _ in guess.values()))
        cells = [row[n] for row in sample if n < len(row)]
        if role and _fits(role, cells):
            guess[n] = (role, guess_unit(name, role, otherwise))
    return Layout(encoding, delimiter, decimal, header, columns, time, form, either, guess,
                  tuple(tuple(row) for row in rows[first : first + SHOWN_ROWS]))  # fmt: skip


def _encoding(head: bytes) -> str:
    if not head.strip():
        raise InputError("The file is empty")
    if head[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return "utf-16"
    if b"\0" in head:
        raise InputError("This is no text file with figures in columns (CSV)")
    try:
        head[: -3 if len(head) >= HEAD_BYTES else None].decode("utf-8-sig")
    except UnicodeDecodeError:
        return "cp1252"
    return "utf-8-sig"


def _lines(part: bytes, encoding: str) -> list[str]:
    text = part.decode("utf-8" if encoding == "utf-8-sig" else encoding, errors="replace").lstrip("\ufeff")
    lines = text.splitlines()
    # The last line may be cut through.
    return lines[:-1] if len(lines) > 2 and not text.endswith("\n") and len(part) >= HEAD_BYTES else lines


def _delimiter(lines: Sequence[str]) -> str:
    last = [line for line in lines if line.strip()][-SAMPLE_ROWS:]
    for one in DELIMITERS:
        counts = {line.count(one) for line in last}
        if len(counts) == 1 and counts != {0}:
            return one
    counted = max(DELIMITERS, key=lambda one: sum(line.count(one) for line in last))
    if not any(counted in line for line in last):
        raise InputError("The file has no columns: nothing separates them (comma, semicolon, tab)")
    return counted


def _first_row(rows: list[list[str]]) -> tuple[int, tuple[int, ...], list[str]]:
    """The first row that has a time and a figure; its columns of time, and the forms its time may have."""
    tried = 0
    for place, row in enumerate(rows[: SAMPLE_ROWS * 3]):
        last = max((n for n, cell in enumerate(row) if _NUMBER.match(cell) or cell.lower() in (*ON_WORDS, *OFF_WORDS)), default=0)
        for n, cell in enumerate(row[:last]):
            tried += bool(_CLOCK.search(cell))
            if tried > MOST_TRIED:
                break
            forms = _forms(cell)
            if forms:
                return place, (n,), forms
            forms = [form for form in _forms(f"{cell} {row[n + 1]}") if form not in (EPOCH, EPOCH_MS)]
            if forms:
                return place, (n, n + 1), forms
    raise InputError("No row has a date with time and a figure: row 1 is "
                     f"“{' '.join(rows[0])[:40] if rows else ''}”")  # fmt: skip


@lru_cache(SAMPLE_ROWS * MOST_COLUMNS)
def _forms(stamp: str) -> list[str]:
    """The forms a time may have; none for a word that is none."""
    stamp = stamp.strip()
    if not _CLOCK.search(stamp) or len(stamp) > LONGEST_TIME:
        return [EPOCH] if re.fullmatch(r"1\d{9}(\.\d+)?", stamp) else [EPOCH_MS] if re.fullmatch(r"1\d{12}", stamp) else []
    offset = _OFFSET.search(stamp)
    bare, tail = (stamp[: offset.start()].strip(), "%z") if offset and ":" in stamp[: offset.start()] else (stamp, "")
    return [form + tail for form, shape in _shapes() if shape.fullmatch(bare) and _reads(bare, form)]


@cache
def _shapes() -> tuple[tuple[str, re.Pattern[str]], ...]:
    """Every form of a time with what it looks like: reading by a form costs far more than seeing that a word cannot have it."""
    forms = [f"{date}{between}{clock}" for date in _DATES for between in (" ", "T", ", ") for clock in _CLOCKS]
    looks = (re.sub(r"%(.)", lambda told: _PIECES[told[1]], re.escape(form).replace("\\ ", r"\s+")) for form in forms)
    return tuple((form, re.compile(look)) for form, look in zip(forms, looks, strict=True))


def _reads(stamp: str, form: str) -> bool:
    try:
        year = datetime.strptime(stamp, form).year
    except ValueError:
        return False
    return 1990 <= year <= 2100


def _stamp(row: Sequence[str], time: tuple[int, ...]) -> str:
    return " ".join(row[n] for n in time).strip()


def _settled(forms: list[str], stamps: Sequence[str]) -> tuple[str, bool]:
    """The form that all the times of the sample have, and whether day and month could be the other way round."""
    if forms[0] in (EPOCH, EPOCH_MS):
        return forms[0], False
    bare = [_OFFSET.sub("", stamp).strip() if forms[0].endswith("%z") else stamp for stamp in stamps if stamp]
    fitting = [form for form in forms if all(_reads(stamp, form.removesuffix("%z")) for stamp in bare)] or forms[:1]
    return fitting[0], len(fitting) > 1


def _decimal(rows: list[list[str]], delimiter: str, time: tuple[int, ...]) -> str:
    cells = [cell for row in rows[:SAMPLE_ROWS] for n, cell in enumerate(row) if n not in time]
    commas = sum(bool(re.fullmatch(r"[+\-−]?\d+,\d+", cell)) for cell in cells)
    return "," if delimiter != "," and commas > sum(bool(re.fullmatch(r"[+\-−]?\d+\.\d+", cell)) for cell in cells) else "."


def _fits(role: str, cells: Sequence[str]) -> bool:
    known = [cell.lower() for cell in cells if cell.lower() not in GAP_WORDS]
    return not known or sum(bool(_NUMBER.match(cell)) or cell in (*ON_WORDS, *OFF_WORDS) for cell in known) > len(known) / 2
