"""How many examples a property is tried on: fewer in the usual run, which draws others each time; all of them with KETTLE_THOROUGH=1."""

import os

from hypothesis import settings

THOROUGH = bool(os.environ.get("KETTLE_THOROUGH"))
# Without a number of its own a property is tried on so many.
USUALLY, THOROUGHLY = 25, 200
SHARE, LEAST = 4, 6


def at_most(examples):
    """Settings for a property that is dear: so many examples in a thorough run, a quarter of them in the usual one."""
    return settings(max_examples=examples if THOROUGH else max(LEAST, examples // SHARE), deadline=None)


settings.register_profile("calm", deadline=None, max_examples=THOROUGHLY if THOROUGH else USUALLY)
settings.load_profile("calm")


def some_of(many, few, place=0):
    """All of `many` in a thorough run, else `few` of them, spread evenly from the first on."""
    many = list(many)
    return many if THOROUGH or few >= len(many) else [many[(place + nth * len(many) // few) % len(many)] for nth in range(few)]
