"""What a visit promises, and what earlier ones promised for it, with the readings to compare with."""

from kettle.judging.evidence import quantity_name
from web.logbook.calls.judging import facts_of_coils
from web.logbook.calls.outcomes import before
from web.logbook.calls.promises import open_on, proposed_for

# The readings somebody who comes back compares with.
COMPARED = ("box_temp_f", "superheat_evap_f", "suction_psig", "discharge_psig", "subcooling_f", "compressor_amps")


def promised_here(request, standing):
    """What this visit promises, and what the core proposes."""
    call = standing.call
    return {
        "promised": call.follow_ups.filter(let_go="").order_by("due"),
        "proposed": proposed_for(call, standing.told) if call.is_open else [],
    }


def promised_before(request, standing):
    """What earlier visits promised on this unit and nobody looked at yet, each with how the unit was left then."""
    found = open_on(standing.call.unit, standing.call)
    for one in found:
        one.compare = compared(one.call, standing.shown)
    return {"promised_before": found, "held_before": before(standing.call)}


def compared(call, shown):
    """How a call left its unit, in figures."""
    facts, words = facts_of_coils(call, shown)[0], []
    for quantity in COMPARED:
        value = facts.derived.get(quantity, facts.number(quantity))
        if value is not None:
            label, unit, decimals = quantity_name(quantity)
            words.append(f"{label.lower()} {shown.text(value, unit, decimals)}")
    return ", ".join(words)
