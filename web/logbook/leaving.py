"""What should not be left so when a visit ends, and what was answered to it."""

from kettle.benches.controls.registers import REGISTERS
from kettle.benches.ice import map as ice
from kettle.benches.prove.leaving import Doubt
from web.logbook.controller_talks import in_service, unconfirmed
from web.logbook.judging import standing_readings
from web.logbook.left_behind import STANDING_WORDS, left_before, still_there
from web.logbook.promises import quote_waits
from web.logbook.proving import unproved
from web.logbook.quoted import unasked

# What is done for the visit only, and what ends it.
LEFT_FOR_NOW = (
    (("evap_fan", "delay_bridged"), ("evap_fan", "delay_set"), "The fan delay is bridged"),
    (("condenser", "blocked_on_purpose"), ("condenser", "unblocked"), "The condenser is still blocked on purpose"),
)


def doubts(call, verdicts=None):
    """What should not be left so, as the core takes it; `verdicts` are the call's where it is judged already."""
    found = []
    if in_service(call):
        found.append(Doubt("service", "service", "The controller is in service mode: nobody can take it out from here afterwards"))
    found += [Doubt(f"unconfirmed:{role}", "unconfirmed",
                    f"Not confirmed: {REGISTERS[role].label.lower()} was written to the controller and did not come back so")
              for role in unconfirmed(call) if role != "service_mode"]  # fmt: skip
    if _iced(call):
        found.append(Doubt("ice", "ice", "Ice is drawn on the coil, and nothing says that it was melted or left on purpose"))
    standing = [(act.part, act.did) for act in call.acts.filter(undone_at=None)]
    found += [
        Doubt(f"for_now:{done[0]}", "for_now", words)
        for done, undone, words in LEFT_FOR_NOW
        if done in standing and undone not in standing[standing.index(done) :]
    ]
    said = standing_readings(call)
    found += [Doubt(f"said:{key}", "said", words) for key, word, words in STANDING_WORDS if key in said and said[key].value == word]
    found += [Doubt(f"proof:{code}", "proof", f"Not proved: {words[:1].lower()}{words[1:]}") for code, words in unproved(call, verdicts)]
    done = unasked(call)
    if done:
        words = ", ".join(dict.fromkeys(act.label.lower() for act in done))
        found.append(Doubt("unasked", "unasked", f"Done before a quote was accepted: {words}"))
    if quote_waits(call):
        found.append(Doubt("quote", "quote", "The quote waits for an answer"))
    found += [Doubt(f"placed:{one.pk}", "placed", f"Still there: {one}") for one in still_there(call)]
    found += [Doubt(f"placed:{one.pk}", "placed", f"Still there since {one.call}: {one}") for one in left_before(call)]
    return tuple(found)


def _iced(call):
    """Whether a coil was drawn last with ice on it that nobody melted."""
    drawn = {drawing.evaporator: drawing for drawing in call.icedrawings.filter(undone_at=None).order_by("at", "pk")}
    iced = [number for number, one in drawn.items() if ice.read(ice.parse(one.rows, one.places), one.face_ft2).ice_form in ice.ICED_FORMS]
    return bool(iced) and not call.melts.filter(undone_at=None, ended_at__isnull=False).exists()


def answered(call):
    """What was answered to what is left: key -> the answer's code, the latest."""
    return {one.key: one.answer for one in call.leavings.filter(undone_at=None)}
