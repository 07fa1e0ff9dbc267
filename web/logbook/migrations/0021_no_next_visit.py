from django.db import migrations


class Migration(migrations.Migration):
    """What was promised stands as follow-ups since the last migration."""

    dependencies = [("logbook", "0020_prove")]

    operations = [
        migrations.RemoveField(
            model_name="call",
            name="next_visit",
        ),
        migrations.RemoveField(
            model_name="call",
            name="next_visit_why",
        ),
    ]
