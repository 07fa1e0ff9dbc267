"""What a part can look like or do, seen with the eyes: each word, what it is as an observation, and what it speaks for by itself."""

import difflib
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Final

from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import REGISTRY


@dataclass(frozen=True)
class Look:
    """A part seen in a state: its words, the observation it is (key, value) where it is one, the causes it shows beyond doubt, and the
    units it can be seen on (`only`: field of the unit -> values that have it)."""

    part: str
    state: str
    label: str
    says: tuple[str, str] | None = None
    causes: tuple[str, ...] = ()
    only: Mapping[str, tuple[Any, ...]] = field(default_factory=dict)

    def exists_on(self, unit: Any) -> bool:
        """Whether a unit built like this can look so: what it is as an observation must exist on it."""
        built = all(getattr(unit, name) in having for name, having in self.only.items())
        return built and (self.says is None or REGISTRY[self.says[0]].exists_on(unit))

    @property
    def says_more(self) -> bool:
        """Whether it says more than the observation it is."""
        return self.says is None or bool(self.causes) or (self.part, self.state) in _MORE


# Told apart from the observation's own word by whoever looked closer.
_MORE: Final = (("compressor", "seized"), ("compressor", "shell_hot"), ("door", "hinge_worn"), ("bulb", "half_outside"),
                ("drain", "float_stuck"), ("drain", "condensate_heater_dead"))  # fmt: skip
