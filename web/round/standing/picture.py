"""The picture of a unit as it stands: what was said of each part, as its shape and its flag show it."""

from dataclasses import dataclass

from kettle.judging.facts import Facts
from kettle.knowledge import observations
from kettle.knowledge.causes.usual import USUAL
from kettle.knowledge.measures import TRADE
from web.logbook.calls.courses import acts_of
from web.logbook.calls.judging import facts_by_stage
from web.round.icemaps import IceMaps
from web.round.picture import FLAG_HEIGHT, HEIGHT, LEAST, WIDTH, picture_for, spots_of
from web.round.standing.fans import fans_of

# What stands beside a figure on its flag, where the figure alone would not say which it is.
BEFORE = {
    "display_temp_f": "shows", "product_temp_f": "product", "suction_psig": "low", "discharge_psig": "high", "liquid_psig": "liquid",
    "resting_psig": "rest", "lp_cut_in_psig": "in", "lp_cut_out_psig": "out", "stat_cut_in_f": "in", "stat_cut_out_f": "out",
    "door_open_h": "open", "sensor_error_f": "off", "return_air_f": "back", "supply_air_f": "out", "ambient_f": "air",
    "door_traffic": "traffic", "suction_line_evap_f": "line", "suction_line_comp_f": "line", "discharge_line_f": "disch.",
    "strip_curtain": "curtain", "winding_ground_ohm": "ground", "drain_pan": "pan",
    "low_pressure_switch": "low", "high_pressure_switch": "high", "compressor_shell": "shell", "control_call": "",
}  # fmt: skip
# Shorter than the word of the table, where a flag has no room or no label.
SHORT = {
    ("power_locked_out", "yes"): "locked out", ("power_locked_out", "no"): "power on", ("bulb", "tight_insulated"): "tight",
    ("latch_blocked", "no"): "latch not blocked", ("latch_blocked", "yes"): "latch blocked", ("inside_release", "fails"): "release fails",
    ("circuit_extra", "nothing"): "as drawn", ("charge_weighed", "yes"): "weighed in", ("charge_weighed", "no"): "not weighed",
}  # fmt: skip
# What a flag says before all else.
FIRST = ("ice_form", "box_temp_f", "evap_fans", "door", "compressor", "suction_psig", "discharge_psig")
# What says that nothing is the matter where no table tells what is usual.
QUIET = ("none", "nothing", "nowhere", "good", "no", "works", "shut", "whole_box", "off", "closed", "not_done", "not_applicable")
# Facts that stand on another part, and those whose words the drawing of the ice carries.
UNSPOKEN = ("parts_protected", "ice_places", "bulb_clock", "adjusted_min")
LETTER_PX, PADDING = 9.0, 10
STILL = ("stopped",)
SOME_STILL = ("some_stopped",)
CELL_ROWS, CELL_COLUMNS = 4, 12
# What makes a kind known at a glance.
OUTLINE = ("stock", "door", "coil", "evap_fan", "drain")
PANES = ("The box", "The unit, cover off")


@dataclass
class FlagLine:
    """One line of a flag: its words, and the frame they stand in."""

    text: str
    x: float
    y: float
    width: float
    height: int = FLAG_HEIGHT

    @property
    def text_x(self):
        return self.x + PADDING / 2

    @property
    def text_width(self):
        return self.width - PADDING

    @property
    def text_y(self):
        return self.y + 17.5


@dataclass
class Shown:
    """A spot as it stands: whether it was looked at, its words in full, its flag, and where a tap is taken for it."""

    spot: object
    label: str
    looked: bool
    unusual: bool
    words: str
    flags: list
    open: bool = False
    leads_to: str = ""

    @property
    def name_y(self):
        """Where the foot of its name stands, while nothing was said of it."""
        return self.spot.flag.y + 17

    @property
    def target(self):
        """The frame of the tap: what is drawn, but never less than a glove hits."""
        spot = self.spot
        width, height = max(spot.width, LEAST), max(spot.height, LEAST)
        return {"x": spot.x - (width - spot.width) / 2, "y": spot.y - (height - spot.height) / 2, "width": width, "height": height}


@dataclass
class Pane:
    """One of the two panes: what it is called, what everything stands in, its spots in the order of a walk."""

    label: str
    shell: str
    shown: list
    code: str


