"""What Hand over asks before the call is closed: each thing left with its answer, and where it can be put right."""

from django.urls import reverse

from kettle.call import asks

# Where each thing left is put right: an address of the call, or a stop; and how the way there is called.
PLACES = {"service_mode": "controller", "unconfirmed": "controller", "ice_left": "ice", "quote": "quote", "unasked": "quote",
          "opened_circuit": "refrigerant", "leak_open": "refrigerant"}  # fmt: skip
STOPS = {"not_proved": "prove", "left_there": "power", "inside_release": "arrive", "box_not_read": "arrive", "still_defrosting": "programs"}
WAYS = {"not_proved": "Prove it", "quote": "To the quote", "unasked": "To the quote", "box_not_read": "Read it"}
# What was done for the visit is ended on Correct, a latch or a lock on Melt.
OF_STOPS = {"power_locked_out": "melt", "latch_blocked": "melt", "evap_fan.delay_bridged": "correct",
            "condenser.blocked_on_purpose": "correct"}  # fmt: skip


def leaving_context(request, standing):
    """The doubts of a call with their answers; none where it is closed."""
    if not standing.call.is_open:
        return {}
    found = standing.told.leave
    rows = [(one, one.given, _place(standing.call, one), WAYS.get(one.code, "Put it right")) for one in found]
    return {"doubts": rows, "unanswered": asks.unanswered(found)}


def _place(call, doubt):
    if doubt.code in PLACES:
        return reverse(PLACES[doubt.code], args=[call.number])
    return reverse("stop", args=[call.number, OF_STOPS.get(doubt.of, STOPS[doubt.code])])
