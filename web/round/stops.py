"""The round: the stops of a call in the order good technicians work, and what belongs to each."""

from dataclasses import dataclass

from web.round.drawing import BY_STOP, FELT


@dataclass(frozen=True)
class Stop:
    """One stop; `ready` is false for one that is still to come. `keys` are the observations on its drawing or map,
    `looks` those with ticks or chips of their own."""

    slug: str
    label: str
    number: int
    ready: bool = False
    keys: tuple[str, ...] = ()
    looks: tuple[str, ...] = ()

    @property
    def fields(self):
        """Every observation with an entry field on the screen: drawn tags, ticks and chips, and what a map stands for."""
        return (*self.keys, *self.looks)


def _drawn(stop):
    return tuple(place.key for place in BY_STOP[stop].places)


SAFETY = ("power_locked_out", "parts_protected", "inside_release", "latch_blocked", "someone_outside")

STOPS = (
    Stop("arrive", "Arrive", 1, True),
    Stop("melt", "Melt", 2, True, (), (*SAFETY, "drain", "melt_water")),
    Stop("read", "Read", 3, True, (*_drawn("read"), *FELT.values())),
    Stop("programs", "Programs", 4, True),
    Stop("power", "Power", 5, True),
    Stop("judge", "Judge", 6, True),
    Stop("correct", "Correct", 7, True),
    Stop("prove", "Prove", 8),
    Stop("hand-over", "Hand over", 9, True),
)
BY_SLUG = {stop.slug: stop for stop in STOPS}
