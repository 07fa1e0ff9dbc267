"""A reason: what is done against advice says why, and it goes into the report."""

SHORTEST, LONGEST = 3, 300
LETTERS = f"{SHORTEST} to {LONGEST} letters"


def is_said(reason):
    """Whether a reason says something, and no more than is kept of it."""
    return SHORTEST <= len(reason.strip()) <= LONGEST
