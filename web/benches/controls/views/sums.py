"""The sums beside the pressure switch: thermostat, sensor, suction regulator, high side; nothing of them is kept."""

from kettle.benches.controls import head, regulators, sensors, swing, year
from kettle.benches.controls.predict import by_thermostat
from kettle.benches.controls.pressure import Problem
from kettle.knowledge import anatomy
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import shown_to
from web.round.asked import Asked as Figures

DIALS = {"middle": "the middle it holds", "cut_in": "its cut-in", "cut_out": "its cut-out"}

# Each form with its fields: name, label, unit.
FORMS = {
    "thermostat": (("warmest_f", "Warmest air", "°F"), ("coldest_f", "Coldest air", "°F"), ("td_f", "TD", "°F diff"),
                   ("cut_in", "Cut-in", "psig"), ("cut_out", "Cut-out", "psig")),
    "pump_down": (("coldest_met_f", "Coldest it meets", "°F"), ("cut_in", "Cut-in", "psig"), ("cut_out", "Cut-out", "psig")),
    "days": (("site_coldest_f", "Coldest day", "°F"), ("site_hottest_f", "Hottest at the condenser", "°F")),
    "found": (("found_in", "Cut-in as found", "psig"), ("found_out", "Cut-out as found", "psig")),
    "cycles": (("box_f", "Box now", "°F"), ("psig", "Suction now", "psig")),
    "swing": (("swing_in", "Closed at", "°F"), ("swing_out", "Opened at", "°F"), ("dial", "Dial", "°F"), ("wanted", "Wanted", "°F"),
              ("swing_box", "Mid-box, about", "°F")),
    "sensor": (("sensor_ohm", "Meter", "Ω"), ("really", "Thermometer", "°F")),
    "warmed": (("was_box", "Box, before", "°F"), ("now_box", "Box, after", "°F"), ("was_coil", "Coil, before", "°F"),
               ("now_coil", "Coil, after", "°F"), ("was_supply", "Supply, before", "°F"), ("now_supply", "Supply, after", "°F")),
    "crankcase": (("before", "Before it", "psig"), ("after", "Behind it", "psig")),
    "evaporator": (("coil_f", "Coil wanted", "°F"), ("before", "Before it", "psig"), ("after", "Behind it", "psig")),
    "head": (("held_f", "Held at least at", "°F"), ("hp_out", "High-pressure cut-out", "psig"),
             ("fan_1_in", "Fan 1 starts", "psig"), ("fan_1_out", "Fan 1 stops", "psig"),
             ("fan_2_in", "Fan 2 starts", "psig"), ("fan_2_out", "Fan 2 stops", "psig")),
}  # fmt: skip

# The choices each form has besides its figures.
PICKED = {
    "thermostat": ("use", "build"), "pump_down": ("use", "build"), "swing": ("dial_is",), "sensor": ("curve",), "warmed": ("warmed",),
    "crankcase": ("regulator",), "evaporator": ("regulator",), "head": ("holder",), "alarms": ("shows",),
    "found": ("why",),
}  # fmt: skip
PROBES = {"box": "box probe", "coil": "coil probe", "supply": "supply probe"}

# A cut-out that nobody typed stands in no fan's way.
HIGHEST_PSIG = 1e4
USUAL_DAY_F = 80.0


class Asked(Figures):
    """Figures typed in the forms of Controls."""

    # No switch goes higher.
    SPANS = {"psig": (-14.6, 700.0)}

    def __init__(self, request, typed=None):
        super().__init__(request.GET if typed is None else typed, shown_to(request.user))

    def forms(self, typed):
        """The fields of each form: name, label, unit, what stands in it, what is wrong with it."""
        return {
            form: [(name, label, self.shown.label(unit), typed.get(name, ""), self.wrong.get(name, "")) for name, label, unit in fields]
            for form, fields in FORMS.items()
        }

    def carried(self):
        """By form: what stands in the other forms of the page, so that working out one loses nothing typed in another."""
        known = {name for fields in FORMS.values() for name, _, _ in fields} | {name for names in PICKED.values() for name in names}
        standing = [(name, value) for name, value in self.typed.items() if value and name in known]
        own = {form: {name for name, _, _ in FORMS.get(form, ())} | set(PICKED.get(form, ())) for form in {*FORMS, *PICKED}}
        return {form: [(name, value) for name, value in standing if name not in names] for form, names in own.items()}


