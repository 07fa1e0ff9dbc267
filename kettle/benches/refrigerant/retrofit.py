"""Another refrigerant in the same circuit: what changes, and where it is refused."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits, format_number
from kettle.knowledge.refrigerants import Refrigerant

SST_F: Final = {False: 20.0, True: -20.0}
SCT_F: Final = 105.0
# Older oils do not mix with these families; a valve of another refrigerant fits where pressures lie within this share.
MINERAL: Final = ("R-12", "R-22", "R-502", "R-401A", "R-402A", "R-408A", "R-409A", "R-290", "R-600a")
VALVE_SHARE: Final = 0.10


@dataclass(frozen=True)
class Retrofit:
    """What comes of another refrigerant: refused with why, or what changes, each in words."""

    refused: str
    changes: tuple[str, ...]


def oil(r: Refrigerant) -> str:
    """Return the oil that goes with a refrigerant."""
    return "mineral or alkylbenzene" if r.name in MINERAL else "polyol ester"


def retrofit(unit: Unit, other: Refrigerant, shown: ShownUnits = TRADE) -> Retrofit:
    """Return what changes when a unit made for one refrigerant gets another."""
    now = unit.refrigerant
    if other.name == now.name:
        return Retrofit("It is the refrigerant of its plate", ())
    if other.flammable and not now.flammable:
        return Retrofit(f"{other.name} burns ({other.safety_class}) and the unit is not made for it: refused", ())
    if "R-744" in (other.name, now.name):
        return Retrofit(f"{other.name} works at pressures this circuit is not made for: refused", ())
    sst = SST_F[unit.kind.freezer]
    low = [r.dew_psig(sst, unit.altitude_ft) for r in (now, other)]
    high = [r.bubble_psig(SCT_F, unit.altitude_ft) for r in (now, other)]
    boils, condenses = shown.text(sst, "°F", 0), shown.text(SCT_F, "°F", 0)
    changes = [
        f"Suction at {boils}: {shown.text(low[0], 'psig', 0)} becomes {shown.text(low[1], 'psig', 0)}; pressure switches set anew",
        f"Head at {condenses}: {shown.text(high[0], 'psig', 0)} becomes {shown.text(high[1], 'psig', 0)}; cut-out checked",
    ]
    if other.glides:
        changes.append(f"It glides {format_number(other.glide_f)} °F: liquid only, superheat from dew, subcooling from bubble")
    elif other.is_mixture:
        changes.append("A mixture: it goes in as liquid only")
    if (now.name in MINERAL) != (other.name in MINERAL):
        changes.append(f"Oil: {oil(other)}, changed until little of the old is left")
    if unit.metering == "cap_tube":
        changes.append("Capillary tube: length for the new flow, below; charge by trial from 90 % of the old")
    elif abs(low[1] / low[0] - 1.0) > VALVE_SHARE if low[0] > 0 else True:
        changes.append("Expansion valve: element for the new refrigerant, or a new valve")
    else:
        changes.append("Expansion valve: stays, superheat set anew")
    changes.append(f"New label: {other.name} ({other.safety_class}), charge, oil, date, who")
    return Retrofit("", tuple(changes))
