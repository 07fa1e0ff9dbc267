"""The files that rows name, in one list: what a backup takes along, and what is left when no row names a file any more."""

import time

from django.apps import apps
from django.conf import settings
from django.db import models

# A file nobody names is swept away once no upload can still be writing it.
ORPHANED_S = 3600


def fields():
    """Every field of the application that names a file."""
    ours = [model for model in apps.get_models() if model.__module__.startswith("web.")]
    return [field for model in ours for field in model._meta.local_fields if isinstance(field, models.FileField)]


def columns():
    """Where a database names files, as (table, column): also for one that is not of this version."""
    return [(field.model._meta.db_table, field.column) for field in fields()]


def named():
    """The names of all files that are named by a row."""
    found = set()
    for field in fields():
        found.update(field.model._default_manager.exclude(**{field.name: ""}).values_list(field.name, flat=True))
    return found


def sweep(now=None):
    """Delete files that no row names: what an upload that was cut off left behind. Returns how many."""
    kept, now, swept = named(), now or time.time(), 0
    for folder in sorted({str(field.upload_to).strip("/") for field in fields()}):
        for path in (settings.MEDIA_ROOT / folder).glob("*"):
            if f"{folder}/{path.name}" not in kept and now - path.stat().st_mtime > ORPHANED_S:
                path.unlink()
                swept += 1
    return swept
