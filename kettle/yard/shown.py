"""What a practice unit shows to the eye beyond its observations: the face of its coil, and its defrost program."""

from collections.abc import Callable
from typing import Final

from kettle.benches.ice.map import COLUMNS, LETTERS, ROWS, IceMap
from kettle.plant.observer import Rig
from kettle.plant.observer.seen import HEAVY, LIGHT, blocked
from kettle.plant.observer.settings import setting

# How unevenly frost lies: a cell carries this share more or less than its section, and so much more towards the bottom.
UNEVEN: Final = 0.25
LOWER: Final = 0.1
MINUTES_A_DAY: Final = 24 * 60
# A role of a program -> the setting it is.
ROLES: Final = {
    "fail_safe_min": "fail_safe", "termination_f": "termination", "drip_min": "drip", "fan_delay_f": "fan_delay",
    "pump_down_min": "pump_down", "demand_pct": "demand",
}  # fmt: skip
# What termination a scale has at the most, °F: above it nothing ends a defrost by temperature.
SCALE_ENDS_F: Final = 120.0


def face(rig: Rig) -> IceMap:
    """Return the ice on a unit's coil as an ice map: the valve end at the left, by what lies in each section of the coil.

    Back and inside corners are seen too, and the places beyond the face that its ice shows.
    """
    shares, chance = blocked(rig), rig.chance("face")
    hard = [float(rig.state.ice_lb[k]) > float(rig.state.frost_lb[k]) for k in range(len(shares))]
    uneven = [[1.0 + chance.uniform(-UNEVEN, UNEVEN) + LOWER * (row - (ROWS - 1) / 2.0) for _ in range(COLUMNS)] for row in range(ROWS)]
    section = [column * len(shares) // COLUMNS for column in range(COLUMNS)]
    rows = tuple(
        "".join(_letter(shares[section[column]] * uneven[row][column], hard[section[column]]) for column in range(COLUMNS))
        for row in range(ROWS)
    )
    worst = max(range(len(shares)), key=lambda k: shares[k])
    form = _form(shares[worst], hard[worst])
    seen = rig.look("ice_places") or ()
    words = (seen,) if isinstance(seen, str) else seen if isinstance(seen, tuple) else ()
    places = {code: "hard_ice" if code in words else "none" for code in ("ceiling", "drain_pan", "door_frame")}
    places |= {"valve_outlet": _form(shares[0], hard[0]), "suction_line": _form(shares[-1], False) if rig.running else "none"}
    return IceMap(rows, places | {"coil_back": form, "inside_corners": form})


def _form(share: float, hard: bool) -> str:
    return "none" if share < LIGHT else "light_frost" if share < HEAVY else "hard_ice" if hard else "heavy_frost"


def _letter(share: float, hard: bool) -> str:
    return LETTERS[_form(share, hard)]


def program(rig: Rig) -> tuple[tuple[int, ...], dict[str, float]]:
    """Return the defrost program a unit works by: its starts in minutes after midnight, and what it is set to by role.

    By a clock its starts are spread over the day; one on demand has none.
    """
    day = setting(rig, "defrosts_per_day") or 0.0
    count = round(day)
    starts = tuple(round((place + 0.5) * MINUTES_A_DAY / count) for place in range(count)) if count else ()
    figures = {role: value for role, code in ROLES.items() if (value := setting(rig, code)) is not None}
    if figures.get("demand_pct", 0.0) <= 0.0:
        figures.pop("demand_pct", None)
    if figures.get("termination_f", 0.0) > SCALE_ENDS_F:
        figures["termination_f"] = SCALE_ENDS_F
    return starts, figures


def alike(painted: IceMap, there: IceMap) -> float:
    """Return the share of cells of a painted face that say what is there, 0 to 1."""
    pairs = [(one, other) for mine, its in zip(painted.rows, there.rows, strict=True) for one, other in zip(mine, its, strict=True)]
    return sum(one == other for one, other in pairs) / len(pairs)


# What probes follow: key -> the recorded figure, and what makes its unit of it.
FOLLOWED: Final[dict[str, tuple[str, Callable[[Rig, float], float]]]] = {
    "box_temp_f": ("air_f", lambda rig, air_f: air_f),
    "suction_psig": ("sst_f", lambda rig, sst_f: rig.unit.refrigerant.dew_psig(sst_f, rig.unit.altitude_ft)),
    "discharge_psig": ("sct_f", lambda rig, sct_f: rig.unit.refrigerant.dew_psig(sct_f, rig.unit.altitude_ft)),
    "compressor_amps": ("amps", lambda rig, amps: amps),
}


def trace(rig: Rig, key: str, span_min: float) -> list[tuple[float, float]]:
    """Return what a probe at `key` read over the last span: minutes ago (negative), figure; oldest first, empty where none is followed."""
    if key not in FOLLOWED:
        return []
    name, read = FOLLOWED[key]
    ends = float(rig.state.hours)
    kept = [(60.0 * (float(at) - ends), float(value)) for at, value in zip(rig.course.hours, rig.course.series[name][:, 0], strict=True)]
    return [(ago, read(rig, value)) for ago, value in kept if ago >= -span_min]


def line(points: list[tuple[float, float]], span_min: float, wide: float, high: float, least: float) -> str:
    """Return a trace as points of a line in a frame: now at its right, its middle half way up; foot to top is at least `least`."""
    if len(points) < 2:
        return ""
    values = [value for _, value in points]
    spread = max(max(values) - min(values), least)
    low = (min(values) + max(values) - spread) / 2.0
    return " ".join(f"{wide * (1.0 + ago / span_min):.1f},{high * (1.0 - (value - low) / spread):.1f}" for ago, value in points)
