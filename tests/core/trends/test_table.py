"""Logs as they come out of loggers and controllers: how they are laid out, their clocks, their gaps, and what is wrong with them."""

import io
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.knowledge.errors import InputError, Stopped
from kettle.trends import layout, table
from kettle.trends.clock import to_epoch
from kettle.trends.roles import ROLES, guess_role, guess_unit

BERLIN = ZoneInfo("Europe/Berlin")


def read(text, zone="UTC", clock="wall", match=None, swapped=False, told=None):
    raw = text if isinstance(text, bytes) else text.encode()
    laid = layout.look(raw[: layout.HEAD_BYTES], raw[-2000:])
    return table.read(io.BytesIO(raw), laid, laid.guess if match is None else match, zone, clock, swapped, told)


@pytest.mark.parametrize("text", [
    "Time,Box temp (F)\n2026-03-02 06:00,36.5\n2026-03-02 06:02,36.7\n",
    "Time;Box temp °C\n02.03.2026 06:00;2,5\n02.03.2026 06:02;2,6111\n",
    "Time\tBox temp\n03/02/2026 6:00 AM\t36.5\n03/02/2026 6:02 AM\t36.7\n",
    "Logger 77\nstarted,by,hand\nTime,Box temp\n2026-03-02T06:00:00Z,36.5 °F\n2026-03-02T06:02:00Z,36.7 °F\n",
    "Date,Clock,Box temp\n2026/03/02,06:00:00,36.5\n2026/03/02,06:02:00,36.7\n",
    "Time,Box temp\n1772431200,36.5\n1772431320,36.7\n",
    "2026-03-02 06:02,36.7\n2026-03-02 06:00,36.5\n",
    "Time,Box temp\n2026-03-02 06:00,36.5\n\n2026-03-02 06:02,36.7\n\n",
    "Time|Box temp|Defrost\n2-Mar-2026 06:00|36.5|off\n2-Mar-2026 06:02|36.7|off\n",
], ids=["plain", "decimal comma, celsius", "tab, noon words", "words before, offset, units", "two columns of time", "epoch", "newest first",
        "blank rows", "bar, month in letters"])  # fmt: skip
def test_one_log_in_many_dresses(text):
    bare = not text[0].isalpha()
    trend = read(text, match={1: ("box_f", "°F")} if bare else None)
    assert datetime.fromtimestamp(trend.at_s[0], UTC) == datetime(2026, 3, 2, 6, 0, tzinfo=UTC)
    assert trend.step_s == 120.0
    assert trend.values["box_f"] == pytest.approx([36.5, 36.7], abs=0.01)


def test_columns_are_taken_for_what_their_headers_say():
    told = {"Return Air": "return_f", "Evap temp": "coil_f", "Suction pressure (bar)": "suction_psig", "Comp. current": "amps",
            "Defrost active": "defrost", "Door": "door", "Ambient": "ambient_f", "Battery": ""}  # fmt: skip
    assert {header: guess_role(header) for header in told} == told
    assert guess_unit("Suction pressure (bar)", "suction_psig") == "bar" and guess_unit("Evap [C]", "coil_f") == "°C"
    assert guess_unit("Evap", "coil_f", otherwise="°C") == "°C" and guess_unit("Superheat (K)", "superheat_f") == "°F diff"


def test_day_and_month_are_told_by_figures_over_twelve_anywhere_in_the_sample():
    rows = [f"{day:02d}/03/2026 12:00,{30 + day}" for day in range(1, 14)]
    assert layout.look("\n".join(["t,temp", *rows]).encode()).time_format == "%d/%m/%Y %H:%M"
    either = layout.look("\n".join(["t,temp", *rows[:5]]).encode())
    assert either.either and either.time_format == "%m/%d/%Y %H:%M"
    swapped = read("\n".join(["t,temp", *rows[:5]]), swapped=True)
    assert swapped.step_s == 86_400.0