class Picture:
    """A unit drawn as it stood by what was seen (key -> value), with the ice map of its coil where there is one.

    `silent` draws it without a word, everything looked at: what such a unit looks like.
    """

    def __init__(self, unit, build, seen, shown=TRADE, ice=None, done=(), opened="", silent=False):
        self.silent = silent
        self.unit, self.seen, self.shown_in, self.ice, self.opened = unit, dict(seen), shown, ice, opened
        self.drawn = picture_for(unit.kind.code, build)
        self.done = {}
        for step in done:
            self.done.setdefault(step.part, []).append(step.did.replace("_", " "))
        self.by_pane = spots_of(self.drawn, unit)
        self.spots = {spot.code: spot for pane in self.by_pane for spot, _ in pane}

    @property
    def panes(self):
        """Both panes."""
        shells = (self.drawn.shell, "shell_unit")
        if self.silent:
            bare = [Shown(spot, "", True, False, "", []) for code, spot in self.spots.items() if code in OUTLINE]
            return [Pane(PANES[0], f"round/picture/{self.drawn.shell}.svg", bare, "box")]
        return [
            Pane(label, f"round/picture/{shell}.svg", [self._shown(spot, parts) for spot, parts in spots], code)
            for label, shell, spots, code in zip(PANES, shells, self.by_pane, ("box", "unit"), strict=True)
        ]

    def _shown(self, spot, parts):
        keys = [key for part in parts for key in part.keys if key in self.seen and observations.get(key).exists_on(self.unit)]
        told = [key for key in keys if key not in UNSPOKEN]
        unusual = [key for key in told if self._is_unusual(key)]
        figures = [key for key in told if observations.get(key).is_number]
        rest = [key for key in told if key not in unusual and key not in figures]
        done = [words for part in parts for words in self.done.get(part.code, ())]
        order = [f"✓ {words}" for words in reversed(done)] + [
            self._short(key) for key in sorted((*unusual, *figures, *rest), key=lambda key: key not in FIRST)
        ]
        words = [f"{observations.get(key).on(self.unit).label} {self._full(key)}" for key in keys] + [f"done: {one}" for one in done]
        label = parts[0].label
        said = "; ".join(words) or "not looked at"
        return Shown(spot, label, bool(keys or done), bool(unusual), said, self._flags(spot.flag, order), spot.code == self.opened)

    def _is_unusual(self, key):
        entry, value = observations.get(key), self.seen[key]
        if entry.is_number:
            return False
        words = set(value) if isinstance(value, tuple) else {value}
        if key in USUAL:
            states = USUAL[key]
            return not any(states.get(word, 0.0) >= max(states.values()) / 2 for word in words)
        return not words & set(QUIET)

    def _full(self, key):
        return observations.get(key).show(self.seen[key], shown=self.shown_in)

    def _short(self, key):
        value = self.seen[key]
        if not isinstance(value, tuple) and (key, value) in SHORT:
            return SHORT[key, value]
        text = f"{BEFORE.get(key, '')} {self._full(key)}".strip()
        return text.replace(".0 ", " ").replace(" °F", "°").replace(" °C", "°").replace(" psig", "")

    @staticmethod
    def _flags(flag, order):
        """The lines of a flag: the first facts, cut to the room there is, and how many more there are."""
        lines, letters = [], int((flag.room - PADDING) / LETTER_PX)
        for place, text in enumerate(order[: flag.lines]):
            more = len(order) - flag.lines if place == flag.lines - 1 else 0
            tail = f" +{more}" if more > 0 else ""
            room = letters - len(tail)
            cut = text if len(text) <= room else f"{text[: max(1, room - 1)].rstrip()}…"
            width = min(flag.room, len(cut + tail) * LETTER_PX + PADDING)
            lines.append(FlagLine(cut + tail, flag.x - width if flag.ends else flag.x, flag.y + place * (FLAG_HEIGHT + 1), width))
        return lines

    @property
    def view(self):
        """What of a pane is in sight: all of it; of a kind's outline the unit alone."""
        if not self.silent:
            return f"0 0 {WIDTH} {HEIGHT}"
        return "0 60 420 460" if self.drawn.room else "136 60 284 460"

    # What the symbols ask.

    @property
    def stands_open(self):
        """Whether the door is drawn open."""
        return self.seen.get("door") == "left_open" or self.seen.get("door_habits") == "propped_open"

    @property
    def warm(self):
        """Whether the box stands over its set by more than its differential."""
        return (Facts(self.unit, self.seen, {}).box_over_set_f or 0.0) > self.unit.differential_f

    @property
    def leaks(self):
        """Whether oil or a find shows where gas gets out."""
        return self.seen.get("leak_test") == "found" or self.seen.get("oil_trace", "none") != "none"

    @property
    def drop(self):
        """Whether the drier is colder after than before."""
        return isinstance(self.seen.get("drier_drop_f"), float) and self.seen["drier_drop_f"] > 1.0

    @property
    def display(self):
        """What the display of the control shows, else nothing."""
        key = "display_temp_f"
        return observations.get(key).show(self.seen[key], with_unit=False, shown=self.shown_in) if key in self.seen else ""

    @property
    def level_y(self):
        """Height of the liquid in the receiver as drawn."""
        level = self.seen.get("receiver_level_pct")
        return round(38 - 22 * min(max(level, 0.0), 100.0) / 100.0) if isinstance(level, float) else 38

    @property
    def ice_cells(self):
        """The ice on the coil as it was painted; where nobody painted, its form all over."""
        coil = self.spots.get("coil")
        form = self.seen.get("ice_form")
        letter = {"light_frost": "l", "heavy_frost": "h", "hard_ice": "i", "snow": "s"}.get(form)
        rows = self.ice.rows if self.ice else [letter * CELL_COLUMNS] * CELL_ROWS if letter else []
        if coil is None or not rows or (form == "none" and not self.ice):
            return []
        width, height = (coil.width - 8) / len(rows[0]), (coil.height - 8) / len(rows)
        return [
            {"x": f"{4 + c * width:.1f}", "y": f"{4 + r * height:.1f}", "width": f"{width:.1f}", "height": f"{height:.1f}", "letter": cell}
            for r, row in enumerate(rows) for c, cell in enumerate(row) if cell != "."
        ]  # fmt: skip

    @property
    def fans(self):
        """The coil's fans, each with its place and whether it turns."""
        still = [int(word[4:]) for word in self.seen.get("fans_still", ()) if word.startswith("fan_")]
        count = max([fans_of(self.unit), *still])
        state = self.seen.get("evap_fans")
        known = {"running": "running", "reversed": "reversed", "held_by_ice": "ice", "stopped": "still"}.get(state, "")
        states = [known] * count
        if still:
            states = ["still" if n in still else "running" for n in range(1, count + 1)]
        elif state in SOME_STILL:
            states = ["running"] * (count - 1) + ["still"]
        return _in_a_row(self.spots.get("evap_fan"), states)

    @property
    def condenser_fans(self):
        """The condenser's fan."""
        words = {"running": "running", "slow": "running", "cycling": "running", "stopped": "still", "reversed": "reversed"}
        return _in_a_row(self.spots.get("condenser_fan"), [words.get(self.seen.get("condenser_fans"), "")])


