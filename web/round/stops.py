"""The round: the stops of a call in the order good technicians work, and what belongs to each."""

from dataclasses import dataclass

from web.round.drawing import BY_STOP, FELT


@dataclass(frozen=True)
class Stop:
    """One stop. `keys` are the observations on its drawing or map, `looks` those with ticks or chips of their own."""

    slug: str
    label: str
    number: int
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
    Stop("arrive", "Arrive", 1),
    Stop("melt", "Melt", 2, (), (*SAFETY, "drain", "melt_water")),
    Stop("read", "Read", 3, (*_drawn("read"), *FELT.values())),
    Stop("programs", "Programs", 4),
    Stop("power", "Power", 5),
    Stop("judge", "Judge", 6),
    Stop("correct", "Correct", 7),
    Stop("prove", "Prove", 8),
    Stop("hand-over", "Hand over", 9),
)
BY_SLUG = {stop.slug: stop for stop in STOPS}
