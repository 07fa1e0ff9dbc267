"""The round: the stops of a call in the order good technicians work, and what belongs to each."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Stop:
    """One stop; `ready` is false for one that is still to come. `keys` are the observations taken there."""

    slug: str
    label: str
    number: int
    ready: bool = False
    keys: tuple[str, ...] = ()


# What eyes and hands find before any gauge, by place.
ARRIVE_GROUPS = (
    ("Box", ("box_temp_f", "display_temp_f", "siblings", "warm_extent", "door", "door_traffic")),
    ("Air and ice", ("evap_fans", "evap_coil", "ice_form", "ice_places", "drain")),
    ("Condensing unit", ("compressor", "condenser_fans", "condenser_coil", "sight_glass", "suction_line_feel",
                         "compressor_shell", "oil_trace")),
)  # fmt: skip

STOPS = (
    Stop("arrive", "Arrive", 1, True, tuple(key for _, keys in ARRIVE_GROUPS for key in keys)),
    Stop("melt", "Melt", 2),
    Stop("read", "Read", 3, True),
    Stop("programs", "Programs", 4),
    Stop("power", "Power", 5),
    Stop("judge", "Judge", 6, True),
    Stop("correct", "Correct", 7, True),
    Stop("prove", "Prove", 8),
    Stop("hand-over", "Hand over", 9, True),
)
BY_SLUG = {stop.slug: stop for stop in STOPS}
