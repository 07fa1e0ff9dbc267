"""Figures asked by address: read in the units of the person, what is wrong with them said by field.

They are no form of Django's: what a field stands at is worked out from the judgement and from the fields before it, as it is read. The
field is.
"""

import math

from django import forms

from kettle.knowledge.errors import InputError

# Units that everybody reads alike.
PLAIN = ("in", "ft", "ft³", "cfm", "%", "Btu/h", "")


class UnitField(forms.Field):
    """A figure in the unit a person reads, cleaned to the core's; ValidationError says what, the allowed range and the unit.

    `SPANS` says what can be meant at all, by unit; one without a span is looked at by the core alone.
    """

    SPANS = {
        "°F": (-60.0, 145.0), "°F diff": (0.0, 60.0), "psig": (-14.6, 900.0), "Ω": (0.0, 1e7), "lb": (0.0, 3000.0), "in": (0.0, 300.0),
        "ft": (0.0, 3e4), "ft³": (0.0, 300.0), "%": (0.0, 100.0),
    }  # fmt: skip

    def __init__(self, unit, shown, span=None, **given):
        super().__init__(required=False, **given)
        self.unit, self.shown, self.span = unit, shown, span or self.SPANS.get(unit)

    @property
    def told_unit(self):
        """The unit as the person reads it."""
        return self.unit if self.unit in PLAIN else self.shown.label(self.unit)

    def prepare_value(self, value):
        """A figure of the core as it stands in the field."""
        return "" if value is None else f"{value:.4g}" if self.unit in PLAIN else self.shown.edit(value, self.unit)

    def to_python(self, value):
        """What was typed as a figure of the core; None where nothing was."""
        text = (value or "").strip()
        if not text:
            return None
        try:
            figure = float(text.replace(",", ".").replace("−", "-")) if self.unit in PLAIN else self.shown.parse(text, self.unit)
        except InputError as error:
            raise forms.ValidationError(f"{self.label}: {error}") from None
        except ValueError:
            figure = math.nan
        if not math.isfinite(figure):
            raise forms.ValidationError(f"{self.label}: “{text[:20]}” is not a figure{f' in {self.unit}' if self.unit else ''}")
        if self.span is not None and not self.span[0] <= figure <= self.span[1]:
            low, high = self.span
            allowed = f"{low:g} to {high:g} {self.unit}".strip() if self.unit in PLAIN else self.shown.span(low, high, self.unit)
            typed = text[:20] if self.unit in PLAIN else self.shown.text(figure, self.unit)
            raise forms.ValidationError(f"{self.label}: {typed} is outside {allowed}")
        return figure


class Asked:
    """Figures typed in the forms of a bench, in the units of the person; what is wrong with them by field.

    `SPANS` are those that are narrower on this bench.
    """

    SPANS = {}

    def __init__(self, typed, shown):
        self.typed, self.shown, self.wrong = typed, shown, {}

    def figure(self, name, label, unit, otherwise=None, span=None):
        """A figure in the core's unit; what stands where nothing was typed, or what was cannot be read."""
        try:
            value = UnitField(unit, self.shown, span or self.SPANS.get(unit), label=label).clean(self.typed.get(name, ""))
        except forms.ValidationError as error:
            self.wrong[name] = error.messages[0]
            return otherwise
        return otherwise if value is None else value

    def choice(self, name, choices):
        """One of some words; the first where none was said."""
        said = self.typed.get(name, "")
        return said if said in choices else next(iter(choices))

    def fields(self, asked):
        """Fields of a form (name, label, unit, value that stands) as `_figure.html` takes them."""
        rows = []
        for name, label, unit, value in asked:
            field = UnitField(unit, self.shown, label=label)
            stands = self.typed.get(name, "") or field.prepare_value(value)
            rows.append((name, label, field.told_unit, stands, self.wrong.get(name, "")))
        return rows