def sums(asked, standing):
    """Everything beside the pressure switch."""
    return _swing(asked, standing) | _sensor(asked) | _warmed(asked) | _regulator(asked, standing) | _head(asked, standing)


def _swing(asked, standing):
    """The thermostat swung, where all was typed."""
    figures = {
        "swing_in": asked.figure("swing_in", "Cut-in seen", "°F"), "swing_out": asked.figure("swing_out", "Cut-out seen", "°F"),
        "dial": asked.figure("dial", "Dial", "°F"), "wanted": asked.figure("wanted", "Wanted", "°F", standing.unit.set_f),
    }  # fmt: skip
    box = asked.figure("swing_box", "Mid-box", "°F")
    context = {"swing": None, "dials": DIALS.items(), "dial_is": asked.choice("dial_is", DIALS),
               "swing_typed": {name: asked.typed.get(name, "") for name in (*figures, "swing_box")}}  # fmt: skip
    if None in figures.values():
        return context
    try:
        found = context["swing"] = swing.swung(*figures.values(), context["dial_is"])
        context |= _foretold(asked, standing, found)
        context["swing_says"] = [text for text in (swing.place(found, box), *found.says, context["swing_often"]) if text]
    except FieldErrors as error:
        names = {"cut_in_f": "swing_in", "cut_out_f": "swing_out", "dial_f": "dial", "wanted_f": "wanted"}
        asked.wrong.update({names.get(name, name): text for name, text in error.by_field.items()})
    return context


def _foretold(asked, standing, found):
    """The box and its starts as the plant model has them with such a thermostat, now and on the hottest day."""
    unit, site = standing.unit, standing.call.unit.site
    _, hot = year.at_condenser_f(unit, year_of_site(site))
    now = standing.judgement.facts.number("ambient_f") or USUAL_DAY_F
    predicted = by_thermostat(unit, found.holds_f, found.differential_f, [now, hot])
    return {
        "swing_foretold": list(zip(("Now", "A hot day"), predicted, (does(one, asked.shown) for one in predicted), strict=True)),
        "swing_often": swing.often(max(one.starts_an_hour for one in predicted)),
    }


def year_of_site(site):
    """The coldest and hottest day of a call's site; the usual for a quick look."""
    return year.year_of(site.coldest_f, site.hottest_f) if site else year.Year()


def does(one, shown):
    """What is predicted at an ambient, in words."""
    box = f"box {shown.figure(one.lowest_f, '°F', 0)} to {shown.text(one.highest_f, '°F', 0)}"
    if one.runs_on:
        rhythm = "never stops"
    elif one.stays_off:
        rhythm = "never starts"
    else:
        rhythm = f"{one.on_min:.0f} min on, {one.off_min:.0f} off, {one.starts_an_hour:.1f} starts an hour"
    tail = ["" if one.clears else "the coil does not clear", "stock freezes" if one.freezes else ""]
    return "; ".join([box, rhythm, *[text for text in tail if text]])


def _warmed(asked):
    """Which reading moved when one probe was warmed in the hand."""
    before, after = ({label: asked.figure(f"{when}_{code}", f"{label.capitalize()}, {word}", "°F") for code, label in PROBES.items()}
                     for when, word in (("was", "before"), ("now", "after")))  # fmt: skip
    warmed = asked.choice("warmed", PROBES)
    typed = {name: asked.typed.get(name, "") for name, _, _ in FORMS["warmed"]}
    context = {"warmed": warmed, "probes_known": PROBES.items(), "warmed_typed": typed, "warmed_says": "", "exchanged": False}
    both = [{label: value for label, value in side.items() if value is not None} for side in (before, after)]
    if both[0] and both[1] and not asked.wrong:
        try:
            context["warmed_says"] = sensors.moved(PROBES[warmed], *both)
            context["exchanged"] = "exchanged" in context["warmed_says"]
        except InputError as error:
            asked.wrong["was_box"] = str(error)
    return context


