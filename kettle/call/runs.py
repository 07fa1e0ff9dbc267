"""What runs, and why it should or should not."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from kettle.call.opened import Opened
from kettle.judging import stopped
from kettle.judging.facts import PULL_DOWN_F, Facts

# State of the format -> how it is said.
WORDS: Final[Mapping[str, str]] = {
    "running": "Running",
    "should_run": "Should run, and does not",
    "off_rightly": "Off, as it should be",
    "pumping_down": "Pumping down",
    "defrosting": "In a defrost",
    "dripping": "Dripping off",
    "resting": "Rests, with good reason",
    "locked_out": "Locked out",
    "unknown": "Nobody looked",
}


@dataclass(frozen=True)
class Runs:
    """What runs: a key of `WORDS`, and why in words."""

    state: str
    why: str

    @property
    def words(self) -> str:
        """What runs, as it is shown."""
        return WORDS[self.state]


def runs(f: Facts, opened: Opened) -> Runs:
    """Return what runs by what is known of a unit: a lock-out before all, then a defrost, then what was seen of the compressor."""
    if f.is_("power_locked_out", "yes"):
        return Runs("locked_out", "the power is locked out")
    if f.is_("control_call", "in_defrost"):
        return Runs("defrosting", "its control is in a defrost")
    if f.is_("compressor", "running", "short_cycling"):
        return Runs("running", "seen or clamped to run")
    if not f.is_("compressor", "off", "humming", "tripping"):
        return Runs("unknown", "nobody looked at the compressor")
    if opened.empty or opened.open:
        return Runs("resting", "its circuit is open")
    told = stopped.state(f)
    if f.is_("compressor", "humming", "tripping"):
        return Runs("should_run", "the compressor hums or trips")
    if f.is_("control_call", "calling"):
        return Runs("should_run", "it calls, and the compressor stands")
    over = f.box_over_set_f
    if told == "off":
        return Runs("off_rightly", "satisfied by its control")
    if told == "pumped_down" or (f.is_("low_pressure_switch", "open") and f.unit.receiver):
        return Runs("resting", "pumped down")
    if over is not None and over > max(PULL_DOWN_F, f.unit.differential_f):
        return Runs("should_run", "the box is well over set, and nothing says why it should stand")
    if over is not None and over <= f.unit.differential_f and not f.is_("control_call", "no_power"):
        return Runs("off_rightly", "the box is at set")
    display = f.number("display_temp_f")
    if over is None and display is not None and display - f.unit.set_f > max(PULL_DOWN_F, f.unit.differential_f):
        return Runs("should_run", "the display stands well over set, and nothing says why it should stand")
    return Runs("unknown", "it stands, and nobody looked whether it is called")
