"""What the unit of a practice call answers to what is sent: a figure stands in a form because it was taken, not because it was typed.

By the name of an address: what fills its form in. Each takes the work and what the address names, and changes what was sent.
"""

from kettle.benches.defrost.program import ROLES, clock
from kettle.benches.refrigerant.leaks import BACKGROUND
from kettle.electrical.measure import OPEN_SHOWN_OHM
from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.observer.settings import SETTINGS, setting
from kettle.yard import emptied
from kettle.yard.leaking import heard_at
from kettle.yard.shown import program

# From so many ohms on a meter shows that there is no way.
OPEN_OHM = OPEN_SHOWN_OHM / 10.0
# A pump has run so long before anybody reads its gauge.
FIRST_PULL_MIN = 12.0
FOUR_PLACES, SIX_PLACES = 1e4, 1e6
PIN_FIELDS = ("pins_12", "pins_23", "pins_31")


class CannotBeHad(InputError):
    """What was asked for cannot be had as the unit stands now; asking took its minutes all the same."""

    def __init__(self, key, words, minutes):
        super().__init__(words)
        self.key, self.minutes = key, minutes


def answer(work, key):
    """What the unit answers to an observation, as it would be typed; CannotBeHad where it cannot be had now."""
    entry = observations.get(key).on(work.rig.unit)
    if not entry.exists_on(work.rig.unit):
        raise InputError(f"{entry.label}: this unit has none")
    value, why = work.core.looked(key)
    if value is None:
        words = f"{entry.label}: {why[:1].lower()}{why[1:]}"
        stands = not work.rig.running and work.rig.parts.can_run > 0 and work.rig.own.get("power_locked_out") != "yes"
        raise CannotBeHad(key, f"{words}. Under Unit the thermostat lets it run" if stands else words, entry.minutes)
    if isinstance(value, float):
        return f"{_six_places(value)} {entry.unit}".strip()
    return value


def fill_reading(work, sent, key):
    """An observation tapped: what the unit answers; what one puts oneself stays as it was put."""
    if key in OWN_DOING or key not in observations.REGISTRY:
        return
    told = answer(work, key)
    if isinstance(told, tuple):
        sent.setlist(key, list(told))
    else:
        sent[key] = told


def fill_measurement(work, sent):
    """What the meter shows at the points its leads are on."""
    what, one, other = (sent.get(name, "") for name in ("what", "one", "other"))
    shows = work.core.metered(what, one, other, sent.get("lifted") == "yes")
    sent["value"] = "OL" if what == "ohms" and shows >= OPEN_OHM else _plain(shows)
    sent["state"] = work.rig.circuit_state


def fill_windings(work, sent):
    """Ohms between the pins, numbered as they stand: common, start, run."""
    wired = work.rig.wired
    for field, pins in zip(PIN_FIELDS, ("cs", "sr", "cr"), strict=True):
        ohms = wired.winding_ohm(pins)
        sent[field] = "open" if ohms >= OPEN_OHM else _plain(ohms)
    ground = wired.winding_ohm("g")
    sent["pins_shell"] = _plain(ground)


def _plain(figure):
    """A figure of a meter as it is typed: four places, and never a power of ten."""
    return f"{figure:.4g}" if figure < FOUR_PLACES else f"{figure:.0f}"


def _six_places(figure):
    """A reading as it is typed: six places, and never a power of ten (an open winding, a sound one to ground)."""
    return f"{figure:g}" if abs(figure) < SIX_PLACES else f"{figure:.0f}"


def fill_program(work, sent, side):
    """The program as the clock has it, where it is read as found."""
    if side != "found":
        return
    starts, figures = program(work.rig)
    sent["starts"] = " ".join(clock(minutes) for minutes in starts)
    for role, value in figures.items():
        sent[role] = work.shown.edit(value, ROLES[role].unit)


def fill_switch(work, sent):
    """Where the scale of the low-pressure switch stands as found."""
    for field, code in (("found_in", "lp_cut_in"), ("found_out", "lp_cut_out")):
        sent[field] = read_off(work, code)