@pytest.mark.parametrize(("text", "says"), [
    (b"", "The file is empty"),
    (b"\x89PNG\r\n\0\0", "no text file"),
    (b"hello", "no columns"),
    (b"a,b\n1,2\n", "No row has a date"),
    ("t,temp\n2026-03-02 06:00,36\n2026-03-02 06:02,warm\n2026-03-02 06:04,36\n", "Row 3, temp: “warm” is not a figure"),
    ("t,temp\n2026-03-02 06:00,36\nyesterday,37\n", "Row 3: “yesterday” is no time like the first row's"),
    ("t,temp\n2026-03-02 06:00,36\n2026-03-01 06:00,37\n2026-03-02 06:04,36\n", "Row 3: the time goes back from 2026-03-02 06:00"),
    ("t,temp\n2026-03-02 06:00,999\n2026-03-02 06:02,998\n", "Row 2, temp: 999.0 °F is outside -80 to 150; another unit"),
    ("t,temp\n2026-03-02 06:00,36\n", "1 rows with a time, two are the least"),
    ("t,defrost\n2026-03-02 06:00,on\n2026-03-02 06:02,off\n2026-03-02 06:04,perhaps\n", "Row 4, defrost: “perhaps” is not on or off"),
])  # fmt: skip
def test_what_is_wrong_is_said_in_one_line_with_its_row(text, says):
    with pytest.raises(InputError, match=r".") as wrong:
        read(text)
    assert says in str(wrong.value) and "\n" not in str(wrong.value)


@pytest.mark.parametrize(("match", "says"), [
    ({}, "at least one column"), ({0: ("box_f", "°F")}, "cannot be"), ({1: ("box_f", "bar")}, "nothing a column can be"),
    ({1: ("box_f", "°F"), 2: ("box_f", "°F")}, "said of two columns"),
])  # fmt: skip
def test_a_match_that_cannot_be(match, says):
    with pytest.raises(InputError, match=says):
        read("t,a,b\n2026-03-02 06:00,36,1\n2026-03-02 06:02,36,1\n", match=match)


def test_gaps_are_gaps_and_a_sensor_that_was_open_is_none():
    trend = read("t,temp\n" + "\n".join(f"2026-03-02 06:{n:02d},{'---' if n == 3 else 9999 if n == 5 else 36 + n / 10}" for n in range(60)))
    assert np.flatnonzero(np.isnan(trend.values["box_f"])).tolist() == [3, 5]
    cut = trend.between(trend.at_s[10], trend.at_s[20])
    assert cut.count == 11 and cut.at_s[0] == trend.at_s[10]


def test_the_hour_that_comes_twice_and_the_hour_that_is_not():
    begins = datetime(2026, 10, 24, 22, 0, tzinfo=UTC)
    moments = [begins + timedelta(minutes=10 * n) for n in range(48)]
    rows = [f"{at.astimezone(BERLIN):%Y-%m-%d %H:%M},{n}" for n, at in enumerate(moments)]
    trend = read("\n".join(["t,temp", *rows]), zone="Europe/Berlin")
    assert trend.at_s.tolist() == [at.timestamp() for at in moments] and trend.notes == ()
    # A logger that stays on standard time has rows between two and three in March: it is found out and read so.
    standard = [datetime(2026, 3, 28, 20, 0) + timedelta(minutes=30 * n) for n in range(24)]
    trend = read("\n".join(["t,temp", *(f"{at:%Y-%m-%d %H:%M},36" for at in standard)]), zone="Europe/Berlin")
    assert trend.at_s[0] == datetime(2026, 3, 28, 19, 0, tzinfo=UTC).timestamp()
    assert set(np.diff(trend.at_s)) == {1800.0} and "2026-03-29 02:00 is not on the wall clock" in trend.notes[0]


@given(
    st.integers(0, 365 * 24 * 6), st.integers(2, 400), st.sampled_from(["America/Denver", "Europe/Berlin", "Australia/Lord_Howe", "UTC"])
)
def test_the_wall_clock_gives_every_moment_back(begin, count, zone):
    first = datetime(2026, 1, 1, tzinfo=UTC) + timedelta(minutes=10 * begin)
    moments = [first + timedelta(minutes=10 * n) for n in range(count)]
    walls = [at.astimezone(ZoneInfo(zone)).replace(tzinfo=UTC).timestamp() for at in moments]
    told = to_epoch(walls, zone).at_s
    # A log that begins or ends inside the hour that comes twice cannot tell which pass it is in.
    unsure = {(at.astimezone(ZoneInfo(zone)).date(), at.astimezone(ZoneInfo(zone)).hour) for at in (moments[0], moments[-1])}
    for at, seconds in zip(moments, told, strict=True):
        wall = at.astimezone(ZoneInfo(zone))
        if (wall.date(), wall.hour) not in unsure:
            assert seconds == at.timestamp()