# fmt: off
_ALL: Final = (
    Look("compressor", "hums", "Compressor hums and does not start", ("compressor", "humming")),
    Look("compressor", "seized", "Compressor seized", ("compressor", "humming")),
    Look("compressor", "shell_hot", "Compressor too hot to touch", ("compressor_shell", "hot")),
    Look("compressor", "shell_frosted", "Compressor frosted", ("compressor_shell", "frosted")),
    Look("compressor", "terminal_scorched", "A terminal of the compressor scorched"),
    Look("compressor", "knocks", "Compressor knocks"),
    Look("compressor", "oil_low", "Oil low in the compressor's glass"),
    Look("contactor", "pitted", "Contact faces pitted", ("contactor_face", "pitted")),
    Look("contactor", "burnt", "Contact faces burnt", ("contactor_face", "burnt")),
    Look("contactor", "chatters", "Contactor chatters", ("contactor", "chattering")),
    Look("contactor", "terminal_scorched", "A terminal of the contactor scorched"),
    Look("start_parts", "capacitor_swollen", "Capacitor swollen or leaking", ("start_parts", "capacitor_failed")),
    Look("start_parts", "relay_burnt", "Start relay burnt", ("start_parts", "relay_failed")),
    Look("evap_fan", "spins_free", "Coil fan turns freely by hand"),
    Look("evap_fan", "tight", "Coil fan turns stiffly by hand"),
    Look("evap_fan", "blade_broken", "Blade of a coil fan broken or loose"),
    Look("evap_fan", "seized", "Coil fan seized", ("evap_fans", "some_stopped"), ("evap_fan_failed",)),
    Look("evap_fan", "hums", "Coil fan hums and stands", ("evap_fans", "some_stopped"), ("evap_fan_failed",)),
    Look("evap_fan", "held_by_ice", "Coil fan held by ice", ("evap_fans", "held_by_ice")),
    Look("condenser_fan", "spins_free", "Condenser fan turns freely by hand"),
    Look("condenser_fan", "tight", "Condenser fan turns stiffly by hand"),
    Look("condenser_fan", "blade_broken", "Blade of the condenser fan broken or loose"),
    Look("condenser_fan", "seized", "Condenser fan seized", ("condenser_fans", "stopped"), ("condenser_fan_failed",)),
    Look("condenser", "blocked", "No light through the condenser", ("condenser_coil", "blocked")),
    Look("condenser", "scaled", "Scale in the condenser's tubes", None, ("condenser_dirty",), {"condensing": ("water",)}),
    Look("water_valve", "strainer_plugged", "Water strainer plugged", None, ("water_flow_low",)),
    Look("water_valve", "drips", "Water valve drips"),
    Look("water_valve", "runs_on", "Water runs while the compressor rests", ("water_valve", "stays_open")),
    Look("hot_gas_valve", "no_pull", "Hot-gas valve without pull in a defrost", ("hot_gas_valve", "stays_shut")),
    Look("hot_gas_valve", "warm_cooling", "Line behind the hot-gas valve warm while it cools", ("hot_gas_valve", "lets_by")),
    Look("frame_heater", "burnt", "Door frame heater burnt through", ("frame_heater", "cold"), ("frame_heater_dead",)),
    Look("condenser", "dusty", "Condenser dusty", ("condenser_coil", "dusty")),
    Look("drain", "plugged", "Drain plugged", ("drain", "blocked")),
    Look("drain", "frozen", "Drain frozen", ("drain", "frozen")),
    Look("drain", "trap_wrong", "Drain trap missing or wrong", ("drain_fault", "trap_wrong")),
    Look("drain", "pan_leaking", "Drain pan or its seal leaks", ("drain_fault", "pan_leaking")),
    Look("drain", "line_heater_dead", "Heater of the drain line dead", ("drain_fault", "line_heater_dead")),
    Look("drain", "float_stuck", "Float of the condensate pan stuck", ("drain_fault", "condensate_pan")),
    Look("drain", "condensate_heater_dead", "Heater of the condensate pan dead", ("drain_fault", "condensate_pan")),
    Look("drain_heater", "burnt", "Drain heater burnt", ("drain_heater", "cold")),
    Look("door", "gasket_gap", "Light at the gasket", ("door", "gasket_gap")),
    Look("door", "hinge_worn", "Door hinge worn or broken", ("door", "misaligned")),
    Look("door", "switch_not_made", "Door switch not made with the door shut", ("door_switch", "open")),
    Look("valve", "strainer_plugged", "Valve's strainer plugged", None, ("liquid_restriction",)),
    Look("valve", "at_end_in", "Stem at its inner stop"),
    Look("valve", "at_end_out", "Stem at its outer stop"),
    Look("valve", "tubes_unequal", "Distributor tubes frosted unequally"),
    Look("valve", "tubes_equal", "Distributor tubes frosted alike"),
    Look("bulb", "tail_broken", "Tail of the bulb broken", None, ("txv_underfeeding",)),
    Look("bulb", "tail_kinked", "Tail of the bulb kinked or rubbed"),
    Look("bulb", "half_outside", "Bulb half outside the box", ("bulb", "wrong_place")),
    Look("cap_tube", "plugged", "Capillary tube plugged", None, ("cap_tube_restricted",)),
    Look("drier", "plugged", "Drier plugged", None, ("liquid_restriction",)),
    Look("drier", "frosted", "Drier frosted on its way out", None, ("liquid_restriction",)),
    Look("heater", "burnt", "Heater element burnt through", None, ("defrost_heater_open",)),
    Look("heater", "felt_hot", "Defrost heater felt hot in a defrost"),
    Look("heater", "felt_cold", "Defrost heater felt cold in a defrost"),
    Look("termination", "loose", "Termination or limit switch loose on the coil"),
    Look("termination", "closed_cold", "Termination closed on a cold coil", None, ("defrost_never_starts",)),
    Look("termination", "open_warm", "Termination open on a warm coil", None, ("defrost_not_terminating",)),
    Look("thermostat", "clicks", "Thermostat clicks"),
    Look("thermostat", "does_not_click", "Thermostat turned through without a click"),
    Look("timer", "stands", "Clock of the timer stands", ("defrost_starts", "never")),
    Look("timer", "scorched", "Timer scorched"),
    Look("relay", "stuck", "Relay stuck"),
    Look("relay", "welded", "Relay contact welded", ("compressor_in_defrost", "running")),
    Look("wiring", "scorched", "A lead scorched"),
    Look("wiring", "loose", "A lead loose"),
    Look("supply", "terminal_block_scorched", "Terminal block scorched"),
    Look("supply", "terminal_loose", "Terminal of the supply loose"),
    Look("wiring", "delay_timer", "A delay timer left in the circuit", ("circuit_extra", "delay_timer")),
    Look("wiring", "jumper", "A jumper left in the circuit", ("circuit_extra", "jumper")),
    Look("sensor", "wrong_place", "Sensor in the wrong place", ("circuit_extra", "probe_wrong_role")),
)
# fmt: on
LOOKS: Final[dict[tuple[str, str], Look]] = {(one.part, one.state): one for one in _ALL}
PARTS: Final[dict[str, tuple[str, ...]]] = {
    part: tuple(one.state for one in _ALL if one.part == part) for part in dict.fromkeys(one.part for one in _ALL)
}


def get(part: str, state: str) -> Look:
    """Return how a part was seen; InputError names the nearest known part or state."""
    if part not in PARTS:
        near = difflib.get_close_matches(part, PARTS, n=1, cutoff=0.0)[0]
        raise InputError(f"part “{part[:40]}” is not known; the nearest known is “{near}”")
    if state not in PARTS[part]:
        near = difflib.get_close_matches(state, PARTS[part], n=1, cutoff=0.0)[0]
        raise InputError(f"state “{state[:40]}” of {part} is not known; the nearest known is “{near}”")
    return LOOKS[part, state]
