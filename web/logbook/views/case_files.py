"""Case files, in and out."""

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.views.decorators.http import require_GET, require_POST

from kettle import case
from kettle.errors import InputError
from web.logbook.actions.import_case import import_case as import_case_action
from web.logbook.judging import case_of
from web.logbook.models import Call


@require_POST
def import_case(request):
    """Open a call from a case file."""
    upload = request.FILES.get("case")
    try:
        if upload is None:
            raise InputError("choose a case file first")
        if upload.size > case.LARGEST_BYTES:
            raise InputError(f"the case file is larger than {case.LARGEST_BYTES // 1_000_000} MB")
        call = import_case_action(request.user, upload.read())
    except InputError as error:
        messages.error(request, f"Case file: {error}")
        return redirect("board")
    return redirect("stop", number=call.number, stop="read")


@require_GET
def export_case(request, number):
    """The call as a case file."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit__site"), number=number)
    response = HttpResponse(case.write(case_of(call)), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="call-{call.number}.json"'
    return response
