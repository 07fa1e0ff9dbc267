"""The sums beside the pressure switch: thermostat, sensor, suction regulator, high side, alarms; nothing of them is kept."""

from kettle.benches.controls import alarms, head, regulators, sensors, swing
from kettle.knowledge import anatomy
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import shown_to

DIALS = {"middle": "the middle it holds", "cut_in": "its cut-in", "cut_out": "its cut-out"}

# Each form with its fields: name, label, unit.
FORMS = {
    "thermostat": (("warmest_f", "Warmest air", "°F"), ("coldest_f", "Coldest air", "°F"), ("td_f", "TD", "°F diff"),
                   ("cut_in", "Cut-in", "psig"), ("cut_out", "Cut-out", "psig")),
    "pump_down": (("coldest_met_f", "Coldest it meets", "°F"), ("cut_in", "Cut-in", "psig"), ("cut_out", "Cut-out", "psig")),
    "found": (("found_in", "Cut-in as found", "psig"), ("found_out", "Cut-out as found", "psig")),
    "cycles": (("box_f", "Box now", "°F"), ("psig", "Suction now", "psig")),
    "swing": (("swing_in", "Closed at", "°F"), ("swing_out", "Opened at", "°F"), ("dial", "Dial", "°F"), ("wanted", "Wanted", "°F")),
    "sensor": (("sensor_ohm", "Meter", "Ω"), ("really", "Thermometer", "°F")),
    "crankcase": (("before", "Before it", "psig"), ("after", "Behind it", "psig")),
    "evaporator": (("coil_f", "Coil wanted", "°F"), ("before", "Before it", "psig"), ("after", "Behind it", "psig")),
    "head": (("held_f", "Held at least at", "°F"), ("hp_out", "High-pressure cut-out", "psig"),
             ("fan_1_in", "Fan 1 starts", "psig"), ("fan_1_out", "Fan 1 stops", "psig"),
             ("fan_2_in", "Fan 2 starts", "psig"), ("fan_2_out", "Fan 2 stops", "psig")),
}  # fmt: skip

# What can be meant at all, by unit.
SPANS = {"°F": (-60.0, 145.0), "°F diff": (0.0, 60.0), "psig": (-14.6, 700.0), "Ω": (0.0, 1e7)}
# A cut-out that nobody typed stands in no fan's way.
HIGHEST_PSIG = 1e4


class Asked:
    """Figures typed in a form, in the units of the person; what is wrong with them by field."""

    def __init__(self, request):
        self.typed, self.shown, self.wrong = request.GET, shown_to(request.user), {}

    def figure(self, name, label, unit, otherwise=None):
        """A figure in the core's unit; what stands where nothing was typed."""
        text = self.typed.get(name, "").strip()
        if not text:
            return otherwise
        try:
            value = self.shown.parse(text, unit)
        except InputError as error:
            self.wrong[name] = f"{label}: {error}"
            return otherwise
        low, high = SPANS[unit]
        if low <= value <= high:
            return value
        self.wrong[name] = f"{label}: {self.shown.text(value, unit)} is outside {self.shown.span(low, high, unit)}"
        return otherwise

    def forms(self, typed):
        """The fields of each form: name, label, unit, what stands in it, what is wrong with it."""
        return {
            form: [(name, label, self.shown.label(unit), typed.get(name, ""), self.wrong.get(name, "")) for name, label, unit in fields]
            for form, fields in FORMS.items()
        }

    def choice(self, name, choices):
        """One of some words; the first where none was said."""
        said = self.typed.get(name, "")
        return said if said in choices else next(iter(choices))


def sums(asked, standing):
    """Everything beside the pressure switch."""
    context = _swing(asked, standing) | _sensor(asked) | _regulator(asked, standing) | _head(asked, standing)
    return context | {"alarms": alarms.ALARMS, "provoked": _provoked(standing)}


def _swing(asked, standing):
    """The thermostat swung, where all was typed."""
    figures = {
        "swing_in": asked.figure("swing_in", "Cut-in seen", "°F"), "swing_out": asked.figure("swing_out", "Cut-out seen", "°F"),
        "dial": asked.figure("dial", "Dial", "°F"), "wanted": asked.figure("wanted", "Wanted", "°F", standing.unit.set_f),
    }  # fmt: skip
    context = {"swing": None, "dials": DIALS.items(), "dial_is": asked.choice("dial_is", DIALS),
               "swing_typed": {name: asked.typed.get(name, "") for name in figures}}  # fmt: skip
    if None in figures.values():
        return context
    try:
        found = context["swing"] = swing.swung(*figures.values(), context["dial_is"])
        context["swing_starts"] = f"{swing.starts_an_hour(found.differential_f):.0f}"
    except FieldErrors as error:
        names = {"cut_in_f": "swing_in", "cut_out_f": "swing_out", "dial_f": "dial", "wanted_f": "wanted"}
        asked.wrong.update({names.get(name, name): text for name, text in error.by_field.items()})
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
        context["regulator_says"] = regulators.told(kind, before, after, wanted)
    return context


def _head(asked, standing):
    """The high side: pressures of a wanted condensing temperature, and the head over the year."""
    unit, shown = standing.unit, asked.shown
    r, altitude = unit.refrigerant, unit.altitude_ft
    split = standing.judgement.facts.derived.get("split_f") or head.USUAL_SPLIT_F
    held = asked.figure("held_f", "Held at least at", "°F", 80.0)
    cut_out = asked.figure("hp_out", "High-pressure cut-out", "psig")
    outdoor = (0.0, 20.0, 40.0, 60.0, 80.0, 95.0, 110.0)
    heads = head.head_over(r, altitude, outdoor, split, held)
    fans = []
    for number in (1, 2):
        ends = [asked.figure(f"fan_{number}_{end}", f"Fan {number} {word}", "psig") for end, word in (("in", "starts"), ("out", "stops"))]
        if None not in ends:
            fans.append(head.FanSwitch(*ends))
    said = head.problems(fans, cut_out if cut_out is not None else HIGHEST_PSIG, heads[-1]) if fans or cut_out is not None else []
    return {
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


def _provoked(standing):
    """Alarms that the settings on record bring up by themselves."""
    left = {change.parameter: change.as_left for change in standing.call.settingchanges.filter(undone_at=None)}

    def figure(code):
        try:
            return float(left[code].split()[0].replace(",", "."))
        except (KeyError, ValueError, IndexError):
            return None

    facts = standing.judgement.facts
    return alarms.provoked(
        figure("alarm_delay"),
        figure("fail_safe") or facts.number("defrost_set_min"),
        figure("drip"),
        figure("alarm_high"),
        standing.unit.differential_f,
    )
