"""How figures, lists and days stand inside a sentence."""

from collections.abc import Sequence
from datetime import datetime

from kettle.knowledge.measures import format_number


def lower(text: str) -> str:
    """Return a text as it stands inside a sentence; what is an abbreviation stays one."""
    return text if text[:2].isupper() else text[:1].lower() + text[1:]


def listed(words: Sequence[str]) -> str:
    """Return words as a list in a sentence."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def plain(value: float) -> str:
    """Return a figure without decimals it does not need."""
    return format_number(value, 0 if value == int(value) else 1)


def day(at: datetime | str) -> str:
    """Return a day as it is said."""
    return f"{datetime.fromisoformat(at) if isinstance(at, str) else at:%-d %B}"
