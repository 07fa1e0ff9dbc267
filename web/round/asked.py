"""Figures asked by address: read in the units of the person, what is wrong with them said by field."""

import math

from kettle.knowledge.errors import InputError

# Units that everybody reads alike.
PLAIN = ("in", "ft", "ft³", "cfm", "%", "Btu/h", "")


class Asked:
    """Figures typed in the forms of a bench, in the units of the person; what is wrong with them by field.

    `SPANS` says what can be meant at all, by unit; one without a span is looked at by the core alone.
    """

    SPANS = {
        "°F": (-60.0, 145.0), "°F diff": (0.0, 60.0), "psig": (-14.6, 900.0), "Ω": (0.0, 1e7), "lb": (0.0, 3000.0), "in": (0.0, 300.0),
        "ft": (0.0, 3e4), "ft³": (0.0, 300.0), "%": (0.0, 100.0),
    }  # fmt: skip

    def __init__(self, typed, shown):
        self.typed, self.shown, self.wrong = typed, shown, {}

    def figure(self, name, label, unit, otherwise=None, span=None):
        """A figure in the core's unit; what stands where nothing was typed, or what was cannot be read."""
        text = self.typed.get(name, "").strip()
        if not text:
            return otherwise
        try:
            value = float(text.replace(",", ".").replace("−", "-")) if unit in PLAIN else self.shown.parse(text, unit)
        except InputError as error:
            self.wrong[name] = f"{label}: {error}"
            return otherwise
        except ValueError:
            value = math.nan
        if not math.isfinite(value):
            self.wrong[name] = f"{label}: “{text[:20]}” is not a figure{f' in {unit}' if unit else ''}"
            return otherwise
        span = span or self.SPANS.get(unit)
        if span is None or span[0] <= value <= span[1]:
            return value
        allowed = f"{span[0]:g} to {span[1]:g} {unit}".strip() if unit in PLAIN else self.shown.span(*span, unit)
        self.wrong[name] = f"{label}: {text[:20] if unit in PLAIN else self.shown.text(value, unit)} is outside {allowed}"
        return otherwise

    def choice(self, name, choices):
        """One of some words; the first where none was said."""
        said = self.typed.get(name, "")
        return said if said in choices else next(iter(choices))

    def fields(self, asked):
        """Fields of a form (name, label, unit, value that stands) as `_figure.html` takes them."""
        rows = []
        for name, label, unit, value in asked:
            stands = "" if value is None else f"{value:.4g}" if unit in PLAIN else self.shown.edit(value, unit)
            told = unit if unit in PLAIN else self.shown.label(unit)
            rows.append((name, label, told, self.typed.get(name, "") or stands, self.wrong.get(name, "")))
        return rows
