"""Moments are told by the clock of the work; no table changes."""

from django.db import migrations, models

import web.work_time

AT = """
    act bandchange boxwatch changestep controllertalk defrostplan defrostprogram defrostwatch finding firststartreading followup
    happened icedrawing leaklook leaving logentry measurement melt override partused photo placed proofseen quote quotesigned
    reading readingset settingchange siblingstate standingtest startwiring switchmoment timemark trendlog vacuumreading valveturn
    wording
"""
ROWS = [*((name, "at") for name in AT.split()), ("call", "opened_at"), ("defrostplan", "touched_at"), ("trendlog", "touched_at")]


class Migration(migrations.Migration):
    dependencies = [("logbook", "0034_related_names")]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[migrations.AlterField(model, field, models.DateTimeField(default=web.work_time.now)) for model, field in ROWS]
        )
    ]
