"""The same for the customer: what was wrong, what was done, what you can do, what to watch for; no word of the trade that needs it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge import causes

# fmt: off
DID: Final[Mapping[str, str]] = {
    "coil.melted": "We melted the ice off the cooling coil", "coil.cleaned": "We cleaned the cooling coil",
    "evap_fan.freed": "We freed a fan that was stuck", "evap_fan.replaced": "We put in a new fan",
    "evap_fan.delay_bridged": "We bridged the switch that holds the fans back, for now",
    "evap_fan.delay_set": "We set the switch that holds the fans back", "door.adjusted": "We set the door so that it closes",
    "door.gasket_replaced": "We put a new seal on the door", "door.curtain_hung": "We hung a strip curtain in the doorway",
    "door.kept_shut": "We agreed that the door is kept shut", "stock.moved": "We moved stock away from the cooling coil",
    "drain.cleared": "We cleared the drain", "drain.thawed": "We thawed the drain", "drain.resealed": "We sealed the drain pan",
    "drain_heater.replaced": "We put in a new heater for the drain", "condenser.cleaned": "We cleaned the coil that gives off the heat",
    "condenser.blocked_on_purpose": "We covered part of the coil that gives off the heat, to test it",
    "condenser.unblocked": "We uncovered the coil that gives off the heat again",
    "condenser_fan.replaced": "We put in a new fan for the coil that gives off the heat",
    "head_control.adjusted": "We set the valve that keeps the pressure up in the cold",
    "head_control.replaced": "We put in a new valve that keeps the pressure up in the cold",
    "bulb.moved": "We moved the valve's sensor to where it belongs", "bulb.clamped": "We fastened the valve's sensor",
    "bulb.insulated": "We insulated the valve's sensor", "valve.turned_in": "We set the valve that feeds the coil",
    "valve.turned_out": "We set the valve that feeds the coil", "valve.exercised": "We freed the valve that feeds the coil",
    "valve.strainer_cleaned": "We cleaned the strainer before the valve",
    "valve.element_replaced": "We put a new head on the valve that feeds the coil",
    "valve.replaced": "We put in a new valve that feeds the coil", "cap_tube.replaced": "We put in a new feed tube",
    "drier.replaced": "We put in a new filter", "liquid_solenoid.coil_replaced": "We put a new coil on the electric valve",
    "liquid_solenoid.replaced": "We put in a new electric valve", "regulator.opened": "We opened the pressure regulator",
    "regulator.closed": "We closed the pressure regulator", "charge.added": "We added refrigerant",
    "charge.recovered": "We took refrigerant out", "charge.weighed_in": "We filled it with the right weight of refrigerant",
    "leak.repaired": "We repaired the leak", "leak.given_up": "The leak stays open, as you decided",
    "air.purged": "We took air out of the system", "compressor.rested": "We let the compressor cool down",
    "compressor.replaced": "We put in a new compressor", "contactor.tightened": "We tightened the main switch",
    "contactor.replaced": "We put in a new main switch", "start_parts.replaced": "We put in new starting parts",
    "supply.restored": "We brought the power back", "wiring.put_right": "We put the wiring right",
    "heater.replaced": "We put in a new defrost heater", "timer.set": "We set the defrost clock",
    "timer.replaced": "We put in a new defrost clock", "relay.freed": "We freed a switch that was stuck",
    "relay.replaced": "We put in a new relay", "termination.replaced": "We put in the sensor that ends the defrost, new",
    "sensor.moved": "We moved a temperature sensor", "sensor.replaced": "We put in a new temperature sensor",
    "sensor.swapped_back": "We put the sensors back where they belong", "thermostat.adjusted": "We set the thermostat",
    "thermostat.replaced": "We put in a new thermostat", "pressure_control.adjusted": "We set the pressure switch",
    "program.changed": "We changed when and how long it defrosts", "parameters.changed": "We set the controller for this unit",
    "control.set_calling": "We turned the cooling back on",
}
_DOORS: Final = "Keep the door shut: prop it open for deliveries only, and shut it between the carts"
_CURTAIN: Final = "Leave the strip curtain hanging; it keeps the moist air out when the door is open"
_STOCK: Final = "Keep stock a hand's width away from the cooling coil and its fans"
_CLEAN: Final = "Have the coil that gives off the heat cleaned twice a year, more often beside flour, dust or grease"
# A cause -> what the customer can do about it.
YOU_CAN: Final[Mapping[str, tuple[str, ...]]] = {
    "door_infiltration": (_DOORS, _CURTAIN), "door_seal": ("Wipe the door's seal and tell us when it tears",), "hot_stock": (
        "Let hot food cool before it goes in; little at a time comes down faster",), "evap_airflow_low": (_STOCK,),
    "defrost_too_little": (_DOORS,), "residual_ice": ("Tell us at the first new ice; a little is melted in minutes",),
    "drain_blocked": ("Keep packaging off the floor drain", "Mop up water at once and tell us: it freezes"),
    "condenser_dirty": (_CLEAN, "Keep boxes away from where the machine breathes"),
    "condenser_fan_failed": ("Keep leaves and boxes away from where the machine breathes",),
    "stat_calibration": ("Leave the dial where it is set, and read your own thermometer",),
    "no_call": ("Leave the switch and the dial as they are",),
}
# A cause -> what to watch for.
WATCH_FOR: Final[Mapping[str, str]] = {
    "undercharge": "If it warms up slowly over days, call us: it may lose refrigerant again",
    "door_infiltration": "Ice that grows on the coil: call us before the fans freeze in",
    "drain_blocked": "Water or ice on the floor below the coil", "defrost_too_little": "Ice at the bottom or back of the coil",
    "compressor_overload": "If it stops and starts every few minutes, switch it off and call us",
}
ALWAYS_WATCH: Final = "If the temperature stays too warm for two hours with the door shut, call us"
# fmt: on


@dataclass(frozen=True)
class Told:
    """A call in the customer's words: what was wrong, what was done, what you can do, what to watch for."""

    wrong: tuple[str, ...]
    did: tuple[str, ...]
    you_can: tuple[str, ...]
    watch: tuple[str, ...]


def told(found: Sequence[str], done: Sequence[str]) -> Told:
    """Return a call for the customer from the causes found and the acts done (codes); nothing is said of what is not on record."""
    named = [causes.CATALOGUE[code] for code in dict.fromkeys(found) if code in causes.CATALOGUE]
    did = [DID[code] for code in dict.fromkeys(done) if code in DID]
    can = [words for cause in named for words in YOU_CAN.get(cause.code, ())]
    watch = [WATCH_FOR[cause.code] for cause in named if cause.code in WATCH_FOR]
    return Told(
        tuple(cause.plain for cause in named), tuple(f"{words}." for words in dict.fromkeys(did)),
        tuple(f"{words}." for words in dict.fromkeys(can)), tuple(f"{words}." for words in (*dict.fromkeys(watch), ALWAYS_WATCH)),
    )  # fmt: skip
