"""A log's file whose rows are as narrow as a log's are: what a file can make a reader of columns hold in memory is bounded by its rows."""

import io
from typing import Any, BinaryIO, Final

from kettle.knowledge.errors import InputError

# Sixty columns of sixty letters.
LONGEST_ROW: Final = 4096
AT_ONCE: Final = 64 * 1024


class Narrow(io.RawIOBase):
    """The bytes of a file, read in pieces; InputError names the first row that is too long, or whose quotation mark does not end in it."""

    def __init__(self, file: BinaryIO) -> None:
        """Begin at the place the file stands at."""
        super().__init__()
        self._file, self._row, self._open = file, 1, b""

    def readable(self) -> bool:
        """Return that it can be read."""
        return True

    def readinto(self, into: Any) -> int:
        """Fill a buffer as far as one piece goes; 0 at the end."""
        piece = self._file.read(min(len(into), AT_ONCE))
        self._look(piece)
        into[: len(piece)] = piece
        return len(piece)

    def _look(self, piece: bytes) -> None:
        told = self._open + piece
        # What follows a carriage return may still belong to it.
        held = b"\r" if told.endswith(b"\r") else b""
        rows = told.removesuffix(held).replace(b"\r\n", b"\n").replace(b"\r", b"\n").split(b"\n")
        self._open = rows[-1] + held
        if max(map(len, rows)) > LONGEST_ROW:
            at = self._row + next(n for n, row in enumerate(rows) if len(row) > LONGEST_ROW)
            raise InputError(f"Row {at:,} is longer than {LONGEST_ROW:,} letters, which no row of a log is")
        if b'"' in piece:
            for n, row in enumerate(rows[:-1]):
                if row.count(b'"') % 2:
                    raise InputError(f"Row {self._row + n:,}: a quotation mark without its end")
        self._row += len(rows) - 1
