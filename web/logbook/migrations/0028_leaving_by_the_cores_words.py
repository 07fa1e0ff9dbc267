"""What was answered to what is left goes by the words the core has for it: one list for page, report and case file."""

from django.db import migrations

# The start of a key as it was -> as it is; of what follows it the rest stays.
KEYS = {
    "service": "service_mode",
    "unconfirmed:": "unconfirmed:",
    "ice": "ice_left",
    "for_now:": "left_there:",
    "said:": "left_there:",
    "proof:": "not_proved:",
    "quote": "quote",
    "unasked": "unasked",
}


def forward(apps, schema_editor):
    Leaving, Placed = (apps.get_model("logbook", name) for name in ("Leaving", "Placed"))
    for row in Leaving.objects.all():
        row.key = _placed(Placed, row) if row.key.startswith("placed:") else _key(row.key)
        row.save(update_fields=["key"])


def _key(old):
    for start, now in KEYS.items():
        if old == start or (start.endswith(":") and old.startswith(start)):
            return now + old[len(start) :]
    return old


def _placed(Placed, row):
    """A thing placed goes by what it is; a second of a kind by its number among those of the unit too."""
    pk = row.key.partition(":")[2]
    mine = Placed.objects.filter(pk=int(pk)).first() if pk.isdigit() else None
    if mine is None:
        return row.key
    before = Placed.objects.filter(call__unit_id=mine.call.unit_id, what=mine.what, undone_at=None, gone_at=None, pk__lt=mine.pk).count()
    return f"left_there:{mine.what}.{before + 1}" if before else f"left_there:{mine.what}"


class Migration(migrations.Migration):
    dependencies = [("logbook", "0027_happened_and_case_files")]

    operations = [migrations.RunPython(forward, migrations.RunPython.noop)]
