"""An electronic valve: what it aims at, how far it is open and what that brings, and its probes against one's own."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.measures import TRADE, ShownUnits, format_number

# The controller's superheat and one's own may differ so far, °F; its pressure and the gauge, psi; its probe and the clamp, °F.
AGREES_F: Final = 3.0
AGREES_PSI: Final = 2.0
PROBE_F: Final = 2.0
# It is as good as open, or as good as shut, from here on, %.
OPEN_PCT: Final = 90.0
SHUT_PCT: Final = 12.0
ON_TARGET_F: Final = 2.0


@dataclass(frozen=True)
class Read:
    """What the controller shows and what one's own gauge and clamp say; None where it was not read. °F, psig, %."""

    target_f: float | None = None
    shows_f: float | None = None
    own_f: float | None = None
    opening_pct: float | None = None
    shows_psig: float | None = None
    own_psig: float | None = None
    shows_line_f: float | None = None
    own_line_f: float | None = None


def electronic_says(read: Read, shown: ShownUnits = TRADE) -> list[str]:
    """Return what an electronic valve does and which of its probes lies, the surest first."""
    found = []
    if read.shows_psig is not None and read.own_psig is not None and abs(read.shows_psig - read.own_psig) > AGREES_PSI:
        off = shown.text(abs(read.shows_psig - read.own_psig), "psi")
        more = "more" if read.shows_psig > read.own_psig else "less"
        found.append(f"Its pressure shows {off} {more} than the gauge: transducer, its wiring or its range. Superheat is wrong by that")
    if read.shows_line_f is not None and read.own_line_f is not None and abs(read.shows_line_f - read.own_line_f) > PROBE_F:
        off = shown.text(abs(read.shows_line_f - read.own_line_f), "°F diff")
        warm = "warmer" if read.shows_line_f > read.own_line_f else "colder"
        found.append(f"Its suction probe shows {off} {warm} than the clamp: contact, insulation, place, or its curve")
    if read.shows_f is not None and read.own_f is not None and abs(read.shows_f - read.own_f) > AGREES_F and not found:
        found.append("It works with another superheat than yours: compare its pressure with the gauge and its probe with the clamp")
    superheat = read.own_f if read.own_f is not None else read.shows_f
    if superheat is None or read.target_f is None:
        return found
    over = superheat - read.target_f
    if abs(over) <= ON_TARGET_F:
        found.append("On target: it does what it is told")
    elif read.opening_pct is None:
        found.append(f"{shown.text(abs(over), '°F diff')} {'over' if over > 0 else 'under'} target: read how far it is open")
    elif over > 0 and read.opening_pct >= OPEN_PCT:
        found.append("Wide open and still over target: it gets no liquid, or it is too small. Glass, drier, solenoid, charge")
    elif over < 0 and read.opening_pct <= SHUT_PCT:
        found.append("As good as shut and still under target: it does not close, or liquid comes another way. Drive it shut and look")
    else:
        open_at = format_number(read.opening_pct, 0)
        found.append(f"It is {open_at} % open and on its way: ten minutes, then its opening and superheat again")
    return found
