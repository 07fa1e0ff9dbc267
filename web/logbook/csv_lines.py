"""Lines of CSV for every file that is given away: no cell of them is a formula to a spreadsheet."""

import csv
import re

# What a spreadsheet may take for the start of a formula; a figure with its sign is none.
FORMULA = re.compile(r"^[\s'\"]*[=+\-−@＝＋－＠|\t\r\n]")
FIGURE = re.compile(r"[+\-]?\d+(\.\d+)?")


class _Echo:
    """What csv writes to: it hands each line on."""

    def write(self, value):
        """Return the line."""
        return value


def lines(rows):
    """Yield each row as a line of CSV, None as an empty cell."""
    writer = csv.writer(_Echo())
    for row in rows:
        yield writer.writerow([cell(one) for one in row])


def cell(value):
    """A value as a cell's text, with an apostrophe before what a spreadsheet would work out."""
    text = "" if value is None else str(value)
    return f"'{text}" if FORMULA.match(text) and not FIGURE.fullmatch(text) else text
