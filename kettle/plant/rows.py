"""Rows: one row of figures for each variant of a plant, its fields named by a class.

Outside the compiled functions a field is an array over variants (`plant.parts.charge_lb`); inside them it is the one
figure of the variant at hand (`p.charge_lb`).
"""

from typing import Any, Final, Protocol, get_type_hints

import numpy as np
from numpy.typing import NDArray

Figures = NDArray[np.float64]
SECTIONS: Final = 4


class Sections(Protocol):
    """A field that has a figure for each section of the coil, in the order of the refrigerant's path."""

    def __getitem__(self, section: int) -> float: ...

    def __setitem__(self, section: int, value: float) -> None: ...


def layout(fields: type) -> np.dtype[np.void]:
    """Return the layout of a row with the fields of a class, in their order."""
    hints = get_type_hints(fields)
    kinds = [(name, "f8", (SECTIONS,)) if kind is Sections else (name, "f8") for name, kind in hints.items()]
    return np.dtype(kinds, align=True)


def rows(fields: type, count: int) -> Any:
    """Return `count` rows of zeros with the fields of a class."""
    return np.zeros(count, layout(fields)).view(np.recarray)


def bare(fields: type, table: Any) -> Any:
    """Return the same rows as the compiled functions take them."""
    return table.view(layout(fields), np.ndarray)
