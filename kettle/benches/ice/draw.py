"""Where the cells of an ice map lie on its canvas, so that screen, history and report draw the same map."""

from kettle.benches.ice.map import COLUMNS, ROWS

WIDTH, HEIGHT = 452, 214
LEFT, TOP, CELL = 60, 14, 37


def cell_corner(row: int, column: int) -> tuple[int, int]:
    """Return the top left corner of a cell."""
    return LEFT + column * CELL, TOP + row * CELL


def cells(rows: tuple[str, ...] | list[str]) -> list[tuple[int, int, int, int, str]]:
    """Return every cell as (row, column, x, y, letter)."""
    return [(r, c, *cell_corner(r, c), rows[r][c]) for r in range(ROWS) for c in range(COLUMNS)]
