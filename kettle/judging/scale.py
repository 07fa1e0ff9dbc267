"""A quantity as a mark on a scale: where its band lies and where the value stands, as shares of the drawn length."""

from dataclasses import dataclass
from typing import Final

from kettle.judging.verdicts import Verdict

MARGIN_BANDS: Final = 1.0
FURTHEST_BANDS: Final = 4.0
EDGE_PCT: Final = 2.0


@dataclass(frozen=True)
class Scale:
    """Places along a scale in % of its length, from the left; `beyond` where the value lies past its end."""

    band_from_pct: float
    band_width_pct: float
    at_pct: float
    beyond: bool


def scale(verdict: Verdict) -> Scale:
    """Return the scale of a verdict.

    The axis shows one band-width on either side, and up to four where the value lies further out.
    """
    width = verdict.high - verdict.low
    reach_low = _reach((verdict.low - verdict.value) / width)
    reach_high = _reach((verdict.value - verdict.high) / width)
    start, length = verdict.low - reach_low * width, (1 + reach_low + reach_high) * width
    at_pct = 100.0 * (verdict.value - start) / length
    return Scale(
        band_from_pct=100.0 * reach_low * width / length,
        band_width_pct=100.0 * width / length,
        at_pct=min(max(at_pct, EDGE_PCT), 100.0 - EDGE_PCT),
        beyond=not 0.0 <= at_pct <= 100.0,
    )


def _reach(bands_out: float) -> float:
    return min(max(MARGIN_BANDS, bands_out * 1.15), FURTHEST_BANDS)


def push(weight: float) -> tuple[float, float]:
    """Return where the bar of a piece of evidence starts and how wide it is, in % of a line whose middle is 50.

    weight in natural log-odds; a factor of about twenty (3) fills its half.
    """
    width = 50.0 * min(abs(weight) / 3.0, 1.0)
    return (50.0 if weight > 0 else 50.0 - width), width