def test_reading_can_be_stopped_and_tells_how_far_it_is():
    text = "t,temp\n" + "\n".join(f"2026-01-{1 + n // 1440:02d} {n // 60 % 24:02d}:{n % 60:02d},36" for n in range(20_000))
    heard = []
    assert read(text, told=lambda rows: heard.append(rows) or True).count == 20_000 and heard == [20_000]
    with pytest.raises(Stopped):
        read(text, told=lambda rows: False)


def test_every_role_has_its_words_and_span():
    assert all(role.words and role.span[0] < role.span[1] for role in ROLES.values())
    assert [role.code for role in ROLES.values() if role.is_state] == ["compressor", "defrost", "door"]


# Files that are no logs, or logs nobody writes: each is refused in one line.
HOSTILE = {
    "only commas": b"," * 64_000,
    "sixty columns of nothing": (b"," * 59 + b"1\n") * 1000,
    "times that are none": b"".join(b"2026-99-%d 10:%02d," % (n, n % 90) * 30 + b"1\n" for n in range(120)),
    "clocks everywhere": (b"1:11," * 58 + b"1\n") * 300,
    "one word": b"a" * 64_000,
    "quotation marks": (b'"' + b"," * 5000) * 12,
}


@pytest.mark.parametrize("how", HOSTILE)
def test_a_file_that_is_no_log_is_refused_after_few_words_were_tried_as_a_time(how, monkeypatch):
    tried = []
    reads = layout._reads
    monkeypatch.setattr(layout, "_reads", lambda stamp, form: tried.append(stamp) or reads(stamp, form))
    layout._forms.cache_clear()
    with pytest.raises(InputError) as said:
        layout.look(HOSTILE[how])
    assert len(str(said.value)) < 160 and len(tried) < 2 * layout.MOST_TRIED


@pytest.mark.parametrize(("cell", "says"), [
    (b"2026-01-01 10:00" + b"1" * 60_000 + b",4\n", "Row 5 is longer than 4,096 letters"),
    (b"2026-01-01 10:00," + b"9" * 60_000 + b"\n", "Row 5 is longer than 4,096 letters"),
    (b'2026-01-01 10:00,"4\n', "Row 5: a quotation mark without its end"),
    (b"2026-01-01 10:00" + b"1" * 3000 + b",4\n", "Row 5: “2026-01-01 10:001+” is no time like the first row's"),
])  # fmt: skip
def test_a_row_no_logger_writes_is_named_before_it_is_held_in_memory(cell, says):
    text = b"time,box F\n" + b"".join(b"2026-01-01 09:%02d,%d\n" % (n, n) for n in range(3)) + cell
    with pytest.raises(InputError, match=says):
        read(text + b"2026-01-01 11:00,1\n" * 20_000)


@pytest.mark.parametrize("end", ["\n", "\r\n"])
def test_rows_are_counted_however_they_end(end):
    rows = ["time,box F", *(f"2026-01-01 09:{n:02d},{n}" for n in range(60)), "2026-01-01 10:00,x" + "y" * 5000]
    with pytest.raises(InputError, match="Row 62 is longer"):
        read(end.join([*rows, ""]))


@given(st.lists(st.integers(-40, 90), min_size=2, max_size=40), st.sampled_from(["\n", "\r\n"]))
def test_narrow_rows_are_read_as_they_are(figures, end):
    began = datetime(2026, 1, 1, tzinfo=UTC)
    lines = ["time,box F", *(f"{began + timedelta(minutes=n):%Y-%m-%d %H:%M},{value}" for n, value in enumerate(figures)), ""]
    assert read(end.join(lines)).values["box_f"].tolist() == [float(value) for value in figures]
