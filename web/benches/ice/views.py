"""The ice map, and the melt: planned, started, proved clear."""

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST

from kettle.benches.ice import map as ice
from kettle.benches.ice import melt as core
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, format_number, whole
from web.benches.ice.actions import melt as actions
from web.benches.ice.actions.keep_ice_map import keep_ice_map
from web.logbook.calls.ice_shown import Shown
from web.logbook.refusals import refusals_said
from web.round.icemaps import painting
from web.round.photos import photo_context
from web.round.views.pages import call_of, show, standing_of

SUPPLY, COIL_PLACE = "warm", "open"


def melt_context(request, standing):
    """What the stop shows: what must come first, the methods planned, both maps, what is still against all clear."""
    call, facts = standing.call, standing.judgement.facts
    supply = _one_of(request.GET.get("supply"), core.SUPPLIES, SUPPLY)
    coil_place = _one_of(request.GET.get("coil_place"), core.COIL_PLACES, COIL_PLACE if standing.unit.walk_in else "in_cabinet")
    deep = _one_of(request.GET.get("deep"), ice.DEPTHS, ice.USUAL_DEPTH)
    mass = standing.ice.mass_lb(deep)
    pour, pour_error = _pour_rate(request.GET.get("pour", ""))
    face_ft2 = call.unit.face_ft2 * standing.unit.evaporators
    made = core.plans(facts, mass or (0.0, 0.0), face_ft2, supply, coil_place, pour)
    melts = call.melts.filter(undone_at=None).select_related("by")
    running = melts.filter(ended_at=None).last()
    return {
        **painting(standing, "after"),
        **photo_context(call),
        "missing": core.must_come_first(facts),
        "plans": [
            (p, *((_span(p.minutes, "min"), _span(p.water_gal, "gal")) if mass else ("", "")), core.must_come_first(facts, p.method))
            for p in made
            if not p.refusals
        ],
        "refused": [p for p in made if p.refusals],
        "after_drawn": any(after for _, _, after in standing.ice.pairs),
        "first_step": core.first_step(facts),
        "release_fails": standing.unit.walk_in and facts.is_("inside_release", "fails"),
        "deep": deep,
        "depths": [(code, words) for code, (words, _) in ice.DEPTHS.items()],
        "ice_words": _span(mass, "lb"),
        "pour": request.GET.get("pour", ""),
        "pour_error": pour_error,
        "supply": supply,
        "supplies": core.SUPPLIES.items(),
        "coil_place": coil_place,
        "coil_places": core.COIL_PLACES.items(),
        "ticks": [*standing.safety_tags, *(standing.tag(key) for key in ("drain", "melt_water"))],
        **_scene(standing),
        "melt": running,
        "melt_label": core.METHODS[running.method].label if running else "",
        "ran": format_number(running.ran_min, 0) if running else "",
        "ended": melts.filter(ended_at__isnull=False).last(),
        "not_clear": actions.not_clear(call),
        "typed_reason": "",
    }


# Where the mark of each tick stands on the scene: left, top.
MARKS = {"power_locked_out": (112, 34), "parts_protected": (418, 112), "inside_release": (590, 52), "latch_blocked": (590, 100),
         "someone_outside": (722, 30), "drain": (556, 128), "melt_water": (556, 44)}  # fmt: skip


def _scene(standing):
    """The coil with its water's way out, its door and its power, and where each thing that comes first is marked on it."""
    picture = standing.picture()
    drawn = [("supply", 14, 18), ("coil", 180, 16), ("evap_fan", 180, 84), ("drain", 452, 62), ("door", 612, 10)]
    keys = [*(tag.entry.key for tag in standing.safety_tags), "drain", "melt_water"]
    return {
        "picture": picture,
        "scene": [({"spot": picture.spots[code]}, x, y) for code, x, y in drawn if code in picture.spots],
        "marks": [(key, number, *MARKS[key]) for number, key in enumerate(keys, start=1)],
    }


