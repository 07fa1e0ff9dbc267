"""What the migrations up to 0033 come to, for a database that is made now: it is made in a tenth of the time.

One that was made before goes the old way, step by step, with what moves its data.
"""

import uuid

import django.core.serializers.json
import django.db.models.deletion
import django.utils.timezone
from django.conf import settings
from django.db import migrations, models

from web.accounts.migrations._at_once import AtOnce


class Migration(migrations.Migration):
    initial = True
    replaces = [
        ("logbook", "0001_initial"),
        ("logbook", "0002_bands_of_a_unit"),
        ("logbook", "0003_reading_sets"),
        ("logbook", "0004_overrides_and_findings"),
        ("logbook", "0005_defrost_programs"),
        ("logbook", "0006_plans_watches_controllers"),
        ("logbook", "0007_headlines"),
        ("logbook", "0008_devices_and_one_of_each"),
        ("logbook", "0009_acts"),
        ("logbook", "0010_make_and_serial"),
        ("logbook", "0011_build_plate_photo_altitude"),
        ("logbook", "0012_melt_pauses"),
        ("logbook", "0013_measurements"),
        ("logbook", "0014_power_kept"),
        ("logbook", "0015_switch_moments"),
        ("logbook", "0016_days_of_a_site"),
        ("logbook", "0017_weighing"),
        ("logbook", "0018_refrigerant"),
        ("logbook", "0019_leak_readings_first_start"),
        ("logbook", "0020_prove"),
        ("logbook", "0021_no_next_visit"),
        ("logbook", "0022_wording"),
        ("logbook", "0023_quote"),
        ("logbook", "0024_links"),
        ("logbook", "0025_times"),
        ("logbook", "0026_leaving_and_van"),
        ("logbook", "0027_happened_and_case_files"),
        ("logbook", "0028_leaving_by_the_cores_words"),
        ("logbook", "0029_sent_once"),
        ("logbook", "0030_signed_quotes_and_van"),
        ("logbook", "0031_lifted_leads"),
        ("logbook", "0032_gas_by_eye"),
        ("logbook", "0033_leak_of_a_coil"),
    ]

    dependencies = [
        ("accounts", "0009_day"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        AtOnce(
            [
                migrations.CreateModel(
                    name="Call",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("number", models.PositiveIntegerField()),
                        ("opened_at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("closed_at", models.DateTimeField(blank=True, null=True)),
                        ("complaint", models.TextField(blank=True)),
                        ("changed", models.TextField(blank=True)),
                        ("check_in_min", models.PositiveSmallIntegerField(blank=True, null=True)),
                        ("checked_in_at", models.DateTimeField(blank=True, null=True)),
                        ("found", models.TextField(blank=True)),
                        ("done", models.TextField(blank=True)),
                        ("advice", models.TextField(blank=True)),
                        ("declined", models.TextField(blank=True)),
                        (
                            "told_with",
                            models.JSONField(blank=True, default=dict, help_text="What a case file brought along beside its events"),
                        ),
                        ("revision", models.PositiveIntegerField(default=0, editable=False)),
                        (
                            "opened_by",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.PROTECT, related_name="calls", to=settings.AUTH_USER_MODEL
                            ),
                        ),
                        ("shop", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="calls", to="accounts.shop")),
                    ],
                    options={
                        "ordering": ["-opened_at"],
                    },
                ),
                migrations.CreateModel(
                    name="Headline",
                    fields=[
                        (
                            "call",
                            models.OneToOneField(
                                on_delete=django.db.models.deletion.CASCADE,
                                primary_key=True,
                                related_name="kept_headline",
                                serialize=False,
                                to="logbook.call",
                            ),
                        ),
                        ("revision", models.PositiveIntegerField()),
                        ("code", models.CharField(max_length=16)),
                        ("until", models.DateTimeField(null=True)),
                        ("leader", models.CharField(blank=True, max_length=200)),
                        ("probability", models.FloatField(default=0.0)),
                        ("holds", models.PositiveSmallIntegerField(default=0)),
                        ("settling", models.DateTimeField(null=True)),
                    ],
                ),
                migrations.CreateModel(
                    name="BoxWatch",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("from_f", models.FloatField()),
                        ("ambient_f", models.FloatField()),
                        ("stock", models.CharField(choices=[("little", "little"), ("half", "half full"), ("full", "full")], max_length=8)),
                        ("remind_at", models.DateTimeField(blank=True, null=True)),
                        ("reminded_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Act",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("part", models.CharField(max_length=30)),
                        ("did", models.CharField(max_length=30)),
                        ("value", models.FloatField(blank=True, null=True)),
                        ("evaporator", models.PositiveSmallIntegerField(blank=True, null=True)),
                        ("note", models.CharField(blank=True, max_length=300)),
                        (
                            "by_eye",
                            models.BooleanField(
                                default=False, help_text="Gas without a scale: the value, where there is one, is an estimate"
                            ),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="ChangeStep",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "part",
                            models.CharField(
                                choices=[
                                    ("compressor", "Compressor"),
                                    ("valve", "Expansion valve"),
                                    ("drier", "Drier"),
                                    ("coil", "Coil"),
                                    ("cap_tube", "Capillary tube"),
                                    ("line", "Part of a line"),
                                    ("triple", "Triple evacuation"),
                                ],
                                max_length=12,
                            ),
                        ),
                        ("step", models.CharField(max_length=20)),
                        ("note", models.CharField(blank=True, max_length=120)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="ControllerTalk",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("wrote", models.JSONField(default=dict)),
                        ("settings", models.JSONField(default=dict)),
                        ("refused", models.JSONField(default=dict)),
                        ("complaint", models.CharField(blank=True, max_length=300)),
                        ("reason", models.CharField(blank=True, max_length=300)),
                        ("simulated", models.BooleanField(default=False)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="CustomerLink",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("key", models.UUIDField(default=uuid.uuid4, unique=True)),
                        ("until", models.DateTimeField()),
                        (
                            "call",
                            models.OneToOneField(
                                on_delete=django.db.models.deletion.CASCADE, related_name="customer_link", to="logbook.call"
                            ),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="Cylinder",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("number", models.CharField(max_length=40)),
                        ("refrigerant", models.CharField(max_length=12)),
                        ("recovery", models.BooleanField(default=False)),
                        ("tare_lb", models.FloatField(blank=True, null=True)),
                        ("water_lb", models.FloatField(blank=True, null=True)),
                        ("gone_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "shop",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="cylinders", to="accounts.shop"),
                        ),
                    ],
                    options={
                        "ordering": ["number"],
                    },
                ),
                migrations.CreateModel(
                    name="DefrostPlan",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "state",
                            models.CharField(
                                choices=[
                                    ("waiting", "waiting"),
                                    ("working", "working"),
                                    ("done", "done"),
                                    ("stopped", "stopped"),
                                    ("failed", "failed"),
                                ],
                                default="working",
                                max_length=7,
                            ),
                        ),
                        ("share", models.FloatField(default=0.0)),
                        ("touched_at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("asked", models.JSONField(default=dict)),
                        ("result", models.JSONField(default=dict)),
                        ("complaint", models.CharField(blank=True, max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="DefrostProgram",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("side", models.CharField(choices=[("found", "as found"), ("left", "as left")], max_length=5)),
                        ("starts", models.JSONField(default=list)),
                        ("figures", models.JSONField(default=dict)),
                        ("why", models.CharField(blank=True, max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="DefrostWatch",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("program", models.JSONField(default=dict)),
                        ("expected", models.JSONField(default=dict)),
                        ("marks", models.JSONField(default=dict)),
                        ("ended_by", models.CharField(blank=True, max_length=12)),
                        ("coil_after", models.CharField(blank=True, max_length=10)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Device",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("name", models.CharField(max_length=60)),
                        (
                            "kind",
                            models.CharField(choices=[("probes", "wireless probes"), ("controller", "case controller")], max_length=12),
                        ),
                        ("address", models.CharField(help_text="host:port", max_length=120)),
                        ("simulated", models.BooleanField(default=False)),
                        ("added_at", models.DateTimeField(default=django.utils.timezone.now)),
                        (
                            "shop",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="devices", to="accounts.shop"),
                        ),
                    ],
                    options={
                        "ordering": ["name"],
                    },
                ),
                migrations.CreateModel(
                    name="Finding",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("causes", models.JSONField()),
                        ("evaporator", models.PositiveSmallIntegerField(blank=True, null=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="FirstStartReading",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("minute", models.PositiveSmallIntegerField(choices=[(1, "1 min"), (10, "10 min"), (30, "30 min")])),
                        ("amps", models.FloatField()),
                        ("suction_psig", models.FloatField()),
                        ("discharge_psig", models.FloatField()),
                        (
                            "oil",
                            models.CharField(
                                choices=[("in_glass", "in the glass"), ("foaming", "foaming"), ("low", "low"), ("no_glass", "no glass")],
                                max_length=10,
                            ),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Happened",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("kind", models.CharField(max_length=20)),
                        ("data", models.JSONField(blank=True, default=dict)),
                        ("evaporator", models.PositiveSmallIntegerField(blank=True, null=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="IceDrawing",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("stage", models.CharField(choices=[("before", "before melting"), ("after", "after melting")], max_length=6)),
                        ("evaporator", models.PositiveSmallIntegerField(default=1)),
                        ("rows", models.JSONField()),
                        ("places", models.JSONField(blank=True, default=dict)),
                        ("oil", models.JSONField(blank=True, default=list)),
                        ("face_ft2", models.FloatField()),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="LeakLook",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("place", models.CharField(max_length=20)),
                        (
                            "heard",
                            models.CharField(
                                choices=[("no", "no"), ("signal", "signal"), ("twice", "signal twice"), ("bubbles", "bubbles")],
                                max_length=8,
                            ),
                        ),
                        ("reading", models.FloatField(blank=True, help_text="As the detector shows it, in whatever unit", null=True)),
                        (
                            "evaporator",
                            models.PositiveSmallIntegerField(
                                blank=True, help_text="Which coil, where a place of it was gone over", null=True
                            ),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Leaving",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("key", models.CharField(max_length=60)),
                        ("words", models.CharField(max_length=300)),
                        (
                            "answer",
                            models.CharField(
                                choices=[
                                    ("again", "I come back for it"),
                                    ("knows", "The customer knows and agrees"),
                                    ("watches", "The customer watches it and calls"),
                                    ("no_wait", "The customer would not wait for it"),
                                    ("purpose", "Left so on purpose"),
                                    ("display", "Read right on its own display"),
                                    ("needed", "Needed until it is put right"),
                                    ("word", "Agreed by word of mouth"),
                                    ("later", "They answer later, I ask again"),
                                ],
                                max_length=10,
                            ),
                        ),
                        ("reason", models.CharField(blank=True, max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="LogEntry",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("action", models.CharField(max_length=40)),
                        ("data", models.JSONField(default=dict, encoder=django.core.serializers.json.DjangoJSONEncoder)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(
                                blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="log", to="logbook.call"
                            ),
                        ),
                        ("shop", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="log", to="accounts.shop")),
                    ],
                    options={
                        "ordering": ["-at", "-pk"],
                    },
                ),
                migrations.CreateModel(
                    name="Measurement",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("what", models.CharField(choices=[("volts", "volts"), ("amps", "amps"), ("ohms", "ohms")], max_length=5)),
                        ("one", models.CharField(max_length=20)),
                        ("other", models.CharField(blank=True, max_length=20)),
                        ("value", models.FloatField()),
                        ("state", models.CharField(max_length=16)),
                        (
                            "lifted",
                            models.BooleanField(default=False, help_text="Ohms with the leads off the part: nothing lies beside it"),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Melt",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("method", models.CharField(max_length=20)),
                        ("ended_at", models.DateTimeField(blank=True, null=True)),
                        ("clear", models.BooleanField(blank=True, null=True)),
                        ("reason", models.CharField(blank=True, max_length=300)),
                        ("paused_at", models.DateTimeField(blank=True, null=True)),
                        ("paused_min", models.FloatField(default=0.0)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Outcome",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("suspects", models.JSONField(default=list)),
                        ("probability", models.FloatField(default=0.0)),
                        ("found", models.JSONField(default=list)),
                        ("minutes", models.FloatField(blank=True, null=True)),
                        ("done", models.JSONField(default=list)),
                        (
                            "answer",
                            models.CharField(
                                blank=True,
                                choices=[("held", "held"), ("came_back", "came back"), ("something_else", "something else")],
                                max_length=16,
                            ),
                        ),
                        ("answered_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "answered_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "call",
                            models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="outcome", to="logbook.call"),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="Override",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("action", models.CharField(max_length=20)),
                        ("holds", models.JSONField(default=list)),
                        ("texts", models.JSONField(default=list)),
                        ("reason", models.CharField(max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Photo",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("stop", models.CharField(blank=True, max_length=20)),
                        ("place", models.CharField(blank=True, max_length=30)),
                        ("caption", models.CharField(blank=True, max_length=120)),
                        ("image", models.ImageField(upload_to="photos/")),
                        ("thumbnail", models.ImageField(upload_to="thumbnails/")),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Placed",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "what",
                            models.CharField(
                                choices=[
                                    ("jumper", "Jumper"),
                                    ("lifted_lead", "Lead lifted"),
                                    ("output_moved", "Temporary: output moved"),
                                    ("gauges", "Gauges connected"),
                                    ("cylinder", "Cylinder connected"),
                                    ("king_valve", "King valve front-seated"),
                                    ("probe", "Probe in the box"),
                                    ("cover", "Condenser covered"),
                                    ("heater", "Heater"),
                                    ("other", "Left there"),
                                ],
                                max_length=16,
                            ),
                        ),
                        ("where", models.CharField(blank=True, max_length=120)),
                        ("does_not", models.CharField(blank=True, help_text="What no longer happens by itself", max_length=200)),
                        ("gone_at", models.DateTimeField(blank=True, null=True)),
                        ("left_why", models.CharField(blank=True, max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "gone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="ProofSeen",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("code", models.CharField(max_length=20)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Quote",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("terms", models.JSONField(blank=True, default=dict)),
                        ("answered_at", models.DateTimeField(blank=True, null=True)),
                        ("answered_name", models.CharField(blank=True, max_length=80)),
                        ("signature", models.TextField(blank=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="quote", to="logbook.call"),
                        ),
                        ("photos", models.ManyToManyField(blank=True, related_name="+", to="logbook.photo")),
                    ],
                ),
                migrations.CreateModel(
                    name="QuoteLine",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        (
                            "option",
                            models.CharField(
                                choices=[("now", "Put right for now"), ("good", "Put right for good"), ("replace", "Replace the unit")],
                                max_length=10,
                            ),
                        ),
                        (
                            "kind",
                            models.CharField(
                                choices=[("part", "part"), ("labour", "hours"), ("travel", "travel"), ("whole", "as a whole")],
                                max_length=10,
                            ),
                        ),
                        ("what", models.CharField(max_length=120)),
                        ("quantity", models.DecimalField(decimal_places=2, default=1, max_digits=8)),
                        ("cents", models.PositiveIntegerField(blank=True, null=True)),
                        (
                            "answer",
                            models.CharField(blank=True, choices=[("accepted", "accepted"), ("declined", "declined")], max_length=10),
                        ),
                        ("quote", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="lines", to="logbook.quote")),
                    ],
                    options={
                        "ordering": ["pk"],
                    },
                ),
                migrations.CreateModel(
                    name="QuoteSigned",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("name", models.CharField(max_length=80)),
                        ("signature", models.TextField()),
                        ("terms", models.JSONField(default=dict)),
                        ("seen", models.CharField(max_length=64)),
                        ("options", models.JSONField(default=list)),
                        ("accepted", models.CharField(blank=True, max_length=24)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "quote",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="signed", to="logbook.quote"),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                    },
                ),
                migrations.CreateModel(
                    name="Reading",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("key", models.CharField(max_length=40)),
                        ("value", models.JSONField()),
                        ("typed", models.CharField(blank=True, max_length=200)),
                        ("source", models.CharField(default="hand", max_length=40)),
                        ("evaporator", models.PositiveSmallIntegerField(blank=True, null=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="ReadingSet",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("label", models.CharField(max_length=60)),
                        ("good", models.BooleanField(default=False)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="SentOnce",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("name", models.CharField(max_length=64, unique=True)),
                        ("at", models.DateTimeField(auto_now_add=True, db_index=True)),
                        ("led_to", models.CharField(blank=True, max_length=500)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="SettingChange",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("parameter", models.CharField(max_length=30)),
                        ("as_found", models.CharField(max_length=80)),
                        ("as_left", models.CharField(max_length=80)),
                        ("why", models.CharField(max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Site",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("name", models.CharField(max_length=80)),
                        ("altitude_ft", models.IntegerField(blank=True, null=True)),
                        ("opens_min", models.PositiveSmallIntegerField(blank=True, null=True)),
                        ("closes_min", models.PositiveSmallIntegerField(blank=True, null=True)),
                        ("deliveries_min", models.JSONField(blank=True, default=list)),
                        ("coldest_f", models.FloatField(blank=True, help_text="Coldest outdoors of a usual year", null=True)),
                        (
                            "hottest_f",
                            models.FloatField(
                                blank=True, help_text="Hottest air at a condenser of a usual year, a roof's own heat with it", null=True
                            ),
                        ),
                        (
                            "not_to_exceed_cents",
                            models.PositiveIntegerField(blank=True, help_text="What work may cost without being asked", null=True),
                        ),
                        ("notes", models.TextField(blank=True)),
                        ("shop", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="sites", to="accounts.shop")),
                    ],
                    options={
                        "ordering": ["name"],
                    },
                ),
                migrations.CreateModel(
                    name="StandingTest",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("start_psig", models.FloatField()),
                        ("start_f", models.FloatField()),
                        ("now_psig", models.FloatField()),
                        ("now_f", models.FloatField()),
                        ("minutes", models.FloatField()),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="StartWiring",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("which", models.CharField(choices=[("found", "as found"), ("new", "for the new parts")], max_length=5)),
                        (
                            "gear",
                            models.CharField(
                                choices=[
                                    ("potential", "potential relay, start and run capacitor"),
                                    ("current", "current relay and start capacitor"),
                                    ("ptc", "PTC and run capacitor"),
                                    ("none", "run capacitor alone"),
                                ],
                                max_length=10,
                            ),
                        ),
                        ("wires", models.JSONField(default=list)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="SwitchMoment",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("what", models.CharField(choices=[("start", "starts"), ("stop", "stops")], max_length=5)),
                        ("box_f", models.FloatField(blank=True, null=True)),
                        ("psig", models.FloatField(blank=True, null=True)),
                        (
                            "source",
                            models.CharField(blank=True, help_text="What took it by itself; empty where a person tapped it", max_length=24),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="TimeMark",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "what",
                            models.CharField(
                                choices=[
                                    ("arrived", "Arrived"),
                                    ("waiting", "Waiting"),
                                    ("away", "Away for parts"),
                                    ("back", "Back at work"),
                                    ("left", "Left"),
                                ],
                                max_length=8,
                            ),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="TrendLog",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("name", models.CharField(max_length=120)),
                        (
                            "source",
                            models.CharField(
                                choices=[("file", "file"), ("probes", "probes"), ("controller", "controller")],
                                default="file",
                                max_length=10,
                            ),
                        ),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        (
                            "state",
                            models.CharField(
                                choices=[
                                    ("asked", "to be matched"),
                                    ("reading", "being read"),
                                    ("ready", "read"),
                                    ("failed", "not read"),
                                    ("stopped", "stopped"),
                                ],
                                default="asked",
                                max_length=8,
                            ),
                        ),
                        ("touched_at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("file", models.FileField(blank=True, upload_to="incoming/")),
                        ("size", models.PositiveIntegerField(default=0)),
                        ("layout", models.JSONField(blank=True, default=dict)),
                        ("match", models.JSONField(blank=True, default=dict)),
                        ("zone", models.CharField(blank=True, max_length=60)),
                        ("clock", models.CharField(blank=True, max_length=10)),
                        ("swapped", models.BooleanField(default=False)),
                        ("read_rows", models.PositiveIntegerField(default=0)),
                        ("complaint", models.CharField(blank=True, max_length=300)),
                        ("begins", models.DateTimeField(blank=True, null=True)),
                        ("ends", models.DateTimeField(blank=True, null=True)),
                        ("rows", models.PositiveIntegerField(default=0)),
                        ("notes", models.JSONField(blank=True, default=list)),
                        ("findings", models.JSONField(blank=True, default=list)),
                        ("marks", models.JSONField(blank=True, default=list)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="trend_logs",
                                to="logbook.call",
                            ),
                        ),
                        (
                            "shop",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="trend_logs", to="accounts.shop"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["begins", "pk"],
                    },
                ),
                migrations.CreateModel(
                    name="TrendData",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("packed", models.BinaryField()),
                        (
                            "log",
                            models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="data", to="logbook.trendlog"),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="TrendMatch",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("headers", models.CharField(max_length=64)),
                        ("match", models.JSONField(default=dict)),
                        ("clock", models.CharField(blank=True, max_length=10)),
                        ("swapped", models.BooleanField(default=False)),
                        (
                            "shop",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="trend_matches", to="accounts.shop"
                            ),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="Unit",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("name", models.CharField(max_length=80)),
                        (
                            "kind",
                            models.CharField(
                                choices=[
                                    ("walk_in_cooler", "walk-in cooler"),
                                    ("walk_in_freezer", "walk-in freezer"),
                                    ("reach_in_cooler", "reach-in cooler"),
                                    ("reach_in_freezer", "reach-in freezer"),
                                    ("prep_rail", "prep rail"),
                                    ("display_cooler", "display cooler"),
                                    ("display_freezer", "display freezer"),
                                    ("bottle_cooler", "bottle cooler"),
                                    ("provision_room_cooler", "provision room, cool"),
                                    ("provision_room_freezer", "provision room, frozen"),
                                ],
                                max_length=30,
                            ),
                        ),
                        ("build", models.CharField(blank=True, max_length=20)),
                        ("refrigerant", models.CharField(max_length=12)),
                        (
                            "metering",
                            models.CharField(
                                blank=True,
                                choices=[("txv", "expansion valve"), ("eev", "electronic valve"), ("cap_tube", "capillary tube")],
                                max_length=10,
                            ),
                        ),
                        (
                            "condensing",
                            models.CharField(blank=True, choices=[("air", "air-cooled"), ("water", "water-cooled")], max_length=10),
                        ),
                        ("receiver", models.BooleanField(blank=True, null=True)),
                        (
                            "head_control",
                            models.CharField(
                                blank=True,
                                choices=[
                                    ("none", "none"),
                                    ("mixing_valve", "mixing valve"),
                                    ("fan_cycling", "fan cycling"),
                                    ("fan_speed", "fan speed"),
                                    ("mixing_valve_and_fan", "mixing valve and fan"),
                                ],
                                max_length=24,
                            ),
                        ),
                        (
                            "defrost",
                            models.CharField(
                                blank=True,
                                choices=[
                                    ("none", "none"),
                                    ("off_cycle", "off-cycle"),
                                    ("timed_air", "timed air"),
                                    ("electric", "electric"),
                                    ("hot_gas", "hot gas"),
                                ],
                                max_length=12,
                            ),
                        ),
                        (
                            "box_control",
                            models.CharField(
                                blank=True,
                                choices=[
                                    ("thermostat", "thermostat"),
                                    ("controller", "controller"),
                                    ("suction_pressure", "suction pressure"),
                                ],
                                max_length=20,
                            ),
                        ),
                        ("set_f", models.FloatField(blank=True, null=True)),
                        ("differential_f", models.FloatField(blank=True, null=True)),
                        ("critical_charge_oz", models.FloatField(blank=True, null=True)),
                        ("compressor_rla_a", models.FloatField(blank=True, null=True)),
                        ("nameplate_v", models.FloatField(blank=True, null=True)),
                        ("phases", models.PositiveSmallIntegerField(blank=True, choices=[(1, "1"), (3, "3")], null=True)),
                        ("evaporators", models.PositiveSmallIntegerField(blank=True, null=True)),
                        (
                            "label_charge_oz",
                            models.FloatField(blank=True, help_text="Charge of the plate where it is not critical", null=True),
                        ),
                        ("coil_names", models.JSONField(blank=True, default=list)),
                        ("bands", models.JSONField(blank=True, default=dict)),
                        ("wiring", models.JSONField(blank=True, default=dict)),
                        ("altitude_ft", models.FloatField(blank=True, null=True)),
                        ("stem_reversed", models.BooleanField(default=False, help_text="Its valve opens clockwise, as few do")),
                        (
                            "plant",
                            models.CharField(
                                blank=True,
                                help_text="Shared condensing unit or rack; units of a site that name the same are siblings",
                                max_length=80,
                            ),
                        ),
                        ("coil_face_ft2", models.FloatField(blank=True, null=True)),
                        ("make", models.CharField(blank=True, max_length=80)),
                        ("serial", models.CharField(blank=True, max_length=80)),
                        ("plate_photo", models.ImageField(blank=True, upload_to="photos")),
                        ("plate_small", models.ImageField(blank=True, upload_to="thumbnails")),
                        ("notes", models.TextField(blank=True)),
                        (
                            "controller",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.SET_NULL,
                                related_name="controls",
                                to="logbook.device",
                            ),
                        ),
                        (
                            "probes",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.SET_NULL,
                                related_name="read_at",
                                to="logbook.device",
                            ),
                        ),
                        ("shop", models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="units", to="accounts.shop")),
                        (
                            "site",
                            models.ForeignKey(
                                blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name="units", to="logbook.site"
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["site__name", "name"],
                    },
                ),
                migrations.AddField(
                    model_name="trendlog",
                    name="unit",
                    field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="trend_logs", to="logbook.unit"),
                ),
                migrations.CreateModel(
                    name="Sticker",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("key", models.UUIDField(default=uuid.uuid4, unique=True)),
                        (
                            "unit",
                            models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="sticker", to="logbook.unit"),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="SiblingState",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("state", models.CharField(choices=[("ok", "fine"), ("bad", "bad too")], max_length=4)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        ("unit", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="+", to="logbook.unit")),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="GasMove",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("day", models.DateField()),
                        (
                            "kind",
                            models.CharField(
                                choices=[
                                    ("bought", "bought, or brought"),
                                    ("added", "into a unit"),
                                    ("recovered", "out of a unit"),
                                    ("returned", "returned to the dealer"),
                                    ("disposed", "destroyed"),
                                    ("lost", "lost from the cylinder"),
                                ],
                                max_length=10,
                            ),
                        ),
                        ("oz", models.FloatField(help_text="Negative for a counter-entry")),
                        ("refrigerant", models.CharField(max_length=12)),
                        ("at", models.DateTimeField(auto_now_add=True)),
                        ("reason", models.CharField(blank=True, max_length=200)),
                        (
                            "act",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="gas_moves",
                                to="logbook.act",
                            ),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="gas_moves",
                                to="logbook.call",
                            ),
                        ),
                        (
                            "counters",
                            models.OneToOneField(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="countered_by",
                                to="logbook.gasmove",
                            ),
                        ),
                        (
                            "cylinder",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="moves",
                                to="logbook.cylinder",
                            ),
                        ),
                        (
                            "shop",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="gas_moves", to="accounts.shop"),
                        ),
                        (
                            "unit",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="gas_moves",
                                to="logbook.unit",
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["-day", "-pk"],
                    },
                ),
                migrations.CreateModel(
                    name="FollowUp",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("code", models.CharField(blank=True, max_length=16)),
                        ("what", models.CharField(max_length=200)),
                        ("why", models.CharField(blank=True, max_length=200)),
                        ("due", models.DateField()),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("done_at", models.DateTimeField(blank=True, null=True)),
                        ("let_go", models.CharField(blank=True, max_length=200)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="follow_ups", to="logbook.call"),
                        ),
                        (
                            "done_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "done_on",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="follow_ups_done",
                                to="logbook.call",
                            ),
                        ),
                        (
                            "shop",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="follow_ups", to="accounts.shop"),
                        ),
                        (
                            "unit",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="follow_ups", to="logbook.unit"),
                        ),
                    ],
                    options={
                        "ordering": ["due", "pk"],
                    },
                ),
                migrations.AddField(
                    model_name="call",
                    name="unit",
                    field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="calls", to="logbook.unit"),
                ),
                migrations.CreateModel(
                    name="BandChange",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("quantity", models.CharField(max_length=40)),
                        ("low", models.FloatField(blank=True, null=True)),
                        ("high", models.FloatField(blank=True, null=True)),
                        ("why", models.CharField(max_length=300)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "unit",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="bandchanges", to="logbook.unit"),
                        ),
                    ],
                    options={
                        "ordering": ["-at", "-pk"],
                    },
                ),
                migrations.CreateModel(
                    name="VacuumReading",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("microns", models.FloatField()),
                        ("pump", models.BooleanField(default=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="ValveTurn",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("direction", models.CharField(max_length=3)),
                        ("turns", models.FloatField()),
                        ("goal", models.CharField(blank=True, max_length=5)),
                        ("objections", models.JSONField(blank=True, default=list)),
                        ("reason", models.CharField(blank=True, max_length=300)),
                        ("evaporator", models.PositiveSmallIntegerField(blank=True, null=True)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="VanPart",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("what", models.CharField(max_length=80)),
                        ("carried", models.DecimalField(decimal_places=2, default=0, max_digits=8)),
                        ("wanted", models.DecimalField(decimal_places=2, default=0, max_digits=8)),
                        ("cents", models.PositiveIntegerField(blank=True, null=True)),
                        (
                            "person",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="van_parts", to=settings.AUTH_USER_MODEL
                            ),
                        ),
                        (
                            "shop",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="van_parts", to="accounts.shop"),
                        ),
                    ],
                    options={
                        "ordering": ["what"],
                    },
                ),
                migrations.CreateModel(
                    name="PartUsed",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        ("undone_at", models.DateTimeField(blank=True, null=True)),
                        ("what", models.CharField(max_length=80)),
                        ("quantity", models.DecimalField(decimal_places=2, default=1, max_digits=8)),
                        ("cents", models.PositiveIntegerField(blank=True, null=True)),
                        (
                            "out_of_van",
                            models.DecimalField(
                                blank=True, decimal_places=2, help_text="How many the van had of them", max_digits=8, null=True
                            ),
                        ),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="%(class)ss", to="logbook.call"),
                        ),
                        (
                            "undone_by",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.PROTECT,
                                related_name="+",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "van_part",
                            models.ForeignKey(
                                blank=True,
                                null=True,
                                on_delete=django.db.models.deletion.SET_NULL,
                                related_name="used",
                                to="logbook.vanpart",
                            ),
                        ),
                    ],
                    options={
                        "ordering": ["at", "pk"],
                        "abstract": False,
                    },
                ),
                migrations.CreateModel(
                    name="Weighing",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("cylinder", models.CharField(blank=True, max_length=40)),
                        ("before_oz", models.FloatField()),
                        ("after_oz", models.FloatField()),
                        ("lost_oz", models.FloatField(default=0.0)),
                        ("form", models.CharField(blank=True, choices=[("liquid", "as liquid"), ("vapour", "as vapour")], max_length=6)),
                        (
                            "act",
                            models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name="weighing", to="logbook.act"),
                        ),
                    ],
                ),
                migrations.CreateModel(
                    name="Wording",
                    fields=[
                        ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                        ("section", models.CharField(max_length=10)),
                        ("key", models.CharField(max_length=300)),
                        ("drafted", models.TextField(blank=True)),
                        ("text", models.TextField(blank=True)),
                        ("at", models.DateTimeField(default=django.utils.timezone.now)),
                        (
                            "by",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
                        ),
                        (
                            "call",
                            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="wordings", to="logbook.call"),
                        ),
                    ],
                    options={
                        "ordering": ["pk"],
                    },
                ),
                migrations.AddConstraint(
                    model_name="cylinder",
                    constraint=models.UniqueConstraint(fields=("shop", "number"), name="cylinder_number_once_in_a_shop"),
                ),
                migrations.AddConstraint(
                    model_name="defrostplan",
                    constraint=models.UniqueConstraint(
                        condition=models.Q(("state__in", ["waiting", "working"])), fields=("call",), name="one_plan_at_work_on_a_call"
                    ),
                ),
                migrations.AddConstraint(
                    model_name="defrostwatch",
                    constraint=models.UniqueConstraint(
                        condition=models.Q(("ended_by", ""), ("undone_at", None)), fields=("call",), name="one_defrost_watched_on_a_call"
                    ),
                ),
                migrations.AddConstraint(
                    model_name="device",
                    constraint=models.UniqueConstraint(fields=("shop", "name"), name="device_name_once_in_a_shop"),
                ),
                migrations.AddConstraint(
                    model_name="melt",
                    constraint=models.UniqueConstraint(
                        condition=models.Q(("ended_at", None), ("undone_at", None)), fields=("call",), name="one_melt_under_way_on_a_call"
                    ),
                ),
                migrations.AddIndex(
                    model_name="reading",
                    index=models.Index(fields=["call", "key"], name="logbook_rea_call_id_9ca895_idx"),
                ),
                migrations.AddConstraint(
                    model_name="site",
                    constraint=models.UniqueConstraint(fields=("shop", "name"), name="site_name_once_in_a_shop"),
                ),
                migrations.AddConstraint(
                    model_name="trendmatch",
                    constraint=models.UniqueConstraint(fields=("shop", "headers"), name="one_match_of_headers_in_a_shop"),
                ),
                migrations.AddIndex(
                    model_name="trendlog",
                    index=models.Index(fields=["unit", "state"], name="logbook_tre_unit_id_fbb0e5_idx"),
                ),
                migrations.AddConstraint(
                    model_name="trendlog",
                    constraint=models.UniqueConstraint(
                        condition=models.Q(models.Q(("source", "file"), _negated=True), ("undone_at", None)),
                        fields=("call", "source"),
                        name="one_live_log_of_a_source_on_a_call",
                    ),
                ),
                migrations.AddIndex(
                    model_name="gasmove",
                    index=models.Index(fields=["shop", "-day"], name="logbook_gas_shop_id_263ab7_idx"),
                ),
                migrations.AddIndex(
                    model_name="gasmove",
                    index=models.Index(fields=["cylinder", "kind"], name="logbook_gas_cylinde_d85063_idx"),
                ),
                migrations.AddIndex(
                    model_name="followup",
                    index=models.Index(fields=["shop", "done_at", "due"], name="logbook_fol_shop_id_9a6d24_idx"),
                ),
                migrations.AddConstraint(
                    model_name="call",
                    constraint=models.UniqueConstraint(fields=("shop", "number"), name="call_number_once_in_a_shop"),
                ),
                migrations.AddConstraint(
                    model_name="vanpart",
                    constraint=models.UniqueConstraint(fields=("person", "what"), name="a_part_once_in_a_van"),
                ),
                migrations.AddConstraint(
                    model_name="wording",
                    constraint=models.UniqueConstraint(fields=("call", "key"), name="one_wording_of_a_sentence"),
                ),
            ]
        )
    ]
