"""Case files, in and out."""

from django.contrib import messages
from django.http import HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from kettle import case
from kettle.knowledge import acts, observations
from kettle.knowledge.errors import InputError
from web.accounts.access import shown_to
from web.logbook.actions.import_case import SOURCE
from web.logbook.actions.import_case import import_case as import_case_action
from web.logbook.judging import case_of
from web.logbook.models import Call
from web.logbook.plate import plate_words


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
        read = case.read(content)
    except InputError as error:
        messages.error(request, f"Case file: {error}")
        return redirect("board")
    shown, unit = shown_to(request.user), read.resolved()
    context = {
        "file_name": upload.name[:80],
        "content": content.decode("utf-8-sig"),
        "plate": [("Name", unit.name or "none", False), ("Kind", unit.kind.label, False), ("Refrigerant", unit.refrigerant.name, False)]
        + plate_words(unit, shown),
        "rows": _rows(read, shown),
        "acts": [_done_words(act) for act in read.acts],
        "many": unit.evaporators > 1,
    }
    return render(request, "logbook/case_preview.html", context)


def _rows(read, shown):
    """The observations of a case in order, each as it will be stored; what a later one replaces is marked."""
    rows, latest = [], {}
    for place, entry in enumerate(read.in_order()):
        latest[(entry.key, entry.on)] = place
        registered = observations.get(entry.key)
        rows.append(
            {
                "label": registered.label,
                "value": registered.show(entry.checked, shown=shown),
                "coil": (entry.on or 1) if registered.per_evaporator else "",
                "at": entry.at,
                "source": entry.source or SOURCE,
            }
        )
    for place, entry in enumerate(read.in_order()):
        rows[place]["earlier"] = latest[(entry.key, entry.on)] != place
    return rows


def _done_words(act):
    """One act of a case in words."""
    label = acts.get(act.part, act.did).label
    return label + (f", coil {act.on}" if act.on else "") + (f" · {act.at:%-d %b %Y, %H:%M}" if act.at else "")


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
    """The JSON Schema of the case file, to be read by other programs."""
    return JsonResponse(case.schema(), json_dumps_params={"indent": 2, "ensure_ascii": False})


@require_safe
def export_case(request, number):
    """The call as a case file."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit__site"), number=number)
    response = HttpResponse(case.write(case_of(call)), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="call-{call.number}.json"'
    return response
