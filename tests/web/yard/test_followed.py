"""An automatic technician on the screens of a practice call: he does what the standing says next and knows nothing else."""

import pytest

from kettle.knowledge import acts, observations
from kettle.plant.observer.rig import OWN_DOING
from kettle.yard.lessons import LESSONS
from web.logbook.calls.judging import told_of
from web.yard.models import Practice

SURE, MOST = 0.9, 24
FIRST = ("box_temp_f", "ice_form", "compressor", "evap_fans")
READY = ("power_locked_out", "parts_protected", "latch_blocked", "someone_outside")


def take(at, key):
    """Take a reading; what one does oneself is done, or undone where it was."""
    own = {key: "no" if key == "power_locked_out" and at.value(key) == "yes" else "yes"}
    at.take(key, **(own if key in OWN_DOING else {}))


def melt(at):
    """The stop Melt as it is worked: made ready, begun, waited for, looked at, painted bare, ended; power on again."""
    for key in READY:
        if observations.get(key).exists_on(at.core.rig.unit):
            take(at, key)
    for key in ("inside_release", "drain"):
        if observations.get(key).exists_on(at.core.rig.unit):
            take(at, key)
    at.post("melt/start/", method="warm_water", supply="warm", coil_place="open")
    at.yard("pass/", minutes=str(max(1, round(at.core.melts_in_min("warm_water") or 1) + 1)))
    for _ in range(4):
        at.yard("face/")
        rows = at.practice.steps.filter(of="face").last().value["rows"]
        if set("".join(rows)) == {"."}:
            break
        at.yard("pass/", minutes="10")
    at.post("ice/", stage="after", coil="1", rows="/".join(rows), **{"place-coil_back": ".", "place-inside_corners": "."})
    at.post("melt/end/")
    at.take("power_locked_out", power_locked_out="no")
    at.yard("pass/", minutes="45")
    at.yard("thermostat/", which="down")


def solve(at):
    """Follow holds and next checks until an answer stands clear; its codes."""
    tried, melted, waited = set(), False, 0
    for key in FIRST:
        take(at, key)
    for _ in range(MOST):
        told = told_of(at.call)
        best = told.course().was
        if best and best[0].probability >= SURE:
            return best[0].codes
        if any(hold.code == "iced_coil" for hold in told.holds()) and not melted:
            melt(at)
            tried, melted = set(), True
            continue
        check = next((one for one in told.next_checks() if one.key not in tried), None)
        if check is None:
            break
        if check.key != "power_locked_out":
            tried.add(check.key)
        take(at, check.key)
        if at.value("control_call") == "in_defrost":
            # Nothing runs in a defrost: it is waited out, and looked at again.
            at.yard("pass/", minutes="40")
            take(at, "control_call")
        last = at.practice.steps.last()
        if last.what == "asked" and last.value is None and waited < 12:
            # It is asked again once it runs, or once its defrost is over.
            lets = "thermostat lets it run" in last.says
            at.yard("thermostat/", which="down") if lets else at.yard("pass/", minutes="40")
            waited += 1
            take(at, check.key)
    best = told_of(at.call).course().was
    return best[0].codes if best else ()


@pytest.mark.parametrize("code", ["fan-dead", "clock-stands", "bulb-loose", "to-ground"])
def test_it_is_found_on_the_screens_and_its_repair_holds(practise, code):
    at = practise(code)
    [(cause, _)] = LESSONS[code].wrong
    assert solve(at) == (cause,)
    act = acts.ACTS[acts.SUREST[cause]]
    at.take("power_locked_out", power_locked_out="yes")
    if at.core.ice_lb > 1.0:
        melt(at)
        at.take("power_locked_out", power_locked_out="yes")
    at.act(act.code, amount="20" if act.unit else "", reason="what it is")
    assert cause not in at.core.rig.wrong or act.part == "charge", act.code
    page = at.yard("name/", cause=cause).content.decode()
    assert "That is what it was" in page
    told = Practice.objects.get(pk=at.practice.pk).told
    assert told["right"] and told["known_at_min"] is not None and told["held"]