def _pour_rate(typed):
    """The pour rate typed, gal/min, None where the method's own counts; and what is wrong with it."""
    if not typed.strip():
        return None, ""
    try:
        rate = TRADE.parse(typed, "gal/min")
        return core.check_pour_rate(rate), ""
    except InputError as error:
        low, high = core.POUR_GPM
        text = str(error)
        return None, text if "outside" in text else f"Pour rate: {text}; allowed {low:g} to {high:g} gal/min"


def _one_of(word, allowed, otherwise):
    return word if word in allowed else otherwise


def _span(pair, unit):
    if not pair:
        return ""
    low, high = (format_number(value, 0) for value in pair)
    return f"{low} {unit}" if low == high else f"{low} to {high} {unit}"


def _painted(post):
    """The map as it was sent: rows, places that were looked at, cells with oil."""
    rows = post.get("rows", "").split("/")
    places = {}
    for code in ice.PLACES:
        letter = post.get(f"place-{code}", "")
        if letter:
            places[code] = ice.FORMS.get(letter, letter)
    oil = []
    for cell in post.get("oil", "").split():
        row, _, column = cell.partition("-")
        place = whole(row, 0, 99), whole(column, 0, 99)
        if None in place:
            raise InputError("Ice map: an oil mark lies off the coil")
        oil.append(place)
    return rows, places, oil


@require_POST
def ice_map(request, number):
    """Read a map that is being painted, or keep it."""
    call = call_of(request, number)
    stage, coil = request.POST.get("stage", ""), request.POST.get("coil", "1")
    back = "melt" if stage == "after" else "arrive"
    try:
        rows, places, oil = _painted(request.POST)
        if request.htmx:
            drawn = ice.parse(rows, places)
            painted = Shown(list(drawn.rows), dict(drawn.places), oil, call.unit.face_ft2)
            context = {"painted": painted, "stage": "after" if stage == "after" else "before", "coil": whole(coil, 1, 99) or 1}
            return render(request, "round/_ice_reading.html", context)
        keep_ice_map(request.user, call, stage, rows, places, oil, whole(coil, 0, 99) or 0)
    except (InputError, ValueError) as error:
        messages.error(request, str(error) if isinstance(error, InputError) else "Ice map: no such coil")
    else:
        messages.success(request, f"The {stage}-map is kept.")
    return redirect("stop", number=number, stop=back)


@require_POST
def start_melt(request, number):
    """Record that melting began; refused while something must come first."""
    call = call_of(request, number)
    standing = standing_of(request, call)
    with refusals_said(request):
        method = core.METHODS.get(request.POST.get("method", ""))
        if method is None:
            raise InputError("Method: choose one of the list")
        facts = standing.judgement.facts
        supply, coil_place = request.POST.get("supply", SUPPLY), request.POST.get("coil_place", COIL_PLACE)
        plan = core.plan(method, facts, standing.ice.mass_lb() or (0.0, 0.0), call.unit.face_ft2, supply, coil_place)
        actions.start_melt(request.user, call, facts, plan, request.POST.get("way_out", ""))
        messages.success(request, f"{method.label}: started.")
    return redirect("stop", number=number, stop="melt")


@require_POST
def pause_melt(request, number):
    """Rest: the clock of the melt stands."""
    return _clock(request, number, actions.pause_melt)


@require_POST
def resume_melt(request, number):
    """Go on melting."""
    return _clock(request, number, actions.resume_melt)


def _clock(request, number, act):
    with refusals_said(request):
        act(request.user, call_of(request, number))
    return redirect("stop", number=number, stop="melt")


@require_POST
def end_melt(request, number):
    """All clear, or ice left with a reason."""
    call = call_of(request, number)
    reason = request.POST.get("reason", "")
    try:
        melt = actions.end_melt(request.user, call, reason)
    except InputError as error:
        return show(request, call, "melt", clear_error=str(error), typed_reason=reason)
    messages.success(request, "All clear, proved." if melt.clear else "Ice left, with its reason.")
    return redirect("stop", number=number, stop="melt")
