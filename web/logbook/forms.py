"""The forms of the logbook; allowed words, figures and refrigerants come from the core."""

from django import forms
from django.urls import reverse_lazy

from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import BUILDS, CHOICES, KINDS, LIMITS, check_figure
from kettle.knowledge.errors import FieldErrors, InputError
from web.logbook.merging import changed, shown_by
from web.logbook.models import Site, Unit


def posted(request):
    """What was sent, even if that is nothing; None where the form is only shown."""
    return request.POST if request.method == "POST" else None


def texts_of(form):
    """What a form shows in each field, as it would be sent back untouched."""
    texts = {}
    for name, field in form.fields.items():
        value = field.prepare_value(form.get_initial_for_field(field, name))
        texts[name] = {None: "", True: "true", False: "false"}.get(value, str(value)) if not isinstance(value, float) else f"{value:g}"
    return texts


def merged(typed, standing):
    """What was sent with every untouched field as it stands now, and what is to be said of fields that another changed meanwhile."""
    sent, was, meanwhile = typed.copy(), shown_by(typed), {}
    for name, stands in standing.items():
        try:
            if not changed({name: sent.get(name, "")}, was, {name: stands}):
                sent[name] = stands
        except FieldErrors as error:
            meanwhile |= error.by_field
    return sent, meanwhile


class RefrigerantField(forms.CharField):
    """A refrigerant by a few letters of its number; what they may mean is shown while they are typed."""

    def __init__(self, **kwargs):
        asks = {"hx-get": reverse_lazy("refrigerants"), "hx-trigger": "input changed delay:120ms", "hx-target": "next .matches"}
        widget = forms.TextInput(attrs=asks | {"hx-sync": "this:replace", "autocomplete": "off", "placeholder": "448A"})
        super().__init__(label="Refrigerant", max_length=30, widget=widget, **kwargs)

    def clean(self, value):
        """The name of the one refrigerant that was meant."""
        typed = super().clean(value)
        try:
            return refrigerants.meant(typed).name
        except InputError as error:
            raise forms.ValidationError(str(error)) from None


class QuickLookForm(forms.Form):
    """The two things a reading needs; nothing is chosen before."""

    kind = forms.ChoiceField(label="Kind", choices=[("", "Choose the kind"), *CHOICES["kind"].items()])
    refrigerant = RefrigerantField()


def _kinds():
    """Every kind in every build it may have: the kind alone for its usual build, else kind and build."""
    choices = []
    for build in BUILDS.values():
        for kind in build.kinds:
            usual = build.label_of(KINDS[kind]) == KINDS[kind].label
            choices.append((kind if usual else f"{kind}:{build.code}", build.label_of(KINDS[kind])))
    return choices


class NewCallForm(forms.Form):
    """A visit to a known unit."""

    unit = forms.ModelChoiceField(label="Unit", queryset=Unit.objects.none(), empty_label="Choose a unit")
    complaint = forms.CharField(
        label="Complaint, in the customer's words",
        required=False,
        max_length=4000,
        widget=forms.Textarea(attrs={"rows": 3}),
    )

    def __init__(self, *args, user, **kwargs):
        super().__init__(*args, **kwargs)
        self.fields["unit"].queryset = Unit.objects.for_user(user).filter(site__isnull=False).select_related("site")


# Figures of the plate that a person may read in other units than they are stored in.
MEASURED = ("set_f", "differential_f", "critical_charge_oz")


class FigureField(forms.CharField):
    """A figure of the plate, typed and shown in the person's own units, stored in the core's."""

    def __init__(self, name, shown, **kwargs):
        self.limit, self.shown = name, shown
        super().__init__(required=False, max_length=30, widget=forms.TextInput(attrs={"inputmode": "decimal"}), **kwargs)

    def prepare_value(self, value):
        """A stored figure as it is typed; what was typed wrongly stays as it is."""
        stored = isinstance(value, (int, float))
        return self.shown.edit(value, LIMITS[self.limit][2], 2) if stored else value

    def clean(self, value):
        """The figure in its stored unit, inside the limits of the core."""
        typed = super().clean(value)
        if not typed:
            return None
        _, _, unit, label = LIMITS[self.limit]
        try:
            return check_figure(self.limit, self.shown.parse(typed, unit), self.shown)
        except InputError as error:
            text = str(error)
            raise forms.ValidationError(text if text.startswith(label) else f"{label}: {text}") from None


