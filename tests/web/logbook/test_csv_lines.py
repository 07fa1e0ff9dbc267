"""What is given away as CSV: no cell is a formula, and a figure stays one."""

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from web.logbook.csv_lines import cell, lines


@pytest.mark.parametrize(
    "text", ["=1+1", "+1+1", "-2+cmd|'/C calc'!A0", "@SUM(A1)", " =1", "\t=1", "\r=1", "|a", "−2+3", "\uff1d1", "'=1", '"=1', "-a"]
)
def test_what_a_spreadsheet_would_work_out_is_text(text):
    assert cell(text) == f"'{text}"


@pytest.mark.parametrize("value", ["-5", "-5.25", "+3", 4.5, -7, "R-404A", "o'clock", "a=b", ""])
def test_a_figure_and_a_word_stay_as_they_are(value):
    assert cell(value) == str(value)


def test_none_is_an_empty_cell():
    assert list(lines([(None, 1)])) == [",1\r\n"]


@given(st.lists(st.lists(st.text(st.characters(exclude_characters="\0", exclude_categories=("Cs",))), min_size=1), min_size=1))
def test_every_row_is_read_back_cell_by_cell(rows):
    back = list(csv.reader(io.StringIO("".join(lines(rows)), newline="")))
    assert back == [[cell(one) for one in row] for row in rows]
