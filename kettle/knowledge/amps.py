"""What a compressor should draw at the pressures it runs at, as a share of its rated amps."""

from typing import Final

from kettle.knowledge.refrigerants import Refrigerant

# Clearance of a reciprocating compressor, and a usual polytropic exponent of refrigerant vapour.
CLEARANCE: Final = 0.05
EXPONENT: Final = 1.1
# Share of the rated amps a motor draws before it does any work on gas.
IDLE_SHARE: Final = 0.35
# Where a compressor is taken to draw its rated amps: the warm end of its range, saturated °F (suction, discharge).
RATED_AT_F: Final[dict[bool, tuple[float, float]]] = {False: (45.0, 130.0), True: (5.0, 125.0)}


def compression_power(refrigerant: Refrigerant, sst_f: float, sct_f: float) -> float:
    """Return power per swept volume, psi (times a constant), of a compressor between two saturated temperatures, °F.

    Ideal polytropic compression with clearance volume (Stoecker and Jones, Refrigeration and Air Conditioning, 1982,
    ch. 11): η_v · n/(n-1) · p1 · (r^((n-1)/n) - 1), η_v = 1 + c - c · r^(1/n).
    """
    p1, p2 = refrigerant.dew.psia_at(sst_f), refrigerant.bubble.psia_at(sct_f)
    ratio = max(p2 / p1, 1.0)
    volumetric = max(0.0, 1.0 + CLEARANCE - CLEARANCE * ratio ** (1.0 / EXPONENT))
    share = (EXPONENT - 1.0) / EXPONENT
    return float(volumetric * p1 / share * (ratio**share - 1.0))


def expected_share_pct(refrigerant: Refrigerant, sst_f: float, sct_f: float, freezer: bool) -> float:
    """Return the amps expected, % of rated, at saturated suction and discharge temperatures in °F.

    The motor's idle share stays; the rest follows the power of compression against that at the rated point
    (`RATED_AT_F`). Judgement of the trade behind both constants, good to about a fifth either way.
    """
    power = compression_power(refrigerant, sst_f, sct_f) / compression_power(refrigerant, *RATED_AT_F[freezer])
    return 100.0 * (IDLE_SHARE + (1.0 - IDLE_SHARE) * power)


# A locked rotor draws about so many times the rated amps; from this share of them on it is no running compressor.
LOCKED_TIMES: Final = 5.0
LOCKED_FROM: Final = 2.5


def expected_a(rated_a: float, refrigerant: Refrigerant, sst_f: float, sct_f: float, freezer: bool) -> float:
    """Return the amps expected at saturated suction and discharge, °F, of a compressor of so many rated amps."""
    return rated_a * expected_share_pct(refrigerant, sst_f, sct_f, freezer) / 100.0


def locked_a(rated_a: float) -> float:
    """Return about the amps of a locked rotor, and of the moment of starting."""
    return rated_a * LOCKED_TIMES


def amps_say(amps: float, rated_a: float) -> str:
    """Return what a compressor's amps say against its rating: running, starting or locked, or nothing drawn."""
    if amps > LOCKED_FROM * rated_a:
        return "A locked rotor, or the moment of starting: where it stays longer than a second, switch off and find why it does not start"
    return "Nothing is drawn: no volts, or the way through is open" if amps < 0.05 * rated_a else ""
