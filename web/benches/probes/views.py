"""The probes on a call: what each reads now, how old that is, its battery, and taking it into a set."""

from django.contrib import messages
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number
from web.accounts.access import shown_to
from web.benches.probes.actions.take_probes import take_probes
from web.links.probes import link
from web.logbook.actions.devices import devices_of
from web.round.views.pages import call_of, frame, standing_of

STATE_MARKS = {"live": ("●", "live", "good"), "late": ("◐", "late", "watch"), "lost": ("✕", "lost", "bad")}


def probe_rows(user, unit):
    """Every probe as it is shown: figure, age, battery, state; and how many are in reach."""
    found, now, shown = link(unit.probes), timezone.now(), shown_to(user)
    rows = []
    for live in found.latest() if found else []:
        entry = observations.get(live.key)
        state = live.state(now)
        rows.append(
            {
                "live": live,
                "label": entry.label,
                "figure": entry.show(live.value, shown=shown),
                "age": f"{format_number(live.age_s(now), 0)} s ago",
                "mark": STATE_MARKS[state],
                "lost": state == "lost",
            }
        )
    return found, rows


def read_context(request, standing):
    """What Read shows of the probes."""
    unit = standing.call.unit
    found, rows = probe_rows(request.user, unit)
    reach = sum(not row["lost"] for row in rows)
    return {"link": found, "device": unit.probes, "choices": devices_of(unit, "probes"), "rows": rows, "reach": reach}


@require_safe
def probes(request, number):
    """The probes beside the standing; the table alone where it asks for itself again."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    context = {"call": call} | read_context(request, standing)
    if request.htmx:
        return render(request, "round/_probe_chip.html" if "chip" in request.GET else "probes/_probe_table.html", context)
    return render(request, "probes/probes.html", frame(request, call, "read", standing) | context)


@require_POST
def take(request, number):
    """Take one probe, or all in reach, into a set."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    found, wanted, coil = link(call.unit.probes), request.POST.get("probe", ""), standing.coil
    live = [reading for reading in (found.latest() if found else []) if wanted in ("", reading.probe)]
    now = timezone.now()
    label = request.POST.get("label", "").strip() or f"Probes {timezone.localtime(now):%H:%M}"
    try:
        take_probes(
            request.user, call, standing.judgement, live, now, label, coil if coil > 1 else None, bool(found) and call.unit.probes.simulated
        )
    except InputError as error:
        messages.error(request, str(error))
        return redirect("probes", number=number)
    messages.success(request, f"Taken as the set “{label}”.")
    return redirect("stop", number=number, stop="read")
