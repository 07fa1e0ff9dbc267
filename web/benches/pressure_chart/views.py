"""The saturation ladder, and the card of chosen refrigerants to print."""

from dataclasses import dataclass, field

from django.shortcuts import render
from django.views.decorators.http import require_safe

from kettle.benches.pressure_chart import rails as core
from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import check_figure
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import whole
from web.accounts.access import shown_to

HEIGHT = 600
FIRST_REFRIGERANT, FIRST_F = "R-404A", 20.0
MOST_ON_A_CARD = 4
CARD_STEPS = (2, 5, 10)
CARD_SPAN_F = (-50, 130)


@dataclass
class Asked:
    """What was asked of the ladder, and what is wrong with it by field."""

    refrigerant: refrigerants.Refrigerant
    altitude_ft: float
    line: str
    looked: core.Looked
    errors: dict = field(default_factory=dict)


def _asked(request, shown):
    """Read the question; what is wrong is said beside its field, and the last sound look-up stays."""
    asked, errors = request.GET, {}
    try:
        refrigerant = refrigerants.get(asked.get("refrigerant") or FIRST_REFRIGERANT)
    except InputError as error:
        refrigerant, errors["refrigerant"] = refrigerants.get(FIRST_REFRIGERANT), str(error)
    altitude = 0.0
    if asked.get("altitude_ft", "").strip():
        try:
            altitude = check_figure("altitude_ft", shown.parse(asked["altitude_ft"], "ft"))
        except InputError as error:
            errors["altitude_ft"] = str(error)
    line = "bubble" if asked.get("line") == "bubble" else "dew"
    looked = None
    moved = asked.get("moved") or next((name for name in ("pressure", "temperature") if asked.get(name, "").strip()), "")
    try:
        if moved == "pressure" and asked.get("pressure", "").strip():
            looked = core.at_pressure(refrigerant, shown.parse(asked["pressure"], "psig"), altitude)
        elif moved == "temperature" and asked.get("temperature", "").strip():
            looked = core.at_temperature(refrigerant, shown.parse(asked["temperature"], "°F"), line, altitude)
        elif moved == "pressure_at":
            looked = core.at_temperature(refrigerant, float(asked["pressure_at"]), "dew", altitude)
        elif moved == "temperature_at":
            looked = core.at_temperature(refrigerant, float(asked["temperature_at"]), line, altitude)
    except (InputError, ValueError, KeyError) as error:
        field_name = "temperature" if moved.startswith("temperature") else "pressure"
        errors[field_name] = str(error) if isinstance(error, InputError) else "not a number"
    if looked is None:
        looked = core.at_temperature(refrigerant, FIRST_F, "dew", altitude)
    return Asked(refrigerant, altitude, line, looked, errors)


@require_safe
def ladder(request):
    """The ladder of a refrigerant with one look-up on it; a fragment where only the look-up moved."""
    shown = shown_to(request.user)
    asked = _asked(request, shown)
    rails = core.rails(asked.refrigerant, asked.altitude_ft, shown, HEIGHT)
    looked = asked.looked
    on_line = looked.dew_f if asked.line == "dew" else looked.bubble_f
    facts = [("Pressure", shown.text(looked.psig, "psig"))]
    facts += [("Dew", shown.text(looked.dew_f, "°F")), ("Bubble", shown.text(looked.bubble_f, "°F"))]
    if asked.refrigerant.glides:
        facts += [("Mid-point", shown.text(looked.mid_f, "°F")), ("Glide", shown.text(looked.glide_f, "°F diff"))]
    context = {
        "asked": asked,
        "rails": rails,
        "y_dew": min(max(rails.y_of(looked.dew_f), 0), HEIGHT),
        "y_bubble": min(max(rails.y_of(looked.bubble_f), 0), HEIGHT),
        "facts": facts,
        "pressure_text": request.GET.get("pressure", "") if "pressure" in asked.errors else shown.edit(looked.psig, "psig"),
        "temperature_text": request.GET.get("temperature", "") if "temperature" in asked.errors else shown.edit(on_line, "°F"),
        "on_line_f": on_line,
        "pressure_unit": shown.label("psig"),
        "temperature_unit": shown.label("°F"),
        "names": list(refrigerants.catalogue()),
        "source": refrigerants.source(),
    }
    return render(request, "pressure_chart/_ladder.html" if request.htmx else "pressure_chart/ladder.html", context)


@require_safe
def card(request):
    """Pressures of up to four chosen refrigerants by temperature, to print and take along."""
    shown, errors = shown_to(request.user), {}
    names = [name for name in request.GET.getlist("r") if name in refrigerants.catalogue()][:MOST_ON_A_CARD] or [FIRST_REFRIGERANT]
    altitude = 0.0
    if request.GET.get("altitude_ft", "").strip():
        try:
            altitude = check_figure("altitude_ft", shown.parse(request.GET["altitude_ft"], "ft"))
        except InputError as error:
            errors["altitude_ft"] = str(error)
    asked_step = request.GET.get("step", "")
    step = whole(asked_step, 0, 99)
    step = step if step in CARD_STEPS else CARD_STEPS[1]
    measure = shown.measure("°F")
    first, last = (round(measure.to_shown(end) / step) * step for end in CARD_SPAN_F)
    figures = list(range(first, last + 1, step))
    chosen = [refrigerants.get(name) for name in names]
    temperatures = [measure.to_stored(figure) for figure in figures]
    columns = [core.card(refrigerant, temperatures, altitude) for refrigerant in chosen]
    rows = [
        (f"{figure}".replace("-", "−"), [_card_cells(column[place], r, shown) for column, r in zip(columns, chosen, strict=True)])
        for place, figure in enumerate(figures)
    ]
    context = {
        "chosen": chosen,
        "rows": [rows[: (len(rows) + 1) // 2], rows[(len(rows) + 1) // 2 :]],
        "names": list(refrigerants.catalogue()),
        "picked": names,
        "altitude_text": request.GET.get("altitude_ft", ""),
        "altitude_ft": altitude,
        "step": step,
        "steps": CARD_STEPS,
        "errors": errors,
        "pressure_unit": shown.label("psig"),
        "temperature_unit": shown.label("°F"),
        "source": refrigerants.source(),
    }
    return render(request, "pressure_chart/card.html", context)


def _card_cells(pair, refrigerant, shown):
    """Dew and, for a blend with glide, bubble pressure in words; inches of mercury below zero."""

    def words(psig):
        if psig is None:
            return "–"
        return shown.text(psig, "psig").rpartition("(")[2].rstrip(")") if psig < 0 else shown.figure(psig, "psig")

    return [words(psig) for psig in (pair if refrigerant.glides else pair[:1])]
