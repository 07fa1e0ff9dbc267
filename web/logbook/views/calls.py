"""Opening a call, taking a quick look and keeping it."""

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_http_methods, require_POST

from kettle.knowledge.errors import InputError
from web.logbook.actions import keep_call, open_call
from web.logbook.forms import KeepForm, NewCallForm, QuickLookForm, posted
from web.logbook.models import Call


@require_http_methods(["GET", "HEAD", "POST"])
def new_call(request):
    """Open a call on a known unit."""
    form = NewCallForm(posted(request), user=request.user, initial={"unit": request.GET.get("unit")})
    if request.method == "POST" and form.is_valid():
        call = open_call.open_call(request.user, form.cleaned_data["unit"], form.cleaned_data["complaint"])
        return redirect("stop", number=call.number, stop="arrive")
    return render(request, "logbook/new_call.html", {"form": form})


@require_POST
def quick_look(request):
    """Straight to Read, without site or unit."""
    form = QuickLookForm(request.POST)
    if not form.is_valid():
        for field in form.errors:
            messages.error(
                request, form.errors[field][0] if field == "refrigerant" else f"{form.fields[field].label}: choose one of the list"
            )
        return redirect("board")
    call = open_call.quick_look(request.user, **form.cleaned_data)
    return redirect("stop", number=call.number, stop="read")


@require_http_methods(["GET", "HEAD", "POST"])
def keep(request, number):
    """Keep a quick look as a call on a new or known unit."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit__site"), number=number)
    form = KeepForm(posted(request), user=request.user, refrigerant=call.unit.refrigerant)
    if request.method == "POST" and form.is_valid():
        chosen = form.cleaned_data
        try:
            if chosen["unit"]:
                keep_call.keep_on_known_unit(request.user, call, chosen["unit"])
            else:
                keep_call.keep_as_new_unit(request.user, call, chosen["site_name"], chosen["unit_name"])
        except InputError as error:
            form.add_error(None, str(error))
        else:
            return redirect("stop", number=call.number, stop="read")
    return render(request, "logbook/keep.html", {"form": form, "call": call})
