"""The Board, the unit page, and opening or keeping a call."""

from datetime import timedelta

from django.contrib import messages
from django.db.models import Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from kettle import case
from kettle.errors import InputError
from web.logbook.actions import keep_call, open_call
from web.logbook.actions.import_case import import_case as import_case_action
from web.logbook.actions.save_unit import save_unit
from web.logbook.forms import KeepForm, NewCallForm, QuickLookForm, UnitForm
from web.logbook.ice_history import ice_ups, watch_list
from web.logbook.ice_shown import shown
from web.logbook.judging import case_of, judge_call, settling_until
from web.logbook.models import Call, Site, Unit

RECENT = 6
FOLLOW_UP_DAYS = 7


@require_GET
def board(request):
    """The day: calls in progress, follow-ups due, units."""
    calls = Call.objects.for_user(request.user).select_related("unit__site", "opened_by")
    soon = timezone.localdate() + timedelta(days=FOLLOW_UP_DAYS)
    search = request.GET.get("q", "").strip()[:80]
    units = Unit.objects.for_user(request.user).filter(site__isnull=False).select_related("site")
    for word in search.split():
        units = units.filter(Q(name__icontains=word) | Q(site__name__icontains=word) | Q(refrigerant__icontains=word))
    return render(
        request,
        "logbook/board.html",
        {
            "in_progress": [_headline(call) for call in calls.filter(closed_at=None)],
            "follow_ups": _follow_ups(calls, soon),
            "recent": calls.filter(closed_at__isnull=False)[:RECENT],
            "watch_list": watch_list(request.user),
            "overdue": [call for call in calls.filter(closed_at=None, check_in_min__isnull=False) if call.check_in_overdue],
            "units": units,
            "search": search,
            "quick": QuickLookForm(initial={"kind": "walk_in_freezer", "refrigerant": "R-404A"}),
        },
    )


def _headline(call):
    judgement = judge_call(call)
    leader = judgement.ranking[0] if judgement.has_evidence else None
    return {"call": call, "leader": leader, "holds": len(judgement.holds), "settling": settling_until(call)}


def _follow_ups(calls, soon):
    """Visits promised by the last closed call of each unit, up to a date."""
    due = calls.filter(closed_at__isnull=False, next_visit__isnull=False, next_visit__lte=soon).order_by("next_visit")
    return [call for call in due if not call.unit.calls.filter(opened_at__gt=call.closed_at).exists()]


@require_GET
def unit_page(request, pk):
    """A unit: its plate, its bands, its calls and settings."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).select_related("site"), pk=pk)
    calls = unit.calls.select_related("opened_by").prefetch_related("settingchanges", "valveturns", "readings")
    context = {
        "unit": unit,
        "resolved": unit.resolved(),
        "calls": calls,
        "plate": _plate(unit),
        "ice_ups": [(call, [shown(drawing) for drawing in maps]) for call, maps in ice_ups(unit)],
    }
    return render(request, "logbook/unit.html", context)


def _plate(unit):
    """The plate in words: what is stored, or what is usual for the kind."""
    resolved = unit.resolved()
    rows = []
    for name, label in (
        ("metering", "Metering"),
        ("condensing", "Condensing"),
        ("head_control", "Head control"),
        ("defrost", "Defrost"),
        ("box_control", "Box control"),
    ):
        value = getattr(resolved, name)
        rows.append((label, dict(Unit._meta.get_field(name).choices)[value], name in resolved.assumed))
    rows.append(("Receiver", "yes" if resolved.receiver else "no", "receiver" in resolved.assumed))
    for label, name, unit_of in (
        ("Set", "set_f", "°F"),
        ("Differential", "differential_f", "°F"),
        ("Label charge", "critical_charge_oz", "oz"),
        ("Rated amps", "compressor_rla_a", "A"),
        ("Volts", "nameplate_v", "V"),
        ("Evaporators", "evaporators", ""),
    ):
        value = getattr(resolved, name)
        if value is not None:
            rows.append((label, f"{value:g} {unit_of}".replace("-", "−"), name in resolved.assumed))
    return rows


def _posted(request):
    """What was sent, even if that is nothing; None where the form is only shown."""
    return request.POST if request.method == "POST" else None


@require_http_methods(["GET", "POST"])
def edit_unit(request, pk=None):
    """Add a unit to a site, new or known, or correct the plate of one."""
    unit = get_object_or_404(Unit.objects.for_user(request.user).filter(site__isnull=False), pk=pk) if pk else None
    form = UnitForm(_posted(request), instance=unit, initial={"site_name": unit.site.name if unit else ""})
    if request.method == "POST" and form.is_valid():
        saved = save_unit(request.user, form.save(commit=False), form.cleaned_data["site_name"])
        return redirect("unit", pk=saved.pk)
    return render(request, "logbook/edit_unit.html", {"form": form, "unit": unit, "sites": Site.objects.for_user(request.user)})


@require_http_methods(["GET", "POST"])
def new_call(request):
    """Open a call on a known unit."""
    form = NewCallForm(_posted(request), user=request.user, initial={"unit": request.GET.get("unit")})
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
            messages.error(request, f"{form.fields[field].label}: choose one of the list")
        return redirect("board")
    call = open_call.quick_look(request.user, **form.cleaned_data)
    return redirect("stop", number=call.number, stop="read")


@require_http_methods(["GET", "POST"])
def keep(request, number):
    """Keep a quick look as a call on a new or known unit."""
    call = get_object_or_404(Call.objects.for_user(request.user).select_related("unit__site"), number=number)
    form = KeepForm(_posted(request), user=request.user, refrigerant=call.unit.refrigerant)
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