class UnitForm(forms.ModelForm):
    """A unit as its plate says; what is left empty takes the default of its kind."""

    site_name = forms.CharField(label="Site", max_length=80, widget=forms.TextInput(attrs={"list": "known-sites"}))
    kind = forms.ChoiceField(label="Kind", choices=_kinds, widget=forms.RadioSelect)
    refrigerant = RefrigerantField()

    class Meta:
        model = Unit
        fields = ["name", "kind", "refrigerant", "metering", "receiver", "condensing", "head_control", "defrost",
                  "box_control", "set_f", "differential_f", "critical_charge_oz", "compressor_rla_a", "nameplate_v",
                  "phases", "evaporators", "plant", "coil_face_ft2", "make", "serial", "notes"]  # fmt: skip
        labels = {
            "name": "What it is called",
            "metering": "Metering",
            "receiver": "Receiver",
            "head_control": "Head control",
            "box_control": "Box control",
            "plant": "Shares a plant or rack called",
            "coil_face_ft2": "Coil face, ft²",
            "make": "Make and model",
            "serial": "Serial number",
            "notes": "Notes",
            **{name: label for name, (_, _, _, label) in LIMITS.items()},
        }
        widgets = {
            "notes": forms.Textarea(attrs={"rows": 3}),
            "receiver": forms.Select(choices=[("", "usual for the kind"), ("true", "yes"), ("false", "no")]),
        }

    field_order = ["site_name", "name", "kind", "refrigerant", "altitude_ft"]

    def __init__(self, *args, shown, **kwargs):
        super().__init__(*args, **kwargs)
        if self.instance.build:
            self.initial["kind"] = f"{self.instance.kind}:{self.instance.build}"
        for name in MEASURED:
            _, _, unit, label = LIMITS[name]
            self.fields[name] = FigureField(name, shown, label=f"{label}, {shown.label(unit)}")
        # The altitude is that of the place: it is kept with the site, for every unit there.
        self.fields["altitude_ft"] = FigureField("altitude_ft", shown, label="Altitude of the site, ft")
        self.order_fields(self.field_order)
        for name in ("metering", "condensing", "head_control", "defrost", "box_control", "phases"):
            choices = [(code, label) for code, label in self.fields[name].choices if code != ""]
            self.fields[name].choices = [("", "usual for the kind"), *choices]
        for name in LIMITS:
            if name in self.fields:
                self.fields[name].required = False

    def clean_kind(self):
        """The kind; its build, where it is not the usual one, goes with it."""
        kind, _, self.instance.build = self.cleaned_data["kind"].partition(":")
        return kind

    def clean(self):
        """Hold every figure against the limits of the core."""
        cleaned = super().clean()
        for name in LIMITS:
            value = cleaned.get(name)
            if value is not None and name in self.fields and name not in (*MEASURED, "altitude_ft"):
                try:
                    check_figure(name, value)
                except InputError as error:
                    self.add_error(name, str(error))
        return cleaned


class KeepForm(forms.Form):
    """Keep a quick look on a known unit or as a new one."""

    unit = forms.ModelChoiceField(label="On a known unit", queryset=Unit.objects.none(), required=False, empty_label="or as a new unit:")
    site_name = forms.CharField(label="Site", required=False, max_length=80, widget=forms.TextInput(attrs={"list": "known-sites"}))
    unit_name = forms.CharField(label="What the unit is called", required=False, max_length=80)

    def __init__(self, *args, user, refrigerant, **kwargs):
        super().__init__(*args, **kwargs)
        known = Unit.objects.for_user(user).filter(site__isnull=False, refrigerant=refrigerant)
        self.fields["unit"].queryset = known.select_related("site")
        self.sites = Site.objects.for_user(user)

    def clean(self):
        """Either a unit, or a site and a name."""
        cleaned = super().clean()
        if not cleaned.get("unit"):
            for name, label in (("site_name", "Site"), ("unit_name", "Unit name")):
                if not (cleaned.get(name) or "").strip():
                    self.add_error(name, f"{label}: needed for a new unit, 1 to 80 letters")
        return cleaned