def _sensor(asked):
    """A sensor's ohms beside a thermometer."""
    curve = asked.choice("curve", sensors.CURVES)
    ohm, really = asked.figure("sensor_ohm", "Ohms", "Ω"), asked.figure("really", "Thermometer", "°F")
    context = {"curves": [(code, one.label) for code, one in sensors.CURVES.items()], "curve": curve, "sensor_says": "",
               "sensor_typed": {name: asked.typed.get(name, "") for name in ("sensor_ohm", "really")}}  # fmt: skip
    if ohm is None or really is None:
        return context
    try:
        context["sensor_says"] = sensors.judged(curve, ohm, really)
    except InputError as error:
        asked.wrong["sensor_ohm"] = str(error)
    return context


def _regulator(asked, standing):
    """A suction regulator by the pressures before and behind it."""
    unit = standing.unit
    kind = asked.choice("regulator", {"crankcase": "", "evaporator": ""})
    before, after = asked.figure("before", "Before it", "psig"), asked.figure("after", "Behind it", "psig")
    sct = standing.judgement.facts.derived.get("sct_f") or 105.0
    coil = asked.figure("coil_f", "Coil", "°F", regulators.usual_coil_f(unit))
    context = {
        "regulator_there": anatomy.get("regulator").exists_on(unit),
        "regulator": kind,
        "regulator_says": None,
        "regulator_typed": {name: asked.typed.get(name, "") for name in ("before", "after", "coil_f")},
    }
    try:
        wanted = (
            regulators.crankcase_psig(unit.refrigerant, unit.altitude_ft, sct, unit.kind.freezer)
            if kind == "crankcase"
            else regulators.coil_psig(unit.refrigerant, unit.altitude_ft, coil)
        )
    except FieldErrors as error:
        asked.wrong.update(error.by_field)
        return context
    context["regulator_wanted"] = asked.shown.text(wanted, "psig", 0)
    if before is not None and after is not None:
        context["regulator_says"] = regulators.regulator_says(kind, before, after, wanted)
    return context


def _head(asked, standing):
    """The high side: pressures of a wanted condensing temperature, and the head over the year."""
    unit, shown = standing.unit, asked.shown
    r, altitude = unit.refrigerant, unit.altitude_ft
    split = standing.judgement.facts.derived.get("split_f") or head.USUAL_SPLIT_F
    held = asked.figure("held_f", "Held at least at", "°F", 80.0)
    cut_out = asked.figure("hp_out", "High-pressure cut-out", "psig")
    holder = asked.choice("holder", head.HOLDERS)
    outdoor = year_of_site(standing.call.unit.site).outdoor_f
    heads = head.head_over(r, altitude, outdoor, split, held)
    fans = []
    for number in (1, 2):
        ends = [asked.figure(f"fan_{number}_{end}", f"Fan {number} {word}", "psig") for end, word in (("in", "starts"), ("out", "stops"))]
        if None not in ends:
            fans.append(head.FanSwitch(*ends))
    said = head.problems(fans, cut_out if cut_out is not None else HIGHEST_PSIG, heads[-1]) if fans or cut_out is not None else []
    if cut_out is not None:
        trip = year.fails_in_summer(cut_out, heads, outdoor)
        said = [*([Problem(trip, refused=True)] if trip else []), *said]
    return {
        "holders": head.HOLDERS.items(),
        "holder": holder,
        "holder_says": _held(asked, holder, r, altitude, held, split),
        "hp_sct": _saturated(asked, r, altitude, cut_out),
        "head_typed": {name: asked.typed.get(name, "") for name, _, _ in FORMS["head"]},
        "head_fits": bool(fans or cut_out is not None) and not said,
        "held_f": shown.edit(held, "°F"),
        "held_psig": shown.text(r.bubble_psig(held, altitude), "psig", 0),
        "heads": [
            (shown.text(one, "°F", 0), shown.text(psig, "psig", 0), f"{pct:.0f}")
            for one, psig, pct in zip(outdoor, heads, head.shares_pct(heads), strict=True)
        ],
        "head_problems": said,
    }


def _held(asked, holder, refrigerant, altitude_ft, held_f, split_f):
    try:
        return head.holder(holder, refrigerant, altitude_ft, held_f, split_f)
    except FieldErrors as error:
        asked.wrong["held_f"] = next(iter(error.by_field.values()))
        return []


def _saturated(asked, refrigerant, altitude_ft, cut_out_psig):
    """The condensing temperature at a cut-out that was typed; empty without one, or beyond the table."""
    try:
        return "" if cut_out_psig is None else asked.shown.text(refrigerant.bubble_f(cut_out_psig, altitude_ft), "°F", 0)
    except InputError:
        return ""
