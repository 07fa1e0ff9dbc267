"""What is heard of probes is bounded: lines, names, rate, figures, nesting; nothing is believed before the right greeting."""

import json
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.probes.hearing import MOST_LINES_A_SECOND, MOST_PROBES, Hearing
from kettle.benches.probes.protocol import LONGEST_LINE

NOW = datetime(2026, 11, 25, 6, 0, tzinfo=UTC)
HELLO = b'{"type": "hello", "protocol": "orange-kettle/probes", "version": 1}\n'


def reading(probe="T1", **changed):
    told = {"type": "reading", "probe": probe, "label": "Clamp", "key": "suction_line_evap_f", "value": 3.5, "unit": "°F"}
    return json.dumps({**told, "at": NOW.isoformat(), "battery_pct": 80, **changed}, ensure_ascii=False).encode() + b"\n"


def greeted():
    hearing = Hearing()
    assert hearing.take(HELLO, NOW)
    return hearing


def test_readings_are_taken_as_they_come_in_pieces():
    hearing, line = Hearing(), HELLO + reading()
    for place in range(0, len(line), 7):
        assert hearing.take(line[place : place + 7], NOW)
    assert hearing.heard["T1"].value == 3.5


@pytest.mark.parametrize(
    "first", [reading(), b'{"type": "hello", "protocol": "other", "version": 1}\n', b'{"type": "hello", "version": 2}\n', b"hi\n"]
)
def test_nothing_is_believed_before_the_right_greeting(first):
    hearing = Hearing()
    assert not hearing.take(first + HELLO + reading(), NOW)
    assert not hearing.heard and hearing.complaint


@pytest.mark.parametrize(
    "line",
    [b"[" * 1990 + b"\n", b'{"type": "reading", "value": ' + b"9" * 400 + b"}\n", reading(value=10**300), reading(value=True),
     reading(unit="x" * 90),
     reading(at="9999-12-31T23:59:59-23:59"), reading(at="yesterday"), reading(key="\x00"), reading(probe=""), reading(battery_pct=1e400)],
)  # fmt: skip
def test_a_line_that_is_not_sound_is_said_and_the_next_is_heard(line):
    hearing = greeted()
    assert hearing.take(line, NOW)
    assert hearing.take(reading("T2"), NOW)
    assert "T2" in hearing.heard


def test_a_line_without_an_end_ends_the_connection_and_is_not_kept():
    hearing = greeted()
    assert not hearing.take(b"x" * (LONGEST_LINE + 1), NOW)
    assert "over" in hearing.complaint and len(hearing._rest) == 0


def test_names_are_what_can_be_shown():
    hearing = greeted()
    line = reading().replace(b'"T1"', b'"T\\ud800\\u0000\\u202e1"')
    assert hearing.take(line, NOW)
    [name] = hearing.heard
    assert name == "T1" and name.encode()


def test_no_more_probes_than_anybody_carries_and_no_more_lines_than_they_send():
    hearing = greeted()
    for n in range(5 * MOST_PROBES):
        hearing.take(reading(f"P{n}"), NOW + timedelta(seconds=2 * n))
    assert len(hearing.heard) == MOST_PROBES and "over 32 probes" in hearing.complaint
    quick = greeted()
    for n in range(3 * MOST_LINES_A_SECOND):
        quick.take(reading(value=float(n % 40)), NOW)
    assert quick.heard["T1"].value != float((3 * MOST_LINES_A_SECOND - 1) % 40)
    assert quick.take(reading(value=-7.0), NOW + timedelta(seconds=1)) and quick.heard["T1"].value == -7.0


@given(st.lists(st.binary(max_size=300), max_size=6))
def test_no_bytes_break_the_listener(chunks):
    hearing = greeted()
    for chunk in chunks:
        if not hearing.take(chunk, NOW):
            break
    assert len(hearing._rest) <= LONGEST_LINE