def _in_a_row(spot, states):
    if spot is None:
        return []
    pitch = spot.width / len(states)
    radius = min(spot.height / 2 - 5, pitch / 2 - 3)
    return [
        {"x": round(pitch * (n + 0.5)), "y": spot.height / 2, "r": round(radius), "scale": round(radius / 22, 2), "state": state}
        for n, state in enumerate(states)
    ]


def picture_of(standing, opened=""):
    """The unit as it stands now."""
    maps, steps = standing.ice, [step for step, _ in standing.steps]
    ice = maps.latest("after", standing.coil) or (None if _melted(steps) else maps.latest("before", standing.coil))
    call, facts = standing.call, standing.judgement.facts
    return Picture(standing.unit, call.unit.build, facts.seen, standing.shown, ice, steps, opened)


def _melted(steps):
    return any((step.part, step.did) == ("coil", "melted") for step in steps)


def found_and_left(call, told):
    """The unit as it was found and, where anything was done, as it stands since: title and picture, without judging it."""
    shown = told.record.shown
    unit, build, maps = told.record.unit, call.unit.build, IceMaps(call, told.record.unit)
    stages, steps = facts_by_stage(told), acts_of(call, told)
    before, after, now = maps.latest("before"), maps.latest("after"), told.call.facts_now(1).seen
    if not stages:
        return {"found": ("As found", Picture(unit, build, now, shown, before))}
    left = Picture(unit, build, now, shown, after or (None if _melted(steps) else before), steps)
    return {"found": ("As found", Picture(unit, build, stages[0][1].seen, shown, before)),
            "left": ("As left" if call.closed_at else "As it stands", left)}  # fmt: skip