def fill_box(work, sent):
    """The box as one's own thermometer has it now."""
    sent["box_now"], sent["box_at"] = answer(work, "box_temp_f"), ""


def fill_level(work, sent):
    """The receiver's level as it is felt."""
    sent["level_pct"] = answer(work, "receiver_level_pct")


def fill_after_gas(work, sent):
    """Glass and amps are looked at after the gas, by themselves."""
    for key in ("sight_glass", "compressor_amps"):
        sent[key] = ""


def fill_cycle(work, sent):
    """Box and suction of a start or a stop."""
    sent["box_f"] = answer(work, "box_temp_f")
    sent["psig"] = answer(work, "suction_psig")


def path_heard(work, number, place, heard):
    """The address of a place that was gone over, with what it gave in it."""
    gave = heard if place == BACKGROUND else heard_at(work.core.draw, work.rig, place, "bubbles" if heard == "bubbles" else "detector")
    return f"/calls/{number}/refrigerant/leak/{place}/{gave}/"


def fill_setting(work, sent):
    """Where a setting stands as found."""
    code = sent.get("parameter", "")
    if code in SETTINGS and code in PARAMETERS and (told := read_off(work, code)):
        sent["as_found"] = told


def read_off(work, code):
    """Where a setting stands on its scale, as it would be typed: no further than the scale goes; empty where there is none."""
    value, parameter = setting(work.rig, code), PARAMETERS[code]
    return "" if value is None else work.shown.edit(min(max(value, parameter.low), parameter.high), parameter.unit)


def fill_recovered(work, sent):
    """What the scale shows once what is in the circuit has come out."""
    inside = emptied.holds_oz(work.core)
    if not inside:
        raise InputError("Nothing comes out: it is empty already")
    try:
        before = work.shown.parse(sent.get("before", ""), "oz")
    except InputError:
        # The form says what is wrong with it.
        return
    sent["after"] = work.shown.edit(before + inside, "oz")


def fill_microns(work, sent):
    """What the vacuum gauge shows, by how long the pump ran and how long it has been shut off."""
    if emptied.holds_oz(work.core):
        raise InputError("Gas stands in it: it is recovered first, and the pump never pulls on gas")
    tight, at = not emptied.leaks(work.core), None
    shows, on = emptied.ATMOSPHERE_MICRONS, True
    for row in work.practice.steps.filter(what="vacuum", undone=False):
        shows, on, at = float(row.value), row.of != "shut off", row.at_min
    minutes = work.practice.minutes - at if at is not None else FIRST_PULL_MIN
    told = emptied.pumped_microns(minutes, shows, tight) if on else emptied.shut_off_microns(minutes, shows, tight)
    sent["microns"] = f"{told:.0f}"


def fill_nitrogen(work, sent):
    """What nitrogen stands at after the minutes it was left."""
    try:
        start, warm = work.shown.parse(sent.get("start_psig", ""), "psig"), work.shown.parse(sent.get("start_f", ""), "°F")
        minutes = float(sent.get("minutes", "").replace(",", "."))
    except (InputError, ValueError):
        return
    now_f = work.rig.outside_f
    stands = emptied.stood_psig(start, warm, now_f, minutes, not emptied.leaks(work.core), work.rig.unit.altitude_ft)
    sent["now_psig"], sent["now_f"] = work.shown.edit(stands, "psig"), work.shown.edit(now_f, "°F")


def fill_first_start(work, sent):
    """Amps and pressures of a first start."""
    for field, key in (("start_amps", "compressor_amps"), ("start_suction", "suction_psig"), ("start_discharge", "discharge_psig")):
        sent[field] = answer(work, key)


FILLS = {
    "enter": fill_reading, "measure": fill_measurement, "windings": fill_windings, "keep-program": fill_program, "keep-switch": fill_switch,
    "read-box": fill_box, "charge-level": fill_level, "charge-add": fill_after_gas, "charge-weigh": fill_after_gas, "tap-cycle": fill_cycle,
    "setting": fill_setting, "recover": fill_recovered, "microns": fill_microns, "nitrogen": fill_nitrogen,
    "first-start": fill_first_start,
}  # fmt: skip
