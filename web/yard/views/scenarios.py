"""Scenarios of the shop: written on a screen or as a file, laid out of a closed call, begun, handed on."""

from django.contrib import messages
from django.http import HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_http_methods, require_POST, require_safe

from kettle.knowledge import causes, refrigerants
from kettle.knowledge.equipment import KINDS
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.plant import faults
from kettle.plant.simulate import PRESETS
from kettle.yard import scenario as core
from kettle.yard.drawn import DONE_BEFORE
from web.accounts.access import shown_to
from web.logbook.models import Call
from web.logbook.refusals import refusals_said
from web.yard.actions.begin import begin
from web.yard.actions.scenarios import keep_scenario, laid_open, put_away
from web.yard.models import Scenario
from web.yard.views.home import HELP_WORDS, address_of

SEVERITIES = (("0.4", "slight"), ("0.7", "plain"), ("1.0", "as bad as it comes"))
FAULTS, CALLS_SHOWN = 3, 12


@require_safe
def scenarios(request):
    """What the shop keeps, and the closed calls an exercise can be made of."""
    kept = Scenario.objects.for_user(request.user).filter(gone_at=None).select_related("by")
    calls = Call.objects.for_user(request.user).filter(closed_at__isnull=False, findings__undone_at=None, findings__isnull=False)
    closed = calls.select_related("unit").distinct()[:CALLS_SHOWN]
    return render(request, "yard/scenarios.html", {"kept": kept, "closed": closed})


def _form(request, typed=None, wrong=None, status=200):
    typed = typed or {}
    before = [(f"{part}.{did}", f"{words}") for part, did, words in
              (("valve", "turned_in", "turned the valve in, 1½ turns"), ("valve", "turned_out", "turned the valve out, 1½ turns"),
               ("charge", "added", "put gas in, a seventh of the charge"))]  # fmt: skip
    context = {
        "typed": typed, "wrong": wrong or {}, "kinds": [(code, kind.label) for code, kind in KINDS.items()],
        "causes": sorted(((code, causes.get(code).label) for code in faults.FAULTS), key=lambda row: row[1]),
        "rows": [(n, typed.get(f"cause-{n}", ""), typed.get(f"severity-{n}", "0.7"), (wrong or {}).get(f"cause-{n}", ""))
                 for n in range(1, FAULTS + 1)],
        "severities": SEVERITIES, "before": before, "helps": HELP_WORDS.items(), "weather_unit": shown_to(request.user).label("°F"),
    }  # fmt: skip
    return render(request, "yard/write.html", context, status=status)


@require_http_methods(["GET", "HEAD", "POST"])
def write(request):
    """Write a scenario; what is wrong is said beside its field."""
    if request.method != "POST":
        return _form(request)
    try:
        kept = keep_scenario(request.user, _written(request))
    except FieldErrors as error:
        return _form(request, request.POST, error.by_field, 422)
    except InputError as error:
        return _form(request, request.POST, {"all": str(error)}, 422)
    messages.success(request, f"{kept.title}: kept for the shop.")
    return redirect("scenarios")


