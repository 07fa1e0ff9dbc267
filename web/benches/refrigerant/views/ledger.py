"""The shop's ledger of refrigerant: cylinders with their balance, every line, counter-entries, CSV, and a site's year."""

from django.contrib import messages
from django.core.paginator import Paginator
from django.db.models import Sum
from django.http import StreamingHttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from kettle.benches.refrigerant import cylinders, ledger
from kettle.knowledge import refrigerants
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import whole
from web import work_time
from web.accounts.access import shop_of, shown_to
from web.logbook.actions.gas import BY_HAND, CSV_COLUMNS, counter_move, import_moves, keep_cylinder, keep_move
from web.logbook.csv_lines import lines
from web.logbook.models import GasMove, Site
from web.logbook.refrigerant.ledger import over_limit
from web.logbook.refusals import refusals_said

LINES_A_PAGE = 50
COLUMNS = ("day", "kind", "ounces", "refrigerant", "cylinder", "unit", "call", "by", "reason", "counters")
CYLINDER_FIELDS = (
    ("number", "Number", ""),
    ("refrigerant", "Refrigerant", ""),
    ("tare_lb", "Tare", "lb"),
    ("water_lb", "Water capacity", "lb"),
)


@require_safe
def show(request):
    """The ledger."""
    return _page(request)


def _page(request, typed=None, wrong=None, form=""):
    shop, shown, typed, wrong = shop_of(request.user), shown_to(request.user), typed or {}, wrong or {}
    # What stands beside a line is fetched for the lines of one page alone.
    page = Paginator(shop.gas_moves.values_list("pk", flat=True), LINES_A_PAGE).get_page(request.GET.get("page"))
    lines = shop.gas_moves.filter(pk__in=list(page)).select_related("cylinder", "unit__site", "call", "by", "countered_by")
    context = {
        "page": page,
        "rows": [(move, shown.text(move.oz, "oz", 1)) for move in lines],
        "cylinders": _cylinders(shop, shown),
        "leaking": [(unit, f"{rate.pct:.0f} %", rate.says) for unit, rate in over_limit(shop)],
        "kinds": [(code, ledger.KINDS[code].label) for code in BY_HAND if code != "added"],
        "sites": shop.sites.all(), "year": timezone.localdate(work_time.now()).year,
        "typed": typed, "wrong": wrong, "form": form,
        "cylinder_fields": [
            (name, label, shown.label(unit) if unit else "", typed.get(name, "") if form == "cylinder" else "",
             wrong.get(name, "") if form == "cylinder" else "", not unit)
            for name, label, unit in CYLINDER_FIELDS
        ],
        "mass": shown.label("lb"), "csv_columns": ", ".join(CSV_COLUMNS), "refrigerants": list(refrigerants.catalogue()),
    }  # fmt: skip
    return render(request, "refrigerant/ledger.html", context)


def _cylinders(shop, shown):
    """Each cylinder with what it should hold by its lines, its limit, and what is wrong with that."""
    sums = {}
    for row in shop.gas_moves.exclude(cylinder=None).order_by().values("cylinder", "kind").annotate(oz=Sum("oz")):
        sums.setdefault(row["cylinder"], {})[row["kind"]] = row["oz"]
    rows = []
    for one in shop.cylinders.filter(gone_at=None):
        balance = ledger.balance_of(sums.get(one.pk, {}))
        limit = cylinders.limit_lb(refrigerants.get(one.refrigerant), one.water_lb) if one.water_lb and one.recovery else None
        rows.append(
            (
                one,
                shown.text(cylinders.lb(balance), "lb", 1),
                shown.text(limit, "lb", 1) if limit else "–",
                ledger.wrong_with(balance, limit),
            )
        )
    return rows


@require_POST
def add_cylinder(request):
    """Keep a new cylinder."""
    try:
        made = keep_cylinder(request.user, request.POST)
    except InputError as error:
        return _page(request, request.POST, error.beside("number"), "cylinder")
    messages.success(request, f"Cylinder {made} is kept.")
    return redirect("ledger")


@require_POST
def add_move(request):
    """Keep a line."""
    try:
        keep_move(request.user, request.POST)
    except InputError as error:
        return _page(request, request.POST, error.beside("amount"), "move")
    messages.success(request, "The line is kept.")
    return redirect("ledger")


@require_POST
def read_in(request):
    """Read lines in from a CSV file."""
    try:
        booked, stood = import_moves(request.user, request.FILES.get("file"))
    except InputError as error:
        return _page(request, {}, {"file": str(error)}, "file")
    words = f" {stood} stand in the ledger already and are left as they are." if stood else ""
    messages.success(request, f"{booked} lines read in.{words}")
    return redirect("ledger")


@require_POST
def counter(request, pk):
    """Take a line back by a counter-entry."""
    move = get_object_or_404(GasMove.objects.for_user(request.user), pk=pk)
    with refusals_said(request):
        counter_move(request.user, move, request.POST.get("reason", ""))
        messages.success(request, "Countered by a line of its own.")
    return redirect("ledger")


@require_safe
def as_csv(request):
    """The whole ledger, oldest first, line by line."""
    moves = shop_of(request.user).gas_moves.select_related("cylinder", "unit__site", "call", "by").order_by("day", "pk")

    def rows():
        yield COLUMNS
        for one in moves.iterator(chunk_size=2000):
            who = one.by.get_full_name() or one.by.username
            yield (one.day, one.kind, f"{one.oz:.2f}", one.refrigerant, one.cylinder, one.unit, one.call.number if one.call else None, who,
                   one.reason, one.counters_id)  # fmt: skip

    answer = StreamingHttpResponse(lines(rows()), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="refrigerant.csv"'
    return answer


@require_safe
def year(request, pk):
    """A site's year to print: what each unit took and gave."""
    site = get_object_or_404(Site.objects.for_user(request.user), pk=pk)
    shown, of = shown_to(request.user), whole(request.GET.get("year", ""), 2000, 2100) or timezone.localdate(work_time.now()).year
    moves = list(
        GasMove.objects.filter(unit__site=site, day__year=of).select_related("unit", "call", "by", "cylinder").order_by("day", "pk")
    )
    units = {}
    for one in moves:
        units.setdefault(one.unit, []).append((one, shown.text(one.oz, "oz", 1)))
    rows = [(unit, moves, *(_sum(moves, kind, shown) for kind in ("added", "recovered"))) for unit, moves in units.items()]
    return render(request, "refrigerant/year.html", {"site": site, "year": of, "rows": rows})


def _sum(moves, kind, shown):
    return shown.text(sum(one.oz for one, _ in moves if one.kind == kind), "oz", 1)
