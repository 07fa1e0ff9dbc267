"""A valve that does not answer its stem: the way through, step by step, and what its end means.

Order of the trade: bulb, then strainer and solenoid, then the bulb warmed and chilled, then the stem all the way in, all the way out,
to the middle and set again.
"""

from dataclasses import dataclass
from typing import Final

from kettle.judging.facts import Facts

DRIER_CLEAR_F: Final = 3.0
# What a replacement needs besides the valve.
NEEDS: Final = (
    "Valve of this refrigerant, capacity and equalizer", "Drier", "Evacuation under 500 microns, proved by a hold",
    "Bulb on clean pipe, two straps, insulated", "Glass looked at after: the coil takes more charge",
)  # fmt: skip


@dataclass(frozen=True)
class Step:
    """One step: what to do, what to look at for it (an observation) or what is done (an act), and where it stands.

    `state` is done, put_right (it was found wrong), next or waits; `says` is what was found.
    """

    code: str
    title: str
    how: str
    state: str
    says: str = ""
    asks: tuple[str, ...] = ()
    act: str = ""


@dataclass(frozen=True)
class Outcome:
    """What the way came to: a short title, what it means, and what a replacement needs."""

    title: str
    means: str
    needs: tuple[str, ...] = ()


def _bulb(f: Facts) -> tuple[str, str]:
    if f.is_("bulb", "tight_insulated"):
        return "done", "tight and insulated"
    return ("put_right", "found wrong: put it right first") if "bulb" in f.seen else ("open", "")


def _supply(f: Facts) -> tuple[str, str]:
    drop = f.number("drier_drop_f")
    if f.is_("liquid_solenoid", "closed_no_pull", "closed_pulled"):
        return "put_right", "the solenoid lets nothing through: that first"
    if drop is not None and drop > DRIER_CLEAR_F:
        return "put_right", f"{f.shown.text(drop, '°F diff')} over the drier: that first"
    if f.is_("sight_glass", "flashing", "empty"):
        return "put_right", "gas in the liquid line: that first"
    has_solenoid = "liquid_solenoid" in f.seen
    return ("done", "liquid stands before the valve") if has_solenoid and drop is not None else ("open", "")


def _warmed(f: Facts) -> tuple[str, str]:
    words = {"as_expected": "suction rose as it should", "partial": "it answered a little", "none": "nothing moved"}
    said = f.seen.get("valve_response")
    return ("done", words[said]) if isinstance(said, str) and said in words else ("open", "")


def way(before: Facts, now: Facts, exercised: bool) -> list[Step]:
    """Return the steps of a valve without answer, each with where it stands.

    `before` is what was known before the stem was run through, `now` after; the same where it was not.
    """
    bulb, supply, warmed = _bulb(now), _supply(now), _warmed(before)
    rows = [
        ("bulb", "Bulb", "Place on the pipe, two tight straps, insulated, not in the supply air", bulb, ("bulb", "bulb_clock"), ""),
        ("supply", "Strainer and solenoid", "Drop over drier and strainer, magnet pull and flow at the solenoid", supply,
         ("drier_drop_f", "liquid_solenoid"), ""),
        ("warmed", "Warm the bulb, chill the bulb", "In the hand, then in ice water: suction has to rise and to fall", warmed,
         ("valve_response",), ""),
        ("exercised", "All the way in, all the way out, to the middle", "Count the turns, never force it at a stop, set it again",
         ("done", "done") if exercised else ("open", ""), (), "valve.exercised"),
    ]  # fmt: skip
    if exercised:
        rows.append(("after", "Does it answer now?", "Warm the bulb again, or read superheat after 15 min", _warmed(now),
                     ("valve_response",), ""))  # fmt: skip
    steps, nothing_open = [], True
    for code, title, how, (state, says), asks, act in rows:
        if state == "open":
            state = "next" if nothing_open else "waits"
        nothing_open = nothing_open and state == "done"
        steps.append(Step(code, title, how, state, says, asks, act))
    return steps


def first(now: Facts, opens: bool) -> list[Step]:
    """Return what is looked at before a stem is opened: bulb, then strainer and solenoid, where they are not cleared yet. A valve that is
    closed because it floods waits for nothing but its bulb."""
    steps = [step for step in way(now, now, exercised=False) if step.code in ("bulb", "supply") and step.state != "done"]
    return steps if opens else [step for step in steps if step.code == "bulb"]


def outcome(before: Facts, now: Facts, exercised: bool) -> Outcome | None:
    """Return what the way came to, by rule; None while it goes on."""
    if _bulb(now)[0] == "put_right" or _supply(now)[0] == "put_right":
        return None
    warmed, after = before.seen.get("valve_response"), now.seen.get("valve_response") if exercised else None
    if exercised and after in ("as_expected", "partial"):
        return Outcome("Dirt, wax or ice inside",
                       "It works for now and sticks again: plan the replacement, look for water and what came loose", NEEDS)  # fmt: skip
    if exercised and after == "none":
        if warmed == "none":
            return Outcome("Power element, or the valve", "Neither bulb nor stem moves it: the element lost its charge, or it is stuck. "
                           "Element alone where it comes apart, else the valve", NEEDS)  # fmt: skip
        return Outcome("Valve", "The bulb moves it, its stem does not: the spring or its seat", NEEDS)
    if exercised:
        return None
    if warmed == "as_expected" and now.is_("bulb", "tight_insulated"):
        return Outcome(
            "Not the element", "It answers the bulb: go on with the stem, in and out. Still nothing then: wrong valve for this coil"
        )
    return None
