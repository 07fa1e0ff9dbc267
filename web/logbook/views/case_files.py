"""Case files, in and out."""

from collections import Counter

from django.contrib import messages
from django.http import HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle import case
from kettle.call.kinds import KINDS
from kettle.knowledge import acts, observations
from kettle.knowledge.errors import InputError
from web.accounts.access import shown_to
from web.logbook.actions.import_case import SOURCE
from web.logbook.actions.import_case import import_case as import_case_action
from web.logbook.calls.case_files import case_text
from web.logbook.models import Call
from web.logbook.units.plate import plate_words

# Kinds that are told one by one before a file is taken in; the others are counted.
LISTED = ("reading", "act")


@require_POST
def preview_case(request):
    """Show what a case file would store; nothing is stored."""
    upload = request.FILES.get("case")
    try:
        if upload is None:
            raise InputError("choose a case file first")
        if upload.size > case.LARGEST_BYTES:
            raise InputError(f"the case file is larger than {case.LARGEST_BYTES // 1_000_000} MB")
        content = upload.read()
        record = case.read_call(content)
    except InputError as error:
        messages.error(request, f"Case file: {error}")
        return redirect("board")
    shown, unit = shown_to(request.user), record.unit
    more = Counter(event.kind for event in record.standing if event.kind not in LISTED)
    context = {
        "file_name": upload.name[:80],
        "content": content.decode("utf-8-sig"),
        "plate": [("Name", unit.name or "none", False), ("Kind", unit.kind.label, False), ("Refrigerant", unit.refrigerant.name, False)]
        + plate_words(unit, shown),
        "rows": _rows(record, shown),
        "acts": [_done_words(event, record) for event in record.all_of("act")],
        "more": [(KINDS[kind].label, count) for kind, count in more.items()],
        "many": record.several,
    }
    return render(request, "logbook/case_preview.html", context)


def _rows(record, shown):
    """The readings of a record in order, each as it will be stored; what a later one replaces is marked."""
    events = record.all_of("reading")
    latest = {(event.data["key"], event.on): event.number for event in events}
    rows = []
    for event in events:
        entry = observations.get(event.data["key"])
        value = event.data["value"]
        rows.append(
            {
                "label": entry.label,
                "value": entry.show(tuple(value) if isinstance(value, list) else value, shown=shown),
                "coil": record.coil_name(event.on or 1) or 1 if entry.per_evaporator else "",
                "at": event.at if record.clocked or event.at else None,
                "source": event.get("source", SOURCE),
                "earlier": latest[event.data["key"], event.on] != event.number,
            }
        )
    return rows


def _done_words(event, record):
    """One act of a file in words."""
    label = acts.get(event.data["part"], event.data["did"]).label
    return (
        label
        + (f", coil {record.coil_name(event.on) or event.on}" if event.on else "")
        + (f" · {event.at:%-d %b %Y, %H:%M}" if event.at else "")
    )


@require_POST
def import_case(request):
    """Open a call from a case file that was looked through."""
    try:
        call = import_case_action(request.user, request.POST.get("content", ""))
    except InputError as error:
        messages.error(request, f"Case file: {error}")
        return redirect("board")
    return redirect("stop", number=call.number, stop="read")


@require_safe
def schema(request):
    """The JSON Schema of the case file, to be read by other programs: of a whole call, or of version 1 where that is asked for."""
    version = 1 if request.GET.get("version") == "1" else 2
    return JsonResponse(case.schema(version), json_dumps_params={"indent": 2, "ensure_ascii": False})


@require_safe
def export_case(request, number):
    """The call as a case file, whole."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit__site", "shop"), number=number)
    response = HttpResponse(case_text(call), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="{call.file_name}.json"'
    return response
