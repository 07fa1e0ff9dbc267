"""Lines of a quote priced: parts with markup, hours at the shop's rate, travel, tax; in whole cents."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from typing import Final

from kettle.knowledge.errors import InputError

KINDS: Final = {"part": "part", "labour": "hours", "travel": "travel", "whole": "as a whole"}
MOST_CENTS: Final = 100_000_000
MOST_QUANTITY: Final = Decimal(1000)
CENT: Final = Decimal(1)
# No price and no quantity is typed in more letters.
LONGEST: Final = 24


@dataclass(frozen=True)
class Terms:
    """How a shop reckons: cents an hour, cents for the way there, markup on parts %, tax %, and whether labour is taxed too."""

    rate_cents: int = 0
    travel_cents: int = 0
    markup_pct: float = 0.0
    tax_pct: float = 0.0
    tax_labour: bool = True


@dataclass(frozen=True)
class Line:
    """A line: what, its kind (a word of `KINDS`), how much of it (pieces or hours), and what one costs in cents (parts before markup).

    A price of None is not known yet; hours and travel cost what the terms say where nothing else was said.
    """

    what: str
    kind: str
    quantity: Decimal
    cents: int | None = None


@dataclass(frozen=True)
class Sum:
    """What lines come to: net, tax and total in cents; how many lines have no price yet."""

    net: int
    tax: int
    total: int
    unpriced: int


def line_cents(line: Line, terms: Terms) -> int | None:
    """Return what a line comes to before tax, cents; None where its price is not known."""
    each = line.cents
    if each is None:
        each = {"labour": terms.rate_cents, "travel": terms.travel_cents}.get(line.kind)
        if each is None or (each == 0 and line.kind == "labour"):
            return None
    elif line.kind == "part":
        each_marked = Decimal(each) * (1 + Decimal(str(terms.markup_pct)) / 100)
        return _cents(each_marked * line.quantity)
    return _cents(Decimal(each) * line.quantity)


def total(lines: Sequence[Line], terms: Terms) -> Sum:
    """Return what lines come to with tax, each line rounded to the cent before it is added."""
    priced = [(line, line_cents(line, terms)) for line in lines]
    known = [(line, cents) for line, cents in priced if cents is not None]
    net = sum(cents for _, cents in known)
    taxed = sum(cents for line, cents in known if terms.tax_labour or line.kind in ("part", "whole"))
    tax = _cents(Decimal(taxed) * Decimal(str(terms.tax_pct)) / 100)
    return Sum(net, tax, net + tax, len(priced) - len(known))


def _cents(value: Decimal) -> int:
    return int(value.quantize(CENT, ROUND_HALF_UP))


def money(cents: int) -> str:
    """Return cents as they are written: 1,234.50."""
    return f"{'−' if cents < 0 else ''}{abs(cents) // 100:,}.{abs(cents) % 100:02d}"


def parse_money(text: str) -> int | None:
    """Return typed money in cents ("1,234.50", "12,5", "$40"); None for nothing typed. InputError names what is wrong."""
    bare = text.strip().lstrip("$€£").replace(" ", "").replace("\N{NO-BREAK SPACE}", "")
    if not bare:
        return None
    # A comma before exactly one or two last figures is a decimal one.
    if "," in bare and "." not in bare and len(bare.rpartition(",")[2]) in (1, 2):
        bare = bare.replace(",", ".")
    bare = bare.replace(",", "")
    if not _is_figure(bare):
        raise InputError(f"“{text.strip()[:20]}” is no price, as in 45 or 45.50")
    cents = _cents(Decimal(bare) * 100)
    if cents > MOST_CENTS:
        raise InputError(f"{money(cents)} is outside 0 to {money(MOST_CENTS)}")
    return cents


def _is_figure(bare: str) -> bool:
    digits = bare.replace(".", "", 1)
    return len(bare) <= LONGEST and digits.isascii() and digits.isdigit()


def parse_quantity(text: str) -> Decimal:
    """Return a typed quantity of pieces or hours; InputError names what is wrong."""
    bare = text.strip().replace(",", ".")
    if not _is_figure(bare):
        raise InputError(f"“{text.strip()[:20]}” is no quantity, as in 1 or 2.5")
    value = Decimal(bare)
    if not 0 < value <= MOST_QUANTITY:
        raise InputError(f"{value} is outside 0 to {MOST_QUANTITY}")
    return value


def quantity_words(quantity: Decimal) -> str:
    """Return a quantity as it is written: 1, 2.5, 10."""
    return f"{quantity.normalize():f}"