def _written(request):
    typed, wrong, shown = request.POST, {}, shown_to(request.user)
    outside = 85.0
    if typed.get("outside", "").strip():
        try:
            outside = shown.parse(typed["outside"], "°F")
        except InputError as error:
            wrong["outside"] = f"Weather: {error}; allowed {shown.span(*core.OUTSIDE_F, '°F')}"
    refrigerant = ""
    try:
        refrigerant = refrigerants.meant(typed.get("refrigerant", "")).name
    except InputError as error:
        wrong["refrigerant"] = str(error)
    for name, label in (("title", "What it is called"), ("story", "What the customer says")):
        if len(typed.get(name, "").strip()) < 2:
            wrong[name] = f"{label}: 2 letters at least"
    if typed.get("kind") not in KINDS:
        wrong["kind"] = "Kind: choose one"
    chosen = [(n, typed.get(f"cause-{n}", ""), typed.get(f"severity-{n}", "0.7")) for n in range(1, FAULTS + 1)]
    grades = dict(SEVERITIES)
    put_in = [{"cause": cause, "severity": float(severity) if severity in grades else 0.7} for _, cause, severity in chosen if cause]
    if not put_in:
        wrong["cause-1"] = "What is wrong: choose one at least"
    if wrong:
        raise FieldErrors(wrong)
    part, _, did = typed.get("before", "").partition(".")
    amount = next((amount for one, other, amount in DONE_BEFORE if (one, other) == (part, did)), None)
    try:
        return core.checked({
            "format": core.FORMAT, "version": 1, "title": typed["title"].strip(), "story": typed["story"].strip(),
            "aim": typed.get("aim", "").strip(), "unit": {"kind": typed["kind"], "refrigerant": refrigerant, **_plate(typed["kind"])},
            "outside_f": outside, "faults": put_in, "help": typed.get("help", "all"),
            "before": [{"part": part, "did": did, "amount": amount}] if amount is not None else [],
        })  # fmt: skip
    except InputError as error:
        where, _, words = str(error).partition(": ")
        field = {"outside_f": "outside", "unit": "kind", "title": "title", "story": "story"}.get(where.partition(".")[0], "")
        if where.startswith("faults."):
            field = f"cause-{int(where.split('.')[1]) + 1}"
        raise FieldErrors({field or "all": words or where}) from None


def _plate(kind):
    """What a unit of a kind usually has on its plate."""
    usual = PRESETS.get(kind)
    found = {name: getattr(usual, name) for name in ("phases", "compressor_rla_a", "defrost")} if usual else {}
    return {name: value for name, value in found.items() if value is not None}


@require_POST
def read_in(request):
    """Take a scenario in from its file."""
    file = request.FILES.get("file")
    with refusals_said(request):
        if file is None:
            raise InputError("Choose a file first")
        if file.size > core.MOST_BYTES:
            raise InputError(f"A scenario is at most {core.MOST_BYTES // 1000} kB")
        kept = keep_scenario(request.user, core.read(file.read()))
        messages.success(request, f"{kept.title}: kept for the shop.")
    return redirect("scenarios")


@require_safe
def schema(request):
    """The JSON Schema of scenario files."""
    return JsonResponse(core.schema(), json_dumps_params={"indent": 2})


def _kept(request, pk):
    return get_object_or_404(Scenario.objects.for_user(request.user).filter(gone_at=None), pk=pk)


@require_POST
def begin_one(request, pk):
    """Begin a practice call on a scenario."""
    kept = _kept(request, pk)
    try:
        one = core.checked(kept.told)
        return redirect(address_of(begin(request.user, core.draw_of(one), help_by=one.help, scenario=kept)))
    except InputError as error:
        messages.error(request, str(error))
    return redirect("scenarios")


@require_safe
def as_file(request, pk):
    """A scenario as its file."""
    kept = _kept(request, pk)
    response = HttpResponse(core.write(core.checked(kept.told)), content_type="application/json; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="scenario-{kept.pk}.json"'
    return response


@require_POST
def put_away_one(request, pk):
    """Take a scenario off the list."""
    with refusals_said(request):
        put_away(request.user, _kept(request, pk))
        messages.success(request, "Put away.")
    return redirect("scenarios")


@require_POST
def from_call(request, number):
    """Lay a closed call of the shop open as an exercise."""
    call = get_object_or_404(Call.objects.for_user(request.user).prefetch_related("readings"), number=number)
    with refusals_said(request):
        kind = KINDS[call.unit.kind].label
        title = " ".join(request.POST.get("title", "").split())[:80] or f"A {kind} as it was"
        story = " ".join(request.POST.get("story", "").split())[:600] or f"Somebody calls about a {kind}."
        kept = keep_scenario(request.user, laid_open(call, title, story))
        messages.success(request, f"{kept.title}: laid open, without names or places.")
    return redirect("scenarios")
